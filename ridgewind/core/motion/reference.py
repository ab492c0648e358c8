"""The picture that frames are compared with, and how a new one takes over from the last."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion import patches, pyramid
from ridgewind.core.motion.sighting import Region

Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]

FIRST_SURPRISE = 0.01
MIN_POINTS = 10
PROVEN = 0.75
"""Memory of agreement from which a point has agreed for long."""

NEW_POINT_WEIGHT, LOST_PLACE_WEIGHT = 0.35, 0.04
"""Weight of a new point: where the picture is new, and where points of the last reference are out
of sight or move otherwise, or where another motion is near, so that what is in front does not gain
weight by itself."""


@dataclass
class Reference:
    """The picture that the points of one motion are compared with. Points that are followed at
    the quarter size only stand last; `sharp` counts the others."""

    points: Floats  # (n, 2) centred, in long sides
    spread: Floats  # (n,) expected scatter, 1 for a sharp point
    sharp: int
    fine: patches.Templates  # of the sharp ones
    quarter: patches.Templates
    eighth: patches.Templates
    soft: patches.Templates  # of the others, at the quarter size
    gain: Float32s | None  # (n, 1) contrast of template over patch when last found
    agree: Floats  # (n,) memory of agreement, 0 to 1
    born_s: Floats  # (n,) when each point was first found
    usual: float  # weight of agreeing points just after it was chosen
    h: Floats
    h_before: Floats
    surprise: float  # how far predictions have lately been off, long sides
    at: Floats  # (n, 2) where each point was last found
    way: Floats  # (n, 2) its last step
    followed: NDArray[np.bool_]  # (n,) whether it was found in the last frame
    proven: NDArray[np.bool_]  # (n,) whether it has ever agreed for long
    missed: int = 0
    age: int = 0  # frames located against it

    def only(self, chosen: NDArray[np.bool_]) -> Reference:
        """Some of the points; the motion stays."""
        return replace(
            self,
            points=self.points[chosen],
            spread=self.spread[chosen],
            sharp=int(np.count_nonzero(chosen[: self.sharp])),
            fine=self.fine.only(chosen[: self.sharp]),
            quarter=self.quarter.only(chosen),
            eighth=self.eighth.only(chosen),
            soft=self.soft.only(chosen[self.sharp :]),
            gain=None if self.gain is None else self.gain[chosen],
            agree=self.agree[chosen],
            born_s=self.born_s[chosen],
            usual=float(self.agree[chosen].sum()),
            at=self.at[chosen],
            way=self.way[chosen],
            followed=self.followed[chosen],
            proven=self.proven[chosen],
        )


@dataclass(frozen=True)
class Kept:
    """What a new reference takes over: points (n, 2) that agree, centred, in long sides, their
    scatter, memories and ages (n,), and where points (m, 2) were given up that should be in view.
    soft: (n,) followed at the quarter size only."""

    points: Floats
    spread: Floats
    soft: NDArray[np.bool_]
    agree: Floats
    born_s: Floats
    lost: Floats


def make_reference(
    luma: pyramid.Image,
    levels: list[Float32s],
    *,
    t_s: float,
    kept: Kept | None = None,
    taken: Floats | None = None,
    region: Region | None = None,
) -> Reference | None:
    """A reference from a picture; None where it holds too little detail.

    taken: (m, 2) where points of other motions are now, centred, in long sides. region: where
    alone points are chosen; None for everywhere.
    """
    height, width = luma.shape
    long_side, centre = float(max(luma.shape)), np.array([(width - 1) / 2.0, (height - 1) / 2.0])
    taken_px = None if taken is None else taken * long_side + centre
    fresh = patches.find_points(luma, levels[1], taken_px)
    found, spread = (fresh.points_px - centre) / long_side, fresh.spread
    soft = np.arange(len(found)) >= len(found) - fresh.soft
    if region is not None:
        inside = region.holds(found, np.array([width, height]) / (2.0 * long_side))
        found, spread, soft = found[inside], spread[inside], soft[inside]
    rivalled = taken is not None and len(taken) > 0
    weight = LOST_PLACE_WEIGHT if rivalled else NEW_POINT_WEIGHT
    weights, born_s = np.full(len(found), weight), np.full(len(found), t_s)
    cell = 1.0 / patches.GRID[0]
    new = np.ones(len(found), np.bool_)
    if kept is not None and len(kept.points):
        if len(kept.lost):
            weights[_to_nearest(found, kept.lost) < cell] = LOST_PLACE_WEIGHT
        new &= _to_nearest(found, kept.points) > 0.5 * cell
        found = np.concatenate([kept.points, found[new]])
        spread = np.concatenate([kept.spread, spread[new]])
        soft = np.concatenate([kept.soft, soft[new]])
        weights = np.concatenate([kept.agree, weights[new]])
        born_s = np.concatenate([kept.born_s, born_s[new]])
        order = np.argsort(soft, kind="stable")
        found, spread, soft = found[order], spread[order], soft[order]
        weights, born_s = weights[order], born_s[order]
    if len(found) < MIN_POINTS:
        return None
    points_px, sharp = found * long_side + centre, int(np.count_nonzero(~soft))
    quarter = patches.make_templates(levels[1], points_px, level=pyramid.QUARTER)
    return Reference(
        points=found,
        spread=spread,
        sharp=sharp,
        fine=patches.make_templates(levels[0], points_px[:sharp], level=pyramid.FULL),
        quarter=quarter,
        eighth=patches.make_templates(levels[2], points_px, level=pyramid.EIGHTH),
        soft=quarter.only(slice(sharp, None)),
        gain=None,
        agree=weights,
        born_s=born_s,
        usual=float(weights.sum()),
        h=np.eye(3),
        h_before=np.eye(3),
        surprise=FIRST_SURPRISE,
        at=found.copy(),
        way=np.zeros_like(found),
        followed=np.ones(len(found), np.bool_),
        proven=weights > PROVEN,
    )


def _to_nearest(points: Floats, others: Floats) -> Floats:
    """Distance (n,) of each point (n, 2) to the nearest of others (m, 2), by the longer side."""
    if not len(points):
        return np.empty(0)
    out: Floats = np.abs(points[:, None] - others[None]).max(axis=2).min(axis=1)
    return out
