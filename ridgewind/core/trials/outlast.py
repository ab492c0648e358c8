"""The chance that a take goes on for the seconds that are wanted before any of it stands out.

The share of takes that outlast a moment is Kaplan and Meier's, with weights: a technique's own
takes count one each, and all takes of the shooter together as LEAN more, so that a few takes lean
on the whole as a longest lens does. Past the last moment at which anything was filmed nothing is
known but how often takes were over until then: with d moments over in E seconds, and Jeffreys'
prior for a rate (a half, none), a further t seconds are outlasted with a chance of
(E / (E + t)) ** (d + 1/2).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_positive
from ridgewind.core.trials.lens_limit import LEAN
from ridgewind.core.trials.survival import LEVELS, Lasting, level_index

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

JEFFREYS = 0.5
GRID_S = 0.1
"""To which the moments of all takes are kept, so that thousands of them are leant on at once."""


@dataclass(frozen=True)
class Holds:
    """Takes that were over at, or else held to, a moment. seconds, over: (takes,)."""

    seconds: Floats
    over: Bools

    def __post_init__(self) -> None:
        if self.seconds.ndim != 1 or self.seconds.shape != self.over.shape:
            raise InvalidArgumentError("seconds", self.seconds.shape, "it must be (n,), and over")
        if not (self.seconds > 0.0).all():
            raise InvalidArgumentError("seconds", self.seconds.min(), "it must be over 0 s")

    @classmethod
    def none(cls) -> Holds:
        """Of no take."""
        return cls(np.zeros(0), np.zeros(0, bool))


@dataclass(frozen=True)
class Lastings:
    """Until when each of some takes lasted. length_s: (takes,), not a number where that is not
    known. over_s: (takes, LEVELS), infinite where it never was over."""

    length_s: Floats
    over_s: Floats

    @classmethod
    def of(cls, takes: Sequence[Lasting | None]) -> Lastings:
        """The same, of single takes."""
        length_s = np.full(len(takes), np.nan)
        over_s = np.full((len(takes), len(LEVELS)), np.inf)
        for at, one in enumerate(takes):
            if one is not None:
                length_s[at] = one.length_s
                over_s[at] = [np.inf if s is None else s for s in one.over_s]
        return cls(length_s, over_s)

    @classmethod
    def together(cls, some: Sequence[Lastings]) -> Lastings:
        """Those of several techniques in one."""
        none = cls.of([])
        return cls(
            np.concatenate([none.length_s, *(one.length_s for one in some)]),
            np.concatenate([none.over_s, *(one.over_s for one in some)]),
        )

    @property
    def longest_s(self) -> float | None:
        """The length of the longest take; None where none is known."""
        known = self.length_s[np.isfinite(self.length_s)]
        return float(known.max()) if len(known) else None

    def of_those(self, kept: Bools) -> Lastings:
        """Of the takes that are kept (takes,)."""
        return Lastings(self.length_s[kept], self.over_s[kept])

    def holds(self, targets: Floats) -> Holds:
        """Each take of known length at a target of its own (takes,), gust on the usual screen."""
        known = np.isfinite(self.length_s)
        over_s = self.over_s[known, level_index(targets[known])]
        over = np.isfinite(over_s)
        return Holds(np.where(over, over_s, self.length_s[known]), over)


@dataclass(frozen=True)
class Whole:
    """All takes of a shooter, of LEAN's weight together, made ready to be leant on. moments: (n,)
    until which each was held, ascending. times: (m,) at which any was over, ascending; left, ended:
    (m,) takes that were still held just before, and that were over then. weight: of each take."""

    moments: Floats
    times: Floats
    left: Floats
    ended: Floats
    weight: float

    @classmethod
    def of(cls, holds: Holds) -> Whole:
        """Of takes, which may be none; moments are kept to a tenth of a second."""
        count = len(holds.seconds)
        seconds = np.maximum(np.round(holds.seconds / GRID_S), 1.0) * GRID_S
        moments = np.sort(seconds)
        times, ended = np.unique(seconds[holds.over], return_counts=True)
        left = count - np.searchsorted(moments, times)
        weight = min(LEAN, count) / max(1, count)
        return cls(moments, times, left.astype(float), ended.astype(float), weight)


def outlast_chance(own: Holds, whole: Whole, *, seconds: float) -> float | None:
    """That a take of a technique is not over for some seconds, 0 to 1; None where nothing was
    filmed. own: its takes. Raises InvalidArgumentError.

    >>> own = Holds(np.array([3.0, 5.0, 8.0, 8.0]), np.array([True, True, False, False]))
    >>> round(outlast_chance(own, Whole.of(own), seconds=6.0), 3)
    0.5
    """
    require_positive("seconds", seconds)
    filmed_s = float(max(whole.moments.max(initial=0.0), own.seconds.max(initial=0.0)))
    if filmed_s <= 0.0:
        return None
    share = _share(own, whole, until_s=min(seconds, filmed_s))
    if seconds <= filmed_s:
        return share
    seen_s = whole.weight * float(whole.moments.sum()) + float(own.seconds.sum())
    ended = whole.weight * float(whole.ended.sum()) + float(own.over.sum())
    return share * float((seen_s / (seen_s + seconds - filmed_s)) ** (ended + JEFFREYS))


def _share(own: Holds, whole: Whole, *, until_s: float) -> float:
    """Kaplan and Meier's share that outlasts a moment, own takes of weight 1 with the whole's."""
    moments, over = np.sort(own.seconds), np.sort(own.seconds[own.over])
    inside = int(np.searchsorted(whole.times, until_s, side="right"))
    times = whole.times[:inside]
    begin, end = np.searchsorted(over, times), np.searchsorted(over, times, side="right")
    left = whole.weight * whole.left[:inside] + len(moments) - np.searchsorted(moments, times)
    ended = whole.weight * whole.ended[:inside] + (end - begin)
    share = _outlasting(ended / left)
    here = np.append(times, np.inf)[np.searchsorted(times, over)] == over
    only = np.unique(over[~here & (over <= until_s)])
    if len(only):
        begin, end = np.searchsorted(over, only), np.searchsorted(over, only, side="right")
        others = len(whole.moments) - np.searchsorted(whole.moments, only)
        held = whole.weight * others + len(moments) - np.searchsorted(moments, only)
        share *= _outlasting((end - begin) / held)
    return share


def _outlasting(ended: Floats) -> float:
    """From the shares that are over at each moment, of those still held."""
    return float(np.prod(np.maximum(0.0, 1.0 - ended)))
