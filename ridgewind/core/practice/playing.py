"""A pose in motion: the figures of a move, from its start to its end, or of one cycle of a walk."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from ridgewind.core.practice.figure import Feet, Figure, solve
from ridgewind.core.practice.pose import WALKS, Pose
from ridgewind.core.practice.skeleton import Lengths, Vector

FRAMES = 24
"""Of a move: enough that it plays smoothly when drawn between them (chosen here)."""

PAN_DEG, SMALL_PAN_DEG, TILT_DEG, ORBIT_DEG, SWEEP_DEG, STICK_PAN_DEG = (
    35.0,
    12.0,
    22.0,
    22.0,
    30.0,
    25.0,
)
CROUCH_DEG, SHIFT, LIFT_M, ARMS_LIFT_M, RAIL_M = 105.0, 0.9, 0.14, 0.28, 0.28
"""How far the moves go that a drill does not give itself (chosen here, as people do them)."""

STANCE, RUN_STANCE = 0.62, 0.38
"""Share of a step cycle that a foot is on the ground (Perry, *Gait Analysis*, 2nd edition)."""

SWING_M = {"plain": 0.09, "heel": 0.09, "ball": 0.08, "flat": 0.035, "line": 0.07, "short": 0.05}
LANDING_DEG = {"plain": 18.0, "heel": 24.0, "ball": -16.0, "flat": 0.0, "line": 14.0, "short": 8.0}
PUSH_OFF_DEG = -34.0
"""How high a foot swings, and by how much its toes point up as it lands and as it leaves."""


@dataclass(frozen=True)
class Played:
    """figures: in order. cycle: they go round; else they go from start to end. seconds: of all."""

    figures: tuple[Figure, ...]
    cycle: bool
    seconds: float


def play(pose: Pose, lengths: Lengths | None = None, *, frames: int = FRAMES) -> Played:
    """The figures of a pose's move; one figure where it holds still."""
    body = lengths or Lengths()
    if pose.move in ("", "ride"):
        return Played((solve(pose, body),), cycle=False, seconds=pose.seconds)
    if pose.move in WALKS:
        phases = [k / frames for k in range(frames)]
        if pose.move == "back":
            phases.reverse()
        figures = tuple(solve(pose, body, _step(pose, body, phase)) for phase in phases)
        return Played(figures, cycle=True, seconds=pose.seconds)
    shares = [_eased(k / (frames - 1)) for k in range(frames)]
    return Played(tuple(_moved(pose, body, one) for one in shares), False, pose.seconds)


def _eased(share: float) -> float:
    """Soft at both ends, even between."""
    return 0.5 - 0.5 * math.cos(math.pi * share)


def _between(low: float, high: float, share: float) -> float:
    return low + (high - low) * share


def _moved(pose: Pose, body: Lengths, share: float) -> Figure:
    """The figure at a share of a move with planted feet."""
    offset, foot = np.zeros(3), None
    changed = pose
    move = pose.move
    if move in ("pan", "small_pan", "sweep", "stick_pan"):
        far = {"pan": PAN_DEG, "small_pan": SMALL_PAN_DEG, "sweep": SWEEP_DEG}
        reach = far.get(move, STICK_PAN_DEG)
        changed = replace(pose, turn_deg=_between(-reach, reach, share))
    if move == "tilt":
        tilt = _between(-TILT_DEG, TILT_DEG, share)
        lean = pose.lean_deg if pose.reach > 0.5 else _between(12.0, -8.0, share)
        changed = replace(pose, tilt_deg=tilt, lean_deg=lean)
    if move in (
        "push",
        "pull",
        "zoom",
        "slide",
        "reveal",
        "orbit",
        "rise_orbit",
        "stick_lean",
        "rail",
    ):
        way = -1.0 if move == "pull" else 1.0
        changed = replace(changed, shift=way * _between(-SHIFT, SHIFT, share))
    if move in ("orbit", "rise_orbit"):
        changed = replace(changed, turn_deg=_between(ORBIT_DEG, -ORBIT_DEG, share))
    if move in ("rise", "lower", "rise_orbit"):
        up = 1.0 - share if move == "lower" else share
        if pose.contacts or move != "rise":  # legs first, the arms take over at the end
            changed = replace(
                changed, knees_deg=_between(CROUCH_DEG, pose.knees_deg, min(1.0, 1.25 * up))
            )
            offset = LIFT_M * max(0.0, 4.0 * up - 3.0) * np.array([0.0, 1.0, 0.0])
        else:
            offset = _between(-ARMS_LIFT_M, ARMS_LIFT_M, up) * np.array([0.0, 1.0, 0.0])
    if move == "rail":
        offset = _between(-RAIL_M, RAIL_M, share) * np.array([1.0, 0.0, 0.0])
        changed = replace(changed, shift=0.5 * changed.shift)
    if move == "stick_lean":
        camera = solve(replace(pose, shift=0.0), body).camera
        foot = np.array([camera[0], 0.0, camera[2]])
    return solve(changed, body, offset=offset, stick_foot=foot)


def _step(pose: Pose, body: Lengths, phase: float) -> Feet:
    """Both feet at a phase of the step cycle, which begins as the right one lands."""
    right, right_deg = _foot(pose, body, phase, 1.0)
    left, left_deg = _foot(pose, body, (phase + 0.5) % 1.0, -1.0)
    return Feet(right, left, (right_deg, left_deg))


def _foot(pose: Pose, body: Lengths, phase: float, way: float) -> tuple[Vector, float]:
    stance = RUN_STANCE if pose.move == "run" else STANCE
    gait, step = pose.gait, abs(pose.ahead) or 0.4
    aside = 0.5 * pose.feet * body.shoulders * way
    if phase < stance:
        done = phase / stance
        along, lift = step * (0.6 - 1.2 * done), 0.0
        landing = LANDING_DEG[gait] * max(0.0, 1.0 - 5.0 * done)
        leaving = PUSH_OFF_DEG * max(0.0, 4.0 * done - 3.0) if gait != "flat" else 0.0
        toes = landing + leaving
    else:
        done = (phase - stance) / (1.0 - stance)
        along = step * (-0.6 + 1.2 * _eased(done))
        lift = (1.6 if pose.move == "run" else 1.0) * SWING_M[gait] * math.sin(math.pi * done)
        leaving = 0.0 if gait == "flat" else PUSH_OFF_DEG
        toes = _between(leaving, LANDING_DEG[gait], _eased(done))
    # A foot that stands on its toes or its heel lifts its ankle.
    raised = body.ankle + lift + 0.75 * body.foot * max(0.0, math.sin(math.radians(-toes)))
    if pose.move == "circle":
        return np.array([0.45 * along + aside, raised, 0.06 * way]), 0.0
    return np.array([aside, raised, along]), toes
