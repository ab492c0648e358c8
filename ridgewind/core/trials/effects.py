"""What a circumstance adds to gust, whatever the day and the way of holding: tiredness, the take's
place in its session, the rest before it.

Least squares of `gust = session + technique + column(s)`, one residual spread for all.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.distributions import t_quantile
from ridgewind.core.trials.trial import SETTLED_HALF, Estimate

Floats = NDArray[np.float64]

CHANCE = 0.9
"""That an interval holds the effect (definition, as of trials)."""

WORTH_STOPPING = SETTLED_HALF
"""Gust that tiredness adds from which it is worth stopping (chosen here: the least difference that
a trial tells)."""

SAME = 1e-8


@dataclass(frozen=True)
class Seen:
    """A take under its circumstances. session, technique: any names of them. gust: any figure on
    its scale."""

    session: str
    technique: str
    gust: float


@dataclass(frozen=True)
class TirednessLevel(Estimate):
    """Gust that a tiredness adds against the least one noted. level: 1 fresh to 5 spent."""

    level: int
    takes: int


@dataclass(frozen=True)
class Tiredness:
    """base: the least tiredness that was noted. levels: the others that can be compared with it.
    stop_from: the tiredness from which it is worth stopping, None where none is."""

    base: int
    base_takes: int
    levels: tuple[TirednessLevel, ...]
    stop_from: int | None


def effects_of(
    takes: Sequence[Seen], columns: Mapping[str, Sequence[float]]
) -> dict[str, Estimate]:
    """What each column adds for one more of it, by name. Those that the takes cannot tell apart
    from sessions, techniques or each other are left out, and all where no spread is left.

    columns: of the takes' length each. Raises InvalidArgumentError.
    """
    for name, column in columns.items():
        if len(column) != len(takes):
            raise InvalidArgumentError(name, len(column), f"it must hold {len(takes)} values")
    if not takes or not columns:
        return {}
    sessions = np.unique(np.array([one.session for one in takes]), return_inverse=True)[1]
    everything = np.column_stack(
        [
            _one_hot([one.technique for one in takes]),
            *(np.array(one, np.float64) for one in columns.values()),
            np.array([one.gust for one in takes]),
        ]
    )
    if not np.isfinite(everything).all():
        raise InvalidArgumentError("columns", "not a number", "every value must be a number")
    # Less its session's mean, a session's column has no part in the rest (Frisch and Waugh, 1933).
    inner = less_means(everything, sessions)
    design, values = inner[:, :-1], inner[:, -1]
    gram = design.T @ design
    inverse, rank = _inverse(gram)
    dof = len(takes) - int(sessions.max()) - 1 - rank
    if dof < 1:
        return {}
    fitted = inverse @ (design.T @ values)
    spread = math.sqrt(float(((values - design @ fitted) ** 2).sum()) / dof)
    reach = gram @ inverse
    t = t_quantile(dof, 0.5 + CHANCE / 2.0)
    out = {}
    for at, name in enumerate(columns, start=design.shape[1] - len(columns)):
        asked = np.zeros(design.shape[1])
        asked[at] = 1.0
        if np.abs(reach @ asked - asked).max() < SAME:
            half = t * spread * math.sqrt(max(0.0, float(inverse[at, at])))
            out[name] = Estimate(
                float(fitted[at]), float(fitted[at] - half), float(fitted[at] + half)
            )
    return out


def less_means(columns: Floats, codes: NDArray[np.intp]) -> Floats:
    """Columns (n, k) less the mean of their group, by codes (n,)."""
    order = np.argsort(codes, kind="stable")
    starts = np.flatnonzero(np.diff(codes[order], prepend=-1))
    sizes = np.diff(np.append(starts, len(codes)))
    means = np.add.reduceat(columns[order], starts, axis=0) / sizes[:, None]
    out: Floats = columns - means[codes]
    return out


def _inverse(gram: Floats) -> tuple[Floats, int]:
    """The pseudo-inverse of a symmetric matrix that is nowhere negative, and its rank: one solution
    of its eigenvalues gives both."""
    values, vectors = np.linalg.eigh(gram)
    kept = values > max(values[-1], 1.0) * SAME
    known = vectors[:, kept]
    return (known / values[kept]) @ known.T, int(kept.sum())


def tiredness_of(takes: Sequence[Seen], noted: Sequence[int]) -> Tiredness | None:
    """What each tiredness that was noted adds; None where only one was, or nothing can be told.
    noted: 1 fresh to 5 spent, of each take."""
    kinds = sorted(set(noted))
    if len(kinds) < 2:
        return None
    base, *others = kinds
    columns = {str(level): [float(one == level) for one in noted] for level in others}
    found = effects_of(takes, columns)
    levels = tuple(
        TirednessLevel(*_ends(found[str(level)]), level=level, takes=list(noted).count(level))
        for level in others
        if str(level) in found
    )
    if not levels:
        return None
    return Tiredness(base, list(noted).count(base), levels, _stop_from(levels))


def takes_until(effect: Estimate, *, gust: float = WORTH_STOPPING) -> float | None:
    """How many of a column bring a gust; None where it surely brings none.

    >>> takes_until(Estimate(0.1, 0.05, 0.15))
    5.0
    """
    if effect.low is None or effect.low <= 0.0:
        return None
    return gust / effect.value


def _stop_from(levels: Sequence[TirednessLevel]) -> int | None:
    """The least tiredness that surely adds something and probably enough, as every one above it
    does that surely adds something."""
    for one in levels:
        above = [other for other in levels if other.level >= one.level]
        if all(other.value >= WORTH_STOPPING for other in above) and (one.low or 0.0) > 0.0:
            return one.level
    return None


def _ends(one: Estimate) -> tuple[float, float | None, float | None]:
    return one.value, one.low, one.high


def _one_hot(names: Sequence[str]) -> Floats:
    codes = np.unique(np.array(names), return_inverse=True)[1]
    out: Floats = np.eye(int(codes.max()) + 1)[codes]
    return out
