"""How to get a wanted shot: every way of holding, at every frame rate, with every remedy that the
brief allows, each with its chance of passing and its cost.

What a way of holding reads comes from the shooter's own hand (core/trials/own_hand.py). A polish is
tried on a take that is drawn from the hand: what it leaves and what crop it wants both grow with
the take, so one tells of all.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.cost import DOUBLINGS_A_POINT
from ridgewind.core.judge.polish import LIGHT_PCT, MEDIUM_PCT, PolishCurve
from ridgewind.core.judge.shot_chances import Chance, Chances
from ridgewind.core.judge.shot_ways import Option, Remedy, WantedShot, WayOfHolding
from ridgewind.core.shake.gust import STEP_PER_DOUBLING, to_gust
from ridgewind.core.trials.drawn_hand import draw_hand
from ridgewind.core.trials.own_hand import Hand
from ridgewind.core.units import deg_to_pct

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

SEED, HALVINGS = 1, 4
A_LITTLE_NEARER = 0.995
LEAST = 1e-6
"""Of a crop, or a speed, that is nothing."""


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
        self._wanted, self._chances = wanted, Chances(ways, wanted)
        brief = wanted.brief
        rates = sorted(wanted.widths_px)
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
        """As shot, then slowed more and more, to the first that works."""
        found = [self._plain(way, self._plain_fps, 1.0)]
        for fps in self._slowed:
            if found[-1].chance >= SURE:
                break
            found.append(self._plain(way, fps, self._wanted.brief.delivery_fps / fps))
        return found

    def _plain(self, way: WayOfHolding, fps: float, rate: float) -> Option:
        mm = self._wanted.focal_eq_mm
        return self._option(
            way, "keep" if rate == 1.0 else "slow", fps, rate,
            speed_pct_s=deg_to_pct(way.usual_deg_s(focal_eq_mm=mm, rate=rate), focal_eq_mm=mm),
            chance=self._chances.of(way, focal_eq_mm=mm, rate=rate),
        )  # fmt: skip

    def _polished(self, way: WayOfHolding) -> list[Option]:
        if way.hand is None or self._wanted.brief.most_crop_pct <= 0.0:
            return []
        found = [self._with_polish(way, way.hand, self._plain_fps, 1.0)]
        # Slowed too it costs more, unless the polish that it then wants is a lighter one.
        plain = found[0]
        light = plain is not None and plain.chance >= SURE and (plain.crop_pct or 0.0) <= LIGHT_PCT
        if self._slowed and not light:
            fps = self._slowed[-1]
            found.append(
                self._with_polish(way, way.hand, fps, self._wanted.brief.delivery_fps / fps)
            )
        return [one for one in found if one is not None]

    def _with_polish(self, way: WayOfHolding, hand: Hand, fps: float, rate: float) -> Option | None:
        wanted = self._wanted
        mm = wanted.focal_eq_mm
        seconds = min(LONGEST_DRAWN_S, max(SHORTEST_DRAWN_S, wanted.brief.wanted_s * rate))
        drawn = Analysis(
            draw_hand(hand, seed=SEED, up_to_hz=DRAWN_FPS / 2.0).motion(
                fps=DRAWN_FPS, seconds=seconds, focal_eq_mm=mm, aspect=wanted.aspect
            )
        )
        curve, drawn_pct_s = drawn.polish(rate), drawn.reading(rate).speed_pct_s
        usual_deg_s = way.usual_deg_s(focal_eq_mm=mm, rate=rate)
        if curve is None or not curve.points or not drawn_pct_s:
            return None
        usual_pct_s = deg_to_pct(usual_deg_s, focal_eq_mm=mm)
        size = usual_pct_s / drawn_pct_s
        chance, chosen = self._strength(way, rate, usual_deg_s, self._strengths(curve, size))
        return self._option(
            way, "polish" if rate == 1.0 else "slow_polish", fps, rate,
            speed_pct_s=chosen.left_pct_s, chance=chance, crop_pct=chosen.crop_pct,
            blurs=size * curve.blur_pct > BLURS_PCT,
        )  # fmt: skip

    def _strength(
        self, way: WayOfHolding, rate: float, usual_deg_s: float, strengths: list[_Strength]
    ) -> tuple[Chance, _Strength]:
        """The lightest polish that is well sure, else the likeliest by gust; with its chance."""
        mm = self._wanted.focal_eq_mm
        usual_pct_s = deg_to_pct(usual_deg_s, focal_eq_mm=mm)

        def whole_chance(one: _Strength) -> Chance:
            eased = STEP_PER_DOUBLING * math.log2(usual_pct_s / max(one.left_pct_s, LEAST))
            allowed_log2 = math.log2(usual_deg_s) + one.room
            return self._chances.of(
                way, focal_eq_mm=mm, rate=rate, eased=eased, allowed_log2=allowed_log2
            )

        def smooth(one: _Strength) -> float:
            allowed_log2 = math.log2(usual_deg_s) + one.room
            return self._chances.smooth(way, focal_eq_mm=mm, rate=rate, allowed_log2=allowed_log2)

        likely = [(smooth(one), one) for one in strengths]
        for share, one in likely:
            if share >= WELL_SURE and (found := whole_chance(one)).value >= WELL_SURE:
                return found, one
        best = max(likely, key=lambda one: one[0])[1]
        return whole_chance(best), best

    def _strengths(self, curve: PolishCurve, size: float) -> list[_Strength]:
        """Each strength, the lightest first. size: of a usual take against the one that was
        drawn."""
        most, target_pct_s = self._wanted.brief.most_crop_pct, self._wanted.target_pct_s
        found = []
        for one in curve.points:
            crop_pct, left_pct_s = size * one.crop_pct, size * one.speed_pct_s
            in_crop = math.log2(most / max(crop_pct, LEAST))
            in_shake = math.log2(target_pct_s / max(left_pct_s, LEAST))
            found.append(_Strength(min(in_crop, in_shake), crop_pct, left_pct_s))
        return found

    def _nearer(self, way: WayOfHolding) -> list[Option]:
        """A shorter lens from nearer: the same picture of the subject, and less shake in it."""

        def chance(distance: float) -> Chance:
            return self._chances.of(way, focal_eq_mm=distance * self._wanted.focal_eq_mm, rate=1.0)

        near = self._farthest(way, chance)
        if near is None:
            return []
        near = self._with_a_lens(near)
        focal = near * self._wanted.focal_eq_mm
        speed = deg_to_pct(way.usual_deg_s(focal_eq_mm=focal, rate=1.0), focal_eq_mm=focal)
        found = self._option(
            way, "nearer", self._plain_fps, 1.0, speed_pct_s=speed, chance=chance(near)
        )
        cost = self._cost(found, focal)
        return [replace(found, distance=near, focal_eq_mm=focal, cost=cost)]

    def _farthest(self, way: WayOfHolding, chance: Callable[[float], Chance]) -> float | None:
        """Share of the distance from which it is just sure; None where that is not near enough."""
        far = min(1.0, A_LITTLE_NEARER * self._chances.longest_mm(way) / self._wanted.focal_eq_mm)
        if far < NEAREST:
            return None
        if chance(far).value >= SURE:
            return far
        if chance(NEAREST).value < SURE:
            return None
        near = NEAREST
        for _ in range(HALVINGS):
            middle = 0.5 * (near + far)
            near, far = (middle, far) if chance(middle).value >= SURE else (near, middle)
        return near

    def _with_a_lens(self, distance: float) -> float:
        """The distance of the kit's lens that is nearly that long, in shares of the one that was
        asked, or else the farthest before it at which the kit has the lens; the distance itself
        where it has none."""
        wanted_mm = self._wanted.focal_eq_mm
        lens_mm = self._wanted.lens_for(distance * wanted_mm)
        if lens_mm is not None:
            return lens_mm / wanted_mm
        ends = [high / wanted_mm for _, high in self._wanted.reaches]
        return max((end for end in ends if NEAREST <= end <= distance), default=distance)

    def _option(
        self,
        way: WayOfHolding,
        remedy: Remedy,
        fps: float,
        rate: float,
        *,
        speed_pct_s: float,
        chance: Chance,
        crop_pct: float | None = None,
        blurs: bool = False,
    ) -> Option:
        wanted = self._wanted
        found = Option(
            way=way,
            remedy=remedy,
            fps=fps,
            rate=rate,
            crop_pct=crop_pct,
            distance=1.0,
            focal_eq_mm=wanted.focal_eq_mm,
            gust=to_gust(speed_pct_s, screen_deg=wanted.brief.screen_deg),
            chance=chance.value,
            lasts=chance.lasts,
            longest_s=None if way.lastings is None else way.lastings.longest_s,
            left_px=int(wanted.widths_px[fps] * (1.0 - (crop_pct or 0.0) / 100.0)),
            cost=0.0,
            blurs=blurs,
            takes=way.takes,
        )
        return replace(found, cost=self._cost(found, wanted.focal_eq_mm))

    def _cost(self, one: Option, focal_eq_mm: float) -> float:
        cost = COSTS[one.remedy] + one.way.needs
        if one.rate < SLOW_ENOUGH:
            cost += SLOWER_COST * math.log2(SLOW_ENOUGH / one.rate)
        if one.crop_pct is not None and one.crop_pct > LIGHT_PCT:
            cost += MEDIUM_COST if one.crop_pct <= MEDIUM_PCT else STRONG_COST
        enlarge = max(self._wanted.brief.delivery_px) / one.left_px
        cost += max(0.0, math.log2(enlarge)) / DOUBLINGS_A_POINT
        return cost if self._wanted.has_lens(focal_eq_mm) else cost + NO_LENS_COST


@dataclass(frozen=True)
class _Strength:
    """room: how many doublings rougher than usual a take could be and still pass polished so.
    crop_pct: that a usual take wants. left_pct_s: the speed that is left of it."""

    room: float
    crop_pct: float
    left_pct_s: float


def three_legs(options: Sequence[Option]) -> bool:
    """Whether no way passes more often than not: the shot wants a tripod."""
    return all(one.chance < PERHAPS for one in options)
