"""What hurried hands do: keys one after the other, sliders that are swept, saved twice, answers
that do not come, letters while a list is open, fields left empty."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.helpers import check_accessibility, choose, fill

pytestmark = pytest.mark.e2e

METRIC = re.compile(r"\d\s?(?:cm|m|km|g|kg|m/s|°C)\b")


def asked(page, method, address):
    """Requests of a method to addresses that match, as they are made."""
    found = []

    def note(request):
        if request.method == method and re.search(address, request.url):
            found.append(request)

    page.on("request", note)
    return found


def kept(app) -> int:
    return sum(take["choice"] == "keep" for take in app.get("/api/takes")["takes"])


def test_quick_keys_all_count_and_letters_in_an_open_list_stay_there(own_demo, page):
    page.goto(f"{own_demo.address}/takes")
    page.get_by_role("link", name="Cap and sails").wait_for()
    page.keyboard.press("Home")
    page.get_by_role("combobox", name="Order").click()
    expect(page.get_by_role("listbox")).to_be_visible()
    for key in ("k", "x", "Delete", "4"):
        page.keyboard.press(key)
    page.keyboard.press("Escape")
    expect(page.get_by_role("listbox")).to_have_count(0)
    assert (kept(own_demo), own_demo.get("/api/takes")["all"]) == (0, 10)
    page.locator("h1").click()
    page.keyboard.press("Home")
    for _ in range(3):
        page.keyboard.press("k")
    expect(page.get_by_text(re.compile("^Kept: “"))).to_have_count(3)
    own_demo.wait_until(lambda: kept(own_demo) == 3)
    for _ in range(3):
        page.keyboard.press("z")
    own_demo.wait_until(lambda: kept(own_demo) == 0)


def test_a_mark_that_fails_is_told(demo, page):
    take = demo.get("/api/takes")["takes"][0]["id"]
    page.goto(f"{demo.address}/takes/{take}")
    expect(page.get_by_test_id("gust")).to_be_visible()
    fault = {"code": "full", "message": "The disk is full.", "hint": "Make room.", "field": None}
    page.route("**/mark", lambda route: route.fulfill(status=409, json={"error": fault}))
    page.keyboard.press("n")
    expect(page.get_by_text("The disk is full.", exact=True)).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^✓ Not smooth"))).to_have_count(0)


def test_a_swept_slider_shows_at_once_and_saves_its_last_and_two_saves_are_one(fresh, page):
    page.goto(f"{fresh.address}/settings")
    saved = asked(page, "PUT", "weights")
    seconds = page.get_by_role("slider", name=re.compile("^Seconds"))
    seconds.focus()
    for _ in range(6):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_role("status").filter(has_text="2.50")).to_be_visible()
    fresh.wait_until(lambda: fresh.get("/api/settings/weights")["weights"]["seconds"] == 2.5)
    page.wait_for_timeout(500)  # in which a second one would come
    assert len(saved) == 1

    page.goto(f"{fresh.address}/plan/briefs")
    expect(page.get_by_role("heading", name="Briefs")).to_be_visible()
    page.keyboard.press("n")
    name = page.get_by_role("textbox", name="Name", exact=True)
    expect(name).to_have_value(re.compile("copy$"))
    name.fill("Hoist")
    changed = asked(page, "PUT", "/api/briefs/")
    page.get_by_role("button", name="Save").dblclick()
    expect(page.get_by_text("“Hoist” is changed.").first).to_be_visible()
    assert len(changed) == 1
    # Another brief for new takes, and back.
    page.get_by_role("button", name="Use for new takes").click()
    expect(page.get_by_text("New takes point at “Hoist”.", exact=True)).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_role("button", name="Use for new takes")).to_be_visible()


def test_a_new_camera_says_whose_figures_it_has_and_a_field_left_empty_is_no_nought(fresh, page):
    page.goto(f"{fresh.address}/kit")
    page.get_by_role("link", name="New camera").click()
    expect(page.get_by_role("textbox", name="Name", exact=True).first).to_have_value("")
    first, *_, last = fresh.get("/api/kit")["cameras"]
    expect(page.get_by_role("combobox", name="Begin like")).to_have_text(first["name"])
    choose(page, "Begin like", last["name"])
    page.get_by_role("textbox", name="Name", exact=True).first.fill("Attic camera")
    fill(page, "Mass, with battery and card", "")
    page.get_by_role("textbox", name=re.compile("^Read-out")).fill("")
    page.get_by_role("button", name="Keep this camera").click()
    expect(page.get_by_text("Type a number.")).to_be_visible()
    mass = page.get_by_role("textbox", name="Mass, with battery and card")
    expect(mass).to_be_focused()
    mass.fill("400")
    page.get_by_role("button", name="Keep this camera").click()
    expect(page.get_by_role("link", name="Attic camera")).to_be_visible()
    made = next(one for one in fresh.get("/api/kit")["cameras"] if one["name"] == "Attic camera")
    assert made["spec"]["read_out_ms"] is None


def test_imperial_lengths_and_weights_stand_on_every_page(demo, page):
    page.goto(f"{demo.address}/kit")
    page.get_by_role("radio", name="Imperial").click()
    setup = demo.get("/api/kit")["setups"][0]["id"]
    panels = ("picture", "shake", "time", "move", "rig", "strap")
    pages = ["/plan", "/plan/drills", "/plan/drills/hands", "/plan/briefs", "/kit", "/takes"]
    pages += ["/findings/hand", "/findings/shot", "/practice", "/sequence"]
    pages += [f"/kit/setups/{setup}?panel={panel}" for panel in panels]
    for address in pages:
        page.goto(demo.address + address)
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        expect(page.get_by_role("main")).not_to_contain_text(re.compile("Reading|Computing"))
        assert METRIC.findall(page.get_by_role("main").inner_text()) == [], address


def test_results_of_a_session_fit_a_phone(practised, page):
    # The oldest: other tests plan more of them.
    number = practised.get("/api/sessions")["sessions"][-1]["id"]
    page.set_viewport_size({"width": 390, "height": 800})
    page.goto(f"{practised.address}/practice/{number}")
    row = page.get_by_test_id("planned-0")
    expect(row).to_contain_text(re.compile(r"gust \d\.\d, (within|over) the drill’s \d\.\d"))
    box = row.get_by_role("link").bounding_box()
    assert box["x"] >= 0
    assert box["x"] + box["width"] <= 390


def test_what_came_of_a_session_is_drawn_and_can_be_read_by_everyone(practised, browser):
    session = practised.get("/api/sessions")["sessions"][-1]

    def ready(page):
        picture = page.get_by_role("img", name=re.compile(r"take \d+ \d\.\d"))
        expect(picture).to_have_count(len({take["variation_key"] for take in session["takes"]}))
        return picture.first

    check_accessibility(browser, f"{practised.address}/practice/{session['id']}", ready=ready)
