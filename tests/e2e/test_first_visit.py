"""What the first visit loads: a page outdoors comes over a phone's own slow wireless."""

from __future__ import annotations

import gzip

from playwright.sync_api import expect

MOST_KB = 150.0


def test_the_first_visit_loads_little_script(fresh, page):
    sizes = {}

    def note(response):
        if response.request.resource_type == "script":
            sizes[response.url] = len(gzip.compress(response.body()))

    page.on("response", note)
    page.goto(fresh.address)
    expect(page.get_by_role("main")).to_be_visible()
    page.wait_for_load_state("networkidle")
    assert len(sizes) > 1
    assert sum(sizes.values()) / 1024 < MOST_KB, sizes
