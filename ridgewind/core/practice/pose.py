"""A pose in the trade's terms: how a shooter stands, holds and moves, as a drill says it.

Nothing here is drawn; core/practice/figure.py works the body out from it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from typing import Any, Literal, get_args

from ridgewind.core.errors import InvalidArgumentError, require_between, require_choice

Base = Literal["standing", "kneeling", "seated", "lying", "floor"]
Height = Literal["over", "eye", "chest", "navel", "hip", "thigh", "knee", "low", "ground"]
Hand = Literal[
    "grip", "cradle", "handle", "lens", "head", "shaft", "strap", "down", "wall", "pole", "knee"
]
Contact = Literal[
    "brow", "ribs", "hip", "chest", "thigh", "knees", "shoulder", "back", "table", "ground", "shoe",
    "seat", "arm", "lens", "bag",
]  # fmt: skip
Route = Literal["", "neck", "under_arm", "chest"]
Support = Literal[
    "", "monopod", "monopod_braced", "monopod_arm", "monopod_seat", "monopod_lifted", "pole_rail",
    "pole_slope", "weight", "more_weight", "table", "bag", "wall", "post", "tripod", "elastic",
    "blanket", "vehicle", "chair",
]  # fmt: skip
Move = Literal[
    "", "pan", "small_pan", "tilt", "push", "pull", "slide", "orbit", "rise", "reveal", "lower",
    "rise_orbit", "zoom", "sweep", "walk", "side", "circle", "back", "run", "stick_lean",
    "stick_pan", "rail", "ride",
]  # fmt: skip
Gait = Literal["plain", "heel", "ball", "flat", "line", "short"]

WALKS: tuple[Move, ...] = ("walk", "side", "circle", "back", "run")
"""Moves on foot, in which balance is caught by the next step."""


@dataclass(frozen=True)
class Pose:
    """feet: their width, in shoulder widths. ahead: how far the right foot is ahead of the left, m.
    feet_turn_deg: of both feet towards the end frame, to the right positive. knees_deg: bend.
    raised: the right foot stands on a step. turn_deg: of the trunk against straight ahead. shift:
    of the weight, -1 over the left foot to 1 over the right one. lean_deg: of the trunk, forward
    positive. elbows: 0 tucked to the ribs to 1 winged. right, left: what each hand does. height: of
    the camera. reach: 0 at the body to 1 at arms' length. tilt_deg: of the camera, up positive.
    contacts: where the camera or the body is steadied. strap, pull: its route, and 0 slack to 1 as
    hard as it goes. support: what carries, or is leant on. move, gait: what is played, over
    seconds."""

    base: Base = "standing"
    feet: float = 1.0
    ahead: float = 0.0
    feet_turn_deg: float = 0.0
    knees_deg: float = 18.0
    raised: bool = False
    turn_deg: float = 0.0
    shift: float = 0.0
    lean_deg: float = 2.0
    elbows: float = 0.0
    right: Hand = "grip"
    left: Hand = "cradle"
    height: Height = "chest"
    reach: float = 0.45
    tilt_deg: float = 0.0
    contacts: tuple[Contact, ...] = ()
    strap: Route = ""
    pull: float = 0.7
    support: Support = ""
    move: Move = ""
    gait: Gait = "plain"
    seconds: float = 4.0

    def __post_init__(self) -> None:
        for name, choices in _CHOICES.items():
            require_choice(name, getattr(self, name), choices)
        for contact in self.contacts:
            require_choice("contacts", contact, get_args(Contact))
        for name, (low, high) in RANGES.items():
            require_between(name, getattr(self, name), low, high)


RANGES: dict[str, tuple[float, float]] = {
    "feet": (0.0, 2.2),
    "ahead": (-0.8, 0.8),
    "feet_turn_deg": (-90.0, 90.0),
    "knees_deg": (0.0, 120.0),
    "turn_deg": (-90.0, 90.0),
    "shift": (-1.0, 1.0),
    "lean_deg": (-25.0, 80.0),
    "elbows": (0.0, 1.0),
    "reach": (0.0, 1.0),
    "tilt_deg": (-80.0, 80.0),
    "pull": (0.0, 1.0),
    "seconds": (0.5, 30.0),
}
"""Past which no joint, or no drill, goes."""

_CHOICES: dict[str, tuple[str, ...]] = {
    "base": get_args(Base),
    "right": get_args(Hand),
    "left": get_args(Hand),
    "height": get_args(Height),
    "strap": get_args(Route),
    "support": get_args(Support),
    "move": get_args(Move),
    "gait": get_args(Gait),
}
_NAMES = {field.name for field in fields(Pose)}
PLAIN_POSE = Pose()
"""Standing with the camera in two hands, as every part is unless a drill says otherwise."""


def pose_from(table: Mapping[str, Any], base: Pose | None = None) -> Pose:
    """A pose from a drill's data, over another one. Raises InvalidArgumentError for what no pose
    has."""
    unknown = set(table) - _NAMES
    if unknown:
        raise InvalidArgumentError("pose", sorted(unknown)[0], "no pose has such a part")
    values = dict(table)
    if "contacts" in values:
        values["contacts"] = tuple(values["contacts"])
    return replace(base or Pose(), **values)


def differences(one: Pose, other: Pose) -> tuple[str, ...]:
    """Parts in which two poses differ, by name."""
    return tuple(name for name in sorted(_NAMES) if getattr(one, name) != getattr(other, name))
