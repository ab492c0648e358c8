"""Briefs, kit and bench in a real browser: from nothing to a card in the hand."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film
from tests.conftest import shaken, write_film
from tests.e2e.helpers import check_accessibility, choose, fact, fill, number

pytestmark = pytest.mark.e2e


def setup_id(server, name: str) -> int:
    kit = server.get("/api/kit")
    return next(item["id"] for item in kit["setups"] if item["name"] == name)


def measured(server, path) -> int:
    take_id = server.send(path)
    server.wait_until(lambda: server.get("/api/takes")["busy"] == 0, 60)
    return take_id


def test_a_camera_a_lens_and_a_set_up_from_nothing(fresh, page):
    page.goto(f"{fresh.address}/kit")
    page.get_by_role("link", name="New camera").click()
    model = next(
        one for one in fresh.get("/api/kit")["cameras"] if one["spec"]["sensor_long_mm"] == 36.0
    )
    choose(page, "Begin like", model["name"])
    sensor = page.get_by_role("textbox", name="Sensor, long side")
    expect(sensor).to_have_value("36")
    fill(page, "Sensor, long side", "-4")
    expect(page.get_by_role("combobox", name="Begin like")).to_have_text("As entered below")
    fill(page, "Mass, with battery and card", "abc")
    expect(page.get_by_text("Type a number.")).to_be_visible()
    page.get_by_role("button", name="Keep this camera").click()
    expect(page.get_by_role("textbox", name="Mass, with battery and card")).to_be_focused()
    fill(page, "Mass, with battery and card", "400")
    page.get_by_role("button", name="Keep this camera").click()
    expect(page.get_by_text("It needs a name.")).to_be_visible()
    assert len(fresh.get("/api/kit")["cameras"]) == 5
    page.get_by_role("textbox", name="Name", exact=True).first.fill("Attic camera")
    page.get_by_role("button", name="Keep this camera").click()
    expect(page.get_by_text("It must be between 1 and 100 mm.")).to_be_visible()
    fill(page, "Sensor, long side", "18")
    fill(page, "Sensor, short side", "12")
    fill(page, "Mount", "attic")
    page.get_by_role("button", name="Keep this camera").click()
    expect(page.get_by_role("link", name="Attic camera")).to_be_visible()

    page.get_by_role("link", name="New lens").click()
    fill(page, "Name", "Attic lens")
    fill(page, "Shortest focal length, true", "20")
    fill(page, "Longest focal length, true", "20")
    fill(page, "Mount, as its cameras say", "attic")
    page.get_by_role("button", name="Keep this lens").click()
    expect(page.get_by_role("link", name="Attic lens")).to_be_visible()

    page.keyboard.press("n")
    fill(page, "Set-up", "Attic rig")
    choose(page, "Camera", "Attic camera")
    expect(page.get_by_role("combobox", name="Lens", exact=True)).to_contain_text("Attic lens")
    expect(page.get_by_role("tab", name=re.compile("Picture"))).to_contain_text("40 mm")
    page.get_by_role("button", name="Keep this set-up").click()
    expect(page.get_by_role("button", name="Save as another")).to_be_visible()
    stored = fresh.get("/api/kit")["setups"][0]
    assert (stored["name"], stored["usual"]) == ("Attic rig", True)
    assert stored["focal_eq_mm"] == pytest.approx(40.0)


def test_a_brief_changes_the_verdict_of_every_take_that_points_at_it(fresh, page, tmp_path):
    ids = [
        measured(fresh, write_film(tmp_path / f"{k}.mp4", shaken(30, amplitude_px=size)))
        for k, size in enumerate((2.0, 3.0))
    ]
    page.goto(f"{fresh.address}/plan/briefs")
    expect(page.get_by_role("heading", name="Briefs")).to_be_visible()
    page.keyboard.press("n")
    name = page.get_by_role("textbox", name="Name", exact=True)
    expect(name).to_have_value("Smooth, for a laptop, copy")
    name.fill("Hoist")
    fill(page, "Seconds wanted on screen", "lots")
    expect(page.get_by_text("Type a number.")).to_be_visible()
    fill(page, "Seconds wanted on screen", "0.5")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("“Hoist” is changed.").first).to_be_visible()
    for take_id in ids:
        page.goto(f"{fresh.address}/takes/{take_id}")
        choose(page, "Brief of this take", "Hoist")
        chosen = page.get_by_role("combobox", name="Brief of this take")
        expect(chosen).to_contain_text("Hoist")
        expect(page.locator("[data-verdict=true]")).not_to_have_attribute(
            "data-testid", "remedy-keep"
        )
    page.get_by_role("link", name="All of the brief").click()
    expect(page.get_by_role("textbox", name="Name", exact=True)).to_have_value("Hoist")
    page.get_by_role("radio", name="Raw").click()
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("2 takes judged again").first).to_be_visible()
    assert {line["remedy"] for line in fresh.get("/api/takes")["takes"]} == {"keep"}
    page.keyboard.press("z")

    def undone() -> bool:
        found = fresh.get("/api/takes")
        feels = {line["feel"] for line in found["takes"]}
        remedies = {line["remedy"] for line in found["takes"]}
        return feels == {"smooth"} and found["stale"] == 0 and "keep" not in remedies

    fresh.wait_until(undone, 10)


def test_a_change_for_one_take_can_be_spread_or_kept(fresh, page, tmp_path):
    take_id = measured(fresh, write_film(tmp_path / "one.mp4", shaken(30)))
    page.goto(f"{fresh.address}/takes/{take_id}")
    page.get_by_role("radio", name="Alive").click()
    expect(page.get_by_text("Changed for this take alone")).to_be_visible()
    page.get_by_role("button", name="keep as a new brief").click()
    page.get_by_role("dialog").get_by_role("textbox", name="Name").fill("Lively")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("combobox", name="Brief of this take")).to_contain_text("Lively")
    page.get_by_role("radio", name="Locked").click()
    page.get_by_role("button", name="put it into “Lively”").click()
    expect(page.get_by_text("“Lively” is changed.").first).to_be_visible()

    def spread() -> bool:
        named = fresh.get("/api/briefs")["briefs"]
        lively = next(item for item in named if item["name"] == "Lively")
        return (lively["brief"]["feel"], lively["takes"]) == ("locked", 1)

    fresh.wait_until(spread, 10)


def test_the_file_tells_its_lens_and_the_set_up_follows(fresh, page, tmp_path):
    film(Script("door", "hold", Technique(contacts=3), seconds=1), tmp_path / "a.mp4")
    take_id = measured(fresh, tmp_path / "a.mp4")
    page.goto(f"{fresh.address}/takes/{take_id}")
    speed = fact(page, "Body speed")
    choose(page, "Set-up of this take", "Full-frame mirrorless, 35, neck strap")
    lens = page.get_by_label("Equivalent focal length, mm")
    expect(lens).to_have_value("35")
    assert number(fact(page, "Body speed")) < number(speed)
    lens.fill("70")
    lens.press("Enter")
    expect(page.get_by_role("button", name="use the set-up’s 35 mm")).to_be_visible()
    page.get_by_role("button", name="use the set-up’s 35 mm").click()
    expect(lens).to_have_value("35")


def test_a_rig_that_tips_forward_is_balanced(own_demo, page):
    page.goto(
        f"{own_demo.address}/kit/setups/{setup_id(own_demo, 'Gallery rig, top handle')}?panel=rig"
    )
    tips = number(fact(page, "Hangs nose down"))
    assert tips > 10
    page.get_by_role("button", name=re.compile("Move the handle")).click()
    expect(page.get_by_text("It hangs level.")).to_be_visible()
    page.get_by_role("button", name="Undo the changes").click()
    expect(page.get_by_text("It hangs level.")).to_have_count(0)
    weight = page.get_by_role("group", name="Counterweight")
    # Until the new place is answered for, the weight of the old one must not be added there.
    held = []

    def hold(route) -> None:
        held.append(route)

    page.route("**/api/bench", hold)
    weight.get_by_role("textbox", name="ahead").fill("-160")
    add = page.get_by_role("button", name="Add the counterweight")
    expect(add).to_be_disabled()
    while not held:  # it asks only once the typing rests
        page.wait_for_timeout(50)
    held.pop().continue_()
    page.unroute("**/api/bench")
    add.click()
    expect(page.get_by_text("It hangs level.")).to_be_visible()
    grip = page.get_by_text("hangs here")
    box = grip.bounding_box()
    page.mouse.move(box["x"] - 28, box["y"] + 8)
    page.mouse.down()
    page.mouse.move(box["x"] - 68, box["y"] + 8, steps=4)
    page.mouse.up()
    expect(page.get_by_text("It hangs level.")).to_have_count(0)
    page.get_by_role("button", name="Undo the changes").click()


def test_an_orbit_is_planned_and_filmed(demo, page):
    page.goto(f"{demo.address}/kit/setups/{setup_id(demo, 'Phone, bare hands')}?panel=move")
    choose(page, "Move", "Orbit")
    fill(page, "Shift of weight", "1")
    fill(page, "To the subject", "2")
    # Twice the angle whose tangent is a quarter.
    expect(page.get_by_role("definition").filter(has_text="28.1°").first).to_be_visible()
    fill(page, "To the subject", "0")
    expect(page.get_by_text("It must be between 0.05 and 100000 m.")).to_be_visible()
    expect(page.get_by_role("button", name="Save", exact=True)).to_be_disabled()
    fill(page, "To the subject", "2")
    fill(page, "It takes", "1")
    expect(page.get_by_text("Hurried")).to_be_visible()
    page.locator("main").click(position={"x": 5, "y": 300})
    page.keyboard.press("f")
    video = page.get_by_label("The planned move, simulated")
    expect(video).to_be_visible()
    expect(page.get_by_text("Simulated.")).to_be_visible()
    page.reload()
    expect(page.get_by_role("combobox", name="Move", exact=True)).to_contain_text("Orbit")
    page.get_by_role("button", name="Undo the changes").click()
    expect(page.get_by_role("combobox", name="Move", exact=True)).to_contain_text("Slide")


def test_time_and_strap_and_imperial_units(demo, page):
    address = f"{demo.address}/kit/setups/{setup_id(demo, 'Mirrorless, 24–70, strap taut')}"
    page.goto(f"{address}?panel=time")
    assert number(fact(page, "Hold the shot")) == pytest.approx(1.6)
    assert "1/120" in fact(page, "Shutter nearest to half the interval")
    page.get_by_role("radio", name="50 Hz lamps").click()
    expect(page.get_by_text("Nearest without flicker at 50 Hz")).to_be_visible()
    page.keyboard.press(".")
    page.keyboard.press(".")
    page.keyboard.press(".")
    assert number(fact(page, "Taut at")) == pytest.approx(122.1)
    kept = demo.get("/api/kit")["setups"]
    page.goto(f"{demo.address}/kit")
    page.get_by_role("radio", name="Imperial").click()
    expect(page.get_by_text("oz").first).to_be_visible()
    page.goto(f"{address}?panel=strap")
    page.get_by_role("button", name="Undo the changes").click()
    assert number(fact(page, "Taut at")) == pytest.approx(48.1)
    forearm = page.get_by_role("textbox", name="Forearm, elbow to knuckles")
    expect(forearm).to_have_value("13.8")
    forearm.fill("15")
    forearm.fill("0.1")
    expect(
        page.get_by_text(re.compile(r"^It must be between [\d.]+ and [\d.]+ in\.$"))
    ).to_be_visible()
    forearm.fill("15")
    # 190 mm round the nape, and twice the way to 125 + 381 mm ahead and 200 mm down.
    expect(page.get_by_role("definition").filter(has_text="50.3 in").first).to_be_visible()
    page.get_by_role("button", name="Undo the changes").click()
    assert demo.get("/api/kit")["setups"] == kept


def test_a_set_up_without_a_strap_says_nothing_of_one(demo, page):
    address = f"{demo.address}/kit/setups/{setup_id(demo, 'Phone in two hands')}"
    page.goto(address)
    expect(page.get_by_role("tab", name="Strap")).to_contain_text("none")
    page.goto(f"{address}/card")
    card = page.get_by_role("article")
    expect(card).to_contain_text("Stop with pain")
    expect(card).not_to_contain_text("Its mark")
    expect(card).not_to_contain_text("Let go of the strap")


def test_the_card_is_one_page(demo, page):
    page.goto(f"{demo.address}/kit/setups/{setup_id(demo, 'Gallery rig, top handle')}")
    page.get_by_role("tab", name=re.compile("Rig")).click()
    page.locator("main").click(position={"x": 5, "y": 400})
    page.keyboard.press("p")
    card = page.get_by_test_id("card")
    expect(card).to_contain_text("Longest lens that usually passes")
    expect(card).to_contain_text("Its mark")
    expect(card).to_contain_text("round the neck")
    sheet = page.pdf(prefer_css_page_size=True)
    assert len(re.findall(rb"/Type\s*/Page[^s]", sheet)) == 1
    page.keyboard.press("Escape")
    expect(page.get_by_role("tablist", name="Panels of the bench")).to_be_visible()


def test_archived_kit_comes_back(fresh, page):
    page.goto(f"{fresh.address}/kit")
    page.get_by_label("Archive Fixed 85").click()
    expect(page.get_by_text("“Fixed 85” is archived.").first).to_be_visible()
    expect(page.get_by_label("Bring back Fixed 85")).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_label("Archive Fixed 85")).to_be_visible()


PLACES = ["plan", "kit", "camera", "picture", "shake", "time", "move", "rig", "strap", "card"]


@pytest.mark.parametrize("place", PLACES)
def test_no_serious_accessibility_fault(demo, browser, place):
    bench = f"/kit/setups/{setup_id(demo, 'Gallery rig, top handle')}"
    camera = demo.get("/api/kit")["cameras"][0]["id"]
    address = {"plan": "/plan/briefs", "kit": "/kit", "camera": f"/kit/cameras/{camera}",
               "card": f"{bench}/card"}.get(place, f"{bench}?panel={place}")  # fmt: skip

    def ready(page):
        if place == "card":
            return page.get_by_test_id("card").locator("svg").first
        if place in ("plan", "kit", "camera"):
            return page.get_by_role("heading", level=1)
        return page.get_by_role("img").last

    check_accessibility(browser, demo.address + address, ready=ready)


def test_of_two_windows_that_change_one_brief_the_second_is_shown_both(fresh, browser):
    contexts = [browser.new_context() for _ in range(2)]
    first, second = (context.new_page() for context in contexts)
    brief = fresh.put(
        "/api/briefs",
        {"name": "Ours", "brief": fresh.get("/api/briefs")["briefs"][0]["brief"]},
        "POST",
    )
    for page in (first, second):
        page.goto(f"{fresh.address}/plan/briefs?brief={brief['id']}")
        expect(page.get_by_role("textbox", name="Name")).to_have_value("Ours")
    for page, name in ((first, "The first one"), (second, "The second one")):
        page.get_by_role("textbox", name="Name").fill(name)
        page.get_by_role("button", name="Save").click()
    both = second.get_by_role("alert", name="Changed in another window")
    expect(both).to_contain_text("The first one")
    expect(both).to_contain_text("The second one")
    assert kept_name(fresh, brief) == "The first one"
    both.get_by_role("button", name="Save what is here").click()
    expect(both).to_have_count(0)
    fresh.wait_until(lambda: kept_name(fresh, brief) == "The second one", 5)
    for context in contexts:
        context.close()


def kept_name(server, brief):
    items = server.get("/api/briefs")["briefs"]
    return next(item["name"] for item in items if item["id"] == brief["id"])


def test_a_deleted_take_stands_in_a_list_and_comes_back(fresh, page, short_film):
    take_id = fresh.send(short_film)
    fresh.put(f"/api/takes/{take_id}", {}, "DELETE")
    page.goto(f"{fresh.address}/settings")
    page.get_by_role("button", name="Bring back short").click()
    expect(page.get_by_text("None. A deleted take stands here")).to_be_visible()
    assert fresh.get("/api/takes")["all"] == 1
