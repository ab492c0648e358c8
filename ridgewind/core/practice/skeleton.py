"""Bones: their lengths, how two of them reach a point, and where the weight of all of them is.

Metres; x to the shooter's right, y up, z straight ahead. The origin is on the ground between the
feet.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import require_between

Vector = NDArray[np.float64]

USUAL_HEIGHT_M = 1.75
HEIGHT_RANGE_M = (1.2, 2.2)

STRAIGHTEST = 0.999
"""Share of two bones' length that they reach at most: a joint that locks looks broken."""

MASSES = {
    "head": 0.081,
    "trunk": 0.497,
    "upper_arm": 0.028,
    "forearm": 0.022,
    "thigh": 0.100,
    "shank": 0.061,
}
"""Share of the body's mass, hands and feet with their neighbours (Winter, *Biomechanics and Motor
Control of Human Movement*, 4th edition, table 4.1)."""

SIDES = ("r", "l")


@dataclass(frozen=True)
class Lengths:
    """Of the body's parts, m, in usual proportions (Drillis and Contini, 1966)."""

    height_m: float = USUAL_HEIGHT_M

    def __post_init__(self) -> None:
        require_between("height_m", self.height_m, *HEIGHT_RANGE_M, "m")

    @property
    def ankle(self) -> float:
        return 0.039 * self.height_m

    @property
    def shank(self) -> float:
        return 0.246 * self.height_m

    @property
    def thigh(self) -> float:
        return 0.245 * self.height_m

    @property
    def hips(self) -> float:
        return 0.130 * self.height_m

    @property
    def trunk(self) -> float:
        return 0.288 * self.height_m

    @property
    def shoulders(self) -> float:
        return 0.225 * self.height_m

    @property
    def upper_arm(self) -> float:
        return 0.186 * self.height_m

    @property
    def forearm(self) -> float:
        """To the middle of the fist."""
        return (0.146 + 0.054) * self.height_m

    @property
    def neck(self) -> float:
        return 0.052 * self.height_m

    @property
    def head(self) -> float:
        """From the neck to the middle of the head."""
        return 0.075 * self.height_m

    @property
    def foot(self) -> float:
        return 0.152 * self.height_m

    def leg(self, knees_deg: float) -> float:
        """From hip to ankle at a bend of the knee."""
        bend = np.cos(np.radians(knees_deg))
        return float(np.sqrt(self.thigh**2 + self.shank**2 + 2 * self.thigh * self.shank * bend))


@dataclass(frozen=True)
class Reached:
    """middle: of the joint between two bones. end: where they end. reached: at what was asked."""

    middle: Vector
    end: Vector
    reached: bool


def two_bones(
    start: Vector, target: Vector, first: float, second: float, towards: Vector
) -> Reached:
    """Two bones from one point to another, bent towards a direction. Where the target is too far
    they point at it, as good as straight."""
    way = target - start
    far = float(np.linalg.norm(way))
    most = STRAIGHTEST * (first + second)
    least = abs(first - second) / STRAIGHTEST
    along = way / far if far > 1e-9 else np.array([0.0, -1.0, 0.0])
    span = min(most, max(least, far))
    bend = towards - along * float(towards @ along)
    size = float(np.linalg.norm(bend))
    if size < 1e-9:
        bend, size = np.cross(along, [1.0, 0.0, 0.0]), 1.0
    near = (first**2 - second**2 + span**2) / (2.0 * span)
    out = float(np.sqrt(max(0.0, first**2 - near**2)))
    middle = start + near * along + out * bend / size
    return Reached(middle, start + span * along, abs(span - far) < 1e-6)


def centre_of_mass(joints: Mapping[str, Vector]) -> Vector:
    """Of the whole body, from its joints."""
    parts = [
        (MASSES["head"], joints["head"]),
        (MASSES["trunk"], 0.5 * (joints["pelvis"] + joints["chest"])),
    ]
    for side in SIDES:
        ends = [joints[f"{name}_{side}"] for name in ("shoulder", "elbow", "hand")]
        legs = [joints[f"{name}_{side}"] for name in ("hip", "knee", "ankle")]
        parts += [
            (MASSES["upper_arm"], 0.5 * (ends[0] + ends[1])),
            (MASSES["forearm"], 0.5 * (ends[1] + ends[2])),
            (MASSES["thigh"], 0.5 * (legs[0] + legs[1])),
            (MASSES["shank"], 0.5 * (legs[1] + legs[2])),
        ]
    whole = sum(mass for mass, _ in parts)
    out: Vector = np.sum([mass * place for mass, place in parts], axis=0) / whole
    return out


def outside_by(point: Vector, base: Sequence[Vector]) -> float:
    """How far a point lies outside the convex hull of others, seen from above, m; 0 inside."""
    flat = np.array([[one[0], one[2]] for one in base])
    hull = flat[_hull(flat)]
    at = np.array([point[0], point[2]])
    edges = np.roll(hull, -1, axis=0) - hull
    lengths = np.hypot(edges[:, 0], edges[:, 1])
    # The hull runs against the clock, so that its inside is to the left of every edge.
    off = (edges[:, 1] * (at - hull)[:, 0] - edges[:, 0] * (at - hull)[:, 1]) / lengths
    return max(0.0, float(off.max()))


def _hull(flat: Vector) -> list[int]:
    """Indices of the convex hull, against the clock (Andrew's monotone chain, 1979)."""
    order = np.lexsort((flat[:, 1], flat[:, 0])).tolist()

    def chain(indices: Sequence[int]) -> list[int]:
        out: list[int] = []
        for index in indices:
            while len(out) > 1 and _turn(flat[out[-2]], flat[out[-1]], flat[index]) <= 0.0:
                out.pop()
            out.append(index)
        return out[:-1]

    return chain(order) + chain(order[::-1])


def _turn(a: Vector, b: Vector, c: Vector) -> float:
    return float((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]))
