"""What several tests of the interface do: fields, choices, and the accessibility check."""

from __future__ import annotations

import re
from pathlib import Path
from urllib.parse import urlsplit, urlunsplit
from weakref import WeakKeyDictionary

import av
from playwright.sync_api import Browser, Page, expect

from tests.clips import SMALL
from tests.conftest import QUICK

SETTLE_MS = 120
"""Until a drawing has been laid out anew after its window has changed."""

AXE = Path(__file__).parent.parent.parent / "frontend/node_modules/axe-core/axe.min.js"


def begun(source: Path, target: Path, *, seconds: float) -> Path:
    """The first seconds of a film in a small picture, which is as good to judge and a tenth of the
    work to render."""
    with av.open(str(source)) as film, av.open(str(target), "w") as out:
        pictures = film.streams.video[0]
        stream = out.add_stream("libx264", rate=pictures.average_rate)
        stream.width, stream.height, stream.pix_fmt = *SMALL, "yuv420p"
        stream.options = QUICK["libx264"]
        for picture in film.decode(pictures):
            if picture.time >= seconds:
                break
            out.mux(stream.encode(picture.reformat(*SMALL)))
        out.mux(stream.encode(None))
    return target


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


WIDE, NARROW = 1280, 390
CONTRAST = ["color-contrast"]
"""What a theme can spoil: it changes the colours and nothing else."""

LOOKS = (
    ((WIDE, 800), "light", None),
    ((NARROW, 800), "light", None),
    ((NARROW, 800), "dusk", CONTRAST),
)
"""Sizes and themes in which a page is checked, and by which rules; None for all."""

LYING = ((844, 390), "light", None)
"""A phone held as for filming."""


def check_accessibility(browser: Browser, address: str, *, ready, looks=LOOKS) -> None:
    """Open a page and assert that nothing serious is wrong with it, and that it fits, in every
    look. ready: gives what is to be seen before it is looked at."""
    page = _page_to_look_at(browser)
    page.set_viewport_size({"width": WIDE, "height": 800})
    _go(page, address)
    expect(ready(page)).to_be_visible()
    if not page.evaluate("'axe' in window"):
        page.add_script_tag(path=AXE)
    found = []
    for (width, height), theme, rules in looks:
        page.evaluate("theme => (document.documentElement.dataset.theme = theme)", theme)
        page.set_viewport_size({"width": width, "height": height})
        found += [f"{width} {theme}: {fault}" for fault in faults_of(page, rules, sizes=True)]
    page.evaluate(FOLLOW, ELSEWHERE)
    assert found == []


ELSEWHERE = "/findings/picked"
"""A page without anything to do, from which every other one is another."""

FOLLOW = """way => {
  for (const one of document.querySelectorAll("main > *")) one.dataset.left = "";
  history.pushState({}, "", way);
  dispatchEvent(new PopStateEvent("popstate"));
}"""


def _go(page: Page, address: str) -> None:
    """Open a page; as a link would where another of the same server is open, which neither loads
    nor compiles the application again."""
    here, there = urlsplit(page.url), urlsplit(address)
    if here[:2] != there[:2]:
        page.goto(address)
        return
    page.evaluate(FOLLOW, urlunsplit(("", "", *there[2:])))
    expect(page.locator("main > [data-left]")).to_have_count(0)


def check_state(page: Page, what: str) -> None:
    """Assert that nothing serious is wrong with a page as it stands, wide and narrow."""
    if not page.evaluate("'axe' in window"):
        page.add_script_tag(path=AXE)
    found = []
    for width in (WIDE, NARROW):
        page.set_viewport_size({"width": width, "height": 800})
        found += [f"{what}, {width}: {fault}" for fault in faults_of(page)]
    page.set_viewport_size({"width": WIDE, "height": 800})
    assert found == []


_pages: WeakKeyDictionary[Browser, Page] = WeakKeyDictionary()


def _page_to_look_at(browser: Browser) -> Page:
    """One page for all that is only looked at: it has the application compiled already."""
    if browser not in _pages:
        context = browser.new_context(
            color_scheme="light", bypass_csp=True, reduced_motion="reduce"
        )
        _pages[browser] = context.new_page()
    return _pages[browser]


def faults_of(page: Page, rules: list[str] | None = None, *, sizes: bool = False) -> list[str]:
    """Serious faults of a page as it stands, and whether it is wider than its window. rules: only
    these are looked at; None for all. sizes: whether targets are 24 px too."""
    page.wait_for_timeout(SETTLE_MS)
    told = {"rules": {"target-size": {"enabled": sizes}}}  # left out by itself
    options = {"resultTypes": ["violations"]} | (told if rules is None else {"runOnly": rules})
    result = page.evaluate("options => axe.run(document, options)", options)
    overflow = page.evaluate("document.documentElement.scrollWidth - innerWidth")
    serious = [
        f"{fault['id']}: {node['html'][:120]} {node['failureSummary'][:200]}"
        for fault in result["violations"]
        if fault["impact"] in ("serious", "critical")
        for node in fault["nodes"]
    ]
    return serious + ([f"{overflow} px wider than the window"] if overflow > 0 else [])
