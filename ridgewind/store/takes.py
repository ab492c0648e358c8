"""Takes: what the shooter sees, with the brief in place and the list's summary."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Any

from ridgewind.core.judge.brief import Brief
from ridgewind.store.errors import NotFoundError

SORTS = {
    "imported": "take.id",
    "recorded": "coalesce(clip.recorded_at, take.imported_at)",
    "name": "take.name collate nocase",
    "gust": "summary.gust",
    "length": "clip.duration_s",
}
"""What the list can be sorted by."""

MOST_ROWS = 200
"""Rows that one page of the list may hold."""


@dataclass(frozen=True)
class TakeRow:
    """A take as the list shows it. ridge: bytes of the small drawing, see work.assessing."""

    id: int
    clip_id: int
    name: str
    imported_at: str
    recorded_at: str | None
    deleted_at: str | None
    duration_s: float | None
    fps: float | None
    brief: Brief
    gust: float | None
    peak_gust: float | None
    remedy: str | None
    ridge: bytes
    state: str
    progress: float | None
    error_code: str | None
    error_what: str | None
    error_next: str | None


@dataclass(frozen=True)
class Filter:
    """Which takes to list: None leaves a filter open. remedy "none": not measured."""

    remedy: str | None = None
    feel: str | None = None
    text: str | None = None


_SELECT = """
select take.*, clip.recorded_at, clip.duration_s, clip.fps,
       summary.gust, summary.peak_gust, summary.remedy, summary.ridge,
       job.state, job.progress, job.error_code, job.error_what, job.error_next
  from take
  join clip on clip.id = take.clip_id
  left join summary on summary.take_id = take.id
  left join job on job.clip_id = take.clip_id
"""


def add(db: sqlite3.Connection, *, clip_id: int, name: str, brief: Brief) -> int:
    """Record a take with its first brief; returns its id."""
    cursor = db.execute(
        "insert into take (clip_id, name, imported_at, feel, own_target, screen, delivery_fps,"
        " wanted_s, focal_eq_mm, keep_sound)"
        " values (?, ?, strftime('%Y-%m-%dT%H:%M:%SZ', 'now'), ?, ?, ?, ?, ?, ?, ?)",
        (clip_id, name, *_brief_values(brief)),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, take_id: int) -> TakeRow:
    row = db.execute(f"{_SELECT} where take.id = ?", (take_id,)).fetchone()
    if row is None:
        raise NotFoundError("take", take_id)
    return _row(row)


def by_clip(db: sqlite3.Connection, clip_id: int) -> TakeRow | None:
    row = db.execute(f"{_SELECT} where take.clip_id = ?", (clip_id,)).fetchone()
    return None if row is None else _row(row)


def page(
    db: sqlite3.Connection,
    *,
    only: Filter,
    sort: str,
    descending: bool,
    offset: int,
    limit: int,
) -> list[TakeRow]:
    """Takes in order; those without a value for the sort come last."""
    where, values = _conditions(only)
    key = SORTS[sort]
    order = f"{key} is null, {key} {'desc' if descending else 'asc'}, take.id desc"
    rows = db.execute(
        f"{_SELECT} where {where} order by {order} limit ? offset ?",
        (*values, min(limit, MOST_ROWS), offset),
    )
    return [_row(row) for row in rows]


def count(db: sqlite3.Connection, *, only: Filter) -> int:
    where, values = _conditions(only)
    sql = (
        "select count(*) as many from take left join summary on summary.take_id = take.id"
        f" where {where}"
    )
    return int(db.execute(sql, values).fetchone()["many"])


def neighbours(db: sqlite3.Connection, take_id: int) -> tuple[int | None, int | None]:
    """Ids of the take imported before and after, deleted ones left out."""
    sql = (
        "select (select max(id) from take where id < ? and deleted_at is null) as before,"
        " (select min(id) from take where id > ? and deleted_at is null) as after"
    )
    row = db.execute(sql, (take_id, take_id)).fetchone()
    return row["before"], row["after"]


def set_brief(db: sqlite3.Connection, take_id: int, brief: Brief) -> None:
    cursor = db.execute(
        "update take set feel = ?, own_target = ?, screen = ?, delivery_fps = ?, wanted_s = ?,"
        " focal_eq_mm = ?, keep_sound = ? where id = ?",
        (*_brief_values(brief), take_id),
    )
    if cursor.rowcount == 0:
        raise NotFoundError("take", take_id)


def set_summary(
    db: sqlite3.Connection,
    take_id: int,
    *,
    gust: float | None,
    peak_gust: float | None,
    remedy: str | None,
    ridge: bytes,
) -> None:
    db.execute(
        "insert into summary (take_id, gust, peak_gust, remedy, ridge) values (?, ?, ?, ?, ?)"
        " on conflict (take_id) do update set gust = excluded.gust,"
        " peak_gust = excluded.peak_gust, remedy = excluded.remedy, ridge = excluded.ridge",
        (take_id, gust, peak_gust, remedy, ridge),
    )


def set_deleted(db: sqlite3.Connection, take_id: int, *, deleted: bool) -> None:
    """Hide a take, or bring it back."""
    now = "strftime('%Y-%m-%dT%H:%M:%SZ', 'now')" if deleted else "null"
    cursor = db.execute(f"update take set deleted_at = {now} where id = ?", (take_id,))
    if cursor.rowcount == 0:
        raise NotFoundError("take", take_id)


def deleted_before(db: sqlite3.Connection, *, days: int) -> list[TakeRow]:
    """Takes that have been hidden for more than some days."""
    rows = db.execute(
        f"{_SELECT} where take.deleted_at < strftime('%Y-%m-%dT%H:%M:%SZ', 'now', ?)",
        (f"-{days} days",),
    )
    return [_row(row) for row in rows]


def remove(db: sqlite3.Connection, take_id: int) -> None:
    """Forget a take for good."""
    db.execute("delete from summary where take_id = ?", (take_id,))
    db.execute("delete from take where id = ?", (take_id,))


def _conditions(only: Filter) -> tuple[str, list[Any]]:
    parts, values = ["take.deleted_at is null"], []
    if only.remedy == "none":
        parts.append("summary.remedy is null")
    elif only.remedy is not None:
        parts.append("summary.remedy = ?")
        values.append(only.remedy)
    if only.feel is not None:
        parts.append("take.feel = ?")
        values.append(only.feel)
    if only.text:
        parts.append("take.name like ? escape '\\'")
        escaped = only.text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")
        values.append(f"%{escaped}%")
    return " and ".join(parts), values


def _brief_values(brief: Brief) -> tuple[Any, ...]:
    return (
        brief.feel,
        brief.own_target,
        brief.screen,
        brief.delivery_fps,
        brief.wanted_s,
        brief.focal_eq_mm,
        brief.keep_sound,
    )


def _row(row: sqlite3.Row) -> TakeRow:
    brief = Brief(
        feel=row["feel"],
        screen=row["screen"],
        delivery_fps=row["delivery_fps"],
        wanted_s=row["wanted_s"],
        focal_eq_mm=row["focal_eq_mm"],
        keep_sound=bool(row["keep_sound"]),
        own_target=row["own_target"],
    )
    same = {
        name: row[name]
        for name in TakeRow.__dataclass_fields__
        if name not in ("brief", "ridge", "state")
    }
    return TakeRow(
        brief=brief, ridge=row["ridge"] or b"", state=row["state"] or "cancelled", **same
    )
