"""The shooter's own eye: from marks, the figure at which smooth enough turns into not.

A logistic threshold: the chance of "smooth enough" is 1 / (1 + exp((x - threshold) / width)). It is
worked out on a grid of thresholds and widths, which gives an honest interval however few the
marks are. The prior: a normal around the default, and a width near a half, as a person who is
sure of themselves within a step or so.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_positive

Floats = NDArray[np.float64]

ENOUGH_MARKS = 8
"""Marks from which the threshold is offered as the target (definition)."""

INTERVAL = 0.9
GRID, WIDTHS = 321, 33
PRIOR_SPREAD, PRIOR_WIDTH, PRIOR_WIDTH_DOUBLINGS = 2.0, 0.5, 1.0
"""In steps of the scale: how far a person's threshold may lie from the default, and how gradual
it is (chosen here)."""

LAPSE = 0.02
"""Share of marks that are slips of the finger, so that one of them cannot move it far."""


@dataclass(frozen=True)
class Mark:
    """What was seen (gust, or crop in percent), and whether it was smooth enough."""

    value: float
    smooth: bool


@dataclass(frozen=True)
class Threshold:
    """value: the middle of what is likely; low, high: it lies between them with a chance of nine
    in ten. marks: how many it rests on. offered: they are enough to go by."""

    value: float
    low: float
    high: float
    width: float
    marks: int

    @property
    def offered(self) -> bool:
        return self.marks >= ENOUGH_MARKS


def threshold_of(marks: Sequence[Mark], *, default: float, step: float = 1.0) -> Threshold:
    """The threshold with its interval. default: where it is thought to lie while there are no
    marks. step: one step of the scale, 1 for gust.

    Raises InvalidArgumentError for a value that is no number.
    """
    require_positive("step", step)
    for mark in marks:
        if not np.isfinite(mark.value):
            raise InvalidArgumentError("value", mark.value, "it must be a number")
    values = np.array([mark.value for mark in marks], np.float64)
    smooth = np.array([mark.smooth for mark in marks], np.bool_)
    reach = 5.0 * PRIOR_SPREAD * step
    low = min(default - reach, values.min(initial=default))
    high = max(default + reach, values.max(initial=default))
    places = np.linspace(low, high, GRID)
    widths = step * PRIOR_WIDTH * np.exp2(np.linspace(-3, 3, WIDTHS) * PRIOR_WIDTH_DOUBLINGS)
    log_chance = _log_prior(places, widths, default, step)
    for value, good in zip(values, smooth, strict=True):
        chance = smooth_chance(value, places[:, None], widths[None])
        chance = LAPSE / 2.0 + (1.0 - LAPSE) * chance
        log_chance += np.log(chance if good else 1.0 - chance)
    weight = np.exp(log_chance - log_chance.max())
    along = np.cumsum(weight.sum(axis=1)) / weight.sum()
    edge = (1.0 - INTERVAL) / 2.0
    found = [float(np.interp(share, along, places)) for share in (edge, 0.5, 1.0 - edge)]
    width = float((weight.sum(axis=0) * widths).sum() / weight.sum())
    return Threshold(found[1], found[0], found[2], width, len(marks))


def smooth_chance(
    value: float | Floats, threshold: float | Floats, width: float | Floats
) -> Floats:
    """Chance that a value is called smooth enough."""
    steps = np.clip((value - np.asarray(threshold)) / np.asarray(width), -60.0, 60.0)
    out: Floats = np.asarray(1.0 / (1.0 + np.exp(steps)), np.float64)
    return out


def surprise(mark: Mark, threshold: Threshold) -> float:
    """How far a mark disagrees with the number, in steps of the scale; 0 where they agree."""
    past = mark.value - threshold.value
    return max(0.0, past if mark.smooth else -past)


def _log_prior(places: Floats, widths: Floats, default: float, step: float) -> Floats:
    place = -0.5 * ((places - default) / (PRIOR_SPREAD * step)) ** 2
    width = -0.5 * (np.log2(widths / (PRIOR_WIDTH * step)) / PRIOR_WIDTH_DOUBLINGS) ** 2
    out: Floats = place[:, None] + width[None]
    return out
