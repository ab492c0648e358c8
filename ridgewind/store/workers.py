"""Other machines that may measure and render for this library."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError


@dataclass(frozen=True)
class WorkerRow:
    """let_in_at, seen_at: ISO moments; seen_at is None where it never came."""

    id: int
    name: str
    let_in_at: str
    seen_at: str | None


def add(db: sqlite3.Connection, name: str, key_hash: str) -> int:
    """Let a machine in; returns its id."""
    cursor = db.execute(
        f"insert into worker (name, key_hash, let_in_at) values (?, ?, {NOW})", (name, key_hash)
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def by_key_hash(db: sqlite3.Connection, key_hash: str) -> WorkerRow | None:
    """The machine that holds a key, None where none does."""
    row = db.execute("select * from worker where key_hash = ?", (key_hash,)).fetchone()
    return None if row is None else _row(row)


def every(db: sqlite3.Connection) -> list[WorkerRow]:
    """All machines, the newest first."""
    return [_row(row) for row in db.execute("select * from worker order by id desc")]


def see(db: sqlite3.Connection, worker_id: int) -> None:
    """It was here just now."""
    db.execute(f"update worker set seen_at = {NOW} where id = ?", (worker_id,))


def remove(db: sqlite3.Connection, worker_id: int) -> None:
    """Let it in no more. Raises NotFoundError."""
    cursor = db.execute("delete from worker where id = ?", (worker_id,))
    if cursor.rowcount == 0:
        raise NotFoundError("worker", worker_id)


def _row(row: sqlite3.Row) -> WorkerRow:
    return WorkerRow(row["id"], row["name"], row["let_in_at"], row["seen_at"])
