"""Take fast motion out of a path without delaying what is left."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import Singles, extend_oddly, transform, transform_back

Floats = NDArray[np.float64]


class LowPass:
    """An evenly sampled path (n, k), transformed once and then smoothed at any corner.

    The filter is a Gaussian with half its gain at the corner (chosen here: it does not ring, as a
    steeper edge would where a move begins). The line between the ends is set aside meanwhile,
    because a Fourier transform would join them by a jump.
    """

    def __init__(self, path: Floats, *, rate_hz: float) -> None:
        extended, self._added = extend_oddly(path, rate_hz=rate_hz)
        share = np.linspace(0.0, 1.0, len(extended))
        line = extended[0] + np.outer(extended[-1] - extended[0], share).T
        self._path, self._length = path, len(extended)
        self._hz = np.fft.rfftfreq(self._length, 1.0 / rate_hz)
        self._spectrum = transform(extended - line)

    def fast(self, corner_hz: float) -> Singles:
        """(n, k) what is faster than a corner: the path less its smooth one."""
        gains = 1.0 - np.exp2(-((self._hz / corner_hz) ** 2))
        found = transform_back(self._spectrum, gains, rows=self._length)
        return found[self._added : self._added + len(self._path)]

    def slow(self, corner_hz: float) -> Floats:
        """(n, k) what is slower than a corner: the smooth path."""
        return self._path - self.fast(corner_hz)


def lowpass(path: Floats, *, corner_hz: float, rate_hz: float) -> Floats:
    """What is slower than a corner of an evenly sampled path (n, k)."""
    return LowPass(path, rate_hz=rate_hz).slow(corner_hz)
