"""Marks of the shooter's own eye."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from ridgewind.store.database import NOW

AS_SHOT = "shot"
"""The view of a take that is not treated; others name the rendered film."""


@dataclass(frozen=True)
class MarkRow:
    """crop_pct: of a polished preview, None as shot. gust: as seen when it was marked."""

    take_id: int
    take_name: str
    view: str
    smooth: bool
    blind: bool
    feel: str
    gust: float
    crop_pct: float | None
    marked_at: str


def put(
    db: sqlite3.Connection,
    take_id: int,
    *,
    view: str,
    smooth: bool,
    blind: bool,
    feel: str,
    gust: float,
    crop_pct: float | None,
) -> None:
    """Keep a mark; an earlier one of the same view is replaced."""
    db.execute(
        "insert or replace into mark (take_id, view, smooth, blind, feel, gust, crop_pct,"
        f" marked_at) values (?, ?, ?, ?, ?, ?, ?, {NOW})",
        (take_id, view, smooth, blind, feel, gust, crop_pct),
    )


def remove(db: sqlite3.Connection, take_id: int, *, view: str) -> None:
    """Take a mark back."""
    db.execute("delete from mark where take_id = ? and view = ?", (take_id, view))


def one(db: sqlite3.Connection, take_id: int, *, view: str) -> bool | None:
    """Whether a view was marked smooth enough; None where it was not marked."""
    row = db.execute(
        "select smooth from mark where take_id = ? and view = ?", (take_id, view)
    ).fetchone()
    return None if row is None else bool(row["smooth"])


def all_marks(db: sqlite3.Connection) -> list[MarkRow]:
    """Marks of takes that are not deleted, the newest first; films of the stand-in camera teach the
    eye nothing."""
    rows = db.execute(
        "select mark.*, take.name as take_name from mark join take on take.id = mark.take_id"
        " where take.deleted_at is null and take.origin <> 'simulated' order by marked_at desc"
    )
    return [_row(row) for row in rows]


def _row(row: sqlite3.Row) -> MarkRow:
    values = {name: row[name] for name in MarkRow.__dataclass_fields__}
    return MarkRow(**values | {"smooth": bool(row["smooth"]), "blind": bool(row["blind"])})
