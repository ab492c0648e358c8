"""Originals and the store are one again after whatever ended in between; nothing is lost."""

from __future__ import annotations

import io
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager

import pytest

from ridgewind.jobs.measure import measure_clip
from ridgewind.library.tidying import FOUND, tidy
from ridgewind.media.errors import MediaError
from ridgewind.store import clips, database, listing, takes
from ridgewind.store.errors import NoRoomError


def bring_in(library, db, content=b"a film", name="a.mp4"):
    return library.add(db, io.BytesIO(content), file_name=name, size_bytes=None)


def names(folder):
    return sorted(path.name for path in folder.iterdir())


@pytest.fixture
def rejected(library, db):
    take = bring_in(library, db).take
    with database.atomic(db):
        takes.set_choice(db, take.id, "reject")
    return clips.by_id(db, take.clip_id)


def ended(*_args, **_more):
    raise KeyboardInterrupt


def test_ended_while_clearing_the_original_is_aside_after_the_next_start(
    library, db, rejected, monkeypatch
):
    monkeypatch.setattr(type(library), "agree", ended)
    with pytest.raises(KeyboardInterrupt):
        library.clear(db)
    monkeypatch.undo()
    assert names(library.originals) == [rejected.file]
    tidy(library)
    assert (names(library.originals), names(library.cleared)) == ([], [rejected.file])
    assert library.bring_back(db, rejected.id)


def test_ended_while_bringing_it_back_it_is_back_after_the_next_start(
    library, db, rejected, monkeypatch
):
    library.clear(db)
    monkeypatch.setattr(type(library), "agree", ended)
    with pytest.raises(KeyboardInterrupt):
        library.bring_back(db, rejected.id)
    monkeypatch.undo()
    tidy(library)
    assert (names(library.originals), names(library.cleared)) == ([rejected.file], [])


def test_an_original_without_a_take_gets_one(library, db, short_film):
    with short_film.open("rb") as stream:
        take = library.add(db, stream, file_name="short.mp4", size_bytes=None).take
    file = clips.by_id(db, take.clip_id).file
    with database.atomic(db):
        takes.remove(db, take.id)
        clips.remove(db, take.clip_id)
    (library.originals / "notes.txt").write_text("not ours")
    tidy(library)
    assert names(library.originals) == sorted([file, "notes.txt"])
    (found,) = listing.page(
        db, only=listing.Filter(), sort="imported", descending=False, offset=0, limit=9
    )
    assert (found.state, found.name.startswith(FOUND)) == ("queued", True)
    measure_clip(library, found.clip_id)
    assert takes.by_id(db, found.id).state == "done"


def test_stray_folders_do_not_stop_a_start(library):
    for folder in library.folders:
        (folder / ".stray.part").mkdir()
        (folder / "holiday").mkdir()
    tidy(library)


def test_an_original_that_is_missing_comes_back_with_the_same_film(library, db):
    take = bring_in(library, db).take
    original = library.originals / clips.by_id(db, take.clip_id).file
    original.unlink()
    again = bring_in(library, db, name="renamed.mov")
    assert (again.duplicate, again.take.id) == (True, take.id)
    assert original.read_bytes() == b"a film"
    assert names(library.incoming) == []


@pytest.mark.parametrize(("error", "expected"), [(KeyError, KeyError), (NoRoomError, MediaError)])
def test_a_film_that_could_not_be_kept_leaves_no_file(library, db, monkeypatch, error, expected):
    def fail(*_args, **_more):
        raise error

    monkeypatch.setattr(takes, "add", fail)
    with pytest.raises(expected):
        bring_in(library, db)
    assert (names(library.originals), names(library.incoming)) == ([], [])
    assert clips.originals(db) == {}


def test_the_same_film_sent_eight_times_at_once_is_one_take(library):
    def send(_):
        with database.opened(library.database) as db:
            return bring_in(library, db, b"x" * 100_000)

    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(send, range(8)))
    assert len({one.take.id for one in found}) == 1
    assert [one.duplicate for one in found].count(False) == 1
    assert len(names(library.originals)) == 1


def test_the_folder_is_the_shooters_alone(library):
    assert library.root.stat().st_mode & 0o077 == 0


def test_a_film_whose_commit_fails_is_where_it_was_and_can_be_kept_again(library, db, monkeypatch):
    arrived = library.incoming / "arrived"
    arrived.write_bytes(b"a film")
    facts = {"sha256": "a" * 64, "size_bytes": 6, "file_name": "a.mp4"}
    enter = database.atomic

    @contextmanager
    def full_at_the_end(connection):
        with enter(connection):
            yield
            raise NoRoomError("database or disk is full")

    monkeypatch.setattr(database, "atomic", full_at_the_end)
    with pytest.raises(MediaError, match="disk is full"):
        library.keep(db, arrived, **facts)
    monkeypatch.undo()
    assert names(library.originals) == []
    assert library.keep(db, arrived, **facts).take.state == "queued"
    assert names(library.originals) == ["a" * 64 + ".mp4"]


def test_a_disk_that_knows_no_users_is_no_obstacle(library, monkeypatch):
    def refuse(*_args):
        raise PermissionError(1, "Operation not permitted")

    monkeypatch.setattr(type(library.root), "chmod", refuse)
    library.prepare()
