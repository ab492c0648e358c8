"""File films under the takes of a session: what could belong where, and why."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from datetime import UTC, datetime

from ridgewind.core.practice.matching import Film, Match, Planned, match
from ridgewind.store import sessions

MOST_FILMS = 300


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


def proposals(db: sqlite3.Connection, session_id: int) -> Proposals:
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
            _seconds(row.recorded_at),
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


def _seconds(moment: str | None) -> float | None:
    """Seconds since 1970 of an ISO moment; one without a zone is taken as UTC."""
    if moment is None:
        return None
    try:
        parsed = datetime.fromisoformat(moment)
    except ValueError:
        return None
    return (parsed if parsed.tzinfo else parsed.replace(tzinfo=UTC)).timestamp()
