"""Which take meets which planned shot, how sure that is, and what was filmed otherwise.

A slate says so. Without one, the moment at which *got it* was said tells, then the move that was
measured, where it is one shot's alone, then the order. A measured move that contradicts the plan
makes a match less sure, and is told.
"""

from __future__ import annotations

import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from ridgewind.core.moves import MeasuredMove
from ridgewind.core.moves.move import Direction, Kind
from ridgewind.core.sequence.shot import Heading, PlannedShot, ShotMove, move_words

How = Literal["slate", "clock", "motion", "order", "hand"]

SAID_WITHIN_S = 60.0
"""After a take ended, *got it* is said within so long (chosen here)."""

TOLD_APART = 1.5
"""Ratio of two moves' lengths from which they are not the same one (chosen here: one is filmed a
little longer or shorter than planned, hardly by half)."""

CERTAIN, LIKELY, POSSIBLE, CONTRADICTED = 0.99, 0.85, 0.5, 0.3

CAMERA: dict[tuple[ShotMove, Heading], tuple[Kind, Direction]] = {
    ("pan", "left"): ("pan", "left"), ("pan", "right"): ("pan", "right"),
    ("slide", "left"): ("pan", "left"), ("slide", "right"): ("pan", "right"),
    ("walk", "left"): ("pan", "left"), ("walk", "right"): ("pan", "right"),
    ("tilt", "up"): ("tilt", "up"), ("tilt", "down"): ("tilt", "down"),
    ("rise", "up"): ("tilt", "up"), ("rise", "down"): ("tilt", "down"),
    ("push_in", "in"): ("push", "in"), ("walk", "in"): ("push", "in"),
    ("pull_out", "out"): ("push", "out"), ("walk", "out"): ("push", "out"),
}  # fmt: skip
"""What the path of one background shows of each move; a turn and a travel look alike, and an orbit
keeps its subject in the middle, so that its path tells nothing."""

OPPOSITE: dict[Direction, Direction] = {
    "left": "right", "right": "left", "up": "down", "down": "up", "in": "out", "out": "in",
    "clockwise": "anticlockwise", "anticlockwise": "clockwise",
}  # fmt: skip


@dataclass(frozen=True)
class FilmedTake:
    """slate: outing and number of the shot that its slate names. begun_s: by the camera's clock,
    s; None where its file does not say. move: None where the camera was held; moved: whether that
    is known at all."""

    id: int
    slate: tuple[int, int] | None
    begun_s: float | None
    length_s: float
    move: MeasuredMove | None
    moved: bool = True


@dataclass(frozen=True)
class WantedShot:
    """number: by which its slate names it. got_s: when it was said that it was got, s. met: takes
    that it has already."""

    id: int
    number: int
    shot: PlannedShot
    got_s: float | None
    met: int = 0


@dataclass(frozen=True)
class Meeting:
    """certainty: 0 to 1. reason: in words. otherwise: what was filmed otherwise than planned, None
    where nothing was."""

    take_id: int
    shot_id: int
    how: How
    certainty: float
    reason: str
    otherwise: str | None


def meet(
    takes: Sequence[FilmedTake], shots: Sequence[WantedShot], *, outing_id: int
) -> tuple[Meeting, ...]:
    """Match takes to shots. A shot may be met by several takes, a take meets one shot.

    shots: in the order in which they were to be filmed.
    """
    found: dict[int, Meeting] = {}
    by_number = {shot.number: shot for shot in shots}
    for take in takes:
        if take.slate is not None and take.slate[0] == outing_id and take.slate[1] in by_number:
            named = by_number[take.slate[1]]
            found[take.id] = _meeting(take, named, "slate", CERTAIN, "its slate says so")
    left = [take for take in takes if take.id not in found and take.slate is None]
    _by_clock(left, shots, _ahead_s(takes, shots, found), found)
    left = [take for take in left if take.id not in found]
    met = {one.shot_id for one in found.values()} | {shot.id for shot in shots if shot.met}
    _by_motion(left, [shot for shot in shots if shot.id not in met], found)
    left = [take for take in left if take.id not in found]
    met |= {one.shot_id for one in found.values()}
    _by_order(left, [shot for shot in shots if shot.id not in met], found)
    return tuple(found[take.id] for take in takes if take.id in found)


def _meeting(take: FilmedTake, shot: WantedShot, how: How, sure: float, reason: str) -> Meeting:
    otherwise = filmed_otherwise(shot.shot, take.move) if take.moved else None
    if otherwise is not None and how != "slate":
        sure = min(sure, CONTRADICTED)
    return Meeting(take.id, shot.id, how, sure, reason, otherwise)


def _ends_s(take: FilmedTake) -> float | None:
    return None if take.begun_s is None else take.begun_s + take.length_s


def _ahead_s(
    takes: Sequence[FilmedTake], shots: Sequence[WantedShot], found: dict[int, Meeting]
) -> float:
    """How far the camera's clock is ahead, as the slates tell; 0 where none do."""
    got = {shot.id: shot.got_s for shot in shots}
    told = []
    for take in takes:
        said, ends = got.get(found[take.id].shot_id) if take.id in found else None, _ends_s(take)
        if said is not None and ends is not None:
            told.append(ends - said)
    return statistics.median(told) if told else 0.0


def _by_clock(
    takes: Sequence[FilmedTake],
    shots: Sequence[WantedShot],
    ahead_s: float,
    found: dict[int, Meeting],
) -> None:
    for take in takes:
        ends = _ends_s(take)
        if ends is None:
            continue
        waits = [
            (abs(shot.got_s - (ends - ahead_s)), shot) for shot in shots if shot.got_s is not None
        ]
        wait_s, shot = min(waits, key=lambda one: one[0], default=(SAID_WITHIN_S + 1, None))
        if shot is not None and wait_s <= SAID_WITHIN_S:
            reason = f"it ended {wait_s:.0f} s from when you said that you got it"
            found[take.id] = _meeting(take, shot, "clock", LIKELY, reason)


def _by_motion(
    takes: Sequence[FilmedTake], shots: Sequence[WantedShot], found: dict[int, Meeting]
) -> None:
    """A move that one take and one shot alone have; of several alike, by how long they go, where
    that tells all of them apart."""
    for wanted in dict.fromkeys(expected(shot.shot) for shot in shots):
        alike = [shot for shot in shots if expected(shot.shot) == wanted]
        filmed = [
            one for one in takes if one.move and (one.move.kind, one.move.direction) == wanted
        ]
        if wanted is None or len(alike) != len(filmed):
            continue
        alike.sort(key=lambda shot: shot.shot.filmed_s)
        filmed.sort(key=_move_s)
        if not _apart([shot.shot.filmed_s for shot in alike]) or not _apart(
            [_move_s(one) for one in filmed]
        ):
            continue
        for shot, one in zip(alike, filmed, strict=True):
            name = move_words(shot.shot)
            reason = f"it is the only {name}"
            if len(alike) > 1:
                reason = f"its {name} of {_move_s(one):.1f} s is nearest to the time planned"
            found[one.id] = _meeting(one, shot, "motion", POSSIBLE, reason)


def _move_s(take: FilmedTake) -> float:
    return 0.0 if take.move is None else take.move.seconds


def _apart(growing_s: Sequence[float]) -> bool:
    """Whether no two of some growing lengths could be one."""
    return all(later >= TOLD_APART * earlier for earlier, later in pairwise(growing_s))


def _by_order(
    takes: Sequence[FilmedTake], shots: Sequence[WantedShot], found: dict[int, Meeting]
) -> None:
    """The rest in order, where there are as many of either."""
    if not takes or len(takes) != len(shots):
        return
    known = all(take.begun_s is not None for take in takes)
    ordered = sorted(takes, key=lambda one: one.begun_s or 0.0) if known else list(takes)
    for take, shot in zip(ordered, shots, strict=True):
        found[take.id] = _meeting(take, shot, "order", POSSIBLE, "it comes in this order")


def expected(shot: PlannedShot) -> tuple[Kind, Direction] | None:
    """What the path of a shot should show; None where it tells nothing of its move."""
    return None if shot.heading is None else CAMERA.get((shot.move, shot.heading))


def filmed_otherwise(shot: PlannedShot, move: MeasuredMove | None) -> str | None:
    """What a take's move has other than its shot's, in a sentence with what to do; None where
    nothing is.

    >>> filmed_otherwise(PlannedShot("mill", move="pan", heading="left"), None)
    'Planned as a pan left; the camera was held still. Film it again, or change the plan.'
    """
    told = _difference(shot, move)
    if told is None:
        return None
    reverses = is_reversed(shot, move)
    return f"{told}. {'Reverse it, or film it again.' if reverses else AGAIN}"


AGAIN = "Film it again, or change the plan."


def _difference(shot: PlannedShot, move: MeasuredMove | None) -> str | None:
    wanted = expected(shot)
    if shot.move == "still":
        return None if move is None else f"Planned still; it goes {move.direction}"
    if wanted is None or (move is not None and (move.kind, move.direction) == wanted):
        return None
    planned = f"Planned as a {move_words(shot)}"
    if move is None:
        return f"{planned}; the camera was held still"
    same_kind = move.kind == wanted[0]
    return f"{planned}; {'filmed' if same_kind else 'it goes'} {move.direction}"


def is_reversed(shot: PlannedShot, move: MeasuredMove | None) -> bool:
    """Whether a take goes its shot's way backwards, so that reversing it mends it."""
    wanted = expected(shot)
    return (
        move is not None and wanted is not None
        and (move.kind, OPPOSITE[move.direction]) == wanted
    )  # fmt: skip
