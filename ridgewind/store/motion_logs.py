"""Motion logs: paths from turning rates, and what their columns are."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import asdict, dataclass

from ridgewind.core.motion.path import Motion
from ridgewind.core.motion.turn_rates import LogMapping, Offset
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


def remove(db: sqlite3.Connection, clip_id: int) -> None:
    """Forget the log of a film."""
    db.execute("delete from motion_log where clip_id = ?", (clip_id,))


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
