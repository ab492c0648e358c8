"""Polish, simulated: how much crop takes how much shake away at the desk.

The path is smoothed without delay, every frame is moved onto the smooth one, and the picture is
enlarged until no corner of any frame is empty. Nothing is rendered: the smallest enlargement
follows from the corrections, and what shake is left from the smooth path, seen enlarged. Motion
blur stays as it was shot.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import require_positive
from ridgewind.core.shake.gust import (
    PEAK_PERCENTILE,
    WINDOW_S,
    extend_oddly,
    part_speeds,
    power_of,
    rolling_mean,
    weighted_speeds,
)
from ridgewind.core.shake.reading import Reading, ShotReading

Floats = NDArray[np.float64]

CORNERS_HZ = (3.0, 2.0, 1.4, 1.0, 0.7, 0.45, 0.25, 0.14)
"""What is slower than each of these is kept, from the lightest polish to the strongest."""

LIGHT_PCT, MEDIUM_PCT = 4.0, 10.0
"""Crop up to which a polish is light, and medium; beyond it is strong (definition)."""

BLUR_PCT, MOST_BLUR_PCT = 0.15, 0.3
"""Smear in one exposure from which it shows after polishing (definition), and from which a polished
shot looks wrong, because it smears where nothing moves (chosen here: twice that)."""

USUAL_SHUTTER = 0.5
"""Share of the frame interval that the shutter is taken to be open."""

MOST_APART = 0.3
"""Share of the picture that moves otherwise, from which a polish bends it."""


@dataclass(frozen=True)
class PolishPoint:
    """One strength. corner_hz: what is slower is kept. crop_pct: of the long side. speed_pct_s,
    peak_pct_s: S that is left, and the 95th percentile of it over a second, as seen enlarged."""

    corner_hz: float
    crop_pct: float
    speed_pct_s: float
    peak_pct_s: float


@dataclass(frozen=True)
class PolishCurve:
    """points: from light to strong, crop growing. blur_pct: smear of a frame that one in twenty
    exceeds, percent of the long side, at a shutter of half the frame interval."""

    points: tuple[PolishPoint, ...]
    blur_pct: float


def polish_curve(reading: Reading, *, aspect: float) -> PolishCurve | None:
    """The curve of crop against what is left, at a reading's playback rate; None where nothing
    was measured. One enlargement serves all shots. aspect: short side / long side."""
    require_positive("aspect", aspect)
    shots = [shot for shot in reading.shots if shot.counted.any()]
    if not shots:
        return None
    weights = [int(shot.counted.sum()) for shot in shots]
    polishers = [Polisher(shot, aspect=aspect) for shot in shots]
    points: list[PolishPoint] = []
    for corner_hz in CORNERS_HZ:
        found = [one.at(corner_hz) for one in polishers]
        enlarge = max(one[0] for one in found)
        crop_pct = 100.0 * (1.0 - 1.0 / enlarge)
        if points and crop_pct <= points[-1].crop_pct:
            crop_pct = points[-1].crop_pct
        power = float(np.average([one[1] for one in found], weights=weights))
        seconds = np.concatenate([one[2] for one in found])
        peak = float(np.percentile(seconds, PEAK_PERCENTILE))
        points.append(PolishPoint(corner_hz, crop_pct, enlarge * power**0.5, enlarge * peak**0.5))
    return PolishCurve(tuple(points), _blur_pct(shots))


def enlargement(off: Floats, *, aspect: float) -> float:
    """Smallest enlargement at which no corner of a corrected frame is empty, at least 1.

    off: (n, 4) corrections. A frame that is off by (x, y), turned and grown shows the smooth
    one's window moved, turned and grown within it; all four corners must lie inside.
    """
    shift_x, shift_y = np.abs(off[:, 0]) / 100.0, np.abs(off[:, 1]) / 100.0
    turn = np.abs(np.radians(off[:, 2]))
    grown = 1.0 + off[:, 3] / 100.0
    cosine, sine = np.cos(turn), np.sin(turn)
    across = (cosine + sine * aspect) / np.maximum(1.0 - 2.0 * shift_x, 1e-3)
    down = (cosine * aspect + sine) / np.maximum(aspect - 2.0 * shift_y, 1e-3)
    needed = np.maximum(across, down) * grown
    return max(1.0, float(needed.max()))


class Polisher:
    """One shot, transformed once and then polished at any strength."""

    def __init__(self, shot: ShotReading, *, aspect: float) -> None:
        self._shot, self._aspect = shot, aspect
        self._path = shot.path.copy()
        self._path[:, 3] = 100.0 * np.log1p(shot.path[:, 3] / 100.0)  # adds up in logarithms
        extended, self._added = extend_oddly(self._path, rate_hz=shot.rate_hz)
        line = np.linspace(extended[0], extended[-1], len(extended))
        self._length = len(extended)
        self._hz = np.fft.rfftfreq(self._length, 1.0 / shot.rate_hz)
        self._spectrum = np.fft.rfft(extended - line, axis=0)

    def off(self, corner_hz: float) -> Floats:
        """(n, 4) by which each frame is off the smooth path: pan %, tilt %, roll °, and 100 times
        the logarithm of its growth. The smoothing is that of core/shake/smooth.py."""
        fast = 1.0 - np.exp2(-((self._hz / corner_hz) ** 2))
        off = np.fft.irfft(self._spectrum * fast[:, None], self._length, axis=0)
        out: Floats = off[self._added : self._added + len(self._path)]
        return out

    def left(self, off: Floats) -> Floats:
        """(n - 1,) squared weighted speed of the smooth path, at the reading's playback rate."""
        shot, smooth = self._shot, self._path - off
        smooth[:, 3] = 100.0 * np.expm1(smooth[:, 3] / 100.0)
        speeds = part_speeds(smooth, rate_hz=shot.rate_hz, aspect=self._aspect) * shot.playback
        return power_of(weighted_speeds(speeds, playback_hz=shot.rate_hz * shot.playback))

    def at(self, corner_hz: float) -> tuple[float, float, Floats]:
        """Enlargement, mean power left before it, and the power of the counted seconds."""
        shot, off = self._shot, self.off(corner_hz)
        power = self.left(off)
        window = round(WINDOW_S * shot.rate_hz * shot.playback)
        seconds = rolling_mean(power, shot.counted, window=window)[shot.counted]
        off[:, 3] = 100.0 * np.expm1(off[:, 3] / 100.0)
        enlarge = enlargement(off, aspect=self._aspect)
        return enlarge, float(power[shot.counted].mean()), seconds


def _blur_pct(shots: list[ShotReading]) -> float:
    smears = [
        np.hypot(shot.speeds[shot.counted, 0], shot.speeds[shot.counted, 1])
        * (USUAL_SHUTTER / shot.rate_hz)
        for shot in shots
    ]
    return float(np.percentile(np.concatenate(smears), 95))
