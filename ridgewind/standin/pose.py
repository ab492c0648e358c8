"""Six degrees of freedom, and what they do to a picture of a flat layer."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

COLUMNS = ("yaw_deg", "pitch_deg", "roll_deg", "x_m", "y_m", "z_m")


@dataclass(frozen=True)
class PinholeLens:
    """A rectilinear lens. size: picture width and height, px."""

    focal_eq_mm: float
    size: tuple[int, int]

    @property
    def focal_px(self) -> float:
        return self.focal_eq_mm / 36.0 * max(self.size)

    @property
    def matrix(self) -> Floats:
        """(3, 3) camera matrix; pixel centres at whole numbers, axis at the picture's centre."""
        width, height = self.size
        focal = self.focal_px
        return np.array(
            [[focal, 0.0, (width - 1) / 2.0], [0.0, focal, (height - 1) / 2.0], [0.0, 0.0, 1.0]]
        )


@dataclass(frozen=True)
class Plane:
    """Points X with normal · X = distance_m, seen from the starting place: x right, y down,
    z ahead, metres."""

    normal: tuple[float, float, float]
    distance_m: float


def facing(distance_m: float) -> Plane:
    """A flat that faces the camera at the start."""
    return Plane((0.0, 0.0, 1.0), distance_m)


def ground(height_m: float) -> Plane:
    """Level ground under a camera held at this height."""
    return Plane((0.0, 1.0, 0.0), height_m)


def rotation(yaw_deg: Floats, pitch_deg: Floats, roll_deg: Floats) -> Floats:
    """(..., 3, 3) world to camera: right, up and clockwise (seen from behind) are positive."""
    (cy, cp, cr), (sy, sp, sr) = (
        turned(np.radians([yaw_deg, pitch_deg, roll_deg])) for turned in (np.cos, np.sin)
    )
    one, none = np.ones_like(cy), np.zeros_like(cy)
    turn_right = _stacked([[cy, none, -sy], [none, one, none], [sy, none, cy]])
    turn_up = _stacked([[one, none, none], [none, cp, sp], [none, -sp, cp]])
    clockwise = _stacked([[cr, sr, none], [-sr, cr, none], [none, none, one]])
    return clockwise @ turn_up @ turn_right


def _stacked(rows: list[list[Floats]]) -> Floats:
    """Matrices (..., 3, 3) from their elements (...)."""
    return np.stack([np.stack(row, axis=-1) for row in rows], axis=-2)


def plane_to_picture(lens: PinholeLens, plane: Plane, pose: Floats) -> Floats:
    """(..., 3, 3) rays of the starting camera (x/z, y/z, 1) to px, for points on a plane.

    pose: (..., 6) in the order of COLUMNS, or (..., 7) with the zoom against the lens. The
    plane-induced homography (Hartley and Zisserman, 2004, "Multiple View Geometry", 13.1).
    """
    normal = np.array(plane.normal)
    shift = pose[..., 3:6, None] * normal / plane.distance_m
    matrix = np.broadcast_to(lens.matrix, shift.shape).copy()
    if pose.shape[-1] > 6:
        matrix[..., :2, :2] *= pose[..., 6, None, None]
    turned = rotation(pose[..., 0], pose[..., 1], pose[..., 2])
    out: Floats = matrix @ turned @ (np.eye(3) - shift)
    return out
