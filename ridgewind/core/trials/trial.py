"""Ways of holding compared over many takes, so that a good day favours none of them.

Least squares of `value = session + variation (+ place)`, one residual spread for all. A session
in which only one variation was filmed says nothing about a difference and is left out; so is a
variation that no chain of shared sessions leads to the control from.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.distributions import t_quantile

Floats = NDArray[np.float64]
Ints = NDArray[np.intp]

CHANCE = 0.9
"""That an interval holds the difference (definition)."""

DRAWS = 20_000
"""Of the multivariate t, for the chance of being the steadiest (definition)."""

MOST_ARRANGEMENTS, SHUFFLES = 20_000, 4_000
"""Every arrangement is tried up to so many, else so many random ones (definition)."""

SEED = 20_260
LEAST_A_SIDE = 3
"""Takes a side under which a difference is a hint (definition)."""

SETTLED_HALF = 0.5
"""Half of an interval, in gust, at which a difference is told well enough (definition)."""

MOST_MORE = 999
LEAST_FOR_PLACE = 12
"""Takes from which the take's place in its session is a column of its own (definition)."""

SAME = 1e-9


@dataclass(frozen=True)
class Filmed:
    """A take of a trial. session: any name of it. place: of the take in its session, counted over
    all that was filmed there. value: what is compared, less being better."""

    session: str
    variation: str
    place: float
    value: float


@dataclass(frozen=True)
class Estimate:
    """value, between low and high with a chance of CHANCE; those are None where there is no spread
    to tell it by."""

    value: float
    low: float | None
    high: float | None


@dataclass(frozen=True)
class Difference(Estimate):
    """Of a variation against the control. p: two-sided, of shuffled variations within sessions;
    None where it was not asked for.
    takes: of the variation, of those that count. more_takes: a side, all in one further session,
    that bring half of the interval to SETTLED_HALF; None where not even MOST_MORE do, or nothing
    is known of the spread. hint: there are too few takes to go by."""

    p: float | None
    takes: int
    more_takes: int | None
    hint: bool


@dataclass(frozen=True)
class Trial:
    """control_takes: of those that count. dof, spread: of the residuals; spread None at no degree
    of freedom. against_control: by variation. best: chance by variation, the control too, that it
    is the steadiest; empty where there is no spread. place: gust a take, None where it was left
    out. left_out: indices of takes that say nothing here."""

    control: str
    control_takes: int
    dof: int
    spread: float | None
    against_control: dict[str, Difference]
    best: dict[str, float]
    place: Estimate | None
    left_out: tuple[int, ...]

    @property
    def hint(self) -> bool:
        """Whether any difference rests on too few takes."""
        return any(one.hint for one in self.against_control.values())


def compare_variations(
    takes: Sequence[Filmed],
    *,
    control: str,
    with_place: bool | None = None,
    shuffled: bool = True,
) -> Trial:
    """A trial of variations against a plain control. with_place: whether the take's place in its
    session (fatigue) is a column; None leaves it to the number of takes. shuffled: work out p,
    which takes longest.

    Raises InvalidArgumentError where no session holds the control beside another variation, or a
    value is no number.

    Source: ordinary least squares with t intervals; permutation within blocks (Good, *Permutation,
    Parametric and Bootstrap Tests of Hypotheses*, 3rd edition, chapter 6).
    """
    for one in takes:
        if not (math.isfinite(one.value) and math.isfinite(one.place)):
            raise InvalidArgumentError("value", one.value, "it must be a number")
    kept = _comparable(takes, control)
    if not kept:
        rule = "it must have been filmed beside another variation in some session"
        raise InvalidArgumentError("control", control, rule)
    counted = [takes[index] for index in kept]
    others = sorted({one.variation for one in counted} - {control})
    wanted = len(counted) >= LEAST_FOR_PLACE if with_place is None else with_place
    fit = _fit(counted, others, with_place=wanted)
    shares = _steadiest([control, *others], fit)
    sides = {name: sum(one.variation == name for one in counted) for name in [control, *others]}
    return Trial(
        control=control,
        control_takes=sides[control],
        dof=fit.dof,
        spread=fit.spread,
        against_control={
            name: Difference(
                *_interval(fit, column),
                p=(
                    _shuffled_p(counted, name, control, with_place=fit.with_place)
                    if shuffled
                    else None
                ),
                takes=sides[name],
                more_takes=_more_takes(fit, column),
                hint=min(sides[name], sides[control]) < LEAST_A_SIDE,
            )
            for column, name in enumerate(others)
        },
        best=shares,
        place=Estimate(*_interval(fit, len(others))) if fit.with_place else None,
        left_out=tuple(index for index in range(len(takes)) if index not in set(kept)),
    )


def _comparable(takes: Sequence[Filmed], control: str) -> list[int]:
    """Indices of takes whose variation a chain of shared sessions ties to the control, in sessions
    that hold two such variations or more."""
    held: dict[str, set[str]] = {}
    for one in takes:
        held.setdefault(one.session, set()).add(one.variation)
    reached = {control}
    while more := {name for names in held.values() if names & reached for name in names - reached}:
        reached |= more
    return [
        index
        for index, one in enumerate(takes)
        if one.variation in reached and len(held[one.session] & reached) > 1
    ]


@dataclass(frozen=True)
class _Fit:
    """coefficients (k,): variations, then the place where it is a column; unscaled: (k, k), their
    covariance over the residual variance."""

    coefficients: Floats
    unscaled: Floats
    dof: int
    spread: float | None
    with_place: bool


def _fit(takes: Sequence[Filmed], others: Sequence[str], *, with_place: bool) -> _Fit:
    sessions = _codes([one.session for one in takes])
    values = np.array([one.value for one in takes])
    columns = [[float(one.variation == name) for one in takes] for name in others]
    design = np.array(columns).T
    if with_place:
        placed = np.column_stack([design, [one.place for one in takes]])
        # Where every variation always stood at the same place, the two cannot be told apart.
        with_place = bool(np.linalg.matrix_rank(_within(placed, sessions)) == placed.shape[1])
        design = placed if with_place else design
    inner, target = _within(design, sessions), _within(values[:, None], sessions)[:, 0]
    unscaled: Floats = np.linalg.inv(inner.T @ inner).astype(np.float64)
    coefficients: Floats = unscaled @ inner.T @ target
    residual = target - inner @ coefficients
    dof = len(takes) - len(np.unique(sessions)) - design.shape[1]
    spread = math.sqrt(float(residual @ residual) / dof) if dof > 0 else None
    return _Fit(coefficients, unscaled, dof, spread, with_place)


def _codes(names: Sequence[str]) -> Ints:
    found: Ints = np.unique(np.array(names), return_inverse=True)[1]
    return found


def _within(columns: Floats, sessions: Ints) -> Floats:
    """Columns (n, k) less their mean in each session, which takes the sessions out of the fit."""
    counts = np.bincount(sessions)
    sums = np.zeros((len(counts), columns.shape[1]))
    np.add.at(sums, sessions, columns)
    out: Floats = columns - (sums / counts[:, None])[sessions]
    return out


def _interval(fit: _Fit, column: int) -> tuple[float, float | None, float | None]:
    value = float(fit.coefficients[column])
    if fit.spread is None:
        return value, None, None
    half = _half(fit.spread, float(fit.unscaled[column, column]), fit.dof)
    return value, value - half, value + half


def _half(spread: float, unscaled: float, dof: int) -> float:
    return t_quantile(dof, 0.5 + CHANCE / 2.0) * spread * math.sqrt(unscaled)


def _more_takes(fit: _Fit, column: int) -> int | None:
    """A further session with m takes a side adds m/2 to what is known of the difference."""
    if fit.spread is None:
        return None
    unscaled = float(fit.unscaled[column, column])
    for more in range(MOST_MORE + 1):
        dof = fit.dof + max(0, 2 * more - 1)
        if _half(fit.spread, unscaled / (1.0 + unscaled * more / 2.0), dof) <= SETTLED_HALF:
            return more
    return None


def _steadiest(names: Sequence[str], fit: _Fit) -> dict[str, float]:
    """Chance of each to have the least value; the first is the control, whose difference is 0."""
    if fit.spread is None:
        return {}
    count = len(names) - 1
    rng = np.random.default_rng(SEED)
    normal = rng.standard_normal((DRAWS, count))
    chi = rng.chisquare(fit.dof, DRAWS)
    root = np.linalg.cholesky(fit.unscaled[:count, :count])
    scale = fit.spread / np.sqrt(chi / fit.dof)
    drawn = fit.coefficients[:count] + scale[:, None] * (normal @ root.T)
    least = np.argmin(np.column_stack([np.zeros(DRAWS), drawn]), axis=1)
    shares = np.bincount(least, minlength=len(names)) / DRAWS
    return dict(zip(names, shares.tolist(), strict=True))


def _shuffled_p(takes: Sequence[Filmed], name: str, control: str, *, with_place: bool) -> float:
    """Share of arrangements of two variations within their sessions whose difference is as large,
    either way."""
    pair = [one for one in takes if one.variation in (name, control)]
    sessions = _codes([one.session for one in pair])
    labels = np.array([float(one.variation == name) for one in pair])
    rng = np.random.default_rng(SEED)
    arranged, all_of_them = _arrangements(labels, sessions, rng)
    aside = np.array([[one.place for one in pair]]).T if with_place else np.zeros((len(pair), 0))
    values = np.array([[one.value for one in pair]]).T
    sizes = np.abs(_slopes(arranged, values, aside, sessions))
    seen = float(np.abs(_slopes(labels[:, None], values, aside, sessions))[0])
    hits = int(np.count_nonzero(sizes >= seen - SAME * max(1.0, seen)))
    return hits / len(sizes) if all_of_them else (hits + 1) / (len(sizes) + 1)


def _arrangements(labels: Floats, sessions: Ints, rng: np.random.Generator) -> tuple[Floats, bool]:
    """Labels (n, m) shuffled within their sessions, a column each; whether that is every way."""
    groups = [np.flatnonzero(sessions == code) for code in np.unique(sessions)]
    sides = [int(labels[group].sum()) for group in groups]
    many = math.prod(math.comb(len(group), side) for group, side in zip(groups, sides, strict=True))
    if many <= MOST_ARRANGEMENTS:
        out, before = np.zeros((len(labels), many)), 1
        for group, side in zip(groups, sides, strict=True):
            ways = _ways(len(group), side)
            before *= ways.shape[1]
            out[group] = np.tile(np.repeat(ways, many // before, 1), before // ways.shape[1])
        return out, True
    out = np.empty((len(labels), SHUFFLES))
    for group in groups:
        out[group] = rng.permuted(np.tile(labels[group][:, None], SHUFFLES), axis=0)
    return out, False


def _ways(count: int, chosen: int) -> Floats:
    """Every way to choose some of a few, (count, ways): 1 where one is chosen."""
    many = math.comb(count, chosen)
    picked = np.array(list(combinations(range(count), chosen)), int).reshape(many, chosen)
    out = np.zeros((count, many))
    out[picked, np.arange(many)[:, None]] = 1.0
    return out


def _slopes(labels: Floats, values: Floats, aside: Floats, sessions: Ints) -> Floats:
    """Difference (m,) that each column of labels (n, m) would show, other columns held."""
    inner, target = _within(labels, sessions), _within(values, sessions)
    if aside.shape[1]:
        basis, _ = np.linalg.qr(_within(aside, sessions))
        inner = inner - basis @ (basis.T @ inner)
        target = target - basis @ (basis.T @ target)
    size = (inner**2).sum(axis=0)
    told = size > SAME
    out: Floats = np.where(told, (inner * target).sum(axis=0) / np.where(told, size, 1.0), 0.0)
    return out
