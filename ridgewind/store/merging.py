"""Rows of whole tables, as two libraries are made one, and what came of that."""

from __future__ import annotations

import base64
import hashlib
import sqlite3
from dataclasses import dataclass
from typing import Any

from ridgewind.store.archived import ARCHIVED, columns_of
from ridgewind.store.database import DAYS_AGO, NOW, days_ago

Row = dict[str, Any]


@dataclass(frozen=True)
class Digest:
    """Stands for bytes of a row that are too many to hold of every row."""

    sha256: str


@dataclass(frozen=True)
class MergeRow:
    """record: JSON."""

    id: int
    made_at: str
    source: str
    record: str


def rows(db: sqlite3.Connection, table: str) -> list[Row]:
    """All rows of a table, in the order in which they came; bytes as their digests."""
    names = ["_rowid", *columns_of(db, table)]
    found = db.execute(f"{_select(db, table)} order by rowid")
    return [{name: _told(row[name]) for name in names} for row in found]


def whole(db: sqlite3.Connection, table: str, row: Row) -> Row:
    """A row with its bytes."""
    found = db.execute(f"{_select(db, table)} where rowid = ?", (row["_rowid"],)).fetchone()
    return {name: found[name] for name in columns_of(db, table)}


def insert(db: sqlite3.Connection, table: str, values: Row) -> int:
    """Add a row; returns the number that it has there."""
    names, marks = ", ".join(values), ", ".join("?" * len(values))
    cursor = db.execute(
        f"insert into {_known(table)} ({names}) values ({marks})", tuple(values.values())
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def change(db: sqlite3.Connection, table: str, rowid: int, values: Row) -> None:
    """Write columns of a row."""
    names = ", ".join(f"{name} = ?" for name in values)
    db.execute(f"update {_known(table)} set {names} where rowid = ?", (*values.values(), rowid))


def remove(db: sqlite3.Connection, table: str, rowid: int) -> bool:
    """Take a row away; False where something points at it."""
    try:
        db.execute(f"delete from {_known(table)} where rowid = ?", (rowid,))
    except sqlite3.IntegrityError:
        return False
    return True


def number_of(db: sqlite3.Connection, table: str, rowid: int) -> Row | None:
    """A row by the number that `insert` gave it, bytes as their digests; None where it is gone."""
    found = db.execute(f"{_select(db, table)} where rowid = ?", (rowid,)).fetchone()
    if found is None:
        return None
    return {name: _told(found[name]) for name in ["_rowid", *columns_of(db, table)]}


def keep(db: sqlite3.Connection, source: str, record: str) -> int:
    """Note what a merge changed; returns its id."""
    cursor = db.execute(
        f"insert into merge (made_at, source, record) values ({NOW}, ?, ?)", (source, record)
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def newest(db: sqlite3.Connection) -> MergeRow | None:
    """The last that was not undone, None where there is none any more."""
    row = db.execute("select * from merge order by id desc limit 1").fetchone()
    return None if row is None else MergeRow(**dict(row))


def drop(db: sqlite3.Connection, merge_id: int) -> None:
    """It cannot be undone any more."""
    db.execute("delete from merge where id = ?", (merge_id,))


def forget(db: sqlite3.Connection, *, days: int) -> None:
    """Drop what was merged longer ago than some days."""
    db.execute(f"delete from merge where made_at < {DAYS_AGO}", (days_ago(days),))


def _told(value: Any) -> Any:
    return Digest(hashlib.sha256(value).hexdigest()) if isinstance(value, bytes) else value


def _select(db: sqlite3.Connection, table: str) -> str:
    """Without the columns that are worked out from others."""
    return f"select rowid as _rowid, {', '.join(columns_of(db, table))} from {_known(table)}"


def _known(table: str) -> str:
    assert table in ARCHIVED
    return table


def packed(row: Row) -> Row:
    """A row as JSON has it."""
    return {
        name: {"base64": base64.b64encode(value).decode()} if isinstance(value, bytes) else value
        for name, value in row.items()
    }


def unpacked(row: Row) -> Row:
    """The row that `packed` made JSON of."""
    return {
        name: base64.b64decode(value["base64"]) if isinstance(value, dict) else value
        for name, value in row.items()
    }
