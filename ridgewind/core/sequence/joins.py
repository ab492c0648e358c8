"""How well two shots join on motion: where the picture moves alike on both sides of the cut.

Velocities are (3,): pan, tilt and push of the intended move, percent of the long side a second, as
played. Definitions of docs/measurement.md, *Joins*.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_between, require_positive

Floats = NDArray[np.float64]
Joined = Literal["matches", "passes", "fights"]

LEAST_PCT_S = 2.0
"""Speeds under which a mismatch is not made larger by dividing (definition)."""

MATCHES, FIGHTS = 0.25, 1.0
"""Mismatch under which two shots match, and over which they fight (definition)."""

GUST_JUMP = 1.5
"""Jump of gust over a cut that is told (definition)."""

EDGE_S = 0.5
"""Over which the velocity at an end is taken (definition)."""


def mismatch(exit_pct_s: Floats, entry_pct_s: Floats) -> float:
    """How differently the picture moves before and after a cut: 0 is alike, 2 at most.

    >>> mismatch(np.array([4.0, 0, 0]), np.array([4.0, 0, 0]))
    0.0
    >>> mismatch(np.array([4.0, 0, 0]), np.array([-4.0, 0, 0]))
    2.0
    >>> mismatch(np.zeros(3), np.array([0.5, 0, 0]))
    0.25
    """
    leaving, entering = _velocity("exit_pct_s", exit_pct_s), _velocity("entry_pct_s", entry_pct_s)
    fastest = max(float(np.linalg.norm(leaving)), float(np.linalg.norm(entering)), LEAST_PCT_S)
    return float(np.linalg.norm(leaving - entering)) / fastest


def joined(value: float) -> Joined:
    """What a mismatch looks like.

    >>> joined(0.1), joined(0.6), joined(1.2)
    ('matches', 'passes', 'fights')
    """
    if value < MATCHES:
        return "matches"
    return "fights" if value > FIGHTS else "passes"


def jumps(gust_before: float, gust_after: float) -> bool:
    """Whether a calm shot makes its neighbour look worse."""
    return abs(gust_after - gust_before) > GUST_JUMP


def backwards(velocity_pct_s: Floats) -> Floats:
    """The velocity of a shot's other end, played backwards: a reversed shot swaps and negates its
    ends."""
    return -_velocity("velocity_pct_s", velocity_pct_s)


@dataclass(frozen=True)
class Rates:
    """How fast either side of a cut is played so that they match. mismatch: what is left."""

    before: float
    after: float
    mismatch: float


def matching_rates(
    exit_pct_s: Floats, entry_pct_s: Floats, *, slowest: float, quickest: float = 1.0
) -> Rates:
    """The rates, nearest to full speed, that make both sides as fast: the quicker one is slowed.
    Full speed where that joins no better.

    slowest, quickest: shares of full speed that may be played. Raises InvalidArgumentError.
    """
    require_between("slowest", slowest, 0.01, 1.0)
    require_between("quickest", quickest, 1.0, 4.0)
    leaving, entering = _velocity("exit_pct_s", exit_pct_s), _velocity("entry_pct_s", entry_pct_s)
    fast, slow = float(np.linalg.norm(leaving)), float(np.linalg.norm(entering))
    before = after = 1.0
    if fast > slow > 0:
        before = max(slowest, slow / fast)
        after = min(quickest, max(1.0, before * fast / slow))
    elif slow > fast > 0:
        after = max(slowest, fast / slow)
        before = min(quickest, max(1.0, after * slow / fast))
    as_filmed = mismatch(leaving, entering)
    matched = mismatch(before * leaving, after * entering)
    return Rates(before, after, matched) if matched < as_filmed else Rates(1.0, 1.0, as_filmed)


@dataclass(frozen=True)
class Cut:
    """Where to leave one shot and enter the next, s in their files."""

    out_s: float
    in_s: float
    mismatch: float


def best_cut(
    before_s: Floats,
    before_pct_s: Floats,
    after_s: Floats,
    after_pct_s: Floats,
) -> Cut:
    """The pair of trim points with the least mismatch; of pairs as good, the one that keeps most.

    before_s, after_s: (n,), (m,) trim points within the lees, growing. before_pct_s, after_pct_s:
    (n, 3), (m, 3) velocities there. Raises InvalidArgumentError.
    """
    for name, times, speeds in (
        ("before", before_s, before_pct_s),
        ("after", after_s, after_pct_s),
    ):
        if len(times) == 0 or speeds.shape != (len(times), 3):
            raise InvalidArgumentError(name, speeds.shape, "a velocity (3,) for every trim point")
    apart = np.linalg.norm(before_pct_s[:, None] - after_pct_s[None], axis=2)
    fastest = np.maximum(
        np.linalg.norm(before_pct_s, axis=1)[:, None], np.linalg.norm(after_pct_s, axis=1)[None]
    )
    values = apart / np.maximum(fastest, LEAST_PCT_S)
    kept = (before_s - before_s[0])[:, None] + (after_s[-1] - after_s)[None]
    good = values <= values.min() + 1e-9
    out, begin = np.unravel_index(int(np.where(good, kept, -np.inf).argmax()), values.shape)
    return Cut(float(before_s[out]), float(after_s[begin]), float(values[out, begin]))


def edge_velocity(path_pct: Floats, *, rate_hz: float, at_end: bool) -> Floats:
    """Mean velocity (3,) over the first or last half second of an intended path (n, 3), percent of
    the long side. Raises InvalidArgumentError."""
    require_positive("rate_hz", rate_hz)
    if path_pct.ndim != 2 or path_pct.shape[1] != 3 or len(path_pct) < 2:
        raise InvalidArgumentError("path_pct", path_pct.shape, "it must be (n, 3), of two or more")
    count = min(len(path_pct) - 1, max(1, round(EDGE_S * rate_hz)))
    part = path_pct[-count - 1 :] if at_end else path_pct[: count + 1]
    out: Floats = (part[-1] - part[0]) * rate_hz / count
    return out


def _velocity(name: str, value: Floats) -> Floats:
    if value.shape != (3,) or not np.isfinite(value).all():
        raise InvalidArgumentError(name, value, "it must be three finite numbers")
    return value
