"""What the documents point at exists, and what exists is documented."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from ridgewind.cli.main import main

ROOT = Path(__file__).parent.parent
DOCS = [ROOT / "README.md", *sorted((ROOT / "docs").rglob("*.md"))]


@pytest.mark.parametrize("page", DOCS, ids=lambda page: str(page.relative_to(ROOT)))
def test_links_lead_somewhere(page):
    for target in re.findall(r"\]\((?!http)([^)#]+)", page.read_text()):
        assert (page.parent / target).exists(), target


def test_the_readme_names_every_make_target_it_uses_and_leads_with_a_picture():
    text = (ROOT / "README.md").read_text()
    assert text.startswith("![")
    targets = set(re.findall(r"^([a-z-]+):", (ROOT / "Makefile").read_text(), re.M))
    assert {"demo", "test"} <= set(re.findall(r"make ([a-z-]+)", text)) <= targets


def test_every_command_is_documented():
    text = "".join(page.read_text() for page in DOCS)
    for name in main.list_commands(None):
        assert f"ridgewind {name}" in text or f"make {name}" in text


def test_lock_files_hold_no_addresses():
    for name in ("requirements.lock", "requirements-dev.lock", "frontend/package-lock.json"):
        found = [
            line
            for line in (ROOT / name).read_text().splitlines()
            if '"resolved"' in line or "index-url" in line or "find-links" in line
        ]
        assert found == [], name
