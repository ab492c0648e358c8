"""The rendering task: films whole or not at all, stopped, failed, taken up again, and tidied."""

from __future__ import annotations

import errno
import os
import signal
from dataclasses import replace

import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.jobs import running
from ridgewind.jobs.measure import measure_clip
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.render import render_one
from ridgewind.jobs.running import Cancelled, Watch
from ridgewind.jobs.supervisor import Supervisor
from ridgewind.library.tidying import tidy
from ridgewind.media.decode import Film
from ridgewind.media.encode import FilmWriter
from ridgewind.media.errors import translated
from ridgewind.services import assessing, deciding
from ridgewind.store import briefs, clips, database, jobs, renders, takes
from tests.conftest import shaken, wait_for, write_film

AGREEMENT = 0.4


@pytest.fixture
def measured(library, db, short_film):
    with short_film.open("rb") as stream:
        take = library.add(db, stream, file_name="short.mp4", size_bytes=None).take
    measure_clip(library, take.clip_id)
    return takes.by_id(db, take.id)


def asked(db, take, *, purpose="preview", kind="polish"):
    case = deciding.case_of(db, take.id)
    recipe = deciding.recipe(case, deciding.RemedyRequest(kind))
    with database.atomic(db):
        return renders.add(db, take_id=take.id, purpose=purpose, recipe=recipe)


def test_the_task_renders_measures_again_and_keeps_both_figures(library, db, measured):
    number = asked(db, measured)
    render_one(library, number)
    row = renders.by_id(db, number)
    assert row.state == "done"
    assert row.gust == pytest.approx(row.recipe.gust, abs=AGREEMENT)
    assert row.size_bytes == library.render_of(number).stat().st_size
    assert asked(db, measured) == number  # the same film is not made twice


def test_a_preview_shows_no_more_frames_than_a_screen(library, db, tmp_path):
    path = write_film(tmp_path / "fast.mp4", shaken(480, amplitude_px=3.0, rate_hz=240), rate=240)
    with path.open("rb") as stream:
        with database.atomic(db):
            brief_id = briefs.add(db, replace(usual_brief(), delivery_fps=240.0), name="Fast")
        take = library.add(
            db, stream, file_name="fast.mp4", size_bytes=None, brief_id=brief_id
        ).take
    measure_clip(library, take.clip_id)
    case = deciding.case_of(db, take.id)
    whole = deciding.preview_of(case, deciding.recipe(case, deciding.RemedyRequest("polish")))
    assert (whole.rate, whole.step) == (1.0, 4)
    with database.atomic(db):
        briefs.change(db, brief_id, usual_brief(), name="Usual")
    case = deciding.case_of(db, take.id)
    slowed = deciding.preview_of(
        case, deciding.recipe(case, deciding.RemedyRequest("slow", rate=0.1))
    )
    assert (slowed.end_s - slowed.start_s) / slowed.rate == pytest.approx(16.0, abs=0.1)
    with database.atomic(db):
        number = renders.add(db, take_id=take.id, purpose="preview", recipe=whole)
    render_one(library, number)
    row = renders.by_id(db, number)
    assert row.gust == pytest.approx(row.recipe.gust, abs=AGREEMENT)
    with Film(library.render_of(number)) as made:
        assert sum(1 for _ in made.pictures(lambda plane: plane[::8, ::8])) == 120


def test_a_stopped_film_leaves_nothing_behind(library, db, measured, monkeypatch):
    number = asked(db, measured)
    with database.atomic(db):
        jobs.request_cancel(db, "render", number)
    render_one(library, number)
    assert renders.by_id(db, number).state == "cancelled"

    def stop(self, done):
        raise Cancelled

    running = asked(db, measured)
    monkeypatch.setattr(Watch, "feed", stop)
    render_one(library, running)
    assert renders.by_id(db, running).state == "cancelled"
    assert list(library.renders.iterdir()) == []


def test_a_full_disk_is_waited_for_and_leaves_nothing(library, db, measured, monkeypatch):
    seen = []

    def full(*_args):
        with translated():
            raise OSError(errno.ENOSPC, "No space left on device")

    def make_room(_library):
        row = renders.by_id(db, number)
        seen.append((row.state, row.error_code, row.error_next, list(library.renders.iterdir())))
        monkeypatch.undo()

    monkeypatch.setattr(FilmWriter, "write", full)
    monkeypatch.setattr(running, "_wait_for_room", make_room)
    number = asked(db, measured)
    render_one(library, number)
    assert seen == [("queued", "disk_full", running.ROOM_NEXT, [])]
    row = renders.by_id(db, number)
    assert (row.state, row.error_code) == ("done", None)


def test_a_film_that_ended_its_process_twice_is_given_up(library, db, measured):
    number = asked(db, measured)
    with database.atomic(db):
        for waits_again in (True, False):
            assert jobs.claim(db, "render", number)
            assert jobs.crashed(db, "render", number) is waits_again
    assert renders.by_id(db, number).error_code == "crashed"


def test_a_cleared_original_can_be_previewed_but_not_rendered_full_size(library, db, measured):
    with database.atomic(db):
        takes.set_choice(db, measured.id, "reject")
    assert [clip.id for clip in library.clear(db)] == [measured.clip_id]
    full, small = asked(db, measured, purpose="film"), asked(db, measured)
    for number in (full, small):
        render_one(library, number)
    assert renders.by_id(db, full).error_code == "cleared"
    assert renders.by_id(db, small).state == "done"
    assert library.bring_back(db, measured.clip_id)
    assert clips.by_id(db, measured.clip_id).cleared_at is None
    assert assessing.judge(db, measured.id).assessment is not None


def test_a_killed_renderer_is_replaced_and_its_film_made(library, db, measured):
    queue = Queue(library)
    number = asked(db, measured, purpose="film")
    with Supervisor(library, queue, "render") as supervisor:
        with database.atomic(db):
            assert jobs.claim(db, "render", number)  # as if it were at it
        supervisor.wake()
        wait_for(lambda: supervisor.worker_pid is not None)
        first = supervisor.worker_pid
        os.kill(first, signal.SIGKILL)
        wait_for(lambda: renders.by_id(db, number).state == "done", 60)
        assert supervisor.worker_pid != first
    assert jobs.one(db, "render", number).attempts == 1


def test_films_that_nothing_knows_are_left_alone(library, db, measured):
    number = asked(db, measured)
    render_one(library, number)
    stray = library.render_of(999)
    stray.write_bytes(b"left behind")
    tidy(library)
    assert stray.exists()
    assert library.render_of(number).is_file()


def test_cleared_originals_go_for_good_after_a_week_and_come_back_with_the_file(
    library, db, measured, short_film
):
    with database.atomic(db):
        takes.set_choice(db, measured.id, "reject")
    (clip,) = library.clear(db)
    tidy(library)
    assert library.is_aside(clip)
    db.execute("update clip set cleared_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now', '-8 days')")
    tidy(library)
    assert not library.is_aside(clip)
    assert not library.bring_back(db, clip.id)
    assert assessing.judge(db, measured.id).assessment is not None  # figures stay
    with short_film.open("rb") as stream:
        again = library.add(db, stream, file_name="short.mp4", size_bytes=None)
    assert again.duplicate
    assert (library.originals / clip.file).is_file()
    assert clips.by_id(db, clip.id).cleared_at is None


def test_closing_the_application_while_a_film_is_made_is_no_attempt(library, db, measured):
    number = asked(db, measured, purpose="film")
    for _ in range(3):
        queue = Queue(library)
        queue.refill(library.database)
        job = jobs.one(db, "render", number)
        assert (job.state, job.attempts, job.progress) == ("queued", 0, None)
        with Supervisor(library, queue, "render"):
            wait_for(lambda: jobs.one(db, "render", number).state == "running")
