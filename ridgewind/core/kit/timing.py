"""Frame rate against delivery: slow-down, what it costs, shutter, flicker and storage."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.kit.items import RATE_RANGE_HZ, Camera, Lens, Optics, check_optics

Lost = Literal["sound", "autofocus", "body stabiliser", "digital stabiliser"]

MAINS_HZ = (50.0, 60.0)
FLICKER_TOLERANCE = 0.01
"""An exposure may miss a whole number of light pulses by this share of one (chosen here)."""

SLOWEST_USEFUL_RATE = 0.9
"""Slowing by less than a tenth changes nothing that can be seen, and sound can follow it
(chosen here)."""

SHARP_SIDE_S = 1e-9


@dataclass(frozen=True)
class Speed:
    """A shutter speed of the camera, 1/denominator s. usable: its exposure fits between two
    frames. safe_50, safe_60: it holds whole light pulses under 50 or 60 Hz mains."""

    denominator: float
    usable: bool
    safe_50: bool
    safe_60: bool


@dataclass(frozen=True)
class Timing:
    """playback: share of full speed when every frame is shown at the delivery rate, at most 1.
    hold_s: how long to hold the shot for the seconds wanted. light_lost_stops: against
    shooting at the delivery rate with the shutter at half the interval both times. half:
    denominator of half the interval. nearest, nearest_safe_50, nearest_safe_60: denominators
    of the camera's speeds nearest to it, None where it has none that fits. repeats: the rate is
    under the delivery rate, so that frames must be repeated. storage_gb: of the session."""

    playback: float
    hold_s: float
    on_screen_s: float
    repeats: bool
    lost: tuple[Lost, ...]
    light_lost_stops: float
    half: float
    speeds: tuple[Speed, ...]
    nearest: float | None
    nearest_safe_50: float | None
    nearest_safe_60: float | None
    storage_gb: float
    recorded_s: float


def playback_share(rate_hz: float, delivery_fps: float) -> float:
    """Delivery rate over capture rate, never above 1.

    >>> playback_share(60, 24)
    0.4
    """
    require_between("rate_hz", rate_hz, *RATE_RANGE_HZ, "frames a second")
    require_between("delivery_fps", delivery_fps, *RATE_RANGE_HZ, "frames a second")
    return min(1.0, delivery_fps / rate_hz)


def flicker_safe(denominator: float, *, mains_hz: float) -> bool:
    """Whether an exposure of 1/denominator s holds a whole number of light pulses.

    Lamps pulse at twice the mains frequency. Exposures shorter than a pulse never are safe.

    >>> [flicker_safe(d, mains_hz=50) for d in (25, 50, 60, 100, 200)]
    [True, True, False, True, False]
    """
    pulses = 2.0 * mains_hz / denominator
    whole = round(pulses)
    return whole >= 1 and abs(pulses - whole) <= FLICKER_TOLERANCE


def storage_gb(mbit_s: float, seconds: float) -> float:
    """Gigabytes (10^9) of a recording.

    >>> storage_gb(80, 100)
    1.0
    """
    return mbit_s / 8.0 * seconds / 1000.0


def timing(
    camera: Camera,
    lens: Lens,
    optics: Optics,
    *,
    delivery_fps: float,
    wanted_s: float,
    takes: int,
    spare_s: float,
) -> Timing:
    """What the chosen rate gives and takes.

    wanted_s: seconds on screen. takes: planned for the session. spare_s: head and tail recorded
    around each.
    """
    check_optics(camera, lens, optics)
    require_between("wanted_s", wanted_s, 0.1, 36_000, "s")
    require_between("spare_s", spare_s, 0, 3_600, "s")
    if takes != int(takes) or not 1 <= takes <= 10_000:
        raise InvalidArgumentError("takes", takes, "it must be a whole number from 1 to 10000")
    rate_hz = optics.rate_hz
    playback = playback_share(rate_hz, delivery_fps)
    hold_s = wanted_s * playback
    half = 2.0 * rate_hz
    speeds = tuple(
        Speed(
            speed,
            1.0 / speed <= 1.0 / rate_hz + SHARP_SIDE_S,
            flicker_safe(speed, mains_hz=MAINS_HZ[0]),
            flicker_safe(speed, mains_hz=MAINS_HZ[1]),
        )
        for speed in sorted(camera.shutters)
    )
    usable = [speed for speed in speeds if speed.usable]
    recorded_s = takes * (hold_s + spare_s)
    return Timing(
        playback=playback,
        hold_s=hold_s,
        on_screen_s=wanted_s,
        repeats=rate_hz < delivery_fps * 0.999,
        lost=_lost(camera, optics, playback),
        light_lost_stops=max(0.0, math.log2(rate_hz / delivery_fps)),
        half=half,
        speeds=speeds,
        nearest=_nearest([speed.denominator for speed in usable], half),
        nearest_safe_50=_nearest([one.denominator for one in usable if one.safe_50], half),
        nearest_safe_60=_nearest([one.denominator for one in usable if one.safe_60], half),
        storage_gb=storage_gb(camera.modes[optics.mode].mbit_s, recorded_s),
        recorded_s=recorded_s,
    )


def _lost(camera: Camera, optics: Optics, playback: float) -> tuple[Lost, ...]:
    """What the rate, or playing it slower, switches off."""
    lost: list[Lost] = []
    if optics.rate_hz > camera.sound_up_to_hz or playback <= SLOWEST_USEFUL_RATE:
        lost.append("sound")
    if optics.rate_hz > camera.autofocus_up_to_hz:
        lost.append("autofocus")
    for one in camera.stabilisers:
        if optics.rate_hz > one.up_to_hz + 0.02:
            lost.append("body stabiliser" if one.kind == "body" else "digital stabiliser")
    return tuple(lost)


def _nearest(speeds: list[float], wanted: float) -> float | None:
    """The speed nearest in stops; the shorter one where two are as near."""
    return min(speeds, key=lambda d: (abs(math.log2(d / wanted)), -d), default=None)
