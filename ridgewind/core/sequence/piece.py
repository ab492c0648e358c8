"""A part of a take, as a sequence shows it."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.sequence.pace import Knot, film_seconds, screen_seconds

Floats = NDArray[np.float64]

SPEED_RANGE = (0.05, 4.0)
SHORTEST_S = 0.2
"""Of a film, that a piece uses (chosen here: five or six frames)."""

MOST_KNOTS, NEAREST_KNOTS_S = 8, 0.05
"""Of a ramp, and how near to each other two of them may be."""


@dataclass(frozen=True)
class Framing:
    """Where a window stands in its picture. right, down: from the middle, shares of the room that
    there is on that side, -1 to 1. follows: it goes with the marked subject instead."""

    right: float = 0.0
    down: float = 0.0
    follows: bool = False


@dataclass(frozen=True)
class Piece:
    """A part of a take, as the sequence shows it. take_id: None where a shot has no take yet.
    shot_id: of the outing, None for none. in_s, out_s: s from the film's first frame; of a missing
    take only their distance counts. speed: share of full speed, where it has no ramp. backwards:
    shown from its end. ramp: knots of the speed along the film, none for one speed throughout.
    framing: of its window, where the sequence has another shape than its picture."""

    take_id: int | None
    shot_id: int | None
    in_s: float
    out_s: float
    speed: float = 1.0
    backwards: bool = False
    ramp: tuple[Knot, ...] = ()
    framing: Framing = Framing()

    @property
    def knots(self) -> tuple[Knot, ...]:
        """Of its speed: one where it has no ramp."""
        return self.ramp or (Knot(self.in_s, self.speed),)

    @property
    def seconds(self) -> float:
        """On screen, s, before it is rounded to frames."""
        if not self.ramp:
            return (self.out_s - self.in_s) / self.speed
        first, last = screen_seconds(self.ramp, np.array([self.in_s, self.out_s]))
        return float(last - first)

    @property
    def keeps_sound(self) -> bool:
        """Whether what was heard can be heard with it."""
        return self.speed == 1.0 and not self.ramp and not self.backwards


def piece_from(told: Mapping[str, Any]) -> Piece:
    """A piece from its values by name, as dataclasses.asdict gives them."""
    ramp = tuple(Knot(**dict(one)) for one in told.get("ramp", ()))
    framing = Framing(**dict(told.get("framing", {})))
    return Piece(**{**dict(told), "ramp": ramp, "framing": framing})


def film_times(piece: Piece, screen_s: Floats) -> Floats:
    """Moments of the film (n,), s from its first frame, that are seen at times (n,) since the piece
    began, s; kept inside the piece."""
    if piece.ramp:
        begin, end = screen_seconds(piece.ramp, np.array([piece.in_s, piece.out_s]))
        found = film_seconds(piece.ramp, end - screen_s if piece.backwards else begin + screen_s)
    elif piece.backwards:
        found = piece.out_s - screen_s * piece.speed
    else:
        found = piece.in_s + screen_s * piece.speed
    out: Floats = np.clip(found, piece.in_s, piece.out_s)
    return out


def ending_at(piece: Piece, at_s: float) -> Piece:
    """The piece with its last picture at another moment of its film, s."""
    return replace(piece, in_s=at_s) if piece.backwards else replace(piece, out_s=at_s)


def beginning_at(piece: Piece, at_s: float) -> Piece:
    """The piece with its first picture at another moment of its film, s."""
    return replace(piece, out_s=at_s) if piece.backwards else replace(piece, in_s=at_s)


def lasting(piece: Piece, seconds: float, *, length_s: float) -> Piece:
    """The piece with its last picture moved so that it is so long on screen, as far as its film of
    length_s goes; where that is too little it begins earlier too."""
    ahead, behind = (-1.0, 1.0) if piece.backwards else (1.0, -1.0)
    begun = piece.out_s if piece.backwards else piece.in_s
    reach = piece.in_s if piece.backwards else length_s - piece.out_s
    far = ending_at(piece, begun + ahead * (piece.out_s - piece.in_s + max(0.0, reach)))
    if far.seconds >= seconds:
        at_s = float(film_times(far, np.array([seconds]))[0])
        return ending_at(piece, at_s)
    missing = seconds - far.seconds
    edge_speed = (far.knots[-1] if piece.backwards else far.knots[0]).speed
    earlier = begun + behind * missing * edge_speed
    return beginning_at(far, min(max(earlier, 0.0), length_s))


def at_share(piece: Piece, share: float) -> Piece:
    """The piece played at a share of the speed that it has, ramp and all."""
    ramp = tuple(replace(knot, speed=round(knot.speed * share, 4)) for knot in piece.ramp)
    return replace(piece, speed=round(piece.speed * share, 4), ramp=ramp)


def check_piece(piece: Piece) -> Piece:
    """The piece, if it can be. Raises InvalidArgumentError."""
    require_between("speed", piece.speed, *SPEED_RANGE)
    if not piece.in_s >= 0:
        raise InvalidArgumentError("in_s", piece.in_s, "it must not be before the film begins")
    if not SHORTEST_S <= piece.out_s - piece.in_s < math.inf:
        rule = f"it must be {SHORTEST_S:g} s or more after {piece.in_s:g} s"
        raise InvalidArgumentError("out_s", piece.out_s, rule)
    for name in ("right", "down"):
        require_between(name, getattr(piece.framing, name), -1.0, 1.0)
    _check_ramp(piece.ramp)
    return piece


def _check_ramp(knots: Sequence[Knot]) -> None:
    if len(knots) == 1 or len(knots) > MOST_KNOTS:
        rule = f"a ramp has two to {MOST_KNOTS} knots"
        raise InvalidArgumentError("ramp", len(knots), rule)
    for knot in knots:
        require_between("speed", knot.speed, *SPEED_RANGE)
        require_between("at_s", knot.at_s, 0.0, 1e6, "s")
    for one, other in pairwise(knots):
        if other.at_s - one.at_s < NEAREST_KNOTS_S:
            rule = f"each must be {NEAREST_KNOTS_S:g} s or more after the one before"
            raise InvalidArgumentError("ramp", other.at_s, rule)
