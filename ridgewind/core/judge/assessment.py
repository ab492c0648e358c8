"""Everything that is said of one clip under one brief, recomputed from the path."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.judge.brief import Brief
from ridgewind.core.judge.remedies import Decision, Lee, decide, find_lee, slow_rate
from ridgewind.core.motion.path import Motion
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.reading import Reading, band_shares, read_motion
from ridgewind.core.units import pct_to_deg


@dataclass(frozen=True)
class Clip:
    """Facts of the file that the judgement needs."""

    fps: float
    duration_s: float
    has_sound: bool


@dataclass(frozen=True)
class Assessment:
    """Readings and decision. Gusts are as seen on the brief's screen.

    body_deg_s: what the body did, degrees a second. band_powers: per shot (n, 5).
    """

    reading: Reading
    bands: tuple[Band, ...]
    band_powers: list[NDArray[np.float64]]
    lee: Lee | None
    gust: float | None
    peak_gust: float | None
    floor_gust: float | None
    body_deg_s: float | None
    decision: Decision


def assess(motion: Motion, clip: Clip, brief: Brief) -> Assessment:
    """Read a path and decide, under a brief. Milliseconds, so it is never stored."""
    reading = read_motion(motion)
    rate = slow_rate(brief, fps=clip.fps)
    slowed = None if rate is None else read_motion(motion, playback=rate)
    bands, powers = band_shares(reading)
    speed = reading.speed_pct_s
    screen_deg = brief.screen_deg
    return Assessment(
        reading=reading,
        bands=bands,
        band_powers=powers,
        lee=find_lee(reading, brief),
        gust=reading.gust(screen_deg=screen_deg),
        peak_gust=reading.peak(screen_deg=screen_deg),
        floor_gust=reading.floor(screen_deg=screen_deg),
        body_deg_s=None if speed is None else pct_to_deg(speed, focal_eq_mm=brief.focal_eq_mm),
        decision=decide(
            reading,
            slowed,
            bands,
            brief,
            fps=clip.fps,
            has_sound=clip.has_sound,
            duration_s=clip.duration_s,
        ),
    )
