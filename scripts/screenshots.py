"""Take pictures of the main views with the demo's data: `make screenshots`.

Usage: python scripts/screenshots.py ADDRESS FOLDER [--only NAME]
"""

from __future__ import annotations

import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
WIDE, NARROW = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


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
    settle(page)


def main() -> None:
    address, folder = sys.argv[1], Path(sys.argv[2])
    only = sys.argv[4] if len(sys.argv) > 4 else None
    folder.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        for suffix, size, theme in (
            ("", WIDE, "light"), ("-dusk", WIDE, "dark"), ("-narrow", NARROW, "light"),
        ):  # fmt: skip
            context = browser.new_context(viewport=size, color_scheme=theme)
            page = context.new_page()
            for name in ("takes", "take"):
                if only is not None and only != name + suffix:
                    continue
                if name == "takes":
                    page.goto(f"{address}/takes")
                    settle(page)
                else:
                    open_take(page, address, "Millstone, grip slips")
                page.screenshot(path=folder / f"{name}{suffix}.png", full_page=suffix == "-narrow")
            context.close()
        browser.close()


if __name__ == "__main__":
    main()
