"""Motion logs in a real browser: looked at, corrected, kept alone and laid over a film."""

from __future__ import annotations

import re

import numpy as np
import pytest
from playwright.sync_api import expect

from ridgewind.standin.camera import film, plan
from ridgewind.standin.turning import turning_log
from tests.e2e.helpers import check_accessibility
from tests.services.test_logs import SCRIPT

pytestmark = pytest.mark.e2e


@pytest.fixture(scope="module")
def shaken_take(tmp_path_factory):
    folder = tmp_path_factory.mktemp("take")
    film(SCRIPT, folder / "take.mp4")
    text = turning_log(plan(SCRIPT), starts_before_s=0.8, ends_after_s=0.5)
    (folder / "phone.csv").write_text(text)
    return folder


def test_a_log_is_corrected_and_kept_as_a_take_without_a_picture(fresh, page, shaken_take):
    page.goto(f"{fresh.address}/takes")
    page.get_by_label("Clips to bring in").first.set_input_files(shaken_take / "phone.csv")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_test_id("log-says")).to_contain_text("5.3 s at 200 samples a second")
    guessed = dialog.get_by_test_id("log-says").inner_text()
    dialog.get_by_role("radio", name="degrees a second").click()
    expect(dialog.get_by_test_id("log-says")).not_to_have_text(guessed)
    dialog.get_by_role("radio", name="ms", exact=True).click()
    expect(dialog.get_by_role("alert")).to_contain_text("samples a second")
    dialog.get_by_role("radio", name="ns", exact=True).click()
    dialog.get_by_role("radio", name="radians a second").click()
    expect(dialog.get_by_test_id("log-says")).to_have_text(guessed)
    dialog.get_by_role("button", name="Keep it as a take").click()
    expect(page.get_by_role("heading", name="phone")).to_be_visible()
    expect(page.get_by_text("No picture: measured from a motion log.")).to_be_visible()
    assert re.fullmatch(r"\d\.\d", page.get_by_test_id("gust").inner_text())
    expect(page.get_by_role("region", name="Causes")).to_contain_text("Tremor")


def test_of_a_log_of_hours_it_is_chosen_what_becomes_a_take(fresh, page, tmp_path):
    t = np.arange(0.0, 70 * 60.0, 1 / 12)
    turning = 4.0 * np.sin(2 * np.pi * 1.3 * t) * (t > 40 * 60)
    rows = np.column_stack([t, turning, turning, turning])
    log = tmp_path / "all evening.csv"
    np.savetxt(log, rows, fmt="%.4f", delimiter=",", header="time_s,pan,tilt,roll", comments="")
    page.goto(f"{fresh.address}/takes")
    page.get_by_label("Clips to bring in").first.set_input_files(log)
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("A take lasts up to 15 minutes.")
    to = dialog.get_by_label("Keep to")
    expect(to).to_have_value("15")
    to.fill("50")
    to.press("Tab")
    start = dialog.get_by_label("Keep from")
    start.fill("45")
    start.press("Tab")
    dialog.get_by_role("button", name="Keep it as a take").click()
    expect(page.get_by_role("heading", name="all evening")).to_be_visible()
    assert fresh.get("/api/takes")["takes"][0]["duration_s"] == pytest.approx(300, abs=0.1)


def test_a_log_is_laid_over_the_film_of_its_take(fresh, page, shaken_take):
    take = fresh.send(shaken_take / "take.mp4")
    fresh.wait_until(lambda: fresh.get("/api/takes")["busy"] == 0, 60)
    page.goto(f"{fresh.address}/takes/{take}")
    expect(page.get_by_test_id("gust")).to_be_visible()
    page.keyboard.press("s")
    page.get_by_label("File of a motion log").set_input_files(shaken_take / "phone.csv")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_test_id("log-says")).to_be_visible()
    dialog.get_by_role("button", name="Lay it over the film").click()
    notes = page.get_by_role("region", name="Motion log")
    expect(notes).to_contain_text("It begins 0.80 s before the film")
    expect(notes.get_by_role("img")).to_be_visible()
    notes.get_by_role("button", name="Take it away").click()
    expect(page.get_by_role("button", name="Add a motion log (CSV)")).to_be_visible()
    page.keyboard.press("z")
    expect(notes).to_contain_text("It begins 0.80 s before the film")


def test_of_several_logs_dropped_at_once_each_is_asked_about(fresh, page, shaken_take):
    page.goto(f"{fresh.address}/takes")
    text = (shaken_take / "phone.csv").read_text()
    logs = [
        {"name": name, "mimeType": "text/csv", "buffer": text.encode()}
        for name in ("same.csv", "same.csv", "same.csv", "last.csv")
    ]
    page.get_by_label("Clips to bring in").first.set_input_files(logs)
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("same.csv: time and three")
    dialog.get_by_role("radio", name="degrees a second").click()
    page.keyboard.press("Escape")
    # The second is asked about by itself, although it is called as the first was.
    expect(dialog).to_contain_text("same.csv: time and three")
    expect(dialog.get_by_role("radio", name="radians a second")).to_be_checked()
    dialog.get_by_role("button", name="Keep it as a take").click()
    # What was sent of it is gone now, and the next one is sent by itself.
    expect(page).to_have_url(re.compile(r"/takes/\d+$"))
    expect(dialog.get_by_test_id("log-says")).to_contain_text("5.3 s")
    page.keyboard.press("Escape")
    expect(dialog).to_contain_text("last.csv: time and three")
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)


def test_no_serious_accessibility_fault(fresh, browser, shaken_take):
    def ready(page):
        page.get_by_label("Clips to bring in").first.set_input_files(shaken_take / "phone.csv")
        return page.get_by_test_id("log-says")

    address = f"{fresh.address}/takes"
    check_accessibility(browser, address, ready=ready)
