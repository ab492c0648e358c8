"""What to work on next: the techniques that are farthest from their marks, and why."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.trials.curves import Progress

MOST = 3
LEAST_TAKES = 2
"""Takes of a drill under which nothing is said of it (chosen here)."""

LEAST_OVER = 0.05
"""What would be told as nothing over a mark is nothing."""

FARTHEST_WEEKS = 26.0
"""Beyond which a trend is not drawn out (chosen here: half a year)."""


@dataclass(frozen=True)
class Standing:
    """A drill as it stands. usual: the middle gust of its variations, target: its mark. trend:
    gust a week, None where it is not known. takes: that it is from."""

    drill_key: str
    usual: float
    target: float
    trend: Progress | None
    takes: int


@dataclass(frozen=True)
class Work:
    """over: gust over the mark. weeks: until it is at its mark if it goes on as it does, None where
    it does not surely come down."""

    drill_key: str
    over: float
    weeks: float | None


def next_work(standings: Sequence[Standing]) -> tuple[Work, ...]:
    """Drills over their marks, those with the most to gain first, at most MOST."""
    found = [
        Work(one.drill_key, one.usual - one.target, _weeks(one))
        for one in standings
        if one.takes >= LEAST_TAKES and one.usual - one.target >= LEAST_OVER
    ]
    return tuple(sorted(found, key=lambda one: -one.over)[:MOST])


def _weeks(one: Standing) -> float | None:
    if one.trend is None or one.trend.high >= 0.0:
        return None
    weeks = (one.usual - one.target) / -one.trend.slope
    return weeks if weeks <= FARTHEST_WEEKS else None
