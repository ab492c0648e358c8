"""How to get a wanted shot: every way of holding, at every frame rate, with every remedy that the
brief allows, each with its chance of passing and its cost.

What a way of holding reads comes from the shooter's own hand (core/trials/own_hand.py), its spread
leaning on all takes as a longest lens does. A polish is tried on a take that is drawn from the
hand: what it leaves and what crop it wants both grow with the take, so one tells of all. Passing
is by gust alone; that no second stands out cannot be told from a spectrum.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ridgewind.core.brief import Brief
from ridgewind.core.errors import InvalidArgumentError, require_positive
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.polish import LIGHT_PCT, MEDIUM_PCT, PolishCurve
from ridgewind.core.shake.gust import to_gust, to_speed
from ridgewind.core.trials.drawn_hand import draw_hand
from ridgewind.core.trials.lens_limit import LensLimit, Overall, lens_limit, overall_of
from ridgewind.core.trials.own_hand import Hand, seen_speeds
from ridgewind.core.units import deg_to_pct, pct_to_deg

Remedy = Literal["keep", "slow", "polish", "slow_polish", "nearer"]

SURE, PERHAPS = 0.8, 0.5
"""Chance from which a way is offered as one that works, and under which none is (chosen here: as of
a longest lens; less often than not)."""

WELL_SURE = 0.9
"""Chance up to which a polish is made stronger: it costs little more (chosen here)."""

COSTS: dict[Remedy, float] = {
    "keep": 0.0,
    "slow": 1.0,
    "polish": 1.5,
    "slow_polish": 2.5,
    "nearer": 1.25,
}
"""In steps of trouble (chosen here): one more thing to think of, at the place or at the desk."""

SLOWER_COST, SLOW_ENOUGH = 0.25, 0.5
"""What each further halving of the speed costs: middle rates are usually enough, the highest can
drag."""

MEDIUM_COST, STRONG_COST, NO_LENS_COST = 0.5, 1.5, 3.0
"""What a polish costs more where it is not light, and a lens that is not in the kit."""

BLURS_PCT = 0.15
"""Of the long side: smear of a frame from which it is seen after a polish (definition)."""

SHORTEST_DRAWN_S, LONGEST_DRAWN_S = 4.0, 8.0
DRAWN_FPS = 30.0
"""A drawn take is polished at this rate: what is faster is polished away whatever it is."""

NEAREST = 0.3
"""Share of the distance below which going nearer is another shot (chosen here)."""

SEED, HALVINGS = 1, 8
SAME_MM = 0.5
LEAST = 1e-6
"""Of a crop, or a speed, that is nothing."""


@dataclass(frozen=True)
class WayOfHolding:
    """key: of the technique. hand: of its takes, None where it was never filmed; then typical_deg_s
    is its usual body speed. needs: how many things it takes beside a camera."""

    key: str
    hand: Hand | None
    typical_deg_s: float
    needs: int


@dataclass(frozen=True)
class WantedShot:
    """focal_eq_mm: through which it is seen. rates_hz: frame rates that the camera has. aspect:
    short side / long side of its picture. reaches: shortest and longest focal length of each lens
    of the kit; empty where they are not known."""

    brief: Brief
    focal_eq_mm: float
    rates_hz: tuple[float, ...]
    aspect: float
    reaches: tuple[tuple[float, float], ...]

    def __post_init__(self) -> None:
        require_positive("focal_eq_mm", self.focal_eq_mm)
        if not self.rates_hz:
            raise InvalidArgumentError("rates_hz", self.rates_hz, "at least one rate is needed")

    def has_lens(self, focal_eq_mm: float) -> bool:
        """Whether the kit has a lens of a focal length."""
        return not self.reaches or any(reaches_to(*reach, focal_eq_mm) for reach in self.reaches)


@dataclass(frozen=True)
class Option:
    """One way to get it. fps: to film at. rate: of playback, 1 as filmed. crop_pct: of a polish.
    distance: share of the distance to stand at, 1 where it stays. gust: as a usual take would read
    in the end, on the brief's screen. chance: that a take passes. blurs: its frames are smeared,
    which a polish leaves. takes: of its own, that this is from; 0 for typical figures."""

    way: WayOfHolding
    remedy: Remedy
    fps: float
    rate: float
    crop_pct: float | None
    distance: float
    focal_eq_mm: float
    gust: float
    chance: float
    cost: float
    blurs: bool
    takes: int


def options_for(ways: Sequence[WayOfHolding], wanted: WantedShot) -> tuple[Option, ...]:
    """The best option of each way of holding: the cheapest that works, else the likeliest. Those
    that work come first, cheapest first; then the others, the likeliest first."""
    finder = _Finder(ways, wanted)
    found = [finder.best(way) for way in ways]
    return tuple(
        sorted(
            found,
            key=lambda one: (
                one.chance < SURE,
                one.cost if one.chance >= SURE else 0.0,
                -round(one.chance, 3),
                one.takes == 0,
                one.way.key,
            ),
        )
    )


class _Finder:
    def __init__(self, ways: Sequence[WayOfHolding], wanted: WantedShot) -> None:
        self._wanted, self._ways = wanted, ways
        self._overall: dict[float, Overall] = {}
        brief = wanted.brief
        self._target_pct_s = to_speed(brief.target, screen_deg=brief.screen_deg)
        rates = sorted(wanted.rates_hz)
        at_speed = [one for one in rates if one >= brief.delivery_fps - 0.1]
        self._plain_fps = at_speed[0] if at_speed else rates[-1]
        self._slowed = () if brief.keep_sound else tuple(
            one for one in at_speed if brief.delivery_fps / one <= 0.9
        )  # fmt: skip

    def best(self, way: WayOfHolding) -> Option:
        found: list[Option] = []
        for step in (self._kept, self._nearer, self._polished):
            found += step(way)
            works = [one for one in found if one.chance >= SURE]
            if any(self._wanted.has_lens(one.focal_eq_mm) for one in works):
                return min(works, key=lambda one: (one.cost, -one.chance))
        works = [one for one in found if one.chance >= SURE]
        if works:
            return min(works, key=lambda one: (one.cost, -one.chance))
        return max(found, key=lambda one: one.chance)

    def _kept(self, way: WayOfHolding) -> list[Option]:
        found = [self._plain(way, self._plain_fps, 1.0)]
        found += [
            self._plain(way, fps, self._wanted.brief.delivery_fps / fps) for fps in self._slowed
        ]
        return found

    def _plain(self, way: WayOfHolding, fps: float, rate: float) -> Option:
        limit = self._limit(way, rate)
        usual_deg_s = _usual(way, self._wanted.focal_eq_mm, rate)
        return self._option(
            way, "keep" if rate == 1.0 else "slow", fps, rate,
            speed_pct_s=deg_to_pct(usual_deg_s, focal_eq_mm=self._wanted.focal_eq_mm),
            chance=limit.chance_under(math.log2(self._allowed_deg_s)),
        )  # fmt: skip

    @property
    def _allowed_deg_s(self) -> float:
        return pct_to_deg(self._target_pct_s, focal_eq_mm=self._wanted.focal_eq_mm)

    def _polished(self, way: WayOfHolding) -> list[Option]:
        if way.hand is None or self._wanted.brief.most_crop_pct <= 0.0:
            return []
        found = [self._with_polish(way, way.hand, self._plain_fps, 1.0)]
        if self._slowed:
            fps = self._slowed[-1]
            found.append(
                self._with_polish(way, way.hand, fps, self._wanted.brief.delivery_fps / fps)
            )
        return [one for one in found if one is not None]

    def _with_polish(self, way: WayOfHolding, hand: Hand, fps: float, rate: float) -> Option | None:
        wanted = self._wanted
        seconds = min(LONGEST_DRAWN_S, max(SHORTEST_DRAWN_S, wanted.brief.wanted_s * rate))
        drawn = Analysis(
            draw_hand(hand, seed=SEED, up_to_hz=DRAWN_FPS / 2.0).motion(
                fps=DRAWN_FPS, seconds=seconds, focal_eq_mm=wanted.focal_eq_mm, aspect=wanted.aspect
            )
        )
        curve, drawn_pct_s = drawn.polish(rate), drawn.reading(rate).speed_pct_s
        usual_deg_s = _usual(way, wanted.focal_eq_mm, rate)
        if curve is None or not curve.points or not drawn_pct_s:
            return None
        usual_pct_s = deg_to_pct(usual_deg_s, focal_eq_mm=wanted.focal_eq_mm)
        limit, usual = self._limit(way, rate), math.log2(usual_deg_s)
        size = usual_pct_s / drawn_pct_s
        tried = [
            (limit.chance_under(usual + room), crop_pct, left_pct_s)
            for room, crop_pct, left_pct_s in self._strengths(curve, size)
        ]
        works = [one for one in tried if one[0] >= WELL_SURE]
        chance, crop_pct, left_pct_s = works[0] if works else max(tried)
        return self._option(
            way, "polish" if rate == 1.0 else "slow_polish", fps, rate, speed_pct_s=left_pct_s,
            chance=chance, crop_pct=crop_pct, blurs=size * curve.blur_pct > BLURS_PCT,
        )  # fmt: skip

    def _strengths(self, curve: PolishCurve, size: float) -> list[tuple[float, float, float]]:
        """For each strength, the lightest first: how many doublings rougher than usual a take could
        be and still pass polished so, the crop that a usual take wants, and the speed that is left
        of it. size: of a usual take against the one that was drawn."""
        most = self._wanted.brief.most_crop_pct
        tried = []
        for one in curve.points:
            crop_pct, left_pct_s = size * one.crop_pct, size * one.speed_pct_s
            in_crop = math.log2(most / max(crop_pct, LEAST))
            in_shake = math.log2(self._target_pct_s / max(left_pct_s, LEAST))
            tried.append((min(in_crop, in_shake), crop_pct, left_pct_s))
        return tried

    def _nearer(self, way: WayOfHolding) -> list[Option]:
        """A shorter lens from nearer: the same picture of the subject, and less shake in it."""

        def chance(distance: float) -> float:
            focal = distance * self._wanted.focal_eq_mm
            allowed = pct_to_deg(self._target_pct_s, focal_eq_mm=focal)
            return self._limit(way, 1.0, focal).chance_under(math.log2(allowed))

        near, far = NEAREST, 1.0
        if chance(near) < SURE:
            return []
        for _ in range(HALVINGS):
            middle = 0.5 * (near + far)
            near, far = (middle, far) if chance(middle) >= SURE else (near, middle)
        near = self._with_a_lens(near)
        focal = near * self._wanted.focal_eq_mm
        speed = deg_to_pct(_usual(way, focal, 1.0), focal_eq_mm=focal)
        found = self._option(
            way, "nearer", self._plain_fps, 1.0, speed_pct_s=speed, chance=chance(near)
        )
        cost = self._cost(way, "nearer", 1.0, None, focal)
        return [replace(found, distance=near, focal_eq_mm=focal, cost=cost)]

    def _with_a_lens(self, distance: float) -> float:
        """The farthest up to a distance, in shares of the one that was asked, at which the kit has
        the lens; the distance itself where it has none."""
        wanted_mm = self._wanted.focal_eq_mm
        ends = [high / wanted_mm for _, high in self._wanted.reaches]
        able = [end for end in ends if NEAREST <= end <= distance]
        if self._wanted.has_lens(distance * wanted_mm) or not able:
            return distance
        return max(able)

    def _option(
        self,
        way: WayOfHolding,
        remedy: Remedy,
        fps: float,
        rate: float,
        *,
        speed_pct_s: float,
        chance: float,
        crop_pct: float | None = None,
        blurs: bool = False,
    ) -> Option:
        return Option(
            way=way,
            remedy=remedy,
            fps=fps,
            rate=rate,
            crop_pct=crop_pct,
            distance=1.0,
            focal_eq_mm=self._wanted.focal_eq_mm,
            gust=to_gust(speed_pct_s, screen_deg=self._wanted.brief.screen_deg),
            chance=chance,
            cost=self._cost(way, remedy, rate, crop_pct, self._wanted.focal_eq_mm),
            blurs=blurs,
            takes=_takes(way),
        )

    def _cost(
        self,
        way: WayOfHolding,
        remedy: Remedy,
        rate: float,
        crop_pct: float | None,
        focal_eq_mm: float,
    ) -> float:
        cost = COSTS[remedy] + way.needs
        if rate < SLOW_ENOUGH:
            cost += SLOWER_COST * math.log2(SLOW_ENOUGH / rate)
        if crop_pct is not None and crop_pct > LIGHT_PCT:
            cost += MEDIUM_COST if crop_pct <= MEDIUM_PCT else STRONG_COST
        return cost if self._wanted.has_lens(focal_eq_mm) else cost + NO_LENS_COST

    def _limit(self, way: WayOfHolding, rate: float, focal_eq_mm: float | None = None) -> LensLimit:
        """How fast this way turns, as seen at a rate, leant on all takes at the wanted lens."""
        wanted_mm = self._wanted.focal_eq_mm
        if rate not in self._overall:
            self._overall[rate] = overall_of(
                [one for other in self._ways for one in _log2_speeds(other, wanted_mm, rate)]
            )
        whole = self._overall[rate]
        if way.hand is None:
            whole = Overall(math.log2(way.typical_deg_s * rate), whole.spread)
        return lens_limit(_log2_speeds(way, focal_eq_mm or wanted_mm, rate), overall=whole)


def _usual(way: WayOfHolding, focal_eq_mm: float, rate: float) -> float:
    """Body speed of its mean take, degrees a second, as seen at a rate; a typical one is taken to
    slow down in proportion."""
    if way.hand is None:
        return way.typical_deg_s * rate
    seen = seen_speeds(way.hand, focal_eq_mm=focal_eq_mm, rate=rate)
    return pct_to_deg(float((seen**2).mean() ** 0.5), focal_eq_mm=focal_eq_mm)


def _log2_speeds(way: WayOfHolding, focal_eq_mm: float, rate: float) -> list[float]:
    if way.hand is None:
        return []
    seen = seen_speeds(way.hand, focal_eq_mm=focal_eq_mm, rate=rate)
    a_degree = deg_to_pct(1.0, focal_eq_mm=focal_eq_mm)
    found: list[float] = np.log2(seen[seen > 0.0] / a_degree).tolist()
    return found


def _takes(way: WayOfHolding) -> int:
    return 0 if way.hand is None else len(way.hand.focal_eq_mm)


def three_legs(options: Sequence[Option]) -> bool:
    """Whether no way passes more often than not: the shot wants a tripod."""
    return all(one.chance < PERHAPS for one in options)


def reaches_to(low_mm: float, high_mm: float, focal_eq_mm: float) -> bool:
    """Whether a lens that goes from one focal length to another reaches a third, nearly."""
    return low_mm - SAME_MM <= focal_eq_mm <= high_mm + SAME_MM
