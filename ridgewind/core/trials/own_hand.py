"""The shooter's own hand: how fast it turns, by frequency, so that it can be asked about a lens, a
rate and a screen that it was never filmed with.

A take's path through its own lens gives the mean square speed of each part in each bin of
frequency at capture, v(f): of pan and tilt in degrees a second, of roll and zoom in percent of the
long side a second, which no lens changes. Through another lens, played at another rate,

    S² = Σ_f rate² · [(v_pan + v_tilt) · (f_eq / 20.63)² + v_roll + v_zoom] · W(f · rate)²

which is the integral of docs/measurement.md with (2π f)² p(f) df taken together as v.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_between, require_positive
from ridgewind.core.shake.gust import STEP_PER_DOUBLING, USUAL_SCREEN_DEG, to_gust, to_gusts, weight
from ridgewind.core.shake.spectrum import LEAST_SAMPLES, spectrum_of
from ridgewind.core.trials.distributions import t_quantile
from ridgewind.core.units import deg_to_pct, pct_to_deg

Floats = NDArray[np.float64]

LOWEST_HZ, BINS_A_DOUBLING, BINS = 0.1, 6, 56
"""The grid: from where a take tells anything to over 60 Hz, even in doublings (chosen here: a bin
is an eighth wide, as W changes by a few percent over it)."""

EDGES_HZ: Floats = LOWEST_HZ * np.exp2(np.arange(BINS + 1) / BINS_A_DOUBLING)
MIDDLES_HZ: Floats = np.sqrt(EDGES_HZ[:-1] * EDGES_HZ[1:])

CHANCE = 0.8
"""That a further take lies within a prediction's interval (chosen here, as limits have it)."""

FOUR_IN_FIVE_SIGMA = 0.8416
"""Standard normal quantile of 0.8."""

LEAST_SPEED = 1e-9
TYPICAL_SPREAD_LOG2 = 0.5
"""Of log2 of speed from take to take while it is not known (as of limits)."""


@dataclass(frozen=True)
class Hand:
    """A technique's takes. hz: (bins,). mean_square: (takes, bins, 4), see the module's docstring.
    focal_eq_mm: (takes,), through which each was filmed."""

    hz: Floats
    mean_square: Floats
    focal_eq_mm: Floats

    def __post_init__(self) -> None:
        wanted = (len(self.focal_eq_mm), len(self.hz), 4)
        if self.mean_square.shape != wanted or not len(self.focal_eq_mm):
            rule = f"it must be {wanted}, of one take at least"
            raise InvalidArgumentError("mean_square", self.mean_square.shape, rule)

    @cached_property
    def turned(self) -> Floats:
        """(takes, bins) of pan and tilt together, which a lens enlarges."""
        out: Floats = self.mean_square[:, :, :2].sum(axis=2)
        return out

    @cached_property
    def rolled(self) -> Floats:
        """(takes, bins) of roll and zoom together, which no lens changes."""
        out: Floats = self.mean_square[:, :, 2:].sum(axis=2)
        return out


@dataclass(frozen=True)
class Prediction:
    """gust: of the mean take. low, high: between which a further take lies with a chance of CHANCE.
    takes: that it is from."""

    gust: float
    low: float
    high: float
    takes: int


def turning_of(
    speeds: Floats, *, rate_hz: float, focal_eq_mm: float, counted: NDArray[np.bool_]
) -> Floats | None:
    """Mean square speeds (BINS, 4) of a take; None where it is too short. speeds: (n, 4) as of
    `gust.part_speeds` at capture. counted: (n,); what is not is taken to turn as the rest does."""
    require_positive("focal_eq_mm", focal_eq_mm)
    if len(speeds) < LEAST_SAMPLES or not counted.any():
        return None
    known = np.where(counted[:, None], speeds, 0.0)
    found = spectrum_of(known, rate_hz=rate_hz, weighted=False)
    inside = np.searchsorted(EDGES_HZ, found.hz, side="right") - 1
    kept = (inside >= 0) & (inside < BINS)
    out = np.zeros((BINS, 4))
    np.add.at(out, inside[kept], found.power[kept] / counted.mean())
    out[:, :2] *= pct_to_deg(1.0, focal_eq_mm=focal_eq_mm) ** 2
    return out


def seen_speeds(hand: Hand, *, focal_eq_mm: float, rate: float = 1.0) -> Floats:
    """Weighted speed S (takes,), percent of the long side a second, of each take through a lens,
    played at a rate (1 as filmed)."""
    return played(hand, rate=rate).through(focal_eq_mm)


@dataclass(frozen=True)
class Played:
    """A hand at a rate of playback, to be seen through any lens. turned: (takes,) weighted power of
    pan and tilt, (degrees a second)²; rolled: of roll and zoom, (percent a second)²."""

    turned: Floats
    rolled: Floats

    def through(self, focal_eq_mm: float | Floats) -> Floats:
        """Weighted speed S (takes,) through a lens, or through each take's own (takes,)."""
        if not np.all(np.asarray(focal_eq_mm) > 0.0):
            raise InvalidArgumentError("focal_eq_mm", focal_eq_mm, "it must be over 0")
        a_degree = deg_to_pct(1.0, focal_eq_mm=1.0) * focal_eq_mm
        out: Floats = np.sqrt(a_degree**2 * self.turned + self.rolled)
        return out


def played(hand: Hand, *, rate: float) -> Played:
    """A hand at a rate of playback, 1 as filmed."""
    require_between("rate", rate, 0.01, 10.0)
    eye = (rate * weight(hand.hz * rate)) ** 2
    return Played(hand.turned @ eye, hand.rolled @ eye)


def predict(
    hand: Hand, *, focal_eq_mm: float, rate: float = 1.0, screen_deg: float = USUAL_SCREEN_DEG
) -> Prediction:
    """What a take of this hand would read through a lens, played at a rate, on a screen."""
    speeds = seen_speeds(hand, focal_eq_mm=focal_eq_mm, rate=rate)
    gust = to_gust(float(np.sqrt((speeds**2).mean())), screen_deg=screen_deg)
    half = STEP_PER_DOUBLING * _half_log2(speeds)
    return Prediction(gust, max(0.0, gust - half), min(10.0, gust + half), len(speeds))


@dataclass(frozen=True)
class ThroughLenses:
    """A hand at several lenses. gust: of the usual take at each; low, high: one spread either
    side. longest_mm, safe_mm: focal lengths up to which the usual take, and four takes in five,
    pass; None where that is none of the lenses."""

    gust: tuple[float, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]
    longest_mm: float | None
    safe_mm: float | None


def through_lenses(
    hand: Hand, focal_eq_mm: Sequence[float], *, target: float, screen_deg: float
) -> ThroughLenses:
    """What the usual take reads at each of some lenses, from short to long."""
    logs = np.array(
        [
            np.log2(np.maximum(seen_speeds(hand, focal_eq_mm=float(mm)), LEAST_SPEED))
            for mm in focal_eq_mm
        ]
    )
    count = logs.shape[1]
    middle = logs.mean(axis=1)
    spread = logs.std(axis=1, ddof=1) if count >= 3 else np.full(len(logs), TYPICAL_SPREAD_LOG2)

    def gusts(sigma: float) -> tuple[float, ...]:
        speeds = np.exp2(middle + sigma * spread)
        return tuple(to_gust(float(one), screen_deg=screen_deg) for one in speeds)

    def reach(sigma: float) -> float | None:
        found = gusts(sigma)
        if found[0] > target or found[-1] <= target:
            return None
        return float(np.exp(np.interp(target, found, np.log(focal_eq_mm))))

    return ThroughLenses(gusts(0.0), gusts(-1.0), gusts(1.0), reach(0.0), reach(FOUR_IN_FIVE_SIGMA))


def left_out_error(hand: Hand) -> float | None:
    """The middle of how far each take's gust, through its own lens, is from what the others predict
    for it; None for fewer than three takes."""
    count = len(hand.focal_eq_mm)
    if count < 3:
        return None
    off = np.zeros(count)
    for focal_eq_mm in np.unique(hand.focal_eq_mm):
        power = seen_speeds(hand, focal_eq_mm=float(focal_eq_mm)) ** 2
        own = hand.focal_eq_mm == focal_eq_mm
        others = (power.sum() - power[own]) / (count - 1)
        off[own] = np.abs(to_gusts(power[own]) - to_gusts(others))
    return float(np.median(off))


def _half_log2(speeds: Floats) -> float:
    """Half of the interval of one further take, in log2 of speed."""
    count = len(speeds)
    logs = np.log2(np.maximum(speeds, LEAST_SPEED))
    if count < 2:
        dof, spread = 3.0, TYPICAL_SPREAD_LOG2
    else:
        dof, spread = float(count - 1), float(logs.std(ddof=1))
    return t_quantile(dof, 0.5 + CHANCE / 2.0) * spread * math.sqrt(1.0 + 1.0 / count)
