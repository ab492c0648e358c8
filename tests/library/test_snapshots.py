"""Copies of the database, and what is done with them where it is damaged."""

from __future__ import annotations

import hashlib
import random
from datetime import UTC, datetime, timedelta

import pytest

from ridgewind.library import health, snapshots
from ridgewind.library.library import Library
from ridgewind.library.tidying import tidy
from ridgewind.store import clips, database
from ridgewind.store.errors import DamagedError

NOW = datetime(2026, 5, 3, 12, 0, tzinfo=UTC)


def names(library) -> list[str]:
    with database.opened(library.database) as db:
        return sorted(
            row["own_name"] or row["file_name"] for row in db.execute("select * from take")
        )


def bring_in(library, path) -> int:
    with database.opened(library.database) as db, path.open("rb") as stream:
        return library.add(db, stream, file_name=path.name, size_bytes=None).take.id


def damage(library) -> None:
    """Every page is overwritten in its middle, as a failing disk does."""
    with database.opened(library.database) as db:
        database.checkpoint(db)
    content = bytearray(library.database.read_bytes())
    for page in range(1, len(content) // 4096):
        content[page * 4096 + 40 : page * 4096 + 400] = b"\xa5" * 360
    library.database.write_bytes(content)


def test_ten_are_kept_and_the_newest_comes_first(library):
    for day in range(13):
        snapshots.keep(library.database, library.snapshots, now=NOW + timedelta(days=day))
    found = snapshots.snapshots(library.snapshots)
    assert len(found) == snapshots.KEPT == 10
    assert found[0].made_at == NOW + timedelta(days=12)
    assert found[-1].made_at == NOW + timedelta(days=3)
    assert all(one.whole for one in found)


def test_one_a_day_of_use(library):
    assert snapshots.is_due(library.snapshots, now=NOW)
    snapshots.keep(library.database, library.snapshots, now=NOW)
    assert not snapshots.is_due(library.snapshots, now=NOW + timedelta(hours=23))
    assert snapshots.is_due(library.snapshots, now=NOW + timedelta(hours=24))


def test_what_is_written_meanwhile_does_no_harm(library, short_film):
    with database.opened(library.database) as db, database.atomic(db):
        db.execute("update brief set name = 'half way' where id = 1")
        kept = snapshots.keep(library.database, library.snapshots, now=NOW)
    with database.opened(kept) as db:
        assert db.execute("select name from brief where id = 1").fetchone()["name"] != "half way"


def test_a_migration_is_preceded_by_a_copy(tmp_path):
    library = Library(tmp_path / "old")
    library.root.mkdir()
    with database.opened(library.database) as db:
        database.migrate(db, up_to="0028")
    assert database.missing(library.database)
    library.prepare()
    assert not database.missing(library.database)
    (kept,) = snapshots.snapshots(library.snapshots)
    assert database.missing(kept.path)  # as it was
    library.prepare()
    assert len(snapshots.snapshots(library.snapshots)) == 1


def test_a_damaged_database_is_mended_from_the_newest_copy_that_is_whole(library, short_film):
    bring_in(library, short_film)
    snapshots.keep(library.database, library.snapshots, now=NOW)
    newer = snapshots.keep(library.database, library.snapshots, now=NOW + timedelta(days=1))
    newer.write_bytes(newer.read_bytes()[:9000])  # one that is cut short is no help
    with database.opened(library.database) as db, database.atomic(db):
        db.execute("update take set own_name = 'Renamed since'")
    damage(library)
    assert database.faults(library.database)
    mended = library.mend_if_damaged()
    assert mended.made_at == NOW
    assert mended.damaged.is_file()
    library.prepare()
    assert names(library) == ["short"]
    assert library.mend_if_damaged() is None


def test_films_that_came_since_are_found_again(library, short_film, tmp_path):
    snapshots.keep(library.database, library.snapshots, now=NOW)
    bring_in(library, short_film)
    damage(library)
    library.mend_if_damaged()
    library.prepare()
    assert tidy(library) == 1
    with database.opened(library.database) as db:
        assert len(clips.originals(db)) == 1


def test_without_a_copy_nothing_is_touched(library):
    damage(library)
    before = library.database.read_bytes()
    with pytest.raises(DamagedError, match="no copy of it is whole"):
        library.mend_if_damaged()
    assert library.database.read_bytes() == before


def test_a_large_one_is_looked_at_where_it_was_found_damaged(library, monkeypatch):
    monkeypatch.setattr("ridgewind.library.library.QUICKLY_CHECKED_BYTES", 0)
    snapshots.keep(library.database, library.snapshots, now=NOW)
    damage(library)
    assert library.mend_if_damaged(thorough=False) is None
    library.damaged_mark.touch()
    assert isinstance(health.trouble(library), DamagedError)
    assert library.mend_if_damaged(thorough=False) is not None
    library.prepare()
    assert health.trouble(library) is None


def test_flipped_bits_end_in_a_mended_library_and_never_in_other_rows(library, short_film):
    bring_in(library, short_film)
    snapshots.keep(library.database, library.snapshots, now=NOW)
    library.seal()
    with database.opened(library.database) as db:
        told = rows(db)
    whole, seal = library.database.read_bytes(), database.seal_path(library.database)
    sealed = seal.read_text()
    assert library.mend_if_damaged() is None
    rng = random.Random(3)
    for _ in range(100):
        content = bytearray(whole)
        content[rng.randrange(100, len(content))] ^= 1 << rng.randrange(8)
        library.database.write_bytes(content)
        seal.write_text(sealed)
        assert library.mend_if_damaged() is not None
        with database.opened(library.database) as db:
            assert rows(db) == told


def test_a_copy_with_a_flipped_bit_is_not_put_back(library, short_film):
    older = snapshots.keep(library.database, library.snapshots, now=NOW)
    newer = snapshots.keep(library.database, library.snapshots, now=NOW + timedelta(days=1))
    content = bytearray(newer.read_bytes())
    content[-3] ^= 4
    newer.write_bytes(content)
    damage(library)
    assert library.mend_if_damaged().made_at == NOW
    assert older.is_file()


def test_another_database_that_was_put_in_its_place_is_taken(library, short_film):
    """By the shooter, from a copy made elsewhere: it is whole, and no failing disk made it."""
    other = snapshots.keep(library.database, library.snapshots, now=NOW)
    before = other.read_bytes()
    bring_in(library, short_film)
    library.seal()
    assert database.seal_of(library.database) is not None
    library.database.write_bytes(before)
    assert library.mend_if_damaged() is None
    assert names(library) == []


def test_the_first_write_breaks_the_seal_and_reading_does_not(library):
    library.seal()
    with database.opened(library.database) as db:
        db.execute("select count(*) from take").fetchone()
    assert database.seal_of(library.database) is not None
    with database.opened(library.database) as db, database.atomic(db):
        db.execute("delete from mark")
    assert database.seal_of(library.database) is None


def rows(db) -> dict[str, list[tuple]]:
    tables = [
        row["name"] for row in db.execute("select name from sqlite_master where type='table'")
    ]
    return {one: [tuple(row) for row in db.execute(f"select * from {one}")] for one in tables}


@pytest.mark.parametrize("before", ["md5:{md5}", "{sha256:.16}"])
def test_a_seal_of_an_earlier_version_still_tells(library, short_film, before):
    bring_in(library, short_film)
    snapshots.keep(library.database, library.snapshots, now=NOW)
    library.seal()
    content = library.database.read_bytes()
    digests = {how: hashlib.new(how, content).hexdigest() for how in ("md5", "sha256")}
    database.seal(library.database, before.format(**digests))
    assert library.mend_if_damaged() is None
    flipped = bytearray(content)
    flipped[-3] ^= 4
    library.database.write_bytes(flipped)
    assert library.mend_if_damaged() is not None
