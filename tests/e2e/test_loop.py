"""The loop closed: a connected camera films each take, which is measured and told in the rest."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.test_body import LISTEN
from tests.e2e.test_practice_interface import wait_for
from tests.e2e.test_taking_in import film_with_slate

pytestmark = pytest.mark.e2e

SPEED = 4


def started(server, page, *, camera: str, say: str | None = None, speed: int = SPEED):
    """A session of one drill, begun with a camera; past its setting up."""
    page.add_init_script(LISTEN)
    made = server.put("/api/drills/hands/session", {"variation": "two"}, "POST")
    page.goto(f"{server.address}/practice/{made['session_id']}?speed={speed}")
    page.get_by_role("radio", name=camera, exact=True).click()
    if say is not None:
        page.get_by_role("radio", name=say).click()
    page.get_by_role("button", name=re.compile("cautions: begin")).click()
    return made["session_id"]


def test_each_take_is_filmed_measured_and_told_in_the_rest(fresh, page):
    # A rest that is long enough for its take to be measured on a machine that does much else.
    session_id = started(fresh, page, camera="Simulated", speed=1)
    expect(page.get_by_label("What the camera sees")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Start")).click()
    page.keyboard.press("ArrowRight")
    wait_for(page, "roll", 0)
    expect(page.get_by_label("The camera rolls")).to_be_visible()
    wait_for(page, "rest", 0)
    told = page.get_by_test_id("told")
    expect(told).to_contain_text(re.compile(r"Gust \d+\.\d, (within|over) \d"))
    page.keyboard.press("ArrowRight")
    wait_for(page, "roll", 1)
    said = page.evaluate("window.said")
    assert "Film the code" not in " ".join(said), "no slate where films file themselves"
    rests = [words for words in said if words.startswith("Gust")]
    assert len(rests) == 1
    assert said.index("Rest") < said.index(rests[0]) < len(said) - 1
    page.keyboard.press("Escape")
    first, second = fresh.get(f"/api/sessions/{session_id}")["session"]["takes"][:2]
    assert first["gust"] is not None
    assert f"Gust {first['gust']:.1f}" in rests[0]
    assert second["take_id"] is None, "what was broken off leaves nothing"
    lines = fresh.get("/api/takes?origin=simulated")["takes"]
    assert [one["id"] for one in lines] == [first["take_id"]]


def test_a_camera_that_does_not_answer_stops_nothing(fresh, page):
    started(fresh, page, camera="Connected", say="Nothing")
    expect(page.get_by_role("alert")).to_contain_text("No camera answered")
    page.get_by_role("button", name=re.compile("^Start")).click()
    page.keyboard.press("ArrowRight")
    wait_for(page, "rest", 0)
    expect(page.get_by_test_id("told")).to_be_hidden()
    wait_for(page, "count", 1)


def test_a_film_that_comes_to_a_watched_folder_is_told_in_the_rest(fresh, page, tmp_path):
    folder = tmp_path / "synced"
    folder.mkdir()
    film_with_slate(folder / "there-before.mp4", 0)
    page.goto(f"{fresh.address}/settings")
    section = page.get_by_role("region", name="Films that come by themselves")
    section.get_by_role("textbox", name="Folder to watch").fill(str(folder / "nowhere"))
    section.get_by_role("button", name="Watch it").click()
    expect(section.get_by_role("alert")).to_contain_text("no folder at this place")
    section.get_by_role("textbox", name="Folder to watch").fill(str(folder))
    page.keyboard.press("Enter")
    expect(section.get_by_role("status")).to_contain_text("Watching")
    session_id = started(fresh, page, camera="Its films come by themselves", speed=2)
    page.get_by_role("button", name=re.compile("^Start")).click()
    page.keyboard.press("ArrowRight")
    wait_for(page, "slate", 0)
    wait_for(page, "rest", 0)
    film_with_slate(folder / "clip-0001.mp4", 0)
    told = page.get_by_test_id("told")
    expect(told).to_contain_text(re.compile(r"Gust \d+\.\d"))
    page.keyboard.press("Escape")
    first = fresh.get(f"/api/sessions/{session_id}")["session"]["takes"][0]
    assert first["gust"] is not None
    assert f"Gust {first['gust']:.1f}" in page.evaluate("window.said").pop()
    assert len(fresh.get("/api/takes")["takes"]) == 1, "what was there before stays out"
    page.goto(f"{fresh.address}/settings")
    expect(section.get_by_role("list", name="What came")).to_contain_text("clip-0001.mp4")
    section.get_by_role("button", name="Watch no more").click()
    expect(section.get_by_role("status")).to_contain_text("No folder is watched")
