"""Stations of a moving camera, and where things stand in its frame.

The camera starts at the origin looking along z; x is right, y up, z ahead, metres.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ridgewind.core.units import FULL_FRAME_LONG_SIDE_MM

NEAREST_M = 0.05
"""Nothing in a plan is nearer to the camera (chosen here)."""


@dataclass(frozen=True)
class Station:
    """Camera at one instant. share: of the move, 0 to 1. yaw_deg: right. pitch_deg: up.
    roll_deg: clockwise from behind. focal_mm: equivalent."""

    share: float
    x_m: float
    y_m: float
    z_m: float
    yaw_deg: float
    pitch_deg: float
    roll_deg: float
    focal_mm: float


@dataclass(frozen=True)
class Seen:
    """A thing in the frame: its place from the middle, percent of the long side, right and up;
    scale against the start; None while it is behind the camera."""

    x_pct: float | None
    y_pct: float | None
    scale: float | None


def seen_along(path: tuple[Station, ...], thing: tuple[float, float, float]) -> tuple[Seen, ...]:
    """A thing (x, y, z), m, as the frame sees it from each station."""
    first: float | None = None
    out = []
    for station in path:
        right, up, ahead = _from_camera(station, thing)
        if ahead <= NEAREST_M / 10:
            out.append(Seen(None, None, None))
            continue
        size = station.focal_mm / ahead
        first = size if first is None else first
        per_m = 100.0 * size / FULL_FRAME_LONG_SIDE_MM
        roll = math.radians(station.roll_deg)
        x, y = right * per_m, up * per_m
        # A camera that rolls clockwise sees the world turn the other way.
        out.append(
            Seen(
                x * math.cos(roll) - y * math.sin(roll),
                x * math.sin(roll) + y * math.cos(roll),
                size / first,
            )
        )
    return tuple(out)


def _from_camera(station: Station, thing: tuple[float, float, float]) -> tuple[float, float, float]:
    """Right, up and ahead of the turned camera, metres."""
    x, y, z = thing[0] - station.x_m, thing[1] - station.y_m, thing[2] - station.z_m
    yaw, pitch = math.radians(station.yaw_deg), math.radians(station.pitch_deg)
    right, forward = x * math.cos(yaw) - z * math.sin(yaw), x * math.sin(yaw) + z * math.cos(yaw)
    up, ahead = (
        y * math.cos(pitch) - forward * math.sin(pitch),
        y * math.sin(pitch) + forward * math.cos(pitch),
    )
    return right, up, ahead
