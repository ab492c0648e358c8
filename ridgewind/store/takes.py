"""Takes: what the shooter sees, with the brief in place and the list's summary."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from ridgewind.core.brief import Brief
from ridgewind.core.units import UNKNOWN_FOCAL_EQ_MM
from ridgewind.moments import utc_text
from ridgewind.store import briefs, jobs, outings, renders, summaries
from ridgewind.store.database import DAYS_AGO, NOW, days_ago
from ridgewind.store.errors import NotFoundError

LENGTH = "coalesce(take.film_to_s - take.film_from_s, clip.duration_s)"
"""Of a take, s; None while its film has not been measured."""


Origin = Literal["own", "simulated", "example"]
"""Filmed by the shooter; by the stand-in camera in the shooter's hand; by somebody else, as an
example of which a brief was made."""


@dataclass(frozen=True)
class TakeRow:
    """A take as the list shows it. name: the one that is shown; file_name: its file's;
    own_name: that the shooter gave it. brief_name: None while its brief is its own.
    focal_eq_mm: its own where the shooter gave one (own_focal_eq_mm), else its set-up's.
    own_capture_fps: rate at which it was filmed, where the shooter said it. film_from_s,
    film_to_s: which part of a film of several takes it is, s from the first frame; None for
    all of it. slate_session, slate_take, slate_until_s: what its slate names, and until when
    it is seen. session_id, drill_key, variation_key: what it is filed under. from_s, to_s: the
    part that is judged; None for all of it. choice: keep, reject or retake, once settled.
    stale: the brief has changed since gust, peak_gust, remedy, cause and ridge were worked
    out. cause: the first that is named. ridge: bytes of the small drawing, see
    services.assessing."""

    id: int
    clip_id: int
    name: str
    file_name: str
    own_name: str | None
    imported_at: str
    recorded_at: str | None
    deleted_at: str | None
    duration_s: float | None
    codec: str | None
    fps: float | None
    brief_id: int
    brief_name: str | None
    brief: Brief
    setup_id: int | None
    setup_name: str | None
    own_focal_eq_mm: float | None
    own_capture_fps: float | None
    focal_eq_mm: float
    film_from_s: float | None
    film_to_s: float | None
    slate_session: int | None
    slate_take: int | None
    slate_until_s: float | None
    session_id: int | None
    drill_key: str | None
    variation_key: str | None
    from_s: float | None
    to_s: float | None
    choice: str | None
    stale: bool
    gust: float | None
    peak_gust: float | None
    remedy: str | None
    cause: str | None
    ridge: bytes
    origin: Origin
    state: str
    progress: float | None
    error_code: str | None
    error_what: str | None
    error_next: str | None

    @property
    def judged_part(self) -> tuple[float, float] | None:
        """What is judged, s from the film's first frame; None for all of it."""
        if self.from_s is not None and self.to_s is not None:
            return self.from_s, self.to_s
        return self.film_part

    @property
    def film_part(self) -> tuple[float, float] | None:
        """Which part of its film it is, s from the first frame; None for all of it."""
        if self.film_from_s is None or self.film_to_s is None:
            return None
        return self.film_from_s, self.film_to_s


SELECT = f"""
select take.*, clip.recorded_at, clip.codec, {LENGTH} as duration_s, clip.fps,
       brief.name as brief_name, {", ".join(f"brief.{field}" for field in briefs.FIELDS)},
       setup.name as setup_name,
       coalesce(take.own_focal_eq_mm, setup.focal_eq_mm, {UNKNOWN_FOCAL_EQ_MM}) as focal_eq_mm,
       summary.gust, summary.peak_gust, summary.remedy, summary.ridge, summary.stale, summary.cause,
       filed.session_id, filed.drill_key, filed.variation_key,
       job.state, job.progress, job.error_code, job.error_what, job.error_next
  from take
  join clip on clip.id = take.clip_id
  join brief on brief.id = take.brief_id
  left join setup on setup.id = take.setup_id
  left join summary on summary.take_id = take.id
  left join session_take as filed on filed.take_id = take.id
  left join job on job.kind = 'measure' and job.subject_id = take.clip_id
"""


def add(
    db: sqlite3.Connection, *, clip_id: int, name: str, brief_id: int, setup_id: int | None
) -> int:
    """Record a take with its first brief and set-up; returns its id."""
    cursor = db.execute(
        "insert into take (clip_id, file_name, imported_at, brief_id, setup_id)"
        f" values (?, ?, {NOW}, ?, ?)",
        (clip_id, name, brief_id, setup_id),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, take_id: int) -> TakeRow:
    row = db.execute(f"{SELECT} where take.id = ?", (take_id,)).fetchone()
    if row is None:
        raise NotFoundError("take", take_id)
    return row_from(row)


def existing(db: sqlite3.Connection, take_ids: list[int]) -> set[int]:
    """Those of some takes that are still known, deleted ones too."""
    rows = db.execute(
        "select id from take where id in (select value from json_each(?))", (json.dumps(take_ids),)
    )
    return {row["id"] for row in rows}


def of_clip(db: sqlite3.Connection, clip_id: int) -> list[TakeRow]:
    """The takes of a film, deleted ones too, in the order of the film."""
    rows = db.execute(
        f"{SELECT} where take.clip_id = ? order by take.film_from_s, take.id", (clip_id,)
    )
    return [row_from(row) for row in rows]


def set_slate(
    db: sqlite3.Connection, take_id: int, slate: tuple[int, int], *, until_s: float
) -> None:
    """Keep which take of which session its slate names, and until when it is seen."""
    db.execute(
        "update take set slate_session = ?, slate_take = ?, slate_until_s = ? where id = ?",
        (*slate, until_s, take_id),
    )


def set_film_part(db: sqlite3.Connection, take_id: int, from_s: float, to_s: float) -> None:
    """Say which part of its film a take is, s from the first frame."""
    db.execute(
        "update take set film_from_s = ?, film_to_s = ? where id = ?", (from_s, to_s, take_id)
    )


def neighbours(db: sqlite3.Connection, take_id: int) -> tuple[int | None, int | None]:
    """Ids of the take imported before and after, deleted ones left out."""

    def nearest(side: str, order: str) -> int | None:
        row = db.execute(
            "select other.id from take join take as other"
            f" on (other.imported_at, other.id) {side} (take.imported_at, take.id)"
            " where take.id = ? and other.deleted_at is null"
            f" order by other.imported_at {order}, other.id {order} limit 1",
            (take_id,),
        ).fetchone()
        return None if row is None else int(row["id"])

    return nearest("<", "desc"), nearest(">", "asc")


def set_own_brief(db: sqlite3.Connection, take_id: int, brief: Brief) -> None:
    """Give a take a brief of its own, or change the one it has; named briefs stay as they are."""
    take = by_id(db, take_id)
    if take.brief_name is None:
        briefs.change(db, take.brief_id, brief, name=None)
    else:
        own = briefs.add(db, brief, name=None, parent_id=take.brief_id)
        point(db, take_id, brief_id=own)


def point(
    db: sqlite3.Connection,
    take_id: int,
    *,
    brief_id: int | None = None,
    setup_id: int | None = None,
) -> None:
    """Let a take point at another brief or set-up; None leaves it as it is."""
    take = by_id(db, take_id)
    if brief_id is not None:
        briefs.by_id(db, brief_id)
        db.execute("update take set brief_id = ? where id = ?", (brief_id, take_id))
        briefs.remove_own(db, take.brief_id)
    if setup_id is not None:
        set_setup(db, take_id, setup_id)


def set_setup(db: sqlite3.Connection, take_id: int, setup_id: int | None) -> None:
    """Say with what a take was filmed; None where that is not known."""
    by_id(db, take_id)
    db.execute("update take set setup_id = ? where id = ?", (setup_id, take_id))


def set_own_focal(db: sqlite3.Connection, take_id: int, focal_eq_mm: float | None) -> None:
    """Set the focal length of this take alone; None goes back to its set-up's."""
    by_id(db, take_id)
    db.execute("update take set own_focal_eq_mm = ? where id = ?", (focal_eq_mm, take_id))


def set_own_capture(db: sqlite3.Connection, take_id: int, capture_fps: float | None) -> None:
    """Say at how many frames a second a take was filmed; None leaves it to file and set-up."""
    by_id(db, take_id)
    db.execute("update take set own_capture_fps = ? where id = ?", (capture_fps, take_id))


def set_own_name(db: sqlite3.Connection, take_id: int, name: str | None) -> None:
    """Call a take by a name of the shooter's own; None leaves it to what it is filed under, else
    to its file."""
    by_id(db, take_id)
    db.execute("update take set own_name = ? where id = ?", (name, take_id))


def set_imported(db: sqlite3.Connection, take_id: int, when: datetime) -> None:
    """Say when a take came in, aware of its zone."""
    db.execute("update take set imported_at = ? where id = ?", (utc_text(when), take_id))


def set_filed_name(db: sqlite3.Connection, take_id: int, name: str | None) -> None:
    """Keep the name of what a take is filed under; None where it is filed nowhere."""
    db.execute("update take set filed_name = ? where id = ?", (name, take_id))


def set_origin(db: sqlite3.Connection, take_id: int, origin: Origin) -> None:
    """Say where a take comes from."""
    by_id(db, take_id)
    db.execute("update take set origin = ? where id = ?", (origin, take_id))


def set_part(db: sqlite3.Connection, take_id: int, part: tuple[float, float] | None) -> None:
    """Judge only a part of the film, s from its first frame; None for all of it."""
    by_id(db, take_id)
    from_s, to_s = part or (None, None)
    db.execute("update take set from_s = ?, to_s = ? where id = ?", (from_s, to_s, take_id))


def set_choice(db: sqlite3.Connection, take_id: int, choice: str | None) -> None:
    """Settle a take: keep, reject or retake; None leaves it open again."""
    by_id(db, take_id)
    db.execute("update take set choice = ? where id = ?", (choice, take_id))


def move_brief(db: sqlite3.Connection, from_id: int, to_id: int) -> None:
    """Let all takes under one brief point at another; their lines are then out of date."""
    db.execute("update take set brief_id = ? where brief_id = ?", (to_id, from_id))
    summaries.mark_brief_stale(db, to_id)


def set_deleted(db: sqlite3.Connection, take_id: int, *, deleted: bool) -> None:
    """Hide a take, or bring it back."""
    now = NOW if deleted else "null"
    cursor = db.execute(f"update take set deleted_at = {now} where id = ?", (take_id,))
    if cursor.rowcount == 0:
        raise NotFoundError("take", take_id)


def deleted_before(db: sqlite3.Connection, *, days: int) -> list[TakeRow]:
    """Takes that have been hidden for more than some days."""
    rows = db.execute(
        f"{SELECT} where take.deleted_at < {DAYS_AGO}",
        (days_ago(days),),
    )
    return [row_from(row) for row in rows]


def deleted(db: sqlite3.Connection) -> list[TakeRow]:
    """Takes that are hidden, the last deleted first."""
    rows = db.execute(f"{SELECT} where take.deleted_at is not null order by deleted_at desc")
    return [row_from(row) for row in rows]


def remove(db: sqlite3.Connection, take_id: int) -> None:
    """Forget a take for good."""
    take = by_id(db, take_id)
    for table in ("session_take", "folder_copy_film", "hand_film", "watched_film"):
        db.execute(f"update {table} set take_id = null where take_id = ?", (take_id,))
    for render in renders.of_take(db, take_id):
        renders.remove(db, render.id)
    jobs.forget(db, "follow", take_id)
    outings.unmeet(db, take_id)
    for table in ("summary", "subject", "subject_ask", "subject_away", "mark", "used_take"):
        db.execute(f"delete from {table} where take_id = ?", (take_id,))
    db.execute("delete from take where id = ?", (take_id,))
    briefs.remove_own(db, take.brief_id)


def row_from(row: sqlite3.Row) -> TakeRow:
    same = {
        name: row[name]
        for name in TakeRow.__dataclass_fields__
        if name not in ("brief", "ridge", "state", "stale")
    }
    return TakeRow(
        brief=briefs.brief_from(row),
        ridge=row["ridge"] or b"",
        state=row["state"] or "cancelled",
        stale=bool(row["stale"]),
        **same,
    )
