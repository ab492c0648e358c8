"""What was changed in many takes at once, as it was before, so that one undo takes it all back."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from ridgewind.core.brief import Brief
from ridgewind.store.as_json import AsJson
from ridgewind.store.database import DAYS_AGO, NOW, days_ago
from ridgewind.store.errors import NotFoundError


@dataclass(frozen=True)
class TakeBefore:
    """A take before it was changed. own_brief, parent_id: where its brief was its own, which is
    forgotten as soon as no take points at it, and the named one that this departed from."""

    take_id: int
    own_name: str | None
    brief_id: int
    own_brief: Brief | None
    parent_id: int | None
    setup_id: int | None
    own_capture_fps: float | None
    choice: str | None
    deleted: bool


@dataclass(frozen=True)
class BulkChange:
    """parts: which fields were changed; others are left alone by an undo."""

    parts: tuple[str, ...]
    takes: tuple[TakeBefore, ...]


_CHANGE = AsJson(BulkChange)


def add(db: sqlite3.Connection, change: BulkChange) -> int:
    """Keep what is about to be changed; returns its id."""
    cursor = db.execute(
        f"insert into bulk_change (made_at, before) values ({NOW}, ?)",
        (_CHANGE.text(change),),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def pop(db: sqlite3.Connection, change_id: int) -> BulkChange:
    """What was before a change, once. Raises NotFoundError, also where it was undone already."""
    row = db.execute(
        "delete from bulk_change where id = ? returning before", (change_id,)
    ).fetchone()
    if row is None:
        raise NotFoundError("change", change_id)
    return _CHANGE.read(row["before"])


def forget(db: sqlite3.Connection, *, days: int) -> None:
    """Drop what was changed longer ago than some days."""
    db.execute(f"delete from bulk_change where made_at < {DAYS_AGO}", (days_ago(days),))
