"""The longest lens that a way of holding bears: where four takes in five still pass."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.errors import InvalidArgumentError, require_between, require_positive
from ridgewind.core.shake.gust import SPEED_AT_ZERO, STEP_PER_DOUBLING, screen_offset
from ridgewind.core.trials.distributions import t_chance, t_quantile
from ridgewind.core.units import pct_to_deg

LEAN = 3.0
"""Takes that the shooter's own whole counts for beside a technique's (definition)."""

PASSES = 0.8
"""Chance of passing at the longest lens (definition)."""

TYPICAL_MEAN, TYPICAL_SPREAD = 0.0, 0.5
"""Of log2 of body speed, degrees a second, while the shooter has no takes (chosen here: standing,
see core/kit/hand.py)."""


@dataclass(frozen=True)
class Overall:
    """The shooter's own whole: mean and spread of log2 of body speed over all techniques."""

    mean: float
    spread: float


@dataclass(frozen=True)
class LensLimit:
    """A technique's hand, leant on the whole: mean, spread, and dof of log2 of body speed in
    degrees a second; takes: its own."""

    mean: float
    spread: float
    dof: float
    takes: int

    def longest_mm(self, *, target: float, screen_deg: float = 30.0) -> float:
        """Equivalent focal length, mm, at which a take passes with a chance of PASSES."""
        wide = self.spread * math.sqrt(1.0 + 1.0 / (self.takes + LEAN))
        worst = self.mean + t_quantile(self.dof, PASSES) * wide
        return _focal_at(worst, target, screen_deg)

    def chance(self, focal_eq_mm: float, *, target: float, screen_deg: float = 30.0) -> float:
        """That a take through a lens passes, 0 to 1."""
        require_positive("focal_eq_mm", focal_eq_mm)
        return self.chance_under(math.log2(_focal_at(0.0, target, screen_deg) / focal_eq_mm))

    def chance_under(self, log2_speed: float) -> float:
        """That a take's body speed, log2 of degrees a second, lies under another."""
        wide = self.spread * math.sqrt(1.0 + 1.0 / (self.takes + LEAN))
        return t_chance(self.dof, (log2_speed - self.mean) / wide)


def _focal_at(log2_speed: float, target: float, screen_deg: float) -> float:
    """Focal length at which a body speed reads the target."""
    gust = target - screen_offset(screen_deg)
    speed_pct_s = SPEED_AT_ZERO * math.pow(2.0, gust / STEP_PER_DOUBLING)
    return pct_to_deg(speed_pct_s, focal_eq_mm=1.0) / math.pow(2.0, log2_speed)


def overall_of(log2_speeds: Sequence[float]) -> Overall:
    """Mean and spread of all takes; the typical spread where there are too few to tell it."""
    _require_numbers(log2_speeds)
    if not log2_speeds:
        return Overall(TYPICAL_MEAN, TYPICAL_SPREAD)
    mean = sum(log2_speeds) / len(log2_speeds)
    if len(log2_speeds) < 2:
        return Overall(mean, TYPICAL_SPREAD)
    square = sum((one - mean) ** 2 for one in log2_speeds) / (len(log2_speeds) - 1)
    return Overall(mean, math.sqrt(square))


def lens_limit(log2_speeds: Sequence[float], *, overall: Overall) -> LensLimit:
    """A technique's hand from its takes' log2 of body speed (degrees a second), which leans on the
    shooter's own whole where they are few. Raises InvalidArgumentError."""
    _require_numbers(log2_speeds)
    require_between("overall spread", overall.spread, 0.0, 10.0)
    count = len(log2_speeds)
    if count == 0:
        return LensLimit(overall.mean, max(overall.spread, LEAST_SPREAD), LEAN - 1.0, 0)
    own = sum(log2_speeds) / count
    square = sum((one - own) ** 2 for one in log2_speeds) + LEAN * overall.spread**2
    dof = count - 1 + LEAN
    mean = (sum(log2_speeds) + LEAN * overall.mean) / (count + LEAN)
    return LensLimit(mean, max(LEAST_SPREAD, math.sqrt(square / dof)), dof, count)


LEAST_SPREAD = 1e-6
"""A hand that never differs is told as one that hardly does, so that a chance can be worked out."""


def _require_numbers(values: Sequence[float]) -> None:
    for value in values:
        if not math.isfinite(value):
            raise InvalidArgumentError("log2_body_speed", value, "it must be a number")
