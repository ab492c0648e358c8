"""An outing in a real browser: written in words, put in order, run on the spot."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.e2e.conftest import Server
from tests.e2e.helpers import LOOKS, LYING, check_accessibility

pytestmark = pytest.mark.e2e
LINES = (
    "wide of the mill, low, push in 6 s, gate in front",
    "close on the cap of the mill, pan left 5 s",
    "the miller, medium, slide right 4 s, twice",
)


def write(server) -> dict:
    made = server.put("/api/outings", {"name": "The mill", "place": "the yard"}, "POST")
    for line in LINES:
        made = server.put(f"/api/outings/{made['id']}/lines", {"line": line}, "POST")
    return made


@pytest.fixture(scope="module")
def sequenced(starter, tmp_path_factory):
    """A library with an outing, to be looked at."""
    root = tmp_path_factory.mktemp("sequenced")
    server = Server("serve", root / "library", root / "log")
    write(server)
    yield server
    server.stop()


def subjects(server, outing_id: int) -> list[str]:
    found = server.get(f"/api/outings/{outing_id}")["shots"]
    return [one["shot"]["subject"] for one in found]


def test_an_outing_is_written_in_words_put_in_order_and_printed(fresh, page):
    page.goto(f"{fresh.address}/sequence")
    expect(page.get_by_role("heading", name="Sequence")).to_be_visible()
    page.keyboard.press("n")
    page.get_by_label("Name of the outing").fill("Harrow Top")
    page.get_by_role("button", name="Plan it").click()
    expect(page.get_by_role("heading", name="Harrow Top")).to_be_visible()
    line = page.get_by_label("The next shot, in plain words")
    for text in LINES:
        line.fill(text)
        line.press("Enter")
        expect(line).to_have_value("")
    strip = page.get_by_role("list", name="Shots")
    expect(strip.get_by_role("listitem")).to_have_count(3)
    first = "Shot 1: wide of the mill, from low, push in, gate in front"
    expect(page.get_by_role("img", name=first)).to_be_visible()
    missing = page.get_by_role("region", name="What is missing")
    flip = missing.get_by_role("listitem").filter(has_text="goes left, then the miller goes right")
    expect(flip).to_be_visible()
    flip.get_by_role("button", name="Let it be").click()
    expect(flip).to_have_count(0)
    page.get_by_role("button", name=re.compile("Shot 3")).focus()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Earlier").click()
    fresh.wait_until(lambda: subjects(fresh, 1)[1] == "the miller")
    page.get_by_role("radio", name="left").click()
    expect(page.get_by_role("img", name=re.compile("Shot 2: .*slide left"))).to_be_visible()
    page.get_by_role("button", name="Take it out").click()
    expect(strip.get_by_role("listitem")).to_have_count(2)
    page.keyboard.press("z")
    expect(strip.get_by_role("listitem")).to_have_count(3)
    from_box = page.get_by_test_id("shot-0").bounding_box()
    to_box = page.get_by_test_id("shot-2").bounding_box()
    page.mouse.move(from_box["x"] + 60, from_box["y"] + 40)
    page.mouse.down()
    page.mouse.move(to_box["x"] + 70, to_box["y"] + 40, steps=5)
    page.mouse.up()
    fresh.wait_until(lambda: subjects(fresh, 1)[2] == "the mill")
    page.keyboard.press("o")
    expect(
        page.get_by_text("1 set-up", exact=False).or_(page.get_by_text("set-ups"))
    ).to_be_visible()
    page.get_by_role("link", name="On paper").click()
    expect(page.get_by_test_id("sheet").get_by_role("listitem")).to_have_count(3)


def test_a_usual_scene_is_filled_in(fresh, page):
    page.goto(f"{fresh.address}/sequence")
    page.get_by_role("button", name=re.compile("A person at work")).click()
    page.get_by_label("Who, at what?").fill("the miller")
    page.get_by_role("button", name="Plan it").click()
    expect(
        page.get_by_role("img", name=re.compile("close of the hands of the miller"))
    ).to_be_visible()


def test_shots_are_ticked_on_the_phone_with_the_network_gone(open_server, phone):
    outing = write(open_server)
    phone.reload()
    phone.get_by_role("link", name="Its shots").click()
    spot = phone.get_by_test_id("spot")
    expect(spot).to_have_attribute("data-ready", "true")
    subject = phone.get_by_test_id("spot-subject")
    expect(subject).to_have_text("the mill")
    phone.get_by_role("button", name="Slate").click()
    expect(phone.get_by_alt_text("Code of the mill")).to_be_visible()
    phone.get_by_role("button", name="Close the slate").click()
    phone.context.set_offline(True)
    phone.get_by_role("button", name="Got it").click()
    expect(subject).not_to_have_text("the mill")
    second = subject.inner_text()
    phone.get_by_role("button", name="Not possible").click()
    expect(subject).not_to_have_text(second)
    phone.get_by_label("Note").fill("wind in the sails")
    phone.get_by_label("Note").press("Enter")
    phone.get_by_role("button", name="Got it").click()
    expect(phone.get_by_text("your notes are kept here")).to_be_visible()
    phone.context.set_offline(False)

    def states() -> list[str]:
        found = open_server.get(f"/api/outings/{outing['id']}")["shots"]
        return sorted(one["state"] for one in found)

    open_server.wait_until(lambda: states() == ["got", "got", "impossible"])
    notes = [one["note"] for one in open_server.get(f"/api/outings/{outing['id']}")["shots"]]
    assert "wind in the sails" in notes


@pytest.mark.parametrize("path", ["", "/1", "/1/spot", "/1/sheet"])
def test_the_pages_are_accessible(sequenced, browser, path):
    check_accessibility(
        browser,
        f"{sequenced.address}/sequence{path}",
        ready=lambda page: page.get_by_role("heading", level=1),
        looks=(*LOOKS, LYING),
    )


def pieces(server) -> list[dict]:
    return [one["piece"] for one in server.get("/api/outings/1/joined")["pieces"]]


def taken_along_and_brought_back(own_demo, page, tmp_path) -> None:
    with page.expect_download() as saved:
        page.evaluate("""() => {
            const link = document.querySelector("a[href$='sequence.otio']");
            link.download = ""; link.click();
        }""")
    assert saved.value.suggested_filename.endswith(".otio")
    line_file = tmp_path / "back.otio"
    line_file.write_bytes(own_demo.read("/api/outings/1/sequence.otio"))
    page.get_by_label("Time line from the desk").set_input_files(line_file)
    desk = page.get_by_role("region", name="From the desk")
    expect(desk).to_contain_text("8 takes became film")
    page.goto(f"{own_demo.address}/findings/film")
    expect(
        page.get_by_role("list", name="Techniques").get_by_role("listitem").first
    ).to_be_visible()
    page.go_back()
    line_file.write_text("cut short")
    page.get_by_label("Time line from the desk").set_input_files(line_file)
    expect(desk.get_by_role("alert")).to_contain_text("not even JSON")
    page.goto(f"{own_demo.address}/findings/film")
    techniques = page.get_by_role("list", name="Techniques").get_by_role("listitem")
    expect(techniques.first).to_contain_text("Planned shots")


def test_takes_are_joined_a_cut_made_better_and_all_of_it_seen(own_demo, page, tmp_path):
    page.goto(f"{own_demo.address}/sequence/1")
    reverse = page.get_by_text("Planned as a pan left; filmed right. Reverse it, or film it again.")
    expect(reverse).to_be_visible()
    page.get_by_role("link", name="Joined").click()
    line = page.get_by_role("list", name="Pieces")
    expect(line.get_by_role("listitem")).to_have_count(11)
    expect(page.get_by_text("2 missing", exact=False)).to_be_visible()
    before = pieces(own_demo)
    assert before[1]["backwards"]
    # The first two were filmed at 25 frames a second: slower they would stutter.
    page.get_by_role("button", name=re.compile("^The cut fights")).first.click()
    expect(page.get_by_role("region", name="Cut 1")).to_contain_text("joins it better")
    page.get_by_role("button", name=re.compile("^The cut fights")).nth(2).click()
    cut = page.get_by_role("region", name="Cut 6")
    expect(cut).to_contain_text("The motion fights")
    cut.get_by_role("button", name=re.compile("^Slow the later one")).click()
    own_demo.wait_until(lambda: pieces(own_demo)[6]["speed"] < 1)
    expect(cut).to_contain_text("The motion passes")
    page.keyboard.press("z")
    own_demo.wait_until(lambda: pieces(own_demo) == before)
    page.get_by_role("button", name=re.compile("^Piece 1,")).click()
    handle = page.get_by_test_id("trim-right").bounding_box()
    x, y = handle["x"] + 6, handle["y"] + 50
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 30, y, steps=3)
    page.mouse.up()
    own_demo.wait_until(lambda: pieces(own_demo)[0]["out_s"] < before[0]["out_s"] - 0.5)
    trimmed = pieces(own_demo)[0]["out_s"]
    page.keyboard.press(".")
    own_demo.wait_until(
        lambda: pieces(own_demo)[0]["out_s"] == pytest.approx(trimmed + 1 / 24, abs=2e-3)
    )
    page.get_by_role("button", name="Leave it out").click()
    expect(line.get_by_role("listitem")).to_have_count(10)
    page.keyboard.press("v")
    video = page.get_by_label("The sequence as one film")
    expect(video).to_be_visible()
    seconds = own_demo.get("/api/outings/1/joined")["frames"] / 24
    page.wait_for_function("() => document.querySelector('video').duration > 0")
    assert video.evaluate("video => video.duration") == pytest.approx(seconds, abs=0.06)
    video.evaluate("video => { video.currentTime = 5 }")
    expect(page.get_by_test_id("now")).to_be_visible()
    taken_along_and_brought_back(own_demo, page, tmp_path)


def test_the_joined_page_is_accessible(demo, browser):
    check_accessibility(
        browser,
        f"{demo.address}/sequence/1/joined",
        ready=lambda page: page.get_by_role("heading", level=1),
        looks=(*LOOKS, LYING),
    )


def test_it_is_shown_in_another_shape_along_a_ramp_and_on_the_beat(own_demo, page):
    page.goto(f"{own_demo.address}/sequence/1/joined")
    line = page.get_by_role("list", name="Pieces")
    expect(line.get_by_role("listitem")).to_have_count(11)
    wide = own_demo.get("/api/outings/1/joined")["pieces"]
    page.get_by_role("radio", name="9:16").click()
    own_demo.wait_until(lambda: own_demo.get("/api/outings/1/joined")["shape"] == "9:16")
    narrow = own_demo.get("/api/outings/1/joined")["pieces"]
    assert narrow[1]["gust"] > wide[1]["gust"] + 0.5
    page.get_by_role("button", name=re.compile("^Piece 2,")).click()
    panel = page.get_by_role("region", name="Piece 2")
    expect(panel).to_contain_text("of 540 px across")
    window = page.get_by_test_id("window").bounding_box()
    x, y = window["x"] + window["width"] / 2, window["y"] + window["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=3)
    page.mouse.up()
    own_demo.wait_until(lambda: pieces(own_demo)[1]["framing"]["right"] > 0.2)
    panel.get_by_label("Window to the right").fill("-50")
    panel.get_by_label("Window to the right").press("Enter")
    own_demo.wait_until(lambda: pieces(own_demo)[1]["framing"]["right"] == -0.5)
    panel.get_by_role("radio", name="Slowing").click()
    own_demo.wait_until(lambda: len(pieces(own_demo)[1]["ramp"]) == 2)
    ramp = page.get_by_test_id("ramp").bounding_box()
    before = pieces(own_demo)[1]["ramp"]
    page.mouse.move(ramp["x"] + 0.35 * ramp["width"], ramp["y"] + 17)
    page.mouse.down()
    page.mouse.move(ramp["x"] + 0.2 * ramp["width"], ramp["y"] + 17, steps=3)
    page.mouse.up()
    own_demo.wait_until(lambda: pieces(own_demo)[1]["ramp"] != before)
    page.keyboard.press("Escape")
    for _ in range(4):
        page.keyboard.press("m")
        page.wait_for_timeout(600)
    own_demo.wait_until(lambda: own_demo.get("/api/outings/1/joined")["beats_per_min"])
    expect(page.get_by_test_id("beats")).to_be_visible()
    page.keyboard.press("s")
    expect(page.get_by_text("10 of 10 cuts on a beat")).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_text("10 of 10 cuts on a beat")).to_have_count(0)
    page.get_by_role("button", name="Render it at full size").click()
    film = page.get_by_role("link", name=re.compile("^Film .MP4"))
    expect(film).to_be_visible()
    sheet = own_demo.read("/api/outings/1/sequence.pdf")
    assert sheet.startswith(b"%PDF")
    assert own_demo.read("/api/outings/1/sequence.png").startswith(b"\x89PNG")
