"""What speaks for a motion being the background's, gathered frame by frame, and the verdict.

A background reaches the picture's edges, usually on three sides; it is one rigid motion over all
of a shot; before a camera that stands still it is exactly still, which nothing that lives is.
How many points follow a motion, how rich their texture is and how smooth their path is say
nothing: a near coat has more of all three than the wall behind it.
"""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.patches import GRID

Floats = NDArray[np.float64]

BAND_CELLS = 1.3
"""Cells of points that count as the edge (chosen here: one, and what a hand moves it by)."""

SEGMENT_WEIGHTS = np.array([1.0, 1.0, 1.0, 1.0, 0.6, 1.0, 0.6, 0.2, 0.2, 0.2])
"""Top in three, left and right each upper and lower, bottom in three. What stands in front of the
camera stands on something, and so reaches the lower edge too."""

UPPER = SEGMENT_WEIGHTS >= 1.0


@dataclass
class Evidence:
    """Sums over the frames that were looked at. edges: (10,) share of each segment's points.
    known: (10,) frames in which a segment had points at all. reached: (10,) frames in which the
    motion held most of a segment. spread: of its points over the picture. born: frame of the shot
    in which the motion was first told apart. one_before: until then it was one with another, so
    that the path before is its own too."""

    edges: Floats = field(default_factory=lambda: np.zeros(10))
    known: Floats = field(default_factory=lambda: np.zeros(10))
    reached: Floats = field(default_factory=lambda: np.zeros(10))
    points: float = 0.0
    x: float = 0.0
    y: float = 0.0
    spread: float = 0.0
    frames: int = 0
    born: int = 0
    one_before: bool = False

    def take_in(self, other: Evidence) -> None:
        """Count another motion's points as this one's: they were found to be one."""
        self.edges += other.edges
        self.known = np.maximum(self.known, other.known)
        self.reached = np.minimum(self.reached + other.reached, max(self.frames, other.frames))
        self.frames = max(self.frames, other.frames)
        total = max(self.points + other.points, 1e-9)
        self.x = (self.x * self.points + other.x * other.points) / total
        self.y = (self.y * self.points + other.y * other.points) / total
        self.points += other.points
        self.spread = max(self.spread, other.spread)

    @property
    def edge(self) -> float:
        """Share of what is followed along the edges, 0 to 1."""
        seen = self.known > 0
        weights = SEGMENT_WEIGHTS[seen]
        if not len(weights):
            return 0.0
        share = self.edges[seen] / self.known[seen]
        return float(weights @ share / weights.sum())

    @property
    def reach(self) -> float:
        """Share of all the edges that it holds, whether or not anything else is followed there."""
        held = self.reached / max(self.frames, 1)
        return float(SEGMENT_WEIGHTS @ held / SEGMENT_WEIGHTS.sum())

    @property
    def sides(self) -> int:
        """On how many of left, right and top it is seen most of the time."""
        held = self.reached / max(self.frames, 1) > 0.5
        return int(held[3] or held[4]) + int(held[5] or held[6]) + int(held[:3].any())

    @property
    def upper(self) -> bool:
        """Whether it is seen most of the time in two places along the top and high on the sides;
        one may be a head."""
        held = self.reached / max(self.frames, 1) > 0.5
        return int(held[UPPER].sum()) >= 2


def segments_of(points: Floats, half: Floats) -> Floats:
    """How many points (n, 2) lie in each segment of the edge (10,). half: (2,) half the picture's
    width and height, long sides."""
    x, y = (points / half).T  # -1 to 1
    counts = np.zeros(10)
    cells = np.array(GRID if half[0] >= half[1] else GRID[::-1])
    inner_x, inner_y = 1.0 - 2.0 * BAND_CELLS / cells
    third = np.clip(((x + 1.0) * 1.5).astype(int), 0, 2)
    for first, at_edge in ((0, y < -inner_y), (7, y > inner_y)):
        np.add.at(counts, first + third[at_edge], 1.0)
    low = (y > 0).astype(int)
    for first, at_edge in ((3, x < -inner_x), (5, x > inner_x)):
        np.add.at(counts, first + low[at_edge], 1.0)
    return counts


def gather(evidence: list[Evidence], points: list[Floats], half: Floats) -> None:
    """Add one frame. points: where each motion's believed points are (k, 2)."""
    counts = np.array([segments_of(one, half) for one in points])
    total = counts.sum(axis=0)
    any_there = total > 0
    share = np.divide(counts, total, out=np.zeros_like(counts), where=any_there)
    for one, here, own in zip(evidence, points, share, strict=True):
        one.edges += own
        one.known += any_there
        one.reached += own > 0.5
        one.frames += 1
        if len(here):
            middle = here.mean(axis=0)
            one.points += len(here)
            one.x += float(middle[0])
            one.y += float(middle[1])
            one.spread += float(np.minimum(here.std(axis=0) / (0.58 * half), 1.0).mean())
