"""Lent work is done once, by whoever is heard of, and kept whole or not at all."""

from __future__ import annotations

import hashlib
import io

import pytest

from ridgewind.films import orders
from ridgewind.films.orders import MeasureOrder
from ridgewind.jobs.measure import measure_clip
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.remote import wire, work
from ridgewind.jobs.remote.leases import LeaseLostError, Leases
from ridgewind.jobs.remote.parts import PartError
from ridgewind.jobs.remote.seats import LOST_S, AskedToStopError, Machine, NoSeatError
from ridgewind.library.tidying import tidy
from ridgewind.store import clips, database, jobs, takes
from ridgewind.store.jobs import Fault

MACHINE, WORKER = Machine(4), 7


class Clock:
    now_s = 1000.0

    def __call__(self) -> float:
        return self.now_s


@pytest.fixture
def clock():
    return Clock()


@pytest.fixture
def leases(library, clock):
    return Leases(library, Queue(library), clock=clock)


@pytest.fixture
def take(library, db, short_film):
    with short_film.open("rb") as stream:
        return library.add(db, stream, file_name="short.mp4", size_bytes=None).take


@pytest.fixture(scope="module")
def parts(short_film, tmp_path_factory):
    """What a worker sends back of the short film."""
    folder = tmp_path_factory.mktemp("parts")
    result = orders.measure(
        short_film, MeasureOrder(frozenset(), None), copy=folder / "copy",
        still=folder / "still", on_progress=lambda _done: None,
    )  # fmt: skip
    (folder / "result").write_text(wire.result_text(result), encoding="utf-8")
    return {name: (folder / name).read_bytes() for name in ("result", "copy", "still")}


def send(leases, lease, parts):
    for name, content in parts.items():
        half = len(content) // 2
        assert leases.put(lease, name, 0, content[:half]) == half
        assert leases.put(lease, name, 0, content[:half]) == half  # sent again: nothing doubled
        assert leases.put(lease, name, half, content[half:]) == len(content)
    return {name: hashlib.sha256(content).hexdigest() for name, content in parts.items()}


def half_arrived(library):
    return list(library.incoming.iterdir())


def test_what_a_worker_measured_is_what_would_be_measured_here(
    library, db, leases, take, parts, short_film
):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    lent = leases.claim(seat, WORKER, "measure", take.clip_id)
    assert leases.film_of(lent.lease).read_bytes() == short_film.read_bytes()
    assert lent.sha256 == hashlib.sha256(short_film.read_bytes()).hexdigest()
    assert leases.beat(seat, WORKER, lent.lease, 0.5)
    assert takes.by_id(db, take.id).progress == 0.5
    leases.finish(seat, WORKER, lent.lease, send(leases, lent.lease, parts))
    lent_motion = clips.motion_of(db, take.clip_id)
    assert takes.by_id(db, take.id).state == "done"
    assert library.copy_of(lent.sha256).read_bytes() == parts["copy"]
    assert library.still_of(lent.sha256).is_file()
    assert half_arrived(library) == []
    with database.atomic(db):
        jobs.enqueue(db, "measure", take.clip_id)
    measure_clip(library, take.clip_id)
    assert clips.pack(clips.motion_of(db, take.clip_id)) == clips.pack(lent_motion)


def test_work_that_is_not_heard_of_is_anothers_and_what_comes_late_is_dropped(
    library, db, leases, take, parts, clock
):
    first, second = (leases.sit(WORKER, name, MACHINE) for name in ("One", "Two"))
    lost = leases.claim(first, WORKER, "measure", None)
    digests = send(leases, lost.lease, parts)
    assert leases.claim(second, WORKER, "measure", take.clip_id) is None
    clock.now_s += LOST_S + 1
    leases.check()
    row = jobs.one(db, "measure", take.clip_id)
    assert (row.state, row.attempts) == ("queued", 0)  # no fault of the film
    assert half_arrived(library) == []
    again = leases.claim(second, WORKER, "measure", take.clip_id)
    for late in (
        lambda: leases.finish(first, WORKER, lost.lease, digests),
        lambda: leases.put(lost.lease, "copy", 0, b"late"),
        lambda: leases.film_of(lost.lease),
    ):
        with pytest.raises(LeaseLostError):
            late()
    assert not leases.beat(first, WORKER, lost.lease, 0.9)
    assert clips.motion_of(db, take.clip_id) is None
    leases.finish(second, WORKER, again.lease, send(leases, again.lease, parts))
    assert takes.by_id(db, take.id).state == "done"


@pytest.mark.parametrize("fault", ["cut", "other", "missing", "foreign"])
def test_a_result_that_is_not_whole_changes_nothing(library, db, leases, take, parts, fault):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    lent = leases.claim(seat, WORKER, "measure", take.clip_id)
    digests = send(leases, lent.lease, parts)
    if fault == "cut":
        digests["copy"] = hashlib.sha256(parts["copy"] + b"more").hexdigest()
    elif fault == "other":
        leases.put(lent.lease, "still", len(parts["still"]), b"more")
    elif fault == "missing":
        del digests["copy"]
    else:
        leases.put(lent.lease, "film", 0, b"film")
        digests["film"] = hashlib.sha256(b"film").hexdigest()
    with pytest.raises(PartError):
        leases.finish(seat, WORKER, lent.lease, digests)
    assert jobs.one(db, "measure", take.clip_id).state == "running"
    assert clips.motion_of(db, take.clip_id) is None
    assert not library.copy_of(lent.sha256).exists()


def test_a_result_of_another_kind_is_refused(leases, take, parts):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    lent = leases.claim(seat, WORKER, "measure", take.clip_id)
    rendered = wire.result_text(orders.RenderResult(1.0)).encode()
    with pytest.raises(PartError):
        leases.finish(
            seat, WORKER, lent.lease, send(leases, lent.lease, parts | {"result": rendered})
        )


def test_a_film_that_cannot_be_measured_fails_with_the_workers_words(db, leases, take):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    lent = leases.claim(seat, WORKER, "measure", take.clip_id)
    told = wire.result_text(Fault("damaged", "no frame of it can be decoded", "copy it again"))
    leases.finish(seat, WORKER, lent.lease, send(leases, lent.lease, {"result": told.encode()}))
    found = takes.by_id(db, take.id)
    assert (found.state, found.error_what) == ("failed", "no frame of it can be decoded")


def test_a_film_that_takes_two_decoders_down_is_given_up(db, leases, take):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    for state in ("queued", "failed"):
        lent = leases.claim(seat, WORKER, "measure", take.clip_id)
        leases.give_back(seat, WORKER, lent.lease, "crashed")
        assert jobs.one(db, "measure", take.clip_id).state == state


def test_a_machine_without_room_is_no_fault_of_the_film(db, leases, take):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    for _ in range(3):
        lent = leases.claim(seat, WORKER, "measure", take.clip_id)
        leases.give_back(seat, WORKER, lent.lease, "no_room")
    assert jobs.one(db, "measure", take.clip_id).state == "queued"


def test_stopping_a_film_reaches_its_worker(db, leases, take, parts):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    lent = leases.claim(seat, WORKER, "measure", take.clip_id)
    with database.atomic(db):
        jobs.request_cancel(db, "measure", take.clip_id)
    assert not leases.beat(seat, WORKER, lent.lease, 0.5)
    leases.give_back(seat, WORKER, lent.lease, "put_down")
    assert takes.by_id(db, take.id).state == "cancelled"


def test_a_result_for_what_was_stopped_meanwhile_is_dropped(db, leases, take, parts):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    lent = leases.claim(seat, WORKER, "measure", take.clip_id)
    digests = send(leases, lent.lease, parts)
    with database.atomic(db):
        jobs.request_cancel(db, "measure", take.clip_id)
    leases.finish(seat, WORKER, lent.lease, digests)
    assert takes.by_id(db, take.id).state == "cancelled"
    assert clips.motion_of(db, take.clip_id) is None


def test_a_worker_that_is_asked_to_stop_gives_its_work_away(db, leases, take, clock):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    leases.claim(seat, WORKER, "measure", take.clip_id)
    leases.stop(seat)
    assert jobs.one(db, "measure", take.clip_id).state == "queued"
    clock.now_s += 3600.0  # it slept
    assert leases.seats() == []
    with pytest.raises(AskedToStopError):
        leases.beat(seat, WORKER, None, None)


def test_one_machine_cannot_use_the_seat_of_another(leases, take):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    with pytest.raises(NoSeatError):
        leases.claim(seat, WORKER + 1, "measure", take.clip_id)


def test_a_server_that_is_started_again_takes_what_its_workers_still_do(
    library, db, leases, take, parts, clock
):
    seat = leases.sit(WORKER, "Desk", MACHINE)
    lent = leases.claim(seat, WORKER, "measure", take.clip_id)
    leases.put(lent.lease, "copy", 0, b"half")
    tidy(library)
    Queue(library).refill(library.database)
    after = Leases(library, Queue(library), clock=clock)
    after.check()
    with pytest.raises(NoSeatError):
        after.beat(seat, WORKER, lent.lease, 0.6)
    seat = after.sit(WORKER, "Desk", MACHINE)
    assert after.beat(seat, WORKER, lent.lease, 0.6)
    assert after.seats()[0].task_name == take.name
    assert after.received(lent.lease, "copy") == 0
    after.finish(seat, WORKER, lent.lease, send(after, lent.lease, parts))
    assert takes.by_id(db, take.id).state == "done"


def test_a_missing_original_is_said_and_lent_to_nobody(library, db, leases, take):
    (library.originals / clips.by_id(db, take.clip_id).file).unlink()
    seat = leases.sit(WORKER, "Desk", MACHINE)
    assert leases.claim(seat, WORKER, "measure", None) is None
    assert takes.by_id(db, take.id).error_code == "missing"


def test_one_that_cannot_be_lent_keeps_none_from_the_next(
    library, db, leases, take, short_film, monkeypatch
):
    content = short_film.read_bytes() + b"other"
    other = library.add(db, io.BytesIO(content), file_name="other.mp4", size_bytes=None).take
    whole = work.order_of

    def order_of(library, db, kind, number):
        if number == take.clip_id:
            raise RuntimeError("not foreseen")
        return whole(library, db, kind, number)

    monkeypatch.setattr(work, "order_of", order_of)
    seat = leases.sit(WORKER, "far", MACHINE)
    lent = leases.claim(seat, WORKER, "measure", None)
    assert lent.sha256 == clips.by_id(db, other.clip_id).sha256
    assert jobs.one(db, "measure", take.clip_id).state == "queued"
