"""Motion logs: paths from turning rates, and what their columns are."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import asdict, dataclass

from ridgewind.core.motion.path import Motion
from ridgewind.core.motion.turn_rates import LogMapping, Offset
from ridgewind.core.units import UNKNOWN_FOCAL_EQ_MM
from ridgewind.store.clips import pack, unpack
from ridgewind.store.database import NOW


@dataclass(frozen=True)
class LogRow:
    """A log that belongs to a film. focal_eq_mm: that its path was worked out for. offset: None
    where the film itself could not be measured."""

    name: str
    rate_hz: float
    focal_eq_mm: float
    offset: Offset | None
    motion: Motion


@dataclass(frozen=True)
class FilmedRow:
    """A film with the take that is all of it. recorded_at: ISO moment of its own clock, None, as
    its length, where it could not be measured."""

    clip_id: int
    take_id: int
    name: str
    file: str
    recorded_at: str | None
    duration_s: float | None
    focal_eq_mm: float


def films(db: sqlite3.Connection, from_s: float, to_s: float) -> list[FilmedRow]:
    """Films that began between two moments, seconds since 1970, and those of which nobody knows
    when because they could not be measured."""
    rows = db.execute(
        "select clip.id as clip_id, min(take.id) as take_id, take.name, clip.file,"
        " clip.recorded_at, clip.duration_s,"
        " coalesce(take.own_focal_eq_mm, setup.focal_eq_mm, :usual) as focal_eq_mm"
        " from clip join take on take.clip_id = clip.id"
        " left join setup on setup.id = take.setup_id"
        " where take.deleted_at is null and (clip.duration_s is null and exists"
        "   (select 1 from job where job.kind = 'measure' and job.subject_id = clip.id"
        "     and job.state = 'failed')"
        "  or unixepoch(clip.recorded_at) between :from_s and :to_s)"
        " group by clip.id order by clip.recorded_at, clip.id",
        {"usual": UNKNOWN_FOCAL_EQ_MM, "from_s": from_s, "to_s": to_s},
    )
    return [FilmedRow(**dict(row)) for row in rows]


def put(
    db: sqlite3.Connection,
    clip_id: int,
    *,
    name: str,
    mapping: LogMapping,
    rate_hz: float,
    focal_eq_mm: float,
    offset: Offset | None,
    motion: Motion,
) -> None:
    """Keep a film's log, in place of an earlier one."""
    seconds, certainty, correlation = (
        (None, None, None)
        if offset is None
        else (offset.seconds, offset.certainty, offset.correlation)
    )
    db.execute(
        "insert or replace into motion_log (clip_id, name, imported_at, mapping, rate_hz,"
        " focal_eq_mm, offset_s, certainty, correlation, path)"
        f" values (?, ?, {NOW}, ?, ?, ?, ?, ?, ?, ?)",
        (clip_id, name, json.dumps(asdict(mapping)), rate_hz, focal_eq_mm, seconds, certainty,
         correlation, pack(motion)),
    )  # fmt: skip


def of_clip(db: sqlite3.Connection, clip_id: int) -> LogRow | None:
    """The log of a film, or None."""
    row = db.execute("select * from motion_log where clip_id = ?", (clip_id,)).fetchone()
    if row is None:
        return None
    offset = None
    if row["offset_s"] is not None:
        offset = Offset(row["offset_s"], row["certainty"], row["correlation"])
    return LogRow(row["name"], row["rate_hz"], row["focal_eq_mm"], offset, unpack(row["path"]))


def put_away(db: sqlite3.Connection, clip_id: int) -> None:
    """Take a film's log away, in place of an earlier one that was."""
    db.execute(
        "insert or replace into motion_log_away select * from motion_log where clip_id = ?",
        (clip_id,),
    )
    db.execute("delete from motion_log where clip_id = ?", (clip_id,))


def put_back(db: sqlite3.Connection, clip_id: int) -> bool:
    """Bring the log back that was taken away; returns whether there is one, and none since."""
    if db.execute("select 1 from motion_log where clip_id = ?", (clip_id,)).fetchone():
        return False
    back = db.execute(
        "insert into motion_log select * from motion_log_away where clip_id = ?", (clip_id,)
    )
    db.execute("delete from motion_log_away where clip_id = ?", (clip_id,))
    return back.rowcount > 0


def remember(db: sqlite3.Connection, names: tuple[str, ...], mapping: LogMapping) -> None:
    """What columns of these names are."""
    db.execute(
        "insert or replace into log_mapping (columns, mapping) values (?, ?)",
        (json.dumps(names), json.dumps(asdict(mapping))),
    )


def remembered(db: sqlite3.Connection, names: tuple[str, ...]) -> LogMapping | None:
    """What columns of these names were said to be the last time."""
    row = db.execute(
        "select mapping from log_mapping where columns = ?", (json.dumps(names),)
    ).fetchone()
    return None if row is None else LogMapping(**json.loads(row["mapping"]))
