"""Long work: what waits, what runs and how it ended, so that a killed process loses nothing.

One row for each subject of a kind: a clip that is measured, a film that is rendered, a folder that
is copied from. The queue only hands numbers to free processes; what there is to do stands here.
"""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Literal

Kind = Literal["measure", "render", "copy"]

MOST_ATTEMPTS = 2
"""Work that has taken its process down twice is given up."""

UNFINISHED = "('queued', 'running')"


@dataclass(frozen=True)
class JobRow:
    """subject_id: of the clip, the render or the folder copy. progress: 0 to 1, None where it is
    not known."""

    kind: Kind
    subject_id: int
    state: str
    progress: float | None
    attempts: int
    cancel_requested: bool
    error_code: str | None
    error_what: str | None
    error_next: str | None


@dataclass(frozen=True)
class Fault:
    """Why work failed. code: short name for programs. what: the fault. next_step: what the shooter
    can do."""

    code: str
    what: str
    next_step: str


CRASHED: dict[Kind, Fault] = {
    "measure": Fault(
        "crashed",
        "measuring it ended the measuring process twice",
        "convert the clip to H.264 in an mp4 file and bring that in",
    ),
    "render": Fault(
        "crashed",
        "rendering it ended the rendering process twice",
        "try a shorter part, or another strength",
    ),
    "copy": Fault(
        "crashed",
        "copying ended the copying process twice",
        "bring the rest in; if it stays, copy the files elsewhere first",
    ),
}


def enqueue(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """Let a subject wait, afresh."""
    db.execute(
        "insert into job (kind, subject_id, state) values (?, ?, 'queued')"
        " on conflict (kind, subject_id) do update set state = 'queued', progress = null,"
        " attempts = 0, cancel_requested = 0, error_code = null, error_what = null,"
        " error_next = null",
        (kind, subject_id),
    )


def one(db: sqlite3.Connection, kind: Kind, subject_id: int) -> JobRow | None:
    """The work on a subject, None where none was ever asked for."""
    rows = db.execute(
        "select * from job where kind = ? and subject_id = ?", (kind, subject_id)
    ).fetchall()
    return _row(rows[0]) if rows else None


def claim(db: sqlite3.Connection, kind: Kind, subject_id: int) -> bool:
    """Take waiting work; False where it is not waiting, so that it never runs twice at once."""
    cursor = db.execute(
        "update job set state = 'running', attempts = attempts + 1, progress = 0"
        " where kind = ? and subject_id = ? and state = 'queued'",
        (kind, subject_id),
    )
    return cursor.rowcount == 1


def report(db: sqlite3.Connection, kind: Kind, subject_id: int, progress: float | None) -> bool:
    """Note how far it is; True where the shooter has asked to stop."""
    rows = db.execute(
        "update job set progress = ? where kind = ? and subject_id = ? returning cancel_requested",
        (progress, kind, subject_id),
    ).fetchall()
    return not rows or bool(rows[0]["cancel_requested"])


def request_cancel(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """Ask running work to stop; what waits stops at once."""
    db.execute(
        "update job set cancel_requested = 1,"
        " state = case state when 'queued' then 'cancelled' else state end"
        f" where kind = ? and subject_id = ? and state in {UNFINISHED}",
        (kind, subject_id),
    )


def finish(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """End it as done."""
    _end(db, kind, subject_id, "done")


def stop(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """End it as cancelled."""
    _end(db, kind, subject_id, "cancelled")


def fail(db: sqlite3.Connection, kind: Kind, subject_id: int, fault: Fault) -> None:
    """End it as failed, with the reason."""
    _end(db, kind, subject_id, "failed")
    db.execute(
        "update job set error_code = ?, error_what = ?, error_next = ?"
        " where kind = ? and subject_id = ?",
        (fault.code, fault.what, fault.next_step, kind, subject_id),
    )


def put_back(db: sqlite3.Connection, kind: Kind, subject_id: int) -> bool:
    """Let work that a process left running wait again, or give it up; True where it waits.

    The count of its attempts stays, so that a film which takes every process down ends.
    """
    row = one(db, kind, subject_id)
    if row is None or row.state != "running":
        return False
    if row.cancel_requested:
        stop(db, kind, subject_id)
        return False
    if row.attempts >= MOST_ATTEMPTS:
        fail(db, kind, subject_id, CRASHED[kind])
        return False
    db.execute(
        "update job set state = 'queued', progress = null where kind = ? and subject_id = ?",
        (kind, subject_id),
    )
    return True


def lay_down(db: sqlite3.Connection, kind: Kind) -> None:
    """Let what runs wait again, because the shooter closed the application: no fault of the work,
    so it counts as no attempt."""
    db.execute(
        "update job set state = 'queued', progress = null, attempts = max(attempts - 1, 0)"
        " where kind = ? and state = 'running' and not cancel_requested",
        (kind,),
    )


def interrupted(db: sqlite3.Connection, kind: Kind) -> list[int]:
    """Subjects that a process left running, the oldest first."""
    return _in_state(db, kind, "running")


def waiting(db: sqlite3.Connection, kind: Kind) -> list[int]:
    """Subjects in the queue, the oldest first."""
    return _in_state(db, kind, "queued")


def unfinished(db: sqlite3.Connection, kind: Kind) -> int:
    """How many subjects of a kind wait or run."""
    sql = f"select count(*) as many from job where kind = ? and state in {UNFINISHED}"
    return int(db.execute(sql, (kind,)).fetchone()["many"])


def forget(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """The subject is gone."""
    db.execute("delete from job where kind = ? and subject_id = ?", (kind, subject_id))


def _end(db: sqlite3.Connection, kind: Kind, subject_id: int, state: str) -> None:
    db.execute(
        "update job set state = ?, progress = null where kind = ? and subject_id = ?",
        (state, kind, subject_id),
    )


def _in_state(db: sqlite3.Connection, kind: Kind, state: str) -> list[int]:
    rows = db.execute(
        "select subject_id from job where kind = ? and state = ? order by id", (kind, state)
    )
    return [row["subject_id"] for row in rows]


def _row(row: sqlite3.Row) -> JobRow:
    values = {name: row[name] for name in JobRow.__dataclass_fields__}
    return JobRow(**values | {"cancel_requested": bool(row["cancel_requested"])})
