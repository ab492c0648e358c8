"""A sequence: pieces of takes one after the other, counted in whole frames.

Lengths are counts of frames at the sequence's own rate, never seconds that add up: each piece is
rounded by itself, and the whole is their sum.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import require_positive
from ridgewind.core.sequence.piece import Piece, film_times

Floats = NDArray[np.float64]

SAME_S = 1e-6
"""A frame that begins at a moment is seen at it."""


@dataclass(frozen=True)
class Placed:
    """Where a piece stands: frames of the sequence, from 0."""

    start: int
    frames: int


def placed(pieces: Sequence[Piece], *, rate_hz: float) -> tuple[Placed, ...]:
    """Every piece's frames, one after the other, each of one frame at the least.

    >>> placed([Piece(1, None, 0, 2.01), Piece(2, None, 1, 2, speed=0.5)], rate_hz=25)
    (Placed(start=0, frames=50), Placed(start=50, frames=50))
    """
    frames = [frames_of(piece, rate_hz=rate_hz) for piece in pieces]
    starts = [0, *itertools.accumulate(frames)]
    return tuple(Placed(start, count) for start, count in zip(starts, frames, strict=False))


def frames_of(piece: Piece, *, rate_hz: float) -> int:
    """How many frames a piece has."""
    require_positive("rate_hz", rate_hz)
    return max(1, int(np.floor(piece.seconds * rate_hz + 0.5)))


def times_of(piece: Piece, frames: int, *, rate_hz: float) -> Floats:
    """When what each frame of a piece shows was filmed, s from the film's first frame: (frames,);
    of the middle of the time that it is shown."""
    middles_s = (np.arange(frames, dtype=np.float64) + 0.5) / rate_hz
    return film_times(piece, middles_s)


def shown_pictures(t_s: Floats, at_s: Floats) -> NDArray[np.intp]:
    """Which picture of a film is shown at moments (n,): the newest by then. t_s: (m,) of the
    pictures."""
    found = np.searchsorted(t_s, at_s + SAME_S, side="right") - 1
    return np.clip(found, 0, len(t_s) - 1)
