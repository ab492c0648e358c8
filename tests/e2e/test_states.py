"""What everyone can read in states that pages are in for a moment: open, empty, refused, away."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.conftest import shaken, write_film
from tests.e2e.helpers import check_state

pytestmark = pytest.mark.e2e


@pytest.fixture
def page(browser):
    """One whose scripts may be added to."""
    context = browser.new_context(bypass_csp=True, reduced_motion="reduce")
    yield context.new_page()
    context.close()


def test_open_lists_dialogs_and_what_is_picked(demo, page):
    page.goto(f"{demo.address}/takes")
    expect(page.get_by_role("checkbox")).to_have_count(10)
    page.get_by_role("combobox", name="Order").click()
    expect(page.get_by_role("option").first).to_be_visible()
    check_state(page, "an open list")
    page.keyboard.press("Escape")
    page.get_by_role("heading", level=1).click()  # a letter in a list chooses from it
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_be_visible()
    check_state(page, "the keys")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="From a folder or card").click()
    expect(page.get_by_role("dialog")).to_be_visible()
    page.get_by_role("textbox", name="Folder on this computer").fill("/no/such/folder")
    page.get_by_role("button", name="Look").click()
    expect(page.get_by_role("alert")).to_be_visible()
    check_state(page, "a folder that is not there")
    page.keyboard.press("Escape")
    page.get_by_role("checkbox").nth(1).click()
    expect(page.get_by_role("region", name="Picked takes")).to_be_visible()
    check_state(page, "picked takes")
    page.keyboard.press("Escape")
    page.get_by_role("searchbox").fill("no such take")
    expect(page.get_by_role("checkbox")).to_have_count(0)
    check_state(page, "nothing found")


PLACES = (
    "takes", "practice", "findings", "findings/progress", "findings/eye", "sequence", "field",
)  # fmt: skip


def test_empty_places_say_what_to_do_first(fresh, page):
    for place in PLACES:
        page.goto(f"{fresh.address}/{place}")
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        expect(page.get_by_role("main").get_by_role("link").or_(
            page.get_by_role("main").get_by_role("button")
        ).first).to_be_visible()  # fmt: skip
        expect(page.get_by_text("Every take is marked")).to_have_count(0)
        check_state(page, f"empty {place}")


def test_faults_notices_and_a_server_that_is_away(fresh, page, tmp_path):
    good = write_film(tmp_path / "good.mp4", shaken(30))
    fresh.send(good)
    cut_short = tmp_path / "cut short.mp4"
    cut_short.write_bytes(good.read_bytes()[: good.stat().st_size // 2])
    bad = fresh.send(cut_short)
    fresh.wait_until(lambda: fresh.get("/api/takes")["busy"] == 0)
    good_id = next(one["id"] for one in fresh.get("/api/takes")["takes"] if one["name"] == "good")
    fresh.put(f"/api/takes/{good_id}/choice", {"choice": "reject"})
    page.goto(f"{fresh.address}/takes")
    (tmp_path / "empty.mp4").touch()
    page.get_by_label("Clips to bring in").first.set_input_files(tmp_path / "empty.mp4")
    expect(page.get_by_text("The file is empty.")).to_be_visible()
    check_state(page, "a refused, a failed and a rejected film")
    page.get_by_label("Dismiss empty.mp4").click()
    page.get_by_role("main").get_by_role("listitem").filter(has_text="good").hover()
    page.get_by_label("Delete good").click()
    expect(page.get_by_role("button", name="Undo")).to_be_visible()
    check_state(page, "a notice with its undo")
    page.goto(f"{fresh.address}/settings")
    expect(page.get_by_role("region", name="Deleted takes").get_by_text("good")).to_be_visible()
    check_state(page, "what was deleted")
    page.goto(f"{fresh.address}/takes/{bad}")
    expect(page.get_by_role("button", name="Measure again")).to_be_visible()
    check_state(page, "a film that could not be measured")
    page.goto(f"{fresh.address}/takes/999")
    expect(page.get_by_role("main").get_by_role("link").first).to_be_visible()
    check_state(page, "no such take")
    page.goto(f"{fresh.address}/kit/setups/1?panel=move")
    field = page.get_by_role("textbox", name="It takes", exact=True)
    field.fill("0")
    expect(field).to_have_attribute("aria-invalid", "true")
    check_state(page, "a field out of range")
    page.goto(f"{fresh.address}/takes")
    expect(page.get_by_text("cut short").first).to_be_visible()
    page.route(re.compile("/api/"), lambda route: route.abort())
    expect(page.get_by_role("button", name="Try again").first).to_be_visible()
    check_state(page, "a server that is away")


def test_a_slate_a_pause_and_a_rest(fresh, page):
    made = fresh.put("/api/drills/hands/session", {"variation": "two"}, "POST")
    page.goto(f"{fresh.address}/practice/{made['session_id']}")
    page.get_by_role("button", name=re.compile("cautions: begin")).click()
    page.get_by_role("button", name=re.compile("^Start")).click()
    runner = page.get_by_test_id("runner")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_alt_text("Code of take 1")).to_be_visible()
    page.keyboard.press(" ")
    expect(page.get_by_text("Paused")).to_be_visible()
    check_state(page, "a slate, paused")
    page.keyboard.press(" ")
    page.keyboard.press("ArrowRight")
    expect(runner).not_to_have_attribute("data-phase", "slate")
    check_state(page, "after a skip")
