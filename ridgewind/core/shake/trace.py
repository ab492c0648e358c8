"""The ridge trace: gust over time with the share of each band, thinned for drawing."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import WINDOW_S, rolling_mean, to_gusts
from ridgewind.core.shake.reading import Reading, ShotReading

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Trace:
    """Columns of equal length m, over all shots in order.

    t_s; gust: gust(t), not a number where not measured; shares: (m, 5) of the second's power
    by band, each row sums to 1 or is 0; trusted: whether most of the sample can be believed.
    """

    t_s: Floats
    gust: Floats
    shares: Floats
    trusted: NDArray[np.bool_]


def trace(
    reading: Reading, band_powers: list[Floats], *, screen_deg: float, most_points: int
) -> Trace:
    """Thin gust(t) and band shares to at most about most_points samples.

    Gust(t) already averages a second, so every k-th sample is kept, and the highest of each k
    in its place so that no peak is lost.
    """
    total = sum(len(shot.power) for shot in reading.shots)
    step = max(1, -(-total // most_points))
    parts = [
        _shot_trace(shot, power, step, screen_deg)
        for shot, power in zip(reading.shots, band_powers, strict=True)
        if len(shot.power)
    ]
    if not parts:
        none = np.zeros(0)
        return Trace(none, none, np.zeros((0, 5)), none.astype(bool))
    t_s, gust, shares, trusted = (np.concatenate(column) for column in zip(*parts, strict=True))
    return Trace(t_s, gust, shares, trusted)


def _shot_trace(
    shot: ShotReading, powers: Floats, step: int, screen_deg: float
) -> tuple[Floats, Floats, Floats, NDArray[np.bool_]]:
    window = round(WINDOW_S * shot.rate_hz)
    gust = to_gusts(shot.second_power, screen_deg=screen_deg)
    starts = np.arange(0, len(gust), step)
    high = np.fmax.reduceat(gust, starts)
    middle = np.minimum(starts + step // 2, len(gust) - 1)
    seconds = rolling_mean(powers, shot.counted, window=window)[middle]
    total = seconds.sum(axis=1, keepdims=True)
    shares = np.divide(seconds, total, out=np.zeros_like(seconds), where=total > 0)
    believed = np.add.reduceat(shot.counted.astype(float), starts) >= 0.5 * np.diff(
        np.append(starts, len(gust))
    )
    return shot.t_s[middle], high, shares, believed
