"""Where the points of a motion were seen, and parts of the picture that the shooter names."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError

Floats = NDArray[np.float64]
Shorts = NDArray[np.int16]

STEPS = 30_000
"""Of a long side: places are kept as whole numbers, finer than any screen shows."""

REGION = (6, 4)
"""Cells of the picture that can be named, along the long and the short side (chosen here: as large
as a fingertip on a phone)."""


@dataclass(frozen=True)
class Sighting:
    """Where a motion's points were at a moment. t_s: of the frame. places: (k, 2), STEPS of the
    long side from the picture's centre, right and down positive."""

    t_s: float
    places: Shorts

    @property
    def points(self) -> Floats:
        """(k, 2), long sides from the centre."""
        out: Floats = self.places / STEPS
        return out


def sighting(t_s: float, points: Floats) -> Sighting:
    """A sighting from points (k, 2), long sides from the centre."""
    return Sighting(t_s, np.round(points * STEPS).astype(np.int16))


@dataclass(frozen=True)
class Region:
    """Cells of the picture, each by its number from the upper left, row after row. upright: the
    picture is higher than wide, and so are the cells' rows and columns. Raises
    InvalidArgumentError where there are none, or no such cells."""

    cells: frozenset[int]
    upright: bool

    def __post_init__(self) -> None:
        count = REGION[0] * REGION[1]
        if not self.cells or not all(0 <= cell < count for cell in self.cells):
            raise InvalidArgumentError("cells", sorted(self.cells), f"some of 0 to {count - 1}")

    def holds(self, points: Floats, half: Floats) -> NDArray[np.bool_]:
        """Which points (n, 2), long sides from the centre, lie in it. half: (2,) half the width
        and height of the picture, long sides."""
        across, down = REGION[::-1] if self.upright else REGION
        x, y = (np.clip((points / half + 1.0) / 2.0, 0.0, 0.999999) * [across, down]).T
        number = y.astype(int) * across + x.astype(int)
        out: NDArray[np.bool_] = np.isin(number, list(self.cells))
        return out


def edge_cells(*, upright: bool) -> frozenset[int]:
    """The cells along the picture's top and high on its sides, where a background nearly always
    shows; lower down a subject stands, or near ground."""
    across, down = REGION[::-1] if upright else REGION
    sides = [(row * across, row * across + across - 1) for row in range(1, down - 1)]
    return frozenset([*range(across), *(cell for pair in sides for cell in pair)])


def mean_inside(seen: Sequence[Sighting], region: Region, half: Floats) -> float:
    """Mean count of points in a region over the moments of a motion."""
    counts = [int(region.holds(one.points, half).sum()) for one in seen]
    return float(np.mean(counts)) if counts else 0.0
