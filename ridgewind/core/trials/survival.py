"""How long a hold lasts: when takes crumble, those among them that never did."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_positive

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

OVER_FOR_S = 0.5
"""The running gust has been over target for so long when a hold is over (definition)."""

SAME_SHARE = 1e-9
"""By which a share may differ from another and be it: eight takes of ten are four in five, though
the product that says so ends in 0.7999…"""

BOUND_SIGMA = 1.6449
"""Standard normal quantile of 0.95: bounds hold with a chance of nine in ten."""


@dataclass(frozen=True)
class Hold:
    """A take that was over at seconds; or, where it is not, was held to its end at seconds."""

    seconds: float
    over: bool


@dataclass(frozen=True)
class Quantile:
    """seconds that a share of takes outlast, with bounds; None where more than the share are left
    after the last moment at which any was over."""

    share: float
    seconds: float | None
    low: float | None
    high: float | None


@dataclass(frozen=True)
class Survival:
    """Kaplan-Meier. seconds, share, low, high: at each moment at which a take was over, the share
    of takes that outlast it, with bounds. held: takes that never were over."""

    seconds: tuple[float, ...]
    share: tuple[float, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]
    takes: int
    held: int

    def outlasting(self, share: float) -> Quantile:
        """The seconds that a share of takes outlast."""
        return Quantile(
            share,
            self._when(self.share, share),
            self._when(self.low, share),
            self._when(self.high, share),
        )

    def _when(self, line: Sequence[float], share: float) -> float | None:
        """The last moment at which a take was over that still leaves the share; the first, up to
        which all were held, where none does; None where more than the share are left at the end."""
        if not line or line[-1] > share - SAME_SHARE:
            at_end = bool(line) and line[-1] < share + SAME_SHARE
            return self.seconds[-1] if at_end else None
        leaving = [s for s, one in zip(self.seconds, line, strict=True) if one > share - SAME_SHARE]
        return leaving[-1] if leaving else self.seconds[0]


def survival_of(holds: Sequence[Hold]) -> Survival:
    """The share of takes that outlast each second. Raises InvalidArgumentError.

    Source: Kaplan and Meier 1958; bounds by Greenwood's variance on the log-log scale.

    >>> found = survival_of([Hold(3.2, True), Hold(5.0, True), Hold(8.0, False)])
    >>> [round(one, 3) for one in found.share]
    [0.667, 0.333]
    """
    for one in holds:
        require_positive("seconds", one.seconds)
    share, variance = 1.0, 0.0
    rows = []
    for moment in sorted({one.seconds for one in holds if one.over}):
        left = sum(one.seconds >= moment for one in holds)
        ended = sum(one.over and one.seconds == moment for one in holds)
        share *= 1.0 - ended / left
        if left > ended:
            variance += ended / (left * (left - ended))
        rows.append((moment, share, *_bounds(share, variance)))
    return Survival(
        seconds=tuple(row[0] for row in rows),
        share=tuple(row[1] for row in rows),
        low=tuple(row[2] for row in rows),
        high=tuple(row[3] for row in rows),
        takes=len(holds),
        held=sum(not one.over for one in holds),
    )


def _bounds(share: float, variance: float) -> tuple[float, float]:
    if not 0.0 < share < 1.0:
        return share, share
    step = BOUND_SIGMA * math.sqrt(variance) / abs(math.log(share))
    return share ** math.exp(step), share ** math.exp(-step)


LEVEL_STEP = 0.25
LEVELS: tuple[float, ...] = tuple(LEVEL_STEP * step for step in range(2, 41))
"""Gusts for which it is kept when a take was over: a target between two of them is as the one that
is nearer, an eighth of a gust away at most."""


def level_index(targets: Floats) -> NDArray[np.intp]:
    """Which of LEVELS is nearest to each of some targets, gust on the usual screen."""
    steps = np.rint((targets - LEVELS[0]) / LEVEL_STEP)
    out: NDArray[np.intp] = np.clip(steps, 0, len(LEVELS) - 1).astype(np.intp)
    return out


@dataclass(frozen=True)
class Lasting:
    """Until when a take lasted. length_s: of it. over_s: by LEVELS, when it was over at a target of
    so much; None where it never was."""

    length_s: float
    over_s: tuple[float | None, ...]

    def hold(self, target: float) -> Hold:
        """At a target, gust on the usual screen."""
        over_s = self.over_s[int(level_index(np.array(target)))]
        return Hold(self.length_s, False) if over_s is None else Hold(over_s, True)


def lasting(gust: Floats, counted: Bools, *, rate_hz: float) -> Lasting | None:
    """When a take was over at every target: its running gust over that for OVER_FOR_S; None where
    nothing of it is counted. gust, counted: (n,) at even times from the take's beginning; what is
    not counted ends nothing, and begins the half second anew."""
    require_positive("rate_hz", rate_hz)
    if gust.shape != counted.shape or gust.ndim != 1:
        raise InvalidArgumentError("gust", gust.shape, "it must be (n,), and counted too")
    if not counted.any():
        return None
    wanted = max(1, round(OVER_FOR_S * rate_hz))
    length_s = len(gust) / rate_hz
    if len(gust) < wanted:
        return Lasting(length_s, (None,) * len(LEVELS))
    known = np.where(counted, gust, -np.inf)
    # The least of each half second: what is over a target throughout has it over.
    least = np.lib.stride_tricks.sliding_window_view(known, wanted).min(axis=1)
    over = []
    for level in LEVELS:
        found = np.flatnonzero(least > level)
        over.append(float((found[0] + wanted) / rate_hz) if len(found) else None)
    return Lasting(length_s, tuple(over))
