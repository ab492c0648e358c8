"""Filed takes as many of them are compared: by drill, with what was measured and noted."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Collection
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.trials.survival import Lasting
from ridgewind.core.units import UNKNOWN_FOCAL_EQ_MM
from ridgewind.store.errors import NotFoundError
from ridgewind.store.listing import DAY

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class FiledTake:
    """A take that is filed under a drill. place: among the filmed takes of its session, from 1.
    figures: by name, see services.figures; {} while it is not measured. counts: as the shooter
    said, None where they did not. filmed_at: ISO moment, None where nobody knows."""

    take_id: int
    name: str
    session_id: int
    session_name: str
    drill_key: str
    variation_key: str
    place: int
    filmed_at: str | None
    gust: float | None
    speed_pct_s: float | None
    focal_eq_mm: float
    trusted_share: float | None
    figures: dict[str, float]
    choice: str | None
    counts: bool | None
    felt: str | None
    fatigue: int | None
    tension: int | None


_FILED = f"""
select take.id as take_id, take.name, filed.session_id, session.name as session_name,
       filed.drill_key, filed.variation_key, filed.filmed_at, filed.felt, filed.fatigue,
       filed.tension, take.choice, take.counts, summary.gust, summary.speed_pct_s,
       summary.trusted_share, coalesce(summary.figures, '{{}}') as figures,
       coalesce(take.own_focal_eq_mm, setup.focal_eq_mm, {UNKNOWN_FOCAL_EQ_MM}) as focal_eq_mm,
       filed.place
  from (select *, sum(state = 'filmed') over (
                    partition by session_id order by position
                    rows between unbounded preceding and current row) as place
          from session_take) as filed
  join session on session.id = filed.session_id
  join take on take.id = filed.take_id and take.deleted_at is null and take.origin = 'own'
  left join summary on summary.take_id = take.id
  left join setup on setup.id = take.setup_id
"""


def filed_takes(
    db: sqlite3.Connection,
    *,
    drill_keys: Collection[str] | None = None,
    session_id: int | None = None,
) -> list[FiledTake]:
    """Takes filed under some drills, or under any, of one session or of all, in the order in which
    they were planned."""
    rows = db.execute(
        f"{_FILED} where (:keys is null or filed.drill_key in (select value from json_each(:keys)))"
        " and (:session is null or filed.session_id = :session)"
        " order by filed.session_id, filed.position",
        {
            "keys": None if drill_keys is None else json.dumps(sorted(drill_keys)),
            "session": session_id,
        },
    ).fetchall()
    return _filed(rows)


@dataclass(frozen=True)
class PickedTake:
    """Any take as a trial sees it, with what could tell it apart. Of a take of no session, the
    session is its day, under a number below nothing."""

    filed: FiledTake
    setup_name: str | None
    brief_name: str | None


_PICKED = f"""
select take.id as take_id, take.name,
       coalesce(filed.session_id, -cast(julianday({DAY}) as integer)) as session_id,
       coalesce(session.name, {DAY}) as session_name, coalesce(filed.drill_key, '') as drill_key,
       coalesce(filed.variation_key, '') as variation_key,
       coalesce(filed.filmed_at, clip.recorded_at) as filmed_at, filed.felt, filed.fatigue,
       filed.tension, take.choice, take.counts, summary.gust, summary.speed_pct_s,
       summary.trusted_share, coalesce(summary.figures, '{{}}') as figures,
       coalesce(take.own_focal_eq_mm, setup.focal_eq_mm, {UNKNOWN_FOCAL_EQ_MM}) as focal_eq_mm,
       setup.name as setup_name, brief.name as brief_name,
       row_number() over (
         partition by coalesce(filed.session_id, {DAY})
         order by coalesce(filed.position, 0), clip.recorded_at, take.id
       ) as place
  from take
  join clip on clip.id = take.clip_id
  join brief on brief.id = take.brief_id
  left join setup on setup.id = take.setup_id
  left join summary on summary.take_id = take.id
  left join session_take as filed on filed.take_id = take.id
  left join session on session.id = filed.session_id
 where take.deleted_at is null and take.origin = 'own'
   and take.id in (select value from json_each(?))
"""


def picked_takes(db: sqlite3.Connection, take_ids: list[int]) -> list[PickedTake]:
    """Any takes, in the order in which they were filmed, as far as that is known."""
    rows = db.execute(f"{_PICKED} order by session_id, place", (json.dumps(take_ids),)).fetchall()
    filed = _filed(rows)
    return [
        PickedTake(one, row["setup_name"], row["brief_name"])
        for one, row in zip(filed, rows, strict=True)
    ]


def turning(db: sqlite3.Connection, take_ids: list[int]) -> dict[int, Floats]:
    """How fast the hand turned in some takes, (bins, 4) each; those without are left out."""
    rows = db.execute(
        "select take_id, turning from summary where turning is not null"
        " and take_id in (select value from json_each(?))",
        (json.dumps(take_ids),),
    )
    return {
        row["take_id"]: np.frombuffer(row["turning"], np.float32).astype(np.float64).reshape(-1, 4)
        for row in rows
    }


def lastings(db: sqlite3.Connection, take_ids: list[int]) -> dict[int, Lasting]:
    """Until when some takes lasted; those of which it is not known are left out."""
    rows = db.execute(
        "select take_id, holds from summary where holds <> '[]'"
        " and take_id in (select value from json_each(?))",
        (json.dumps(take_ids),),
    ).fetchall()
    held = json.loads(f"[{','.join(row['holds'] for row in rows)}]")
    return {
        row["take_id"]: Lasting(told[0], tuple(told[1:]))
        for row, told in zip(rows, held, strict=True)
    }


def set_counts(db: sqlite3.Connection, take_id: int, counts: bool | None) -> None:
    """Let a take into trials or keep it out; None leaves it to what is known of it."""
    cursor = db.execute("update take set counts = ? where id = ?", (counts, take_id))
    if cursor.rowcount == 0:
        raise NotFoundError("take", take_id)


_SAME = tuple(name for name in FiledTake.__dataclass_fields__ if name not in ("figures", "counts"))


def _filed(rows: list[sqlite3.Row]) -> list[FiledTake]:
    """Rows of a query whose columns are those of FiledTake; all their JSON is read in one go, which
    is half of what thousands of rows cost."""
    figures = json.loads(f"[{','.join(row['figures'] for row in rows)}]")
    out = []
    for at, row in enumerate(rows):
        counts = None if row["counts"] is None else bool(row["counts"])
        own = {"figures": figures[at], "counts": counts}
        out.append(FiledTake(**own, **{name: row[name] for name in _SAME}))
    return out
