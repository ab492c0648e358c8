"""The real interface in a real browser, on the demo's takes and on films brought in."""

from __future__ import annotations

import re
import time

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film
from tests.conftest import shaken, write_film
from tests.core.motion.test_rivals import somebody
from tests.e2e.helpers import check_accessibility

pytestmark = pytest.mark.e2e


def open_take(page: Page, address: str, name: str) -> None:
    page.goto(f"{address}/takes")
    page.get_by_role("link", name=name).click()
    expect(page.get_by_test_id("gust")).to_be_visible()


def time_now(page: Page) -> float:
    return float(page.get_by_role("slider").get_attribute("aria-valuenow"))


def until(page: Page, condition: str) -> None:
    """Wait for a JavaScript condition; the page's policy forbids Playwright's own way."""
    end = time.monotonic() + 10
    while not page.evaluate(condition):
        assert time.monotonic() < end, condition
        time.sleep(0.05)


def verdict(page: Page) -> str:
    return page.locator("[data-verdict=true]").get_attribute("data-testid")


def test_the_demo_reaches_every_verdict(demo, page):
    page.goto(demo.address)
    expect(page).to_have_url(re.compile("/takes$"))
    rows = page.get_by_role("listitem").filter(has=page.get_by_role("link"))
    expect(rows.first).to_be_visible()
    found = {line["remedy"] for line in demo.get("/api/takes")["takes"]}
    assert found == {"keep", "lee", "slow", "polish", "retake"}
    for words in ("Keep as shot", "Keep the lee", "Slow it", "Polish", "Do it again"):
        expect(page.get_by_text(words).first).to_be_attached()


def test_a_take_is_seen_scrubbed_and_played(demo, page):
    open_take(page, demo.address, "Millstone, grip slips")
    assert re.fullmatch(r"\d\.\d", page.get_by_test_id("gust").inner_text())
    trace = page.get_by_label("Gust over time").locator("svg")
    box = trace.bounding_box()
    assert box["y"] + box["height"] / 2 < 800, "the gust over time is seen without scrolling"
    page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    assert time_now(page) == pytest.approx(4.0, abs=0.4)
    until(
        page,
        "Math.abs(document.querySelector('video').currentTime - 4) < 0.5"
        " && document.querySelector('video').readyState >= 2",
    )
    page.mouse.move(box["x"] + 300, box["y"] + 100)
    page.mouse.down()
    page.mouse.move(box["x"] + 200, box["y"] + 100)
    page.mouse.up()
    assert time_now(page) < 2.0
    page.locator("h1").click()
    page.keyboard.press("ArrowRight")
    before = time_now(page)
    page.keyboard.press("ArrowRight")
    assert time_now(page) - before == pytest.approx(1 / 30, abs=0.015)
    page.keyboard.press("c")
    until(page, "!document.querySelector('video').paused")
    page.keyboard.press(" ")
    until(page, "document.querySelector('video').paused")


def test_causes_are_named_with_evidence_and_one_thing_to_change(demo, page):
    open_take(page, demo.address, "Mill door, walk-in, heels down")
    causes = page.get_by_role("region", name="Causes").get_by_role("listitem")
    expect(causes).to_have_count(3)
    expect(causes.first).to_contain_text("Footfalls")
    # The stand-in camera's walker took 1.87 steps a second.
    steps = re.search(r"(\d+) steps a minute", causes.first.inner_text())[1]
    assert int(steps) == pytest.approx(60 * 1.87, rel=0.02)
    expect(causes.first).to_contain_text("Bend the knees more")
    expect(page.get_by_text("Push in, the picture grows by")).to_be_visible()
    expect(page.get_by_role("region", name="Spectrum")).to_have_count(0)
    page.keyboard.press("s")
    lines = page.get_by_role("region", name="Spectrum").get_by_role("img")
    expect(lines).to_have_attribute("aria-label", re.compile(r"1\.9 Hz tilt"))
    expect(page.get_by_test_id("band-jitter")).to_be_visible()
    open_take(page, demo.address, "Mill door, camera on the sill")
    expect(page.get_by_text("No clear cause.")).to_be_visible()
    expect(page.get_by_text("Held. The frame wandered")).to_be_visible()
    open_take(page, demo.address, "Ridge, pan from the hips")
    expect(page.get_by_text(re.compile("Pan or slide right, .* 14° as a turn"))).to_be_visible()


def test_focus_goes_to_the_heading_of_a_new_page_and_not_of_the_first(demo, page):
    page.goto(f"{demo.address}/takes")
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_be_visible()
    expect(heading).not_to_be_focused()
    page.keyboard.press("2")
    main = page.get_by_role("main")
    expect(main.get_by_role("link").first).to_be_visible()
    expect(page.get_by_role("heading", name="Kit", level=1)).to_be_focused()
    page.keyboard.press("Tab")
    assert page.evaluate("document.activeElement.closest('main') !== null")
    page.get_by_role("link", name="Findings", exact=True).click()
    page.get_by_role("link", name="Your hand", exact=True).click()
    expect(page.get_by_role("heading", name="Your hand", level=1)).to_be_focused()


def test_a_subject_is_marked_and_followed(own_demo, page):
    open_take(page, own_demo.address, "Sacks, slide by weight shift")
    picture = page.get_by_label("The take", exact=True).bounding_box()
    page.keyboard.press("m")
    expect(page.get_by_test_id("marking")).to_be_visible()
    page.mouse.click(
        picture["x"] + 0.62 * picture["width"], picture["y"] + 0.75 * picture["height"]
    )
    expect(page.get_by_test_id("subject")).to_contain_text("from the middle")
    row = page.get_by_test_id("remedy-hold")
    expect(row).to_contain_text("what is behind it")
    page.keyboard.press("x")
    page.mouse.click(picture["x"] + 0.8 * picture["width"], picture["y"] + 0.85 * picture["height"])
    expect(page.get_by_test_id("rings").locator("circle")).to_have_count(2)
    row.get_by_role("button", name="See it: Hold the subject").click()
    expect(page.get_by_test_id("measured-again")).to_contain_text("The subject itself")
    page.get_by_role("radio", name="Still").click()
    expect(page.get_by_role("button", name="Render this")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Let it go").click()
    expect(page.get_by_test_id("subject")).to_have_count(0)
    page.keyboard.press("z")
    expect(page.get_by_test_id("rings").locator("circle")).to_have_count(2)
    page.get_by_role("button", name="Let it go").click()
    expect(page.get_by_test_id("subject")).to_have_count(0)
    expect(row).to_contain_text("mark what to hold")


def test_the_brief_changes_the_verdict_without_measuring(own_demo, page):
    open_take(page, own_demo.address, "Mill door, walk-in, off the body")
    assert verdict(page) == "remedy-slow"
    page.get_by_label("Keep sound, so it may not be slowed").click()
    expect(page.get_by_test_id("remedy-polish")).to_have_attribute("data-verdict", "true")
    page.get_by_role("radio", name="Raw").click()
    expect(page.get_by_test_id("remedy-keep")).to_have_attribute("data-verdict", "true")
    expect(page.get_by_label("Target gust")).to_have_value("8.0")
    page.get_by_label("Screen", exact=True).click()
    page.get_by_role("option", name="Phone").click()
    gust = float(page.get_by_test_id("gust").inner_text())
    expect(page.get_by_test_id("gust")).not_to_have_text(f"{gust + 1.7:.1f}")
    page.reload()
    expect(page.get_by_role("radio", name="Raw")).to_be_checked()
    lens = page.get_by_label("Equivalent focal length, mm")
    body = page.get_by_label("Gust", exact=True).get_by_role("definition").nth(1)
    first = body.inner_text()
    lens.fill("70")
    lens.press("Enter")
    expect(body).not_to_have_text(first)


def test_a_film_of_ones_own_gets_its_verdict(fresh, page, tmp_path):
    film(Script(scene="door", technique=Technique(contacts=3), seconds=2), tmp_path / "my take.mp4")
    page.goto(fresh.address)
    expect(page.get_by_text("Drop a test take on this window")).to_be_visible()
    page.get_by_label("Clips to bring in").set_input_files(tmp_path / "my take.mp4")
    page.get_by_role("link", name="my take").click()
    expect(page.get_by_test_id("gust")).to_be_visible()
    assert verdict(page).startswith("remedy-")
    page.goto(fresh.address)
    page.get_by_label("Clips to bring in").set_input_files(tmp_path / "my take.mp4")
    expect(page.get_by_text("is here already").first).to_be_visible()


def test_a_bad_film_says_what_is_wrong_and_what_to_do(fresh, page, tmp_path):
    good = write_film(tmp_path / "good.mp4", shaken(30))
    (tmp_path / "cut short.mp4").write_bytes(good.read_bytes()[: good.stat().st_size // 2])
    (tmp_path / "empty.mp4").touch()
    page.goto(fresh.address)
    page.get_by_label("Clips to bring in").set_input_files(
        [tmp_path / "cut short.mp4", tmp_path / "empty.mp4"]
    )
    expect(page.get_by_text("The file is empty.")).to_be_visible()
    page.get_by_label("Dismiss empty.mp4").click()
    row = page.get_by_role("listitem").filter(has_text="cut short")
    expect(row).to_contain_text("its index is missing")
    row.get_by_role("link").click()
    expect(page.get_by_role("alert")).to_contain_text("copy it from the card again")
    expect(page.get_by_role("button", name="Measure again")).to_be_visible()


def test_clips_can_be_dropped_anywhere(fresh, page, tmp_path):
    write_film(tmp_path / "dropped.mp4", shaken(30))
    page.goto(fresh.address)
    expect(page.get_by_text("Drop a test take")).to_be_visible()
    data = list((tmp_path / "dropped.mp4").read_bytes())
    transfer = page.evaluate_handle(
        "bytes => { const t = new DataTransfer();"
        " t.items.add(new File([new Uint8Array(bytes)], 'dropped.mp4', {type: 'video/mp4'}));"
        " return t; }",
        data,
    )
    page.dispatch_event("body", "dragenter", {"dataTransfer": transfer})
    expect(page.get_by_text("Let go to bring the clips in")).to_be_visible()
    page.dispatch_event("body", "drop", {"dataTransfer": transfer})
    expect(page.get_by_role("link", name="dropped")).to_be_visible()


def test_deleting_is_undone_by_its_notice(fresh, page, tmp_path):
    fresh.send(write_film(tmp_path / "precious.mp4", shaken(30)))
    page.goto(fresh.address)
    row = page.get_by_role("main").get_by_role("listitem").filter(has_text="precious")
    row.hover()
    page.get_by_label("Delete precious").click()
    expect(row).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(row).to_have_count(1)


def test_the_page_of_keys_tells_them_on_a_narrow_screen_and_aloud(demo, page):
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{demo.address}/takes")
    expect(page.get_by_role("link", name="Sacks, slide")).to_be_visible()
    page.keyboard.press("?")
    key = page.get_by_role("dialog").locator("kbd").first
    expect(key).to_be_visible()
    expect(key).to_have_attribute("aria-hidden", "false")


def test_the_keyboard_alone_goes_all_the_way(own_demo, page):
    page.goto(f"{own_demo.address}/takes")
    expect(page.get_by_role("link", name="Sacks, slide")).to_be_visible()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("Bring clips in")
    page.keyboard.press("Escape")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("gust")).to_be_visible()
    name = page.locator("h1").inner_text()
    page.keyboard.press("ArrowUp")
    expect(page.locator("h1")).not_to_have_text(name)
    page.keyboard.press(" ")
    until(page, "!document.querySelector('video').paused")
    page.keyboard.press(" ")
    page.keyboard.press("t")
    expect(page.locator("html")).to_have_attribute("data-theme", "dusk")
    page.keyboard.press("t")
    page.keyboard.press("Delete")
    expect(page).to_have_url(re.compile("/takes$"))
    expect(page.get_by_text("Deleted").first).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_text(re.compile(r"^10$"))).to_be_visible()
    page.keyboard.press("/")
    page.keyboard.type("millstone")
    expect(page.get_by_text("1 of 10")).to_be_visible()


def test_the_list_sorts_and_filters(demo, page):
    page.goto(f"{demo.address}/takes")
    first = page.get_by_role("listitem").filter(has=page.get_by_role("link")).first
    page.get_by_label("Order").click()
    page.get_by_role("option", name="Roughest first").click()
    expect(first).to_contain_text("Sails, one hand, tired")
    page.get_by_label("Verdict").click()
    page.get_by_role("option", name="Keep the lee").click()
    expect(first).to_contain_text("Millstone, grip slips")


@pytest.mark.parametrize("place", ["list", "take"])
def test_no_serious_accessibility_fault(demo, browser, place):
    line = next(
        take for take in demo.get("/api/takes")["takes"] if take["name"] == "Cap and sails, monopod"
    )
    address = f"{demo.address}/takes" + (f"/{line['id']}" if place == "take" else "")

    def ready(page):
        if place == "take":
            return page.get_by_test_id("gust")
        return page.get_by_role("link", name="Cap and sails")

    check_accessibility(browser, address, ready=ready)


def test_whose_motion_it_is_can_be_said_and_taken_back(fresh, page, browser, tmp_path):
    blank = np.full((540, 960), 180, np.uint8)
    shown = [somebody(k, camera=1, cover=0.4, wall=blank) for k in range(45)]
    take = fresh.send(write_film(tmp_path / "coat.mp4", shown))
    fresh.wait_until(lambda: fresh.get("/api/takes")["busy"] == 0, 30)
    page.goto(f"{fresh.address}/takes")
    expect(page.get_by_text("Whose motion is it?").filter(visible=True)).to_be_visible()
    page.goto(f"{fresh.address}/takes/{take}")
    asked = page.get_by_role("region", name="Whose motion is it")
    expect(asked.get_by_text("Is it the camera that moved, or they?")).to_be_visible()
    expect(page.get_by_text("Not settled.", exact=True)).to_be_visible()
    expect(page.locator("[data-verdict=true]")).to_have_count(0)
    page.keyboard.press("o")
    expect(page.get_by_test_id("believed-points").locator("circle").first).to_be_attached()
    asked.get_by_role("button", name="Show where the background is").click()
    page.get_by_role("button", name="Row 1, column 1").click()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    pressed = page.get_by_role("group", name="Where you see the background")
    expect(pressed.get_by_role("button", pressed=True)).to_have_count(2)
    page.get_by_role("button", name="Cancel").click()
    asked.get_by_role("button", name=re.compile("^It is the camera")).press("Enter")
    expect(page.locator("[data-verdict=true]")).to_have_count(1)
    page.keyboard.press("z")
    expect(page.get_by_text("Not settled.", exact=True)).to_be_visible()
    check_accessibility(
        browser,
        f"{fresh.address}/takes/{take}",
        ready=lambda view: view.get_by_role("button", name=re.compile("^It is the camera")),
    )


def theme(page):
    return page.evaluate("document.documentElement.dataset.theme")


def test_a_held_key_acts_once_and_letters_can_be_switched_off(fresh, page):
    page.goto(f"{fresh.address}/settings")
    letters = page.get_by_role("switch", name="Letters and digits are keys")
    expect(letters).to_be_checked()
    before = theme(page)
    for _ in range(4):
        page.keyboard.down("t")  # from the second on it is a repeat
    page.keyboard.up("t")
    changed = theme(page)
    assert changed != before
    letters.click()
    page.keyboard.press("t")
    page.keyboard.press("4")
    assert (theme(page), page.url) == (changed, f"{fresh.address}/settings")
    letters.click()
    page.keyboard.press("4")
    expect(page.get_by_role("heading", name="Takes", exact=True)).to_be_visible()


def test_escape_leaves_a_field_and_no_more(fresh, page):
    page.goto(f"{fresh.address}/kit/setups/new")
    name = page.get_by_role("textbox", name="Set-up", exact=True)
    name.fill("Mine")
    page.keyboard.press("Escape")
    expect(name).not_to_be_focused()
    expect(name).to_have_value("Mine")
    assert page.url.startswith(f"{fresh.address}/kit/setups/new")


def test_the_list_keeps_its_filter_and_its_choice_while_a_take_is_looked_at(own_demo, page):
    page.goto(f"{own_demo.address}/takes")
    page.get_by_role("searchbox", name="Find by name").fill("mill")
    page.keyboard.press("Escape")
    rows = page.get_by_test_id(re.compile(r"^take-\d+$"))
    expect(rows).to_have_count(5)
    for _ in range(2):
        page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("gust")).to_be_visible()
    chosen = page.get_by_role("heading", level=1).inner_text()
    page.keyboard.press("4")
    expect(page.get_by_role("searchbox", name="Find by name")).to_have_value("mill")
    page.keyboard.press("Delete")
    expect(page.get_by_text(f"Deleted “{chosen}”.", exact=True)).to_be_visible()
    page.keyboard.press("Enter")  # the next one is chosen now
    expect(page.get_by_role("heading", level=1)).not_to_have_text(chosen)
