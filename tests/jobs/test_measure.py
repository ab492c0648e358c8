"""Bringing films in, measuring them in a worker, and losing nothing when processes die."""

from __future__ import annotations

import io
import os
import shutil
import signal
from typing import get_args

import pytest

from ridgewind.jobs.measure import measure_clip
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.supervisor import Supervisor
from ridgewind.library import library as library_module
from ridgewind.library.library import Library, LibraryBusyError, readable_name
from ridgewind.library.tidying import tidy
from ridgewind.media.errors import MediaError, UnreadableError
from ridgewind.services import assessing
from ridgewind.store import clips, database, jobs, listing, takes
from ridgewind.web.takes.models import RemedyName
from tests.conftest import shaken, wait_for, write_film


def bring_in(library, db, path, name=None):
    with path.open("rb") as stream:
        return library.add(db, stream, file_name=name or path.name, size_bytes=None)


def leftovers(library: Library) -> list[str]:
    return [
        path.name
        for folder in (library.originals, library.copies, library.stills, library.incoming)
        for path in folder.iterdir()
        if path.name.startswith(".") or folder == library.incoming
    ]


def test_a_take_that_is_looked_at_as_it_is_measured_is_not_measured_yet(
    library, db, short_film, monkeypatch
):
    take = bring_in(library, db, short_film).take
    read = clips.by_id

    def measured_right_after(*args):
        row = read(*args)
        monkeypatch.setattr(clips, "by_id", read)
        measure_clip(library, take.clip_id)
        return row

    monkeypatch.setattr(clips, "by_id", measured_right_after)
    assert assessing.judge(db, take.id).assessment is None
    assert not db.in_transaction
    assert assessing.judge(db, take.id).assessment is not None


def test_a_film_is_stored_untouched_under_its_content(library, db, short_film):
    take = bring_in(library, db, short_film, "My door_take.MP4").take
    clip = clips.by_id(db, take.clip_id)
    assert (library.originals / clip.file).read_bytes() == short_film.read_bytes()
    assert clip.file == f"{clip.sha256}.mp4"
    assert take.name == "My door take"
    assert take.state == "queued"
    assert leftovers(library) == []


def test_the_same_film_twice_is_noticed(library, db, short_film):
    first = bring_in(library, db, short_film)
    again = bring_in(library, db, short_film, "renamed.mov")
    assert again.duplicate
    assert again.take.id == first.take.id
    assert len(list(library.originals.iterdir())) == 1


def test_a_deleted_film_that_is_brought_again_comes_back(library, db, short_film):
    take = bring_in(library, db, short_film).take
    takes.set_deleted(db, take.id, deleted=True)
    assert bring_in(library, db, short_film).take.deleted_at is None


def test_an_empty_file_and_a_full_disk_are_refused_whole(library, db, monkeypatch):
    with pytest.raises(UnreadableError, match="empty"):
        library.add(db, io.BytesIO(b""), file_name="a.mp4", size_bytes=0)
    usage = shutil.disk_usage(library.root)._replace(free=1000)
    monkeypatch.setattr(library_module.shutil, "disk_usage", lambda _: usage)
    with pytest.raises(MediaError, match="disk is full"):
        library.add(db, io.BytesIO(b"x"), file_name="a.mp4", size_bytes=1)
    assert leftovers(library) == []


def test_a_disk_that_fills_midway_leaves_nothing(library, db):
    class Filling(io.BytesIO):
        def read(self, size=-1):
            if self.tell():
                raise OSError(28, "No space left on device")
            return super().read(100)

    with pytest.raises(MediaError, match="disk is full"):
        library.add(db, Filling(b"x" * 500), file_name="a.mp4", size_bytes=None)
    assert leftovers(library) == []
    assert listing.count(db, only=listing.Filter()) == 0


@pytest.mark.parametrize(
    ("file_name", "expected"),
    [
        ("../../etc/passwd", "passwd"),
        ("C:\\films\\door_walk.mp4", "door walk"),
        ("\x07bell.mp4", "bell"),
        (".mp4", ".mp4"),
        ("x" * 500 + ".mp4", "x" * 120),
    ],
)
def test_names_are_made_harmless(file_name, expected):
    assert readable_name(file_name) == expected


def test_measuring_stores_path_facts_copy_still_and_summary(library, db, short_film):
    take = bring_in(library, db, short_film).take
    measure_clip(library, take.clip_id)
    take = takes.by_id(db, take.id)
    clip = clips.by_id(db, take.clip_id)
    assert take.state == "done"
    assert take.gust is not None
    assert take.remedy in get_args(RemedyName)
    assert len(take.ridge) == 240
    assert (clip.width, clip.height, clip.fps, clip.frames) == (320, 180, 30.0, 45)
    assert library.copy_of(clip.sha256).is_file()
    assert library.still_of(clip.sha256).is_file()
    assert leftovers(library) == []


def test_a_bad_film_ends_as_failed_with_its_reason(library, db, tmp_path):
    (tmp_path / "bad.mp4").write_text("nothing")
    take = bring_in(library, db, tmp_path / "bad.mp4").take
    measure_clip(library, take.clip_id)
    take = takes.by_id(db, take.id)
    assert (take.state, take.error_what) == ("failed", "this is not a film")
    assert leftovers(library) == []


def test_an_unforeseen_fault_ends_as_failed_too(library, db, short_film, monkeypatch):
    take = bring_in(library, db, short_film).take
    monkeypatch.setattr("ridgewind.films.orders.measure_film", lambda *_, **__: 1 / 0)
    measure_clip(library, take.clip_id)
    assert takes.by_id(db, take.id).error_code == "internal"


def test_cancelling_while_measuring_leaves_nothing_half_done(library, db, tmp_path, monkeypatch):
    monkeypatch.setattr("ridgewind.jobs.running.REPORT_EVERY_S", 0.0)
    take = bring_in(library, db, write_film(tmp_path / "long.mp4", shaken(90))).take
    seen = []

    def watch(connection, kind, clip_id, progress):
        seen.append(progress)
        if len(seen) == 5:
            jobs.request_cancel(connection, kind, clip_id)
        return original(connection, kind, clip_id, progress)

    original = jobs.report
    monkeypatch.setattr("ridgewind.jobs.running.jobs.report", watch)
    measure_clip(library, take.clip_id)
    assert takes.by_id(db, take.id).state == "cancelled"
    assert clips.motion_of(db, take.clip_id) is None
    assert seen == sorted(seen)
    assert leftovers(library) == []
    assert list(library.copies.iterdir()) == []


def test_a_film_that_ends_its_process_is_taken_up_again_but_not_for_ever(library, db, short_film):
    clip_id = bring_in(library, db, short_film).take.clip_id
    for expected in (True, False):
        assert jobs.claim(db, "measure", clip_id)
        assert jobs.interrupted(db, "measure") == [clip_id]
        with database.atomic(db):
            assert jobs.crashed(db, "measure", clip_id) is expected
    assert takes.of_clip(db, clip_id)[0].error_code == "crashed"


def test_old_deletions_are_cleared_with_their_files(library, db, short_film):
    take = bring_in(library, db, short_film).take
    measure_clip(library, take.clip_id)
    takes.set_deleted(db, take.id, deleted=True)
    tidy(library)
    assert takes.by_id(db, take.id)
    db.execute("update take set deleted_at = '2020-01-01T00:00:00Z'")
    (library.incoming / "half").write_bytes(b"x")
    tidy(library)
    assert listing.count(db, only=listing.Filter()) == 0
    for folder in (library.originals, library.copies, library.stills, library.incoming):
        assert list(folder.iterdir()) == []


def test_one_library_has_one_server(library):
    with library.locked(), pytest.raises(LibraryBusyError), Library(library.root).locked():
        pass
    with library.locked():
        pass


def test_a_killed_worker_is_replaced_and_its_film_measured(library, db, long_film):
    take = bring_in(library, db, long_film).take
    queue = Queue(library)
    queue.refill(library.database)
    with Supervisor(library, queue, "measure") as supervisor:
        wait_for(lambda: (takes.by_id(db, take.id).progress or 0) > 0.05)
        first = supervisor.worker_pid
        os.kill(first, signal.SIGKILL)
        wait_for(lambda: takes.by_id(db, take.id).state == "done", 60)
        assert supervisor.worker_pid != first
    assert takes.by_id(db, take.id).gust is not None
    assert leftovers(library) == [] or all(name.endswith(".part") for name in leftovers(library))
    tidy(library)
    assert leftovers(library) == []


def test_closing_the_application_midway_is_no_attempt(library, db, long_film):
    take = bring_in(library, db, long_film).take
    for _ in range(2):
        queue = Queue(library)
        queue.refill(library.database)
        job = jobs.one(db, "measure", take.clip_id)
        assert (job.state, job.attempts, job.progress) == ("queued", 0, None)
        with Supervisor(library, queue, "measure"):
            wait_for(lambda: (takes.by_id(db, take.id).progress or 0) > 0.05)
