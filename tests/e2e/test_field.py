"""The phone in the field: a second browser on the other address, paired by its code."""

from __future__ import annotations

import os
import re
import urllib.error

import cv2
import numpy as np
import pytest
from playwright.sync_api import expect

from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, plan, render_frame
from ridgewind.standin.card import SLATE_S, held_up
from ridgewind.standin.render import Renderer
from ridgewind.standin.scenes import SCENES
from tests.conftest import shaken, write_film
from tests.e2e.conftest import ADDRESS, KEY, own_browser
from tests.e2e.helpers import LOOKS, LYING, check_accessibility


def begin_session(server) -> int:
    """A short session, planned and kept."""
    return server.put("/api/drills/hands/session", {}, "POST")["session_id"]


def test_the_settings_open_to_phones_and_a_removed_one_is_out_at_once(fresh, page, driver):
    page.goto(f"{fresh.address}/settings")
    section = page.get_by_role("region", name="Phones")
    expect(section).to_contain_text("a phone runs the session")
    fresh.put("/api/network", {"address": ADDRESS}, "POST")
    page.reload()
    expect(section.get_by_role("button", name="Pair a phone")).to_be_visible()
    page.keyboard.press("n")
    expect(section).to_contain_text("5 tries")
    digits = fresh.get("/api/network")["code"]["digits"]
    expect(section).to_contain_text(f"{digits[:3]} {digits[3:]}")
    with own_browser(driver) as pocket:
        pocket.goto(fresh.get("/api/network")["opening"]["address"])
        expect(pocket.get_by_role("heading", name="Pair this phone")).to_be_visible()
        pocket.get_by_label("The six digits").fill("000000" if digits != "000000" else "111111")
        pocket.get_by_role("button", name="Pair").click()
        expect(pocket.get_by_role("alert")).to_contain_text("not the code")
        expect(section).to_contain_text("4 tries")
        pocket.wait_for_timeout(1100)
        pocket.get_by_label("The six digits").fill(digits)
        pocket.get_by_role("button", name="Pair").click()
        expect(pocket.get_by_role("heading", name="In the field")).to_be_visible()
        expect(pocket.get_by_role("link", name="Settings")).to_have_count(0)
        row = section.get_by_role("list", name="Paired phones").get_by_role("listitem")
        expect(row).to_contain_text("last here")
        row.get_by_role("button", name="Let it in no more: Phone").click()
        expect(row).to_have_count(0)
        pocket.reload()
        expect(pocket.get_by_role("heading", name="Pair this phone")).to_be_visible()
    page.keyboard.press("o")
    expect(section.get_by_role("button", name="Open to phones")).to_be_visible()
    assert fresh.get("/api/network")["opening"] is None


def test_a_session_on_the_computer_is_steered_from_the_phone_and_taken_over(
    open_server, page, phone
):
    session = begin_session(open_server)
    page.goto(f"{open_server.address}/practice/{session}?speed=2")
    page.get_by_role("button", name=re.compile("begin")).click()
    page.get_by_role("button", name="Start").click()
    runner, remote = page.get_by_test_id("runner"), phone.get_by_test_id("remote")
    expect(runner).to_have_attribute("data-step", re.compile("set-up|warm-up"))
    phone.reload()
    phone.get_by_role("link", name="Run it").click()
    phone.get_by_role("button", name="Follow it on this screen").click()
    expect(phone.get_by_text("In step with the computer")).to_be_visible()
    phone.get_by_role("button", name="Skip").click()
    expect(runner).to_have_attribute("data-step", "slate")
    expect(remote).to_have_attribute("data-step", "slate")
    assert phone.get_by_alt_text("Code of take 1").get_attribute("src").startswith("data:")
    phone.get_by_role("button", name="Pause").click()
    expect(runner.get_by_role("button", name="Go on")).to_be_visible()
    expect(remote.get_by_role("button", name="Go on")).to_be_visible()
    phone.get_by_role("button", name="Run it here instead").click()
    phone.get_by_role("button", name="Start").click()
    expect(page.get_by_text("It runs on Pocket now")).to_be_visible()
    expect(phone.get_by_test_id("runner")).to_have_attribute("data-position", "0")


def test_a_session_runs_to_its_end_on_the_phone_with_the_network_gone(open_server, phone):
    session = begin_session(open_server)
    phone.goto(phone.url.replace("/field", f"/practice/{session}?speed=40"))
    phone.get_by_role("button", name=re.compile("begin")).click()
    runner = phone.get_by_test_id("runner")
    expect(runner).to_have_attribute("data-ready", "true")
    phone.context.set_offline(True)
    phone.get_by_role("button", name="Start").click()
    expect(phone.get_by_text("All done")).to_be_visible()
    taken = open_server.get(f"/api/sessions/{session}")["session"]["takes"]
    assert {one["state"] for one in taken} == {"planned"}
    phone.context.set_offline(False)
    open_server.wait_until(
        lambda: all(
            one["state"] == "filmed"
            for one in open_server.get(f"/api/sessions/{session}")["session"]["takes"]
        )
    )


def test_the_pages_open_again_with_the_computer_away(open_server, phone):
    session = begin_session(open_server)
    own = phone.url.replace("/field", f"/practice/{session}?speed=40")
    phone.evaluate("navigator.serviceWorker.ready")
    phone.goto(own)
    phone.get_by_role("button", name=re.compile("begin")).click()
    expect(phone.get_by_test_id("runner")).to_have_attribute("data-ready", "true")
    phone.context.set_offline(True)
    phone.goto(own)  # opened anew
    expect(phone.get_by_text("The computer does not answer at the moment.")).to_be_visible()
    phone.get_by_role("button", name=re.compile("begin")).click()
    phone.get_by_role("button", name="Start").click()
    expect(phone.get_by_text("All done")).to_be_visible()
    phone.context.set_offline(False)
    open_server.wait_until(
        lambda: all(
            one["state"] == "filmed"
            for one in open_server.get(f"/api/sessions/{session}")["session"]["takes"]
        )
    )
    (paired,) = open_server.get("/api/network")["phones"]
    open_server.put(f"/api/network/phones/{paired['id']}", {}, "DELETE")
    phone.goto(own)  # let in no more, it keeps nothing
    expect(phone.get_by_role("heading", name="Pair this phone")).to_be_visible()
    phone.wait_for_function("async () => (await caches.keys()).length === 0")


def test_a_session_in_one_file_runs_alone_and_gives_its_notes_back(fresh, page, driver, tmp_path):
    session = begin_session(fresh)
    page.goto(f"{fresh.address}/practice/{session}")
    with page.expect_download() as saved:
        page.get_by_role("link", name="In one file").click()
    saved.value.save_as(tmp_path / "alone.html")
    with own_browser(driver) as alone:
        asked = []
        alone.on("request", lambda request: asked.append(request.url))
        address = (tmp_path / "alone.html").as_uri()
        alone.goto(address)
        alone.get_by_role("button", name="Start").click()
        alone.get_by_role("button", name="Skip").click()
        expect(alone.locator("#code svg")).to_be_visible()
        alone.goto(f"{address}?speed=8")
        alone.get_by_role("button", name="Start").click()
        expect(alone.get_by_role("region", name="Notes of the take before")).to_be_visible()
        alone.get_by_role("button", name="felt good").click()
        expect(alone.get_by_text("All done. Rest.")).to_be_visible()
        alone.reload()  # what was noted is kept
        expect(alone.get_by_text("All done. Rest.")).to_be_visible()
        with alone.expect_download() as notes:
            alone.get_by_role("button", name="Save the notes").click()
        notes.value.save_as(tmp_path / "notes.json")
        assert {url.split(":")[0] for url in asked} <= {"file", "blob"}
    page.get_by_label("File of notes").set_input_files(tmp_path / "notes.json")
    expect(page.get_by_text("Notes of 6 takes are back.", exact=True)).to_be_visible()

    def takes() -> list[dict]:
        return fresh.get(f"/api/sessions/{session}")["session"]["takes"]

    # They are sent one after the other.
    fresh.wait_until(lambda: [one["state"] for one in takes()] == ["filmed"] * 6)
    assert "good" in [one["felt"] for one in takes()]
    other = begin_session(fresh)
    page.goto(f"{fresh.address}/practice/{other}")
    page.get_by_label("File of notes").set_input_files(tmp_path / "notes.json")
    expect(page.get_by_role("alert")).to_contain_text("These notes are another session’s.")


def test_a_large_film_arrives_whole_and_once_though_the_line_is_cut(open_server, phone, tmp_path):
    film = write_film(tmp_path / "long walk.mp4", shaken(45))
    with film.open("ab") as padded:  # a box that players pass over
        size = 300 << 20
        padded.write((size + 8).to_bytes(4, "big") + b"free")
        for _ in range(size >> 20):
            padded.write(os.urandom(1 << 20))
    phone.get_by_label("Films to send").set_input_files(film)
    uploads = tmp_path / "library" / "uploads"

    def received() -> int:
        return max((one.stat().st_size for one in uploads.iterdir() if not one.suffix), default=0)

    for share in (0.1, 0.4, 0.7):
        open_server.wait_until(lambda share=share: received() > share * size)
        phone.context.set_offline(True)
        before = received()
        phone.wait_for_timeout(1200)
        assert received() - before <= 8 << 20
        phone.context.set_offline(False)
    open_server.wait_until(lambda: len(open_server.get("/api/takes")["takes"]) == 1)
    (original,) = (tmp_path / "library" / "originals").iterdir()
    assert original.read_bytes() == film.read_bytes()
    assert [one for one in uploads.iterdir() if not one.suffix] == []


def test_a_clip_is_judged_on_the_phone_and_kept(open_server, phone, tmp_path):
    film = write_film(tmp_path / "clip.mp4", shaken(90, amplitude_px=0.2))
    phone.get_by_role("link", name="Judge a clip").click()
    phone.get_by_label("A clip that is here").set_input_files(film)
    expect(phone.get_by_test_id("verdict")).to_have_text(re.compile("Good enough|Again"))
    phone.get_by_role("button", name="Keep").click()
    expect(phone.get_by_role("button", name="Kept")).to_be_visible()
    assert open_server.get("/api/takes")["takes"][0]["choice"] == "keep"


def test_the_meter_tells_the_simulated_camera_soon_and_as_the_whole_film_does(fresh, page):
    page.goto(f"{fresh.address}/field/live")
    page.get_by_role("radio", name="Simulated camera").click()
    page.get_by_role("button", name="Start").click()
    face = page.get_by_test_id("live")
    expect(page.get_by_test_id("live-gust")).not_to_have_text("–")
    lags = [float(face.get_attribute("data-lag"))]
    while float(face.get_attribute("data-t")) < 8:
        page.wait_for_timeout(300)
        lags.append(float(face.get_attribute("data-lag")))
    # A quiet computer takes under 100 ms; what is timed stands in no test that runs beside others.
    assert 0 < sorted(lags)[len(lags) // 2] < 3000
    expect(page.get_by_role("timer")).to_contain_text("best")
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Keep it as a take")).to_be_visible()
    live = float(face.get_attribute("data-whole"))
    page.keyboard.press("k")
    page.get_by_role("link", name="Open its take").click()
    fresh.wait_until(lambda: fresh.get("/api/takes")["takes"][0]["state"] == "done")
    (take,) = fresh.get("/api/takes")["takes"]
    assert take["origin"] == "simulated"
    # Tests beside this one take frames away that a quiet computer would see, from either: where the
    # meter itself lagged, the two saw other films. The strict comparison stands with the core's.
    if sorted(lags)[len(lags) // 2] < 250:
        assert take["gust"] == pytest.approx(live, abs=1.0)


def test_the_meter_tells_a_phones_turning_and_finds_the_strap(fresh, page):
    page.add_init_script(SENSOR)
    page.goto(f"{fresh.address}/field/live")
    page.get_by_role("radio", name="Phone’s motion").click()
    page.get_by_role("radio", name="Find the strap’s pull").click()
    page.get_by_role("button", name="Start").click()
    figure = page.get_by_test_id("live-gust")
    expect(figure).not_to_have_text("–")
    first = page.get_by_role("button", name="Pull 1, slack")
    expect(first).not_to_contain_text("–")
    page.evaluate("window.shake = 0.2")
    page.keyboard.press("3")
    expect(page.get_by_role("button", name="Pull 3, firm")).to_contain_text("steadiest")
    expect(page.get_by_role("timer")).to_contain_text("calm for")
    page.keyboard.press("Space")
    page.keyboard.press("k")
    page.get_by_role("link", name="Open its take").click()
    (take,) = fresh.get("/api/takes")["takes"]
    assert (take["pictured"], take["state"]) == (False, "done")


SENSOR = """
window.shake = 2;
setInterval(() => {
  const t = performance.now() / 1000;
  const rate = 3 * window.shake * Math.cos(2 * Math.PI * 2 * t);
  const event = new Event("devicemotion");
  event.rotationRate = { alpha: 0, beta: 0, gamma: rate };
  window.dispatchEvent(event);
}, 16);
"""
"""A hand that turns at 2 Hz, by as much as `shake` says."""


def test_a_phone_on_the_rig_keeps_its_log_through_a_reload_and_sends_it(fresh, page):
    page.add_init_script(SENSOR)
    page.goto(f"{fresh.address}/field/rig")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("Logging", exact=True)).to_be_visible()
    page.wait_for_timeout(5500)
    page.reload()
    waiting = page.get_by_role("region", name="Logs kept here").get_by_role("listitem")
    expect(waiting).to_have_count(1)
    expect(waiting).to_contain_text(re.compile(r"[3-9]\.\d s"))
    waiting.get_by_role("button", name="Send").click()
    expect(page.get_by_text("No film of that time is here yet")).to_be_visible()
    waiting.get_by_role("button", name="Let it go").click()
    expect(waiting).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(waiting).to_have_count(1)


NO_ROOM = """
IDBObjectStore.prototype.put = () => { throw new DOMException("no room", "QuotaExceededError"); };
"""


def test_a_log_that_the_browser_has_no_room_for_is_saved_as_a_file(fresh, page, tmp_path):
    page.add_init_script(SENSOR + NO_ROOM)
    page.goto(f"{fresh.address}/field/rig")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("alert")).to_contain_text("no room to keep the log")
    with page.expect_download() as saved:
        page.get_by_role("button", name="Stop").click()
    saved.value.save_as(tmp_path / "rig.csv")
    header, *rows = (tmp_path / "rig.csv").read_text().splitlines()
    assert header.startswith("time_unix_s,pan_deg_s")
    times = [float(row.split(",")[0]) for row in rows]
    assert times == sorted(times)
    assert times[-1] - times[0] > 1.5
    expect(page.get_by_role("alert")).to_contain_text("saved as a file instead")


@pytest.mark.parametrize("path", ["/field", "/field/live", "/field/check", "/field/rig"])
def test_the_pages_of_the_field_are_accessible(demo, browser, path):
    check_accessibility(
        browser,
        f"{demo.address}{path}",
        ready=lambda page: page.get_by_role("heading", level=1),
        looks=(*LOOKS, LYING),
    )


def test_a_phone_can_change_no_setting(open_server, phone):
    answer = phone.request.fetch(
        phone.url.replace("/field", "/api/settings/weights"), method="PUT", data="{}"
    )
    assert answer.status == 403
    with pytest.raises(urllib.error.HTTPError, match="401"):
        open_server.ask("GET", "/api/takes", headers={"Authorization": f"Bearer {KEY}x"})


def film_screen(screen: bytes, path):
    """The stand-in camera films a screen for a moment, and then its own scene."""
    shown = cv2.imdecode(np.frombuffer(screen, np.uint8), cv2.IMREAD_COLOR)
    script = Script("ridge", "hold", Technique(contacts=2), 26, size=(480, 270), seconds=4, seed=8)
    shot = plan(script)
    renderer = Renderer(SCENES["ridge"], shot.lens, seed=8, margin=1.8, noise=script.noise)
    frames = []
    for index, t_s in enumerate(shot.frame_times_s):
        image = render_frame(shot, renderer, float(t_s), index)
        if t_s < SLATE_S:
            pose = shot.poses(np.array([t_s]))[0]
            image = held_up(image, shown, pose, blurred=False)
        frames.append(cv2.cvtColor(image, cv2.COLOR_BGR2GRAY))
    return write_film(path, frames)


def test_the_slate_on_the_phone_is_filmed_and_files_its_film(open_server, phone, tmp_path):
    session = begin_session(open_server)
    phone.reload()
    phone.get_by_role("link", name="Slates").click()
    phone.get_by_role("button", name="Next", exact=True).click()
    expect(phone.get_by_alt_text("Code of take 2")).to_be_visible()
    film = film_screen(phone.screenshot(), tmp_path / "IMG_0007.mp4")
    phone.goto(phone.url.replace(f"/practice/{session}/slates", "/field"))
    phone.get_by_label("Films to send").set_input_files(film)

    def matches() -> list[tuple[int, str]]:
        found = open_server.get(f"/api/sessions/{session}/matches")["matches"]
        return [(one["position"], one["how"]) for one in found]

    open_server.wait_until(lambda: matches() == [(1, "slate")])
    phone.goto(phone.url.replace("/field", f"/practice/{session}"))
    phone.get_by_role("button", name="File", exact=True).click()

    def filed() -> list[int]:
        takes = open_server.get(f"/api/sessions/{session}")["session"]["takes"]
        return [one["position"] for one in takes if one["take_id"] is not None]

    open_server.wait_until(lambda: filed() == [1])


def test_a_session_in_one_hand_meters_its_holds(fresh, page):
    page.add_init_script(SENSOR)
    session = begin_session(fresh)
    page.goto(f"{fresh.address}/practice/{session}")
    page.get_by_role("radio", name="This phone’s motion").click()
    page.get_by_role("button", name=re.compile("begin")).click()
    page.get_by_role("button", name="Start").click()
    runner, meter = page.get_by_test_id("runner"), page.get_by_test_id("runner-meter")
    expect(runner).to_have_attribute("data-step", "set-up")
    expect(meter).to_have_count(0)
    page.keyboard.press("ArrowRight")
    expect(runner).to_have_attribute("data-step", "roll")
    expect(meter).to_contain_text(re.compile(r"\d\.\d"))
    expect(meter).to_contain_text("calm for")
    page.evaluate("window.shake = 0.05")
    expect(meter).to_have_attribute("data-best", re.compile("[1-9]"))
    page.keyboard.press("ArrowRight")
    expect(meter).to_have_count(0)
