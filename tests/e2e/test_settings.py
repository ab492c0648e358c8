"""Settings in the real browser: other computers that work, and an archive that is taken back."""

from __future__ import annotations

import json

import pytest
from playwright.sync_api import expect

from ridgewind.library.library import Library
from ridgewind.services.archiving import archive
from ridgewind.services.merging import merge
from ridgewind.store import database
from tests.e2e.conftest import KEY, Server
from tests.e2e.helpers import check_accessibility


@pytest.fixture
def merged(tmp_path):
    """A server on a library into which an archive was brought."""
    other, library = Library(tmp_path / "other"), Library(tmp_path / "library")
    for one in (other, library):
        one.prepare()
    with database.opened(other.database) as db, database.atomic(db):
        db.execute("insert into outing (name, made_at) values ('Harrow Top', '2026-05-01')")
    file = tmp_path / "laptop.zip"
    file.write_bytes(b"".join(archive(other, films=True, made_at="2026-05-02T00:00:00+00:00")))
    merge(file, library, choose=lambda found: ["ours"] * len(found))
    server = Server("serve", library.root, tmp_path / "log")
    yield server
    server.stop()


def test_a_computer_is_let_in_and_an_archive_taken_back_by_one_key(page, browser, merged):
    page.goto(f"{merged.address}/settings?key={KEY}")
    section = page.get_by_role("region", name="Other computers")
    section.get_by_label("What to call the other computer").fill("Loft desk")
    with page.expect_download() as saved:
        section.get_by_role("button", name="Save its key").click()
    with open(saved.value.path(), encoding="utf-8") as file:
        assert json.load(file)["ridgewind_worker"]["key"]
    expect(section.get_by_text("ridgewind worker ridgewind-worker-1.json")).to_be_visible()
    expect(section.get_by_text("has not come yet")).to_be_visible()
    section.get_by_role("button", name="Leave it to the others").click()
    expect(section.get_by_text("rests; the others measure and render")).to_be_visible()
    section.get_by_role("button", name="Measure here too").click()
    check_accessibility(
        browser,
        f"{merged.address}/settings?key={KEY}",
        ready=lambda page: page.get_by_text("has not come yet"),
    )
    section.get_by_role("button", name="Let it in no more: Loft desk").click()
    expect(section.get_by_text("Loft desk")).not_to_be_visible()
    kept = page.get_by_role("region", name="Kept for good")
    expect(kept.get_by_text("laptop.zip")).to_be_visible()
    page.keyboard.press("u")
    expect(kept.get_by_text("1 thing is gone again.")).to_be_visible()
    assert merged.get("/api/outings")["outings"] == []
