"""A subject that the shooter marked, and where in the picture it went."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class SubjectPath:
    """Where a subject was. t_s: (n,); x, y: (n,) from the picture's middle, percent of the long
    side, right and down positive; not a number where it was lost."""

    t_s: Floats
    x_pct: Floats
    y_pct: Floats


@dataclass(frozen=True)
class Mark:
    """Where a point was marked. at_s: s since the film's first frame. x, y: from the picture's
    upper left, shares of its width and height."""

    at_s: float
    x: float
    y: float


@dataclass(frozen=True)
class Subject:
    """A marked subject: one point of it, or two of a rigid one, and where each went."""

    marks: tuple[Mark, ...]
    paths: tuple[SubjectPath, ...]

    def later(self, by_s: float) -> Subject:
        """The same on a clock that is ahead by so much."""
        moved = (replace(path, t_s=path.t_s + by_s) for path in self.paths)
        return replace(self, paths=tuple(moved))


@dataclass(frozen=True)
class Centring:
    """How near the middle a subject stayed. rms_pct, worst_pct: distance from it, percent of the
    long side. worst_s: when. followed: share of the frames in which it was seen, 0 to 1."""

    rms_pct: float
    worst_pct: float
    worst_s: float
    followed: float


def centring_of(path: SubjectPath, *, from_s: float, to_s: float) -> Centring | None:
    """Centring between two times; None where the subject is not seen there."""
    inside = (path.t_s >= from_s) & (path.t_s <= to_s)
    away = np.hypot(path.x_pct[inside], path.y_pct[inside])
    seen = np.isfinite(away)
    if not seen.any():
        return None
    worst = int(np.nanargmax(away))
    return Centring(
        rms_pct=float(np.sqrt(np.nanmean(away**2))),
        worst_pct=float(away[worst]),
        worst_s=float(path.t_s[inside][worst]),
        followed=float(seen.mean()),
    )
