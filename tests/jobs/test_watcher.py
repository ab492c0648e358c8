"""A watched folder: films are taken in once, when they are whole, and filed where a slate says."""

from __future__ import annotations

import shutil
import threading
import time

import pytest

from ridgewind.core.practice.session import Ask, Block, Session
from ridgewind.jobs.measure import measure_clip
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.watcher import Watcher
from ridgewind.library import arrivals
from ridgewind.library.arrivals import Stillness, films_in
from ridgewind.library.library import Library
from ridgewind.media.errors import UnfitError, UnreadableError
from ridgewind.services import watching
from ridgewind.store import clips, database, listing, sessions, takes, watched
from tests.conftest import shaken, write_film
from tests.e2e.test_taking_in import film_with_slate

PIECE = 1 << 14


@pytest.fixture
def library(tmp_path, monkeypatch):
    monkeypatch.setattr(arrivals, "STILL_S", 0.2)
    monkeypatch.setattr(arrivals, "GIVEN_UP_S", 0.8)
    library = Library(tmp_path / "library")
    library.prepare()
    return library


@pytest.fixture
def folder(tmp_path):
    folder = tmp_path / "synced"
    folder.mkdir()
    return folder


@pytest.fixture(scope="module")
def film(tmp_path_factory):
    return write_film(tmp_path_factory.mktemp("film") / "a.mp4", shaken(30))


def lines(db):
    return listing.page(
        db, only=listing.Filter(), sort="name", descending=False, offset=0, limit=50
    )


def names(db):
    return [row.file_name for row in lines(db)]


def look_until(watcher, db, condition, within_s=5.0):
    end = time.monotonic() + within_s
    while time.monotonic() < end:
        watcher.look(db)
        if condition():
            return
        time.sleep(0.05)
    raise AssertionError("it did not happen in time")


def test_what_comes_is_taken_once_and_what_was_there_stays_out(library, folder, film):
    shutil.copy(film, folder / "old.mp4")
    watcher = Watcher(library, Queue(library))
    with database.opened(library.database) as db:
        watching.watch(db, str(folder), library=library.root)
        (folder / "day").mkdir()
        write_film(folder / "day" / "new.mp4", shaken(20))
        look_until(watcher, db, lambda: names(db) == ["new"])
        for _ in range(5):
            time.sleep(0.1)
            watcher.look(db)
        assert names(db) == ["new"]
        told = watching.watching(db)
        assert (told.state, [one.file for one in told.films]) == ("watching", ["day/new.mp4"])
        assert watching.stop(db).state == "off"
        shutil.copy(film, folder / "later.mp4")
        time.sleep(0.3)
        assert watcher.look(db) is False
        assert names(db) == ["new"]


def test_a_film_that_is_still_being_written_is_left_until_it_is_whole(library, folder, film):
    content = film.read_bytes()
    watcher = Watcher(library, Queue(library))

    def write():
        with (folder / "slow.mp4").open("wb") as target:
            for at in range(0, len(content), PIECE):
                target.write(content[at : at + PIECE])
                target.flush()
                time.sleep(0.1)

    with database.opened(library.database) as db:
        watching.watch(db, str(folder), library=library.root)
        writer = threading.Thread(target=write)
        writer.start()
        while writer.is_alive():
            watcher.look(db)
            assert names(db) == []
            time.sleep(0.03)
        look_until(watcher, db, lambda: names(db) == ["slow"])
        (row,) = lines(db)
        stored = library.originals / clips.by_id(db, takes.by_id(db, row.id).clip_id).file
    assert stored.read_bytes() == content


def test_an_index_that_comes_last_is_waited_for_and_a_bad_file_told(folder, film, library):
    half = film.read_bytes()[: film.stat().st_size // 2]
    seen = Stillness()
    (folder / "half.mp4").write_bytes(half)
    found = films_in(folder)
    assert seen.whole(folder, found, set(), now_s=0.0) == []
    assert seen.whole(folder, found, set(), now_s=0.5) == [], "its index is not there"
    assert seen.whole(folder, found, set(), now_s=0.9) == found, "it stands still: tell its fault"
    (folder / "half.mp4").write_bytes(film.read_bytes())
    grown = films_in(folder)
    assert seen.whole(folder, grown, set(), now_s=1.0) == []
    assert seen.whole(folder, grown, set(), now_s=1.3) == grown
    assert seen.whole(folder, grown, set(grown), now_s=9.0) == []


def test_a_folder_that_vanishes_is_said_and_looked_at_again(library, folder, film):
    watcher = Watcher(library, Queue(library))
    with database.opened(library.database) as db:
        watching.watch(db, str(folder), library=library.root)
        away = folder.rename(folder.with_name("unplugged"))
        watcher.look(db)
        assert watching.watching(db).state == "gone"
        shutil.copy(film, away / "b.mp4")
        away.rename(folder)
        look_until(watcher, db, lambda: names(db) == ["b"])
        assert watching.watching(db).state == "watching"
        with pytest.raises(UnreadableError, match="no folder"):
            watching.watch(db, str(folder / "nowhere"), library=library.root)
        assert watching.watching(db).root == str(folder), "a wrong path changes nothing"


def running_session(db):
    plan = Session(0.0, (Block("hands", ("two", "one"), 4.0, 5.0, ("x",)),), 1.0, 0.0, ())
    ask = Ask(30.0, (), "path", (), (), 1, ())
    session_id = sessions.add(db, name="Day", ask=ask, plan=plan, setup_id=None)
    sessions.accept(db, session_id)
    return session_id


def test_a_film_with_a_slate_is_filed_under_the_session_that_runs(library, folder, film):
    watcher = Watcher(library, Queue(library))
    with database.opened(library.database) as db:
        with database.atomic(db):
            session_id = running_session(db)
        watching.watch(db, str(folder), library=library.root)
        film_with_slate(folder / "slated.mp4", 1)
        shutil.copy(film, folder / "loose.mp4")
        look_until(watcher, db, lambda: len(names(db)) == 2)
        assert watched.to_file(db) == [], "only what is measured"
        for one in watched.newest(db, limit=5):
            measure_clip(library, takes.by_id(db, one.take_id).clip_id)
        look_until(watcher, db, lambda: not watched.under_way(db))
        filed = [take.take_name for take in sessions.by_id(db, session_id).takes]
    assert filed[0] is None
    assert filed[1] == "One hand · One hand or two"


def test_it_works_in_a_thread_of_its_own_and_takes_are_removed_for_good(library, folder, film):
    with database.opened(library.database) as db, Watcher(library, Queue(library)) as watcher:
        watching.watch(db, str(folder), library=library.root)
        watcher.wake()
        time.sleep(0.3)
        shutil.copy(film, folder / "c.mp4")
        end = time.monotonic() + 40.0
        while names(db) == [] and time.monotonic() < end:
            time.sleep(0.05)
        (line,) = watched.newest(db, limit=5)
        with database.atomic(db):
            takes.remove(db, line.take_id)
        assert [one.take_id for one in watched.newest(db, limit=5)] == [None]


def test_the_librarys_own_folder_is_never_watched(library, folder):
    with database.opened(library.database) as db:
        for path in (library.root, library.originals, library.root.parent):
            with pytest.raises(UnfitError, match="the library itself"):
                watching.watch(db, str(path), library=library.root)
        assert watching.watching(db).state == "off"
