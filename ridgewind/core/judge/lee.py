"""The calm stretch of a take under a brief, and the best part of it of a wanted length."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.brief import Brief
from ridgewind.core.shake.reading import Reading, ShotReading
from ridgewind.core.shake.stretch import PEAK_ALLOWANCE, Stretch, calmest

LONGEST_LEE_SHARE = 0.9
"""A stretch longer than this share of a take is not worth a remedy of its own."""


@dataclass(frozen=True)
class Lee:
    """A stretch of one shot, with its place in the file and its figures. index: of the shot in
    its reading."""

    index: int
    shot: ShotReading
    stretch: Stretch
    start_s: float
    end_s: float
    gust: float
    peak: float

    @property
    def length_s(self) -> float:
        return self.end_s - self.start_s


def find_lee(reading: Reading, brief: Brief) -> Lee | None:
    """The longest stretch of any shot that passes the brief's target."""
    found = []
    for index, shot in enumerate(reading.shots):
        stretch = shot.lee(target=brief.target, screen_deg=brief.screen_deg)
        if stretch is not None:
            found.append(_lee(index, shot, stretch, brief))
    return max((lee for lee in found if lee), key=lambda lee: lee.length_s, default=None)


def find_calmest(
    reading: Reading, brief: Brief, *, length_s: float, within: Lee | None = None
) -> Lee | None:
    """The calmest stretch of a length at playback, of any shot or within another stretch; None
    where all are shorter."""
    found = []
    for index, shot in enumerate(reading.shots):
        if shot.reason is not None or (within is not None and index != within.index):
            continue
        start, stop = (0, len(shot.power)) if within is None else _samples(within)
        best = calmest(
            shot.power[start:stop],
            shot.counted[start:stop],
            rate_hz=shot.rate_hz * shot.playback,
            length_s=length_s,
        )
        if best is not None:
            moved = Stretch(best.start + start, best.stop + start)
            found.append(_lee(index, shot, moved, brief))
    return min((lee for lee in found if lee), key=lambda lee: lee.gust, default=None)


def passes(gust: float | None, peak: float | None, brief: Brief) -> bool:
    """Whether figures as seen on the brief's screen meet it."""
    if gust is None or peak is None:
        return False
    return gust <= brief.target and peak <= brief.target + PEAK_ALLOWANCE


def _samples(lee: Lee) -> tuple[int, int]:
    return lee.stretch.start, lee.stretch.stop


def _lee(index: int, shot: ShotReading, stretch: Stretch, brief: Brief) -> Lee | None:
    gust = shot.gust(stretch, screen_deg=brief.screen_deg)
    peak = shot.peak(stretch, screen_deg=brief.screen_deg)
    if gust is None or peak is None:
        return None
    return Lee(index, shot, stretch, *shot.times(stretch), gust, peak)
