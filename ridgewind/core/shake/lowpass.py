"""Take fast motion out of a path without delaying what is left."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import extend_oddly, filter_extended

Floats = NDArray[np.float64]


def smoothed(path: Floats, *, corner_hz: float, rate_hz: float) -> Floats:
    """What is slower than a corner of an evenly sampled path (n, k).

    A Gaussian with half its gain at the corner (chosen here: it does not ring, as a steeper edge
    would where a move begins). The line between the ends is set aside meanwhile, because a
    Fourier transform would join them by a jump.
    """
    extended, added = extend_oddly(path, rate_hz=rate_hz)
    line = np.linspace(extended[0], extended[-1], len(extended))
    hz = np.fft.rfftfreq(len(extended), 1.0 / rate_hz)
    gains = np.asarray(np.exp2(-((hz / corner_hz) ** 2)), np.float64)
    smooth = filter_extended(extended - line, gains, added=added, count=len(path))
    return smooth + line[added : added + len(path)]
