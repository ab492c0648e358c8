"""The shake of a shot by frequency: how much of its squared weighted speed lies where."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_positive
from ridgewind.core.shake.gust import fast_length, weight

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

PARTS = ("pan", "tilt", "roll", "zoom")
PAD = 4
"""Zero padding, so that peaks between the bins of a short shot are seen."""

LINE_HALF_WIDTH = 2.0
"""Half width of a pure tone's line in bins of an unpadded spectrum: the Hann window's main
lobe."""

LEAST_SAMPLES = 8
LONGEST_S = 40.0
"""A longer shot is looked at in pieces: a line of 0.05 Hz is as fine as a cadence is steady."""

LEAST_PEAK_SHARE = 0.02


@dataclass(frozen=True)
class Spectrum:
    """Squared weighted speed by frequency.

    hz: (f,), evenly spaced. power: (f, 4) for pan, tilt, roll and zoom, (percent a second)²;
    all of it sums to the mean square weighted speed, S², of an even series. line_hz: half width
    at which a pure tone shows.
    """

    hz: Floats
    power: Floats
    line_hz: float

    @property
    def step_hz(self) -> float:
        return float(self.hz[1] - self.hz[0])

    @cached_property
    def lines(self) -> Floats:
        """(f, 4) what stands over the smooth ground."""
        width = round(8 * self.line_hz / self.step_hz)
        return np.maximum(self.power - background_of(self.power, width=width), 0.0)

    def between(self, low_hz: float, high_hz: float) -> Bools:
        """(f,) bins from low_hz, up to but not including high_hz."""
        inside: Bools = (self.hz >= low_hz) & (self.hz < high_hz)
        return inside

    def around(self, centres_hz: Floats, *, within_hz: float) -> Bools:
        """(f,) bins that are near any of the centres."""
        if not len(centres_hz):
            return np.zeros(len(self.hz), bool)
        distance_hz = np.abs(self.hz[:, None] - centres_hz[None]).min(axis=1)
        near: Bools = distance_hz <= within_hz
        return near


def spectrum_of(speeds: Floats, *, rate_hz: float, weighted: bool = True) -> Spectrum:
    """Spectrum of a shot's speeds (n, 4), percent of the long side a second, at capture rate;
    weighted as the eye does, or as they are.

    A Hann window keeps slow drift from leaking into everything else (Harris, 1978, "On the use
    of windows for harmonic analysis"); of more than LONGEST_S the mean of half overlapping pieces
    is taken (Welch, 1967). Raises InvalidArgumentError under 8 samples.
    """
    require_positive("rate_hz", rate_hz)
    if speeds.ndim != 2 or speeds.shape[1] != 4 or len(speeds) < LEAST_SAMPLES:
        raise InvalidArgumentError("speeds", speeds.shape, "it must be (n, 4), n at least 8")
    count = min(len(speeds), max(LEAST_SAMPLES, round(LONGEST_S * rate_hz)))
    pieces = 1 + math.ceil(2 * (len(speeds) - count) / count)  # half overlapping, end to end
    starts = np.linspace(0, len(speeds) - count, pieces).astype(int)
    window = np.hanning(count + 2)[1:-1]
    length = fast_length(PAD * count)
    hz = np.asarray(np.fft.rfftfreq(length, 1.0 / rate_hz), np.float64)
    power = np.zeros((4, len(hz))).T
    for start in starts:
        piece = speeds[start : start + count]
        transformed = np.fft.rfft((piece - piece.mean(axis=0)) * window[:, None], length, axis=0)
        power += transformed.real**2 + transformed.imag**2
    power *= 2.0 / (length * (window @ window) * len(starts))
    if weighted:
        power *= (weight(hz) ** 2)[:, None]
    return Spectrum(hz, power, LINE_HALF_WIDTH * rate_hz / count)


def background_of(power: Floats, *, width: int) -> Floats:
    """The smooth ground (f, k) that lines stand on: a running median over `width` bins.

    Every PAD-th bin is looked at, since padding only draws a curve through them.
    """
    seen = power[::PAD]
    half = max(1, width // (2 * PAD))
    padded = np.pad(seen, ((half, half), (0, 0)), mode="reflect" if half < len(seen) else "edge")
    windows = np.lib.stride_tricks.sliding_window_view(padded, 2 * half + 1, axis=0)
    coarse = np.partition(windows, half, axis=-1)[..., half]
    places, bins = PAD * np.arange(len(seen)), np.arange(len(power))
    return np.array([np.interp(bins, places, column) for column in coarse.T]).T


@dataclass(frozen=True)
class Peak:
    """A line of the spectrum. part: the one that carries most of it. share: of all power."""

    hz: float
    part: str
    share: float


def peaks_of(spectrum: Spectrum, *, most: int) -> tuple[Peak, ...]:
    """The strongest lines, each at least three times over its surroundings and with a fiftieth of
    all power, strongest first."""
    total_by_bin = spectrum.power.sum(axis=1)
    total = float(total_by_bin.sum())
    if total <= 0:
        return ()
    width = max(3, round(6 * spectrum.line_hz / spectrum.step_hz))
    ground = background_of(total_by_bin[:, None], width=width)[:, 0]
    inner = total_by_bin[1:-1]
    tops = np.flatnonzero(
        (inner >= total_by_bin[:-2]) & (inner > total_by_bin[2:]) & (inner > 3.0 * ground[1:-1])
    )
    found: list[Peak] = []
    taken: list[float] = []
    for index in tops[np.argsort(-inner[tops])] + 1:
        hz = float(spectrum.hz[index])
        if any(abs(hz - other) < spectrum.line_hz for other in taken):
            continue
        near = spectrum.around(np.array([hz]), within_hz=0.5 * spectrum.line_hz)
        by_part = spectrum.power[near].sum(axis=0)
        taken.append(hz)
        if float(by_part.sum()) < LEAST_PEAK_SHARE * total:
            continue
        found.append(Peak(hz, PARTS[int(by_part.argmax())], float(by_part.sum()) / total))
        if len(found) == most:
            break
    return tuple(found)
