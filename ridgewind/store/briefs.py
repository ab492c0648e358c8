"""Briefs: named ones that many takes point at, and a take's own without a name."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Any

from ridgewind.core.brief import Brief, Likeness
from ridgewind.store.as_json import AsJson
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError, TypicalError

FIELDS = tuple(Brief.__dataclass_fields__)
_LIKENESS = AsJson(Likeness)


@dataclass(frozen=True)
class BriefRow:
    """name: None for a take's own; parent_id: the named one that it departed from. takes: how
    many point at it, deleted ones left out."""

    id: int
    name: str | None
    parent_id: int | None
    brief: Brief
    typical: bool
    archived: bool
    takes: int


_SELECT = """
select brief.*, (select count(*) from take
                  where take.brief_id = brief.id and take.deleted_at is null) as takes
  from brief
"""


def add(
    db: sqlite3.Connection,
    brief: Brief,
    *,
    name: str | None,
    parent_id: int | None = None,
    key: str | None = None,
) -> int:
    """Record a brief; returns its id. key: of a typical one that ships."""
    columns = ", ".join(FIELDS)
    marks = ", ".join("?" for _ in FIELDS)
    cursor = db.execute(
        f"insert into brief (name, parent_id, typical_key, {columns}) values (?, ?, ?, {marks})",
        (name, parent_id, key, *values(brief)),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, brief_id: int) -> BriefRow:
    row = db.execute(f"{_SELECT} where brief.id = ?", (brief_id,)).fetchone()
    if row is None:
        raise NotFoundError("brief", brief_id)
    return _row(row)


def by_key(db: sqlite3.Connection, key: str) -> BriefRow | None:
    row = db.execute(f"{_SELECT} where typical_key = ?", (key,)).fetchone()
    return None if row is None else _row(row)


def named(db: sqlite3.Connection) -> list[BriefRow]:
    """All briefs with a name, the last used first, archived ones at the end."""
    rows = db.execute(
        f"{_SELECT} where name is not null"
        " order by archived_at is not null, coalesce(used_at, '') desc, id"
    )
    return [_row(row) for row in rows]


def usual(db: sqlite3.Connection) -> BriefRow:
    """The brief that a new take points at: the one last used."""
    for row in named(db):
        if not row.archived:
            return row
    return named(db)[0]


def change(db: sqlite3.Connection, brief_id: int, brief: Brief, *, name: str | None) -> None:
    """Overwrite a brief. Raises TypicalError for one that ships."""
    row = by_id(db, brief_id)
    if row.typical:
        raise TypicalError("brief", brief_id)
    assignments = ", ".join(f"{field} = ?" for field in FIELDS)
    db.execute(
        f"update brief set name = ?, {assignments} where id = ?", (name, *values(brief), brief_id)
    )


def set_archived(db: sqlite3.Connection, brief_id: int, *, archived: bool) -> None:
    by_id(db, brief_id)
    db.execute(
        f"update brief set archived_at = {NOW if archived else 'null'} where id = ?", (brief_id,)
    )


def mark_used(db: sqlite3.Connection, brief_id: int) -> None:
    """New takes point at it from now on."""
    db.execute(f"update brief set used_at = {NOW} where id = ?", (brief_id,))


def remove_own(db: sqlite3.Connection, brief_id: int) -> None:
    """Forget a take's own brief once no take points at it; named ones stay."""
    db.execute(
        "delete from brief where id = ? and name is null"
        " and not exists (select 1 from take where take.brief_id = brief.id)",
        (brief_id,),
    )


def values(brief: Brief) -> tuple[Any, ...]:
    plain = {field: getattr(brief, field) for field in FIELDS}
    if brief.likeness is not None:
        plain["likeness"] = _LIKENESS.text(brief.likeness)
    return tuple(plain.values())


def brief_from(row: sqlite3.Row) -> Brief:
    """The core's brief from a row that holds its columns."""
    found = {field: row[field] for field in FIELDS}
    text = row["likeness"]
    return Brief(
        **found
        | {
            "keep_sound": bool(row["keep_sound"]),
            "likeness": None if text is None else _LIKENESS.read(text),
        }
    )


def _row(row: sqlite3.Row) -> BriefRow:
    return BriefRow(
        id=row["id"],
        name=row["name"],
        parent_id=row["parent_id"],
        brief=brief_from(row),
        typical=row["typical_key"] is not None,
        archived=row["archived_at"] is not None,
        takes=row["takes"],
    )
