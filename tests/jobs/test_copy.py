"""The copying task: film by film, told of, stopped, broken off and gone on with."""

from __future__ import annotations

import os
import shutil
import signal

import pytest

from ridgewind.jobs.copy import copy_films
from ridgewind.jobs.queue import Queue, open_queue
from ridgewind.jobs.supervisor import Supervisor
from ridgewind.library import folders
from ridgewind.media.errors import UnreadableError
from ridgewind.store import database, folder_copies, jobs, listing
from tests.conftest import shaken, wait_for, write_film

FILES = ("A.MP4", "bad.txt", "B.MP4")


@pytest.fixture(scope="module")
def card(tmp_path_factory, short_film):
    root = tmp_path_factory.mktemp("card")
    shutil.copy(short_film, root / "A.MP4")
    write_film(root / "B.MP4", shaken(30, amplitude_px=3.0))
    (root / "bad.txt").write_text("not a film")
    return root


def asked(db, card, files=FILES) -> int:
    with database.atomic(db):
        return folder_copies.add(db, root=str(card), files=files)


def test_films_come_in_one_by_one_and_wait_to_be_measured(library, db, card):
    number = asked(db, card)
    copy_films(library, number)
    copy = folder_copies.by_id(db, number)
    assert copy.job.state == "done"
    assert [film.take_id is not None for film in copy.films] == [True, False, True]
    assert copy.films[1].fault_what == "the file is not in this folder"
    assert len(jobs.waiting(db, "measure")) == 2
    assert open_queue(library, "measure").pending_count() == 2


def test_what_could_not_be_brought_in_is_told_until_it_is_seen(library, db, card):
    whole, short = asked(db, card, ["A.MP4"]), asked(db, card, ["A.MP4", "gone.mp4"])
    assert [copy.id for copy in folder_copies.told(db)] == [whole, short]
    for number in (whole, short):
        copy_films(library, number)
    assert [copy.id for copy in folder_copies.told(db)] == [short]
    with database.atomic(db):
        folder_copies.see(db, short)
    assert folder_copies.told(db) == []


def test_a_film_that_is_here_already_is_known_as_such(library, db, card):
    copy_films(library, asked(db, card, ["A.MP4"]))
    again = asked(db, card, ["A.MP4"])
    copy_films(library, again)
    (film,) = folder_copies.by_id(db, again).films
    assert film.duplicate
    library.forget(db, film.take_id)
    (film,) = folder_copies.by_id(db, again).films
    assert film.take_id is None


def test_stopping_keeps_what_is_here_and_nothing_of_the_film_under_way(
    library, db, card, monkeypatch
):
    monkeypatch.setattr("ridgewind.library.library.CHUNK_BYTES", 1000)
    monkeypatch.setattr("ridgewind.jobs.running.REPORT_EVERY_S", 0.0)
    number = asked(db, card)
    shares = []
    report = jobs.report

    def stop_within_the_last(connection, kind, subject_id, progress):
        shares.append(progress)
        if progress > 2.2 / 3:
            jobs.request_cancel(connection, kind, subject_id)
        return report(connection, kind, subject_id, progress)

    monkeypatch.setattr("ridgewind.jobs.running.jobs.report", stop_within_the_last)
    copy_films(library, number)
    copy = folder_copies.by_id(db, number)
    assert copy.job.state == "cancelled"
    assert [film.settled for film in copy.films] == [True, True, False]
    assert shares == sorted(shares)
    assert list(library.incoming.iterdir()) == []
    assert listing.count(db, only=listing.Filter()) == 1


def test_a_copy_that_was_broken_off_goes_on_where_it_was(library, db, card, monkeypatch):
    number = asked(db, card)
    seen = []
    bring_in = folders.bring_in

    def die_at_the_last(library, db, path, file, **more):
        seen.append(file)
        if file == "B.MP4" and seen.count("B.MP4") == 1:
            raise KeyboardInterrupt
        return bring_in(library, db, path, file, **more)

    monkeypatch.setattr(folders, "bring_in", die_at_the_last)
    with pytest.raises(KeyboardInterrupt):
        copy_films(library, number)
    assert jobs.interrupted(db, "copy") == [number]
    jobs.lay_down(db, "copy")
    copy_films(library, number)
    assert seen == ["A.MP4", "bad.txt", "B.MP4", "B.MP4"]
    assert folder_copies.by_id(db, number).job.state == "done"


def test_a_pulled_card_refuses_each_film_that_is_left(library, db, card, monkeypatch):
    def pulled(*_args, **_more):
        raise UnreadableError(*folders.PULLED)

    monkeypatch.setattr(folders, "bring_in", pulled)
    number = asked(db, card)
    copy_films(library, number)
    copy = folder_copies.by_id(db, number)
    assert {film.fault_what for film in copy.films} == {folders.PULLED[1]}
    assert copy.job.state == "done"


def test_work_whose_message_was_lost_is_found_and_done(library, db, card, monkeypatch):
    monkeypatch.setattr("ridgewind.jobs.supervisor.LOOK_S", 0.2)
    number = asked(db, card, ["A.MP4"])  # and nothing was put into the queue
    with Supervisor(library, Queue(library), "copy") as supervisor:
        wait_for(lambda: folder_copies.by_id(db, number).job.state == "done")
        first = supervisor.worker_pid
        os.kill(first, signal.SIGKILL)
        wait_for(lambda: supervisor.worker_pid != first)


def test_a_look_for_work_that_fails_is_made_again(library, db, card, monkeypatch):
    monkeypatch.setattr("ridgewind.jobs.supervisor.LOOK_S", 0.2)
    number = asked(db, card, ["A.MP4"])
    queue, faults = Queue(library), [OSError("the disk is full")]
    top_up = queue.top_up

    def fail_once(*asked):
        if faults:
            raise faults.pop()
        top_up(*asked)

    monkeypatch.setattr(queue, "top_up", fail_once)
    with Supervisor(library, queue, "copy"):
        wait_for(lambda: folder_copies.by_id(db, number).job.state == "done")
    assert faults == []
