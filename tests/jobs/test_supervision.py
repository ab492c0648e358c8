"""Work goes on by itself after whatever stopped it: a lock, a hang, a worker that dies at once."""

from __future__ import annotations

import threading

import pytest

from ridgewind.jobs import running, supervisor
from ridgewind.jobs.crew import Crew
from ridgewind.jobs.measure import measure_clip
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.supervisor import Supervisor
from ridgewind.services import assessing
from ridgewind.store import clips, database, jobs, summaries, takes, workers
from ridgewind.store.errors import BusyError
from tests.conftest import wait_for


@pytest.fixture
def take(library, db, short_film):
    with short_film.open("rb") as stream:
        return library.add(db, stream, file_name="short.mp4", size_bytes=None).take


def state(db, take):
    return takes.by_id(db, take.id).state


def test_a_store_that_is_locked_meanwhile_is_waited_for(library, db, take, monkeypatch):
    monkeypatch.setattr(database, "BUSY_S", 0.02)
    monkeypatch.setattr(running, "RETRY_S", 0.02)
    monkeypatch.setattr(running, "REPORT_EVERY_S", 0.0)
    with database.opened(library.database) as other:
        other.execute("begin immediate")
        worker = threading.Thread(target=measure_clip, args=(library, take.clip_id))
        worker.start()
        worker.join(0.3)
        assert worker.is_alive()
        assert state(db, take) == "queued"
        other.execute("rollback")
        worker.join(30)
    assert state(db, take) == "done"
    assert takes.by_id(db, take.id).gust is not None


def test_nobody_is_locked_out_while_a_film_is_judged(library, db, take, monkeypatch):
    judge = assessing.judge
    monkeypatch.setattr(database, "BUSY_S", 0.02)

    def write_meanwhile(*args):
        with database.opened(library.database) as other, database.atomic(other):
            other.execute("insert into setting (name, value) values ('meanwhile', '1')"
                          " on conflict do nothing")  # fmt: skip
        return judge(*args)

    monkeypatch.setattr(assessing, "judge", write_meanwhile)
    measure_clip(library, take.clip_id)
    assert takes.by_id(db, take.id).gust is not None


def test_a_film_that_cannot_be_judged_keeps_its_measurement(library, db, take, monkeypatch):
    monkeypatch.setattr(assessing, "judge", lambda *_: 1 / 0)
    measure_clip(library, take.clip_id)
    assert state(db, take) == "done"
    assert clips.motion_of(db, take.clip_id) is not None


def test_a_line_that_went_out_of_date_while_it_was_worked_out_stays_so(
    library, db, take, monkeypatch
):
    measure_clip(library, take.clip_id)
    judge = assessing.judge

    def changed_meanwhile(db, take_id):
        summaries.mark_take_stale(db, take_id)
        return judge(db, take_id)

    monkeypatch.setattr(assessing, "judge", changed_meanwhile)
    assessing.summarise(db, take.id)
    assert summaries.stale_ids(db, limit=9) == [take.id]
    monkeypatch.undo()
    assert assessing.refresh(db, budget_s=5) == 0
    assert summaries.stale_ids(db, limit=9) == []


def test_a_worker_that_gives_no_sign_of_life_is_replaced(library, db, take, monkeypatch):
    monkeypatch.setattr(supervisor, "STUCK_S", 1.0)
    monkeypatch.setattr(supervisor, "LOOK_S", 0.2)
    monkeypatch.setattr(supervisor, "FIRST_PAUSE_S", 0.1)
    queue = Queue(library)
    with Supervisor(library, queue, "measure") as watcher:
        with database.atomic(db):
            assert jobs.claim(db, "measure", take.clip_id)  # as if it hung in its decoder
        watcher.wake()
        wait_for(lambda: state(db, take) == "done", 60)
    assert jobs.one(db, "measure", take.clip_id).attempts == 1


def test_a_film_that_hangs_twice_is_given_up_with_its_reason(db, take):
    for _ in range(2):
        jobs.claim(db, "measure", take.clip_id)
        jobs.crashed(db, "measure", take.clip_id, stuck=True)
    row = takes.by_id(db, take.id)
    assert (row.error_code, row.error_what) == ("stuck", "measuring it stood still twice")


def test_a_worker_that_dies_at_once_is_not_started_over_and_over(library, take, monkeypatch):
    starts = []
    begin = supervisor.subprocess.Popen

    def count(*args, **more):
        starts.append(args)
        return begin(["/bin/false"], **more)

    monkeypatch.setattr(supervisor.subprocess, "Popen", count)
    with Supervisor(library, Queue(library), "measure"):
        threading.Event().wait(3.0)
    assert 1 < len(starts) <= 4


def test_a_supervisor_outlives_a_locked_store(library, db, take, monkeypatch):
    monkeypatch.setattr(supervisor, "LOOK_S", 0.1)
    unfinished, seen = jobs.unfinished, []

    def locked_at_first(*args):
        seen.append(args)
        if len(seen) < 4:
            raise BusyError("database is locked")
        return unfinished(*args)

    monkeypatch.setattr(supervisor.jobs, "unfinished", locked_at_first)
    with Supervisor(library, Queue(library), "measure"):
        wait_for(lambda: state(db, take) == "done", 60)


def test_rest_is_kept_until_it_is_ended_or_nobody_else_is_let_in(library, db):
    def begun_anew() -> bool:
        return Crew(library).desk.resting()

    with database.atomic(db):
        other = workers.add(db, "Loft desk", "0" * 64)
    Crew(library).desk.rest(True)
    assert begun_anew()
    with database.atomic(db):
        workers.remove(db, other)
    assert not begun_anew()  # the work would wait for ever
    with database.atomic(db):
        workers.add(db, "Loft desk", "1" * 64)
    Crew(library).desk.rest(False)
    assert not begun_anew()
    assert Crew(library, resting=True).desk.resting()
