"""A store that is locked, full or damaged says so in our own words."""

from __future__ import annotations

import pytest

from ridgewind.store import database, settings
from ridgewind.store.errors import BusyError, DamagedError, NoRoomError


@pytest.fixture
def path(tmp_path):
    with database.opened(tmp_path / "library.db") as db:
        database.migrate(db)
    return tmp_path / "library.db"


def fill(db):
    db.execute("create table big (x blob)")
    for _ in range(300):
        db.execute("insert into big values (randomblob(9000))")


def test_a_store_that_another_program_writes_to_is_busy_and_then_is_not(path, monkeypatch):
    monkeypatch.setattr(database, "BUSY_S", 0.05)
    with database.opened(path) as other, database.opened(path) as db:
        with database.atomic(other), pytest.raises(BusyError), database.atomic(db):
            pass
        assert not db.in_transaction
        with database.atomic(db):
            db.execute("insert into setting (name, value) values ('a', 'b')")
        assert other.execute("select value from setting where name = 'a'").fetchone()[0] == "b"


def test_a_full_store_keeps_what_it_has_and_goes_on_once_there_is_room(path):
    with database.opened(path) as db:
        pages = db.execute("pragma page_count").fetchone()[0]
        db.execute(f"pragma max_page_count = {pages + 5}")
        with pytest.raises(NoRoomError), database.atomic(db):
            fill(db)
        assert not db.in_transaction
        assert settings.weights(db) is not None
        db.execute("pragma max_page_count = 100000")
        with database.atomic(db):
            fill(db)


def test_a_file_that_is_no_store_is_damaged(path):
    path.write_bytes(b"a letter" * 1000)
    with pytest.raises(DamagedError), database.opened(path):
        pass


def test_damage_within_a_store_is_found_where_it_is_read(path):
    with database.opened(path) as db, database.atomic(db):
        fill(db)
    with database.opened(path) as db:
        database.checkpoint(db)
    content = bytearray(path.read_bytes())
    content[-1_500_000:] = b"\xff" * 1_500_000
    path.write_bytes(content)
    with database.opened(path) as db, pytest.raises(DamagedError):
        db.execute("select sum(length(x)) from big").fetchone()
    with database.opened(path) as db, pytest.raises(DamagedError):
        list(db.execute("select x from big"))
