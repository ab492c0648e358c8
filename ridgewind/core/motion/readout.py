"""How long a rolling shutter takes to read a frame, from how the picture leans while it moves.

Lines that are read later show a moving picture further along: while it slides by v, a frame is
sheared by v · T / H over its height H, for a read-out time T from the first line to the last. A
shear that goes with where the picture is, not with how fast it moves, is the scene's depth or the
lens, so both are fitted and only the part that goes with the speed counts.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

LEAST_FRAMES = 24
"""Frames from which it is looked for (chosen here: a second)."""

LEAST_GROUP = 6
"""Frames against one reference under which its own level of shear takes all they tell."""

SLOWLY: Floats = np.array([1.0, 4.0, 6.0, 4.0, 1.0]) / 16.0
"""Weights of neighbouring frames: half is left at a sixth of the frame rate."""

MOST_S = 0.06
"""No sensor in use is slower than this (chosen here)."""

MOST_ERROR_S = 0.002
"""Standard error up to which the time is told (chosen here: above it, films of one sensor differ by
half)."""

UNEVEN = 0.1
"""Share by which intervals may differ and count as even."""

OUTLYING = 3.0
"""Standard deviations from which a frame is left out."""

INDEPENDENT = 2.0
"""By which the standard error is raised, because neighbouring frames err alike (chosen here)."""


@dataclass(frozen=True)
class Readout:
    """seconds: from the first line of a frame to the last. error_s: its standard error."""

    seconds: float
    error_s: float


def read_out(
    t_s: Floats, path: Floats, shear: Floats, reference: Floats, *, aspect: float, upright: bool
) -> Readout | None:
    """The read-out time, None where the film does not show it: it moves too little or too evenly,
    or is too short.

    t_s: (n,). path: (n, 4) pan %, tilt %, roll °, zoom %, not a number where unknown. shear: (n,)
    of each frame against its reference, not a number where unknown. reference: (n,) which one that
    was. aspect: short side / long side. upright: the long side stands; lines are taken to run along
    the long side.
    """
    if len(t_s) < LEAST_FRAMES:
        return None
    speed = _rate_of(path[:, 1] if upright else -path[:, 0], t_s) / 100.0
    known = np.isfinite(shear) & np.isfinite(speed) & np.isfinite(path).all(axis=1)
    columns = np.column_stack([speed / aspect, path[:, 0], path[:, 1], path[:, 2]])
    kept, wanted = [], []
    for run in _runs(known, reference):
        slow = _slow(np.column_stack([columns[run], shear[run]]))
        slow -= slow.mean(axis=0)
        kept.append(slow[:, :-1])
        wanted.append(slow[:, -1])
    if sum(map(len, wanted)) < LEAST_FRAMES:
        return None
    return _regressed(np.concatenate(kept), np.concatenate(wanted), levels=len(kept))


def _runs(known: NDArray[np.bool_], reference: Floats) -> list[NDArray[np.intp]]:
    """Frames in a row that are known against one reference, long enough to tell something."""
    index = np.flatnonzero(known)
    apart = (np.diff(index) > 1) | (np.diff(reference[index]) != 0)
    runs = np.split(index, np.flatnonzero(apart) + 1)
    return [run for run in runs if len(run) >= LEAST_GROUP + len(SLOWLY)]


def _slow(columns: Floats) -> Floats:
    """Columns (n, k) without what is too fast for a speed from frame to frame to be right."""
    return np.column_stack([np.convolve(column, SLOWLY, mode="valid") for column in columns.T])


def _rate_of(values: Floats, t_s: Floats) -> Floats:
    """(n,) rate of change, by five samples where they are even: by three, a fast tremor would seem
    slower than it is."""
    out: Floats = np.gradient(values, t_s)
    steps = np.diff(t_s)
    even = np.abs(steps - np.median(steps)) < UNEVEN * np.median(steps)
    middle = np.flatnonzero(np.convolve(even, np.ones(4), mode="valid") == 4.0) + 2
    near, far = values[middle + 1] - values[middle - 1], values[middle + 2] - values[middle - 2]
    out[middle] = (8.0 * near - far) / (12.0 * float(np.median(steps)))
    return out


def _regressed(columns: Floats, wanted: Floats, *, levels: int) -> Readout | None:
    """The first term of a fit to all columns (n, k), without what lies far off it."""
    scale = columns.std(axis=0)
    if scale[0] <= 0:
        return None
    columns = columns[:, scale > 1e-9]
    good = np.ones(len(wanted), np.bool_)
    for _ in range(2):
        normal = columns[good].T @ columns[good] + 1e-15 * np.eye(columns.shape[1])
        terms = np.linalg.solve(normal, columns[good].T @ wanted[good])
        rest = wanted - columns @ terms
        spread = 1.4826 * float(np.median(np.abs(rest[good]))) + 1e-12
        good = np.abs(rest) < OUTLYING * spread
    free = int(good.sum()) - columns.shape[1] - levels
    if free < LEAST_FRAMES // 2:
        return None
    variance = float((rest[good] ** 2).sum()) / free
    error_s = INDEPENDENT * float(np.sqrt(variance * np.linalg.inv(normal)[0, 0]))
    seconds = abs(float(terms[0]))
    return Readout(seconds, error_s) if error_s <= MOST_ERROR_S and seconds <= MOST_S else None
