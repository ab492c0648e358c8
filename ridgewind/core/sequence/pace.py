"""How fast a piece runs through its film: at one speed, or along a ramp between speeds.

Between two knots it is the slowness (screen seconds for a second of film) that changes, along a
smooth step: its sum over a ramp is then exact, half the sum of both ends, so that a ramp takes as
long as it says, and the picture speeds up without a jerk at either end.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

HALVINGS = 48
"""Of the search for a moment: a film of a day to a billionth of a second."""


@dataclass(frozen=True)
class Knot:
    """A speed at a moment. at_s: s from the film's first frame. speed: share of full speed."""

    at_s: float
    speed: float


def screen_seconds(knots: Sequence[Knot], film_s: Floats) -> Floats:
    """Screen time (n,) at moments of the film (n,), s, from the first knot's; before and after the
    knots the speed stays as it is there.

    knots: one or more, each later than the one before.

    >>> screen_seconds([Knot(0, 2.0), Knot(2, 0.5)], np.array([-1.0, 0.0, 2.0, 3.0]))
    array([-0.5,  0. ,  2.5,  4.5])
    """
    at = np.array([knot.at_s for knot in knots])
    slow = np.array([1.0 / knot.speed for knot in knots])
    lengths = np.diff(at)
    gone = np.concatenate([[0.0], np.cumsum(lengths * (slow[1:] + slow[:-1]) / 2.0)])
    out: Floats = (film_s - at[0]) * slow[0]
    for k, length in enumerate(lengths):
        share = np.clip((film_s - at[k]) / length, 0.0, 1.0)
        rise = share**3 - share**4 / 2.0
        inside = gone[k] + length * (slow[k] * share + (slow[k + 1] - slow[k]) * rise)
        out = np.where(film_s > at[k], inside, out)
    after = film_s > at[-1]
    return np.where(after, gone[-1] + (film_s - at[-1]) * slow[-1], out)


def film_seconds(knots: Sequence[Knot], screen_s: Floats) -> Floats:
    """Moments of the film (n,), s, at screen times (n,) from the first knot's: the inverse of
    `screen_seconds`, by halving."""
    first, last = knots[0], knots[-1]
    if len(knots) == 1:
        out: Floats = first.at_s + screen_s * first.speed
        return out
    end = float(screen_seconds(knots, np.array([last.at_s]))[0])
    low = np.where(screen_s < 0.0, first.at_s + screen_s * first.speed, first.at_s)
    high = np.where(screen_s > end, last.at_s + (screen_s - end) * last.speed, last.at_s)
    low, high = np.where(screen_s > end, high, low), np.where(screen_s < 0.0, low, high)
    for _ in range(HALVINGS):
        middle = (low + high) / 2.0
        early = screen_seconds(knots, middle) < screen_s
        low, high = np.where(early, middle, low), np.where(early, high, middle)
    return (low + high) / 2.0
