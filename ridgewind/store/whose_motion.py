"""The word on whose motion the path of a shot is: the shooter's, or a motion log's."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass


@dataclass(frozen=True)
class SaidRow:
    """at_s: a moment of the shot, s in the film. x, y: where the chosen motion's points are in the
    middle, -1 to 1 of half the picture, right and down. by_log: a motion log said so."""

    at_s: float
    x: float
    y: float
    by_log: bool = False


def put(db: sqlite3.Connection, clip_id: int, said: SaidRow) -> None:
    """Keep what was said of a shot, in place of what was said before."""
    db.execute(
        "insert or replace into whose_motion (clip_id, at_s, x, y, by_log) values (?, ?, ?, ?, ?)",
        (clip_id, said.at_s, said.x, said.y, said.by_log),
    )


def of_clip(db: sqlite3.Connection, clip_id: int) -> tuple[SaidRow, ...]:
    """What was said of a film's shots, in their order."""
    rows = db.execute(
        "select at_s, x, y, by_log from whose_motion where clip_id = ? order by at_s", (clip_id,)
    )
    return tuple(SaidRow(row["at_s"], row["x"], row["y"], bool(row["by_log"])) for row in rows)


def remove_one(db: sqlite3.Connection, clip_id: int, at_s: float) -> None:
    """Take back what was said of the shot at a moment."""
    db.execute("delete from whose_motion where clip_id = ? and at_s = ?", (clip_id, at_s))


def remove_logs(db: sqlite3.Connection, clip_id: int) -> None:
    """Take back what a film's motion log said."""
    db.execute("delete from whose_motion where clip_id = ? and by_log", (clip_id,))


def remove(db: sqlite3.Connection, clip_id: int) -> None:
    """Take back what was said of a film."""
    db.execute("delete from whose_motion where clip_id = ?", (clip_id,))


def name_background(db: sqlite3.Connection, clip_id: int, cells: frozenset[int]) -> None:
    """Keep in which cells of a film's picture the background is seen; none takes it back."""
    if not cells:
        db.execute("delete from named_background where clip_id = ?", (clip_id,))
        return
    db.execute(
        "insert or replace into named_background (clip_id, cells) values (?, ?)",
        (clip_id, json.dumps(sorted(cells))),
    )


def background_of(db: sqlite3.Connection, clip_id: int) -> frozenset[int]:
    """Cells in which the background is seen; none where nothing was said."""
    row = db.execute("select cells from named_background where clip_id = ?", (clip_id,)).fetchone()
    return frozenset() if row is None else frozenset(json.loads(row["cells"]))
