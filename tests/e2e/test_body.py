"""The drawn body in the real interface: a drill read, played and dragged; phases that are said."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.helpers import check_accessibility
from tests.e2e.test_practice_interface import wait_for

pytestmark = pytest.mark.e2e

LISTEN = """
window.said = [];
speechSynthesis.speak = (one) => window.said.push(one.text);
"""


def drawn(page):
    return page.get_by_role("region", name="The body, drawn")


def test_a_drill_is_seen_played_and_dragged_through(demo, page):
    page.emulate_media(reduced_motion="no-preference")
    page.goto(f"{demo.address}/plan/drills/push-pull")
    body = drawn(page).get_by_role("figure")
    expect(body).to_have_attribute("aria-label", re.compile("weight comes forward"))
    expect(body.locator("svg")).to_have_count(3 + 1)  # three sides, and the sign on the button
    slider = drawn(page).get_by_role("slider")
    before = slider.input_value()
    expect(slider).not_to_have_value(before)  # it plays
    drawn(page).get_by_role("button", name="Pause").click()
    slider.fill("0.5")
    expect(slider).to_have_value("0.5")
    ways = drawn(page).get_by_role("listitem")
    expect(ways).to_have_count(3)
    expect(ways.nth(1)).to_contain_text("differs: length of the step")
    ways.nth(0).get_by_role("button").click()
    expect(ways.nth(0).get_by_role("button")).to_have_attribute("aria-pressed", "true")


def test_nothing_plays_by_itself_under_reduced_motion(demo, browser):
    context = browser.new_context(reduced_motion="reduce")
    page = context.new_page()
    page.goto(f"{demo.address}/plan/drills/slide")
    slider = drawn(page).get_by_role("slider")
    expect(slider).to_have_value("1")
    expect(drawn(page).get_by_role("button", name="Play")).to_be_visible()
    context.close()


def test_every_drill_of_the_list_has_its_body(demo, page):
    page.goto(f"{demo.address}/plan/drills")
    expect(page.get_by_role("listitem").locator("svg")).to_have_count(48)


def test_a_drawn_drill_can_be_read_by_everyone(demo, browser):
    check_accessibility(browser, f"{demo.address}/plan/drills/elbows", ready=drawn)


def test_each_phase_of_a_session_is_said(fresh, page):
    page.add_init_script(LISTEN)
    made = fresh.put("/api/drills/pan/session", {"variation": "end"}, "POST")
    page.goto(f"{fresh.address}/practice/{made['session_id']}?speed=6")
    page.get_by_role("button", name=re.compile("cautions: begin")).click()
    page.get_by_role("button", name=re.compile("^Start")).click()
    expect(page.get_by_test_id("runner").get_by_role("figure").first).to_be_visible()
    page.keyboard.press("ArrowRight")
    wait_for(page, "rest", 0)
    said = page.evaluate("window.said")
    assert said[0].startswith("Pan from the hips. Choose the last frame first")
    assert said[1].startswith("Screen bright. Film the code. Feet to the ")
    assert said[2:] == ["Get ready", "Roll", "Middle", "Rest"]


def test_what_differs_from_the_plain_control_is_edged(demo, page):
    page.goto(f"{demo.address}/plan/drills/elbows")
    ways = drawn(page).get_by_role("listitem")
    edges = "path[stroke='var(--lamp)'][fill='none']"
    expect(ways.filter(has_text="the plain control").locator(edges)).to_have_count(0)
    expect(ways.filter(has_text="differs: ").locator(edges)).to_have_count(4)  # two arms of two


def test_a_session_is_taken_along_on_paper(fresh, page, browser):
    made = fresh.put("/api/drills/pan/session", {"variation": "end"}, "POST")
    address = f"{fresh.address}/practice/{made['session_id']}"
    page.goto(address)
    page.get_by_role("link", name=re.compile("^On paper")).click()
    sheet = page.get_by_test_id("sheet")
    expect(sheet.get_by_role("heading", name="Pan from the hips", exact=True)).to_be_visible()
    expect(sheet.get_by_role("figure")).to_have_attribute("aria-label", re.compile("hips turn"))
    takes = fresh.get(f"/api/sessions/{made['session_id']}")["session"]["takes"]
    expect(sheet.get_by_role("row")).to_have_count(1 + len(takes))
    paper = page.pdf(prefer_css_page_size=True)
    assert len(re.findall(rb"/Type\s*/Page[^s]", paper)) == 1
    page.keyboard.press("Escape")
    expect(page).to_have_url(address)
    check_accessibility(
        browser, f"{address}/sheet", ready=lambda page: page.get_by_role("figure").first
    )
