"""The demo's folder is made anew only where it holds nothing of the shooter's own."""

from __future__ import annotations

import pytest

from ridgewind.demo import folder, mark
from ridgewind.demo.story import DEMO_TAKES
from ridgewind.library.library import Library
from ridgewind.store import database, listing, takes


def bring_in(library, path):
    library.prepare()
    with path.open("rb") as stream, database.opened(library.database) as db:
        return library.add(db, stream, file_name=path.name, size_bytes=None).take


@pytest.fixture
def shelf(tmp_path):
    library = Library(tmp_path / "demo")
    with library.locked():
        library.wait_for_workers()
        yield library


def count(library):
    with database.opened(library.database) as db:
        return listing.count(db, only=listing.Filter())


def test_a_demo_of_shipped_clips_alone_is_made_anew(shelf):
    assert folder.begin(shelf)
    bring_in(shelf, DEMO_TAKES[0].file)
    assert folder.begin(shelf)
    shelf.prepare()
    assert count(shelf) == 0


def test_a_demo_that_holds_films_of_ones_own_stays_as_it_is(shelf, short_film):
    assert folder.begin(shelf)
    bring_in(shelf, DEMO_TAKES[0].file)
    bring_in(shelf, short_film)
    assert not folder.begin(shelf)
    assert count(shelf) == 2
    assert len(list(shelf.originals.iterdir())) == 2


def test_a_film_that_was_put_aside_is_ones_own_too(shelf, short_film):
    assert folder.begin(shelf)
    take = bring_in(shelf, short_film)
    with database.opened(shelf.database) as db, database.atomic(db):
        takes.set_choice(db, take.id, "reject")
        shelf.clear(db)
    assert list(shelf.originals.iterdir()) == []
    assert not folder.begin(shelf)


def test_a_demo_that_was_served_is_nobody_elses_to_empty(shelf, short_film):
    assert folder.begin(shelf)
    bring_in(shelf, short_film)
    mark.disown(shelf)
    with pytest.raises(folder.OtherFilesError):
        folder.begin(shelf)
    assert count(shelf) == 1


def test_a_folder_with_other_files_is_not_touched(shelf):
    (shelf.root / "letters.txt").write_text("mine")
    with pytest.raises(folder.OtherFilesError):
        folder.begin(shelf)
    assert not (shelf.root / mark.MARK).exists()
