"""A server that is killed while it measures loses nothing."""

from __future__ import annotations

import os
import time
from pathlib import Path

import pytest

from ridgewind.library.library import Library
from ridgewind.store import clips, database
from tests.conftest import shaken, write_film
from tests.e2e.conftest import Server

pytestmark = pytest.mark.e2e


def state(server: Server, take_id: int) -> str:
    return server.get(f"/api/takes/{take_id}")["take"]["state"]


def progress(server: Server, take_id: int) -> float:
    return server.get(f"/api/takes/{take_id}")["take"]["progress"] or 0.0


def children_of(pid: int) -> list[int]:
    listings = Path(f"/proc/{pid}/task").glob("*/children")
    return [int(child) for listing in listings for child in listing.read_text().split()]


def alive(pid: int) -> bool:
    try:
        with open(f"/proc/{pid}/stat") as stat:
            return stat.read().rsplit(")", 1)[1].split()[0] != "Z"
    except FileNotFoundError:
        return False


def test_a_job_survives_the_servers_death(tmp_path, long_film):
    films = [long_film, write_film(tmp_path / "other.mp4", shaken(60))]
    data = tmp_path / "library"
    server = Server("serve", data, tmp_path / "log1")
    first, second = (server.send(path) for path in films)
    server.wait_until(lambda: progress(server, first) > 0.1, 30)
    workers = children_of(server.pid)
    assert len(workers) == 1  # only what has work has a process
    server.kill()
    end = time.monotonic() + 10
    while any(map(alive, workers)) and time.monotonic() < end:
        time.sleep(0.1)
    assert not any(map(alive, workers)), "a worker outlived its server"

    library = Library(data)
    with database.opened(library.database) as db:
        assert clips.motion_of(db, 1) is None

    server = Server("serve", data, tmp_path / "log2")
    try:
        for take_id in (first, second):
            server.wait_until(lambda take_id=take_id: state(server, take_id) == "done", 120)
        judgement = server.get(f"/api/takes/{first}")["judgement"]
        assert judgement["trusted_share"] == 1.0
        assert len(judgement["trace"]["t_s"]) > 350
    finally:
        server.stop()
    for folder in (library.originals, library.copies, library.stills, library.incoming):
        assert not [path for path in folder.iterdir() if path.name.startswith(".")]
    assert list(library.incoming.iterdir()) == []
    assert len(list(library.copies.iterdir())) == 2


def test_two_servers_do_not_share_a_library(fresh, tmp_path):
    log = tmp_path / "second"
    with pytest.raises(AssertionError, match="another Ridgewind is using this library"):
        Server("serve", tmp_path / "library", log)
    assert os.path.getsize(log) > 0
