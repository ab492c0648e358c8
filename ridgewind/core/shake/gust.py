"""Gust: the weighted speed of the average picture point, on a doubling scale.

Formulas and worked values: docs/measurement.md.
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_positive
from ridgewind.core.units import aspect_to_rho

Floats = NDArray[np.float64]
Singles = NDArray[np.float32]
Spectra = NDArray[np.complex64]
Bools = NDArray[np.bool_]

FOLLOW_HZ = 0.8
"""Corner under which the eye follows motion without complaint (definition of gust)."""

RESOLVE_HZ = 12.0
"""Corner over which the eye no longer resolves motion (definition of gust)."""

EXTENSION_S = 2.0
"""Odd extension at both ends before filtering (definition of gust)."""

SPEED_AT_ZERO = 0.1
"""Weighted speed, percent of the long side a second, at which gust is 0."""

STEP_PER_DOUBLING = 1.25
GUST_MAX = 10.0
USUAL_SCREEN_DEG = 30.0
"""Screen angle that gust refers to: a laptop or television."""

WINDOW_S = 1.0
"""Gust(t) looks at the surrounding second."""

PEAK_PERCENTILE = 95.0

LEAST_ZOOM_PCT = -99.0
"""At which a hundredth of the picture's width is left: no film shows less (chosen here)."""


def weight(frequency_hz: NDArray[np.floating[Any]]) -> Floats:
    """Weight of speed (not of power) at each frequency at playback, 0 to 1."""
    squared = frequency_hz**2
    followed, resolved = squared / FOLLOW_HZ**2, squared / RESOLVE_HZ**2
    out: Floats = followed / ((1.0 + followed) * (1.0 + resolved * resolved))
    return out


def part_speeds(path: Floats, *, rate_hz: float, aspect: float) -> Floats:
    """Speed of each part of an evenly sampled path, percent of the long side a second.

    path: (n, 4), columns pan %, tilt %, roll °, zoom %. Returns (n - 1, 4), scaled so that the
    squares of the parts add up to the mean square speed of all picture points.
    """
    require_positive("rate_hz", rate_hz)
    if path.ndim != 2 or path.shape[1] != 4 or len(path) < 2:
        raise InvalidArgumentError("path", path.shape, "it must be (n, 4) with n of at least 2")
    return np.diff(in_long_sides(path, rho=aspect_to_rho(aspect)), axis=0) * rate_hz


def in_long_sides(path: Floats, *, rho: float) -> Floats:
    """Parts (n, 4) of a path as the mean way of picture points, percent of the long side.

    path: (n, 4), columns pan %, tilt %, roll °, zoom %. rho: root-mean-square distance of picture
    points from the centre, in long sides.
    """
    return in_logarithms(path) * long_sides_of(rho)


def in_logarithms(path: Floats) -> Floats:
    """A path (n, 4) with 100 times the logarithm of its growth for its zoom, which adds up. A curve
    between frames may swing to where nothing of the picture is left; it ends before that."""
    out: Floats = path.copy(order="K")
    out[:, 3] = 100.0 * np.log1p(np.maximum(path[:, 3], LEAST_ZOOM_PCT) / 100.0)
    return out


def long_sides_of(rho: float) -> Floats:
    """(4,) what one unit of each part of a path in logarithms is, percent of the long side."""
    return np.array([1.0, 1.0, 100.0 * rho * np.radians(1.0), rho])


@lru_cache(maxsize=256)
def fast_length(least: int) -> int:
    """The next length at which a Fourier transform is quick: only factors 2, 3 and 5."""
    best = 1 << (least - 1).bit_length()
    five = 1
    while five < best:
        three = five
        while three < best:
            rest = -(-least // three)
            best = min(best, three << max(0, (rest - 1).bit_length()))
            three *= 3
        five *= 5
    return best


def extend_oddly(series: Floats, *, rate_hz: float) -> tuple[Floats, int]:
    """Reflect a series (n, k) through its end points for two seconds, or as far as it goes.

    The tail is reflected a little further, up to a quick length for Fourier transforms.
    Returns the longer series and the number of rows added in front.
    """
    count = min(round(EXTENSION_S * rate_hz), len(series) - 1)
    wanted = fast_length(len(series) + 2 * count) - len(series) - count
    after = min(wanted, len(series) - 1)
    head = 2 * series[0] - series[count:0:-1]
    tail = 2 * series[-1] - series[-2 : -after - 2 : -1]
    return np.concatenate([head, series, tail]), count


def transform(series: Floats, *, rows: int | None = None) -> Spectra:
    """Spectrum (f, k) of a series (n, k), filled with zeros up to rows. Kept and brought back in
    single precision, in half of the time: each bin is right to a ten-millionth of itself."""
    return np.fft.rfft(series, rows, axis=0).astype(np.complex64)


def transform_back(spectrum: Spectra, gains: Floats, *, rows: int) -> Singles:
    """(rows, k) of a spectrum (f, k) whose bins are multiplied by gains (f,)."""
    found = np.fft.irfft(spectrum * gains.astype(np.float32)[:, None], rows, axis=0)
    return found.astype(np.float32, copy=False)


def weighted_speeds(speeds: Floats, *, playback_hz: float) -> Singles:
    """Speeds (n, 4) as the eye weighs them, when played at playback_hz frames a second."""
    extended, added = extend_oddly(speeds, rate_hz=playback_hz)
    gains = weight(np.fft.rfftfreq(len(extended), 1.0 / playback_hz))
    found = transform_back(transform(extended), gains, rows=len(extended))
    return found[added : added + len(speeds)]


def power_of(weighted: NDArray[np.floating[Any]]) -> Floats:
    """Square (n,) of the weighted speed s(t) from its four parts (n, 4)."""
    out: Floats = np.einsum("nk,nk->n", weighted, weighted).astype(np.float64)
    return out


def power_at_playback(speeds: Floats, *, rate_hz: float, playback: float) -> Floats:
    """Squared weighted speed (n,) of captured speeds (n, 4) when played at `playback` times their
    rate."""
    return power_of(weighted_speeds(speeds * playback, playback_hz=rate_hz * playback))


class SpeedSpectrum:
    """Speeds (n, 4) at capture, percent of the long side a second: transformed once, and then
    weighed at whatever rates they are played."""

    def __init__(self, speeds: Floats, *, rate_hz: float) -> None:
        extended, self._added = extend_oddly(speeds, rate_hz=rate_hz)
        self._speeds, self._rate_hz, self._length = speeds, rate_hz, len(extended)
        self._hz = np.fft.rfftfreq(self._length, 1.0 / rate_hz)
        self._spectrum = transform(extended)

    def power(self, playback: float) -> Floats:
        """Squared weighted speed (n,) when played at `playback` times their rate: that of
        `power_at_playback`, to a thousandth where it is slowed, as the ends are extended
        further then."""
        if playback > 1.0:  # not as far as they must be
            return power_at_playback(self._speeds, rate_hz=self._rate_hz, playback=playback)
        gains = playback * weight(self._hz * playback)
        found = transform_back(self._spectrum, gains, rows=self._length)
        return power_of(found[self._added : self._added + len(self._speeds)])


def median(values: Floats) -> float:
    """Of values (n,), see `percentile`."""
    return percentile(values, 50.0)


def seconds_of(power: Floats, counted: Bools, *, playback_hz: float) -> Floats:
    """(n,) mean of a squared weighted speed over the surrounding second at playback."""
    return rolling_mean(power, counted, window=round(WINDOW_S * playback_hz))


def peak_speed(second_power: Floats) -> float:
    """Speed that one second in twenty exceeds, of squared speeds (n,) over the second."""
    return math.sqrt(percentile(second_power, PEAK_PERCENTILE))


def percentile(values: Floats, percent: float) -> float:
    """Of values (n,), on a line between the two that are nearest: that of numpy, which sorts more
    of them and takes six times as long."""
    place = percent / 100.0 * (len(values) - 1)
    below = int(place)
    parted = np.partition(values, below)
    low = float(parted[below])
    if below + 1 == len(values):
        return low
    return low + (place - below) * (float(parted[below + 1 :].min()) - low)


def to_gust(speed_pct_s: float, *, screen_deg: float = USUAL_SCREEN_DEG) -> float:
    """Gust of a weighted speed, 0 to 10, seen on a screen of the given angle."""
    if speed_pct_s <= 0:
        return 0.0
    raw = STEP_PER_DOUBLING * np.log2(speed_pct_s / SPEED_AT_ZERO)
    return float(np.clip(raw + screen_offset(screen_deg), 0.0, GUST_MAX))


def to_gusts(power: Floats, *, screen_deg: float = USUAL_SCREEN_DEG) -> Floats:
    """Gust (n,) of squared weighted speeds (n,); not a number stays so."""
    with np.errstate(divide="ignore"):
        raw = 0.5 * STEP_PER_DOUBLING * np.log2(power / SPEED_AT_ZERO**2)
    out: Floats = np.clip(raw + screen_offset(screen_deg), 0.0, GUST_MAX)
    return out


def to_speed(gust: float, *, screen_deg: float = USUAL_SCREEN_DEG) -> float:
    """Weighted speed, percent of the long side a second, at which gust is reached."""
    above = (gust - screen_offset(screen_deg)) / STEP_PER_DOUBLING
    return float(SPEED_AT_ZERO * 2.0**above)


def screen_offset(screen_deg: float) -> float:
    """What a screen of this angle adds to gust."""
    require_positive("screen_deg", screen_deg)
    return float(STEP_PER_DOUBLING * np.log2(screen_deg / USUAL_SCREEN_DEG))


def rolling_mean(values: Floats, counted: Bools, *, window: int) -> Floats:
    """Mean of the counted values in the window around each sample.

    values: (n,) or (n, k). counted: (n,). Not a number where the window holds none.
    """
    half = max(window, 1) // 2
    shape = (-1,) + (1,) * (values.ndim - 1)
    if counted.all():  # as nearly always
        place = np.arange(len(values))
        around = np.minimum(place, half) + np.minimum(place[::-1], half) + 1.0
        return np.maximum(_rolling_sum(values, half) / around.reshape(shape), 0.0)
    total = _rolling_sum(counted.astype(np.float64), half).reshape(shape)
    sums = _rolling_sum(np.where(counted.reshape(shape), values, 0.0), half)
    with np.errstate(invalid="ignore", divide="ignore"):
        out: Floats = np.where(total > 0, sums / total, np.nan)
    return np.maximum(out, 0.0)


def _rolling_sum(values: Floats, half: int) -> Floats:
    """Sum of the values up to `half` samples before and after each."""
    sums = np.zeros((len(values) + 1 + 2 * half, *values.shape[1:]), order="F")
    np.cumsum(values, axis=0, out=sums[half + 1 : half + 1 + len(values)])
    sums[half + 1 + len(values) :] = sums[half + len(values)]
    out: Floats = sums[2 * half + 1 :] - sums[: len(values)]
    return out
