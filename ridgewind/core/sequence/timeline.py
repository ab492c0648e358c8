"""A sequence: pieces of takes one after the other, counted in whole frames.

Lengths are counts of frames at the sequence's own rate, never seconds that add up: each piece is
rounded by itself, and the whole is their sum.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_between, require_positive
from ridgewind.core.sequence.joins import edge_velocity
from ridgewind.core.shake.gust import in_long_sides
from ridgewind.core.shake.lowpass import lowpass
from ridgewind.core.shake.reading import ShotReading
from ridgewind.core.shake.stretch import Stretch
from ridgewind.core.units import aspect_to_rho

Floats = NDArray[np.float64]

SPEED_RANGE = (0.05, 4.0)
SHORTEST_S = 0.2
"""Of a film, that a piece uses (chosen here: five or six frames)."""

SAME_STEP = 0.002
"""Share by which a step may be off a whole number: 59.94 over 30 is two (chosen here)."""

INTENDED_HZ = 0.5
"""What is slower was meant (definition)."""


@dataclass(frozen=True)
class Piece:
    """A part of a take, as the sequence shows it. take_id: None where a shot has no take yet.
    shot_id: of the outing, None for none. in_s, out_s: s from the film's first frame; of a missing
    take only their distance counts. speed: share of full speed. backwards: shown from its end."""

    take_id: int | None
    shot_id: int | None
    in_s: float
    out_s: float
    speed: float = 1.0
    backwards: bool = False

    @property
    def seconds(self) -> float:
        """On screen, s, before it is rounded to frames."""
        return (self.out_s - self.in_s) / self.speed


@dataclass(frozen=True)
class Placed:
    """Where a piece stands: frames of the sequence, from 0."""

    start: int
    frames: int


def ending_at(piece: Piece, at_s: float) -> Piece:
    """The piece with its last picture at another moment of its film, s."""
    return replace(piece, in_s=at_s) if piece.backwards else replace(piece, out_s=at_s)


def beginning_at(piece: Piece, at_s: float) -> Piece:
    """The piece with its first picture at another moment of its film, s."""
    return replace(piece, out_s=at_s) if piece.backwards else replace(piece, in_s=at_s)


def check_piece(piece: Piece) -> Piece:
    """The piece, if it can be. Raises InvalidArgumentError."""
    require_between("speed", piece.speed, *SPEED_RANGE)
    if not piece.in_s >= 0:
        raise InvalidArgumentError("in_s", piece.in_s, "it must not be before the film begins")
    if not SHORTEST_S <= piece.out_s - piece.in_s < float("inf"):
        rule = f"it must be {SHORTEST_S:g} s or more after {piece.in_s:g} s"
        raise InvalidArgumentError("out_s", piece.out_s, rule)
    return piece


def placed(pieces: Sequence[Piece], *, rate_hz: float) -> tuple[Placed, ...]:
    """Every piece's frames, one after the other, each of one frame at the least.

    >>> placed([Piece(1, None, 0, 2.01), Piece(2, None, 1, 2, speed=0.5)], rate_hz=25)
    (Placed(start=0, frames=50), Placed(start=50, frames=50))
    """
    require_positive("rate_hz", rate_hz)
    frames = [max(1, int(np.floor(piece.seconds * rate_hz + 0.5))) for piece in pieces]
    starts = [0, *itertools.accumulate(frames)]
    return tuple(Placed(start, count) for start, count in zip(starts, frames, strict=False))


def shown_step(fps: float, speed: float, *, rate_hz: float) -> float:
    """Frames filmed for each one that a sequence shows, 1 where all are shown or some twice. Where
    it is no whole number frames are left out unevenly, and a move stutters.

    >>> [shown_step(*one, rate_hz=24) for one in ((60, 0.4), (48, 1), (30, 1), (25, 0.5))]
    [1.0, 2.0, 1.25, 1.0]
    """
    step = fps * speed / rate_hz
    whole = round(step)
    if whole >= 1 and abs(step - whole) <= SAME_STEP * whole:
        return float(whole)
    return max(1.0, step)


@dataclass(frozen=True)
class PieceMotion:
    """What a piece's motion is as it is shown. gust: None where nothing can be trusted. entry,
    exit: (3,) velocity of pan, tilt and push at its ends, percent of the long side a second."""

    gust: float | None
    entry: Floats
    exit: Floats


def motion_of(
    piece: Piece, shot: ShotReading, *, first_s: float, aspect: float, screen_deg: float
) -> PieceMotion | None:
    """The motion of a piece, of the reading at its speed of the shot that it lies in; None where
    it shows too little of it.

    first_s: the film's first frame, s in the file. shot: read at playback `piece.speed`.
    """
    inside = samples_in(piece, shot, first_s=first_s)
    if inside is None:
        return None
    meant = intended(shot, aspect=aspect)
    return PieceMotion(
        gust=shot.gust(inside, screen_deg=screen_deg),
        entry=_velocity(piece, meant, inside, rate_hz=shot.rate_hz, at_end=False),
        exit=_velocity(piece, meant, inside, rate_hz=shot.rate_hz, at_end=True),
    )


def _velocity(
    piece: Piece, meant: Floats, inside: Stretch, *, rate_hz: float, at_end: bool
) -> Floats:
    """(3,) what is seen at an end of a piece. meant: of its whole shot."""
    part = meant[inside.start : inside.stop + 1]
    # What is seen last of a piece that runs backwards is the beginning of its film.
    filmed = edge_velocity(part, rate_hz=rate_hz, at_end=at_end != piece.backwards)
    return piece.speed * (-filmed if piece.backwards else filmed)


def samples_in(piece: Piece, shot: ShotReading, *, first_s: float) -> Stretch | None:
    """The samples of a shot that a piece shows; None where that is under SHORTEST_S."""
    start, stop = np.searchsorted(shot.t_s, [first_s + piece.in_s, first_s + piece.out_s])
    if stop - start < SHORTEST_S * shot.rate_hz * 0.5:
        return None
    return Stretch(int(start), int(stop))


def intended(shot: ShotReading, *, aspect: float) -> Floats:
    """(n + 1, 3) pan, tilt and push that were meant over a shot, percent of the long side."""
    seen = in_long_sides(shot.path, rho=aspect_to_rho(aspect))
    meant = lowpass(seen, corner_hz=INTENDED_HZ, rate_hz=shot.rate_hz)
    out: Floats = meant[:, [0, 1, 3]]
    return out


def trims(
    piece: Piece, shot: ShotReading, *, first_s: float, aspect: float, at_end: bool, most_s: float
) -> tuple[Floats, Floats]:
    """Points (n,) at which a piece could begin, or end, up to most_s inside of its own, s from the
    film's first frame, in the order of the film; and the velocities (n, 3) that are seen there, as
    played. Nothing where too little can be measured. A piece that is shown backwards begins at its
    out point."""
    whole = samples_in(piece, shot, first_s=first_s)
    none = np.zeros(0), np.zeros((0, 3))
    if whole is None:
        return none
    at_out = at_end != piece.backwards
    move_end = ending_at if at_end else beginning_at
    room_s = min(most_s, piece.out_s - piece.in_s - 2 * SHORTEST_S)
    if room_s <= 0:
        return none
    offsets = np.arange(0.0, room_s, 0.1)
    points = piece.out_s - offsets[::-1] if at_out else piece.in_s + offsets
    meant = intended(shot, aspect=aspect)
    found = []
    for point in points:
        part = move_end(piece, float(point))
        inside = samples_in(part, shot, first_s=first_s)
        if inside is None:
            return none
        found.append(_velocity(part, meant, inside, rate_hz=shot.rate_hz, at_end=at_end))
    return points, np.array(found)
