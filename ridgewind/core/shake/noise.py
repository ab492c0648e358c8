"""How much of a shake is the measurement's own scatter, so that it can be taken out.

Points are placed in each frame anew, so that what is wrong with their places is white: the same at
every frequency. A hand's shake falls off steeply over the tremor. What lies in the highest fifth
of the frequencies is therefore taken for scatter, as far as the two halves of the points disagree.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import fast_length, weight

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

HIGHEST = 0.8
"""Share of the highest frequency over which scatter is looked for."""

MOST_FLOORS = 4.0
"""Most that is taken for scatter, in multiples of the halves' disagreement (chosen here: what both
halves share, such as the blocks of a compressed picture, does not show between them)."""

LEAST_SAMPLES = 24
TELLING = 1.5
"""What is left must be more than this many times what was taken out."""

ABOVE_FLOOR, CALM_POWER = 2.0, 0.03
"""And, where it is calm whatever it is (a gust of 1), more than this many times the halves'
disagreement: error and shake add as squares, so that a shake as large as the error reads twice.
A louder one is doubted instead, see doubt.py."""

MEDIAN_OF_MEAN = 0.84
"""Median over mean of a spectrum's power where two parts rule (chi-squared, four degrees)."""


def scatter_power(
    speeds: Floats, counted: Bools, *, floor_power: float, rate_hz: float, playback: float
) -> float:
    """Mean square weighted speed that white scatter of the path adds, at playback.

    speeds: (n, 4) percent of the long side a second, at capture. counted: (n,) trusted samples.
    floor_power: mean square weighted speed of half the disagreement of two halves of the points.
    """
    if counted.sum() < LEAST_SAMPLES or floor_power <= 0:
        return 0.0
    known = np.where(counted[:, None], speeds, 0.0)
    length = fast_length(len(known))
    power = (np.abs(np.fft.rfft(known, length, axis=0)) ** 2).sum(axis=1)
    hz = np.fft.rfftfreq(length, 1.0 / rate_hz)
    # White places have speeds that grow with frequency in this way.
    shape = np.sin(np.pi * hz / rate_hz) ** 2
    high = hz >= HIGHEST * hz[-1]
    level = float(np.median(power[high] / shape[high])) / MEDIAN_OF_MEAN
    seen = level * shape * weight(hz * playback) ** 2 * playback**2
    white = 2.0 * float(seen.sum()) / (length * float(counted.sum()))
    return min(white, MOST_FLOORS * floor_power)


def without_scatter(
    power: Floats, counted: Bools, *, scatter_power: float, floor_power: float
) -> Floats:
    """Squared weighted speeds (n,) less what scatter adds; none where what is left cannot be told
    from nothing. floor_power: see scatter_power."""
    mean = float(power[counted].mean()) if counted.any() else 0.0
    if mean <= 0.0:
        return power
    left = mean - scatter_power
    least = TELLING * scatter_power
    if left < CALM_POWER:
        least = max(least, ABOVE_FLOOR * floor_power)
    return power * (left / mean if left > least else 0.0)
