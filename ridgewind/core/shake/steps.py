"""Footfalls: how fast somebody walks, how evenly, and how hard the heels land.

Each step lifts and drops the camera, so that tilt carries a line at the cadence and its
harmonics; the weight swings over each foot, so that pan and roll carry one at half of it.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import median
from ridgewind.core.shake.spectrum import Spectrum

Floats = NDArray[np.float64]

SLOWEST_HZ, FASTEST_HZ = 1.2, 3.4
"""Cadences, steps a second, from a slow walk to a run (Winter, 1991)."""

GRID_HZ = 0.004
HARMONIC_WEIGHTS = (1.0, 0.8, 0.5, 0.3)
"""How much a line at each harmonic says for a cadence (chosen here)."""

WADDLE_WEIGHT = 0.4
HARDEST_HZ = 14.0
LEAST_STEPS = 4.0
LEAST_STANDING = 5.0
"""How far the line at the cadence stands over its surroundings, at least."""

LEAST_SHARE = 0.15
"""Of the tilt's power from 0.6 Hz to a little over two beats that must lie in their lines."""

NEAR_BEATS, LEAST_SECOND = 2.6, 3.0
LANDING_FROM_BEATS = 2.5

TILT, PAN, ROLL = 1, 0, 2


@dataclass(frozen=True)
class Steps:
    """cadence_hz: steps a second. evenness: the softer side's landing over the harder one's, 0
    to 1. hardness: speed in the harmonics over that in the beat itself. standing: how far the
    line stands over its surroundings."""

    cadence_hz: float
    evenness: float
    hardness: float
    standing: float


def find_steps(spectrum: Spectrum, speeds: Floats, *, rate_hz: float) -> Steps | None:
    """Steps of a shot, or None where nobody walks.

    speeds: (n, 4) that the spectrum is of, at capture rate.
    """
    length_s = len(speeds) / rate_hz
    fastest = min(FASTEST_HZ, 0.45 * rate_hz)
    cadences = np.arange(max(SLOWEST_HZ, LEAST_STEPS / length_s), fastest, GRID_HZ)
    if not len(cadences):
        return None
    lines = spectrum.lines
    score = np.zeros(len(cadences))
    for k, weight in enumerate(HARMONIC_WEIGHTS, start=1):
        score += weight * np.sqrt(np.interp(k * cadences, spectrum.hz, lines[:, TILT]))
    for part in (PAN, ROLL):
        score += WADDLE_WEIGHT * np.sqrt(np.interp(cadences / 2, spectrum.hz, lines[:, part]))
    best = float(cadences[int(score.argmax())])
    tilt = spectrum.power[:, TILT]
    ground = median(tilt[spectrum.between(0.55 * best, 1.45 * best)])
    standing = float(np.interp(best, spectrum.hz, tilt)) / max(ground, 1e-12)
    beats = np.arange(best, HARDEST_HZ, best)
    in_lines = spectrum.around(beats, within_hz=spectrum.line_hz)
    near = spectrum.between(0.6, NEAR_BEATS * best)
    share = float(lines[in_lines & near, TILT].sum()) / max(float(tilt[near].sum()), 1e-12)
    if standing < LEAST_STANDING or share < LEAST_SHARE or not _seconded(spectrum, best):
        return None
    return Steps(
        cadence_hz=best,
        evenness=_evenness(speeds[:, TILT], best, rate_hz),
        hardness=_hardness(spectrum, beats),
        standing=standing,
    )


def _seconded(spectrum: Spectrum, cadence_hz: float) -> bool:
    """Whether a second line bears a cadence out: twice of it in tilt, or half of it sideways."""
    for part, hz in ((TILT, 2.0 * cadence_hz), (PAN, cadence_hz / 2), (ROLL, cadence_hz / 2)):
        power = spectrum.power[:, part]
        beside = power[spectrum.between(0.55 * hz, 1.6 * hz)]
        peak = float(np.interp(hz, spectrum.hz, power))
        if len(beside) and peak > LEAST_SECOND * median(beside):
            return True
    return False


def _hardness(spectrum: Spectrum, beats: Floats) -> float:
    near = 0.5 * spectrum.line_hz
    tilt = spectrum.power[:, TILT]
    beat = float(tilt[spectrum.around(beats[:1], within_hz=near)].sum())
    over = float(tilt[spectrum.around(beats[1:], within_hz=near)].sum())
    return float(np.sqrt(over / max(beat, 1e-12)))


def _evenness(tilt_speed: Floats, cadence_hz: float, rate_hz: float) -> float:
    """The left foot's mean landing against the right one's.

    Only what is faster than the bounce and its first harmonics is a landing. Steps are told
    apart by the phase of the beat; a foot is every other step.
    """
    count = len(tilt_speed)
    frequency = np.fft.rfftfreq(count, 1.0 / rate_hz)
    transformed = np.fft.rfft(tilt_speed)
    fast = (frequency > LANDING_FROM_BEATS * cadence_hz) & (frequency < HARDEST_HZ)
    landing = np.abs(np.fft.irfft(transformed * fast, count))
    time_s = np.arange(count) / rate_hz
    beat = tilt_speed @ np.exp(-2j * np.pi * cadence_hz * time_s)
    step = np.floor(time_s * cadence_hz + np.angle(beat) / (2 * np.pi) + 0.5).astype(int)
    step -= step[0]
    hardest = np.zeros(step[-1] + 1)
    np.maximum.at(hardest, step, landing)
    whole = hardest[1:-1]  # the first and last step may be cut
    left, right = whole[::2], whole[1::2]
    if not len(left) or not len(right):
        return 1.0
    sides = sorted((float(left.mean()), float(right.mean())))
    return sides[0] / sides[1] if sides[1] > 0 else 1.0
