"""Take pictures of the main views with the demo's data: `make screenshots`.

Usage: python scripts/screenshots.py FOLDER [ADDRESS]; without an address, as it was printed with
its key, it starts a demo.
"""

from __future__ import annotations

import json
import re
import signal
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path
from typing import Literal

from playwright.sync_api import Page, ViewportSize, sync_playwright

from ridgewind.demo.story import DEMO_TAKES

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
LEAST_TAKES = len(DEMO_TAKES) + 120
"""Of a demo whose weeks of practice are all in."""

WIDE, NARROW = ViewportSize(width=1280, height=800), ViewportSize(width=390, height=844)
LOOKS: tuple[tuple[str, ViewportSize, Literal["light", "dark"]], ...] = (
    ("", WIDE, "light"),
    ("-dusk", WIDE, "dark"),
    ("-narrow", NARROW, "light"),
)


def settle(page: Page) -> None:
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(500)


def open_take(page: Page, address: str, name: str) -> None:
    page.goto(f"{address}/takes")
    page.get_by_role("link", name=name).click()
    page.get_by_test_id("gust").wait_for()
    settle(page)
    page.get_by_role("slider").focus()
    for _ in range(22):
        page.keyboard.press("ArrowRight")
    page.locator("h1").click()
    page.evaluate("window.scrollTo(0, 0)")  # the ridge, which had the focus, lies further down
    settle(page)


def with_key(printed: str) -> tuple[str, dict[str, str]]:
    """A printed address without its key, and the header that holds it; all that is asked from here
    on holds it too."""
    address, _, key = printed.partition("/?key=")
    headers = {"Authorization": f"Bearer {key}"}
    opener = urllib.request.build_opener()
    opener.addheaders = list(headers.items())
    urllib.request.install_opener(opener)
    return address, headers


def shoot(printed: str, folder: Path) -> None:
    address, headers = with_key(printed)
    folder.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        for suffix, size, theme in LOOKS:
            context = browser.new_context(
                viewport=size, color_scheme=theme, extra_http_headers=headers
            )
            page = context.new_page()
            page.goto(f"{address}/takes")
            page.get_by_role("link", name="Millstone, grip slips").wait_for()
            settle(page)
            if suffix == "":
                page.screenshot(path=folder / "takes.png")
            open_take(page, address, "Millstone, grip slips")
            if suffix == "-dusk":
                shoot_outcome(page, address, folder)
            if suffix == "":
                page.screenshot(path=folder / "take.png")
                shoot_decision(page, address, folder)
                shoot_kit(page, address, folder)
                shoot_live(page, address, folder)
                shoot_sequence(page, address, folder)
            if suffix == "-narrow":
                shoot_phone(page, address, folder)
            context.close()
        browser.close()


def shoot_decision(page: Page, address: str, folder: Path) -> None:
    open_take(page, address, "Mill door, walk-in, heels down")
    page.keyboard.press("p")
    page.get_by_test_id("measured-again").wait_for(timeout=60_000)
    page.wait_for_timeout(2500)
    page.keyboard.press(" ")
    settle(page)
    page.screenshot(path=folder / "preview.png")
    for name, place in (
        ("trials", "/findings?drill=strap-tension"), ("limits", "/findings/limits"),
        ("hand", "/findings/hand"), ("progress", "/findings/progress"), ("shot", "/findings/shot"),
        ("drill", "/plan/drills/push-pull"),
    ):  # fmt: skip
        page.goto(f"{address}{place}")
        settle(page)
        if name == "drill":  # at the end of its move
            page.get_by_role("slider").fill("1")
            page.locator("h1").click()
        page.wait_for_timeout(700)
        page.screenshot(path=folder / f"{name}.png")
    page.goto(f"{address}/takes/compare?session=1")
    page.get_by_text("to settle").wait_for()
    for key in ("k", "k", "d"):
        page.keyboard.press(key)
        page.wait_for_timeout(300)
    page.wait_for_timeout(11_000)  # notices go
    page.screenshot(path=folder / "compare.png")


def shoot_outcome(page: Page, address: str, folder: Path) -> None:
    """What came of the newest session of the weeks."""
    page.goto(session_where(address, lambda states: states == {"filmed"}))
    settle(page)
    page.screenshot(path=folder / "session-dusk.png")


def shoot_live(page: Page, address: str, folder: Path) -> None:
    """The meter before the simulated camera, once the hand has slipped."""
    page.goto(f"{address}/field/live")
    page.get_by_role("radio", name="Simulated camera").click()
    page.get_by_role("button", name="Start").click()
    page.wait_for_timeout(21_000)
    page.screenshot(path=folder / "live.png")
    page.get_by_role("button", name="Stop").click()


def shoot_sequence(page: Page, address: str, folder: Path) -> None:
    """The demo's outing, and its takes joined, seen as one film."""
    page.goto(f"{address}/sequence/1")
    settle(page)
    page.screenshot(path=folder / "outing.png")
    page.goto(f"{address}/sequence/1/joined")
    page.get_by_role("button", name="See it as one film").click()
    film = page.get_by_label("The sequence as one film")
    film.wait_for(timeout=180_000)
    film.evaluate("video => { video.currentTime = 7.5 }")
    page.get_by_role("button", name=re.compile("^The cut fights")).first.click()
    settle(page)
    page.wait_for_timeout(1000)
    page.screenshot(path=folder / "joined.png")


def shoot_phone(page: Page, address: str, folder: Path) -> None:
    """A session as a phone's runner shows it, in its setting up."""
    page.goto(session_where(address, lambda states: "planned" in states))
    page.get_by_role("button", name=re.compile("begin|Go on|Begin")).click()
    page.get_by_role("button", name=re.compile("Start|Go on")).click()
    page.wait_for_timeout(1500)
    page.screenshot(path=folder / "phone.png")


def session_where(address: str, fits: Callable[[set[str]], bool]) -> str:
    """Address of the newest session of which the states of its takes fit."""
    with urllib.request.urlopen(f"{address}/api/sessions") as reply:
        sessions = json.load(reply)["sessions"]
    found = next(one["id"] for one in sessions if fits({take["state"] for take in one["takes"]}))
    return f"{address}/practice/{found}"


def gallery_bench(address: str) -> str:
    """Address of the set-up that is planned in the demo."""
    with urllib.request.urlopen(f"{address}/api/kit") as reply:
        setups = json.load(reply)["setups"]
    found = next(setup["id"] for setup in setups if setup["name"] == "Gallery rig, top handle")
    return f"/kit/setups/{found}"


def shoot_kit(page: Page, address: str, folder: Path) -> None:
    bench = gallery_bench(address)
    for name, place in (
        ("plan", "/plan"), ("kit", "/kit"),
        ("bench-picture", f"{bench}?panel=picture"),
    ):  # fmt: skip
        page.goto(f"{address}{place}")
        settle(page)
        page.screenshot(path=folder / f"{name}.png")
    page.goto(f"{address}/plan")
    settle(page)
    page.get_by_role("button", name="Keep and practise").click()
    page.get_by_role("button", name=re.compile("cautions: begin")).click()
    page.keyboard.press("ArrowRight")
    settle(page)
    page.screenshot(path=folder / "runner.png")


def started_demo(folder: str) -> tuple[subprocess.Popen[str], str]:
    """A demo of our own, with everything measured."""
    program = [sys.executable, "-u", "-m", "ridgewind.cli", "demo", "--port", "0"]
    process = subprocess.Popen([*program, "--data", folder], stdout=subprocess.PIPE, text=True)
    assert process.stdout is not None
    found = re.search(r"http://\S+", process.stdout.readline())
    assert found is not None
    address, _ = with_key(found[0])
    while True:
        time.sleep(1)
        with urllib.request.urlopen(f"{address}/api/pulse") as reply:
            pulse = json.load(reply)
        if pulse["busy"] == 0 and pulse["all"] >= LEAST_TAKES:
            return process, found[0]


def main() -> None:
    folder = Path(sys.argv[1])
    if len(sys.argv) > 2:
        shoot(sys.argv[2], folder)
        return
    with tempfile.TemporaryDirectory() as library:
        process, address = started_demo(library)
        try:
            shoot(address, folder)
        finally:
            process.send_signal(signal.SIGTERM)
            process.wait(15)


if __name__ == "__main__":
    main()
