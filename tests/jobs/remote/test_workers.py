"""Real workers, each in a folder and with a key of its own, over TLS and a real Redis."""

from __future__ import annotations

import os
import signal
from contextlib import contextmanager

import pytest

from tests.conftest import shaken, write_film
from tests.e2e.conftest import Server
from tests.jobs.remote.conftest import WorkerProcess, seats

PATIENCE_S = 120.0
OTHER = "127.0.0.3"
AN_HOUR_AHEAD = """
import time, datetime
_real = time.time
time.time = lambda: _real() + 3600.0
"""


@pytest.fixture(scope="module")
def films(tmp_path_factory):
    """Films that take some seconds to measure, each another."""
    folder = tmp_path_factory.mktemp("films")
    return [
        write_film(folder / f"film-{k}.mp4", shaken(400, amplitude_px=2.0 + k)) for k in range(4)
    ]


@contextmanager
def stopped(server: Server):
    yield server
    server.stop()


def states(server) -> list[str]:
    return [take["state"] for take in server.get("/api/takes")["takes"]]


def all_done(server) -> bool:
    found = states(server)
    assert "failed" not in found, server.get("/api/takes")
    return all(state == "done" for state in found)


def doing(server, name: str, kind: str) -> bool:
    return any(seat["name"] == name and seat["doing"] == kind for seat in seats(server))


def test_a_card_is_measured_by_two_workers_one_with_a_clock_an_hour_wrong(
    resting_server, hire, films, tmp_path
):
    (tmp_path / "ahead").mkdir()
    (tmp_path / "ahead" / "sitecustomize.py").write_text(AN_HOUR_AHEAD)
    for film in films:
        resting_server.send(film)
    one, two = hire(), hire(env={"PYTHONPATH": str(tmp_path / "ahead")})
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    assert resting_server.get("/api/workers")["reached"] is True
    ended = [seat["ended"] for seat in seats(resting_server)]
    assert sum(ended) == len(films)
    assert min(ended) >= 1
    assert "away" not in one.told + two.told


def test_what_vanished_workers_did_is_done_by_another(resting_server, hire, films, tmp_path):
    """One killed while it measures, one while it renders, and one asleep while it measures, which
    wakes late."""
    first = resting_server.send(films[0])
    renderer = hire()
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    ask = {"remedy": "polish", "purpose": "film"}
    render = resting_server.put(f"/api/takes/{first}/renders", ask, "POST")["id"]
    resting_server.wait_until(lambda: doing(resting_server, "worker-1", "render"), PATIENCE_S)
    renderer.send(signal.SIGKILL)
    killed = hire()
    resting_server.send(films[1])
    resting_server.wait_until(lambda: doing(resting_server, "worker-2", "measure"), PATIENCE_S)
    killed.send(signal.SIGKILL)
    asleep = hire()
    resting_server.send(films[2])
    resting_server.wait_until(lambda: doing(resting_server, "worker-3", "measure"), PATIENCE_S)
    asleep.send(signal.SIGSTOP)
    rescuer = hire()

    def rendered() -> bool:
        found = resting_server.get(f"/api/takes/{first}/renders")["renders"]
        return next(one["state"] for one in found if one["id"] == render) == "done"

    resting_server.wait_until(lambda: all_done(resting_server) and rendered(), PATIENCE_S)
    assert rescuer.count("done") >= 1
    before = [resting_server.get(f"/api/takes/{first + k}") for k in range(3)]
    asleep.send(signal.SIGCONT)
    resting_server.wait_until(
        lambda: "put down: stopped, or another machine does it" in asleep.told, PATIENCE_S
    )
    assert [resting_server.get(f"/api/takes/{first + k}") for k in range(3)] == before
    assert resting_server.read(f"/api/renders/{render}/film.mp4")
    incoming = tmp_path / "library" / "incoming"
    assert list(incoming.iterdir()) == []


def test_a_broker_that_is_emptied_gone_and_back_loses_nothing(resting_server, redis, hire, films):
    resting_server.send(films[0])
    resting_server.wait_until(lambda: resting_server.get("/api/workers")["reached"] is True)
    assert redis.said("FLUSHALL") == "+OK"
    worker = hire()
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    redis.stop()
    resting_server.send(films[1])
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    resting_server.wait_until(lambda: "the broker is away" in worker.told, PATIENCE_S)
    resting_server.wait_until(lambda: resting_server.get("/api/workers")["reached"] is False)
    redis.start()
    resting_server.wait_until(lambda: resting_server.get("/api/workers")["reached"] is True)
    resting_server.send(films[2])
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    resting_server.wait_until(lambda: worker.count("the broker is back") == 1, PATIENCE_S)
    # Gone once more, and no worker left: the server measures by itself.
    redis.stop()
    worker.send(signal.SIGTERM)
    assert worker.ended() == 0
    resting_server.put("/api/workers/here", {"resting": False})
    resting_server.send(films[3])
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    redis.start()  # for its fixture's end


def test_a_decoder_that_dies_is_begun_anew_and_the_film_tried_again(resting_server, hire, films):
    worker = hire()
    resting_server.send(films[0])
    resting_server.wait_until(
        lambda: worker.children() and doing(resting_server, "worker-1", "measure"), PATIENCE_S
    )
    for child in worker.children():
        os.kill(child, signal.SIGSEGV)
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    assert worker.count("given back: crashed") == 1


def test_a_worker_is_stopped_and_let_in_no_more(resting_server, hire, films):
    resting_server.send(films[0])
    worker, other = hire(), hire()
    resting_server.wait_until(lambda: len(seats(resting_server)) == 2, PATIENCE_S)
    seat = next(one for one in seats(resting_server) if one["name"] == "worker-1")
    resting_server.put(f"/api/workers/seats/{seat['id']}/stop", {}, "POST")
    assert worker.ended() == 1
    assert "asked to stop" in worker.told
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    number = next(
        one["id"] for one in resting_server.get("/api/workers")["workers"]
        if one["name"] == "worker-2"
    )  # fmt: skip
    resting_server.put(f"/api/workers/{number}", {}, "DELETE")
    assert other.ended() == 1
    assert "opens nothing here" in other.told or "asked to stop" in other.told


def test_a_worker_needs_no_broker(resting_server, redis, hire, films):
    redis.stop()  # whoever asked it would say that it is away
    worker = hire("--server", resting_server.address, "--queue", "")
    resting_server.send(films[0])
    resting_server.wait_until(lambda: all_done(resting_server), PATIENCE_S)
    assert "broker" not in worker.told


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--server", "http://127.0.0.2:9"], "not spoken to without TLS"),
        (["--server", "ftp://127.0.0.1"], "not spoken to without TLS"),
    ],
)
def test_a_key_is_sent_to_nobody_in_the_clear(resting_server, hire, options, words):
    worker = hire(*options)
    assert worker.ended() != 0
    assert words in worker.told


def test_a_server_that_nobody_vouches_for_gets_no_key(resting_server, hire, tmp_path):
    """Its certificate is another library's."""
    hire().end()
    key = tmp_path / "worker-1.json"
    with stopped(Server("serve", tmp_path / "other", tmp_path / "l2", "--network", OTHER)) as other:
        address = other.get("/api/network")["opening"]["address"]
        worker = WorkerProcess(key, tmp_path / "wary", "--server", address)
        try:
            other.wait_until(lambda: "certificate verify failed" in worker.told)
        finally:
            worker.end()
        assert other.get("/api/workers")["workers"] == []
