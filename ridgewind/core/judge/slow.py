"""Playback rates: which an editor can make without uneven frames, and what each would look like.

A film of F frames a second that is delivered at D shows every s-th frame evenly at s · D / F of
its speed, for whole s. Any other rate keeps some frames longer than others and stutters, or has
the editor blend frames, which smears.
"""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.brief import Brief
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.lee import passes
from ridgewind.core.kit.timing import SLOWEST_USEFUL_RATE

BETWEEN_RATES = (0.75, 0.5, 0.4, 0.25)
"""Rates that people set by hand, shown beside the even ones."""

FASTER_RATES = (1.5, 2.0)
"""How a part that drags could be sped up; it shakes more then."""

SAME_RATE = 0.02
SLOWEST_SHOWN = 0.1


@dataclass(frozen=True)
class RateReading:
    """A playback rate. step: every step-th frame is shown, evenly; None where the cadence is
    uneven. gust, peak: as seen on the brief's screen. plays_s: seconds on screen of all of it."""

    rate: float
    step: int | None
    gust: float | None
    peak: float | None
    plays_s: float
    passes: bool


def even_rates(brief: Brief, *, fps: float) -> tuple[tuple[float, int], ...]:
    """Rates and steps of whole-frame cadences that slow a film down, the slowest first; none
    where the brief keeps the sound or no frames are left over."""
    slowest = brief.delivery_fps / fps
    if brief.keep_sound:
        return ()
    found, step = [], 1
    while step * slowest <= SLOWEST_USEFUL_RATE:
        found.append((step * slowest, step))
        step += 1
    return tuple(found)


def chosen_rate(
    analysis: Analysis, brief: Brief, *, fps: float, duration_s: float
) -> tuple[float, int] | None:
    """The fastest even rate at which all of it passes and lasts as long as wanted, else the
    slowest; None where slowing is not open. Shake falls and seconds grow as the rate falls, so a
    search by halves finds it."""
    rates = even_rates(brief, fps=fps)
    if not rates:
        return None

    def good(index: int) -> bool:
        rate, step = rates[index]
        if duration_s / rate < brief.wanted_s:
            return False
        reading = analysis.reading(rate, step=step)
        screen = brief.screen_deg
        return passes(reading.gust(screen_deg=screen), reading.peak(screen_deg=screen), brief)

    low, high = 0, len(rates) - 1
    if high > 0 and not good(0):
        return rates[0]
    while low < high:
        middle = (low + high + 1) // 2
        if good(middle):
            low = middle
        else:
            high = middle - 1
    return rates[low]


def rate_readings(
    analysis: Analysis, brief: Brief, *, fps: float, duration_s: float
) -> tuple[RateReading, ...]:
    """What every useful rate would look like, the slowest first: the even ones, those that
    people set by hand, and two faster ones."""
    base = brief.delivery_fps / fps
    steps = {step * base: step for step in range(1, 64) if step * base <= max(FASTER_RATES)}
    even = [rate for rate in steps if rate >= SLOWEST_SHOWN]
    odd = [
        rate
        for rate in (*BETWEEN_RATES, *FASTER_RATES)
        if rate > base and all(abs(rate - other) > SAME_RATE for other in even)
    ]
    found = []
    for rate in sorted({*even, *odd}):
        if abs(rate - 1.0) <= SAME_RATE:
            continue
        step = steps.get(rate)
        reading = analysis.reading(rate, step=step or 1)
        gust = reading.gust(screen_deg=brief.screen_deg)
        peak = reading.peak(screen_deg=brief.screen_deg)
        found.append(
            RateReading(rate, step, gust, peak, duration_s / rate, passes(gust, peak, brief))
        )
    return tuple(found)
