"""A phone taped to the camera logs its turning for a whole session; at the desk the log is cut by
the films' own times, and each piece joined to its film.

The clocks of camera and phone differ. Films whose picture could be measured say by how much, by
cross-correlation; that difference then places the log under films whose picture says nothing.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path
from typing import Literal

import numpy as np

from ridgewind.core.motion.log_match import SURE, LogMatch, match_log
from ridgewind.core.motion.path import Motion
from ridgewind.core.motion.turn_rates import (
    SECONDS,
    LogMapping,
    Offset,
    TurnRates,
    cut_rates,
    read_table,
    turn_rates,
)
from ridgewind.library.library import Library
from ridgewind.library.logs import lines_of, path_at
from ridgewind.media.decode import Film
from ridgewind.media.errors import MediaError
from ridgewind.moments import moment_of
from ridgewind.services import logs
from ridgewind.store import clips, motion_logs
from ridgewind.store.database import Connection
from ridgewind.store.motion_logs import FilmedRow

CLOCKS_APART_S = 120.0
"""By which the clocks of a camera and a phone may differ."""

NEAR_S = 5.0
"""Within which a film is looked for once others have told the clocks' difference."""

LEAST_AGREEING, MOST_APART_S = 2, 1.5
"""Films whose motion tells the clocks' difference, and by how much they may differ, for a film to
be placed by the clock alone: containers hold whole seconds."""

State = Literal["joined", "by_clock", "unsure", "outside"]


@dataclass(frozen=True)
class Joined:
    """What became of one film. state: joined by its motion; by the clock alone, where the picture
    cannot be measured; unsure where it is not; or outside of the log. ahead_s: of the film's clock
    against the log's, None where it was not told."""

    take_id: int
    name: str
    state: State
    ahead_s: float | None
    certainty: float | None


@dataclass(frozen=True)
class _Film:
    """began_s: when it began, s since 1970, as its own clock has it."""

    row: FilmedRow
    began_s: float
    duration_s: float


@dataclass(frozen=True)
class _Found:
    """clock_s: where in the log the clocks have its first frame. begin_s, match: where its motion
    has it."""

    film: _Film
    picture: Motion | None
    clock_s: float
    begin_s: float | None = None
    match: LogMatch | None = None


def join(
    library: Library,
    db: Connection,
    log: Path,
    *,
    name: str,
    mapping: LogMapping,
    clock_ahead_s: float,
) -> list[Joined]:
    """Cut a log whose times are a clock's, seconds since 1970, and join its pieces to the films of
    that time. clock_ahead_s: of the log's clock against this computer's. Raises LogError."""
    table = read_table(lines_of(log))
    rates = turn_rates(table, mapping)
    stamps = table.values[:, table.names.index(mapping.time)] * SECONDS[mapping.time_unit]
    begun_s = float(stamps[np.isfinite(stamps)].min()) - clock_ahead_s
    length_s = float(rates.t_s[-1])
    from_s, to_s = begun_s - CLOCKS_APART_S, begun_s + length_s + CLOCKS_APART_S
    films = [_film(library, row) for row in motion_logs.films(db, from_s, to_s)]
    found = [
        _look(db, film, rates, film.began_s - begun_s)
        for film in films
        if film is not None and from_s <= film.began_s <= to_s
    ]
    ahead = [
        one.begin_s - one.clock_s for one in found if _is_sure(one) and one.begin_s is not None
    ]
    usual_s = float(np.median(ahead)) if ahead else None
    # One film cannot show whether its clock marks the beginning; two that agree do.
    agree = len(ahead) >= LEAST_AGREEING and max(ahead) - min(ahead) <= MOST_APART_S
    if usual_s is not None:
        found = [one if _is_sure(one) else _look_near(one, rates, usual_s) for one in found]
    out = [
        _keep(library, db, one, rates, usual_s if agree else None, name, mapping) for one in found
    ]
    logs.remember(db, table.names, mapping)
    return out


def _film(library: Library, row: FilmedRow) -> _Film | None:
    """A film with its time and length, from the file itself where it could not be measured; None
    where that says nothing either, or it is a log without a picture."""
    recorded_at, duration_s = row.recorded_at, row.duration_s
    if duration_s is None:
        try:
            with Film(library.film(row.file)) as film:
                recorded_at, duration_s = film.facts.recorded_at, film.facts.duration_s
        except MediaError:
            return None
    if recorded_at is None or duration_s is None or row.file.endswith(".csv"):
        return None
    return _Film(row, moment_of(recorded_at).timestamp(), duration_s)


def _look(db: Connection, film: _Film, rates: TurnRates, clock_s: float) -> _Found:
    by_log = clips.by_id(db, film.row.clip_id).log_focal_eq_mm is not None
    picture = None if by_log else clips.motion_of(db, film.row.clip_id)
    return _placed(_Found(film, picture, clock_s), rates, clock_s, CLOCKS_APART_S)


def _look_near(found: _Found, rates: TurnRates, usual_s: float) -> _Found:
    return _placed(found, rates, found.clock_s + usual_s, NEAR_S)


def _placed(found: _Found, rates: TurnRates, about_s: float, within_s: float) -> _Found:
    """Where in the log a film begins, near a place."""
    if found.picture is None or not found.picture.trusted.any():
        return found
    part = cut_rates(rates, about_s - within_s, about_s + found.film.duration_s + within_s)
    if part is None:
        return found
    path = path_at(part, found.film.row.focal_eq_mm)
    match = match_log(found.picture, path)
    begin_s = float(found.picture.t_s[0]) - match.offset.seconds
    return replace(found, begin_s=begin_s, match=match)


def _is_sure(found: _Found) -> bool:
    return found.match is not None and found.match.offset.certainty >= SURE


def _is_in_doubt(found: _Found) -> bool:
    """Whether it is not settled whose motion its picture shows, and the log does not settle it."""
    picture = found.picture
    return picture is not None and any(shot.doubt is not None for shot in picture.shots)


def _keep(
    library: Library,
    db: Connection,
    found: _Found,
    rates: TurnRates,
    usual_s: float | None,
    name: str,
    mapping: LogMapping,
) -> Joined:
    film, length_s = found.film, found.film.duration_s
    take_id = film.row.take_id
    told = (take_id, film.row.name)
    begin_s, match = found.begin_s, found.match
    offset: Offset | None = None
    state: State = "unsure"
    if _is_sure(found) and begin_s is not None and match is not None:
        offset, state = match.offset, "joined"
    elif _is_in_doubt(found) and usual_s is not None:
        begin_s, offset, state = found.clock_s + usual_s, Offset(0.0, 0.0, 0.0), "by_clock"
    if begin_s is not None and offset is not None and found.picture is not None:
        part = cut_rates(rates, begin_s - logs.AROUND_S, begin_s + length_s + logs.AROUND_S)
        if part is None:
            return Joined(*told, "outside", None, None)
        rebased = replace(part, t_s=part.t_s - part.t_s[0])
        seconds = float(found.picture.t_s[0]) - (begin_s - float(part.t_s[0]))
        logs.keep_beside(
            db, take_id, name=name, rates=rebased, mapping=mapping,
            offset=replace(offset, seconds=seconds), match=match if state == "joined" else None,
        )  # fmt: skip
        sure = offset.certainty if state == "joined" else None
        return Joined(*told, state, begin_s - found.clock_s, sure)
    if found.picture is None and usual_s is not None:
        begin_s = found.clock_s + usual_s
        part = cut_rates(rates, begin_s, begin_s + length_s)
        if part is None or part.t_s[-1] - part.t_s[0] < 0.5 * length_s:
            return Joined(*told, "outside", None, None)
        rebased = replace(part, t_s=part.t_s - part.t_s[0])
        logs.keep_instead(library, db, take_id, name=name, rates=rebased, mapping=mapping)
        return Joined(*told, "by_clock", usual_s, None)
    if match is None:
        return Joined(*told, "outside", None, None)
    return Joined(*told, "unsure", None, match.offset.certainty)
