"""A body that moves as a shooter's own hand was measured to, for the stand-in camera."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.trials.drawn_hand import DrawnHand
from ridgewind.core.units import aspect_to_rho

Floats = NDArray[np.float64]


class DrawnBody:
    """Poses of a drawn hand before a flat background. What grows the picture is a step towards it,
    at a distance of distance_m; all else is turned, since a spectrum cannot tell turns from steps
    aside."""

    def __init__(self, hand: DrawnHand, *, aspect: float, distance_m: float) -> None:
        self._hand, self._distance_m = hand, distance_m
        self._radius_pct = 100.0 * aspect_to_rho(aspect)

    def pose(self, t_s: Floats) -> Floats:
        """Unwanted motion (n, 6) at instants (n,): yaw, pitch, roll in degrees, x, y, z in m."""
        turned = self._hand.turned(t_s) - self._hand.turned(np.zeros(1))
        out = np.zeros((len(t_s), 6))
        out[:, :2] = turned[:, :2]
        out[:, 2] = np.degrees(turned[:, 2] / self._radius_pct)
        out[:, 5] = self._distance_m * -np.expm1(-turned[:, 3] / self._radius_pct)
        return out
