"""Findings in the real interface: trials read, takes let in and out, and the next ones planned."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.helpers import check_accessibility

pytestmark = pytest.mark.e2e


def side(page: Page, key: str):
    return page.get_by_test_id(f"side-{key}")


def test_a_trial_is_seen_and_a_hint_looks_like_one(practised, page):
    page.goto(f"{practised.address}/findings")
    expect(page.get_by_role("heading", name="One hand or two")).to_be_visible()
    expect(side(page, "two")).to_contain_text("Steadier than the control")
    expect(side(page, "two")).to_contain_text(re.compile(r"−1\.\d\d \(−\d\.\d\d to −\d\.\d\d\)"))
    points = page.get_by_role("group", name="Takes of the trial").get_by_role("link")
    expect(points).to_have_count(24)
    page.keyboard.press("ArrowDown")
    page.get_by_role("button", name=re.compile("^Elbows in or out")).click()
    expect(side(page, "in")).to_contain_text("A hint, of 2 takes")
    points.first.click()
    expect(page.get_by_test_id("gust")).to_be_visible()


def test_on_a_phone_the_tab_of_the_page_is_in_sight(practised, page):
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{practised.address}/findings")
    tabs = page.get_by_role("navigation", name="Findings")
    expect(tabs.get_by_role("link", name="Your eye")).not_to_be_in_viewport(ratio=0.9)
    page.goto(f"{practised.address}/findings/eye")
    expect(tabs.get_by_role("link", name="Your eye")).to_be_in_viewport(ratio=1)


def test_a_take_is_left_out_and_comes_back_by_undo(practised, page):
    page.goto(f"{practised.address}/findings?drill=hands")
    counted = page.get_by_role("region", name="Takes that count")
    expect(counted).to_contain_text("24 takes count")
    counted.get_by_role("button", name=re.compile("^Leave out")).first.click()
    expect(counted).to_contain_text("23 takes count")
    expect(counted).to_contain_text("left out by you")
    page.keyboard.press("z")
    expect(counted).to_contain_text("24 takes count")
    expect(counted).not_to_contain_text("left out by you")


def test_another_figure_is_compared_and_kept_in_the_address(practised, page):
    page.goto(f"{practised.address}/findings?drill=hands")
    page.get_by_role("combobox", name="Compared by").click()
    page.get_by_role("option", name="Jitter alone").click()
    expect(page).to_have_url(re.compile("by=jitter"))
    page.reload()
    expect(page.get_by_role("combobox", name="Compared by")).to_have_text("Jitter alone")


def test_a_hint_leads_to_a_session_that_would_settle_it(practised, page):
    page.goto(f"{practised.address}/findings?drill=elbows")
    page.get_by_role("button", name=re.compile(r"^Film the next \d+ takes")).click()
    expect(page).to_have_url(re.compile(r"/practice/\d+$"))
    expect(page.get_by_role("heading", name="Trial: Elbows in or out")).to_be_visible()


@pytest.mark.parametrize("drill", ["hands", "elbows"])
def test_trials_can_be_read_by_everyone(practised, browser, drill):
    check_accessibility(
        browser, f"{practised.address}/findings?drill={drill}",
        ready=lambda page: page.get_by_role("region", name="Differences"),
    )  # fmt: skip


def test_an_empty_library_says_what_to_do_first(fresh, page):
    page.goto(f"{fresh.address}/findings")
    expect(page.get_by_text("Nothing to compare yet.")).to_be_visible()
    page.get_by_role("link", name="plan a session").click()
    expect(page).to_have_url(re.compile("/plan$"))


def test_limits_are_seen_by_brief(practised, page):
    page.goto(f"{practised.address}/findings/limits")
    lens = page.get_by_role("region", name="Longest lens").get_by_role("img")
    before = lens.get_attribute("aria-label")
    assert re.search(r"Two hands: up to \d+ millimetres, of 8 takes\.", before)
    assert "Elbows in" in before
    expect(page.get_by_role("region", name="Longest hold")).to_contain_text("One hand")
    page.get_by_role("combobox", name="Brief").click()
    page.get_by_role("option").last.click()
    expect(page).to_have_url(re.compile(r"brief=\d+"))
    expect(lens).not_to_have_attribute("aria-label", before)


def test_limits_can_be_read_by_everyone(practised, browser):
    check_accessibility(
        browser, f"{practised.address}/findings/limits",
        ready=lambda page: page.get_by_role("region", name="Longest hold"),
    )  # fmt: skip


def test_a_hand_is_asked_about_another_lens(practised, page):
    page.goto(f"{practised.address}/findings/hand")
    told = page.get_by_test_id("predicted")
    expect(told).to_contain_text("At 50 mm it would read")
    expect(told).to_contain_text("off in the middle")
    before = told.inner_text()
    page.locator("h1").click()
    page.keyboard.press("ArrowRight")
    expect(told).not_to_contain_text("At 50 mm")
    page.get_by_role("slider", name="Lens").fill("60")
    expect(told).to_contain_text("At 80 mm")
    page.get_by_role("combobox", name="Played").click()
    page.get_by_role("option", name="Slowed to 40 %").click()
    expect(told).not_to_have_text(before)


def test_a_hand_can_be_read_by_everyone(practised, browser):
    check_accessibility(
        browser, f"{practised.address}/findings/hand",
        ready=lambda page: page.get_by_test_id("predicted"),
    )  # fmt: skip
