"""What the shooter means the camera to do, apart from shake."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Move = Callable[[Floats, float], Floats]
"""(instants (n,), length of the take in s) to the intended pose (n, 6), or (n, 7) with a zoom."""

WALK_M_S, ZOOM = 0.55, 1.6
PAN_DEG, TILT_DEG, SLIDE_M, RISE_M = 14.0, 8.0, 0.5, 0.35


def _eased(t_s: Floats, length_s: float) -> Floats:
    """0 to 1 over the middle of the take, at constant speed with soft ends."""
    head = 0.12
    x = np.clip((t_s / length_s - head) / (1 - 2 * head), 0.0, 1.0)
    soft = 0.15
    ramp = np.where(
        x < soft,
        x**2 / (2 * soft),
        np.where(x > 1 - soft, 1 - soft - (1 - x) ** 2 / (2 * soft), x - soft / 2),
    )
    out: Floats = ramp / (1 - soft)
    return out


def _still(t_s: Floats, length_s: float) -> Floats:
    return np.zeros((len(t_s), 6))


def _along(column: int, low: float, high: float) -> Move:
    def move(t_s: Floats, length_s: float) -> Floats:
        out = np.zeros((len(t_s), 6))
        out[:, column] = low + (high - low) * _eased(t_s, length_s)
        return out

    return move


def _walk(t_s: Floats, length_s: float) -> Floats:
    out = np.zeros((len(t_s), 6))
    out[:, 5] = WALK_M_S * t_s
    return out


def _zoom(t_s: Floats, length_s: float) -> Floats:
    """The lens zooms in; the pose carries its growth in a seventh column."""
    out = np.zeros((len(t_s), 7))
    out[:, 6] = ZOOM ** _eased(t_s, length_s)
    return out


MOVES: dict[str, Move] = {
    "hold": _still,
    "pan": _along(0, -PAN_DEG / 2, PAN_DEG / 2),
    "tilt": _along(1, -TILT_DEG / 2, TILT_DEG / 2),
    "slide": _along(3, -SLIDE_M / 2, SLIDE_M / 2),
    "rise": _along(4, RISE_M / 2, -RISE_M / 2),
    "walk": _walk,
    "zoom": _zoom,
}
