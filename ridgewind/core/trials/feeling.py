"""How a take felt against what was measured: whether this shooter's feeling can be trusted.

Of two takes of one way of holding, one that felt good and one that felt bad, the chance that the
one that felt good is the steadier: a half where feeling tells nothing. Only takes of one technique
are compared, so that a steady technique that feels good does not pass for a good feeling.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ridgewind.core.errors import InvalidArgumentError

CHANCE_Z = 1.6449
"""Standard normal quantile of 0.95: the interval holds it nine times in ten."""

LEAST_PAIRS = 4
"""Pairs under which nothing is told (chosen here: two takes a side)."""

HALVINGS = 60
Word = Literal["trust", "against", "nothing", "open"]

NOTHING_WIDE = 0.2
"""How far from a half an interval that tells nothing may reach (chosen here)."""


@dataclass(frozen=True)
class FeltTake:
    technique: str
    good: bool
    gust: float


@dataclass(frozen=True)
class Feeling:
    """right: chance, 0 to 1, that of two takes the one that felt good is the steadier, between low
    and high. good, bad: takes that can be compared."""

    right: float
    low: float
    high: float
    good: int
    bad: int

    @property
    def word(self) -> Word:
        """trust: it can be. against: what feels good is the rougher. nothing: it tells nothing.
        open: too few takes to say."""
        if self.low > 0.5:
            return "trust"
        if self.high < 0.5:
            return "against"
        if self.high - 0.5 < NOTHING_WIDE and 0.5 - self.low < NOTHING_WIDE:
            return "nothing"
        return "open"


def feeling_of(takes: Sequence[FeltTake]) -> Feeling | None:
    """How far feeling can be trusted over all techniques given; None for fewer than LEAST_PAIRS.

    The interval is the score interval of a concordance: with Hanley and McNeil's variance at the
    bound itself, so that it is right near 0 and 1 too.

    Source: Hanley & McNeil, *Radiology* 143 (1982); Newcombe, *Statistics in Medicine* 25 (2006),
    559-573, method 5. Strata are weighed by their pairs.
    """
    for one in takes:
        if not math.isfinite(one.gust):
            raise InvalidArgumentError("gust", one.gust, "it must be a number")
    sides: dict[str, tuple[list[float], list[float]]] = {}
    for one in takes:
        sides.setdefault(one.technique, ([], []))[0 if one.good else 1].append(one.gust)
    strata, right = [], 0.0
    for good, bad in sides.values():
        if good and bad:
            strata.append((len(good), len(bad)))
            off = np.subtract.outer(good, bad)
            right += float((off < 0.0).sum() + 0.5 * (off == 0.0).sum())
    pairs = sum(good * bad for good, bad in strata)
    if pairs < LEAST_PAIRS:
        return None
    found = right / pairs
    low, high = (_bound(found, strata, upward=upward) for upward in (False, True))
    return Feeling(found, low, high, sum(one for one, _ in strata), sum(one for _, one in strata))


def _bound(found: float, strata: Sequence[tuple[int, int]], *, upward: bool) -> float:
    """The farthest chance that is still within CHANCE_Z of its own error from what was found."""
    inside, outside = found, 1.0 if upward else 0.0
    for _ in range(HALVINGS):
        tried = 0.5 * (inside + outside)
        if abs(found - tried) <= CHANCE_Z * _error(tried, strata):
            inside = tried
        else:
            outside = tried
    return inside


def _error(right: float, strata: Sequence[tuple[int, int]]) -> float:
    """Standard error of a concordance over strata, weighed by their pairs (Hanley and McNeil, with
    Newcombe's mean of the sides in place of each)."""
    pairs = sum(good * bad for good, bad in strata)
    square = 0.0
    for good, bad in strata:
        middle = 0.5 * (good + bad) - 1.0
        rises = (1.0 - right) / (2.0 - right) + right / (1.0 + right)
        own = right * (1.0 - right) * (1.0 + middle * rises) / (good * bad)
        square += (good * bad / pairs) ** 2 * own
    return math.sqrt(square)
