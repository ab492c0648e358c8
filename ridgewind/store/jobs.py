"""Measuring jobs: one a clip, so that a killed process loses nothing."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

MOST_ATTEMPTS = 2
"""A film that has taken the worker down twice is given up."""


@dataclass(frozen=True)
class JobRow:
    clip_id: int
    state: str
    attempts: int
    cancel_requested: bool


def enqueue(db: sqlite3.Connection, clip_id: int) -> None:
    """Put a clip in the queue, afresh."""
    db.execute(
        "insert into job (clip_id, state) values (?, 'queued')"
        " on conflict (clip_id) do update set state = 'queued', progress = null, attempts = 0,"
        " cancel_requested = 0, error_code = null, error_what = null, error_next = null",
        (clip_id,),
    )


def claim(db: sqlite3.Connection, clip_id: int) -> bool:
    """Take a waiting job; False where it is not waiting, so that it never runs twice at once."""
    cursor = db.execute(
        "update job set state = 'running', attempts = attempts + 1, progress = 0"
        " where clip_id = ? and state = 'queued'",
        (clip_id,),
    )
    return cursor.rowcount == 1


def report(db: sqlite3.Connection, clip_id: int, progress: float | None) -> bool:
    """Note how far a job is; True where the shooter has asked to stop."""
    db.execute("update job set progress = ? where clip_id = ?", (progress, clip_id))
    row = db.execute("select cancel_requested from job where clip_id = ?", (clip_id,)).fetchone()
    return row is None or bool(row["cancel_requested"])


def request_cancel(db: sqlite3.Connection, clip_id: int) -> None:
    """Ask a running job to stop; a waiting one stops at once."""
    db.execute(
        "update job set cancel_requested = 1,"
        " state = case state when 'queued' then 'cancelled' else state end"
        " where clip_id = ? and state in ('queued', 'running')",
        (clip_id,),
    )


def finish(db: sqlite3.Connection, clip_id: int, state: str) -> None:
    """End a job as done or cancelled."""
    db.execute("update job set state = ?, progress = null where clip_id = ?", (state, clip_id))


def fail(db: sqlite3.Connection, clip_id: int, *, code: str, what: str, next_step: str) -> None:
    db.execute(
        "update job set state = 'failed', progress = null, error_code = ?, error_what = ?,"
        " error_next = ? where clip_id = ?",
        (code, what, next_step, clip_id),
    )


def interrupted(db: sqlite3.Connection) -> list[JobRow]:
    """Jobs that a process left running."""
    rows = db.execute("select * from job where state = 'running' order by clip_id")
    return [_row(row) for row in rows]


def waiting(db: sqlite3.Connection) -> list[int]:
    """Clips in the queue, oldest first."""
    rows = db.execute("select clip_id from job where state = 'queued' order by clip_id")
    return [row["clip_id"] for row in rows]


def put_back(db: sqlite3.Connection, clip_id: int) -> None:
    """Let an interrupted job wait again, keeping the count of its attempts."""
    db.execute("update job set state = 'queued', progress = null where clip_id = ?", (clip_id,))


def unfinished(db: sqlite3.Connection) -> int:
    sql = "select count(*) as many from job where state in ('queued', 'running')"
    return int(db.execute(sql).fetchone()["many"])


def _row(row: sqlite3.Row) -> JobRow:
    return JobRow(row["clip_id"], row["state"], row["attempts"], bool(row["cancel_requested"]))
