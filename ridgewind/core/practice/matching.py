"""Which film belongs to which planned take: by slate, by the camera's clock, by order.

Clocks of cameras are wrong by minutes or hours, but by the same amount all day: the films that
slates have settled tell how much, and the others follow. Without any slate the offset is the one
at which most films meet a take. What is left is matched in order, if the lengths agree.
"""

from __future__ import annotations

import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

How = Literal["slate", "clock", "order"]

CLOCK_TOLERANCE_S = 12.0
"""A film belongs to a take when their corrected times are this near (chosen here)."""

LENGTH_SHARE, LENGTH_SLACK_S = 0.5, 8.0
"""A film is at least this share of its take's seconds, and at most so much longer."""

LEAST_MEETINGS = 2
CERTAIN, LIKELY, POSSIBLE = 0.99, 0.85, 0.5


@dataclass(frozen=True)
class Film:
    """A film that is not filed yet. slate: session and take that its code names. begun_s: when
    it began by the camera's clock, s; None where the file does not say."""

    id: int
    slate: tuple[int, int] | None
    begun_s: float | None
    length_s: float


@dataclass(frozen=True)
class Planned:
    """A take to which no film is filed. rolled_s: when it ended by the runner's clock, or None
    where it was not run."""

    position: int
    rolled_s: float | None
    take_s: float


@dataclass(frozen=True)
class Match:
    """certainty: 0 to 1. reason: in words."""

    film_id: int
    position: int
    how: How
    certainty: float
    reason: str


@dataclass(frozen=True)
class Matches:
    """offset_s: how far the camera's clock is ahead, None where it could not be learnt."""

    matches: tuple[Match, ...]
    offset_s: float | None
    loose: tuple[int, ...]


def match(films: Sequence[Film], planned: Sequence[Planned], *, session_id: int) -> Matches:
    """Match films to planned takes; every film and every take is used at most once."""
    found: dict[int, Match] = {}
    free = {take.position: take for take in planned}
    for film in sorted(films, key=lambda film: film.id):
        if film.slate is not None and film.slate[0] == session_id and film.slate[1] in free:
            free.pop(film.slate[1])
            found[film.id] = Match(film.id, film.slate[1], "slate", CERTAIN, "its slate says so")
    offset = _offset(films, planned, found)
    left = [film for film in films if film.id not in found and film.slate is None]
    if offset is not None:
        _by_clock(left, free, offset, found)
    # A film whose clock is understood, and meets no take, is not guessed at.
    unsaid = [
        film for film in left if film.id not in found and (offset is None or film.begun_s is None)
    ]
    _by_order(unsaid, free, found)
    loose = tuple(film.id for film in films if film.id not in found)
    return Matches(tuple(found.values()), offset, loose)


def _ends_s(film: Film) -> float | None:
    return None if film.begun_s is None else film.begun_s + film.length_s


def _offset(
    films: Sequence[Film], planned: Sequence[Planned], found: dict[int, Match]
) -> float | None:
    """How far the camera's clock is ahead of the runner's."""
    by_position = {take.position: take for take in planned}
    told = []
    for film in films:
        rolled = by_position[found[film.id].position].rolled_s if film.id in found else None
        ends = _ends_s(film)
        if rolled is not None and ends is not None:
            told.append(ends - rolled)
    if told:
        return statistics.median(told)
    return _voted_offset(films, planned)


def _voted_offset(films: Sequence[Film], planned: Sequence[Planned]) -> float | None:
    """The offset at which most films meet a take; None where fewer than two would, or where
    another one does as well (takes at even spaces look alike when shifted by one)."""
    ends = [one for one in map(_ends_s, films) if one is not None]
    rolled = [take.rolled_s for take in planned if take.rolled_s is not None]
    gaps = sorted(end - roll for end in ends for roll in rolled)
    votes: list[tuple[int, float]] = []
    for first in range(len(gaps)):
        last = first
        while last < len(gaps) and gaps[last] - gaps[first] <= CLOCK_TOLERANCE_S:
            last += 1
        votes.append((last - first, statistics.median(gaps[first:last])))
    if not votes:
        return None
    most, offset = max(votes, key=lambda vote: vote[0])
    rivals = [one for count, one in votes if count == most]
    if most < LEAST_MEETINGS or any(abs(one - offset) > CLOCK_TOLERANCE_S for one in rivals):
        return None
    return offset


def _by_clock(
    films: Sequence[Film], free: dict[int, Planned], offset: float, found: dict[int, Match]
) -> None:
    pairs = []
    for film in films:
        ends = _ends_s(film)
        for take in free.values():
            if ends is not None and take.rolled_s is not None:
                apart = abs(ends - offset - take.rolled_s)
                if apart <= CLOCK_TOLERANCE_S and _fits(film, take):
                    pairs.append((apart, film.id, take.position))
    for apart, film_id, position in sorted(pairs):
        if film_id in found or position not in free:
            continue
        free.pop(position)
        certainty = LIKELY * (1.0 - 0.5 * apart / CLOCK_TOLERANCE_S)
        reason = f"its clock, {apart:.0f} s from the take"
        found[film_id] = Match(film_id, position, "clock", certainty, reason)


def _by_order(
    films: Sequence[Film],
    free: dict[int, Planned],
    found: dict[int, Match],
) -> None:
    """In order, between what is settled, where as many takes were run as films are left."""
    run = [take for take in free.values() if take.rolled_s is not None]
    ordered = sorted(films, key=lambda film: (film.begun_s is None, film.begun_s or 0.0, film.id))
    if len(run) != len(ordered):
        return
    pairs = list(zip(ordered, sorted(run, key=lambda take: take.position), strict=True))
    if not all(_fits(film, take) for film, take in pairs):
        return
    for film, take in pairs:
        free.pop(take.position)
        found[film.id] = Match(
            film.id, take.position, "order", POSSIBLE, "the order, and its length fits"
        )


def _fits(film: Film, take: Planned) -> bool:
    """Whether the length of a film could be that of a take."""
    longest = take.take_s + LENGTH_SLACK_S + LENGTH_SHARE * take.take_s
    return LENGTH_SHARE * take.take_s <= film.length_s <= longest
