"""Subjects marked in takes, and their paths through the picture."""

from __future__ import annotations

import io
import sqlite3

import numpy as np

from ridgewind.core.motion.follow import SubjectPath


def put(
    db: sqlite3.Connection, take_id: int, *, marked_s: float, x: float, y: float, path: SubjectPath
) -> None:
    """Keep where a take's subject was marked (x, y as shares of the picture) and its path."""
    buffer = io.BytesIO()
    np.save(buffer, np.column_stack([path.t_s, path.x_pct, path.y_pct]))
    db.execute(
        "insert or replace into subject (take_id, marked_s, x, y, path) values (?, ?, ?, ?, ?)",
        (take_id, marked_s, x, y, buffer.getvalue()),
    )


def of_take(db: sqlite3.Connection, take_id: int) -> SubjectPath | None:
    """The path of a take's subject, or None where none was marked."""
    row = db.execute("select path from subject where take_id = ?", (take_id,)).fetchone()
    if row is None:
        return None
    columns = np.load(io.BytesIO(row["path"]), allow_pickle=False)
    return SubjectPath(columns[:, 0], columns[:, 1], columns[:, 2])


def remove(db: sqlite3.Connection, take_id: int) -> None:
    """Forget the subject of a take."""
    db.execute("delete from subject where take_id = ?", (take_id,))
