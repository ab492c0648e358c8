"""A real Redis on a free port, a server that rests, and workers in folders of their own."""

from __future__ import annotations

import json
import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Sequence
from pathlib import Path

import pytest

from tests.e2e.conftest import Server

LOCAL, ADDRESS = "127.0.0.1", "127.0.0.2"


class Redis:
    """A server of its own on a free port, which keeps nothing on the disk."""

    def __init__(self, folder: Path) -> None:
        with socket.socket() as free:
            free.bind((LOCAL, 0))
            self.port = free.getsockname()[1]
        self._folder = folder
        self.address = f"redis://{LOCAL}:{self.port}/0"
        self.start()

    def start(self) -> None:
        program = shutil.which("redis-server")
        assert program, "redis-server is missing; `make test` installs it"
        self._process = subprocess.Popen(
            [program, "--port", str(self.port), "--bind", LOCAL, "--save", "",
             "--dir", str(self._folder)],
            stdout=subprocess.DEVNULL,
        )  # fmt: skip
        end = time.monotonic() + 20
        while time.monotonic() < end:
            try:
                if self.said("PING") == "+PONG":
                    return
            except OSError:
                time.sleep(0.05)
        raise AssertionError("Redis did not start")

    def stop(self) -> None:
        self._process.kill()
        self._process.wait(10)

    def said(self, words: str) -> str:
        with socket.create_connection((LOCAL, self.port), timeout=5) as line:
            line.sendall(f"{words}\r\n".encode())
            return line.recv(1000).decode().strip()


class WorkerProcess:
    """`ridgewind worker` in a folder of its own. options: beside its key. within: words of the
    command that runs it elsewhere."""

    def __init__(
        self,
        key: Path,
        folder: Path,
        *options: str,
        env: dict[str, str] | None = None,
        within: Sequence[str] = (),
    ) -> None:
        self._log = folder.with_suffix(".log")
        program = Path(sys.executable).with_name("ridgewind")
        with self._log.open("w") as log:
            self._process = subprocess.Popen(
                [*within, program, "worker", key, "--folder", folder, *options],
                stdout=log, stderr=subprocess.STDOUT, env=os.environ | (env or {}),
                start_new_session=True,
            )  # fmt: skip

    @property
    def told(self) -> str:
        return self._log.read_text()

    def count(self, line: str) -> int:
        return len(re.findall(rf"^{re.escape(line)}$", self.told, re.M))

    def send(self, number: signal.Signals) -> None:
        """To it and to the process that works for it."""
        children = Path(f"/proc/{self._process.pid}/task/{self._process.pid}/children")
        for child in children.read_text().split():
            os.kill(int(child), number)
        self._process.send_signal(number)

    def children(self) -> list[int]:
        children = Path(f"/proc/{self._process.pid}/task/{self._process.pid}/children")
        return [int(one) for one in children.read_text().split()]

    def ended(self, within_s: float = 15.0) -> int:
        return self._process.wait(within_s)

    def end(self) -> None:
        if self._process.poll() is None:
            self._process.kill()
            self._process.wait(10)


@pytest.fixture
def redis(tmp_path):
    server = Redis(tmp_path)
    yield server
    server.stop()


@pytest.fixture
def resting_server(tmp_path, redis):
    """Open to the network, with a broker, and leaving the work to others."""
    server = Server(
        "serve", tmp_path / "library", tmp_path / "log",
        "--network", ADDRESS, "--queue", redis.address, "--rest",
    )  # fmt: skip
    yield server
    server.stop()


@pytest.fixture
def hire(resting_server, tmp_path):
    """Starts a worker by a key of its own."""
    hired = []

    def hire(*options: str, env: dict[str, str] | None = None) -> WorkerProcess:
        name = f"worker-{len(hired) + 1}"
        told = resting_server.put("/api/workers", {"name": name}, "POST")
        key = tmp_path / f"{name}.json"
        key.write_text(told["file"])
        worker = WorkerProcess(key, tmp_path / name, *options, env=env)
        hired.append(worker)
        return worker

    yield hire
    for worker in hired:
        worker.end()


def seats(server) -> list[dict]:
    """What the workers of a server do."""
    found = server.get("/api/workers")["workers"]
    return [seat | {"name": one["name"]} for one in found for seat in one["seats"]]


def key_of(path: Path) -> dict[str, str]:
    return json.loads(path.read_text())["ridgewind_worker"]
