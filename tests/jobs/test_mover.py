"""Originals on a second disk: moved whole or not at all, and everything but they goes on while that
disk is away."""

from __future__ import annotations

import pytest

from ridgewind.jobs.measure import measure_clip
from ridgewind.jobs.mover import Mover
from ridgewind.jobs.render import render_one
from ridgewind.library import second_disk
from ridgewind.library.second_disk import MARK, SecondDiskError
from ridgewind.library.tidying import tidy
from ridgewind.services import assessing, deciding
from ridgewind.services.archiving import archive
from ridgewind.services.errors import ArchiveError
from ridgewind.store import clips, database, jobs, renders, takes
from tests.conftest import wait_for

MADE_AT = "2026-05-03T12:00:00+00:00"


@pytest.fixture
def take(library, db, short_film):
    with short_film.open("rb") as stream:
        take = library.add(db, stream, file_name="short.mp4", size_bytes=None).take
    measure_clip(library, take.clip_id)
    return takes.by_id(db, take.id)


@pytest.fixture
def disk(library, tmp_path):
    folder = tmp_path / "other disk"
    folder.mkdir()
    return second_disk.begin(library.second_disk_note, folder, library=library.root)


@pytest.fixture
def moved(library, take, disk):
    """A film that has gone to the second disk."""
    move(library, "out")
    return take


def move(library, direction):
    with Mover(library) as mover:
        mover.begin(direction)
        wait_for(lambda: mover.moving.ended)
        return mover.moving


def film_of(library, db, take):
    return clips.by_id(db, take.clip_id).file


def hide(disk):
    """The disk is pulled out; the folder on which it was hung stays."""
    away = disk.folder.with_name("away")
    disk.folder.rename(away)
    disk.folder.mkdir()
    return away


def show(disk, away):
    disk.folder.rmdir()
    away.rename(disk.folder)


def test_films_move_out_and_back_byte_by_byte(library, db, take, disk, short_film):
    file = film_of(library, db, take)
    done = move(library, "out")
    assert (done.fault, done.done) == (None, short_film.stat().st_size)
    assert not (library.originals / file).exists()
    assert (disk.folder / file).read_bytes() == short_film.read_bytes()
    assert library.film(file).read_bytes() == short_film.read_bytes()
    tidy(library)
    assert len(clips.originals(db)) == 1
    assert move(library, "back").fault is None
    assert (library.originals / file).read_bytes() == short_film.read_bytes()
    assert library.second_disk is None
    assert list(disk.folder.iterdir()) == []


def test_while_the_disk_is_away_all_that_needs_the_path_alone_goes_on(library, db, moved, disk):
    file = film_of(library, db, moved)
    away = hide(disk)
    assert library.is_away(file)
    assert assessing.summarise(db, moved.id) is not None
    recipe = deciding.recipe(deciding.case_of(db, moved.id), deciding.RemedyRequest("polish"))
    with database.atomic(db):
        preview = renders.add(db, take_id=moved.id, purpose="preview", recipe=recipe)
        whole = renders.add(db, take_id=moved.id, purpose="film", recipe=recipe)
        jobs.enqueue(db, "measure", moved.clip_id)
    render_one(library, preview)
    assert renders.by_id(db, preview).state == "done"  # from the browser's copy
    render_one(library, whole)
    assert renders.by_id(db, whole).error_code == "away"
    measure_clip(library, moved.clip_id)
    found = takes.by_id(db, moved.id)
    assert "second disk" in found.error_what
    assert clips.motion_of(db, moved.clip_id) is not None
    with pytest.raises(ArchiveError, match="second disk"):
        next(archive(library, films=True, made_at=MADE_AT))
    assert next(archive(library, films=False, made_at=MADE_AT)) is not None
    show(disk, away)
    assert not library.is_away(file)
    with database.atomic(db):
        jobs.enqueue(db, "measure", moved.clip_id)
    measure_clip(library, moved.clip_id)
    assert takes.by_id(db, moved.id).state == "done"


def test_a_film_that_is_worked_on_stays_where_it_is(library, db, take, disk):
    with database.atomic(db):
        jobs.enqueue(db, "measure", take.clip_id)
    assert move(library, "out").fault is None
    assert (library.originals / film_of(library, db, take)).is_file()


def test_one_that_cannot_be_written_there_stays_here(library, db, take, disk, monkeypatch):
    monkeypatch.setattr("ridgewind.library.second_disk.os.fsync", lambda _number: 1 / 0)
    assert "not foreseen" in move(library, "out").fault
    assert (library.originals / film_of(library, db, take)).is_file()
    assert not [path for path in disk.folder.iterdir() if path.suffix == ".part"]


def test_a_moved_film_is_cleared_brought_back_and_forgotten_there(library, db, moved, disk):
    file = film_of(library, db, moved)
    with database.atomic(db):
        takes.set_choice(db, moved.id, "reject")
    library.clear(db)
    assert (disk.cleared / file).is_file()
    assert library.bring_back(db, moved.clip_id)
    assert (disk.folder / file).is_file()
    library.forget(db, moved.id)
    assert sorted(path.name for path in disk.folder.iterdir()) == [MARK, "cleared"]


def test_what_is_removed_while_the_disk_is_away_is_removed_once_it_is_back(
    library, db, moved, disk
):
    file = film_of(library, db, moved)
    away = hide(disk)
    library.forget(db, moved.id)
    tidy(library)
    show(disk, away)
    assert (disk.folder / file).is_file()
    tidy(library)
    assert not (disk.folder / file).exists()
    assert clips.removed(db) == []


def test_what_was_removed_and_brought_in_again_meanwhile_stays(
    library, db, moved, disk, short_film
):
    away = hide(disk)
    library.forget(db, moved.id)
    with short_film.open("rb") as stream:
        again = library.add(db, stream, file_name="short.mp4", size_bytes=None).take
    show(disk, away)
    tidy(library)
    assert library.film(film_of(library, db, again)).read_bytes() == short_film.read_bytes()


def test_the_same_film_brought_in_again_while_it_is_away_is_here(
    library, db, moved, disk, short_film
):
    hide(disk)
    with short_film.open("rb") as stream:
        again = library.add(db, stream, file_name="short.mp4", size_bytes=None)
    assert again.duplicate
    assert not library.is_away(film_of(library, db, moved))


@pytest.mark.parametrize("place", ["missing", "library", "inside", "around", "others"])
def test_folders_that_cannot_be_are_said(library, tmp_path, place):
    other = tmp_path / "others"
    other.mkdir()
    (other / MARK).write_text("another library's")
    folder = {
        "missing": tmp_path / "no such", "library": library.root, "others": other,
        "inside": library.originals, "around": tmp_path,
    }[place]  # fmt: skip
    with pytest.raises(SecondDiskError):
        second_disk.begin(library.second_disk_note, folder, library=library.root)
    assert library.second_disk is None
