"""An evening with many clips: narrowed, picked, settled, named and saved, by key and pointer."""

from __future__ import annotations

import csv
import io
import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from ridgewind.store import briefs, clips, database, takes
from tests.e2e.helpers import check_accessibility

pytestmark = pytest.mark.e2e

IDLE_S = 8


def lines(app) -> dict[str, dict]:
    return {take["name"]: take for take in app.get("/api/takes")["takes"]}


def choices(app) -> list[str | None]:
    return [take["choice"] for take in app.get("/api/takes")["takes"]]


def picked(page: Page):
    return page.get_by_role("region", name="Picked takes")


def test_many_are_picked_settled_and_put_back_by_one_key(own_demo, page):
    page.goto(f"{own_demo.address}/takes")
    expect(page.get_by_role("checkbox")).to_have_count(10)
    page.get_by_role("checkbox").nth(1).click()
    page.get_by_role("checkbox").nth(3).click(modifiers=["Shift"])
    expect(picked(page)).to_contain_text("3 picked")
    page.keyboard.press("k")
    expect(page.get_by_text("Kept: 3 takes.", exact=True)).to_be_visible()
    assert choices(own_demo).count("keep") == 3
    page.keyboard.press("z")
    own_demo.wait_until(lambda: not any(choices(own_demo)), seconds=5)
    page.keyboard.press("e")
    expect(picked(page)).to_contain_text("10 picked")
    page.keyboard.press("Delete")
    expect(page.get_by_text("Deleted: 10 takes.", exact=True)).to_be_visible()
    assert own_demo.get("/api/takes")["all"] == 0
    page.keyboard.press("z")
    own_demo.wait_until(lambda: own_demo.get("/api/takes")["all"] == 10, seconds=5)


def test_picked_takes_are_named_and_given_another_brief(own_demo, page):
    page.goto(f"{own_demo.address}/takes")
    page.get_by_role("link", name="Cap and sails").wait_for()
    said = page.get_by_test_id("chosen-said")
    expect(said).to_have_text("")
    page.keyboard.press("ArrowDown")
    expect(said).to_have_text(re.compile(r"^[A-Z].*, gust \d\.\d, 1 of 10$"))
    page.keyboard.press("Shift+ArrowDown")
    expect(said).to_have_text(re.compile(r", picked, 2 of 10$"))
    expect(picked(page)).to_contain_text("2 picked")
    page.keyboard.press("r")
    page.get_by_role("textbox", name="Name").fill("Dusk")
    page.keyboard.press("Enter")
    expect(page.get_by_role("link", name="Dusk 1")).to_be_visible()
    expect(page.get_by_role("link", name="Dusk 2")).to_be_visible()
    page.get_by_role("combobox", name="Brief of the picked takes").click()
    page.get_by_role("option").nth(2).click()
    expect(page.get_by_text("Another brief: 2 takes.", exact=True)).to_be_visible()
    ids = [lines(own_demo)[name]["id"] for name in ("Dusk 1", "Dusk 2")]
    links = [own_demo.get(f"/api/takes/{one}")["brief_link"]["id"] for one in ids]
    assert links[0] == links[1]


def test_a_take_is_renamed_on_its_page(own_demo, page):
    page.goto(f"{own_demo.address}/takes")
    page.get_by_role("link", name="Cap and sails").click()
    expect(page.get_by_test_id("gust")).to_be_visible()
    page.keyboard.press("r")
    page.get_by_role("textbox", name="Name").fill("Cap turning")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Cap turning")).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_role("heading", name="Cap and sails, monopod")).to_be_visible()


def test_the_list_is_narrowed_by_counted_values(demo, page):
    page.goto(f"{demo.address}/takes")
    page.get_by_role("link", name="Cap and sails").wait_for()
    page.keyboard.press("f")
    page.get_by_role("combobox", name="Drill").click()
    option = page.get_by_role("option", name=re.compile("One hand or two"))
    count = int(option.inner_text().rsplit("·")[-1])
    option.click()
    expect(page.get_by_role("checkbox")).to_have_count(count)
    expect(page.get_by_role("combobox", name="Variation")).to_be_visible()
    page.reload()
    expect(page.get_by_role("checkbox")).to_have_count(count)
    page.get_by_role("button", name="All of them").click()
    expect(page.get_by_role("checkbox")).to_have_count(10)


def test_takes_are_settled_by_key_while_they_play_beside_the_list(own_demo, page):
    page.goto(f"{own_demo.address}/takes")
    page.get_by_role("combobox", name="Order").click()
    page.get_by_role("option", name="Worth opening first").click()
    page.locator("h1").click()
    page.keyboard.press("p")
    page.keyboard.press("Home")
    beside = page.get_by_role("complementary", name="Chosen take")
    expect(beside).to_contain_text("Keep it as shot")
    film = page.get_by_test_id("beside")
    assert film.evaluate("film => film.paused")
    page.keyboard.press(" ")
    expect(beside.get_by_role("button", name="Pause")).to_be_visible()
    first = beside.locator("p").first.inner_text()
    page.keyboard.press("k")
    expect(page.get_by_text(f"Kept: “{first}”.", exact=True)).to_be_visible()
    expect(beside.locator("p").first).not_to_have_text(first)
    assert lines(own_demo)[first]["choice"] == "keep"
    # Settled takes stand last.
    expect(
        page.get_by_role("listitem").filter(has=page.get_by_role("checkbox")).last
    ).to_contain_text(first)


def test_picked_takes_are_saved_as_a_table(demo, page):
    page.goto(f"{demo.address}/takes")
    page.get_by_role("checkbox").first.wait_for()
    page.keyboard.press("e")
    with page.expect_download() as found:
        picked(page).get_by_role("button", name="CSV").click()
    text = Path(found.value.path()).read_text(encoding="utf-8")
    rows = list(csv.DictReader(io.StringIO(text)))
    shown = lines(demo)
    assert {row["name"] for row in rows} == set(shown)
    for row in rows:
        assert float(row["gust"]) == pytest.approx(shown[row["name"]]["gust"], abs=1e-3)
        assert re.fullmatch(r"\d\d:\d\d:\d\d:\d\d", row["in"]) or row["verdict"] == "retake"


def test_the_list_with_everything_open_is_accessible_and_fits(demo, browser):
    def ready(page: Page):
        page.get_by_role("checkbox").first.click()
        page.get_by_role("button", name="Narrow").click()
        page.keyboard.press("ArrowDown")
        page.keyboard.press("p")
        page.get_by_role("combobox", name="Cause").wait_for()
        return picked(page)

    check_accessibility(browser, f"{demo.address}/takes", ready=ready)


def test_an_idle_list_of_5000_takes_sends_under_a_kilobyte_a_second(fresh, page, tmp_path):
    with database.opened(tmp_path / "library" / "library.db") as db, database.atomic(db):
        brief = briefs.usual(db).id
        for k in range(5000):
            clip = clips.add(db, sha256=f"{k:064x}", file=f"{k:064x}.mp4", size_bytes=1)
            takes.add(db, clip_id=clip, name=f"Take {k}", brief_id=brief, setup_id=None)
    sent = {"bytes": 0}

    def count(received: dict) -> None:
        sent["bytes"] += received["encodedDataLength"]

    page.goto(f"{fresh.address}/takes")
    expect(page.get_by_text("5000", exact=False).first).to_be_visible()
    page.wait_for_load_state("networkidle")
    session = page.context.new_cdp_session(page)
    session.on("Network.loadingFinished", count)
    session.send("Network.enable")
    page.wait_for_timeout(1000 * IDLE_S)
    idle = sent["bytes"]
    page.evaluate("fetch('/api/takes').then((answer) => answer.text())")
    page.wait_for_timeout(500)
    assert idle < 1024 * IDLE_S < sent["bytes"], "what is sent is counted"
