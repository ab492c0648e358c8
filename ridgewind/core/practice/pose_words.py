"""A pose in words, for who cannot see it drawn: how one stands, holds, leans and moves."""

from __future__ import annotations

from ridgewind.core.practice.pose import Pose

BASES = {
    "standing": "Standing",
    "kneeling": "On one knee",
    "seated": "Seated",
    "lying": "Lying on the front",
    "floor": "Sitting on the floor",
}
HEIGHTS = {
    "over": "overhead",
    "eye": "at eye level",
    "chest": "before the chest",
    "navel": "at the navel",
    "hip": "at the hip",
    "thigh": "on the raised thigh",
    "knee": "at the knees",
    "low": "low above the ground",
    "ground": "on the ground",
}
HANDS = {
    "grip": "on the grip",
    "cradle": "beneath the camera",
    "handle": "on the top handle",
    "lens": "under the lens",
    "head": "under the head of the stick",
    "shaft": "on the shaft",
    "strap": "on the strap",
    "down": "hanging",
    "wall": "against the wall",
    "pole": "on the pole",
    "knee": "on the knee",
}
CONTACTS = {
    "brow": "brow at the camera",
    "ribs": "elbows on the ribs",
    "hip": "camera on the hip",
    "chest": "camera against the chest",
    "thigh": "camera on the thigh",
    "knees": "elbows on the knees",
    "shoulder": "shoulder against what is leant on",
    "back": "back against what is leant on",
    "table": "camera on the table",
    "ground": "elbows on the ground",
    "shoe": "foot of the stick held by the shoe",
    "seat": "sitting",
    "arm": "stick under the arm",
    "lens": "lens supported",
    "bag": "camera on a bag",
}
SUPPORTS = {
    "": "",
    "monopod": "camera on a monopod",
    "monopod_braced": "camera on a monopod",
    "monopod_arm": "monopod tucked under the arm",
    "monopod_seat": "monopod on a chair's seat",
    "monopod_lifted": "monopod lifted by its shaft",
    "pole_rail": "camera sliding on a level pole",
    "pole_slope": "camera sliding on a sloping pole",
    "weight": "a folded small tripod hung below",
    "more_weight": "more weight hung below",
    "table": "at a table",
    "bag": "at a table",
    "wall": "leaning on a wall",
    "post": "leaning on a post",
    "tripod": "camera on a tripod",
    "elastic": "an elastic band on the tripod's handle",
    "blanket": "on a blanket that is pulled",
    "vehicle": "in a vehicle",
    "chair": "on a chair",
}
STRAPS = {
    "": "",
    "neck": "round the neck",
    "under_arm": "under one arm",
    "chest": "short, at the chest",
}
MOVES = {
    "": "Nothing moves.",
    "pan": "The hips turn the whole body from one side to the other.",
    "small_pan": "The hips turn the body a little.",
    "tilt": "The camera tilts from low to high.",
    "push": "The weight comes forward from the back foot to the front one.",
    "pull": "The weight goes back from the front foot to the back one.",
    "slide": "The weight goes from foot to foot, shoulders square.",
    "orbit": "The weight goes from foot to foot while the body turns back to the subject.",
    "rise": "The camera rises from low to high.",
    "reveal": "The camera comes out from behind something near.",
    "lower": "The camera sinks from high to low.",
    "rise_orbit": "The camera rises while the weight goes from foot to foot and the body turns.",
    "zoom": "The lens zooms while the weight comes forward.",
    "sweep": "The body sweeps to one side at the end.",
    "walk": "Walking forward.",
    "side": "Walking beside the subject.",
    "circle": "Stepping round the subject.",
    "back": "Walking backward.",
    "run": "Running.",
    "stick_lean": "The stick leans through an arc from one side to the other.",
    "stick_pan": "The camera turns on its support.",
    "rail": "The camera slides along the pole.",
    "ride": "The whole body is carried along.",
}
GAITS = {
    "plain": "",
    "heel": "The heel lands first and the foot rolls to the toe.",
    "ball": "The ball of the foot lands first.",
    "flat": "Short steps land flat.",
    "line": "One foot lands ahead of the other, as on a line.",
    "short": "Short steps.",
}
STRAIGHT_DEG, SOFT_DEG, BENT_DEG = 6.0, 24.0, 45.0
SLACK, HARD = 0.3, 0.95
LEANS_DEG = 8.0


def describe(pose: Pose) -> str:
    """A few sentences that tell the whole pose.

    >>> describe(Pose()).split(". ")[0]
    'Standing, feet at shoulder width, knees soft'
    """
    told = [_stance(pose), _hold(pose)]
    if pose.contacts:
        told.append(f"Steadied by {_listed([CONTACTS[one] for one in pose.contacts])}.")
    if pose.strap:
        pull = "slack" if pose.pull <= SLACK else "pulled hard" if pose.pull >= HARD else "taut"
        told.append(f"The strap is {STRAPS[pose.strap]}, {pull}.")
    told.append(" ".join(one for one in (MOVES[pose.move], GAITS[pose.gait]) if one))
    return " ".join(told)


def _stance(pose: Pose) -> str:
    parts = [BASES[pose.base]]
    if pose.base == "standing":
        parts.append(_feet(pose))
        parts.append(_knees(pose.knees_deg))
    if pose.lean_deg >= LEANS_DEG:
        parts.append("leaning forward")
    if pose.lean_deg <= -LEANS_DEG / 2:
        parts.append("leaning back")
    if SUPPORTS[pose.support]:
        parts.append(SUPPORTS[pose.support])
    return f"{', '.join(parts)}."


def _feet(pose: Pose) -> str:
    if pose.raised:
        return "right foot on a step"
    if abs(pose.ahead) >= 0.3:
        return "one foot ahead"
    if pose.feet <= 0.5:
        return "feet together"
    return "feet at shoulder width" if pose.feet <= 1.2 else "feet wide"


def _knees(bend_deg: float) -> str:
    if bend_deg <= STRAIGHT_DEG:
        return "knees straight"
    if bend_deg <= SOFT_DEG:
        return "knees soft"
    return "knees bent" if bend_deg <= BENT_DEG else "knees deep"


def _hold(pose: Pose) -> str:
    reach = "at the body" if pose.reach < 0.15 else "half out" if pose.reach < 0.6 else "far out"
    elbows = ", elbows out" if pose.elbows > 0.5 else ""
    return (
        f"The camera is {HEIGHTS[pose.height]}, {reach}{elbows}; right hand {HANDS[pose.right]},"
        f" left hand {HANDS[pose.left]}."
    )


def _listed(words: list[str]) -> str:
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"
