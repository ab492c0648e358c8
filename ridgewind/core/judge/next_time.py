"""What would help next time without changing technique, and when nothing on record would."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ridgewind.core.brief import Brief
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.cadence import delivered_step
from ridgewind.core.judge.lee import passes
from ridgewind.core.judge.retake import WIDEST_USUAL_MM, widest_passing
from ridgewind.core.judge.slow import even_rates
from ridgewind.core.kit.timing import SLOWEST_USEFUL_RATE
from ridgewind.core.shake.gust import to_gust

ENOUGH_RECORDS = 3
"""Takes from which what is on record says something (definition: fewer are a hint)."""


@dataclass(frozen=True)
class LensRange:
    """A lens of the kit and the focal lengths that it has, equivalent, mm."""

    name: str
    widest_mm: float
    longest_mm: float


@dataclass(frozen=True)
class Record:
    """Takes made one way: speed S of each, percent a second, at its equivalent focal length."""

    name: str
    speeds_pct_s: tuple[float, ...]
    focals_eq_mm: tuple[float, ...]


@dataclass(frozen=True)
class Hint:
    """kind: limit, lens, rate, support or three_legs. text: what to take, what it would read."""

    kind: str
    text: str


def hints_for(
    analysis: Analysis,
    brief: Brief,
    *,
    focal_eq_mm: float,
    fps: float,
    lenses: Sequence[LensRange],
    rates_hz: Sequence[float],
    records: Sequence[Record],
    reached: bool,
) -> tuple[Hint, ...]:
    """Hints in the order of what they cost: a lens, a rate, a support; nothing where it passes
    as shot. reached: some remedy short of doing it again passes."""
    reading = analysis.reading(step=delivered_step(fps, brief.delivery_fps))
    screen = brief.screen_deg
    gust, peak = reading.gust(screen_deg=screen), reading.peak(screen_deg=screen)
    if gust is None or passes(gust, peak, brief):
        return ()
    found = [
        _lens(widest_passing(gust, peak, brief, focal_eq_mm), focal_eq_mm, lenses),
        _rate(analysis, brief, fps=fps, rates_hz=rates_hz),
        _support(brief, focal_eq_mm, records),
    ]
    hints = tuple(hint for hint in found if hint is not None)
    on_record = sum(len(record.speeds_pct_s) for record in records)
    if not hints and not reached and on_record >= ENOUGH_RECORDS:
        text = (
            "Nothing on record would reach it: no lens, rate or support of yours."
            " This shot wants three legs or a stabilising machine."
        )
        return (Hint("three_legs", text),)
    return hints


def _lens(passing_mm: float, focal_eq_mm: float, lenses: Sequence[LensRange]) -> Hint | None:
    """The longest focal length of the kit that passes, or the one that would."""
    if not WIDEST_USUAL_MM <= passing_mm < focal_eq_mm:
        return None
    fits = [
        (min(lens.longest_mm, passing_mm), lens.name)
        for lens in lenses
        if lens.widest_mm <= passing_mm
    ]
    if fits:
        focal, name = max(fits)
        return Hint("lens", f"{name} at {int(focal)} mm: the same hand would pass.")
    return Hint("lens", f"A lens of {int(passing_mm)} mm or wider, which your kit lacks.")


def _rate(
    analysis: Analysis, brief: Brief, *, fps: float, rates_hz: Sequence[float]
) -> Hint | None:
    """The lowest higher frame rate at which slowing down would pass, where it does not now."""
    if brief.keep_sound or _slowed_passes(analysis, brief, fps):
        return None
    for rate_hz in sorted(rate for rate in rates_hz if rate > fps * 1.1):
        playback = brief.delivery_fps / rate_hz
        if playback > SLOWEST_USEFUL_RATE:
            continue
        reading = analysis.reading(playback)
        gust = reading.gust(screen_deg=brief.screen_deg)
        if passes(gust, reading.peak(screen_deg=brief.screen_deg), brief):
            return Hint(
                "rate",
                f"{rate_hz:g} frames a second, played at {100 * playback:.0f} %: gust {gust:.1f}.",
            )
    return None


def _slowed_passes(analysis: Analysis, brief: Brief, fps: float) -> bool:
    rates = even_rates(brief, fps=fps)
    if not rates:
        return False
    reading = analysis.reading(rates[0][0], step=rates[0][1])
    screen = brief.screen_deg
    return passes(reading.gust(screen_deg=screen), reading.peak(screen_deg=screen), brief)


def _support(brief: Brief, focal_eq_mm: float, records: Sequence[Record]) -> Hint | None:
    """The way on record that is usually under target at this focal length."""
    found = []
    for record in records:
        speeds = np.array(record.speeds_pct_s) * focal_eq_mm / np.array(record.focals_eq_mm)
        speeds = speeds[speeds > 0]
        if len(speeds):
            usual = float(np.exp(np.log(speeds).mean()))
            found.append((to_gust(usual, screen_deg=brief.screen_deg), record))
    if not found:
        return None
    gust, record = min(found, key=lambda one: one[0])
    if gust > brief.target:
        return None
    many = len(record.speeds_pct_s)
    sure = "" if many >= ENOUGH_RECORDS else " (a hint, no more)"
    takes = f"{many} take{'' if many == 1 else 's'}"
    return Hint("support", f"{record.name}: usually {gust:.1f} at this lens, over {takes}{sure}.")
