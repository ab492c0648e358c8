"""Field of view, equivalent focal length, and the crop that is left.

Formulas: docs/measurement.md, "Arithmetic of the set-up".
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.errors import require_between, require_positive
from ridgewind.core.kit.items import (
    MOST_CROP,
    MOST_PX,
    Camera,
    Lens,
    Optics,
    active_stabilisers,
    check_optics,
)
from ridgewind.core.units import FULL_FRAME_LONG_SIDE_MM

FrameName = Literal["sensor", "mode", "stabiliser", "polish", "delivered"]


def equivalent_focal_mm(focal_mm: float, *, sensor_long_mm: float, crop: float = 0.0) -> float:
    """Focal length that sees as much on a 36 mm long side.

    crop: share of the long side taken by mode and stabiliser, 0 to under 1.

    >>> equivalent_focal_mm(50, sensor_long_mm=24)
    75.0
    >>> round(equivalent_focal_mm(24, sensor_long_mm=36, crop=0.1), 2)
    26.67
    """
    require_positive("focal_mm", focal_mm)
    require_positive("sensor_long_mm", sensor_long_mm)
    require_between("crop", crop, 0, 0.99)
    return focal_mm * FULL_FRAME_LONG_SIDE_MM / sensor_long_mm / (1.0 - crop)


def true_focal_mm(focal_eq_mm: float, *, sensor_long_mm: float, crop: float = 0.0) -> float:
    """The way back from `equivalent_focal_mm`."""
    require_positive("focal_eq_mm", focal_eq_mm)
    return focal_eq_mm * sensor_long_mm / FULL_FRAME_LONG_SIDE_MM * (1.0 - crop)


def field_of_view_deg(focal_eq_mm: float, *, side: float = 1.0) -> float:
    """Angle that a side of the picture spans: 2 atan(18 side / f).

    side: its length in long sides, so 1 for the long side, 9/16 for the short one of 16:9.

    >>> round(field_of_view_deg(18), 1)
    90.0
    """
    require_positive("focal_eq_mm", focal_eq_mm)
    require_positive("side", side)
    return math.degrees(2 * math.atan(FULL_FRAME_LONG_SIDE_MM / 2 * side / focal_eq_mm))


def combined_crop(crops: Iterable[float]) -> float:
    """Share taken by several crops one after the other: 1 less the product of what each leaves.

    >>> round(combined_crop([0.1, 0.2]), 4)
    0.28
    """
    left = 1.0
    for crop in crops:
        left *= 1.0 - crop
    return 1.0 - left


def set_up_crop(camera: Camera, optics: Optics) -> float:
    """Share of the sensor's long side taken by mode and active stabilisers."""
    mode = camera.modes[optics.mode]
    return combined_crop([mode.crop, *(one.crop for one in active_stabilisers(camera, optics))])


def set_up_focal_eq_mm(camera: Camera, lens: Lens, optics: Optics) -> float:
    """Equivalent focal length of a set-up, stabiliser crop included."""
    check_optics(camera, lens, optics)
    return equivalent_focal_mm(
        optics.focal_mm, sensor_long_mm=camera.sensor_long_mm, crop=set_up_crop(camera, optics)
    )


@dataclass(frozen=True)
class Frame:
    """A frame inside the sensor's picture, all sides in shares of the sensor's long side."""

    name: FrameName
    width: float
    height: float
    width_px: int | None
    height_px: int | None


@dataclass(frozen=True)
class Picture:
    """frames: from the sensor inwards to the delivered picture at full resolution.

    budget_pct: crop that the recording allows before the delivery has to be enlarged; negative
    where it must be enlarged anyway. polish_pct: how much of it the brief lets polish take.
    reframe_pct: what is then left for reframing.
    """

    focal_eq_mm: float
    long_deg: float
    short_deg: float
    diagonal_deg: float
    crop_pct: float
    frames: tuple[Frame, ...]
    budget_pct: float
    polish_pct: float
    reframe_pct: float
    enlarged: float


def picture(
    camera: Camera,
    lens: Lens,
    optics: Optics,
    *,
    delivery_px: tuple[int, int],
    most_crop_pct: float,
) -> Picture:
    """What the set-up sees, and what is left of it for polish and reframing.

    delivery_px: width and height of the finished picture. most_crop_pct: what the brief lets
    polish take, percent of the long side.
    """
    for name, side in zip(("delivery_width_px", "delivery_height_px"), delivery_px, strict=True):
        require_between(name, side, 64, MOST_PX, "px")
    require_between("most_crop_pct", most_crop_pct, 0, 100 * MOST_CROP, "%")
    focal_eq = set_up_focal_eq_mm(camera, lens, optics)
    mode = camera.modes[optics.mode]
    aspect = mode.height_px / mode.width_px
    sides = (1.0, aspect) if aspect <= 1 else (1 / aspect, 1.0)  # in long sides, across and up
    mode_long = 1.0 - mode.crop
    recorded_long = 1.0 - set_up_crop(camera, optics)
    fit_px = _fit((mode.width_px, mode.height_px), delivery_px)
    budget = 1.0 - delivery_px[0] / fit_px[0]
    polish = max(0.0, min(most_crop_pct / 100, budget))
    reframe = 0.0 if budget <= 0 else 1.0 - (1.0 - budget) / (1.0 - polish)
    per_px = recorded_long / max(mode.width_px, mode.height_px)
    kept = 1.0 - polish
    seen = (fit_px[0] * per_px, fit_px[1] * per_px)
    delivered = (min(delivery_px[0], fit_px[0]) * per_px, min(delivery_px[1], fit_px[1]) * per_px)
    frames = (
        Frame("sensor", 1.0, camera.sensor_short_mm / camera.sensor_long_mm, None, None),
        Frame("mode", mode_long * sides[0], mode_long * sides[1], None, None),
        Frame("stabiliser", recorded_long * sides[0], recorded_long * sides[1],
              mode.width_px, mode.height_px),
        Frame("polish", seen[0] * kept, seen[1] * kept,
              round(fit_px[0] * kept), round(fit_px[1] * kept)),
        Frame("delivered", *delivered, *delivery_px),
    )  # fmt: skip
    return Picture(
        focal_eq_mm=focal_eq,
        long_deg=field_of_view_deg(focal_eq),
        short_deg=field_of_view_deg(focal_eq, side=min(sides)),
        diagonal_deg=field_of_view_deg(focal_eq, side=math.hypot(*sides)),
        crop_pct=100 * set_up_crop(camera, optics),
        frames=frames,
        budget_pct=100 * budget,
        polish_pct=100 * polish,
        reframe_pct=100 * reframe,
        enlarged=max(1.0, delivery_px[0] / fit_px[0]),
    )


def _fit(recorded_px: tuple[int, int], delivery_px: tuple[int, int]) -> tuple[float, float]:
    """The largest frame of the delivery's shape inside the recorded one, px."""
    shape = delivery_px[0] / delivery_px[1]
    width = min(float(recorded_px[0]), recorded_px[1] * shape)
    return width, width / shape
