"""The same hand at every focal length: gust against lens from body speeds of past takes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.kit.items import FOCAL_RANGE_MM
from ridgewind.core.shake.gust import screen_offset, to_gust, to_speed
from ridgewind.core.units import deg_to_pct, pct_to_deg

TYPICAL_STANDING_DEG_S = 1.0
TYPICAL_WALKING_DEG_S = 4.0
"""Body speeds assumed while there are no takes: gust 4.6 and 7.1 at 26 mm (chosen here)."""

TYPICAL_SPREAD_LOG2 = 0.5
"""Spread of log2 of body speed from take to take while it is not known (chosen here)."""

LEAST_TAKES_FOR_SPREAD = 3
FOUR_IN_FIVE_SIGMA = 0.8416
"""Standard normal quantile of 0.8."""

CURVE_POINTS = 61


@dataclass(frozen=True)
class Hand:
    """Body speed of a way of holding: its geometric mean, degrees a second, and the spread of
    its log2 from take to take. takes: how many it is from, 0 for typical figures."""

    body_deg_s: float
    spread_log2: float
    takes: int


@dataclass(frozen=True)
class LensCurve:
    """focal_mm, gust, low, high: equal lengths; low and high are one spread either side.

    longest_mm: the focal length at which the usual take just passes. safe_mm: at which four
    takes in five pass. Both None outside 1 to 3000 mm.
    """

    focal_mm: tuple[float, ...]
    gust: tuple[float, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]
    target: float
    longest_mm: float | None
    safe_mm: float | None


def hand_of(body_deg_s: Sequence[float], *, typical_deg_s: float) -> Hand:
    """Mean and spread of past takes' body speeds, or the typical hand where there are none."""
    known = [speed for speed in body_deg_s if speed > 0]
    if not known:
        return Hand(typical_deg_s, TYPICAL_SPREAD_LOG2, 0)
    logs = [math.log2(speed) for speed in known]
    mean = sum(logs) / len(logs)
    spread = TYPICAL_SPREAD_LOG2
    if len(logs) >= LEAST_TAKES_FOR_SPREAD:
        spread = math.sqrt(sum((one - mean) ** 2 for one in logs) / (len(logs) - 1))
    return Hand(2.0**mean, spread, len(known))


def gust_at(body_deg_s: float, *, focal_eq_mm: float, screen_deg: float) -> float:
    """Gust of a body speed seen through a lens."""
    return to_gust(deg_to_pct(body_deg_s, focal_eq_mm=focal_eq_mm), screen_deg=screen_deg)


def longest_focal_mm(body_deg_s: float, *, target: float, screen_deg: float) -> float:
    """Equivalent focal length at which a body speed just reaches the target."""
    if not body_deg_s > 0:
        raise InvalidArgumentError("body_deg_s", body_deg_s, "it must be above zero")
    speed_pct_s = to_speed(target, screen_deg=screen_deg)
    return pct_to_deg(speed_pct_s, focal_eq_mm=1.0) / body_deg_s


def lens_curve(
    hand: Hand, *, low_mm: float, high_mm: float, target: float, screen_deg: float
) -> LensCurve:
    """Gust against equivalent focal length from low_mm to high_mm, spaced evenly in stops."""
    require_between("low_mm", low_mm, *FOCAL_RANGE_MM, "mm")
    require_between("high_mm", high_mm, low_mm, FOCAL_RANGE_MM[1], "mm")
    require_between("target", target, 0, 10)
    screen_offset(screen_deg)  # refuses a screen without an angle
    ratio = high_mm / low_mm
    focals = [low_mm * ratio ** (k / (CURVE_POINTS - 1)) for k in range(CURVE_POINTS)]

    def curve(sigma: float) -> tuple[float, ...]:
        speed = hand.body_deg_s * 2.0 ** (sigma * hand.spread_log2)
        return tuple(gust_at(speed, focal_eq_mm=f, screen_deg=screen_deg) for f in focals)

    return LensCurve(
        focal_mm=tuple(focals),
        gust=curve(0.0),
        low=curve(-1.0),
        high=curve(1.0),
        target=target,
        longest_mm=_reach(hand, 0.0, target, screen_deg),
        safe_mm=_reach(hand, FOUR_IN_FIVE_SIGMA, target, screen_deg),
    )


def _reach(hand: Hand, sigma: float, target: float, screen_deg: float) -> float | None:
    speed = hand.body_deg_s * 2.0 ** (sigma * hand.spread_log2)
    found = longest_focal_mm(speed, target=target, screen_deg=screen_deg)
    return found if FOCAL_RANGE_MM[0] <= found <= FOCAL_RANGE_MM[1] else None
