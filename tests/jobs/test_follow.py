"""A marked subject is followed by the worker: kept, stopped, refused, let go and brought back."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.subject import Mark
from ridgewind.jobs import follow as work
from ridgewind.jobs.measure import measure_clip
from ridgewind.services import subject
from ridgewind.services.errors import GoneError
from ridgewind.store import database, jobs, subjects, takes

MIDDLE, ASIDE = Mark(0.5, 0.5, 0.5), Mark(0.7, 0.4, 0.4)


@pytest.fixture
def take(library, db, short_film):
    with short_film.open("rb") as stream:
        take = library.add(db, stream, file_name="a.mp4", size_bytes=None).take
    measure_clip(library, take.clip_id)
    return takes.by_id(db, take.id)


def state(db, take):
    return jobs.one(db, "follow", take.id).state


def test_what_was_marked_is_followed_once_and_kept(library, db, take):
    subject.ask(db, take.id, MIDDLE, second=False)
    assert (state(db, take), subjects.of_take(db, take.id)) == ("queued", None)
    work.follow_one(library, take.id)
    kept = subjects.of_take(db, take.id)
    assert (state(db, take), kept.marks) == ("done", (MIDDLE,))
    assert np.isfinite(kept.paths[0].x_pct).all()
    subject.ask(db, take.id, ASIDE, second=True)
    work.follow_one(library, take.id)
    assert subjects.of_take(db, take.id).marks == (MIDDLE, ASIDE)
    assert not takes.by_id(db, take.id).stale


def test_what_is_stopped_leaves_the_subject_that_was_there(library, db, take, monkeypatch):
    subject.ask(db, take.id, MIDDLE, second=False)
    work.follow_one(library, take.id)

    def stop_in_the_middle(*args, on_progress, **kwargs):
        subject.stop(db, take.id)
        on_progress(0.5)
        raise AssertionError("it went on")

    monkeypatch.setattr(work, "followed", stop_in_the_middle)
    subject.ask(db, take.id, ASIDE, second=False)
    work.follow_one(library, take.id)
    assert state(db, take) == "cancelled"
    assert subjects.of_take(db, take.id).marks == (MIDDLE,)


def test_a_subject_that_is_let_go_comes_back(library, db, take):
    subject.ask(db, take.id, MIDDLE, second=False)
    work.follow_one(library, take.id)
    before = subjects.of_take(db, take.id)
    subject.let_go(db, take.id)
    assert subjects.of_take(db, take.id) is None
    subject.bring_back(db, take.id)
    back = subjects.of_take(db, take.id)
    assert back.marks == before.marks
    assert np.array_equal(back.paths[0].x_pct, before.paths[0].x_pct, equal_nan=True)
    with pytest.raises(GoneError):
        subject.bring_back(db, take.id)


def test_a_second_point_of_what_was_let_go_meanwhile_is_not_followed(library, db, take):
    subject.ask(db, take.id, MIDDLE, second=False)
    work.follow_one(library, take.id)
    subject.ask(db, take.id, ASIDE, second=True)
    with database.atomic(db):
        subjects.let_go(db, take.id)
    work.follow_one(library, take.id)
    assert (state(db, take), subjects.of_take(db, take.id)) == ("cancelled", None)


def test_what_cannot_be_followed_says_why(library, db, take):
    with pytest.raises(InvalidArgumentError, match="within the film"):
        subject.ask(db, take.id, Mark(99.0, 0.5, 0.5), second=False)
    with pytest.raises(InvalidArgumentError, match="a first point must be marked"):
        subject.ask(db, take.id, ASIDE, second=True)
    for film in library.originals.iterdir():
        film.unlink()
    subject.ask(db, take.id, MIDDLE, second=False)
    work.follow_one(library, take.id)
    failed = jobs.one(db, "follow", take.id)
    assert failed.state == "failed"
    assert failed.error_what
    assert failed.error_next
    subject.stop(db, take.id)
    assert jobs.one(db, "follow", take.id) is None


def test_a_take_that_is_removed_takes_its_subject_along(library, db, take):
    subject.ask(db, take.id, MIDDLE, second=False)
    work.follow_one(library, take.id)
    subject.let_go(db, take.id)
    library.forget(db, take.id)
    assert jobs.one(db, "follow", take.id) is None
