"""Subjects marked in takes, and their paths through the picture."""

from __future__ import annotations

import io
import sqlite3
from dataclasses import dataclass

import numpy as np

from ridgewind.core.motion.subject import Mark, Subject, SubjectPath
from ridgewind.store import jobs

NO_SECOND = (None, None, None, None)


@dataclass(frozen=True)
class AskRow:
    """A point that is to be followed. second: another one of what is marked already."""

    mark: Mark
    second: bool


def put(db: sqlite3.Connection, take_id: int, subject: Subject) -> None:
    """Keep a take's subject: where it was marked, and its path."""
    points = [
        (mark.at_s, mark.x, mark.y, _stored(path))
        for mark, path in zip(subject.marks, subject.paths, strict=True)
    ]
    second = points[1] if len(points) > 1 else NO_SECOND
    db.execute(
        "insert or replace into subject (take_id, marked_s, x, y, path,"
        " second_s, second_x, second_y, second_path) values (?, ?, ?, ?, ?, ?, ?, ?, ?)",
        (take_id, *points[0], *second),
    )


def of_take(db: sqlite3.Connection, take_id: int) -> Subject | None:
    """A take's subject, or None where none was marked."""
    row = db.execute("select * from subject where take_id = ?", (take_id,)).fetchone()
    if row is None:
        return None
    marks = [Mark(row["marked_s"], row["x"], row["y"])]
    paths = [_path(row["path"])]
    if row["second_path"] is not None:
        marks.append(Mark(row["second_s"], row["second_x"], row["second_y"]))
        paths.append(_path(row["second_path"]))
    return Subject(tuple(marks), tuple(paths))


def let_go(db: sqlite3.Connection, take_id: int) -> None:
    """Take a take's subject away, in place of an earlier one that was."""
    db.execute(
        "insert or replace into subject_away select * from subject where take_id = ?", (take_id,)
    )
    db.execute("delete from subject where take_id = ?", (take_id,))


def bring_back(db: sqlite3.Connection, take_id: int) -> bool:
    """Bring the subject back that was let go; returns whether there is one, and none since."""
    if db.execute("select 1 from subject where take_id = ?", (take_id,)).fetchone():
        return False
    back = db.execute(
        "insert into subject select * from subject_away where take_id = ?", (take_id,)
    )
    db.execute("delete from subject_away where take_id = ?", (take_id,))
    return back.rowcount > 0


def ask(db: sqlite3.Connection, take_id: int, asked: AskRow) -> None:
    """Let a point wait to be followed, in place of one that does."""
    mark = asked.mark
    db.execute(
        "insert or replace into subject_ask (take_id, at_s, x, y, second) values (?, ?, ?, ?, ?)",
        (take_id, mark.at_s, mark.x, mark.y, asked.second),
    )
    jobs.enqueue(db, "follow", take_id)


def asked(db: sqlite3.Connection, take_id: int) -> AskRow | None:
    """The point of a take that is to be followed, or None."""
    row = db.execute("select * from subject_ask where take_id = ?", (take_id,)).fetchone()
    if row is None:
        return None
    return AskRow(Mark(row["at_s"], row["x"], row["y"]), bool(row["second"]))


def _stored(path: SubjectPath) -> bytes:
    buffer = io.BytesIO()
    np.save(buffer, np.column_stack([path.t_s, path.x_pct, path.y_pct]))
    return buffer.getvalue()


def _path(stored: bytes) -> SubjectPath:
    columns = np.load(io.BytesIO(stored), allow_pickle=False)
    return SubjectPath(columns[:, 0], columns[:, 1], columns[:, 2])
