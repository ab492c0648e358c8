"""What findings are used for, in the real interface: progress, feeling, a shot that is wanted, a
film in one's own hand, a first look, a brief by example."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.helpers import check_accessibility, choose

pytestmark = pytest.mark.e2e


def test_weeks_stand_as_a_landscape_and_a_drill_is_chosen_by_key(practised, page):
    page.goto(f"{practised.address}/findings/progress")
    expect(page.get_by_role("heading", name="Progress")).to_be_visible()
    landscape = page.get_by_role("figure")
    expect(landscape).to_have_attribute("aria-label", re.compile("Against what is usual by week"))
    page.keyboard.press("ArrowDown")
    expect(page).to_have_url(re.compile("drill=hands"))
    expect(landscape).to_have_attribute("aria-label", re.compile("in the middle of 6 takes"))
    expect(page.get_by_role("region", name="Records")).to_contain_text("One hand or two")


def test_feeling_and_tiredness_are_told(practised, page):
    page.goto(f"{practised.address}/findings/felt")
    expect(page.get_by_role("region", name="Feeling")).to_contain_text("times in a hundred")
    expect(page.get_by_role("region", name="Tiredness").get_by_role("figure")).to_be_visible()
    expect(page.get_by_role("region", name="Takes and rest")).to_contain_text("adds")


def test_a_shot_leads_to_a_planned_session(practised, page):
    page.goto(f"{practised.address}/findings/shot")
    ways = page.get_by_role("list", name="Ways to get it").get_by_role("listitem")
    expect(ways.first).to_contain_text("takes of yours")
    expect(page.get_by_test_id("outlook")).to_contain_text("four times in five")
    page.get_by_role("combobox", name="Feel").click()
    page.get_by_role("option", name="Locked").click()
    page.get_by_role("switch", name="Keep the sound").click()
    expect(page.get_by_test_id("outlook")).to_contain_text("Gust 1.5 or under")
    page.get_by_role("combobox", name="Feel").click()
    page.get_by_role("option", name="Alive").click()
    page.get_by_role("radio", name="Framing").click()
    page.get_by_role("textbox", name="Distance").fill("4")
    page.keyboard.press("Enter")
    expect(page.get_by_text("48 mm", exact=True)).to_be_visible()
    page.locator("h1").click()
    options = page.get_by_role("list", name="Ways to get it")
    expect(options).to_have_attribute("aria-busy", "false")  # what is shown is what is asked
    page.keyboard.press("ArrowDown")
    expect(ways.nth(1)).to_have_attribute("aria-current", "true")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/practice/\d+$"))
    expect(page.get_by_role("heading", name=re.compile("^Practise: "))).to_be_visible()


def test_a_set_up_is_taken_and_given_back(practised, page):
    page.goto(f"{practised.address}/findings/shot")
    page.get_by_role("radio", name="Lens", exact=True).click()
    page.get_by_role("slider", name="Lens").fill("28")
    take = page.get_by_role("button", name="Take this set-up").first
    expect(take).to_be_enabled()
    before = practised.get("/api/shot")["setup"]
    take.click()
    expect(page.get_by_text(re.compile("^The set-up in use is now at"))).to_be_visible()
    assert practised.get("/api/shot")["setup"] != before
    page.keyboard.press("z")
    practised.wait_until(lambda: practised.get("/api/shot")["setup"] == before, seconds=5)


def test_it_is_filmed_with_ones_own_hand_and_reads_what_was_predicted(practised, page):
    page.goto(f"{practised.address}/findings/hand")
    expect(page.get_by_role("region", name="Profile")).to_contain_text("Elbows in")
    page.keyboard.press("f")
    filming = page.get_by_role("progressbar", name="Filming in your hand")
    expect(filming).to_be_visible()
    page.get_by_role("button", name="Cancel", exact=True).click()
    expect(filming).to_be_hidden()
    assert practised.get("/api/takes?origin=simulated")["takes"] == []
    page.keyboard.press("f")
    told = page.get_by_text(re.compile(r"^Filmed: .*Predicted gust \d"))
    expect(told).to_be_visible()
    predicted = float(re.search(r"gust (\d+\.\d)", told.inner_text())[1])
    expect(page).to_have_url(re.compile(r"/takes/\d+$"))
    expect(page.get_by_text("simulated, not a recording")).to_be_visible()
    gust = page.get_by_test_id("gust")
    expect(gust).to_be_visible()
    assert float(gust.inner_text()) == pytest.approx(predicted, abs=0.45)


def test_a_brief_is_made_by_example_and_taken_back(own_demo, page):
    take = own_demo.get("/api/takes")["takes"][0]
    page.goto(f"{own_demo.address}/takes/{take['id']}")
    expect(page.get_by_test_id("gust")).to_be_visible()
    page.keyboard.press("b")
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("textbox", name="Name").fill("Like the old film")
    dialog.get_by_role("switch").set_checked(True)
    dialog.get_by_role("button", name="Make the brief").click()
    expect(page.get_by_role("heading", name="Briefs")).to_be_visible()
    expect(page.get_by_role("navigation", name="Briefs")).to_contain_text("Like the old film")
    expect(page.get_by_role("region", name="Example")).to_contain_text(f"Like “{take['name']}”")
    names = [one["name"] for one in own_demo.get("/api/takes")["takes"]]
    assert take["name"] not in names
    examples = own_demo.get("/api/takes?origin=example")["takes"]
    assert [one["name"] for one in examples] == [take["name"]]
    page.keyboard.press("z")
    own_demo.wait_until(lambda: own_demo.get("/api/takes?origin=example")["takes"] == [], seconds=5)


def test_a_shot_like_a_clip_is_asked_for(own_demo, page):
    take = next(one for one in own_demo.get("/api/takes")["takes"] if one["remedy"] is not None)
    page.goto(f"{own_demo.address}/takes/{take['id']}")
    page.get_by_role("link", name="How do I get one like it?").click()
    expect(page.get_by_text(f"Asked for a shot like “{take['name']}”.").first).to_be_visible()
    target = own_demo.get(f"/api/shot/like/{take['id']}")["target"]
    expect(page.get_by_test_id("outlook")).to_contain_text(f"Gust {target:.1f} or under")


def test_a_take_is_held_against_the_example_of_its_brief(own_demo, page):
    def strongest(take):
        bands = own_demo.get(f"/api/takes/{take['id']}")["judgement"]["bands"]
        return max(bands, key=lambda band: band["share"] or 0.0)["name"]

    lines = own_demo.get("/api/takes")["takes"]
    settled = [one for one in lines if one["remedy"] is not None]
    swaying = next(one for one in settled if strongest(one) == "sway")
    other = next(one for one in settled if strongest(one) in ("step", "jitter", "buzz"))
    address = f"/api/takes/{swaying['id']}/brief-like-it"
    made = own_demo.put(address, {"name": "Like it", "is_own": True}, "POST")
    for take, words in ((swaying, "as its example does"), (other, "otherwise than its example")):
        page.goto(f"{own_demo.address}/takes/{take['id']}")
        choose(page, "Brief of this take", "Like it")
        example = page.get_by_role("region", name="Like the example")
        expect(example).to_contain_text(words)
        expect(example).to_contain_text("decided by gust alone")
    page.goto(f"{own_demo.address}/plan/briefs?brief={made['brief_id']}")
    page.get_by_role("button", name="Let the example go").click()
    expect(page.get_by_role("region", name="Example")).to_be_hidden()
    page.keyboard.press("s")
    expect(page.get_by_text("“Like it” is changed.").first).to_be_visible()
    page.goto(f"{own_demo.address}/takes/{other['id']}")
    expect(page.get_by_test_id("gust")).to_be_visible()
    expect(page.get_by_role("region", name="Like the example")).to_be_hidden()


def test_a_newcomer_plans_the_first_look_from_the_first_page(fresh, page):
    page.goto(f"{fresh.address}/takes")
    page.get_by_role("button", name="Plan the first look, 12 minutes").click()
    expect(page).to_have_url(re.compile(r"/practice/\d+$"))
    expect(page.get_by_role("heading", name="First look at your hand", exact=True)).to_be_visible()
    session = fresh.get("/api/sessions")["sessions"][0]
    assert len(session["takes"]) == 12


@pytest.mark.parametrize(
    ("place", "ready"),
    [
        ("progress", lambda page: page.get_by_role("region", name="Records")),
        ("felt", lambda page: page.get_by_role("region", name="Tiredness")),
        ("shot", lambda page: page.get_by_role("list", name="Ways to get it")),
        ("hand", lambda page: page.get_by_role("region", name="Profile")),
    ],
)
def test_they_can_be_read_by_everyone(practised, browser, place, ready):
    check_accessibility(browser, f"{practised.address}/findings/{place}", ready=ready)


def test_picked_takes_are_compared_as_a_trial(practised, page):
    page.goto(f"{practised.address}/takes")
    page.get_by_role("checkbox").first.wait_for()
    page.locator("h1").first.click()
    page.keyboard.press("e")
    page.get_by_role("link", name="As a trial").click()
    expect(page.get_by_role("heading", name="Picked takes compared")).to_be_visible()
    expect(page.get_by_role("region", name="Differences")).to_contain_text("gust less is steadier")
    page.get_by_role("combobox", name="Against").click()
    page.get_by_role("option", name="Against Two hands", exact=True).click()
    expect(page.get_by_role("region", name="Differences")).to_contain_text("Against two hands")
    page.get_by_role("combobox", name="Grouped").click()
    page.get_by_role("option", name="By brief").click()
    expect(
        page.get_by_text("It must tell 2 to 24 groups apart, and here it tells 1")
    ).to_be_visible()
