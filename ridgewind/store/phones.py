"""Phones that are paired with this library."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError


@dataclass(frozen=True)
class PhoneRow:
    """paired_at, seen_at: ISO moments."""

    id: int
    name: str
    paired_at: str
    seen_at: str


def add(db: sqlite3.Connection, name: str, key_hash: str) -> int:
    """Pair a phone; returns its id."""
    cursor = db.execute(
        f"insert into phone (name, key_hash, paired_at, seen_at) values (?, ?, {NOW}, {NOW})",
        (name, key_hash),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def by_key_hash(db: sqlite3.Connection, key_hash: str) -> PhoneRow | None:
    """The phone that holds a key, None where none does."""
    row = db.execute("select * from phone where key_hash = ?", (key_hash,)).fetchone()
    return None if row is None else _row(row)


def every(db: sqlite3.Connection) -> list[PhoneRow]:
    """All phones, the newest first."""
    return [_row(row) for row in db.execute("select * from phone order by id desc")]


def see(db: sqlite3.Connection, phone_id: int) -> None:
    """It was here just now."""
    db.execute(f"update phone set seen_at = {NOW} where id = ?", (phone_id,))


def remove(db: sqlite3.Connection, phone_id: int) -> None:
    """Let it in no more. Raises NotFoundError."""
    cursor = db.execute("delete from phone where id = ?", (phone_id,))
    if cursor.rowcount == 0:
        raise NotFoundError("phone", phone_id)


def _row(row: sqlite3.Row) -> PhoneRow:
    return PhoneRow(row["id"], row["name"], row["paired_at"], row["seen_at"])
