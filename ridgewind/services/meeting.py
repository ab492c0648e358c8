"""Takes meet shots: proposed with certainty and reason, confirmed, undone."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.moves import MeasuredMove
from ridgewind.core.practice.slate import outing_of
from ridgewind.core.sequence.meeting import (
    FilmedTake,
    How,
    Meeting,
    WantedShot,
    filmed_otherwise,
    meet,
)
from ridgewind.core.sequence.order import filming_order
from ridgewind.moments import moment_of
from ridgewind.services import assessing
from ridgewind.store import database, outings, sessions, takes
from ridgewind.store.database import Connection
from ridgewind.store.outings import ShotRow
from ridgewind.store.sessions import LooseFilmRow
from ridgewind.store.takes import TakeRow

MOST_FILMS = 80
"""Loose takes that are looked at, the newest first."""


@dataclass(frozen=True)
class MetTake:
    """A take that meets a shot. otherwise: what of it was filmed otherwise than planned."""

    shot_id: int
    take: TakeRow
    how: str
    otherwise: str | None


@dataclass(frozen=True)
class Meetings:
    """met: takes that meet shots. proposed: takes that could. names: of those that could."""

    met: tuple[MetTake, ...]
    proposed: tuple[Meeting, ...]
    names: dict[int, str]


def meetings(db: Connection, outing_id: int) -> Meetings:
    """Raises NotFoundError."""
    row = outings.by_id(db, outing_id)
    shots = outings.shots(db, outing_id)
    planned = {one.id: one.shot for one in shots}
    met = []
    for one in outings.met(db, outing_id):
        if one.shot_id in planned:
            known, move = _move_of(db, one.take_id)
            otherwise = filmed_otherwise(planned[one.shot_id], move) if known else None
            met.append(MetTake(one.shot_id, takes.by_id(db, one.take_id), one.how, otherwise))
    order = filming_order(list(planned.values()), here=row.place)
    numbers = outings.numbers(db, outing_id)
    wanted = [
        WantedShot(
            id=one.id, number=numbers[one.id], shot=one.shot, got_s=_got_s(one),
            met=sum(other.shot_id == one.id for other in met),
        )
        for one in (shots[k] for k in order.positions)
        if one.state != "impossible"
    ]  # fmt: skip
    loose = [film for film in sessions.loose_films(db, limit=MOST_FILMS) if _is_free(film)]
    taken = outings.met_anywhere(db)
    unmet = [film for film in loose if film.take_id not in taken]
    found = meet([_filmed(db, film) for film in unmet], wanted, outing_id=outing_id)
    place = {one.id: k for k, one in enumerate(shots)}
    return Meetings(
        met=tuple(met),
        proposed=tuple(sorted(found, key=lambda one: place[one.shot_id])),
        names={film.take_id: film.name for film in unmet},
    )


def file(db: Connection, outing_id: int, take_id: int, shot_id: int | None, *, how: How) -> None:
    """Let a take meet a shot of an outing, or none. Raises NotFoundError and
    InvalidArgumentError."""
    takes.by_id(db, take_id)
    if shot_id is not None and outings.shot_by_id(db, shot_id).outing_id != outing_id:
        raise InvalidArgumentError("shot_id", shot_id, "it is another outing's shot")
    with database.atomic(db):
        outings.meet(db, take_id, shot_id, how=how)


def _is_free(film: LooseFilmRow) -> bool:
    """Whether its slate names no session's take."""
    if film.slate_session is None or film.slate_take is None:
        return True
    return outing_of((film.slate_session, film.slate_take)) is not None


def _filmed(db: Connection, film: LooseFilmRow) -> FilmedTake:
    known, move = _move_of(db, film.take_id)
    slate = None
    if film.slate_session is not None and film.slate_take is not None:
        slate = outing_of((film.slate_session, film.slate_take))
    begun_s = None
    if film.recorded_at is not None:
        begun_s = moment_of(film.recorded_at).timestamp() + film.from_s
    return FilmedTake(film.take_id, slate, begun_s, film.duration_s, move, moved=known)


def _move_of(db: Connection, take_id: int) -> tuple[bool, MeasuredMove | None]:
    """Whether it is known how a take's camera moved, and its move."""
    verdict = assessing.verdict_of(db, take_id)
    return (False, None) if verdict is None else (verdict.known, verdict.move)


def _got_s(shot: ShotRow) -> float | None:
    if shot.state != "got" or shot.changed_at is None:
        return None
    return moment_of(shot.changed_at).timestamp()
