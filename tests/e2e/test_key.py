"""Only who holds the key that was printed can see or change anything."""

from __future__ import annotations

import urllib.error
import urllib.request

import pytest
from playwright.sync_api import expect

from ridgewind.library.library import Library
from ridgewind.web.serving import _opener
from tests.e2e.conftest import CHROMIUM, FLAGS, KEY

pytestmark = pytest.mark.e2e


@pytest.fixture
def stranger(driver):
    """A browser without the key."""
    chromium = driver.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
    yield chromium
    chromium.close()


def test_the_printed_address_opens_the_pages_for_this_browser_alone(fresh, stranger):
    opened, other = stranger.new_context(), stranger.new_context()
    page = opened.new_page()
    page.goto(f"{fresh.address}/?key={KEY}")
    expect(page.get_by_role("navigation", name="Places")).to_be_visible()
    assert "key" not in page.url
    page.goto(f"{fresh.address}/plan")
    expect(page.get_by_role("navigation", name="Places")).to_be_visible()
    (cookie,) = opened.cookies()
    assert (cookie["httpOnly"], cookie["sameSite"]) == (True, "Lax")
    page = other.new_page()
    for address in (fresh.address, f"{fresh.address}/?key=guessed"):
        answer = page.goto(address)
        assert answer.status == 401
        expect(page.get_by_text("this browser has no key to it")).to_be_visible()


def test_the_page_that_open_starts_with_leads_in(fresh, stranger, tmp_path):
    page = stranger.new_page()
    leads_to = f"{fresh.address}/?key={KEY}"
    opener = _opener(Library(tmp_path / "library"), leads_to)
    assert (tmp_path / "library/open.html").stat().st_mode & 0o077 == 0
    page.goto(opener)
    expect(page.get_by_role("navigation", name="Places")).to_be_visible()


@pytest.mark.parametrize("path", ["/api/takes", "/api/status", "/", "/assets/none.js"])
def test_a_program_without_the_key_reads_nothing(fresh, path):
    with pytest.raises(urllib.error.HTTPError, match="401"):
        urllib.request.urlopen(fresh.address + path, timeout=10)
