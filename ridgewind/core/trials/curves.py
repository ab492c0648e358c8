"""Lines and curves through many takes: fastest walk, best strap tension, progress over weeks."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.distributions import middle_slope, t_quantile

Floats = NDArray[np.float64]

LEAST_FOR_LINE, LEAST_FOR_CURVE = 4, 5
"""Takes under which no line, and no parabola, is told (chosen here: one more than would pass
through them whatever they are, and one to see it)."""

PASSES = 0.8
"""Chance of passing at the fastest walk (definition)."""

CHANCE = 0.9
"""That an interval holds what it tells (definition)."""

DAYS_A_WEEK = 7.0
MOST_FOR_PAIRS = 600
"""Takes of which every pair has its slope; of more, so many evenly through them (chosen here: their
180,000 pairs tell it to far less than the interval)."""

LEAST_DAYS, LEAST_SPAN_DAYS = 3, 7.0
"""Days of practice, and days from the first to the last, under which no progress is told (chosen
here: a slope a week of less than a week is a guess)."""


@dataclass(frozen=True)
class Fastest:
    """cadence: steps a minute up to which a take passes with a chance of PASSES, within what was
    walked; None where none was slow enough. slope: gust for each further step a minute."""

    cadence: float | None
    at_most_walked: bool
    slope: float
    takes: int


@dataclass(frozen=True)
class Parabola:
    """value = a + b x + c x². lowest: where it is least, between low and high with a chance of
    CHANCE; None where it has no lowest point inside of what was filmed."""

    a: float
    b: float
    c: float
    lowest: float | None
    low: float | None
    high: float | None
    takes: int


@dataclass(frozen=True)
class Progress:
    """slope: gust a week, between low and high with a chance of CHANCE."""

    slope: float
    low: float
    high: float
    takes: int


def fastest_walk(
    cadence: Sequence[float], gust: Sequence[float], *, target: float
) -> Fastest | None:
    """The fastest cadence at which a take probably passes, by a straight line through all; None for
    too few takes, or all at one cadence. Bounds of one more take, as of any least-squares line."""
    x, y = _columns(cadence, gust)
    if len(x) < LEAST_FOR_LINE or np.ptp(x) == 0.0:
        return None
    slope, level = np.polyfit(x, y, 1)
    dof = len(x) - 2
    spread = math.sqrt(float(((y - level - slope * x) ** 2).sum()) / dof)
    about = float(((x - x.mean()) ** 2).sum())
    tried = np.linspace(x.min(), x.max(), 400)
    wide = spread * np.sqrt(1.0 + 1.0 / len(x) + (tried - x.mean()) ** 2 / about)
    passes = level + slope * tried + t_quantile(dof, PASSES) * wide <= target
    best = float(tried[passes].max()) if passes.any() else None
    return Fastest(best, bool(passes[-1]), float(slope), len(x))


def strap_curve(
    tension: Sequence[float], gust: Sequence[float], sessions: Sequence[str] = ()
) -> Parabola | None:
    """A parabola of gust, less its session's mean, over tension; None for too few takes or fewer
    than three tensions. sessions: of each take; left out where all are of one.

    The interval of the lowest point is Fieller's, as its ratio of two coefficients asks.
    """
    x, y = _columns(tension, gust)
    if len(x) < LEAST_FOR_CURVE or len(np.unique(x)) < 3:
        return None
    design = np.column_stack([x, x**2])
    inner, target, groups = design - design.mean(axis=0), y - y.mean(), 1
    if sessions:
        codes = np.unique(np.array(sessions), return_inverse=True)[1]
        groups = int(codes.max()) + 1
        inner, target = _less_means(design, codes), _less_means(y[:, None], codes)[:, 0]
    dof = len(x) - 2 - groups
    if dof < 1 or np.linalg.matrix_rank(inner) < 2:
        return None
    unscaled = np.linalg.inv(inner.T @ inner)
    b, c = (float(one) for one in unscaled @ inner.T @ target)
    square = float(((target - inner @ [b, c]) ** 2).sum()) / dof
    a = float(y.mean() - b * x.mean() - c * (x**2).mean())
    found = _lowest(b, c, square * unscaled, dof, float(x.min()), float(x.max()))
    return Parabola(a, b, c, *found, takes=len(x))


def _lowest(
    b: float, c: float, covariance: Floats, dof: int, least: float, most: float
) -> tuple[float | None, float | None, float | None]:
    """The lowest point and its interval, within what was filmed; nothing where the parabola opens
    downwards, perhaps, or its lowest point lies outside."""
    if c <= 0.0 or not least < -b / (2.0 * c) < most:
        return None, None, None
    t = t_quantile(dof, 0.5 + CHANCE / 2.0)
    # All x0 for which b + 2 c x0 could be 0: (b + 2 c x)² <= t² var(b + 2 c x).
    two = 4.0 * (c**2 - t**2 * covariance[1, 1])
    one = 4.0 * (b * c - t**2 * covariance[0, 1])
    none = b**2 - t**2 * covariance[0, 0]
    inside = one**2 - 4.0 * two * none
    if two <= 0.0 or inside < 0.0:
        return -b / (2.0 * c), least, most
    ends = [(-one + way * math.sqrt(inside)) / (2.0 * two) for way in (-1.0, 1.0)]
    return -b / (2.0 * c), float(max(least, ends[0])), float(min(most, ends[1]))


def progress_of(day: Sequence[float], gust: Sequence[float]) -> Progress | None:
    """How gust changes a week; None for too few takes or days. day: of each take, whole days.

    Source: Theil 1950, Sen 1968: the middle of the slopes of all pairs, which no stray take moves.
    """
    x, y = _columns(day, gust)
    if len(np.unique(x)) < LEAST_DAYS or len(x) < LEAST_FOR_LINE or np.ptp(x) < LEAST_SPAN_DAYS:
        return None
    if len(x) > MOST_FOR_PAIRS:
        order = np.argsort(x, kind="stable")
        kept = order[np.linspace(0, len(x) - 1, MOST_FOR_PAIRS).round().astype(int)]
        x, y = x[kept], y[kept]
    slope, low, high = (
        DAYS_A_WEEK * one for one in middle_slope(x.tolist(), y.tolist(), chance=CHANCE)
    )
    return Progress(slope, low, high, len(x))


def _less_means(columns: Floats, codes: NDArray[np.intp]) -> Floats:
    out = columns.astype(np.float64)
    for code in np.unique(codes):
        out[codes == code] -= columns[codes == code].mean(axis=0)
    return out


def _columns(x: Sequence[float], y: Sequence[float]) -> tuple[Floats, Floats]:
    one, other = np.array(x, np.float64), np.array(y, np.float64)
    if one.shape != other.shape:
        raise InvalidArgumentError("x", one.shape, "it must be as long as the other column")
    if not (np.isfinite(one).all() and np.isfinite(other).all()):
        raise InvalidArgumentError("x", "not a number", "every value must be a number")
    return one, other
