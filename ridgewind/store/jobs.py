"""Long work: what waits, what runs and how it ended, so that a killed process loses nothing.

One row for each subject of a kind: a clip that is measured, a film that is rendered, a folder that
is copied from, a scene that is filmed in the shooter's hand, a sequence that is assembled, a take
whose marked subject is followed. The queue only hands numbers to free processes; what there is to
do stands here.
"""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Literal

from ridgewind.store.database import NOW

Kind = Literal["measure", "render", "copy", "film", "assemble", "follow"]

LENT_KINDS: tuple[Kind, ...] = ("render", "measure")
"""What other machines may do; what somebody looks at is first."""

MOST_ATTEMPTS = 2
"""Work that has taken its process down twice is given up. Closing or killing the application is no
fault of the work, and counts as none."""

UNFINISHED = "('queued', 'running')"


@dataclass(frozen=True)
class JobRow:
    """subject_id: of the clip, the render, the folder copy or the film in one's own hand. progress:
    0 to 1, None where it is not known. attempts: how often it took its process down. error_*: why
    it failed, or why it waits. told_at: when its process last gave a sign of life. lease: of what
    another machine does, None for this one's own."""

    kind: Kind
    subject_id: int
    state: str
    progress: float | None
    attempts: int
    cancel_requested: bool
    error_code: str | None
    error_what: str | None
    error_next: str | None
    told_at: str | None
    lease: str | None = None


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
    "film": Fault(
        "crashed",
        "filming it ended the filming process twice",
        "try a wider lens, or another technique",
    ),
    "assemble": Fault(
        "crashed",
        "assembling it ended the assembling process twice",
        "leave out the piece that was added last",
    ),
    "follow": Fault(
        "crashed",
        "following it ended the following process twice",
        "mark it at another moment",
    ),
}


STUCK: dict[Kind, Fault] = {
    kind: Fault("stuck", f"{fault.what.split(' ended ')[0]} stood still twice", fault.next_step)
    for kind, fault in CRASHED.items()
}


def enqueue(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """Let a subject wait, afresh. What runs is asked to stop, and begins anew once it has."""
    db.execute(
        "insert into job (kind, subject_id, state) values (?, ?, 'queued')"
        " on conflict (kind, subject_id) do update set"
        " again = (state = 'running'), cancel_requested = (state = 'running'),"
        " state = case state when 'running' then state else 'queued' end,"
        " progress = null, attempts = 0,"
        " error_code = null, error_what = null, error_next = null",
        (kind, subject_id),
    )


def one(db: sqlite3.Connection, kind: Kind, subject_id: int) -> JobRow | None:
    """The work on a subject, None where none was ever asked for."""
    rows = db.execute(
        "select * from job where kind = ? and subject_id = ?", (kind, subject_id)
    ).fetchall()
    return _row(rows[0]) if rows else None


def claim(db: sqlite3.Connection, kind: Kind, subject_id: int, *, lease: str | None = None) -> bool:
    """Take waiting work; False where it is not waiting, so that it never runs twice at once.
    lease: by which another machine does it."""
    cursor = db.execute(
        f"update job set state = 'running', progress = 0, told_at = {NOW}, again = 0, lease = ?,"
        " cancel_requested = 0, error_code = null, error_what = null, error_next = null"
        " where kind = ? and subject_id = ? and state = 'queued'",
        (lease, kind, subject_id),
    )
    return cursor.rowcount == 1


def of_lease(db: sqlite3.Connection, lease: str) -> JobRow | None:
    """What another machine does by a lease; None where that is its no more."""
    row = db.execute("select * from job where lease = ?", (lease,)).fetchone()
    return None if row is None else _row(row)


def lent(db: sqlite3.Connection) -> list[JobRow]:
    """All that other machines do."""
    return [_row(row) for row in db.execute("select * from job where lease is not null")]


def report(db: sqlite3.Connection, kind: Kind, subject_id: int, progress: float | None) -> bool:
    """Note how far it is, and that it lives; True where the shooter has asked to stop."""
    rows = db.execute(
        f"update job set progress = ?, told_at = {NOW}"
        " where kind = ? and subject_id = ? returning cancel_requested",
        (progress, kind, subject_id),
    ).fetchall()
    return not rows or bool(rows[0]["cancel_requested"])


def request_cancel(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """Ask running work to stop; what waits stops at once."""
    db.execute(
        "update job set cancel_requested = (state = 'running'), again = 0,"
        " state = case state when 'queued' then 'cancelled' else state end,"
        " error_code = null, error_what = null, error_next = null"
        f" where kind = ? and subject_id = ? and state in {UNFINISHED}",
        (kind, subject_id),
    )


def is_stopping(db: sqlite3.Connection, kind: Kind, subject_id: int) -> bool:
    """Whether it runs, but has been asked to stop."""
    row = one(db, kind, subject_id)
    return row is not None and row.state == "running" and row.cancel_requested


def finish(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """End it as done."""
    _end(db, kind, subject_id, "done")


def stop(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """End it as cancelled."""
    _end(db, kind, subject_id, "cancelled")


def fail(db: sqlite3.Connection, kind: Kind, subject_id: int, fault: Fault) -> None:
    """End it as failed, with the reason."""
    _end(db, kind, subject_id, "failed", fault)


def wait_on(db: sqlite3.Connection, kind: Kind, subject_id: int, fault: Fault) -> None:
    """Let running work wait for what the shooter can mend, with the reason; or stop where that was
    asked for."""
    row = one(db, kind, subject_id)
    if row is not None and row.cancel_requested:
        stop(db, kind, subject_id)
    else:
        _end(db, kind, subject_id, "queued", fault)


def lay_down(db: sqlite3.Connection, kind: Kind) -> None:
    """Let what runs wait again, because the application was closed or killed: no fault of the
    work."""
    for subject_id in interrupted(db, kind):
        put_back(db, kind, subject_id)


def crashed(db: sqlite3.Connection, kind: Kind, subject_id: int, *, stuck: bool = False) -> bool:
    """Work whose process died at it waits again, or is given up at the second time; True where it
    waits. stuck: it was ended because it gave no sign of life."""
    row = one(db, kind, subject_id)
    if row is None or row.state != "running":
        return False
    attempts = row.attempts + 1
    db.execute(
        "update job set attempts = ? where kind = ? and subject_id = ?",
        (attempts, kind, subject_id),
    )
    if not row.cancel_requested and attempts >= MOST_ATTEMPTS:
        fail(db, kind, subject_id, (STUCK if stuck else CRASHED)[kind])
    else:
        put_back(db, kind, subject_id)
    return subject_id in waiting(db, kind)


def put_back(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """Let what runs wait again, or stop where that was asked for: its process is gone, by no fault
    of the work."""
    row = one(db, kind, subject_id)
    asked_to_stop = row is not None and row.cancel_requested
    _end(db, kind, subject_id, "cancelled" if asked_to_stop else "queued")


def signs_of_life(db: sqlite3.Connection, kind: Kind) -> tuple[tuple[int, str | None], ...]:
    """What runs on this machine, and when its process last told of it."""
    rows = db.execute(
        "select subject_id, told_at from job"
        " where kind = ? and state = 'running' and lease is null order by id",
        (kind,),
    )
    return tuple((row["subject_id"], row["told_at"]) for row in rows)


def interrupted(db: sqlite3.Connection, kind: Kind) -> list[int]:
    """Subjects that a process of this machine left running, the oldest first."""
    return [subject_id for subject_id, _ in signs_of_life(db, kind)]


def waiting(db: sqlite3.Connection, kind: Kind) -> list[int]:
    """Subjects in the queue, the oldest first."""
    return _in_state(db, kind, "queued")


def unfinished(db: sqlite3.Connection, kind: Kind) -> int:
    """How many subjects of a kind wait or run."""
    sql = f"select count(*) as many from job where kind = ? and state in {UNFINISHED}"
    return int(db.execute(sql, (kind,)).fetchone()["many"])


def is_worked_on(db: sqlite3.Connection, clip_id: int) -> bool:
    """Whether a film is being measured, rendered or followed in, or waits for it."""
    row = db.execute(
        f"select 1 from job where state in {UNFINISHED} and (kind = 'measure' and subject_id = ?"
        " or kind = 'render' and subject_id in (select render.id from render"
        " join take on take.id = render.take_id where take.clip_id = ?)"
        " or kind = 'follow' and subject_id in (select id from take where clip_id = ?)"
        " or kind = 'assemble') limit 1",
        (clip_id, clip_id, clip_id),
    ).fetchone()
    return row is not None


def forget(db: sqlite3.Connection, kind: Kind, subject_id: int) -> None:
    """The subject is gone."""
    db.execute("delete from job where kind = ? and subject_id = ?", (kind, subject_id))


def _end(
    db: sqlite3.Connection,
    kind: Kind,
    subject_id: int,
    state: str,
    fault: Fault | None = None,
) -> None:
    """What was asked for anew meanwhile waits instead, however it ended."""
    told = (None,) * 3 if fault is None else (fault.code, fault.what, fault.next_step)
    db.execute(
        "update job set state = iif(again, 'queued', ?), progress = null, cancel_requested = 0,"
        " error_code = iif(again, null, ?), error_what = iif(again, null, ?),"
        " error_next = iif(again, null, ?), again = 0, lease = null"
        " where kind = ? and subject_id = ?",
        (state, *told, kind, subject_id),
    )


def _in_state(db: sqlite3.Connection, kind: Kind, state: str) -> list[int]:
    rows = db.execute(
        "select subject_id from job where kind = ? and state = ? order by id", (kind, state)
    )
    return [row["subject_id"] for row in rows]


def _row(row: sqlite3.Row) -> JobRow:
    values = {name: row[name] for name in JobRow.__dataclass_fields__}
    return JobRow(**values | {"cancel_requested": bool(row["cancel_requested"])})
