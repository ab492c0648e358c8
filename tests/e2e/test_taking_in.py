"""Clips taken in from a card and a connected camera, and filed under their session's takes."""

from __future__ import annotations

import re
from pathlib import Path

import av
import cv2
import numpy as np
import pytest
from playwright.sync_api import expect

from ridgewind.core.practice.slate import slate_text
from ridgewind.media.formats import in_format
from tests.conftest import shaken, write_film
from tests.core.practice.test_slate import code_image
from tests.e2e.conftest import CHROMIUM, FLAGS, HEADERS
from tests.e2e.test_practice_interface import begin, wait_for

pytestmark = pytest.mark.e2e
SPEED, RATE = 12, 15


def film_with_slate(path: Path, take_index: int) -> Path:
    code = cv2.resize(code_image(slate_text(1, take_index), 8), (180, 180))
    frames = []
    count = round(8 * RATE)
    for index, frame in enumerate(shaken(count, size=(480, 270), rate_hz=RATE, amplitude_px=2.0)):
        if index < 1.5 * RATE:
            frame[40:220, 150:330] = code
        frames.append(frame)
    return write_film(path, frames, rate=RATE)


def middle(page, test_id: str) -> tuple[float, float]:
    box = page.get_by_test_id(test_id).bounding_box()
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def drag(page, film: str, slot: str | None) -> None:
    """Drag a film to a take, or down among the loose ones."""
    expect(page.get_by_test_id(film)).to_be_visible()
    if film.startswith("slot-"):  # filed on the server first, and a moment later on the page
        filled = page.get_by_test_id(film).locator("rect[fill='var(--lichen-deep)']")
        expect(filled).to_have_count(1)
    page.wait_for_timeout(300)  # until the list beside it stands still
    x, y = middle(page, film)
    page.mouse.move(x, y)
    page.mouse.down()
    to_x, to_y = (x, y + 52) if slot is None else middle(page, slot)
    page.mouse.move(to_x - 3, to_y + 1, steps=4)
    page.mouse.move(to_x, to_y)
    page.mouse.up()


def filed(server) -> list[int | None]:
    return [take["take_id"] for take in server.get("/api/sessions/1")["session"]["takes"]]


def plan_first_look(page, address: str) -> str:
    page.goto(f"{address}/findings/hand")
    page.get_by_role("button", name="Plan the first look, 12 minutes").click()
    expect(page.get_by_role("region", name="Cautions")).to_be_visible()
    return page.url


def read_profile(page, address: str) -> None:
    """Of a first look of which one take a side was filmed."""
    page.goto(f"{address}/findings/hand")
    profile = page.get_by_role("region", name="Profile")
    expect(profile.get_by_role("button", name=re.compile("One hand or two"))).to_have_count(2)
    expect(profile).to_contain_text("a hint")
    expect(profile).to_contain_text("What would gain most")


def judge_all_of_it_and_take_it_back(page) -> None:
    page.get_by_role("button", name="Judge all of it").click()
    expect(page.get_by_text("All of it is judged.", exact=True)).to_be_visible()
    page.keyboard.press("z")
    expect(page.get_by_role("button", name="Judge all of it")).to_be_visible()


def test_a_card_files_itself_under_the_takes_that_were_run(fresh, page, tmp_path):
    """The first look of a newcomer, to its end: planned, run, its card taken in, profile read."""
    address = plan_first_look(page, fresh.address)
    page.goto(f"{address}?speed={SPEED}")
    begin(page)
    wait_for(page, "roll", 1)
    wait_for(page, "rest", 1)
    page.keyboard.press("Escape")

    card = tmp_path / "card/DCIM/100CAM"
    card.mkdir(parents=True)
    film_with_slate(card / "C0001.MP4", 0)
    film_with_slate(card / "C0002.MP4", 1)
    (card / "C0003.MP4").write_bytes(b"cut short")
    page.goto(f"{fresh.address}/takes")
    page.get_by_role("button", name="From a folder or card").click()
    page.get_by_role("textbox", name="Folder on this computer").fill(str(tmp_path / "nowhere"))
    page.get_by_role("button", name="Look").click()
    expect(page.get_by_text("There is no folder at this place.")).to_be_visible()
    page.get_by_role("textbox", name="Folder on this computer").fill(str(tmp_path / "card"))
    page.get_by_role("button", name="Look").click()
    expect(page.get_by_text("3 films, 3 of them new.")).to_be_visible()
    page.get_by_role("button", name="Bring 3 in").click()
    expect(page.get_by_role("dialog")).to_have_count(0)
    fresh.wait_until(lambda: fresh.get("/api/takes")["busy"] == 0, 60)
    page.get_by_role("button", name="From a folder or card").click()
    page.get_by_role("button", name="Look").click()
    expect(page.get_by_text("3 films, 0 of them new.")).to_be_visible()
    page.keyboard.press("Escape")

    page.goto(address)
    expect(page.get_by_text("its slate says so").first).to_be_visible()
    first = next(t["id"] for t in fresh.get("/api/takes")["takes"] if t["name"] == "C0001")
    drag(page, f"film-{first}", "slot-1")
    fresh.wait_until(lambda: filed(fresh)[:3] == [None, first, None], 5)
    drag(page, "slot-1", "slot-2")
    fresh.wait_until(lambda: filed(fresh)[:3] == [None, None, first], 5)
    drag(page, "slot-2", None)
    fresh.wait_until(lambda: filed(fresh)[:3] == [None, None, None], 5)
    page.get_by_role("button", name="File the 2 that are sure").click()
    expect(page.get_by_text("No film waits to be filed.")).to_be_visible()
    page.keyboard.press("z")
    fresh.wait_until(lambda: filed(fresh)[:3] == [None, None, None], 5)
    page.get_by_role("button", name="File the 2 that are sure").click()
    expect(page.get_by_text("No film waits to be filed.")).to_be_visible()
    row = page.get_by_test_id("planned-0")
    row.get_by_role("link", name=re.compile("gust")).click()
    expect(page.get_by_test_id("gust")).to_be_visible()
    name = next(one["name"] for one in fresh.get("/api/takes")["takes"] if one["id"] == first)
    assert " · " in name  # its variation and drill
    expect(page.get_by_role("heading", name=name)).to_be_visible()
    judge_all_of_it_and_take_it_back(page)
    read_profile(page, fresh.address)


def test_a_copy_goes_on_in_the_list_when_its_dialog_is_closed(fresh, page, tmp_path):
    card = tmp_path / "card"
    card.mkdir()
    for number in range(12):
        film = write_film(card / f"C{number:04}.MP4", shaken(40, amplitude_px=2 + number / 4))
        with film.open("ab") as out:
            out.truncate(40 << 20)  # large, so that copying takes its time
    page.goto(f"{fresh.address}/takes")
    page.get_by_role("button", name="From a folder or card").click()
    page.get_by_role("textbox", name="Folder on this computer").fill(str(card))
    page.get_by_role("button", name="Look").click()
    expect(page.get_by_text("12 films, 12 of them new.")).to_be_visible()
    (card / "C0007.MP4").unlink()
    page.get_by_role("button", name="Bring 12 in").click()
    page.keyboard.press("Escape")
    arriving = page.get_by_role("region", name="Arriving")
    expect(arriving).to_contain_text(str(card))
    page.reload()
    expect(arriving).to_contain_text(re.compile(r"Film \d+ of 12"))
    # What could not be brought in is said, although the dialog is closed, until it has been seen.
    left_out = arriving.get_by_role("alert")
    expect(left_out).to_contain_text("1 of 12 films not brought in")
    expect(left_out).to_contain_text("C0007.MP4: The file ")
    page.reload()
    left_out.get_by_role("button", name="Seen").click()
    expect(arriving).to_have_count(0)


def y4m(path: Path, frames) -> Path:
    """An uncompressed film, as Chromium's fake camera reads it."""
    with av.open(str(path), "w", format="yuv4mpegpipe") as out:
        stream = out.add_stream("wrapped_avframe", rate=30)
        frames = list(frames)
        stream.height, stream.width = frames[0].shape
        stream.pix_fmt = "yuv420p"
        for frame in frames:
            colour = cv2.cvtColor(np.ascontiguousarray(frame), cv2.COLOR_GRAY2BGR)
            picture = in_format(av.VideoFrame.from_ndarray(colour, format="bgr24"), "yuv420p")
            out.mux(stream.encode(picture))
    return path


def test_a_take_is_filmed_with_a_connected_camera(fresh, driver, tmp_path):
    feed = y4m(tmp_path / "feed.y4m", shaken(60, size=(640, 360), amplitude_px=3.0))
    flags = [
        *FLAGS, "--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream",
        f"--use-file-for-fake-video-capture={feed}",
    ]  # fmt: skip
    chromium = driver.chromium.launch(executable_path=CHROMIUM, args=flags)
    page = chromium.new_page(extra_http_headers=HEADERS)
    page.goto(f"{fresh.address}/takes")

    def roll():
        page.get_by_role("button", name="From a connected camera").click()
        page.get_by_role("button", name="Roll").click()
        expect(page.get_by_text("Rolling, 3 s")).to_be_visible()

    dialog = page.get_by_role("dialog")
    # Broken off, it is asked what becomes of it; nothing is kept of what is let go.
    roll()
    page.keyboard.press("Escape")
    expect(dialog.get_by_role("alert")).to_contain_text("You broke this take off.")
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    roll()
    page.go_back()  # the page is left
    page.goto(f"{fresh.address}/takes")
    assert fresh.get("/api/takes")["takes"] == []
    roll()
    page.get_by_role("button", name="Stop and measure").click()
    link = page.get_by_role("link", name=re.compile("^Webcam"))
    expect(link).to_have_count(1)
    fresh.wait_until(lambda: fresh.get("/api/takes")["busy"] == 0, 60)
    link.click()
    expect(page.get_by_test_id("gust")).to_be_visible()
    chromium.close()
    line = fresh.get("/api/takes")["takes"][0]
    assert line["fault"] is None
    assert line["gust"] > 3


def test_without_a_camera_a_simulated_one_is_offered(fresh, page):
    page.goto(f"{fresh.address}/takes")
    page.get_by_role("button", name="From a connected camera").click()
    expect(page.get_by_text("No camera answered")).to_be_visible()
    page.get_by_role("button", name="Try a simulated camera").click()
    expect(page.get_by_text("a film by the stand-in camera")).to_be_visible()
    expect(page.get_by_role("button", name="Roll")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Rolling, 3 s")).to_be_visible()
    page.keyboard.press("Enter")
    link = page.get_by_role("link", name=re.compile("^Simulated camera"))
    expect(link).to_be_visible()
    fresh.wait_until(lambda: fresh.get("/api/takes")["busy"] == 0, 60)
    line = fresh.get("/api/takes")["takes"][0]
    assert line["fault"] is None
    assert line["duration_s"] > 2
    assert line["gust"] > 1
