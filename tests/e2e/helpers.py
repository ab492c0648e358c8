"""What several tests of the interface do: fields, choices, and the accessibility check."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Browser, Page, expect

AXE = Path(__file__).parent.parent.parent / "frontend/node_modules/axe-core/axe.min.js"


def choose(page: Page, label: str, option: str) -> None:
    """Choose from a list by its label."""
    page.get_by_role("combobox", name=label, exact=True).click()
    page.get_by_role("option", name=option).first.click()


def fill(page: Page, label: str, value: object) -> None:
    page.get_by_role("textbox", name=label, exact=True).fill(str(value))


def fact(page: Page, words: str) -> str:
    """The figure beside its name."""
    name = page.get_by_role("main").get_by_role("term").filter(has_text=re.compile(f"^{words}$"))
    return name.locator("xpath=following-sibling::dd").inner_text()


def number(text: str) -> float:
    """The first number in a figure such as "−3.4°"."""
    found = re.search(r"-?\d+(\.\d+)?", text.replace("−", "-"))
    assert found is not None, text
    return float(found[0])


def check_accessibility(browser: Browser, address: str, *, width: int, theme: str, ready) -> None:
    """Open a page and assert that nothing serious is wrong with it, and that it fits."""
    context = browser.new_context(
        viewport={"width": width, "height": 800}, color_scheme=theme, bypass_csp=True
    )
    try:
        page = context.new_page()
        page.goto(address)
        expect(ready(page)).to_be_visible()
        page.add_script_tag(path=AXE)
        found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")["violations"]
        overflow = page.evaluate("document.documentElement.scrollWidth - innerWidth")
    finally:
        context.close()
    serious = [
        f"{fault['id']}: {node['html'][:120]} {node['failureSummary'][:200]}"
        for fault in found
        if fault["impact"] in ("serious", "critical")
        for node in fault["nodes"]
    ]
    assert serious == []
    assert overflow <= 0
