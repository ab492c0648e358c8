"""The list of takes: which, in what order, and what they could be narrowed by."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass, replace
from typing import Any

from ridgewind.store.takes import LENGTH, SELECT, TakeRow, row_from

MOST_ROWS = 200
"""Rows that one page of the list may hold."""

_TAKEN = "coalesce(clip.recorded_at, take.imported_at)"
DAY = f"date({_TAKEN}, 'localtime')"
"""The day on which a take was filmed, here."""

_SETTLED = "coalesce(take.choice, 'open')"

WORTH = (
    "case when take.choice is not null then 20"
    " when summary.remedy is not null then case summary.remedy"
    " when 'keep' then 0 when 'lee' then 1 when 'slow' then 2 when 'polish' then 3"
    " when 'polish_lee' then 4 when 'slow_polish' then 5 when 'hold' then 6 else 8 end"
    " when job.state = 'done' then 7 else 9 end"
)
"""Order in which takes are worth opening: open before settled, and of those what needs least work
first; then those that wait for the shooter's word, those to be filmed again, those not measured."""

SORTS = {
    "imported": "take.imported_at",
    "recorded": _TAKEN,
    "name": "take.name collate nocase",
    "gust": "summary.gust",
    "length": LENGTH,
    "worth": WORTH,
}
"""What the list can be sorted by."""

THEN = {"worth": "summary.gust is null, summary.gust, "}
"""What decides among those that a sort finds level, before the newest."""


@dataclass(frozen=True)
class Filter:
    """Which takes to list: None leaves a filter open. remedy "none": not measured. day: as
    2026-05-30. choice: keep, reject, retake or open. origin: examples are no takes, so they are
    left out unless they are asked for; "any" takes in all."""

    remedy: str | None = None
    feel: str | None = None
    text: str | None = None
    day: str | None = None
    session_id: int | None = None
    drill_key: str | None = None
    variation_key: str | None = None
    setup_id: int | None = None
    cause: str | None = None
    choice: str | None = None
    origin: str | None = None

    def sql(self) -> tuple[str, list[Any]]:
        """Conditions on `_FROM`, and the values that they bind."""
        parts, values = ["take.deleted_at is null"], []
        for name, column in _COLUMNS.items():
            value = getattr(self, name)
            if name == "remedy" and value == "none":
                parts.append("summary.remedy is null")
            elif name == "origin" and value in (None, "any"):
                parts += [] if value else [f"{column} <> 'example'"]
            elif value is not None:
                parts.append(f"{column} = ?")
                values.append(value)
        if self.text:
            parts.append("take.name like ? escape '\\'")
            escaped = self.text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")
            values.append(f"%{escaped}%")
        return " and ".join(parts), values


_COLUMNS = {
    "remedy": "summary.remedy",
    "feel": "brief.feel",
    "day": DAY,
    "session_id": "filed.session_id",
    "drill_key": "filed.drill_key",
    "variation_key": "filed.variation_key",
    "setup_id": "take.setup_id",
    "cause": "summary.cause",
    "choice": _SETTLED,
    "origin": "take.origin",
}
"""What each filter compares."""

_FROM = """
  from take
  join clip on clip.id = take.clip_id
  join brief on brief.id = take.brief_id
  left join summary on summary.take_id = take.id
  left join session_take as filed on filed.take_id = take.id
  left join job on job.kind = 'measure' and job.subject_id = take.clip_id
"""

NARROWED_BY = (
    "day", "session_id", "drill_key", "variation_key", "setup_id", "cause", "choice", "origin",
)  # fmt: skip
"""Filters whose values are counted, see `counts`."""


@dataclass(frozen=True)
class Counted:
    """A value of a filter, and how many takes it would leave."""

    value: str
    takes: int


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
    where, values = only.sql()
    order = _order(sort, descending=descending)
    # Chosen by number first: sorting whole rows, ridges and all, takes four times as long.
    rows = db.execute(
        f"{SELECT} where take.id in"
        f" (select take.id {_FROM} where {where} order by {order} limit ? offset ?)"
        f" order by {order}",
        (*values, min(limit, MOST_ROWS), offset),
    )
    return [row_from(row) for row in rows]


def ids(db: sqlite3.Connection, *, only: Filter, sort: str, descending: bool) -> list[int]:
    """Of all takes that a filter leaves, in order."""
    where, values = only.sql()
    order = _order(sort, descending=descending)
    rows = db.execute(f"select take.id {_FROM} where {where} order by {order}", values)
    return [row["id"] for row in rows]


def count(db: sqlite3.Connection, *, only: Filter) -> int:
    where, values = only.sql()
    # Every open page asks for the number of all takes all the time; that is told by one table.
    tables = "from take" if only == Filter() else _FROM
    row = db.execute(f"select count(*) as many {tables} where {where}", values).fetchone()
    return int(row["many"])


def counts(db: sqlite3.Connection, *, only: Filter) -> dict[str, list[Counted]]:
    """For each filter of NARROWED_BY the values that takes have, the newest days first, else the
    commonest, with the number that each would leave beside all other filters."""
    found = {}
    for name in NARROWED_BY:
        column = _COLUMNS[name]
        # A variation is one of its drill.
        free: dict[str, Any] = {name: "any" if name == "origin" else None}
        free |= {"variation_key": None} if name == "drill_key" else {}
        where, values = replace(only, **free).sql()
        rows = db.execute(
            f"select {column} as value, count(*) as many {_FROM} where {where}"
            f" and {column} is not null group by 1"
            f" order by {'1 desc' if name == 'day' else '2 desc, 1'}",
            values,
        )
        found[name] = [Counted(str(row["value"]), row["many"]) for row in rows]
    return found


def _order(sort: str, *, descending: bool) -> str:
    key = SORTS[sort]
    way = "desc" if descending else "asc"
    return f"{key} is null, {key} {way}, {THEN.get(sort, '')}take.id desc"
