"""A real server in its own process, and a real browser."""

from __future__ import annotations

import fcntl
import hashlib
import json
import os
import re
import shutil
import signal
import sqlite3
import subprocess
import threading
import time
import urllib.request
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from dataclasses import replace
from datetime import date
from functools import partial
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect, sync_playwright

from ridgewind.demo import folder, mark, weeks
from ridgewind.library.library import Library
from tests.sending import announcing, at_offset
from tests.warm import warm

pytest.register_assert_rewrite("tests.e2e.helpers")
PATIENCE_S = 90.0
"""Whatever a test waits for: more of them run than there are cores, some of which render."""

expect.set_options(timeout=1000 * PATIENCE_S)

KEY = "a-key-that-all-tests-share"
HEADERS = {"Authorization": f"Bearer {KEY}"}
CHROMIUM = "/usr/bin/chromium"
# Each window of a browser brings two hidden pages of its own, for what is typed as an address: as
# much work as a page of ours. The list takes the place of Playwright's, and repeats what of that
# matters here.
WITHOUT = ("WebUIOmniboxPopup", "WebUIOmniboxAimPopup", "PaintHolding", "HttpsUpgrades")
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
    f"--disable-features={','.join(WITHOUT)}",
]  # fmt: skip
START_S, DEMO_S = 90.0, 300.0
PIECE_BYTES = 1 << 22


class Client:
    """Asks a server that runs."""

    def __init__(self, address: str) -> None:
        self.address = address

    def get(self, path: str):
        request = urllib.request.Request(self.address + path, headers=HEADERS)
        with urllib.request.urlopen(request, timeout=10) as reply:
            return json.load(reply)

    def read(self, path: str) -> bytes:
        request = urllib.request.Request(self.address + path, headers=HEADERS)
        with urllib.request.urlopen(request, timeout=10) as reply:
            return reply.read()

    def put(self, path: str, body: object, method: str = "PUT"):
        """Send JSON; returns the answer's."""
        data, headers = json.dumps(body).encode(), HEADERS | {"Content-Type": "application/json"}
        request = urllib.request.Request(self.address + path, data, headers, method=method)
        with urllib.request.urlopen(request, timeout=30) as reply:
            return json.load(reply)

    def ask(self, method: str, path: str, body: bytes = b"", *, headers: dict[str, str]):
        """Send bytes; returns the headers of the answer."""
        request = urllib.request.Request(self.address + path, body, headers, method=method)
        with urllib.request.urlopen(request, timeout=30) as reply:
            return reply.headers

    def send(self, path: Path) -> int:
        """Bring a film in; returns its take's id."""
        content = path.read_bytes()
        headers = HEADERS | announcing(path.name, len(content))
        address = self.ask("POST", "/api/uploads", headers=headers)["Location"]
        for offset in range(0, len(content), PIECE_BYTES):
            piece = content[offset : offset + PIECE_BYTES]
            self.ask("PATCH", address, piece, headers=HEADERS | at_offset(offset))
        return self.put(f"{address}/take", {}, "POST")["take"]["id"]

    def wait_until(self, condition, seconds: float = PATIENCE_S) -> None:
        """seconds: at the least, where more than the usual patience is wanted."""
        end = time.monotonic() + max(seconds, PATIENCE_S)
        while time.monotonic() < end:
            if condition():
                return
            time.sleep(0.1)
        raise AssertionError("it did not happen in time")


class Server(Client):
    """`ridgewind serve` or `ridgewind demo` on a free port. cold: its workers are begun as they are
    for a shooter, as its own children."""

    def __init__(
        self, command: str, data: Path, log: Path, *options: str, cold: bool = False
    ) -> None:
        data.mkdir(parents=True, exist_ok=True)
        (data / "key").write_text(KEY)
        words = [command, "--data", str(data), "--port", "0", *options]
        with log.open("wb") as out:
            self._process = warm().start("ridgewind", words, out=out.fileno(), workers=not cold)
        self.pid = self._process.pid
        super().__init__(self._wait_for_address(log))

    def _wait_for_address(self, log: Path) -> str:
        end = time.monotonic() + START_S
        while time.monotonic() < end:
            ended = not self.runs()
            text = log.read_text() if log.exists() else ""
            if found := re.search(r"http://127\.0\.0\.1:\d+", text):
                return found[0]
            assert not ended, text
            time.sleep(0.05)
        raise AssertionError(f"the server did not start: {log.read_text()}")

    def runs(self) -> bool:
        return self._process.poll() is None

    def end(self, how: signal.Signals, within_s: float = 10.0) -> bool:
        """Send a signal; returns whether it ended in time."""
        self._process.send_signal(how)
        with suppress(subprocess.TimeoutExpired):
            self._process.wait(within_s)
        return not self.runs()

    def kill(self) -> None:
        assert self.end(signal.SIGKILL)

    def stop(self) -> None:
        stopped = self.end(signal.SIGTERM, 15)
        self.kill()
        assert stopped, "the server did not stop when it was asked to"


class SharedDemo(Client):
    """The demo with everything measured, one server for all test processes: started by the first
    that needs it, stopped by the last that had it. Tests look at it and leave it as it is; those
    that change something take `own_demo`."""

    def __init__(self, folder: Path) -> None:
        folder.mkdir(exist_ok=True)
        self._folder, self._note = folder, folder / "server.json"
        self.library = folder / "library"
        with self._alone():
            if not self._note.exists():
                self._begin()
            note = json.loads(self._note.read_text())
            self._write(note | {"users": note["users"] + 1})
        super().__init__(note["address"])
        self._pid, self._kept = note["pid"], note["kept"]

    def _begin(self) -> None:
        # Another process may have had one here that nobody needed any more: its address is stale.
        (self._folder / "log").unlink(missing_ok=True)
        server = Server("demo", self.library, self._folder / "log", "--no-weeks", cold=True)
        server.wait_until(lambda: server.get("/api/takes")["busy"] == 0, DEMO_S)
        kept = what_is_kept(self.library)
        self._write({"address": server.address, "pid": server.pid, "users": 0, "kept": kept})

    def leave(self) -> None:
        """Not needed by this process any more."""
        assert what_is_kept(self.library) == self._kept, "a test changed the demo that all share"
        with self._alone():
            note = json.loads(self._note.read_text())
            self._write(note | {"users": note["users"] - 1})
            if note["users"] == 1:
                os.kill(self._pid, signal.SIGTERM)
                self._note.unlink()

    def _write(self, note: dict[str, object]) -> None:
        self._note.write_text(json.dumps(note))

    @contextmanager
    def _alone(self):
        with (self._folder / "lock").open("w") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX)
            yield


COMPARED = ("hands", "elbows")
SHOWN = [
    replace(day, drills=tuple(key for key in day.drills if key in COMPARED))
    for day in weeks.DAYS
    if set(COMPARED) & set(day.drills)
]
"""Days of the demo's weeks that `practised` holds."""

KEPT = {
    "take": "id, name, deleted_at, brief_id, setup_id, own_focal_eq_mm, from_s, to_s, choice",
    "brief": "id, name, feel, own_target, archived_at",
    "setup": "id, name, optics, bench, archived_at",
    "kit_item": "id, name, spec, archived_at",
    "mark": "take_id, view, smooth",
    "render": "id, take_id",
    "session": "id, name, ended_at",
    "subject": "take_id",
    "setting": "name, value",
}
"""What a shooter could change, by table."""


def what_is_kept(library: Path) -> str:
    """A digest of everything in a library that a shooter could change."""
    with closing(sqlite3.connect(library / "library.db")) as db:
        rows = [
            db.execute(f"select {columns} from {table} order by 1").fetchall()
            for table, columns in KEPT.items()
        ]
    return hashlib.sha256(repr(rows).encode()).hexdigest()


def copy_library(source: Path, target: Path) -> None:
    """A library as it is now, although a server writes to it."""
    leave = shutil.ignore_patterns("*.db", "*.db-wal", "*.db-shm", "lock", "incoming")
    shutil.copytree(source, target, ignore=leave)
    with (
        closing(sqlite3.connect(source / "library.db")) as live,
        closing(sqlite3.connect(target / "library.db")) as copy,
    ):
        live.backup(copy)


@pytest.fixture(scope="session")
def demo(starter, shared_folder):
    """The demo with everything measured, to be looked at."""
    shared = SharedDemo(shared_folder / "demo")
    yield shared
    shared.leave()


@pytest.fixture(scope="session")
def practised(starter, tmp_path_factory):
    """A library with some weeks of practice in it, served."""
    root = tmp_path_factory.mktemp("practised")
    library = Library(root / "library")
    library.root.mkdir()
    (library.root / "key").write_text(KEY)
    folder.begin(library)
    library.prepare()
    patch = pytest.MonkeyPatch()
    patch.setattr(weeks, "DAYS", SHOWN)
    weeks.fill_weeks(library, threading.Event(), today=date.today())
    patch.undo()
    mark.disown(library)
    server = Server("serve", library.root, root / "log")
    yield server
    server.stop()


@pytest.fixture
def own_demo(demo, tmp_path):
    """A copy of the measured demo, to be changed."""
    copy_library(demo.library, tmp_path / "library")
    server = Server("serve", tmp_path / "library", tmp_path / "log")
    yield server
    server.stop()


@pytest.fixture
def fresh(tmp_path):
    """An empty library of one's own."""
    server = Server("serve", tmp_path / "library", tmp_path / "log")
    yield server
    server.stop()


@pytest.fixture(scope="session")
def driver():
    with sync_playwright() as playwright:
        yield playwright


@pytest.fixture(scope="session")
def browser(driver):
    """Its pages hold the key to every server."""
    chromium = driver.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
    chromium.new_context = partial(chromium.new_context, extra_http_headers=HEADERS)
    yield chromium
    chromium.close()


@pytest.fixture
def page(browser):
    """A page whose errors fail the test, of somebody who wants no motion: nothing plays by itself
    beside what is tested."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
    page = context.new_page()
    page.set_default_timeout(1000 * PATIENCE_S)
    faults = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.on("console", lambda line: faults.append(line.text) if line.type == "error" else None)
    yield page
    context.close()
    # A refused film is answered with a status that the browser notes by itself, and so is long work
    # that is one too many, which the page asks for again. A machine whose own network changes cuts
    # off what is under way, and the page asks again for that too.
    told = ("status of 4", "status of 503", "ERR_NETWORK_CHANGED")
    assert [fault for fault in faults if not any(one in fault for one in told)] == []


ADDRESS = "127.0.0.2"
"""Of the same computer, on which it opens to phones."""

PHONE = {"width": 390, "height": 844}


@pytest.fixture
def open_server(tmp_path):
    """A server that is open to phones on a second address of this computer."""
    server = Server("serve", tmp_path / "library", tmp_path / "log", "--network", ADDRESS)
    yield server
    server.stop()


@pytest.fixture
def phone(driver, open_server):
    """A phone's own browser, which holds no key; paired."""
    with own_browser(driver) as page:
        opening = open_server.get("/api/network")["opening"]["address"]
        digits = open_server.put("/api/network/code", {}, "POST")["code"]["digits"]
        page.goto(f"{opening}/pair#{digits}")
        page.get_by_label("What to call this phone").fill("Pocket")
        page.get_by_role("button", name="Pair").click()
        expect(page.get_by_role("heading", name="In the field")).to_be_visible()
        yield page


@contextmanager
def own_browser(driver) -> Iterator[Page]:
    """A browser of one's own: one that is cut off the network takes nobody with it."""
    flags = [*FLAGS, "--ignore-certificate-errors"]
    browser = driver.chromium.launch(executable_path=CHROMIUM, args=flags)
    context = browser.new_context(
        viewport=PHONE, ignore_https_errors=True, has_touch=True, is_mobile=True
    )
    page = context.new_page()
    page.set_default_timeout(1000 * PATIENCE_S)
    yield page
    browser.close()
