"""File films under the takes of a session: what could belong where, and why."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.practice.matching import Film, Match, Planned, match
from ridgewind.core.practice.session import COUNT_IN_S
from ridgewind.moments import moment_of
from ridgewind.services import assessing
from ridgewind.store import clips, database, drills, sessions, summaries, takes
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError

MOST_FILMS = 300
LEAST_LEFT_S = 1.0
"""A film that is shorter after its slate was cut off early, and is judged whole."""


@dataclass(frozen=True)
class LooseFilm:
    """A measured film that is filed nowhere. begun_s: by the camera's clock, s since 1970."""

    take_id: int
    name: str
    begun_s: float | None
    length_s: float
    has_slate: bool


@dataclass(frozen=True)
class Proposals:
    """films: all loose ones. rolled_s: by position, when each planned take ended, or None.
    offset_s: how far the camera's clock is ahead, None where it could not be learnt."""

    films: tuple[LooseFilm, ...]
    rolled_s: tuple[float | None, ...]
    matches: tuple[Match, ...]
    offset_s: float | None


def proposals(db: Connection, session_id: int) -> Proposals:
    """Match the newest loose films to the takes of a session that have none."""
    session = sessions.by_id(db, session_id)
    blocks = session.plan.blocks
    planned = [
        Planned(take.position, _seconds(take.filmed_at), blocks[take.block].take_s)
        for take in session.takes
        if take.take_id is None and take.state != "skipped"
    ]
    rows = sessions.loose_films(db, limit=MOST_FILMS)
    films = [
        Film(
            row.take_id,
            None if row.slate_session is None or row.slate_take is None
            else (row.slate_session, row.slate_take),
            _begun_s(row),
            row.duration_s,
        )
        for row in rows
    ]  # fmt: skip
    found = match(films, planned, session_id=session_id)
    return Proposals(
        films=tuple(
            LooseFilm(row.take_id, row.name, film.begun_s, row.duration_s, film.slate is not None)
            for row, film in zip(rows, films, strict=True)
        ),
        rolled_s=tuple(_seconds(take.filmed_at) for take in session.takes),
        matches=tuple(sorted(found.matches, key=lambda one: one.position)),
        offset_s=found.offset_s,
    )


def file_film(db: Connection, session_id: int, position: int, take_id: int | None) -> None:
    """File a film under a planned take, and leave its slate and count-in out of what is judged.
    None takes the film out again, and judges all of it."""
    session = sessions.by_id(db, session_id)
    if not 0 <= position < len(session.takes):
        raise NotFoundError("take of this session", position)
    before = session.takes[position].take_id
    with database.atomic(db):
        if before is not None and before != take_id:
            takes.set_part(db, before, None)
            takes.set_filed_name(db, before, None)
            summaries.mark_take_stale(db, before)
        if take_id is not None:
            sessions.set_state(db, session_id, position, "filmed", keep_time=True)
            block = session.plan.blocks[session.takes[position].block]
            takes.set_part(db, take_id, _rolled_part(db, take_id, block.take_s))
            takes.set_filed_name(db, take_id, filed_name(db, session, position))
            summaries.mark_take_stale(db, take_id)
        sessions.file_take(db, session_id, position, take_id)
    for changed in {before, take_id}:
        if changed is not None:
            assessing.summarise(db, changed)


def filed_name(db: Connection, session: sessions.SessionRow, position: int) -> str:
    """What a film is called that is filed under a planned take: its drill and variation, numbered
    where the session has several of them."""
    wanted = session.takes[position]
    drill = drills.library(db, archived=True).get(wanted.drill_key)
    if drill is None:
        return session.name
    variation = next((one for one in drill.variations if one.key == wanted.variation_key), None)
    alike = [
        take.position
        for take in session.takes
        if (take.drill_key, take.variation_key) == (wanted.drill_key, wanted.variation_key)
    ]
    number = "" if len(alike) == 1 else f" {alike.index(position) + 1}"
    return f"{wanted.variation_key if variation is None else variation.name}{number} · {drill.name}"


def _begun_s(row: sessions.LooseFilmRow) -> float | None:
    begun_s = _seconds(row.recorded_at)
    return None if begun_s is None else begun_s + row.from_s


def _rolled_part(db: Connection, take_id: int, take_s: float) -> tuple[float, float] | None:
    """From the roll to the end cue: the slate is followed by the count-in, then the take."""
    take = takes.by_id(db, take_id)
    end_s = take.film_part[1] if take.film_part else clips.by_id(db, take.clip_id).duration_s
    if take.slate_until_s is None or end_s is None:
        return None
    from_s = take.slate_until_s + COUNT_IN_S
    to_s = min(from_s + take_s, end_s)
    return (from_s, to_s) if to_s - from_s >= LEAST_LEFT_S else None


def _seconds(moment: str | None) -> float | None:
    return None if moment is None else moment_of(moment).timestamp()
