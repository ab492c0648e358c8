"""What a kit is made of, and the set-up that combines it.

Shares are of the long side, 0 to 1. Places are in millimetres from the middle of the camera's
base plate: x to the right (seen from behind), y up, z ahead.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.errors import InvalidArgumentError, require_between

StabiliserKind = Literal["body", "digital"]
SupportKind = Literal[
    "strap", "monopod", "pole", "top_handle", "cage", "weight", "bag", "cloth", "other"
]
Route = Literal["neck", "under_arm", "chest"]

MOST_CROP = 0.9
FOCAL_RANGE_MM = (1.0, 3000.0)
MOST_MASS_G = 50_000.0
MOST_SIZE_MM = 3_000.0
RATE_RANGE_HZ = (1.0, 2000.0)
MOST_PX = 20_000


@dataclass(frozen=True)
class Place:
    """A point of the rig, mm."""

    x_mm: float
    y_mm: float
    z_mm: float

    def __post_init__(self) -> None:
        for name in ("x_mm", "y_mm", "z_mm"):
            require_between(name, getattr(self, name), -MOST_SIZE_MM, MOST_SIZE_MM, "mm")


@dataclass(frozen=True)
class Box:
    """Outer size, mm: across, upright and fore and aft."""

    width_mm: float
    height_mm: float
    depth_mm: float

    def __post_init__(self) -> None:
        for name in ("width_mm", "height_mm", "depth_mm"):
            require_between(name, getattr(self, name), 1, MOST_SIZE_MM, "mm")


@dataclass(frozen=True)
class Stabiliser:
    """One that the camera has. crop: share of the long side that it takes. up_to_hz: the
    highest frame rate at which it works."""

    kind: StabiliserKind
    crop: float
    up_to_hz: float

    def __post_init__(self) -> None:
        require_between("crop", self.crop, 0, MOST_CROP)
        require_between("up_to_hz", self.up_to_hz, *RATE_RANGE_HZ, "frames a second")


@dataclass(frozen=True)
class Mode:
    """A recording mode. crop: share of the sensor's long side that it leaves unused."""

    name: str
    width_px: int
    height_px: int
    rates_hz: tuple[float, ...]
    crop: float
    mbit_s: float

    def __post_init__(self) -> None:
        _require_name(self.name)
        for name in ("width_px", "height_px"):
            require_between(name, getattr(self, name), 64, MOST_PX, "px")
        if not self.rates_hz:
            raise InvalidArgumentError("rates_hz", self.rates_hz, "at least one rate is needed")
        for rate in self.rates_hz:
            require_between("rates_hz", rate, *RATE_RANGE_HZ, "frames a second")
        require_between("crop", self.crop, 0, MOST_CROP)
        require_between("mbit_s", self.mbit_s, 0.1, 20_000, "Mbit/s")


@dataclass(frozen=True)
class Camera:
    """A camera without its lens. mount: what lenses fit it, in the shooter's own word; lenses
    that are built in have one of their own. shutters: denominators of its shutter speeds, so
    that 50 is 1/50 s. sound_up_to_hz, autofocus_up_to_hz: the highest rate that keeps them, 0
    for never. read_out_ms: time from the first line to the last, None where not known."""

    mount: str
    sensor_long_mm: float
    sensor_short_mm: float
    modes: tuple[Mode, ...]
    stabilisers: tuple[Stabiliser, ...]
    shutters: tuple[float, ...]
    sound_up_to_hz: float
    autofocus_up_to_hz: float
    read_out_ms: float | None
    mass_g: float
    size: Box

    def __post_init__(self) -> None:
        _require_name(self.mount, "mount")
        require_between("sensor_long_mm", self.sensor_long_mm, 1, 100, "mm")
        require_between("sensor_short_mm", self.sensor_short_mm, 1, self.sensor_long_mm, "mm")
        if not self.modes:
            raise InvalidArgumentError("modes", self.modes, "at least one mode is needed")
        kinds = [stabiliser.kind for stabiliser in self.stabilisers]
        if len(set(kinds)) < len(kinds):
            raise InvalidArgumentError("stabilisers", kinds, "each kind may be there once")
        if not self.shutters:
            raise InvalidArgumentError("shutters", self.shutters, "at least one speed is needed")
        for speed in self.shutters:
            require_between("shutters", speed, 1, 100_000)
        for name in ("sound_up_to_hz", "autofocus_up_to_hz"):
            require_between(name, getattr(self, name), 0, RATE_RANGE_HZ[1], "frames a second")
        if self.read_out_ms is not None:
            require_between("read_out_ms", self.read_out_ms, 0, 200, "ms")
        require_between("mass_g", self.mass_g, 1, MOST_MASS_G, "g")


@dataclass(frozen=True)
class Lens:
    """mount: which cameras it fits. focal_min_mm, focal_max_mm: true focal length, equal for a
    fixed lens. balance_mm: how far its centre of mass lies ahead of the mount."""

    mount: str
    focal_min_mm: float
    focal_max_mm: float
    stabiliser: bool
    mass_g: float
    length_mm: float
    diameter_mm: float
    balance_mm: float

    def __post_init__(self) -> None:
        _require_name(self.mount, "mount")
        require_between("focal_min_mm", self.focal_min_mm, *FOCAL_RANGE_MM, "mm")
        require_between("focal_max_mm", self.focal_max_mm, self.focal_min_mm, FOCAL_RANGE_MM[1],
                        "mm")  # fmt: skip
        require_between("mass_g", self.mass_g, 0, MOST_MASS_G, "g")
        require_between("length_mm", self.length_mm, 1, MOST_SIZE_MM, "mm")
        require_between("diameter_mm", self.diameter_mm, 1, 500, "mm")
        require_between("balance_mm", self.balance_mm, 0, self.length_mm, "mm")


@dataclass(frozen=True)
class Support:
    """Anything that helps to hold. carried: it hangs on the camera and counts in its balance.
    length_mm and route: of a strap, otherwise None."""

    kind: SupportKind
    mass_g: float
    size: Box
    place: Place
    carried: bool
    length_mm: float | None
    route: Route | None

    def __post_init__(self) -> None:
        require_between("mass_g", self.mass_g, 0, MOST_MASS_G, "g")
        if self.kind == "strap":
            if self.length_mm is None or self.route is None:
                raise InvalidArgumentError(
                    "length_mm", self.length_mm, "a strap needs its length and its route"
                )
            require_between("length_mm", self.length_mm, 50, MOST_SIZE_MM, "mm")


@dataclass(frozen=True)
class Optics:
    """How the camera of a set-up is set. mode: index into the camera's modes. shutter:
    denominator of the speed, None while it is left open. stretched: what is filmed at this rate is
    slowed in the file itself."""

    mode: int
    rate_hz: float
    focal_mm: float
    lens_stabiliser: bool
    body_stabiliser: bool
    digital_stabiliser: bool
    shutter: float | None
    stretched: bool = False


def check_optics(camera: Camera, lens: Lens, optics: Optics) -> None:
    """Raise InvalidArgumentError where camera or lens cannot be set so."""
    if not 0 <= optics.mode < len(camera.modes):
        raise InvalidArgumentError("mode", optics.mode, "the camera has no such mode")
    mode = camera.modes[optics.mode]
    if not any(math.isclose(optics.rate_hz, rate, abs_tol=0.02) for rate in mode.rates_hz):
        rates = ", ".join(f"{rate:g}" for rate in mode.rates_hz)
        rule = f"this mode records at {rates} frames a second"
        raise InvalidArgumentError("rate_hz", optics.rate_hz, rule)
    low, high = lens.focal_min_mm, lens.focal_max_mm
    if not low - 0.005 <= optics.focal_mm <= high + 0.005:
        reach = f"is {low:g} mm" if low == high else f"goes from {low:g} to {high:g} mm"
        raise InvalidArgumentError("focal_mm", optics.focal_mm, f"the lens {reach}")
    if optics.lens_stabiliser and not lens.stabiliser:
        raise InvalidArgumentError("lens_stabiliser", True, "this lens has no stabiliser")
    for kind in ("body", "digital"):
        if getattr(optics, f"{kind}_stabiliser") and stabiliser_of(camera, kind) is None:
            raise InvalidArgumentError(
                f"{kind}_stabiliser", True, f"this camera has no {kind} stabiliser"
            )
    if optics.shutter is not None and optics.shutter not in camera.shutters:
        raise InvalidArgumentError("shutter", optics.shutter, "the camera has no such speed")


def stabiliser_of(camera: Camera, kind: str) -> Stabiliser | None:
    """The camera's stabiliser of a kind, or None."""
    return next((one for one in camera.stabilisers if one.kind == kind), None)


def active_stabilisers(camera: Camera, optics: Optics) -> tuple[Stabiliser, ...]:
    """Those of the camera that are on and work at the chosen rate."""
    chosen = {"body": optics.body_stabiliser, "digital": optics.digital_stabiliser}
    return tuple(
        one
        for one in camera.stabilisers
        if chosen[one.kind] and optics.rate_hz <= one.up_to_hz + 0.02
    )


def _require_name(words: str, field: str = "name") -> None:
    if not words.strip() or len(words) > 120:
        raise InvalidArgumentError(field, words, "it needs a name of at most 120 characters")
