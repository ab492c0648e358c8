"""How much of a shake is the measurement's own scatter, so that it can be taken out.

Points are placed in each frame anew, so that what is wrong with their places is white: the same at
every frequency. A hand's shake falls off steeply over the tremor. What lies in the highest fifth
of the frequencies is therefore taken for scatter, as far as the two halves of the points disagree.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import fast_length, median, weight

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


class Scatter:
    """White scatter of a path, looked for once and told at whatever rates it is played.

    speeds: (n, 4) percent of the long side a second, at capture. counted: (n,) trusted samples.
    """

    def __init__(self, speeds: Floats, counted: Bools, *, rate_hz: float) -> None:
        self._counted, length = int(counted.sum()), fast_length(len(speeds))
        self._hz = np.fft.rfftfreq(length, 1.0 / rate_hz)
        # White places have speeds that grow with frequency in this way.
        self._shape = np.sin(np.pi * self._hz / rate_hz) ** 2
        if self._counted < LEAST_SAMPLES:
            return
        known = speeds if counted.all() else np.where(counted[:, None], speeds, 0.0)
        high = self._hz >= HIGHEST * self._hz[-1]
        parts = np.fft.rfft(known, length, axis=0)[high]
        power = np.einsum("fk,fk->f", parts, parts.conj()).real
        level = median(power / self._shape[high]) / MEDIAN_OF_MEAN
        self._a_sample = 2.0 * level / (length * self._counted)

    def power(self, *, floor_power: float, playback: float) -> float:
        """Mean square weighted speed that it adds. floor_power: mean square weighted speed of half
        the disagreement of two halves of the points."""
        if self._counted < LEAST_SAMPLES or floor_power <= 0:
            return 0.0
        gains = playback * weight(self._hz * playback)
        white = self._a_sample * float(self._shape @ gains**2)
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
