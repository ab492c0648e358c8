"""The wheel on a machine with Python alone: built, put into an environment of its own, and run."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import time
import tomllib
import urllib.request
import venv
import zipfile
from http.cookiejar import CookieJar
from importlib.metadata import distribution
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
LOCK = ROOT / "requirements.lock"
MOST_BYTES = 12_000_000
START_S = 60.0


@pytest.fixture(scope="module")
def wheel(tmp_path_factory) -> Path:
    """Built as `make wheel` does, from a copy, so that nothing is written beside the sources."""
    source = tmp_path_factory.mktemp("source")
    leave = shutil.ignore_patterns("__pycache__", "*.egg-info")
    shutil.copytree(ROOT / "ridgewind", source / "ridgewind", ignore=leave)
    for name in ("pyproject.toml", "README.md"):
        shutil.copy(ROOT / name, source)
    subprocess.run(
        [sys.executable, "-m", "build", "--wheel"], cwd=source, check=True, capture_output=True
    )
    return next((source / "dist").glob("*.whl"))


@pytest.fixture(scope="module")
def program(wheel, tmp_path_factory) -> Path:
    """The command `ridgewind` in a fresh environment, which holds the wheel and what it asks for,
    and nothing else: the locked packages as they are installed here, linked file by file."""
    place = tmp_path_factory.mktemp("fresh")
    venv.create(place, with_pip=False)
    (packages,) = place.glob("lib/python*/site-packages")
    for name in re.findall(r"^([A-Za-z0-9][\w.-]*)==", LOCK.read_text(), re.M):
        link_package(name, packages)
    pip = [sys.executable, "-m", "pip", "--python", str(place / "bin/python")]
    subprocess.run(
        [*pip, "install", "--quiet", "--no-compile", "--no-deps", "--no-index",
         "--disable-pip-version-check", str(wheel)],
        check=True, capture_output=True,
    )  # fmt: skip
    told = subprocess.run([*pip, "check"], check=False, capture_output=True, text=True)
    assert told.returncode == 0, told.stdout
    return place / "bin/ridgewind"


def link_package(name: str, target: Path) -> None:
    """Put an installed package into another environment, without what it has outside of it."""
    for file in distribution(name).files or ():
        source = Path(file.locate())
        if ".." in file.parts or "__pycache__" in file.parts or not source.exists():
            continue
        place = target / file
        place.parent.mkdir(parents=True, exist_ok=True)
        try:
            os.link(source, place)
        except OSError:  # another disk
            shutil.copy(source, place)


def test_it_asks_for_what_the_project_depends_on(wheel):
    with zipfile.ZipFile(wheel) as opened:
        (name,) = [one for one in opened.namelist() if one.endswith("/METADATA")]
        told = opened.read(name).decode()
    asked = set(re.findall(r"^Requires-Dist: ([A-Za-z0-9-]+)$", told, re.M))
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    assert asked == set(project["dependencies"])
    assert wheel.stat().st_size < MOST_BYTES


def test_the_demo_runs_from_it_without_node_and_without_the_sources(program, tmp_path):
    env = {"PATH": str(program.parent), "HOME": str(tmp_path), "LANG": os.environ.get("LANG", "C")}
    log = (tmp_path / "log").open("w+")
    demo = subprocess.Popen(
        [program, "demo", "--data", str(tmp_path / "demo"), "--port", "0", "--no-weeks"],
        cwd=tmp_path, env=env, stdout=log, stderr=subprocess.STDOUT,
    )  # fmt: skip
    try:
        address = _address(tmp_path / "log", demo)
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        page = opener.open(address).read().decode()
        script = re.search(r'src="(/[^"]+\.js)"', page)[1]
        base = address.split("/?")[0]
        assert len(opener.open(base + script).read()) > 10_000
        assert b'"takes"' in opener.open(f"{base}/api/takes").read()
    finally:
        demo.terminate()
        demo.wait(20)
        log.close()
    assert not _sources(tmp_path / "log")


def _address(log: Path, demo: subprocess.Popen) -> str:
    end = time.monotonic() + START_S
    while time.monotonic() < end:
        if found := re.search(r"http://127\.0\.0\.1:\d+/\?key=\S+", log.read_text()):
            return found[0]
        assert demo.poll() is None, log.read_text()
        time.sleep(0.1)
    raise AssertionError(log.read_text())


def _sources(log: Path) -> bool:
    """Whether something was taken from the checkout."""
    return str(ROOT / "ridgewind") in log.read_text()
