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

    @classmethod
    def together(cls, some: Sequence[Holds]) -> Holds:
        """Those of several techniques in one."""
        if not some:
            return cls.none()
        return cls(
            np.concatenate([one.seconds for one in some]),
            np.concatenate([one.over for one in some]),
        )


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


def outlast_chance(own: Holds, whole: Holds, *, seconds: float) -> float | None:
    """That a take of a technique is not over for some seconds, 0 to 1; None where nothing was
    filmed. own: its takes. whole: all takes of the shooter. Raises InvalidArgumentError.

    >>> own = Holds(np.array([3.0, 5.0, 8.0, 8.0]), np.array([True, True, False, False]))
    >>> round(outlast_chance(own, own, seconds=6.0), 3)
    0.5
    """
    require_positive("seconds", seconds)
    if not len(whole.seconds) and not len(own.seconds):
        return None
    lean = min(LEAN, len(whole.seconds)) / max(1, len(whole.seconds))
    weights = np.concatenate([np.ones(len(own.seconds)), np.full(len(whole.seconds), lean)])
    moments = np.concatenate([own.seconds, whole.seconds])
    over = np.concatenate([own.over, whole.over])
    filmed_s = float(moments.max())
    share = _share(moments, over, weights, until_s=min(seconds, filmed_s))
    if seconds <= filmed_s:
        return share
    seen_s, ended = float(weights @ moments), float(weights @ over)
    return share * float((seen_s / (seen_s + seconds - filmed_s)) ** (ended + JEFFREYS))


def _share(moments: Floats, over: Bools, weights: Floats, *, until_s: float) -> float:
    """Kaplan and Meier's share that outlasts a moment, each take with its weight."""
    order = np.argsort(moments)
    moments, over, weights = moments[order], over[order], weights[order]
    times, first = np.unique(moments, return_index=True)
    left = np.cumsum(weights[::-1])[::-1][first]
    ended = np.add.reduceat(weights * over, first)
    inside = times <= until_s
    return float(np.prod(1.0 - np.minimum(1.0, ended[inside] / left[inside])))
