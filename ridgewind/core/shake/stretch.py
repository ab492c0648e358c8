"""Lee: the calm stretch of a take."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import PEAK_PERCENTILE

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

PEAK_ALLOWANCE = 1.0
"""A stretch passes when its peak gust is at most this much over the target."""

SHORTEST_S = 1.0
"""A calm stretch shorter than this is not worth a cut (chosen here)."""

MOST_EDGES = 900
"""Places at which a stretch may begin or end; long takes are searched more coarsely."""

MAX_UNTRUSTED = 0.1


@dataclass(frozen=True)
class Stretch:
    """Samples start to stop (exclusive) of a shot's speeds."""

    start: int
    stop: int


def longest_passing(
    power: Floats,
    second_power: Floats,
    counted: Bools,
    *,
    rate_hz: float,
    target_power: float,
    peak_power: float,
) -> Stretch | None:
    """The longest stretch whose mean power and peak second pass.

    power: (n,) squared weighted speed. second_power: (n,) its mean over the surrounding
    second. counted: (n,) trusted samples. target_power, peak_power: most that the mean and
    the 95th percentile may reach. None where nothing of at least a second passes.

    A stretch also begins and ends where the surrounding second is itself within target (chosen
    here: a rough edge could otherwise hide behind a calm middle).

    Both rules are sums over the stretch (of power less target, and of samples over the peak
    less their allowance), so prefix sums answer all candidates at once.
    """
    shortest = min(max(2, round(SHORTEST_S * rate_hz)), len(power))
    excess = np.where(counted, power - target_power, 0.0)
    over = np.where(counted, (second_power > peak_power) - (1.0 - PEAK_PERCENTILE / 100.0), 0.0)
    lost = (~counted) - MAX_UNTRUSTED
    sums = np.zeros((3, len(power) + 1))
    np.cumsum([excess, over, lost], axis=1, out=sums[:, 1:])
    tolerance = 1e-9 * (1.0 + target_power * len(power))
    calm = counted & (second_power <= target_power * (1.0 + 1e-9))
    stride = -(-len(power) // MOST_EDGES)
    edges = np.append(np.arange(0, len(power), stride), len(power))
    starts, stops = edges[:-1][calm[edges[:-1]]], edges[1:][calm[edges[1:] - 1]]
    if not len(starts) or not len(stops):
        return None
    found, least = None, (-shortest, np.inf)
    at_stops = sums[:, stops]
    for start in starts.tolist():
        # Later ones can only be shorter: those that are as long as the longest are looked at.
        first = int(np.searchsorted(stops, start - least[0]))
        if first == len(stops):
            break
        rise = at_stops[:, first:] - sums[:, start, None]
        passing = np.flatnonzero((rise <= tolerance).all(axis=0))
        if len(passing):
            last = int(passing[-1])
            this = (start - int(stops[first + last]), float(rise[0, last]))
            if this < least:
                found, least = Stretch(start, int(stops[first + last])), this
    if found is None or stride == 1:
        return found
    return _widened(found, sums, calm, stride, tolerance)


def _widened(found: Stretch, sums: Floats, calm: Bools, stride: int, tolerance: float) -> Stretch:
    """Push the ends of a coarsely found stretch out, as far as it still passes."""
    start, stop = found.start, found.stop
    for step in range(1, stride):
        low = found.start - step
        if low >= 0 and calm[low] and ((sums[:, stop] - sums[:, low]) <= tolerance).all():
            start = low
    for step in range(1, stride):
        high = found.stop + step
        inside = high <= len(calm) and bool(calm[high - 1])
        if inside and ((sums[:, high] - sums[:, start]) <= tolerance).all():
            stop = high
    return Stretch(start, stop)


def calmest(power: Floats, counted: Bools, *, rate_hz: float, length_s: float) -> Stretch | None:
    """The stretch of a wanted length with the least mean power; None where the shot is shorter."""
    length = round(length_s * rate_hz)
    if length < 1 or length > len(power):
        return None
    sums = np.concatenate([[0.0], np.cumsum(np.where(counted, power, 0.0))])
    counts = np.concatenate([[0.0], np.cumsum(counted)])
    seen = counts[length:] - counts[:-length]
    with np.errstate(invalid="ignore", divide="ignore"):
        mean = np.where(
            seen >= (1.0 - MAX_UNTRUSTED) * length, (sums[length:] - sums[:-length]) / seen, np.inf
        )
    best = int(mean.argmin())
    return Stretch(best, best + length) if np.isfinite(mean[best]) else None
