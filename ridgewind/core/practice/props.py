"""What a pose leans on, sits on, or carries its camera with."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from ridgewind.core.practice.pose import Pose
from ridgewind.core.practice.skeleton import Vector

UP = np.array([0.0, 1.0, 0.0])
STEP_M, SEAT_M, TABLE_M = 0.28, 0.44, 0.95
"""Heights of a step, a seat and a table (round figures chosen here)."""

WALL_BEHIND_M = 0.13
"""From the spine to a wall that is leant on."""

HEAD_M = 0.07
"""From a camera's middle to the foot of what carries it."""


@dataclass(frozen=True)
class Prop:
    """kind: what it is. points: corners of a box (two opposite ones), or a line."""

    kind: str
    points: tuple[Vector, ...]


@dataclass(frozen=True)
class Carried:
    """roll_deg: by how much a leaning stick tips the horizon. shaft: top and foot of a stick, None
    without one."""

    props: tuple[Prop, ...]
    roll_deg: float
    shaft: tuple[Vector, Vector] | None


def props_of(
    pose: Pose,
    joints: Mapping[str, Vector],
    camera: Vector,
    ahead: Vector,
    aside: Vector,
    stick_foot: Vector | None,
) -> Carried:
    """Everything that is not the body. camera: where the arms hold it. ahead, aside: of the trunk,
    level. stick_foot: where the foot of a stick stays, None for beneath the camera."""
    props: list[Prop] = []
    roll_deg = 0.0
    shaft: tuple[Vector, Vector] | None = None
    if pose.base == "seated":
        props.append(_box("seat", joints["pelvis"] - 0.02 * ahead, 0.42, 0.40, 0.0, SEAT_M))
    if pose.raised:
        toe, ankle = joints["toe_r"], joints["ankle_r"]
        props.append(_box("step", 0.5 * (toe + ankle), 0.24, 0.36, 0.0, STEP_M))
    stick = pose.support.removeprefix("monopod")
    if pose.support.startswith("monopod"):
        shaft = _stick(stick, joints, camera, ahead, aside)
        if stick_foot is not None:
            shaft = shaft[0], stick_foot
            lean = float((shaft[0] - stick_foot) @ aside)
            roll_deg = math.degrees(math.atan2(lean, float(shaft[0][1])))
        props.append(Prop("stick", shaft))
        if stick == "_seat":
            props.append(_box("seat", shaft[1] + 0.1 * ahead, 0.42, 0.40, 0.0, SEAT_M))
    props += _others(pose, joints, camera, ahead, aside)
    return Carried(tuple(props), roll_deg, shaft)


def _stick(
    kind: str, joints: Mapping[str, Vector], camera: Vector, ahead: Vector, aside: Vector
) -> tuple[Vector, Vector]:
    """Top and foot of a monopod."""
    top = camera - HEAD_M * UP
    foot = np.array([top[0], 0.0, top[2]]) + 0.03 * ahead
    if kind == "_braced":
        toe = joints["toe_r"]
        foot = np.array([toe[0] - 0.06, 0.0, toe[2]])
    elif kind == "_arm":
        foot = joints["shoulder_r"] - 0.55 * ahead - 0.30 * UP + 0.02 * aside
    elif kind == "_seat":
        foot = np.array([top[0], SEAT_M, top[2]])
    elif kind == "_lifted":
        foot = top - 1.0 * UP
    return top, foot


def _others(
    pose: Pose, joints: Mapping[str, Vector], camera: Vector, ahead: Vector, aside: Vector
) -> list[Prop]:
    support, under = pose.support, camera - HEAD_M * UP
    found: list[Prop] = []
    if support in ("wall", "post"):
        found.append(_wall(support, joints, ahead, aside))
    if support in ("table", "bag"):
        found += _table(under, ahead, with_bag=support == "bag")
    if support in ("pole_rail", "pole_slope"):
        found += _rail(under, aside, slope_m=0.14 if support == "pole_slope" else 0.0)
    if support in ("tripod", "elastic"):
        found += _tripod(camera, ahead, aside, with_band=support == "elastic")
    if support in ("weight", "more_weight"):
        length = 0.22 if support == "weight" else 0.38
        found.append(Prop("weight", (under, under - length * UP)))
    if support == "blanket":
        found.append(_box("blanket", joints["pelvis"] + 0.2 * ahead, 0.9, 1.3, 0.0, 0.03))
    if support in ("vehicle", "chair"):
        found.append(_box("seat", joints["pelvis"], 0.46, 0.42, 0.0, SEAT_M))
    return found


def _wall(kind: str, joints: Mapping[str, Vector], ahead: Vector, aside: Vector) -> Prop:
    back = min(float(joints[name] @ ahead) for name in ("shoulder_r", "shoulder_l", "chest"))
    at = (back - WALL_BEHIND_M) * ahead + float(joints["chest"] @ aside) * aside
    return _box(kind, at - 0.11 * ahead, 1.1 if kind == "wall" else 0.2, 0.22, 0.0, 2.0)


def _table(under: Vector, ahead: Vector, *, with_bag: bool) -> list[Prop]:
    top = float(under[1]) - (0.06 if with_bag else 0.0)
    found = [_box("table", under + 0.10 * ahead, 0.80, 0.46, 0.0, top)]
    if with_bag:
        found.append(_box("bag", under, 0.26, 0.22, top, float(under[1])))
    return found


def _rail(under: Vector, aside: Vector, *, slope_m: float) -> list[Prop]:
    ends = (under - 0.62 * aside - slope_m * UP, under + 0.62 * aside + slope_m * UP)
    rests = [_box("rest", end, 0.16, 0.16, 0.0, float(end[1]) - 0.01) for end in ends]
    level = float(under[1])
    return [*rests, Prop("stick", ends), _box("cloth", under, 0.20, 0.10, level, level + 0.03)]


def _tripod(camera: Vector, ahead: Vector, aside: Vector, *, with_band: bool) -> list[Prop]:
    under = camera - HEAD_M * UP
    foot = np.array([under[0], 0.0, under[2]])
    legs = [
        Prop("leg", (under, foot + 0.42 * (math.cos(turn) * aside + math.sin(turn) * ahead)))
        for turn in (math.radians(one) for one in (90.0, 210.0, 330.0))
    ]
    if with_band:
        legs.append(Prop("band", (camera - 0.36 * ahead, camera - 0.24 * ahead - 0.02 * UP)))
    return legs


def _box(kind: str, at: Vector, wide: float, deep: float, foot: float, top: float) -> Prop:
    """A box around a point of the ground, by its lowest and its highest corner; it stands square to
    the picture whatever the trunk does."""
    low = np.array([at[0] - wide / 2, foot, at[2] - deep / 2])
    high = np.array([at[0] + wide / 2, top, at[2] + deep / 2])
    return Prop(kind, (low, high))
