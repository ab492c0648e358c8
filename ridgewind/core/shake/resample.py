"""Bring unevenly timed samples onto an even grid without taking fast shake away.

Straight lines between frames, or a polynomial through a few, lose what is faster than a few hertz.
What lies between is therefore the best linear estimate from the nearest samples (kriging; Wiener,
1949) for a path whose spectrum falls with frequency as a hand's does and ends at four tenths of the
frame rate: sway is followed like a curve, tremor like a wave.
"""

from __future__ import annotations

from functools import cache

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.path import typical_interval

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

NEAREST, FEWEST = 12, 6
"""Samples that a value is worked out from, and fewer than which lines are drawn."""

SLOWEST, FASTEST = 0.0017, 0.4
"""Ends of the spectrum, in shares of the frame rate (chosen here: an end at 0.45 loses a tenth of a
gust on a strong tremor with every fifth frame missing, 0.4 under a twentieth)."""

FLAT, FALLING = 1e-3, 5.6e-5
"""Power at frequency u, in shares of the frame rate: FLAT + FALLING / u², alike at 7 Hz of 30."""

NOISE = 1e-5
"""Error of the samples against the power of the path."""

TABLE_STEPS, TABLE_A_STEP = 32, 64
"""Reach of the table of covariances, in intervals, and its entries for each."""

EXACT_SHARE = 1e-6
"""Of an interval, by which times may differ from even ones for nothing to be done."""

EVEN_SHARE, WIDE_GAP = 0.02, 2.5
"""Distance to the nearest sample, in intervals, that is none; gap over which a line is drawn."""


def resample(t_s: Floats, known: Bools, values: Floats, *, curves: int) -> tuple[Floats, Floats]:
    """Even times (m,) at the usual rate, and the values (m, k) at them, bridged where not known.

    t_s: (n,). known: (n,). values: (n, k). curves: how many of the columns are curves; of the
    others, and over wide gaps, lines are drawn.
    """
    step = typical_interval(t_s)
    count = max(2, round((t_s[-1] - t_s[0]) / step) + 1)
    even = t_s[0] + step * np.arange(count)
    if count == len(t_s) and known.all() and np.abs(t_s - even).max() < EXACT_SHARE * step:
        return even, values.copy(order="F")
    known_s, known_values = t_s[known], values[known]
    out = np.array([np.interp(even, known_s, column) for column in known_values.T]).T
    if len(known_s) < FEWEST:
        return even, out
    after = np.clip(np.searchsorted(known_s, even), 1, len(known_s) - 1)
    before_s, after_s = known_s[after - 1], known_s[after]
    between = np.minimum(np.abs(even - before_s), np.abs(after_s - even)) > EVEN_SHARE * step
    between &= after_s - before_s <= WIDE_GAP * step
    if between.any():
        nearest = min(NEAREST, len(known_s))
        first = np.clip(after[between] - nearest // 2, 0, len(known_s) - nearest)
        near = first[:, None] + np.arange(nearest)
        weights = _weights((known_s[near] - even[between, None]) / step)
        out[between, :curves] = np.einsum("mk,mkc->mc", weights, known_values[near, :curves])
    return even, out


def _weights(apart: Floats) -> Floats:
    """(m, k) weights of samples that are so far (m, k), in intervals, from where a value is wanted;
    each row adds up to 1, so that a level is kept."""
    among = _covariance(apart[:, :, None] - apart[:, None, :])
    among += NOISE * np.eye(apart.shape[1])
    sides = np.stack([_covariance(apart), np.ones_like(apart)], axis=-1)
    towards, level = np.moveaxis(np.linalg.solve(among, sides), -1, 0)
    missing = (1.0 - towards.sum(axis=1)) / level.sum(axis=1)
    out: Floats = towards + level * missing[:, None]
    return out


def _covariance(apart: Floats) -> Floats:
    """Of a path with itself so many intervals later, 1 at none."""
    out: Floats = np.interp(np.abs(apart), *_table())
    return out


@cache
def _table() -> tuple[Floats, Floats]:
    """Intervals (n,) and the covariances (n,) at them, worked out when a film is uneven."""
    share = np.linspace(SLOWEST, FASTEST, 512)
    power = FLAT + FALLING / share**2
    apart = np.arange(TABLE_STEPS * TABLE_A_STEP + 1) / TABLE_A_STEP
    return apart, np.cos(2.0 * np.pi * apart[:, None] * share) @ power / power.sum()
