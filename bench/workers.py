"""A card of 40 films measured by one, two and four workers: `python bench/workers.py`.

Each worker is held to one core and to a share of its time (SIGSTOP and SIGCONT to its process that
decodes), so that four of them are four machines also where there are two cores. The server rests;
it only lends, hands films out and keeps what comes back.
"""

from __future__ import annotations

import json
import os
import signal
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
from contextlib import suppress
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parent.parent))

from ridgewind.jobs.queue import Queue
from ridgewind.library.library import Library
from ridgewind.store import database
from tests.conftest import shaken, write_film
from tests.jobs.remote.conftest import Redis

FILMS, FRAMES, SIZE = 40, 60, (640, 360)
SHARE, TURN_S = 0.15, 0.1
COUNTS = (1, 2, 4)
ROUNDS = int(os.environ.get("RUNS", "3"))
"""Each with every count of workers, so that a slow quarter of an hour slows all of them."""

PROGRAM = Path(sys.executable).with_name("ridgewind")


def main() -> None:
    with tempfile.TemporaryDirectory() as told:
        folder = Path(told)
        films = [
            write_film(folder / f"{k}.mp4", shaken(FRAMES, size=SIZE, amplitude_px=2 + 0.1 * k))
            for k in range(FILMS)
        ]
        redis = Redis(folder)
        try:
            rounds = [
                {count: timed(folder / f"{turn}-{count}", films, count, redis) for count in COUNTS}
                for turn in range(ROUNDS)
            ]
        finally:
            redis.stop()
    print(
        f"{FILMS} films of {FRAMES} frames, workers held to {SHARE:.0%} of a core, {ROUNDS} rounds"
    )
    for count in COUNTS:
        took_s = statistics.median(one[count] for one in rounds)
        faster = sorted(one[1] / one[count] for one in rounds)
        middle = statistics.median(faster)
        print(
            f"{count} workers: {took_s:6.1f} s, {middle:.2f} x (from {faster[0]:.2f} to"
            f" {faster[-1]:.2f}), efficiency {middle / count:.2f}"
        )


def timed(folder: Path, films: list[Path], count: int, redis: Redis) -> float:
    """Seconds from the first worker's word that it is ready to the last film."""
    folder.mkdir()
    library = Library(folder / "library")
    library.prepare()
    with database.opened(library.database) as db:
        for film in films:
            with film.open("rb") as stream:
                library.add(db, stream, file_name=film.name, size_bytes=None)
    Queue(library).refill(library.database)
    log = folder / "log"
    server = subprocess.Popen(
        [PROGRAM, "serve", "--data", library.root, "--port", "0", "--rest", "--queue",
         redis.address], stdout=log.open("w"), env=os.environ | {"PYTHONUNBUFFERED": "1"},
    )  # fmt: skip
    workers: list[subprocess.Popen[bytes]] = []
    stopping = threading.Event()
    try:
        while "http" not in log.read_text():
            time.sleep(0.1)
        address = log.read_text().split("Ridgewind is at ")[1].split("/?key")[0]
        for number in range(count):
            key = folder / f"{number}.json"
            key.write_text(asked(address, library, "/api/workers", {"name": f"w{number}"})["file"])
            with (folder / f"{number}.log").open("w") as told:
                words = [
                    "taskset", "-c", str(number % (os.cpu_count() or 1)), str(PROGRAM), "worker",
                    str(key), "--server", address, "--folder", str(folder / f"w{number}"),
                ]  # fmt: skip
                workers.append(subprocess.Popen(words, stdout=told))
            threading.Thread(
                target=held, args=(workers[-1].pid, number / count, stopping), daemon=True
            ).start()
        while not all("ready" in (folder / f"{k}.log").read_text() for k in range(count)):
            time.sleep(0.05)
        began_s, before_s = time.monotonic(), used_s(server.pid)
        while (found := asked(address, library, "/api/workers"))["waiting"] or any(
            seat["doing"] for one in found["workers"] for seat in one["seats"]
        ):
            time.sleep(1.0)
        took_s = time.monotonic() - began_s
        print(f"{count} workers: the server took {used_s(server.pid) - before_s:.1f} s of a core")
    finally:
        stopping.set()
        for worker in workers:
            worker.terminate()
            worker.wait(20)
        server.terminate()
        server.wait(20)
    with database.opened(library.database) as db:
        states = {row["state"] for row in db.execute("select state from job")}
    assert states == {"done"}, states
    return took_s


def used_s(pid: int) -> float:
    """Seconds of a core that a process has used."""
    told = Path(f"/proc/{pid}/stat").read_text().split()
    return (int(told[13]) + int(told[14])) / os.sysconf("SC_CLK_TCK")


def held(pid: int, phase: float, stopping: threading.Event) -> None:
    """Let what a worker has begun run for a share of the time only."""
    time.sleep(phase * TURN_S)
    while not stopping.is_set():
        children = Path(f"/proc/{pid}/task/{pid}/children")
        with suppress(OSError):
            for child in children.read_text().split():
                os.kill(int(child), signal.SIGCONT)
            time.sleep(SHARE * TURN_S)
            for child in children.read_text().split():
                os.kill(int(child), signal.SIGSTOP)
        time.sleep((1 - SHARE) * TURN_S)


def asked(address: str, library: Library, path: str, body: object = None):
    headers = {"Authorization": f"Bearer {library.key()}", "Content-Type": "application/json"}
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address + path, data, headers)
    with urllib.request.urlopen(request, timeout=30) as reply:
        return json.load(reply)


if __name__ == "__main__":
    main()
