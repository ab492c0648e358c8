"""A planned move: where the camera goes, and what that does to the picture.

The camera starts at the origin looking along z; x is right, y up, z ahead, metres. A move is a
list of stations from start to end, from which plan, frame and the moving preview are drawn;
the figures beside them follow from the formulas of docs/measurement.md.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.errors import (
    InvalidArgumentError,
    require_between,
    require_choice,
    require_positive,
)
from ridgewind.core.kit.items import FOCAL_RANGE_MM, RATE_RANGE_HZ
from ridgewind.core.kit.seen import NEAREST_M, Seen, Station, seen_along
from ridgewind.core.units import FULL_FRAME_LONG_SIDE_MM, deg_to_pct

MoveKind = Literal[
    "pan", "tilt", "slide", "push_in", "orbit", "rise", "walk", "zoom_step", "monopod_lean"
]
TURNS: frozenset[str] = frozenset({"pan", "tilt", "monopod_lean"})
"""Moves whose amount is an angle; the others travel."""

GUIDE_RATE = 24.0
"""Delivery rate that the crossing time refers to, frames a second."""

USUAL_CROSSING_S = 7.0
"""Seconds that a thing takes across the frame, by the usual guide (docs/measurement.md)."""

STATIONS = 25
FARTHEST_M = 100_000.0
NOTHING_PCT = 1e-9


@dataclass(frozen=True)
class Plan:
    """What is asked. amount: degrees for pan, tilt and monopod lean, metres for the rest,
    positive to the right, up or ahead. seconds: of the move as captured. playback: share of
    full speed at which it is shown. crossing_s: seconds that a thing should take across the
    frame at 24 frames a second (7 by the usual guide). leg_m: length of the leg, for the dip.
    cadence_hz: steps a second of a walk. pole_m: length of a monopod. level: the horizon is
    kept level by hand while a monopod leans.
    """

    kind: MoveKind
    focal_eq_mm: float
    aspect: float
    subject_m: float
    foreground_m: float
    background_m: float
    amount: float
    seconds: float
    delivery_fps: float
    playback: float
    crossing_s: float
    leg_m: float
    cadence_hz: float
    pole_m: float
    level: bool


@dataclass(frozen=True)
class PlannedMove:
    """Figures of a move; None where the move has no such thing.

    extent_pct: how far the subject's distance slides, or the frame's edge grows, on screen.
    speed_pct_s, crosses_s: as played. needed_s: capture seconds that avoid stutter. hurried:
    it is done in less. counter_turn_deg: turn that keeps the subject in the middle.
    foreground_pct, subject_pct, background_pct: travel across the frame. dip_m: how far the
    camera sinks or bounces. horizon_deg: tip of the horizon. focal_to_mm: focal length at the
    end. background_scale: how much larger the background ends.
    """

    kind: MoveKind
    extent_pct: float
    extent_deg: float | None
    speed_pct_s: float
    speed_deg_s: float | None
    speed_m_s: float | None
    crosses_s: float | None
    needed_s: float
    hurried: bool
    travel_m: float | None
    counter_turn_deg: float | None
    foreground_pct: float
    subject_pct: float
    background_pct: float
    dip_m: float | None
    dip_pct: float | None
    step_m: float | None
    horizon_deg: float | None
    focal_to_mm: float | None
    subject_scale: float | None
    background_scale: float | None
    stations: tuple[Station, ...]
    foreground_seen: tuple[Seen, ...]
    subject_seen: tuple[Seen, ...]
    background_seen: tuple[Seen, ...]


def travel_pct(travel_m: float, *, distance_m: float, focal_eq_mm: float) -> float:
    """How far a thing slides when the camera does: 100 (s / z) f / 36 percent.

    >>> round(travel_pct(0.5, distance_m=2, focal_eq_mm=36), 1)
    25.0
    """
    return 100.0 * travel_m / distance_m * focal_eq_mm / FULL_FRAME_LONG_SIDE_MM


def counter_turn_deg(travel_m: float, *, distance_m: float) -> float:
    """Turn that keeps a thing in the middle after a slide: atan(s / d).

    >>> round(counter_turn_deg(2, distance_m=2), 1)
    45.0
    """
    return math.degrees(math.atan(travel_m / distance_m))


def orbit_deg(travel_m: float, *, distance_m: float) -> float:
    """How far round a subject a shift of weight reaches: 2 atan(s / 2d).

    >>> round(orbit_deg(2, distance_m=1), 1)
    90.0
    """
    return 2.0 * math.degrees(math.atan(travel_m / (2.0 * distance_m)))


def stride_dip_m(stride_m: float, *, leg_m: float) -> float:
    """How far hips on stiff legs sink in the middle of a stride: L - sqrt(L² - (s/2)²).

    The inverted pendulum of gait (Winter, 1991), so the worst case: bent knees give less.

    >>> round(stride_dip_m(0.6, leg_m=0.5), 2)
    0.1
    """
    if abs(stride_m) > 2.0 * leg_m:
        rule = f"a leg of {leg_m:g} m reaches at most {2 * leg_m:g} m"
        raise InvalidArgumentError("amount", stride_m, rule)
    return leg_m - math.sqrt(leg_m**2 - (stride_m / 2.0) ** 2)


def needed_seconds(extent_pct: float, *, delivery_fps: float, playback: float,
                   crossing_s: float) -> float:  # fmt: skip
    """Capture seconds for a move, so that a thing takes crossing_s to cross the frame at 24
    frames a second; a higher delivery rate allows proportionally faster."""
    on_screen_s = abs(extent_pct) / 100.0 * crossing_s * GUIDE_RATE / delivery_fps
    return on_screen_s * playback


def unhurried_pct(seconds: float, *, delivery_fps: float, crossing_s: float) -> float:
    """How far a picture may go in some seconds on screen, percent of its long side: the inverse of
    `needed_seconds`.

    >>> unhurried_pct(3.5, delivery_fps=24, crossing_s=7)
    50.0
    """
    require_positive("crossing_s", crossing_s)
    require_positive("delivery_fps", delivery_fps)
    return 100.0 * seconds / crossing_s * delivery_fps / GUIDE_RATE


def check_plan(plan: Plan) -> None:
    """Raise InvalidArgumentError for a plan that makes no sense."""
    require_choice("kind", plan.kind, tuple(_KINDS))
    require_between("focal_eq_mm", plan.focal_eq_mm, *FOCAL_RANGE_MM, "mm")
    require_between("aspect", plan.aspect, 0.1, 1.0)
    for name in ("subject_m", "foreground_m", "background_m"):
        require_between(name, getattr(plan, name), NEAREST_M, FARTHEST_M, "m")
    if plan.foreground_m > plan.subject_m:
        raise InvalidArgumentError(
            "foreground_m", plan.foreground_m, "it must be no farther than the subject"
        )
    if plan.background_m < plan.subject_m:
        raise InvalidArgumentError(
            "background_m", plan.background_m, "it must be no nearer than the subject"
        )
    require_between("seconds", plan.seconds, 0.1, 3600, "s")
    require_between("delivery_fps", plan.delivery_fps, *RATE_RANGE_HZ, "frames a second")
    require_between("playback", plan.playback, 0.001, 1.0)
    require_between("crossing_s", plan.crossing_s, 0.5, 60, "s")
    require_between("leg_m", plan.leg_m, 0.3, 1.5, "m")
    require_between("cadence_hz", plan.cadence_hz, 0.3, 4.0, "steps a second")
    require_between("pole_m", plan.pole_m, 0.2, 4.0, "m")
    limit, unit = _limit(plan)
    require_between("amount", plan.amount, -limit, limit, unit)
    if plan.kind in ("push_in", "walk", "zoom_step") and plan.amount >= plan.subject_m - NEAREST_M:
        rule = f"the subject is {plan.subject_m:g} m away, so the camera would run into it"
        raise InvalidArgumentError("amount", plan.amount, rule)


def _limit(plan: Plan) -> tuple[float, str]:
    if plan.kind == "pan":
        return 180.0, "°"
    if plan.kind in TURNS:
        return 80.0, "°"
    if plan.kind == "walk":
        return 1000.0, "m"
    return 50.0, "m"


def move(plan: Plan) -> PlannedMove:
    """Figures and drawing of a move."""
    check_plan(plan)
    return _figures(plan, stations(plan, STATIONS))


def stations(plan: Plan, count: int) -> tuple[Station, ...]:
    """The camera at evenly spaced shares of the move."""
    place = _KINDS[plan.kind]
    return tuple(place(plan, k / (count - 1)) for k in range(count))


def _pan(plan: Plan, share: float) -> Station:
    return Station(share, 0, 0, 0, plan.amount * (share - 0.5), 0, 0, plan.focal_eq_mm)


def _tilt(plan: Plan, share: float) -> Station:
    return Station(share, 0, 0, 0, 0, plan.amount * (share - 0.5), 0, plan.focal_eq_mm)


def _slide(plan: Plan, share: float) -> Station:
    return Station(share, plan.amount * (share - 0.5), 0, 0, 0, 0, 0, plan.focal_eq_mm)


def _rise(plan: Plan, share: float) -> Station:
    y_m = plan.amount * (share - 0.5)
    pitch = -counter_turn_deg(y_m, distance_m=plan.subject_m)
    return Station(share, 0, y_m, 0, 0, pitch, 0, plan.focal_eq_mm)


def _push_in(plan: Plan, share: float) -> Station:
    z_m = plan.amount * share
    # From over one foot to over the other, lowest in between.
    y_m = -stride_dip_m(plan.amount, leg_m=plan.leg_m) * math.sin(math.pi * share)
    return Station(share, 0, y_m, z_m, 0, 0, 0, plan.focal_eq_mm)


def _orbit(plan: Plan, share: float) -> Station:
    whole = orbit_deg(plan.amount, distance_m=plan.subject_m)
    angle = math.radians(whole * (share - 0.5))
    distance = plan.subject_m
    x_m, z_m = distance * math.sin(angle), distance * (1.0 - math.cos(angle))
    return Station(share, x_m, 0, z_m, -math.degrees(angle), 0, 0, plan.focal_eq_mm)


def _walk(plan: Plan, share: float) -> Station:
    steps = max(1.0, plan.cadence_hz * plan.seconds)
    dip = stride_dip_m(plan.amount / steps, leg_m=plan.leg_m)
    phase = math.sin(math.pi * share * steps) ** 2
    return Station(share, 0, -dip * phase, plan.amount * share, 0, 0, 0, plan.focal_eq_mm)


def _zoom_step(plan: Plan, share: float) -> Station:
    z_m = plan.amount * share
    focal = plan.focal_eq_mm * (plan.subject_m - z_m) / plan.subject_m
    return Station(share, 0, 0, z_m, 0, 0, 0, focal)


def _monopod_lean(plan: Plan, share: float) -> Station:
    lean = math.radians(plan.amount * share)
    x_m, y_m = plan.pole_m * math.sin(lean), plan.pole_m * (math.cos(lean) - 1.0)
    roll = 0.0 if plan.level else math.degrees(lean)
    return Station(share, x_m, y_m, 0, 0, 0, roll, plan.focal_eq_mm)


_KINDS: dict[str, Callable[[Plan, float], Station]] = {
    "pan": _pan,
    "tilt": _tilt,
    "slide": _slide,
    "push_in": _push_in,
    "orbit": _orbit,
    "rise": _rise,
    "walk": _walk,
    "zoom_step": _zoom_step,
    "monopod_lean": _monopod_lean,
}


def _figures(plan: Plan, path: tuple[Station, ...]) -> PlannedMove:
    turn = plan.amount if plan.kind in ("pan", "tilt") else None
    travel = _travel_m(plan)
    sideways = plan.kind in ("slide", "orbit", "rise", "monopod_lean")
    counter = _counter_turn(plan, travel)
    held = plan.kind in ("orbit", "rise")
    shifts = [
        _shift_pct(plan, distance, turn, travel if sideways else None, held=held)
        for distance in (plan.foreground_m, plan.subject_m, plan.background_m)
    ]
    subject_scale, background_scale = _scales(plan)
    growth = None if subject_scale is None else 50.0 * (subject_scale - 1.0)
    if plan.kind == "zoom_step":
        growth = 50.0 * abs((background_scale or 1.0) - 1.0)
    extent = _extent_pct(plan, shifts, growth)
    needed = needed_seconds(
        extent, delivery_fps=plan.delivery_fps, playback=plan.playback, crossing_s=plan.crossing_s
    )
    speed = extent / plan.seconds * plan.playback
    dip, step = _dip(plan)
    return PlannedMove(
        kind=plan.kind,
        extent_pct=extent,
        extent_deg=turn if turn is not None else (counter if held else None),
        speed_pct_s=speed,
        speed_deg_s=None if turn is None else turn / plan.seconds,
        speed_m_s=None if travel is None else travel / plan.seconds,
        crosses_s=100.0 / abs(speed) if abs(speed) > NOTHING_PCT else None,
        needed_s=needed,
        hurried=plan.seconds < needed - 1e-6,
        travel_m=travel,
        counter_turn_deg=counter,
        foreground_pct=shifts[0],
        subject_pct=shifts[1],
        background_pct=shifts[2],
        dip_m=dip,
        dip_pct=None if dip is None else travel_pct(
            dip, distance_m=plan.subject_m, focal_eq_mm=plan.focal_eq_mm
        ),
        step_m=step,
        horizon_deg=(0.0 if plan.level else plan.amount) if plan.kind == "monopod_lean" else None,
        focal_to_mm=path[-1].focal_mm if plan.kind == "zoom_step" else None,
        subject_scale=subject_scale,
        background_scale=background_scale,
        stations=path,
        foreground_seen=seen_along(path, _at(plan, plan.foreground_m, -0.12)),
        subject_seen=seen_along(path, (0.0, 0.0, plan.subject_m)),
        background_seen=seen_along(path, _at(plan, plan.background_m, 0.16)),
    )  # fmt: skip


def _travel_m(plan: Plan) -> float | None:
    if plan.kind == "monopod_lean":
        return plan.pole_m * math.sin(math.radians(plan.amount))
    return None if plan.kind in TURNS else plan.amount


def _counter_turn(plan: Plan, travel: float | None) -> float | None:
    if plan.kind == "orbit":
        return orbit_deg(plan.amount, distance_m=plan.subject_m)
    if plan.kind in ("slide", "rise", "monopod_lean") and travel is not None:
        return counter_turn_deg(travel, distance_m=plan.subject_m)
    return None


def _shift_pct(
    plan: Plan, distance_m: float, turn: float | None, travel: float | None, *, held: bool
) -> float:
    """Travel of a thing across the frame, as the camera's pan or tilt would count it. held:
    a counter-turn keeps the subject where it is."""
    if turn is not None:
        return deg_to_pct(turn, focal_eq_mm=plan.focal_eq_mm)
    if travel is None:
        return 0.0
    shift = travel_pct(travel, distance_m=distance_m, focal_eq_mm=plan.focal_eq_mm)
    if held:
        shift -= travel_pct(travel, distance_m=plan.subject_m, focal_eq_mm=plan.focal_eq_mm)
    return shift


def _scales(plan: Plan) -> tuple[float | None, float | None]:
    """How much larger subject and background end, for moves along the axis."""
    if plan.kind not in ("push_in", "walk", "zoom_step"):
        return None, None
    left = plan.subject_m - plan.amount
    zoomed = left / plan.subject_m if plan.kind == "zoom_step" else 1.0
    subject = zoomed * plan.subject_m / left
    return subject, zoomed * plan.background_m / (plan.background_m - plan.amount)


def _extent_pct(plan: Plan, shifts: list[float], growth: float | None) -> float:
    if growth is not None:
        return growth
    if plan.kind in ("orbit", "rise"):
        # The subject stays; what the eye follows is the background passing behind it.
        return max(shifts[0], shifts[2], key=abs)
    return shifts[1]


def _dip(plan: Plan) -> tuple[float | None, float | None]:
    """Dip of the camera and length of the step, metres."""
    if plan.kind == "push_in":
        return stride_dip_m(plan.amount, leg_m=plan.leg_m), None
    if plan.kind == "walk":
        step = abs(plan.amount) / max(1.0, plan.cadence_hz * plan.seconds)
        return stride_dip_m(step, leg_m=plan.leg_m), step
    if plan.kind == "monopod_lean":
        return plan.pole_m * (1.0 - math.cos(math.radians(plan.amount))), None
    return None, None


def _at(plan: Plan, distance_m: float, side: float) -> tuple[float, float, float]:
    """A thing beside the middle of the first frame: side in long sides, to the right."""
    return side * distance_m * FULL_FRAME_LONG_SIDE_MM / plan.focal_eq_mm, 0.0, distance_m
