"""Everything that is said of one clip under one brief, recomputed from the path."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.judge.brief import Brief
from ridgewind.core.judge.polish import PolishCurve, polish_curve
from ridgewind.core.judge.remedies import Clip, Decision, Lee, decide, find_lee, slow_rate
from ridgewind.core.motion.path import Motion
from ridgewind.core.moves.move import MoveReading, read_move
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.causes import Causes, find_causes
from ridgewind.core.shake.reading import Reading, band_shares, read_motion
from ridgewind.core.units import pct_to_deg

MOST_READINGS = 4
"""Playback rates that an analysis keeps at a time."""


@dataclass(frozen=True)
class Assessment:
    """Readings and decision. Gusts are as seen on the brief's screen.

    body_deg_s: what the body did, degrees a second. band_powers: per shot (n, 5). move: None
    where too little can be measured.
    """

    reading: Reading
    bands: tuple[Band, ...]
    band_powers: list[NDArray[np.float64]]
    lee: Lee | None
    gust: float | None
    peak_gust: float | None
    floor_gust: float | None
    body_deg_s: float | None
    causes: Causes
    move: MoveReading | None
    polish: PolishCurve | None
    decision: Decision


class Analysis:
    """Readings of one path, each worked out when first asked for: none depends on the brief."""

    def __init__(self, motion: Motion) -> None:
        self.motion = motion
        self._readings: dict[float, Reading] = {}
        self._bands: tuple[tuple[Band, ...], list[NDArray[np.float64]]] | None = None
        self._causes: dict[bool, Causes] = {}
        self._polish: dict[float, PolishCurve | None] = {}
        self._move: tuple[tuple[float, bool], MoveReading | None] | None = None

    def reading(self, playback: float = 1.0) -> Reading:
        """The reading at a playback rate."""
        if playback not in self._readings:
            while len(self._readings) >= MOST_READINGS:
                self._readings.pop(next(iter(self._readings)))
            self._readings[playback] = read_motion(self.motion, playback=playback)
        return self._readings[playback]

    def bands(self) -> tuple[tuple[Band, ...], list[NDArray[np.float64]]]:
        """Bands of the clip and each shot's band powers, at capture speed."""
        if self._bands is None:
            self._bands = band_shares(self.reading())
        return self._bands

    def move(self, *, focal_eq_mm: float, expected: bool) -> MoveReading | None:
        """The move that was meant, at capture speed."""
        key = (focal_eq_mm, expected)
        if self._move is None or self._move[0] != key:
            aspect = self.motion.aspect
            found = read_move(
                self.reading(), aspect=aspect, focal_eq_mm=focal_eq_mm, expected=expected
            )
            self._move = (key, found)
        return self._move[1]

    def polish(self, playback: float = 1.0) -> PolishCurve | None:
        """The curve of crop against shake left, at a playback rate."""
        if playback not in self._polish:
            while len(self._polish) >= MOST_READINGS:
                self._polish.pop(next(iter(self._polish)))
            reading = self.reading(playback)
            self._polish[playback] = polish_curve(reading, aspect=self.motion.aspect)
        return self._polish[playback]

    def causes(self, *, moves: bool) -> Causes:
        """Why it shakes. moves: the camera was meant to move."""
        if moves not in self._causes:
            self._causes[moves] = find_causes(self.reading(), moves=moves)
        return self._causes[moves]


def assess(analysis: Analysis, clip: Clip, brief: Brief) -> Assessment:
    """Decide under a brief. Milliseconds, so it is never stored."""
    reading = analysis.reading()
    rate = slow_rate(brief, fps=clip.fps)
    slowed = None if rate is None else analysis.reading(rate)
    bands, powers = analysis.bands()
    move = analysis.move(focal_eq_mm=clip.focal_eq_mm, expected=clip.move_expected)
    polish = analysis.polish()
    causes = analysis.causes(moves=move is not None and move.move is not None)
    lee = find_lee(reading, brief)
    speed = reading.speed_pct_s
    screen_deg = brief.screen_deg
    return Assessment(
        reading=reading,
        bands=bands,
        band_powers=powers,
        lee=lee,
        gust=reading.gust(screen_deg=screen_deg),
        peak_gust=reading.peak(screen_deg=screen_deg),
        floor_gust=reading.floor(screen_deg=screen_deg),
        body_deg_s=None if speed is None else pct_to_deg(speed, focal_eq_mm=clip.focal_eq_mm),
        causes=causes,
        move=move,
        polish=polish,
        decision=decide(
            reading,
            slowed,
            bands,
            causes,
            brief,
            lee=lee,
            clip=clip,
            polish=polish,
            slow_polish=None if rate is None else analysis.polish(rate),
            apart=analysis.motion.apart,
        ),
    )
