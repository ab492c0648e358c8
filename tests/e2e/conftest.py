"""A real server in its own process, and a real browser."""

from __future__ import annotations

import json
import os
import re
import signal
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import sync_playwright

pytest.register_assert_rewrite("tests.e2e.helpers")

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]  # fmt: skip
START_S, DEMO_S = 15.0, 180.0


class Server:
    """`ridgewind serve` or `ridgewind demo` on a free port."""

    def __init__(self, command: str, data: Path, log: Path) -> None:
        self._log = log.open("w+")
        program = [sys.executable, "-u", "-m", "ridgewind.cli", command]
        self.process = subprocess.Popen(
            [*program, "--data", str(data), "--port", "0"],
            stdout=self._log, stderr=subprocess.STDOUT, stdin=subprocess.DEVNULL,
        )  # fmt: skip
        self.address = self._wait_for_address(log)

    def _wait_for_address(self, log: Path) -> str:
        end = time.monotonic() + START_S
        while time.monotonic() < end:
            if found := re.search(r"http://127\.0\.0\.1:\d+", log.read_text()):
                return found[0]
            if self.process.poll() is not None:
                self._log.close()
                raise AssertionError(log.read_text())
            time.sleep(0.05)
        raise AssertionError(f"the server did not start: {log.read_text()}")

    def get(self, path: str):
        with urllib.request.urlopen(self.address + path, timeout=10) as reply:
            return json.load(reply)

    def put(self, path: str, body: object, method: str = "PUT"):
        """Send JSON; returns the answer's."""
        data, headers = json.dumps(body).encode(), {"Content-Type": "application/json"}
        request = urllib.request.Request(self.address + path, data, headers, method=method)
        with urllib.request.urlopen(request, timeout=30) as reply:
            return json.load(reply)

    def send(self, path: Path) -> int:
        request = urllib.request.Request(
            f"{self.address}/api/takes?name={path.name}", data=path.read_bytes(), method="POST"
        )
        with urllib.request.urlopen(request, timeout=30) as reply:
            return json.load(reply)["take"]["id"]

    def wait_until(self, condition, seconds: float) -> None:
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            if condition():
                return
            time.sleep(0.1)
        raise AssertionError("it did not happen in time")

    def kill(self) -> None:
        os.kill(self.process.pid, signal.SIGKILL)
        self.process.wait(10)
        self._log.close()

    def stop(self) -> None:
        self.process.send_signal(signal.SIGTERM)
        try:
            self.process.wait(15)
        finally:
            self.process.kill()
            self.process.wait(5)
            self._log.close()


@pytest.fixture(scope="session")
def demo(tmp_path_factory):
    """The demo with everything measured."""
    folder = tmp_path_factory.mktemp("demo")
    server = Server("demo", folder / "library", folder / "log")
    server.wait_until(lambda: server.get("/api/takes")["busy"] == 0, DEMO_S)
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
    chromium = driver.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
    yield chromium
    chromium.close()


@pytest.fixture
def page(browser):
    """A page whose errors fail the test."""
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    faults = []
    page.on("pageerror", lambda error: faults.append(str(error)))
    page.on("console", lambda line: faults.append(line.text) if line.type == "error" else None)
    yield page
    context.close()
    # A refused film is answered with a status that the browser notes by itself.
    assert [fault for fault in faults if "status of 4" not in fault] == []
