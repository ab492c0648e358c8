"""Shapes of a finished film, and the window of each picture that is seen in it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import require_between
from ridgewind.core.sequence.piece import Framing

Floats = NDArray[np.float64]

SHAPES: dict[str, float] = {
    "16:9": 16 / 9, "9:16": 9 / 16, "1:1": 1.0, "4:5": 4 / 5, "2.39:1": 2.39,
}  # fmt: skip
"""Width over height, in the order in which they are offered."""

GLIDE_S = 0.8
"""On screen, over which a window that follows is evened out (chosen here: as a hand would carry it
along, under what the eye is said to be shaken by)."""


def delivered_px(shape: float, delivery_px: tuple[int, int]) -> tuple[int, int]:
    """Even size of a film of a shape whose like is delivered at another: a wider one keeps the long
    side, any other the short side.

    shape: width over height.

    >>> [delivered_px(one, (1920, 1080)) for one in (16 / 9, 9 / 16, 1.0, 2.39)]
    [(1920, 1080), (1080, 1920), (1080, 1080), (1920, 804)]
    """
    require_between("shape", shape, 0.1, 10)
    long, short = max(delivery_px), min(delivery_px)
    if max(shape, 1 / shape) >= long / short - 1e-6:
        width, height = (long, long / shape) if shape >= 1 else (long * shape, long)
    else:
        width, height = (short * shape, short) if shape >= 1 else (short, short / shape)
    return round(width / 2) * 2, round(height / 2) * 2


@dataclass(frozen=True)
class Cutout:
    """The largest window of a shape that a picture holds. width, height: shares of the picture's.
    picture: its width over height. shape: of the window."""

    width: float
    height: float
    picture: float
    shape: float

    @property
    def long_share(self) -> float:
        """The window's long side over the picture's: what moves is as much larger in it."""
        sides = self.width * self.picture, self.height
        return max(sides) / max(self.picture, 1.0)

    @property
    def aspect(self) -> float:
        """Short side over long side of the window."""
        return min(self.shape, 1 / self.shape)

    @property
    def room_pct(self) -> tuple[float, float]:
        """How far its middle can be from the picture's, right and down, percent of the picture's
        long side."""
        sides = np.array([self.picture, 1.0]) / max(self.picture, 1.0)
        right, down = 50.0 * sides * (1.0 - np.array([self.width, self.height]))
        return float(right), float(down)


def cutout(shape: float, picture: float) -> Cutout:
    """The window of a shape in a picture; both are width over height.

    >>> found = cutout(9 / 16, 16 / 9)
    >>> round(found.width, 4), found.height, round(found.long_share, 4)
    (0.3164, 1.0, 0.5625)
    """
    if shape >= picture:
        return Cutout(1.0, picture / shape, picture, shape)
    return Cutout(shape / picture, 1.0, picture, shape)


def middles(
    framing: Framing, window: Cutout, places: Floats | None, count: int, *, rate_hz: float
) -> Floats:
    """(count, 2) middle of the window in each frame that is shown, from the picture's, right and
    down, percent of its long side.

    places: (count, 2) where the marked subject is, not a number where that is not known; None
    without one, and the window stands.
    """
    room = np.array(window.room_pct)
    fixed = np.array([framing.right, framing.down]) * room
    if not framing.follows or places is None or not np.isfinite(places).all(axis=1).any():
        return np.tile(fixed, (count, 1))
    known = np.isfinite(places).all(axis=1)
    at = np.arange(count)
    filled = np.column_stack([np.interp(at, at[known], one[known]) for one in places.T])
    # First kept inside and then evened out: what lies between places inside is inside too.
    return _glided(np.clip(filled, -room, room), sigma=GLIDE_S * rate_hz)


def _glided(values: Floats, *, sigma: float) -> Floats:
    """(n, 2) evened by a Gaussian; the ends stand."""
    reach = int(np.ceil(3 * sigma))
    kernel = np.exp(-0.5 * (np.arange(-reach, reach + 1) / sigma) ** 2)
    padded = np.pad(values, ((reach, reach), (0, 0)), mode="edge")
    columns = [np.convolve(one, kernel / kernel.sum(), mode="valid") for one in padded.T]
    return np.column_stack(columns)
