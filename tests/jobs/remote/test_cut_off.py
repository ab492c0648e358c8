"""Workers in networks of their own, each on a cable of its own, which is pulled and put in again.

The cables are pairs of virtual devices between network namespaces that the test makes and ends.
"""

from __future__ import annotations

import os
import shutil
import subprocess
from contextlib import suppress

import pytest

from tests.conftest import shaken, write_film
from tests.e2e.conftest import Server
from tests.jobs.remote.conftest import WorkerProcess, seats

PATIENCE_S = 120.0
SERVER = "10.211.77.1"


def ip(*words: str) -> None:
    subprocess.run(["ip", *words], check=True, capture_output=True)


class Net:
    """A bridge on which the server listens, and cables from it to namespaces."""

    def __init__(self) -> None:
        self._tag = f"rw{os.getpid() % 100_000}"
        self._count = 0
        ip("link", "add", self._tag, "type", "bridge")
        ip("address", "add", f"{SERVER}/24", "dev", self._tag)
        ip("link", "set", self._tag, "up")

    def machine(self) -> tuple[str, ...]:
        """Another network on a cable; returns the words of the command that runs there."""
        self._count += 1
        space, cable = self._names(self._count)
        ip("netns", "add", space)
        ip("link", "add", cable, "type", "veth", "peer", "name", "eth0", "netns", space)
        ip("link", "set", cable, "master", self._tag, "up")
        ip("-n", space, "address", "add", f"10.211.77.{10 + self._count}/24", "dev", "eth0")
        ip("-n", space, "link", "set", "eth0", "up")
        return ("ip", "netns", "exec", space)

    def cable(self, number: int, state: str) -> None:
        """Pull ("down") or put in ("up") a machine's cable."""
        ip("link", "set", self._names(number)[1], state)

    def end(self) -> None:
        for number in range(1, self._count + 1):
            with suppress(subprocess.CalledProcessError):
                ip("netns", "delete", self._names(number)[0])
        ip("link", "delete", self._tag)

    def _names(self, number: int) -> tuple[str, str]:
        return f"{self._tag}-{number}", f"{self._tag}c{number}"


@pytest.fixture
def net():
    if shutil.which("ip") is None:
        pytest.skip("no program here that makes networks")
    try:
        made = Net()
    except subprocess.CalledProcessError as error:
        pytest.skip(f"networks may not be made here: {error.stderr.decode().strip()}")
    yield made
    made.end()


def test_what_a_machine_did_that_was_cut_off_is_done_by_another(net, tmp_path):
    films = [write_film(tmp_path / f"{k}.mp4", shaken(400, amplitude_px=2.0 + k)) for k in range(2)]
    server = Server(
        "serve", tmp_path / "library", tmp_path / "log", "--network", SERVER, "--rest"
    )  # fmt: skip
    workers = []

    def hire() -> WorkerProcess:
        name = f"worker-{len(workers) + 1}"
        key = tmp_path / f"{name}.json"
        key.write_text(server.put("/api/workers", {"name": name}, "POST")["file"])
        workers.append(WorkerProcess(key, tmp_path / name, within=net.machine()))
        return workers[-1]

    def does(name: str) -> bool:
        return any(seat["name"] == name and seat["doing"] for seat in seats(server))

    def all_done() -> bool:
        states = {take["state"] for take in server.get("/api/takes")["takes"]}
        assert "failed" not in states
        return states == {"done"}

    try:
        cut_off = hire()
        takes = [server.send(films[0])]
        # Where the answer to its claim was lost, it would know of no work to put down.
        server.wait_until(lambda: "measuring a film" in cut_off.told, PATIENCE_S)
        assert does("worker-1")
        net.cable(1, "down")
        other = hire()
        takes.append(server.send(films[1]))
        server.wait_until(all_done, PATIENCE_S)
        server.wait_until(lambda: other.count("done") == 2)  # it says so after the server has it
        before = [server.get(f"/api/takes/{take}") for take in takes]
        net.cable(1, "up")
        server.wait_until(
            lambda: "put down: stopped, or another machine does it" in cut_off.told, PATIENCE_S
        )
        assert [server.get(f"/api/takes/{take}") for take in takes] == before
        # It is of use again.
        other.end()
        render = {"remedy": "polish", "purpose": "preview"}
        server.put(f"/api/takes/{takes[0]}/renders", render, "POST")
        server.wait_until(lambda: cut_off.count("done") == 1, PATIENCE_S)
    finally:
        for worker in workers:
            worker.end()
        server.stop()
