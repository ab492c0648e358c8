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
    "core/errors.py": "import watchdog, cryptography, opentimelineio, PIL, httpx",
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


ONE_SYSTEM_ONLY = {
    "fcntl", "pwd", "grp", "termios", "tty", "pty", "resource", "posix", "crypt", "syslog",
    "msvcrt", "winreg", "_winapi",
}  # fmt: skip
ONE_SYSTEM_CALLS = {
    "fork", "getppid", "killpg", "setsid", "getuid", "geteuid", "setuid", "mkfifo", "chown",
    "SIGKILL", "SIGALRM", "SIGHUP", "SIGUSR1", "AF_UNIX",
}  # fmt: skip


def names_in(source: str) -> set[str]:
    """Modules that are imported, and names that are taken from modules."""
    found = set()
    for node in ast.walk(ast.parse(source)):
        if isinstance(node, ast.Import):
            found |= {alias.name.split(".")[0] for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            found.add((node.module or "").split(".")[0])
        elif isinstance(node, ast.Attribute):
            found.add(node.attr)
    return found


@pytest.mark.parametrize("path", sorted((ROOT / "ridgewind").rglob("*.py")), ids=str)
def test_nothing_is_used_that_only_one_system_has(path):
    assert not names_in(path.read_text()) & (ONE_SYSTEM_ONLY | ONE_SYSTEM_CALLS)


def test_every_module_is_imported_where_one_systems_modules_are_missing():
    """A fake platform: what is tested here on one system is at least begun on the others."""
    program = """
import importlib, pkgutil, sys
for name in sys.argv[1:]:
    sys.modules[name] = None
import ridgewind
for one in pkgutil.walk_packages(ridgewind.__path__, "ridgewind."):
    if not one.name.endswith("__main__"):
        importlib.import_module(one.name)
"""
    missing = sorted(ONE_SYSTEM_ONLY - {"posix"})
    subprocess.run([sys.executable, "-c", program, *missing], check=True, cwd=ROOT, timeout=60)


@pytest.mark.parametrize("name", ["The mill: day 1/2", "con", "a" * 200, "Größe?", "..", ""])
def test_names_of_files_are_those_that_every_system_takes(name):
    from ridgewind.web.sequence.joined_routes import _plain

    found = _plain(name)
    assert re.fullmatch(r"[A-Za-z0-9-]{1,80}", found)
    assert found.lower() not in {"con", "prn", "aux", "nul"}
