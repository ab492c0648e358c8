"""When a drill is due again: spacing that widens with passes and shortens with fails.

The rule (chosen here, in the manner of spaced repetition): the first interval is 2 days. A pass
doubles it, up to 60 days; a fail halves it, down to 1 day. Several takes of one day count as one
result: passed where at least half of them passed. Days are whole numbers that grow by one a day.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.errors import InvalidArgumentError

FIRST_DAYS, LEAST_DAYS, MOST_DAYS = 2.0, 1.0, 60.0
WIDER, SHORTER = 2.0, 0.5


@dataclass(frozen=True)
class Result:
    """One take of a drill's variation. day: on which it was filmed."""

    day: int
    passed: bool


@dataclass(frozen=True)
class Due:
    """due_day: from which it is due. last_day, last_passed: None where it was never done.
    overdue: days since it was due over its interval, negative while it is not due; 1 where it
    was never done."""

    due_day: int
    interval_days: float
    last_day: int | None
    last_passed: bool | None
    overdue: float


def interval_after(results: Sequence[bool]) -> float:
    """Days to wait after daily results in order.

    >>> interval_after([True, True, False])
    4.0
    """
    days = FIRST_DAYS
    for passed in results:
        days *= WIDER if passed else SHORTER
        days = min(MOST_DAYS, max(LEAST_DAYS, days))
    return days


def by_day(results: Sequence[Result]) -> list[Result]:
    """One result a day, in order: passed where at least half of its takes passed."""
    days: dict[int, list[bool]] = {}
    for result in results:
        days.setdefault(result.day, []).append(result.passed)
    return [Result(day, 2 * sum(passed) >= len(passed)) for day, passed in sorted(days.items())]


def due(results: Sequence[Result], *, today: int) -> Due:
    """When a drill or variation with these results is due."""
    if any(result.day > today for result in results):
        raise InvalidArgumentError("today", today, "no result may be later")
    days = by_day(results)
    if not days:
        return Due(today, FIRST_DAYS, None, None, 1.0)
    interval = interval_after([result.passed for result in days])
    last = days[-1]
    due_day = last.day + round(interval)
    return Due(due_day, interval, last.day, last.passed, (today - due_day) / interval)


def days_ahead(results: Sequence[Result], *, today: int, horizon: int) -> tuple[int, ...]:
    """Days from today to the horizon (exclusive) on which it falls due, if it passes each time."""
    if horizon < 0:
        raise InvalidArgumentError("horizon", horizon, "it must not be negative")
    days = by_day(results)
    passed = [result.passed for result in days]
    at = max(today, due(results, today=today).due_day)
    out = []
    while at < today + horizon:
        out.append(at)
        passed.append(True)
        at += round(interval_after(passed))
    return tuple(out)
