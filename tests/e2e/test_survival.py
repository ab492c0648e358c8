"""Nothing is lost, stuck, orphaned or blamed: kills, a full disk, a locked library."""

from __future__ import annotations

import os
import random
import shutil
import signal
import socket
import subprocess
import threading
import time
import urllib.error
from contextlib import ExitStack, suppress
from http.client import HTTPException
from pathlib import Path

import pytest
from playwright.sync_api import expect

from ridgewind.library.library import Library
from ridgewind.store import clips, database
from tests.conftest import shaken, write_film
from tests.e2e.conftest import HEADERS, Server
from tests.sending import announcing

pytestmark = pytest.mark.e2e
KILLS = int(os.environ.get("KILLS", "8"))
"""How many servers are killed; 40 of them take two minutes."""

SLOW = 3.0
"""How much longer anything may take beside other tests."""

LOCKED_S = float(os.environ.get("LOCKED_S", "12"))
"""Longer than a writer waits for another one."""


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
    server = Server("serve", data, tmp_path / "log1", cold=True)
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

    server = Server("serve", data, tmp_path / "log2", cold=True)
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


def test_wherever_server_or_worker_is_killed_everything_ends_as_meant(tmp_path):
    """Films arrive, are measured, rejected and cleared while server or worker are killed."""
    chance = random.Random(5)
    data, library = tmp_path / "library", Library(tmp_path / "library")
    films = [
        write_film(tmp_path / f"{k}.mp4", shaken(40 + k, amplitude_px=2 + k)) for k in range(KILLS)
    ]
    answers = []

    def use(server, number, film):
        """As a shooter would, until nobody answers any more."""
        with suppress(ConnectionError, HTTPException, urllib.error.URLError):
            try:
                take_id = server.send(film)
                if number % 3 == 0:
                    server.put(f"/api/takes/{take_id}/choice", {"choice": "reject"})
                server.put("/api/cleared", {}, "POST")
                server.put(f"/api/takes/{take_id}/choice", {"choice": None})
            except urllib.error.HTTPError as error:
                answers.append(error)

    for number, film in enumerate(films):
        server = Server("serve", data, tmp_path / f"log{number}", cold=True)
        threading.Thread(target=use, args=(server, number, film), daemon=True).start()
        time.sleep(chance.choice([0.0, 0.02, 0.05, 0.1, 0.3, 0.6, 1.0, 1.6]))
        workers = children_of(server.pid)
        if number % 4 == 3 and workers:
            with suppress(ProcessLookupError):
                os.kill(workers[0], signal.SIGKILL)
            time.sleep(0.2)
        server.kill()
        ended_by = time.monotonic() + 5
        while any(map(alive, workers)):
            assert time.monotonic() < ended_by, "a worker outlived its server"
            time.sleep(0.05)
    assert answers == []
    server = Server("serve", data, tmp_path / "log", cold=True)
    try:
        ids = [server.send(film) for film in films]  # those that had not arrived, and the others
        assert len(set(ids)) == len(films)
        server.wait_until(lambda: server.get("/api/takes")["busy"] == 0, 120)
        listed = server.get("/api/takes?limit=200")["takes"]
        assert {take["id"] for take in listed} == set(ids)
        assert {take["state"] for take in listed} == {"done"}
        assert [take["name"] for take in listed if take["fault"]] == []
    finally:
        server.stop()
    kept = {path.name for folder in (library.originals, library.cleared)
            for path in folder.iterdir()}  # fmt: skip
    with database.opened(library.database) as db:
        assert set(clips.originals(db)) == kept
    assert list(library.incoming.iterdir()) == []


def test_renders_copies_and_follows_go_on_wherever_they_are_killed(tmp_path):
    """A take is rendered and a subject in it followed, and a folder is copied from, while server
    or workers are killed."""
    chance = random.Random(7)
    data, library = tmp_path / "library", Library(tmp_path / "library")
    card = tmp_path / "card"
    card.mkdir()
    names = [f"C{k}.mp4" for k in range(6)]
    for k, name in enumerate(names):
        write_film(card / name, shaken(30 + k, amplitude_px=2.0 + k))
    film = write_film(tmp_path / "long.mp4", shaken(240, amplitude_px=3.0))
    server = Server("serve", data, tmp_path / "log", cold=True)
    take = server.send(film)
    server.wait_until(lambda: state(server, take) == "done")
    server.put("/api/folders/copies", {"path": str(card), "files": names}, "POST")
    for number in range(KILLS // 2):
        ask = {"remedy": "polish", "purpose": ("preview", "film")[number % 2]}
        server.put(f"/api/takes/{take}/renders", ask, "POST")
        mark = {"at_s": 4.0 + number / 10, "x": 0.5, "y": 0.5}
        server.put(f"/api/takes/{take}/subject", mark, "POST")
        time.sleep(chance.choice([0.1, 0.4, 0.8, 1.5, 2.5]))
        if number % 4 == 1:  # the same work twice would rightly be given up
            for worker in children_of(server.pid):
                with suppress(ProcessLookupError):
                    os.kill(worker, signal.SIGKILL)
            time.sleep(0.2)
        server.kill()
        server = Server("serve", data, tmp_path / f"log{number}", cold=True)
    try:
        server.wait_until(
            lambda: all(
                one["state"] == "done"
                for one in server.get(f"/api/takes/{take}/renders")["renders"]
            )
        )
        server.wait_until(lambda: server.get(f"/api/takes/{take}/subject")["following"] is None)
        server.wait_until(lambda: server.get("/api/folders/copies")["copies"] == [])
        server.wait_until(lambda: server.get("/api/takes")["busy"] == 0)
        subject = server.get(f"/api/takes/{take}/subject")
        assert (subject["fault"], len(subject["t_s"])) == (None, 240)
        assert server.get("/api/folders/copies/1")["refused"] == []
        listed = server.get("/api/takes")["takes"]
        assert {one["state"] for one in listed} == {"done"}
        assert len(listed) == 1 + len(names)
    finally:
        server.stop()
    left = [*library.incoming.iterdir(), *library.previews.iterdir(), *library.renders.iterdir()]
    assert [one for one in left if one.name.startswith(".")] == []
    assert list(library.incoming.iterdir()) == []


@pytest.fixture
def small_disk(tmp_path):
    """A file system of 60 MB of its own."""
    place = tmp_path / "disk"
    place.mkdir()
    made = subprocess.run(
        ["mount", "-t", "tmpfs", "-o", "size=100m", "none", str(place)],
        check=False, capture_output=True,
    )  # fmt: skip
    if made.returncode:
        pytest.skip("this machine lets nobody mount a file system")
    yield place
    subprocess.run(["umount", "-l", str(place)], check=True)


def fill(disk: Path, *, leave_bytes: int) -> Path:
    """A file that takes up all but so much of a disk."""
    filler, kept = disk / "filler", disk / "kept"
    kept.write_bytes(bytes(leave_bytes))
    with suppress(OSError), filler.open("wb", buffering=0) as stream:
        while True:
            stream.write(bytes(4096))
    kept.unlink()
    return filler


def test_a_full_disk_is_said_and_everything_goes_on_once_there_is_room(
    small_disk, tmp_path, page, long_film
):
    data = small_disk / "library"
    server = Server("serve", data, tmp_path / "log", cold=True)
    try:
        page.goto(f"{server.address}/takes")
        first = server.send(long_film)
        server.wait_until(lambda: progress(server, first) > 0.05, 30)
        filler = fill(small_disk, leave_bytes=0)
        with pytest.raises(urllib.error.HTTPError, match="507"):
            server.ask("POST", "/api/uploads", headers=HEADERS | announcing("a.mp4", 9))
        server.wait_until(lambda: server.get("/api/status")["trouble"] is not None, 10)
        assert server.get("/api/status")["trouble"]["code"] == "disk_full"
        assert server.get(f"/api/takes/{first}")["take"]["name"] == "long"  # reads go on
        page.reload()
        expect(page.get_by_role("status").filter(has_text="The disk is full")).to_be_visible()
        server.wait_until(lambda: state(server, first) in ("queued", "running"), 20)
        filler.unlink()
        server.wait_until(lambda: state(server, first) == "done", 90)
        expect(page.get_by_text("The disk is full")).to_have_count(0)
        assert server.get(f"/api/takes/{first}")["take"]["fault"] is None
    finally:
        page.goto("about:blank")  # it would note that nobody answers
        server.stop()


def test_a_start_on_a_full_disk_is_a_sentence(small_disk, tmp_path):
    fill(small_disk, leave_bytes=16_384)
    with pytest.raises(AssertionError, match="the disk is full"):
        Server("serve", small_disk / "library", tmp_path / "log")


def test_a_damaged_library_is_mended_and_a_damaged_queue_is_thrown_away(tmp_path, page, short_film):
    data = tmp_path / "library"
    server = Server("serve", data, tmp_path / "log1", cold=True)
    server.send(short_film)
    server.kill()
    (data / "queue.db").write_bytes(b"no queue" * 1000)
    (data / "originals/holiday").mkdir()
    server = Server("serve", data, tmp_path / "log2", cold=True)
    server.wait_until(lambda: server.get("/api/takes")["busy"] == 0, 30)
    server.stop()
    (data / "library.db").write_bytes(b"no library" * 1000)
    server = Server("serve", data, tmp_path / "log3", cold=True)
    page.goto(f"{server.address}/takes")
    strip = page.get_by_role("status").filter(has_text="The database was damaged")
    expect(strip).to_contain_text("No film was lost")
    expect(page.get_by_role("main").get_by_role("link").first).to_be_visible()
    strip.get_by_role("button", name="Understood").click()
    expect(strip).to_have_count(0)
    page.goto("about:blank")
    server.stop()
    # Without a copy it is a sentence.
    shutil.rmtree(data / "snapshots")
    (data / "library.db").write_bytes(b"no library" * 1000)
    with pytest.raises(AssertionError, match="is damaged, or no library") as told:
        Server("serve", data, tmp_path / "log4", cold=True)
    assert "Traceback" not in str(told.value)


def test_a_locked_library_is_said_and_waited_for(tmp_path, page, short_film):
    data = tmp_path / "library"
    server = Server("serve", data, tmp_path / "log", cold=True)
    try:
        shaken_film = write_film(tmp_path / "shaken.mp4", shaken(90, amplitude_px=3.0))
        rendered = server.send(shaken_film)
        server.wait_until(lambda: state(server, rendered) == "done")
        with database.opened(data / "library.db") as other:
            take_id = server.send(short_film)
            ask = {"remedy": "polish", "purpose": "film"}
            server.put(f"/api/takes/{rendered}/renders", ask, "POST")
            mark = {"at_s": 1.0, "x": 0.5, "y": 0.5}
            server.put(f"/api/takes/{rendered}/subject", mark, "POST")
            other.execute("begin immediate")
            page.goto(f"{server.address}/takes")
            strip = page.get_by_role("status").filter(has_text="Another program holds")
            expect(strip).to_be_visible()
            expect(page.get_by_role("link", name="short")).to_be_visible()
            time.sleep(LOCKED_S)
            other.execute("rollback")
        server.wait_until(lambda: state(server, take_id) == "done", 40)
        expect(strip).to_have_count(0)
        renders = f"/api/takes/{rendered}/renders"
        server.wait_until(lambda: server.get(renders)["renders"][0]["state"] == "done")
        subject = f"/api/takes/{rendered}/subject"
        server.wait_until(lambda: server.get(subject)["following"] is None)
        assert (server.get(subject)["fault"], len(server.get(subject)["t_s"])) == (None, 90)
    finally:
        page.goto("about:blank")
        server.stop()


def test_deleted_and_brought_back_at_once_a_take_is_measured_all_the_same(fresh, long_film):
    take_id = fresh.send(long_film)
    fresh.wait_until(lambda: progress(fresh, take_id) > 0.02, 30)
    fresh.put(f"/api/takes/{take_id}", {}, "DELETE")
    fresh.put(f"/api/takes/{take_id}/restore", {}, "POST")
    fresh.put(f"/api/takes/{take_id}/cancel", {}, "POST")
    fresh.put(f"/api/takes/{take_id}/measure", {}, "POST")
    fresh.wait_until(lambda: state(fresh, take_id) == "done", 60)


def test_a_page_answers_beside_idle_connections_and_many_comparisons(demo):
    port = int(demo.address.rsplit(":", 1)[1])
    takes = ",".join(str(one["id"]) for one in demo.get("/api/takes")["takes"])
    asked, answers = f"/api/compare?takes={takes}", []

    def compare():
        try:
            answers.append(demo.get(asked)["title"])
        except urllib.error.HTTPError as error:
            answers.append(error.code)

    with ExitStack() as stack:
        for number in range(200):
            idle = stack.enter_context(socket.create_connection(("127.0.0.1", port)))
            if number % 2:
                idle.send(b"GET /api/takes HTTP/1.1\r\n")  # and no more of it
        comparing = [threading.Thread(target=compare) for _ in range(60)]
        for one in comparing:
            one.start()
        begun_s = time.monotonic()
        demo.read("/")
        demo.get("/api/takes")
        took_s = time.monotonic() - begun_s
        for one in comparing:
            one.join()
    assert took_s < 2 * SLOW
    assert 503 in answers
    assert len(set(answers) - {503}) == 1  # those that were let in were answered
