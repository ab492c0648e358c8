"""The chance that a take of a way of holding passes as a wanted shot.

A take passes where its gust does and no second of it stands out. The first is told by the hand,
leant on all takes as a longest lens is; the second by how long those takes went on that are smooth
enough, for the seconds that are wanted. The chance is the one times the other.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.judge.shot_ways import WantedShot, WayOfHolding
from ridgewind.core.shake.gust import STEP_PER_DOUBLING, to_gust
from ridgewind.core.shake.stretch import PEAK_ALLOWANCE
from ridgewind.core.trials.lens_limit import LensLimit, Overall, lens_limit, overall_of
from ridgewind.core.trials.outlast import Holds, Lastings, Whole, outlast_chance
from ridgewind.core.trials.own_hand import Hand, Played, played
from ridgewind.core.trials.survival import LEVEL_STEP
from ridgewind.core.units import deg_to_pct, pct_to_deg

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Chance:
    """value: that a take passes. lasts: that one which is smooth enough goes on for the seconds
    that are wanted; None where no take tells, and value is by gust alone."""

    value: float
    lasts: float | None


@dataclass(frozen=True)
class _Seen:
    """A way's takes through a lens at a rate, but for those that are exactly still. log2_deg_s:
    (takes,) body speed. added: (takes,) gust more than each read as it was filmed."""

    log2_deg_s: Floats
    added: Floats
    lastings: Lastings | None

    def holds(self, allowed_log2: float, level: float) -> Holds:
        """Of the takes up to a body speed, when each went over a gust (usual screen)."""
        if self.lastings is None:
            return Holds.none()
        fine = self.log2_deg_s <= allowed_log2
        return self.lastings.of_those(fine).holds(level - self.added[fine])


class Chances:
    """Of some ways of holding, for one wanted shot; what is asked twice is worked out once."""

    def __init__(self, ways: Sequence[WayOfHolding], wanted: WantedShot) -> None:
        self._ways, self._wanted = ways, wanted
        self._level = to_gust(wanted.target_pct_s) + PEAK_ALLOWANCE
        self._overall: dict[float, Overall] = {}
        self._seen: dict[tuple[str, float, float], _Seen] = {}
        self._played: dict[tuple[str, float], Played] = {}
        self._all: dict[float, _Seen] = {}
        self._limits: dict[tuple[str, float, float], LensLimit] = {}
        self._wholes: dict[tuple[float, int], Whole] = {}

    def of(
        self,
        way: WayOfHolding,
        *,
        focal_eq_mm: float,
        rate: float,
        allowed_log2: float | None = None,
        eased: float = 0.0,
    ) -> Chance:
        """For a way through a lens, played at a rate. allowed_log2: body speed, log2 of degrees a
        second, up to which a take passes; what the brief allows where it is left out. eased: gust
        that a polish takes away."""
        if allowed_log2 is None:
            allowed_log2 = math.log2(pct_to_deg(self._wanted.target_pct_s, focal_eq_mm=focal_eq_mm))
        smooth = self.smooth(way, focal_eq_mm=focal_eq_mm, rate=rate, allowed_log2=allowed_log2)
        level = self._level + eased
        own = self._see(way, focal_eq_mm, rate).holds(allowed_log2, level)
        shorter = STEP_PER_DOUBLING * math.log2(self._wanted.focal_eq_mm / focal_eq_mm)
        whole = self._whole_eased(rate, eased + shorter)
        lasts = outlast_chance(own, whole, seconds=self._wanted.brief.wanted_s * rate)
        return Chance(smooth if lasts is None else smooth * lasts, lasts)

    def smooth(
        self, way: WayOfHolding, *, focal_eq_mm: float, rate: float, allowed_log2: float
    ) -> float:
        """That a take passes by its gust alone."""
        return self._limit(way, rate, focal_eq_mm).chance_under(allowed_log2)

    def longest_mm(self, way: WayOfHolding) -> float:
        """Up to which lens four takes in five pass by their gust alone, as filmed."""
        brief = self._wanted.brief
        return self._limit(way, 1.0, self._wanted.focal_eq_mm).longest_mm(
            target=brief.target, screen_deg=brief.screen_deg
        )

    def _whole_eased(self, rate: float, eased: float) -> Whole:
        """All takes through the wanted lens at a rate, where they read less by some gust: by a
        polish, or through a shorter lens. Kept to quarters of a gust, as until when takes lasted
        is."""
        key = (rate, round(eased / LEVEL_STEP))
        if key not in self._wholes:
            mm, less = self._wanted.focal_eq_mm, LEVEL_STEP * key[1]
            allowed = math.log2(pct_to_deg(self._wanted.target_pct_s, focal_eq_mm=mm))
            allowed += less / STEP_PER_DOUBLING
            everything = self._everything(rate)
            self._wholes[key] = Whole.of(everything.holds(allowed, self._level + less))
        return self._wholes[key]

    def _everything(self, rate: float) -> _Seen:
        """All takes of all ways of which it is known until when they lasted, at the wanted lens."""
        if rate not in self._all:
            some = [self._see(one, self._wanted.focal_eq_mm, rate) for one in self._ways]
            told = [(one, one.lastings) for one in some if one.lastings is not None]
            self._all[rate] = _Seen(
                np.concatenate([np.zeros(0), *(one.log2_deg_s for one, _ in told)]),
                np.concatenate([np.zeros(0), *(one.added for one, _ in told)]),
                Lastings.together([lastings for _, lastings in told]),
            )
        return self._all[rate]

    def _limit(self, way: WayOfHolding, rate: float, focal_eq_mm: float) -> LensLimit:
        """How fast a way turns, as seen at a rate, leant on all takes at the wanted lens."""
        if rate not in self._overall:
            speeds = [self._see(one, self._wanted.focal_eq_mm, rate) for one in self._ways]
            self._overall[rate] = overall_of(
                [value for one in speeds for value in one.log2_deg_s.tolist()]
            )
        whole = self._overall[rate]
        if way.hand is None:
            whole = Overall(math.log2(way.typical_deg_s * rate), whole.spread)
        key = (way.key, focal_eq_mm, rate)
        if key not in self._limits:
            own: list[float] = self._see(way, focal_eq_mm, rate).log2_deg_s.tolist()
            self._limits[key] = lens_limit(own, overall=whole)
        return self._limits[key]

    def _see(self, way: WayOfHolding, focal_eq_mm: float, rate: float) -> _Seen:
        key = (way.key, focal_eq_mm, rate)
        if key not in self._seen:
            self._seen[key] = self._seen_of(way, focal_eq_mm, rate)
        return self._seen[key]

    def _play(self, way: WayOfHolding, hand: Hand, rate: float) -> Played:
        key = (way.key, rate)
        if key not in self._played:
            self._played[key] = played(hand, rate=rate)
        return self._played[key]

    def _seen_of(self, way: WayOfHolding, focal_eq_mm: float, rate: float) -> _Seen:
        if way.hand is None:
            return _Seen(np.zeros(0), np.zeros(0), None)
        seen = self._play(way, way.hand, rate).through(focal_eq_mm)
        filmed = self._play(way, way.hand, 1.0).through(way.hand.focal_eq_mm)
        return _seen(way, seen, filmed, focal_eq_mm)


def _seen(way: WayOfHolding, seen: Floats, filmed: Floats, focal_eq_mm: float) -> _Seen:
    moves = (seen > 0.0) & (filmed > 0.0)
    return _Seen(
        np.log2(seen[moves] / deg_to_pct(1.0, focal_eq_mm=focal_eq_mm)),
        STEP_PER_DOUBLING * np.log2(seen[moves] / filmed[moves]),
        None if way.lastings is None else way.lastings.of_those(moves),
    )
