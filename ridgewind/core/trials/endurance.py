"""How a technique's gust goes with its take's place in the session, or with the rest before it, and
up to where it still passes.

A straight line for each technique: gust less the mean of its technique in its session, over the
circumstance less the same mean. Few takes lean on the slope of all: as if LEAN further takes,
spread over the circumstance as usual, had followed it.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.distributions import t_quantile
from ridgewind.core.trials.effects import CHANCE, Seen, less_means
from ridgewind.core.trials.lens_limit import LEAN, PASSES
from ridgewind.core.trials.trial import Estimate

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Line:
    """A technique's gust over a circumstance. slope: gust that one more of it adds. middle, gust:
    means over its takes. margin: gust over the line under which four takes in five lie. takes: its
    own."""

    slope: Estimate
    middle: float
    gust: float
    margin: float
    takes: int

    def at(self, where: float) -> float:
        """Gust of its usual take."""
        return self.gust + self.slope.value * (where - self.middle)

    def passes_at(self, where: float, *, target: float) -> bool:
        """Whether four takes in five are within the target."""
        return self.at(where) + self.margin <= target

    def crossing(self, *, target: float) -> float | None:
        """Where four takes in five are just within the target; None where its slope may be nothing,
        as no place can be told then."""
        low, high = self.slope.low, self.slope.high
        if low is None or high is None or low <= 0.0 <= high:
            return None
        return self.middle + (target - self.margin - self.gust) / self.slope.value


def lines_of(
    takes: Sequence[Seen], circumstance: Sequence[float], *, whole: Estimate
) -> dict[str, Line]:
    """Each technique's line, by its name; none where no technique was filmed twice in a session
    under circumstances that differ.

    circumstance: of each take. whole: what one more of it adds over all techniques. Raises
    InvalidArgumentError.
    """
    if len(circumstance) != len(takes):
        rule = f"it must hold {len(takes)} values"
        raise InvalidArgumentError("circumstance", len(circumstance), rule)
    if not takes:
        return {}
    names, techniques = np.unique([one.technique for one in takes], return_inverse=True)
    sessions = np.unique([one.session for one in takes], return_inverse=True)[1]
    groups = np.unique(techniques * (int(sessions.max()) + 1) + sessions, return_inverse=True)[1]
    both = np.column_stack([np.array(circumstance, float), [one.gust for one in takes]])
    if not np.isfinite(both).all():
        raise InvalidArgumentError("circumstance", "not a number", "every value must be a number")
    inner = less_means(both, groups)
    dof = len(takes) - int(groups.max()) - 2
    if dof < 1 or not inner[:, 0].any():
        return {}
    left = inner[:, 1] - whole.value * inner[:, 0]
    spread = math.sqrt(float(left @ left) / dof)
    usual_square = float(inner[:, 0] @ inner[:, 0]) / (dof + 1)
    fitted = _Fitted(whole.value, spread, float(dof), LEAN * usual_square)
    around = _around(both - less_means(both, techniques), both, whole.value)
    return {
        str(name): _line(both[techniques == k], inner[techniques == k], fitted, around)
        for k, name in enumerate(names)
    }


@dataclass(frozen=True)
class _Fitted:
    """Over all techniques: slope; spread of what it leaves within a group, and its degrees of
    freedom; square sum of the circumstance that a technique leans on."""

    slope: float
    spread: float
    dof: float
    lean_square: float


def _around(means: Floats, both: Floats, slope: float) -> float:
    """Mean square of what is left of gust about each technique's own mean, the slope taken out."""
    left = (both[:, 1] - means[:, 1]) - slope * (both[:, 0] - means[:, 0])
    return float(left @ left) / max(1, len(left) - 1)


def _line(both: Floats, inner: Floats, fitted: _Fitted, around: float) -> Line:
    """both, inner: (takes, 2) of a technique, circumstance and gust, as they are and less the means
    of their groups."""
    own = float(inner[:, 0] @ inner[:, 0])
    weight = own + fitted.lean_square
    along = float(inner[:, 0] @ inner[:, 1]) + fitted.lean_square * fitted.slope
    value = along / weight
    half = t_quantile(fitted.dof, 0.5 + CHANCE / 2.0) * fitted.spread / math.sqrt(weight)
    count = len(both)
    middle, gust = both.mean(axis=0)
    left = (both[:, 1] - gust) - value * (both[:, 0] - middle)
    dof = count - 1 + LEAN
    spread = math.sqrt((float(left @ left) + LEAN * around) / dof)
    margin = t_quantile(dof, PASSES) * spread * math.sqrt(1.0 + 1.0 / (count + LEAN))
    return Line(
        Estimate(value, value - half, value + half), float(middle), float(gust), margin, count
    )
