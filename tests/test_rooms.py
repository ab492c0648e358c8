"""The contracts of .importlinter: kept as they are checked in, and each broken by a wrong arrow."""

from __future__ import annotations

import ast
import re
import shutil
import subprocess
import sys
from configparser import ConfigParser
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
PACKAGE = ROOT / "ridgewind"

WRONG_ARROWS = {
    "core/units.py": "import time, av, sqlite3, flask, huey, click, pydantic, icalendar, segno",
    "core/errors.py": "import watchdog, cryptography, opentimelineio, PIL",
    "core/shake/gust.py": "from ridgewind.core.judge import cost",
    "store/settings.py": "from ridgewind.media import probe",
    "library/folders.py": "import scipy; from ridgewind.services import eyes",
    "services/eyes.py": "from ridgewind.services import comparing",
    "services/comparing.py": "from ridgewind.services import eyes",
}
"""Imports that break every contract at least once, by the file that would hold them."""


def names_of_contracts() -> list[str]:
    config = ConfigParser()
    config.read(ROOT / ".importlinter")
    return [config[section]["name"] for section in config.sections() if ":contract:" in section]


def lint(root: Path) -> dict[str, bool]:
    """Whether each contract is kept by the package below a folder."""
    program = "from importlinter.cli import lint_imports_command as run; run()"
    done = subprocess.run(
        [sys.executable, "-c", program, "--no-cache"], cwd=root, capture_output=True, text=True,
        env={"PYTHONPATH": str(root), "COLUMNS": "200"}, check=False,
    )  # fmt: skip
    found = re.findall(r"^(.+) (KEPT|BROKEN)$", done.stdout, re.M)
    return {name.strip(): word == "KEPT" for name, word in found}


@pytest.fixture(scope="module")
def verdicts(tmp_path_factory) -> dict[str, bool]:
    """What the linter says of a copy of the house with wrong arrows in it."""
    root = tmp_path_factory.mktemp("house")
    leave = shutil.ignore_patterns("static", "clips", "__pycache__")
    shutil.copytree(PACKAGE, root / "ridgewind", ignore=leave)
    shutil.copy(ROOT / ".importlinter", root)
    for file, arrow in WRONG_ARROWS.items():
        with (root / "ridgewind" / file).open("a") as source:
            source.write(f"\n{arrow}\n")
    return lint(root)


@pytest.mark.parametrize("name", names_of_contracts())
def test_a_wrong_arrow_breaks_the_contract(verdicts, name):
    assert verdicts[name] is False


def sql_calls(source: str) -> list[str]:
    """Calls that send SQL to a database."""
    senders = {"execute", "executemany", "executescript"}
    return [
        node.func.attr
        for node in ast.walk(ast.parse(source))
        if isinstance(node, ast.Call)
        and isinstance(node.func, ast.Attribute)
        and node.func.attr in senders
    ]


def test_sql_stands_only_in_the_store():
    assert sql_calls("connection . execute (\n'select 1')") == ["execute"]
    outside = [path for path in PACKAGE.rglob("*.py") if (PACKAGE / "store") not in path.parents]
    assert len(outside) > 100
    assert [path for path in outside if sql_calls(path.read_text())] == []
