"""Dependencies point one way: web -> work -> (media, store, standin, core);
standin -> (media, core)."""

from __future__ import annotations

import ast
from pathlib import Path

import pytest

PACKAGE = Path(__file__).parent.parent / "ridgewind"

ALLOWED = {
    "core": set(),
    "media": set(),
    "store": {"core"},
    "standin": {"media", "core"},
    "work": {"media", "store", "standin", "core"},
    "web": {"work", "media", "store", "core"},
    "report": {"work", "media", "core"},
    "cli": {
        "web",
        "work",
        "media",
        "store",
        "core",
        "standin",
        "report",
        "cli_standin",
        "cli_card",
    },
    "cli_standin": {"cli", "standin", "media", "core"},
    "cli_card": {"cli", "standin", "store", "work", "core"},
}
"""Rooms of the package, and which others each may import."""

OUTSIDE = {
    "av": {"media", "standin"},
    "sqlite3": {"store", "work", "web"},
    "flask": {"web"},
    "huey": {"work"},
    "icalendar": {"work"},
    "segno": {"work", "standin"},
    "click": {"cli", "cli_standin", "cli_card"},
    "pydantic": {"web", "store"},
}
"""Packages that only some rooms may import; core imports nothing but numpy and cv2."""


def imports_of(path: Path):
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            yield node.module


def room_of(path: Path) -> str:
    return path.relative_to(PACKAGE).parts[0].removesuffix(".py")


FILES = [path for path in PACKAGE.rglob("*.py") if room_of(path) != "__init__"]


@pytest.mark.parametrize("path", FILES, ids=lambda path: str(path.relative_to(PACKAGE)))
def test_imports_point_one_way(path):
    room = room_of(path)
    for name in imports_of(path):
        parts = name.split(".")
        if parts[0] == "ridgewind" and len(parts) > 1:
            assert parts[1] == room or parts[1] in ALLOWED[room], f"{room} imports {name}"
        elif parts[0] in OUTSIDE:
            assert room in OUTSIDE[parts[0]], f"{room} imports {name}"


def test_the_rule_can_fail(tmp_path):
    stray = tmp_path / "stray.py"
    stray.write_text("from ridgewind.web import app\nimport av\n")
    assert list(imports_of(stray)) == ["ridgewind.web", "av"]


@pytest.mark.parametrize("room", ["core"])
def test_core_reads_no_clock_and_no_file(room):
    for path in (PACKAGE / room).rglob("*.py"):
        assert not {"time", "datetime", "os", "pathlib", "sqlite3"} & set(imports_of(path)), path


def test_sql_stands_only_in_the_store():
    for path in FILES:
        if room_of(path) != "store":
            assert ".execute(" not in path.read_text() or path.name == "server.py", path
