"""The bench: from a set-up and what is asked of it to the figures of each panel.

What is asked is kept with the set-up; the figures are always computed anew.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.brief import Brief
from ridgewind.core.kit import balance, hand, moving, optics, strap, timing
from ridgewind.core.kit.hand import Hand, LensCurve
from ridgewind.core.kit.items import Camera, Lens, Optics, Place, Route, Support

WIDEST_MM, LONGEST_MM = 12.0, 200.0
"""Focal lengths that the curve of shake always spans, widened by what the kit holds."""


@dataclass(frozen=True)
class ShakeAsk:
    """typical: whose figures to take while there are no takes."""

    typical: Literal["standing", "walking"]


@dataclass(frozen=True)
class TimeAsk:
    """takes: planned for the session. spare_s: head and tail around each. mains_hz: of the
    lamps, None in daylight."""

    takes: int
    spare_s: float
    mains_hz: Literal[50, 60] | None


@dataclass(frozen=True)
class MoveAsk:
    """See moving.Plan; lens and rates come from set-up and brief."""

    kind: moving.MoveKind
    subject_m: float
    foreground_m: float
    background_m: float
    amount: float
    seconds: float
    crossing_s: float
    leg_m: float
    cadence_hz: float
    pole_m: float
    level: bool


@dataclass(frozen=True)
class Placed:
    """Where a support sits on this rig, in place of its usual place."""

    support_id: int
    place: Place


@dataclass(frozen=True)
class RigAsk:
    """handle: where fingers hold it hanging, None for no handle. weight_at: where a
    counterweight could go."""

    handle: Place | None
    weight_at: Place
    placed: tuple[Placed, ...]


@dataclass(frozen=True)
class StrapAsk:
    """See strap.Body and strap.plan_strap. length_mm, route: of a strap not among the set-up's
    supports, or over-ruling it; None takes the support's."""

    forearm_mm: float
    chest_mm: float
    measured_mm: float | None
    scale_kg: float | None
    felt: int | None
    length_mm: float | None
    route: Route | None


@dataclass(frozen=True)
class Bench:
    """Everything that is asked on the bench of one set-up."""

    shake: ShakeAsk
    time: TimeAsk
    move: MoveAsk
    rig: RigAsk
    strap: StrapAsk


@dataclass(frozen=True)
class Parts:
    """The parts of a set-up. supports: by their ids, in order."""

    camera: Camera
    lens: Lens
    optics: Optics
    supports: tuple[tuple[int, str, Support], ...]

    @property
    def strapped(self) -> bool:
        """Whether it holds a strap; a mark on one is of use only then."""
        return any(support.kind == "strap" for _, _, support in self.supports)


USUAL_STRAP_MM = 1400.0


def usual_bench() -> Bench:
    """What the bench asks before the shooter has said anything (round figures chosen here)."""
    return Bench(
        shake=ShakeAsk("standing"),
        time=TimeAsk(takes=20, spare_s=4.0, mains_hz=None),
        move=MoveAsk("slide", 2.5, 1.0, 20.0, 0.5, 5.0, 7.0, 0.9, 1.8, 1.5, False),
        rig=RigAsk(None, Place(0.0, 40.0, -80.0), ()),
        strap=StrapAsk(350.0, 1000.0, None, None, 3, None, None),
    )


def picture(parts: Parts, brief: Brief) -> optics.Picture:
    return optics.picture(
        parts.camera,
        parts.lens,
        parts.optics,
        delivery_px=brief.delivery_px,
        most_crop_pct=brief.most_crop_pct,
    )


@dataclass(frozen=True)
class Shake:
    """The curve, the hand that it is for, and where the set-up stands on it."""

    hand: Hand
    curve: LensCurve
    focal_eq_mm: float
    gust: float


def shake(
    parts: Parts,
    brief: Brief,
    ask: ShakeAsk,
    *,
    body_deg_s: Sequence[float],
    kit_mm: Sequence[float],
) -> Shake:
    """body_deg_s: of the shooter's own takes. kit_mm: equivalent focal lengths on the kit."""
    focal = optics.set_up_focal_eq_mm(parts.camera, parts.lens, parts.optics)
    typical = (
        hand.TYPICAL_WALKING_DEG_S if ask.typical == "walking" else hand.TYPICAL_STANDING_DEG_S
    )
    own = hand.hand_of(body_deg_s, typical_deg_s=typical)
    screen = brief.screen_deg
    curve = hand.lens_curve(
        own,
        low_mm=min([WIDEST_MM, focal, *kit_mm]),
        high_mm=max([LONGEST_MM, focal, *kit_mm]),
        target=brief.target,
        screen_deg=screen,
    )
    gust = hand.gust_at(own.body_deg_s, focal_eq_mm=focal, screen_deg=screen)
    return Shake(own, curve, focal, gust)


def time(parts: Parts, brief: Brief, ask: TimeAsk) -> timing.Timing:
    return timing.timing(
        parts.camera,
        parts.lens,
        parts.optics,
        delivery_fps=brief.delivery_fps,
        wanted_s=brief.wanted_s,
        takes=ask.takes,
        spare_s=ask.spare_s,
    )


def move_plan(parts: Parts, brief: Brief, ask: MoveAsk) -> moving.Plan:
    """The plan of a move with this set-up, shown as the brief delivers it."""
    focal = optics.set_up_focal_eq_mm(parts.camera, parts.lens, parts.optics)
    mode = parts.camera.modes[parts.optics.mode]
    slowed = 1.0
    if not brief.keep_sound:
        slowed = timing.playback_share(parts.optics.rate_hz, brief.delivery_fps)
    values = {name: getattr(ask, name) for name in MoveAsk.__dataclass_fields__}
    return moving.Plan(
        focal_eq_mm=focal,
        aspect=min(mode.width_px, mode.height_px) / max(mode.width_px, mode.height_px),
        delivery_fps=brief.delivery_fps,
        playback=slowed,
        **values,
    )


def rig_parts(parts: Parts, ask: RigAsk) -> tuple[balance.RigPart, ...]:
    """Camera, lens and every support that is carried on them."""
    places = {one.support_id: one.place for one in ask.placed}
    carried = tuple(
        balance.RigPart(name, support.mass_g, places.get(key, support.place), support.size, False)
        for key, name, support in parts.supports
        if support.carried
    )
    return (*balance.camera_parts(parts.camera, parts.lens), *carried)


def rig(parts: Parts, ask: RigAsk) -> balance.Balance:
    return balance.balance(rig_parts(parts, ask), handle=ask.handle, weight_at=ask.weight_at)


def strap_plan(parts: Parts, ask: StrapAsk) -> strap.StrapPlan:
    """The strap among the supports, or the one that is asked about."""
    own = next((one for _, _, one in parts.supports if one.kind == "strap"), None)
    length = ask.length_mm or (own.length_mm if own else None) or USUAL_STRAP_MM
    route = ask.route or (own.route if own else None) or "neck"
    body = strap.Body(ask.forearm_mm, ask.chest_mm, ask.measured_mm)
    return strap.plan_strap(
        body, route=route, length_mm=length, scale_kg=ask.scale_kg, felt=ask.felt
    )
