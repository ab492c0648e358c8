"""Practice sessions, their takes, and what came of them."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from datetime import datetime

from ridgewind.core.practice.session import Ask, Session
from ridgewind.moments import utc_text
from ridgewind.store.as_json import AsJson
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError

_ASK = AsJson(Ask)
_PLAN = AsJson(Session)
NOTE_FIELDS = ("felt", "wind", "fatigue", "tension")


@dataclass(frozen=True)
class SessionTakeRow:
    """gust, remedy: of the film that was filed under it, None where there is none."""

    position: int
    block: int
    drill_key: str
    variation_key: str
    state: str
    filmed_at: str | None
    felt: str | None
    wind: int | None
    fatigue: int | None
    tension: int | None
    take_id: int | None
    gust: float | None
    take_name: str | None


@dataclass(frozen=True)
class SessionRow:
    id: int
    name: str
    made_at: str
    ask: Ask
    plan: Session
    setup_id: int | None
    accepted_at: str | None
    ended_at: str | None
    takes: tuple[SessionTakeRow, ...]


@dataclass(frozen=True)
class ResultRow:
    """A take that was filmed, when, its gust where it was filed and measured, how it felt."""

    drill_key: str
    variation_key: str
    filmed_at: str
    gust: float | None
    felt: str | None


@dataclass(frozen=True)
class FiledRow:
    take_id: int
    variation_key: str
    session_name: str


@dataclass(frozen=True)
class LooseFilmRow:
    """A measured take that is filed nowhere, and what its slate says. from_s: where it begins
    in its film."""

    take_id: int
    name: str
    recorded_at: str | None
    from_s: float
    duration_s: float
    slate_session: int | None
    slate_take: int | None


def add(
    db: sqlite3.Connection,
    *,
    name: str,
    ask: Ask,
    plan: Session,
    setup_id: int | None,
    made_at: datetime | None = None,
) -> int:
    """Keep a planned session with all its takes; returns its id. made_at: aware of its zone; None
    is now."""
    cursor = db.execute(
        "insert into session (name, made_at, ask, plan, setup_id)"
        f" values (?, coalesce(?, {NOW}), ?, ?, ?)",
        (
            name,
            None if made_at is None else utc_text(made_at),
            _ASK.text(ask),
            _PLAN.text(plan),
            setup_id,
        ),
    )
    assert cursor.lastrowid is not None
    position = 0
    for block_index, block in enumerate(plan.blocks):
        for variation_key in block.order:
            db.execute(
                "insert into session_take (session_id, position, block, drill_key,"
                " variation_key, state) values (?, ?, ?, ?, ?, 'planned')",
                (cursor.lastrowid, position, block_index, block.drill_key, variation_key),
            )
            position += 1
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, session_id: int) -> SessionRow:
    row = db.execute("select * from session where id = ?", (session_id,)).fetchone()
    if row is None:
        raise NotFoundError("session", session_id)
    return _row(db, row)


def names(db: sqlite3.Connection) -> dict[int, str]:
    """Of all sessions."""
    return {row["id"]: row["name"] for row in db.execute("select id, name from session")}


def recent(db: sqlite3.Connection, *, limit: int) -> list[SessionRow]:
    """Sessions, the newest first."""
    rows = db.execute("select * from session order by id desc limit ?", (limit,)).fetchall()
    return [_row(db, row) for row in rows]


def accept(db: sqlite3.Connection, session_id: int) -> None:
    """The cautions were read."""
    _touch(db, session_id, f"accepted_at = coalesce(accepted_at, {NOW})")


def end(db: sqlite3.Connection, session_id: int, *, ended: bool) -> None:
    """Close a session; what was not filmed stays planned. Or open it again."""
    _touch(db, session_id, f"ended_at = {NOW if ended else 'null'}")


def set_state(
    db: sqlite3.Connection,
    session_id: int,
    position: int,
    state: str,
    *,
    filmed_at: datetime | None = None,
    keep_time: bool = False,
) -> None:
    """A take was filmed or skipped, or is to be done again. filmed_at: when, aware of its zone;
    None is now, and so is what has not come yet. keep_time: where it already has a time at which
    it was filmed, that stays."""
    given = None if filmed_at is None else utc_text(filmed_at)
    when = f"min(coalesce(:given, {NOW}), {NOW})" if state == "filmed" else "null"
    if keep_time:
        when = f"coalesce(filmed_at, {when})"
    cursor = db.execute(
        f"update session_take set state = :state, filmed_at = {when}"
        " where session_id = :session and position = :position",
        {"state": state, "session": session_id, "position": position, "given": given},
    )
    if cursor.rowcount == 0:
        raise NotFoundError("take of this session", position)


def set_notes(
    db: sqlite3.Connection, session_id: int, position: int, notes: dict[str, str | int | None]
) -> None:
    """Change the notes that are given; others stay."""
    for name in NOTE_FIELDS:
        if name in notes:
            db.execute(
                f"update session_take set {name} = ? where session_id = ? and position = ?",
                (notes[name], session_id, position),
            )


def running(db: sqlite3.Connection) -> int | None:
    """The session that was begun last and has not ended, None where there is none."""
    row = db.execute(
        "select id from session where accepted_at is not null and ended_at is null"
        " order by accepted_at desc, id desc limit 1"
    ).fetchone()
    return None if row is None else int(row["id"])


def file_take(db: sqlite3.Connection, session_id: int, position: int, take_id: int | None) -> None:
    """File a film under a planned take, or take it out; a film stands under one take only."""
    if take_id is not None:
        db.execute("update session_take set take_id = null where take_id = ?", (take_id,))
    cursor = db.execute(
        "update session_take set take_id = ? where session_id = ? and position = ?",
        (take_id, session_id, position),
    )
    if cursor.rowcount == 0:
        raise NotFoundError("take of this session", position)


def results(db: sqlite3.Connection) -> list[ResultRow]:
    """All filmed takes in order, with what is known of how they went."""
    rows = db.execute(
        "select drill_key, variation_key, filmed_at, felt,"
        " (select gust from summary join take on take.id = summary.take_id"
        "   where take.id = session_take.take_id and take.deleted_at is null) as gust"
        " from session_take where state = 'filmed' order by filmed_at"
    )
    return [
        ResultRow(
            row["drill_key"], row["variation_key"], row["filmed_at"], row["gust"], row["felt"]
        )
        for row in rows
    ]


def planned_seconds(db: sqlite3.Connection) -> dict[tuple[int, int], float]:
    """Seconds of every take that was ever planned, by session and position."""
    rows = db.execute(
        "select session_id, position,"
        " json_extract(session.plan, '$.blocks[' || block || '].take_s') as take_s"
        " from session_take join session on session.id = session_id"
    )
    return {(row["session_id"], row["position"]): row["take_s"] for row in rows}


def loose_films(db: sqlite3.Connection, *, limit: int) -> list[LooseFilmRow]:
    """Measured films that are filed under no take, the newest first."""
    rows = db.execute(
        "select take.id as take_id, take.name, clip.recorded_at,"
        " coalesce(take.film_from_s, 0.0) as from_s,"
        " coalesce(take.film_to_s - take.film_from_s, clip.duration_s) as duration_s,"
        " take.slate_session, take.slate_take from take join clip on clip.id = take.clip_id"
        " where take.deleted_at is null and take.origin = 'own' and clip.duration_s is not null"
        " and not exists (select 1 from session_take where session_take.take_id = take.id)"
        " order by take.id desc limit ?",
        (limit,),
    )
    fields = LooseFilmRow.__dataclass_fields__
    return [LooseFilmRow(**{name: row[name] for name in fields}) for row in rows]


def filed_under(db: sqlite3.Connection, drill_key: str, *, limit: int) -> list[FiledRow]:
    """Takes that are filed under a drill, the oldest of the newest few first."""
    rows = db.execute(
        "select * from (select session_take.take_id, variation_key, session.name as session_name"
        " from session_take join session on session.id = session_take.session_id"
        " join take on take.id = session_take.take_id and take.deleted_at is null"
        " where drill_key = ? order by session_take.take_id desc limit ?) order by take_id",
        (drill_key, limit),
    )
    return [FiledRow(row["take_id"], row["variation_key"], row["session_name"]) for row in rows]


def weakest_band(db: sqlite3.Connection, *, limit: int) -> str | None:
    """The band that rules most of the newest takes that must be done again, or None."""
    row = db.execute(
        "select top_band, count(*) as many from (select top_band from summary"
        " join take on take.id = summary.take_id"
        " where summary.remedy = 'retake' and take.deleted_at is null and top_band is not null"
        " order by take.id desc limit ?) group by top_band order by many desc, top_band limit 1",
        (limit,),
    ).fetchone()
    return None if row is None else str(row["top_band"])


def ridges(db: sqlite3.Connection, session_id: int) -> dict[int, bytes]:
    """The small ridge of each of a session's takes whose film is measured, by its position."""
    rows = db.execute(
        "select session_take.position, summary.ridge from session_take"
        " join take on take.id = session_take.take_id and take.deleted_at is null"
        " join summary on summary.take_id = take.id where session_id = ?",
        (session_id,),
    )
    return {row["position"]: row["ridge"] for row in rows}


def _touch(db: sqlite3.Connection, session_id: int, assignment: str) -> None:
    cursor = db.execute(f"update session set {assignment} where id = ?", (session_id,))
    if cursor.rowcount == 0:
        raise NotFoundError("session", session_id)


def _row(db: sqlite3.Connection, row: sqlite3.Row) -> SessionRow:
    takes = db.execute(
        "select session_take.*, take.id as film_id, take.name as take_name, summary.gust"
        " from session_take"
        " left join take on take.id = session_take.take_id and take.deleted_at is null"
        " left join summary on summary.take_id = take.id"
        " where session_id = ? order by position",
        (row["id"],),
    )
    fields = SessionTakeRow.__dataclass_fields__
    return SessionRow(
        id=row["id"],
        name=row["name"],
        made_at=row["made_at"],
        ask=_ASK.read(row["ask"]),
        plan=_PLAN.read(row["plan"]),
        setup_id=row["setup_id"],
        accepted_at=row["accepted_at"],
        ended_at=row["ended_at"],
        takes=tuple(
            # A deleted film counts as none, and stands here again when it is brought back.
            SessionTakeRow(**{**{name: take[name] for name in fields}, "take_id": take["film_id"]})
            for take in takes
        ),
    )
