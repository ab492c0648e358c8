"""The decision in the real interface: previews, exports, blind marks, many takes by keyboard."""

from __future__ import annotations

import csv
import json
import re
from itertools import cycle

import pytest
from playwright.sync_api import expect

from ridgewind.demo.story import CLIPS
from tests.conftest import shaken, write_film
from tests.e2e.conftest import KEY
from tests.e2e.helpers import begun, check_accessibility, number

FAILING = "Mill door, walk-in, heels down"
MANY = 12
HEELS_DOWN = CLIPS / "mill-door-walk-in-heels-down.mp4"
BARE_HANDS = CLIPS / "sack-hoist-bare-hands.mp4"


def bring_in(server, clip, folder, *, seconds: float) -> None:
    """The beginning of a demo clip, measured: quicker to render than all of it."""
    server.send(begun(clip, folder / clip.name, seconds=seconds))
    server.wait_until(lambda: server.get("/api/takes")["busy"] == 0)


def take_id(server, name: str) -> int:
    return next(line["id"] for line in server.get("/api/takes")["takes"] if line["name"] == name)


def open_preview(server, page, name: str = FAILING) -> int:
    found = take_id(server, name)
    page.goto(f"{server.address}/takes/{found}")
    expect(page.get_by_test_id("gust")).to_be_visible()
    page.keyboard.press("p")
    expect(page.get_by_test_id("measured-again")).to_be_visible()
    return found


def downloaded(page, link, path):
    with page.expect_download() as waiting:
        link.click()
    waiting.value.save_as(path)
    return path


def test_a_failing_take_is_polished_seen_accepted_and_taken_along(fresh, page, tmp_path):
    page.goto(f"{fresh.address}/?key={KEY}")  # a download asks with the cookie alone
    bring_in(fresh, HEELS_DOWN, tmp_path, seconds=2.0)
    found = open_preview(fresh, page, HEELS_DOWN.stem)
    assert "Over target" in page.get_by_test_id("remedy-keep").inner_text()
    said = page.get_by_test_id("measured-again").inner_text()
    predicted, measured = (float(one) for one in re.findall(r"(?:again|Predicted) (\d\.\d)", said))
    assert measured == pytest.approx(predicted, abs=0.4)
    expect(page.get_by_test_id("crop")).to_be_visible()
    films = page.get_by_test_id("preview").locator("video")
    expect(films).to_have_count(2)

    strength = page.get_by_role("slider", name="Strength of the polish")
    strength.focus()
    before = number(strength.get_attribute("aria-valuetext").split(", ")[1])
    page.keyboard.press("ArrowRight")
    after = number(strength.get_attribute("aria-valuetext").split(", ")[1])
    assert after > before
    page.locator("h1").click()
    page.keyboard.press("r")
    expect(page.get_by_test_id("measured-again")).to_be_visible()
    page.keyboard.press("y")
    expect(page.get_by_role("button", name="✓ It works")).to_be_visible()

    path = downloaded(page, page.get_by_role("link", name="Numbers, CSV"), tmp_path / "polish.csv")
    (row,) = csv.DictReader(path.read_text().splitlines())
    assert float(row["crop_pct"]) == pytest.approx(after, abs=0.06)
    link = page.get_by_role("link", name="Numbers and windows, JSON")
    body = json.loads(downloaded(page, link, tmp_path / "polish.json").read_text())
    assert len(body["windows"]["t_s"]) == fresh.get(f"/api/takes/{found}")["clip"]["frames"]
    page.get_by_role("button", name="Render all of it, full size").click()
    film = page.get_by_role("link", name=re.compile("^Film, "))
    expect(film).to_be_visible()
    assert downloaded(page, film, tmp_path / "polished.mp4").stat().st_size > 100_000
    page.get_by_role("button", name="remove").click()
    expect(page.get_by_role("button", name="Render all of it, full size")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("preview")).to_have_count(0)


def test_a_slowed_take_is_seen_at_every_even_rate_and_reframed(fresh, page, tmp_path):
    bring_in(fresh, BARE_HANDS, tmp_path, seconds=2.0)
    open_preview(fresh, page, BARE_HANDS.stem)
    rates = page.get_by_role("table", name="Rates")
    expect(rates).to_contain_text("uneven: stutters")
    rates.get_by_role("button", name="80 %").click()
    page.keyboard.press("r")
    expect(page.get_by_test_id("measured-again")).to_contain_text("From 0.0 to")
    page.get_by_role("radio", name="Left").click()
    expect(page.get_by_text("The frame travels left")).to_be_visible()
    page.get_by_role("button", name="Render this").click()
    expect(page.get_by_test_id("measured-again")).to_be_visible()


def test_the_first_cause_leads_to_its_drill_and_hints_stand_beside(demo, page):
    page.goto(f"{demo.address}/takes/{take_id(demo, FAILING)}")
    expect(page.get_by_test_id("hints")).to_contain_text("Faster frames:")
    page.get_by_role("link", name=re.compile("^Drill: Walking")).click()
    expect(page.get_by_role("heading", name=re.compile("Walking"))).to_be_visible()


def test_ten_blind_marks_make_a_target_that_can_be_undone(own_demo, page):
    page.goto(f"{own_demo.address}/findings/eye")
    expect(page.get_by_role("heading", name="Your eye")).to_be_visible()
    page.keyboard.press("b")
    expect(page.get_by_test_id("blind-film")).to_be_visible()
    for _ in range(10):
        assert re.search(r"\d\.\d", page.get_by_role("main").inner_text()) is None
        shown = page.get_by_test_id("blind-film").get_attribute("src")
        gust = own_demo.get(shown.replace("/film", ""))["take"]["gust"]
        page.keyboard.press("y" if gust < 5.3 else "n")
        expect(page.locator(f"video[src='{shown}']")).to_have_count(0)
    expect(page.get_by_test_id("blind-done")).to_be_visible()
    page.get_by_role("link", name="See what your eye says").click()
    smooth = page.get_by_test_id("eye-smooth")
    expect(smooth).to_contain_text("Smooth enough up to")
    use = smooth.get_by_role("button", name=re.compile("^Use"))
    value = number(use.inner_text())
    assert value == pytest.approx(5.3, abs=0.8)
    brief = own_demo.get(f"/api/takes/{take_id(own_demo, FAILING)}")["brief"]
    use.click()
    expect(smooth.get_by_role("button", name=f"{value} is the target")).to_be_visible()
    now = own_demo.get(f"/api/takes/{take_id(own_demo, FAILING)}")["brief"]
    assert now["own_target"] == value
    page.keyboard.press("z")
    expect(smooth.get_by_role("button", name=re.compile("^Use"))).to_be_visible()
    assert own_demo.get(f"/api/takes/{take_id(own_demo, FAILING)}")["brief"] == brief


def test_weights_in_the_settings_change_the_verdict_and_go_back(own_demo, page):
    hoist = take_id(own_demo, "Sack hoist, bare hands")
    assert own_demo.get(f"/api/takes/{hoist}")["take"]["remedy"] == "slow"
    page.goto(f"{own_demo.address}/settings")
    seconds = page.get_by_role("slider", name=re.compile("^Seconds"))
    seconds.focus()
    page.keyboard.press("End")
    own_demo.wait_until(
        lambda: own_demo.get(f"/api/takes/{hoist}")["take"]["remedy"] == "polish", 10
    )
    page.get_by_role("button", name="Back to usual").click()
    own_demo.wait_until(lambda: own_demo.get(f"/api/takes/{hoist}")["take"]["remedy"] == "slow", 10)


def session_of_twelve(server, folder) -> int:
    """A practised session whose first twelve takes have their films; returns its number."""
    ask = {
        "minutes": 45, "goals": [], "space": "path", "needs": ["strap", "lean"], "limits": [],
        "seed": 3, "locked": [],
    }  # fmt: skip
    plan = server.put("/api/sessions/plan", {"ask": ask}, "POST")["plan"]
    body = {"name": "Gallery", "ask": ask, "plan": plan, "setup_id": None}
    session = server.put("/api/sessions", body, "POST")["session"]
    assert len(session["takes"]) >= MANY
    for index in range(MANY):
        frames = shaken(30, amplitude_px=0.3 + 0.35 * index)
        take = server.send(write_film(folder / f"take-{index + 1:02}.mp4", frames))
        note = {"state": "filmed", "take_id": take}
        server.put(f"/api/sessions/{session['id']}/takes/{index}", note, "PATCH")
    server.wait_until(lambda: server.get("/api/takes")["busy"] == 0)
    return session["id"]


def test_a_session_of_twelve_takes_is_settled_by_keyboard_alone(fresh, page, tmp_path):
    number_of = session_of_twelve(fresh, tmp_path)
    page.goto(f"{fresh.address}/practice/{number_of}")
    expect(page.get_by_role("button", name="Settle its takes side by side")).to_be_visible()
    page.keyboard.press("s")
    sides = page.locator("[data-testid^=side-]")
    expect(sides).to_have_count(MANY)
    expect(page.get_by_text("12 takes, 12 to settle")).to_be_visible()
    [calmest, *_] = fresh.get("/api/takes?descending=false")["takes"]
    expect(page.get_by_text(f"Best: {calmest['name'].split(' · ')[0]}.")).to_be_visible()
    page.keyboard.press(" ")
    expect(page.get_by_role("button", name="Pause")).to_be_visible()
    keys = cycle("kda")
    for left in range(MANY - 1, -1, -1):
        page.keyboard.press(next(keys))
        words = "12 takes, all settled" if left == 0 else f"12 takes, {left} to settle"
        expect(page.get_by_text(words)).to_be_visible()
    choices = [line["choice"] for line in fresh.get("/api/takes?descending=false")["takes"]]
    assert choices == ["keep", "reject", "retake"] * (MANY // 3)
    expect(page.get_by_text(re.compile("^Planned, no film yet: .* more.$")).first).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_text("12 takes, 1 to settle")).to_be_visible()

    page.goto(f"{fresh.address}/settings")
    clear = page.get_by_role("button", name=re.compile("^Clear 4 originals, "))
    clear.click()
    expect(page.get_by_role("button", name="Bring back")).to_have_count(4)
    page.keyboard.press("z")
    expect(page.get_by_role("button", name="Bring back")).to_have_count(0)
    clear.click()
    page.get_by_role("button", name=re.compile("^Free .* now")).click()
    page.get_by_role("button", name="Remove them for good").click()
    expect(page.get_by_text("gone for good", exact=True)).to_have_count(4)


def test_any_takes_of_the_list_stand_side_by_side(own_demo, page):
    page.goto(own_demo.address)
    expect(page.get_by_role("link", name=FAILING)).to_be_visible()
    page.keyboard.press("b")
    expect(page.locator("[data-testid^=side-]")).to_have_count(10)
    page.keyboard.press("l")
    expect(page.get_by_text("move", exact=True)).to_be_visible()
    page.keyboard.press("End")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name=FAILING)).to_be_visible()
    page.keyboard.press("k")
    expect(page.get_by_text(" · kept")).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_text(" · kept")).to_have_count(0)


@pytest.mark.parametrize("place", ["compare", "trials", "eye", "blind", "film", "settings"])
def test_the_pages_can_be_read_by_everyone(demo, browser, place):
    ids = ",".join(str(line["id"]) for line in demo.get("/api/takes")["takes"][:6])
    address = {
        "compare": f"/takes/compare?takes={ids}",
        "trials": "/findings",
        "eye": "/findings/eye",
        "film": "/findings/film",
        "blind": "/findings/eye/blind",
        "settings": "/settings",
    }[place]
    check_accessibility(
        browser, demo.address + address, ready=lambda page: page.get_by_role("heading", level=1)
    )


def test_a_preview_can_be_read_by_everyone(fresh, browser, tmp_path):
    bring_in(fresh, HEELS_DOWN, tmp_path, seconds=2.0)

    def ready(page):
        page.keyboard.press("p")
        film = page.get_by_label("The remedy, rendered from this clip")
        expect(film).to_be_visible()
        # Nothing plays by itself where no motion is wanted.
        page.wait_for_function("film => film.readyState >= 2", arg=film.element_handle())
        assert film.evaluate("film => film.paused")
        return page.get_by_test_id("preview")

    def opened(page):
        expect(page.get_by_test_id("gust")).to_be_visible()
        return ready(page)

    address = f"{fresh.address}/takes/{take_id(fresh, HEELS_DOWN.stem)}"
    check_accessibility(browser, address, ready=opened)
