"""The body of a pose: where every joint, the camera, the strap and the contacts are.

Feet stay on the ground, hands on the camera, limbs keep their length (two bones each), and the
weight lies over what stands, or the figure says that it would tip. Axes as in skeleton.py.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ridgewind.core.practice.pose import WALKS, Contact, Hand, Pose
from ridgewind.core.practice.props import SEAT_M, STEP_M, TABLE_M, Prop, props_of
from ridgewind.core.practice.skeleton import (
    SIDES,
    Lengths,
    Vector,
    centre_of_mass,
    outside_by,
    two_bones,
)
from ridgewind.core.units import told_length

UP = np.array([0.0, 1.0, 0.0])
NEAR_M, ARMS_M = 0.14, 0.46
"""From the breastbone to a camera at the body, and from there to arms' length."""

PELVIS_M = {"seated": SEAT_M + 0.09, "floor": 0.12, "lying": 0.13}
BEHIND_M = {"kneeling": 0.05, "seated": 0.40, "floor": 0.52, "lying": 0.55}
"""How high the pelvis is, and how far behind the feet, where one does not stand on both."""

TIPS_FROM_M = 0.03
"""Of the weight outside of what stands, from which a figure would tip (chosen here: what ankles
hold)."""

FOOT_HALF_M = 0.05


_LIMBS = ("shoulder", "elbow", "hand", "hip", "knee", "ankle", "toe")
JOINTS = (
    "pelvis", "chest", "neck", "head", *(f"{name}_{side}" for side in SIDES for name in _LIMBS),
)  # fmt: skip
"""Every joint of a figure."""


@dataclass(frozen=True)
class Feet:
    """Where both ankles are, m, and by how much each foot points up at its toes, degrees."""

    right: Vector
    left: Vector
    toes_deg: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True)
class Dot:
    """A point of contact."""

    name: str
    at: Vector


@dataclass(frozen=True)
class Figure:
    """joints: by name, with _r and _l for the sides. camera: its middle; yaw_deg, tilt_deg,
    roll_deg: where it looks. strap: its line, from the body to the camera; empty for none. tips_m:
    how far the weight lies outside of what stands. faults: what the body cannot do, in words."""

    joints: dict[str, Vector]
    camera: Vector
    yaw_deg: float
    tilt_deg: float
    roll_deg: float
    dots: tuple[Dot, ...]
    strap: tuple[Vector, ...]
    props: tuple[Prop, ...]
    tips_m: float
    faults: tuple[str, ...]


def solve(
    pose: Pose,
    lengths: Lengths | None = None,
    feet: Feet | None = None,
    *,
    offset: Vector | None = None,
    stick_foot: Vector | None = None,
) -> Figure:
    """Work a body out. feet: where they are instead of where the pose would put them, as in a step.
    offset: of the camera from where the pose holds it, as in a move of the arms. stick_foot: where
    the foot of a stick stays while it leans. Never raises: what cannot be is told in the figure's
    faults."""
    body = _Body(pose, lengths or Lengths(), feet)
    if offset is not None:
        body.offset = offset
    body.stick_foot = stick_foot
    return body.figure()


def standing_feet(pose: Pose, lengths: Lengths) -> Feet:
    """Feet of a pose that stands on both."""
    side = 0.5 * pose.feet * lengths.shoulders
    right = np.array([side, lengths.ankle, 0.5 * pose.ahead])
    left = np.array([-side, lengths.ankle, -0.5 * pose.ahead])
    if pose.raised:
        right = right + np.array([0.0, STEP_M, 0.24])
    return Feet(_turned(right, pose.feet_turn_deg), _turned(left, pose.feet_turn_deg))


def _turned(point: Vector, yaw_deg: float) -> Vector:
    """Turned about the upright axis, to the right positive."""
    yaw = math.radians(yaw_deg)
    x, z = point[0], point[2]
    return np.array([
        x * math.cos(yaw) + z * math.sin(yaw), point[1], z * math.cos(yaw) - x * math.sin(yaw),
    ])  # fmt: skip


class _Body:
    """One figure in the making, from the ground up."""

    def __init__(self, pose: Pose, lengths: Lengths, feet: Feet | None) -> None:
        self.pose, self.lengths = pose, lengths
        self.walks = feet is not None
        self.feet = feet or standing_feet(pose, lengths)
        self.offset: Vector = np.zeros(3)
        self.stick_foot: Vector | None = None
        self.joints: dict[str, Vector] = {}
        self.props: list[Prop] = []
        self.faults: list[str] = []
        self.ahead = _turned(np.array([0.0, 0.0, 1.0]), pose.turn_deg)
        self.aside = _turned(np.array([1.0, 0.0, 0.0]), pose.turn_deg)

    def figure(self) -> Figure:
        self._pelvis()
        self._trunk()
        self._legs()
        self._camera()
        self._stand()
        self._arms()
        tips_m = self._tips()
        if tips_m > TIPS_FROM_M:
            away = told_length(1000 * tips_m)
            self.faults.append(f"it would tip: {away} outside of what it stands on")
        return Figure(
            joints=self.joints,
            camera=self.camera,
            yaw_deg=self.pose.turn_deg,
            tilt_deg=self.pose.tilt_deg,
            roll_deg=self.roll_deg,
            dots=self._dots(),
            strap=self._strap(),
            props=tuple(self.props),
            tips_m=tips_m,
            faults=tuple(self.faults),
        )

    def _pelvis(self) -> None:
        pose, lengths = self.pose, self.lengths
        right, left = self.feet.right, self.feet.left
        middle = 0.5 * (right + left)
        share = 1.0 if pose.raised else 0.85  # of the way to the foot that carries
        over = middle + 0.5 * share * pose.shift * (right - left)
        behind = BEHIND_M.get(pose.base, 0.0)
        if pose.base == "standing":
            # What leans forward sits back, so that the weight stays over the feet.
            behind = 0.32 * lengths.trunk * math.sin(math.radians(pose.lean_deg))
        over = over - behind * self.ahead
        height = {"kneeling": 0.04 + lengths.thigh, **PELVIS_M}.get(pose.base)
        if height is None:
            height = self._standing_height(over)
        at = np.array([over[0], height, over[2]])
        self.joints["pelvis"] = at
        half = (
            0.5
            * lengths.hips
            * _turned(np.array([1.0, 0.0, 0.0]), 0.5 * (pose.turn_deg + pose.feet_turn_deg))
        )
        self.joints["hip_r"], self.joints["hip_l"] = at + half, at - half

    def _standing_height(self, over: Vector) -> float:
        """As high as the bent legs carry, and as the farther one still reaches."""
        lengths = self.lengths
        wanted, most = lengths.leg(self.pose.knees_deg), 0.995 * (lengths.thigh + lengths.shank)
        heights, limits = [], []
        for foot, way in ((self.feet.right, 1.0), (self.feet.left, -1.0)):
            hip = over + way * 0.5 * lengths.hips * self.aside
            flat = math.hypot(hip[0] - foot[0], hip[2] - foot[2])
            heights.append(foot[1] + math.sqrt(max(0.04, wanted**2 - flat**2)))
            limits.append(foot[1] + math.sqrt(max(0.04, most**2 - flat**2)))
        if self.pose.raised:  # the foot on the step carries nothing
            return float(min(heights[1], max(limits)))
        if self.walks:
            carrying = heights[0 if self.feet.right[1] <= self.feet.left[1] else 1]
            return float(min(carrying, *limits))
        carrying = max(heights) if abs(self.pose.shift) > 0.5 else sum(heights) / 2.0
        return float(min(carrying, *limits))

    def _trunk(self) -> None:
        pose, lengths = self.pose, self.lengths
        lean = math.radians(78.0 if pose.base == "lying" else pose.lean_deg)
        spine = math.sin(lean) * self.ahead + math.cos(lean) * UP
        chest = self.joints["pelvis"] + lengths.trunk * spine
        half = 0.5 * lengths.shoulders * self.aside
        neck = chest + lengths.neck * (0.7 * spine + 0.3 * UP)
        nod = 0.35 if "brow" in pose.contacts else 0.18
        head = neck + lengths.head * (UP + nod * self.ahead) / math.hypot(1.0, nod)
        self.joints |= {
            "chest": chest, "neck": neck, "head": head, "shoulder_r": chest + half,
            "shoulder_l": chest - half,
        }  # fmt: skip

    def _legs(self) -> None:
        lengths, pose = self.lengths, self.pose
        for side, way in (("r", 1.0), ("l", -1.0)):
            foot = self.feet.right if side == "r" else self.feet.left
            toes = math.radians(self.feet.toes_deg[0 if side == "r" else 1])
            yaw = pose.feet_turn_deg + 8.0 * way
            point = _turned(np.array([0.0, 0.0, 1.0]), yaw)
            hip = self.joints[f"hip_{side}"]
            bend = self.ahead + 0.25 * way * self.aside * min(1.0, pose.feet)
            if pose.base == "kneeling" and side == "l":
                knee = np.array([hip[0], 0.05, hip[2]]) - 0.02 * self.ahead
                ankle = knee - lengths.shank * self.ahead + 0.03 * UP
                self.joints |= {"knee_l": knee, "ankle_l": ankle, "toe_l": ankle - 0.1 * self.ahead
                                - 0.05 * UP}  # fmt: skip
                continue
            if pose.base == "lying":
                foot = hip - 0.95 * (lengths.thigh + lengths.shank) * self.ahead
                foot = np.array([foot[0] + 0.12 * way, 0.07, foot[2]])
                bend, point = -UP, -self.ahead
            if pose.base == "floor":
                bend = UP
            found = two_bones(hip, foot, lengths.thigh, lengths.shank, bend)
            if not found.reached:
                self.faults.append("a foot is out of reach")
            self.joints |= {
                f"knee_{side}": found.middle,
                f"ankle_{side}": found.end,
                f"toe_{side}": found.end
                + lengths.foot * (math.cos(toes) * point + math.sin(toes) * UP)
                - (0.0 if pose.base == "lying" else 0.6 * lengths.ankle) * UP,
            }

    def _camera(self) -> None:
        pose, joints = self.pose, self.joints
        ahead = NEAR_M + ARMS_M * pose.reach
        chest, pelvis = joints["chest"], joints["pelvis"]
        level = {
            "over": joints["head"][1] + 0.26,
            "eye": joints["head"][1] + 0.02,
            "chest": chest[1] - 0.10,
            "navel": pelvis[1] + 0.20,
            "hip": pelvis[1] + 0.04,
            "thigh": joints["knee_r"][1] + 0.12,
            "knee": max(joints["knee_r"][1], joints["knee_l"][1]) + 0.10,
            "low": 0.34,
            "ground": 0.10,
        }[pose.height]
        lean = (level - pelvis[1]) / max(0.2, chest[1] - pelvis[1])
        from_spine = pelvis + min(1.25, max(0.0, lean)) * (chest - pelvis)
        at = np.array([from_spine[0], level, from_spine[2]]) + ahead * self.ahead
        if "brow" in pose.contacts:
            at = joints["head"] + 0.15 * self.ahead + 0.01 * UP
        if "hip" in pose.contacts:
            at = joints["hip_r"] + 0.16 * self.ahead + 0.04 * self.aside + 0.10 * UP
        if "thigh" in pose.contacts:
            at = 0.35 * joints["hip_r"] + 0.65 * joints["knee_r"] + 0.13 * UP
        if "knees" in pose.contacts and "lens" in pose.contacts:
            at = 0.5 * (joints["knee_r"] + joints["knee_l"]) + 0.13 * UP
        if pose.base == "lying":
            at = np.array([joints["head"][0], joints["head"][1], joints["head"][2]])
            at = at + 0.16 * self.ahead
        self.camera, self.roll_deg = at, 0.0
        if pose.support in ("table", "bag", "tripod", "elastic"):
            height = TABLE_M if pose.support in ("table", "bag") else chest[1] - 0.08
            self.camera = np.array([at[0], height + 0.06, at[2]])

    def _stand(self) -> None:
        """What is leant on, sat on, or carries the camera."""
        self.camera = self.camera + self.offset
        found = props_of(
            self.pose, self.joints, self.camera, self.ahead, self.aside, self.stick_foot
        )
        self.props = list(found.props)
        self.roll_deg, self.shaft = found.roll_deg, found.shaft

    def _arms(self) -> None:
        pose, lengths = self.pose, self.lengths
        for side, way, hand in (("r", 1.0, pose.right), ("l", -1.0, pose.left)):
            shoulder = self.joints[f"shoulder_{side}"]
            target = self._hand(hand, side, way)
            winged = 1.0 if hand in ("down", "wall") else pose.elbows
            towards = -UP + (0.25 + 1.6 * winged) * way * self.aside - 0.35 * self.ahead
            if pose.base == "lying":
                towards = -UP + 0.5 * way * self.aside
            if pose.height == "over":
                towards = way * self.aside - 0.4 * UP
            found = two_bones(shoulder, target, lengths.upper_arm, lengths.forearm, towards)
            if not found.reached and hand not in ("down",):
                self.faults.append(f"the {'right' if way > 0 else 'left'} hand is out of reach")
            self.joints[f"elbow_{side}"], self.joints[f"hand_{side}"] = found.middle, found.end

    def _hand(self, hand: Hand, side: str, way: float) -> Vector:
        at, ahead, aside = self.camera, self.ahead, self.aside
        shaft = self.shaft
        places = {
            "grip": at + 0.07 * way * aside - 0.01 * UP,
            "cradle": at + 0.02 * way * aside - 0.06 * UP + 0.05 * ahead,
            "lens": at + 0.13 * ahead - 0.04 * UP + 0.01 * way * aside,
            "handle": at + 0.12 * UP,
            "head": at + 0.05 * way * aside - 0.10 * UP,
            "shaft": at - 0.30 * UP if shaft is None else shaft[0] + 0.35 * (shaft[1] - shaft[0]),
            "strap": at + 0.10 * way * aside + 0.12 * UP - 0.08 * ahead,
            "pole": at + 0.30 * way * aside - 0.05 * UP,
            "wall": self.joints[f"shoulder_{side}"] + 0.42 * way * aside + 0.05 * ahead,
            "down": self.joints[f"shoulder_{side}"] - 0.60 * UP + 0.08 * way * aside,
            "knee": self.joints[f"knee_{side}"] + 0.05 * UP,
        }
        return places[hand]

    def _dots(self) -> tuple[Dot, ...]:
        joints, at = self.joints, self.camera
        middle = 0.5 * (joints["knee_r"] + joints["knee_l"])
        places: dict[Contact, tuple[Vector, ...]] = {
            "brow": (joints["head"] + 0.09 * self.ahead + 0.03 * UP,),
            "ribs": (joints["elbow_r"], joints["elbow_l"]),
            "hip": (joints["hip_r"] + 0.08 * self.ahead + 0.06 * UP,),
            "chest": (joints["chest"] - 0.12 * UP + 0.10 * self.ahead,),
            "thigh": (0.35 * joints["hip_r"] + 0.65 * joints["knee_r"] + 0.06 * UP,),
            "knees": (joints["elbow_r"], joints["elbow_l"]) if "lens" not in self.pose.contacts
            else (middle + 0.06 * UP,),
            "shoulder": (joints["shoulder_r"],),
            "back": (joints["chest"] - 0.12 * self.ahead,),
            "table": (at - 0.06 * UP,),
            "ground": (np.array([joints["elbow_r"][0], 0.02, joints["elbow_r"][2]]),
                       np.array([joints["elbow_l"][0], 0.02, joints["elbow_l"][2]])),
            "shoe": (joints["toe_r"],) if self.shaft is None else (self.shaft[1],),
            "seat": (joints["pelvis"] - 0.09 * UP,),
            "arm": (joints["elbow_r"] + 0.06 * UP,),
            "lens": (at + 0.12 * self.ahead - 0.05 * UP,),
            "bag": (at - 0.07 * UP,),
        }  # fmt: skip
        hands = [
            Dot("hand", self.joints[f"hand_{side}"])
            for side, hand in (("r", self.pose.right), ("l", self.pose.left))
            if hand in ("grip", "cradle", "handle", "lens", "head")
        ]
        own = [Dot(name, place) for name in self.pose.contacts for place in places[name]]
        return (*own, *hands)

    def _strap(self) -> tuple[Vector, ...]:
        pose, joints = self.pose, self.joints
        if not pose.strap:
            return ()
        nape = joints["neck"] - 0.05 * self.ahead + 0.02 * UP
        if pose.strap == "under_arm":
            nape = joints["shoulder_l"] - 0.06 * UP - 0.02 * self.ahead
        if pose.strap == "chest":
            nape = joints["chest"] + 0.02 * UP
        end = self.camera + 0.04 * UP
        sag = 0.22 * (1.0 - pose.pull) ** 1.5
        middle = 0.5 * (nape + end) - sag * UP
        return nape, middle, end

    def _tips(self) -> float:
        """How far the weight is outside of what stands; a walk catches itself by its next step."""
        pose = self.pose
        if pose.move in WALKS or pose.base in ("lying", "floor") or pose.support == "vehicle":
            return 0.0
        base: list[Vector] = []
        for side in SIDES:
            if pose.raised and side == "r":
                continue
            ankle, toe = self.joints[f"ankle_{side}"], self.joints[f"toe_{side}"]
            back = ankle - 0.35 * (toe - ankle)
            base += [p + w * FOOT_HALF_M * self.aside for p in (back, toe) for w in (-1.0, 1.0)]
        if pose.base == "kneeling":
            base.append(self.joints["knee_l"])
        base += [point for prop in self.props if prop.kind in HOLDING for point in prop.points]
        return outside_by(centre_of_mass(self.joints), base)


HOLDING = ("seat", "wall", "post", "table", "chair", "stick")
"""Props that carry some of the weight."""
