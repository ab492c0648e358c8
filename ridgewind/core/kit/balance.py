"""Balance of a rig: centre of mass, how it hangs, inertia, swing and the load on the arms.

Parts are boxes of even density. Axes: x right, y up, z ahead, mm; the parts add up by the
parallel-axis theorem.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.kit.items import MOST_MASS_G, Box, Camera, Lens, Place
from ridgewind.core.units import STANDARD_GRAVITY_M_S2

"""Standard gravity, m/s²."""

CLOSE_REACH_M, ARM_REACH_M = 0.2, 0.6
"""Shoulder to camera with elbows in, and at arm's length (chosen here)."""

SWING_WARNING_HZ = (0.4, 1.3)
"""A hung rig that swings in this range joins breath, sway and steps."""

LEAST_LEVER_MM = 10.0
"""A counterweight nearer to the handle than this could never level the rig (chosen here)."""

LEVEL_DEG = 1.0
HEAVIEST_COUNTERWEIGHT = 2.0
"""A counterweight of more than this many times the rig is refused (chosen here)."""

Axis = Literal["pitch", "yaw", "roll"]


@dataclass(frozen=True)
class RigPart:
    """A part of the rig. place: of its middle, taken as its centre of mass. bare: it belongs
    to the camera without any help, with which jitter is compared."""

    name: str
    mass_g: float
    place: Place
    size: Box
    bare: bool

    def __post_init__(self) -> None:
        require_between("mass_g", self.mass_g, 0, MOST_MASS_G, "g")


@dataclass(frozen=True)
class Inertia:
    """Moments of inertia about the centre of mass, kg m²."""

    pitch: float
    yaw: float
    roll: float


@dataclass(frozen=True)
class Hang:
    """How the rig hangs from its handle. forward_deg: nose down where positive. sideways_deg:
    right side down. counterweight_g: mass at the given place that levels it fore and aft, None
    where none can, with reason. shift_mm: moving the handle ahead by so much levels it too.
    swing_hz: of the hung rig, fore and aft."""

    forward_deg: float
    sideways_deg: float
    level: bool
    counterweight_g: float | None
    reason: str | None
    shift_mm: float
    swing_hz: float
    swings: bool


@dataclass(frozen=True)
class Balance:
    """mass_g: of all parts. centre: of mass. jitter_ratio: predicted jitter against the bare
    camera, 1 where nothing is added; a model. hang: None without a handle, or where the centre
    of mass lies over it (hang_reason). torque: load on the arms together, N m."""

    mass_g: float
    bare_mass_g: float
    centre: Place
    inertia: Inertia
    bare_inertia: Inertia
    jitter_ratio: float
    hang: Hang | None
    hang_reason: str | None
    torque_close_nm: float
    torque_arm_nm: float


def camera_parts(camera: Camera, lens: Lens) -> tuple[RigPart, ...]:
    """Camera and lens as parts: the camera stands on the origin, the lens ahead of it."""
    size = camera.size
    middle = size.height_mm / 2
    body = RigPart("Camera", camera.mass_g, Place(0, middle, 0), size, True)
    if lens.mass_g <= 0:
        return (body,)
    ahead = size.depth_mm / 2 + lens.balance_mm
    barrel = Box(lens.diameter_mm, lens.diameter_mm, lens.length_mm)
    return (body, RigPart("Lens", lens.mass_g, Place(0, middle, ahead), barrel, True))


def centre_of_mass(parts: Sequence[RigPart]) -> Place:
    """Where the parts balance. Raises InvalidArgumentError where they weigh nothing."""
    total = sum(part.mass_g for part in parts)
    if total <= 0:
        raise InvalidArgumentError("mass_g", total, "the rig must weigh something")
    return Place(
        sum(part.mass_g * part.place.x_mm for part in parts) / total,
        sum(part.mass_g * part.place.y_mm for part in parts) / total,
        sum(part.mass_g * part.place.z_mm for part in parts) / total,
    )


def inertia(parts: Sequence[RigPart]) -> Inertia:
    """Moments about the centre of mass: m (b² + c²) / 12 for a box, plus m r²."""
    centre = centre_of_mass(parts)
    pitch = yaw = roll = 0.0
    for part in parts:
        mass = part.mass_g / 1000.0
        wide, tall, deep = (
            (side / 1000.0) ** 2 / 12.0
            for side in (part.size.width_mm, part.size.height_mm, part.size.depth_mm)
        )
        x, y, z = (
            ((at - middle) / 1000.0) ** 2
            for at, middle in (
                (part.place.x_mm, centre.x_mm),
                (part.place.y_mm, centre.y_mm),
                (part.place.z_mm, centre.z_mm),
            )
        )
        pitch += mass * (tall + deep + y + z)
        yaw += mass * (wide + deep + x + z)
        roll += mass * (wide + tall + x + y)
    return Inertia(pitch, yaw, roll)


def jitter_ratio(bare: Inertia, rigged: Inertia) -> float:
    """Predicted jitter against the bare camera: I₀ / I, geometric mean of pitch and yaw.

    The hand is taken as a torque of fixed size, which inertia divides; a model, to be checked
    by a measured trial.
    """
    return math.sqrt(bare.pitch / rigged.pitch * bare.yaw / rigged.yaw)


def swing_hz(mass_g: float, *, below_mm: float, inertia_kgm2: float) -> float:
    """Frequency of a hung rig: sqrt(m g d / I) / 2 pi, I about the handle.

    below_mm: centre of mass under the handle. inertia_kgm2: about the centre of mass.

    >>> round(swing_hz(1000, below_mm=250, inertia_kgm2=1e-9), 3)
    0.997
    """
    mass, d = mass_g / 1000.0, below_mm / 1000.0
    return math.sqrt(mass * STANDARD_GRAVITY_M_S2 * d / (inertia_kgm2 + mass * d * d)) / (
        2.0 * math.pi
    )


def counterweight_g(mass_g: float, *, ahead_mm: float, weight_ahead_mm: float) -> float | None:
    """Mass that brings the centre of mass under the handle; None where none can.

    ahead_mm: centre of mass ahead of the handle. weight_ahead_mm: the weight's own place.

    >>> counterweight_g(900, ahead_mm=20, weight_ahead_mm=-60)
    300.0
    """
    if abs(ahead_mm) < 1e-9:
        return 0.0
    if abs(weight_ahead_mm) < LEAST_LEVER_MM or ahead_mm * weight_ahead_mm > 0:
        return None
    return mass_g * ahead_mm / -weight_ahead_mm


def torque_nm(mass_g: float, *, reach_m: float) -> float:
    """Load on the shoulders: m g reach.

    >>> round(torque_nm(1000, reach_m=0.5), 2)
    4.9
    """
    return mass_g / 1000.0 * STANDARD_GRAVITY_M_S2 * reach_m


def balance(parts: Sequence[RigPart], *, handle: Place | None, weight_at: Place) -> Balance:
    """All figures of a rig. weight_at: where a counterweight could go."""
    bare = [part for part in parts if part.bare]
    centre = centre_of_mass(parts)
    mass = sum(part.mass_g for part in parts)
    whole, alone = inertia(parts), inertia(bare)
    hang: Hang | None = None
    reason: str | None = "no handle is placed"
    if handle is not None:
        hang, reason = _hang(mass, centre, whole, handle, weight_at)
    return Balance(
        mass_g=mass,
        bare_mass_g=sum(part.mass_g for part in bare),
        centre=centre,
        inertia=whole,
        bare_inertia=alone,
        jitter_ratio=jitter_ratio(alone, whole),
        hang=hang,
        hang_reason=reason,
        torque_close_nm=torque_nm(mass, reach_m=CLOSE_REACH_M),
        torque_arm_nm=torque_nm(mass, reach_m=ARM_REACH_M),
    )


def _hang(
    mass_g: float, centre: Place, whole: Inertia, handle: Place, weight_at: Place
) -> tuple[Hang | None, str | None]:
    below = handle.y_mm - centre.y_mm
    if below <= 1.0:
        return None, "the centre of mass is not under the handle, so it would tip over"
    ahead, right = centre.z_mm - handle.z_mm, centre.x_mm - handle.x_mm
    found = counterweight_g(mass_g, ahead_mm=ahead, weight_ahead_mm=weight_at.z_mm - handle.z_mm)
    reason = None
    if found is None:
        side = "behind" if ahead > 0 else "ahead of"
        reason = f"a counterweight must sit {side} the handle, at least {LEAST_LEVER_MM:g} mm away"
    elif found > HEAVIEST_COUNTERWEIGHT * mass_g:
        found, reason = None, "it would weigh more than twice the rig; place it farther out"
    frequency = swing_hz(mass_g, below_mm=math.hypot(below, ahead), inertia_kgm2=whole.pitch)
    forward = math.degrees(math.atan2(ahead, below))
    return Hang(
        forward_deg=forward,
        sideways_deg=math.degrees(math.atan2(right, below)),
        level=abs(forward) <= LEVEL_DEG,
        counterweight_g=found,
        reason=reason,
        shift_mm=ahead,
        swing_hz=frequency,
        swings=SWING_WARNING_HZ[0] <= frequency <= SWING_WARNING_HZ[1],
    ), None
