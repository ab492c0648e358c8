"""The picture that frames are compared with, and how a new one takes over from the last."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion import patches, pyramid

Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]

FIRST_SURPRISE = 0.01
MIN_POINTS = 10
NEW_POINT_WEIGHT, LOST_PLACE_WEIGHT = 0.35, 0.04
"""Weight of a new point: where the picture is new, and where points of the last reference are out
of sight or move otherwise, so that what crosses the picture does not gain weight by itself."""


@dataclass
class Reference:
    """The picture that frames are compared with."""

    points: Floats  # (n, 2) centred, in long sides
    fine: patches.Templates
    quarter: patches.Templates
    eighth: patches.Templates
    agree: Floats  # (n,) memory of agreement, 0 to 1
    born_s: Floats  # (n,) when each point was first found
    usual: float  # weight of agreeing points just after it was chosen
    h: Floats
    h_before: Floats
    surprise: float  # how far predictions have lately been off, long sides
    missed: int = 0
    age: int = 0  # frames located against it


@dataclass(frozen=True)
class Kept:
    """What a new reference takes over: points (n, 2) that agree, centred, in long sides, their
    memories and ages (n,), and where points (m, 2) were given up that should be in view."""

    points: Floats
    agree: Floats
    born_s: Floats
    lost: Floats


def make_reference(
    luma: pyramid.Image, levels: list[Float32s], *, t_s: float, kept: Kept | None = None
) -> Reference | None:
    """A reference from a picture; None where it holds too little detail."""
    height, width = luma.shape
    long_side, centre = float(max(luma.shape)), np.array([(width - 1) / 2.0, (height - 1) / 2.0])
    found = (patches.find_points(luma) - centre) / long_side
    weights = np.full(len(found), NEW_POINT_WEIGHT)
    born_s = np.full(len(found), t_s)
    if kept is not None and len(kept.points):
        cell = 1.0 / patches.GRID[0]
        if len(kept.lost):
            weights[_to_nearest(found, kept.lost) < cell] = LOST_PLACE_WEIGHT
        new = _to_nearest(found, kept.points) > 0.5 * cell
        found = np.concatenate([kept.points, found[new]])
        weights = np.concatenate([kept.agree, weights[new]])
        born_s = np.concatenate([kept.born_s, born_s[new]])
    if len(found) < MIN_POINTS:
        return None
    points_px = found * long_side + centre
    return Reference(
        points=found,
        fine=patches.make_templates(levels[0], points_px, level=pyramid.FULL),
        quarter=patches.make_templates(levels[1], points_px, level=pyramid.QUARTER),
        eighth=patches.make_templates(levels[2], points_px, level=pyramid.EIGHTH),
        agree=weights,
        born_s=born_s,
        usual=float(weights.sum()),
        h=np.eye(3),
        h_before=np.eye(3),
        surprise=FIRST_SURPRISE,
    )


def _to_nearest(points: Floats, others: Floats) -> Floats:
    """Distance (n,) of each point (n, 2) to the nearest of others (m, 2), by the longer side."""
    out: Floats = np.abs(points[:, None] - others[None]).max(axis=2).min(axis=1)
    return out
