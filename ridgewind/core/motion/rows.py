"""From single frames to the path: running sums, shots, and what cannot be followed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.fit import Similarity
from ridgewind.core.motion.path import TRUSTED, Motion, split_shots
from ridgewind.core.motion.readout import Readout, read_out

Floats = NDArray[np.float64]

LONGEST_REPEAT = 3
"""Frames in a row that may repeat a picture and still be put between their neighbours."""

MOVING_PCT = 0.004
"""Median way of a frame from which a shot moves, percent of the long side (chosen here: the
accuracy of the measurement)."""

TINY_SHOT_FRAMES = 6
"""Neighbouring shots that are all shorter than this are a picture that cannot be followed."""


@dataclass(frozen=True)
class Row:
    """One frame of the path under construction; step is None where it is unknown. outlier_share:
    of the points in sight, move otherwise. repeat: the picture before, shown once more. shear:
    against the reference, see Fit; fresh: the first frame against a new one."""

    t_s: float
    step: Similarity | None
    error: Floats | None  # (4,) pan %, tilt %, roll °, zoom %
    trust: float
    reason: str
    outlier_share: float = 0.0
    repeat: bool = False
    shear: float = float("nan")
    fresh: bool = False


def without_tiny_shots(rows: list[Row], cuts: list[int]) -> tuple[list[Row], list[int]]:
    """Join runs of tiny shots into one that cannot be followed: flicker, noise, a strobe."""
    edges = [0, *sorted(cuts), len(rows)]
    tiny = [stop - start < TINY_SHOT_FRAMES for start, stop in pairwise(edges)]
    rows, kept = list(rows), []
    for number, (start, stop) in enumerate(pairwise(edges)):
        beside = tiny[number] and (
            (number > 0 and tiny[number - 1]) or (number + 1 < len(tiny) and tiny[number + 1])
        )
        if beside:
            rows[start:stop] = [
                replace(row, step=None, error=None, trust=0.0, reason="detail")
                for row in rows[start:stop]
            ]
        if start > 0 and not (beside and tiny[number - 1]):
            kept.append(start)
    return rows, kept


def assemble(rows: list[Row], cuts: list[int], aspect: float, *, upright: bool = False) -> Motion:
    """Running sums of the steps, each shot from zero; gaps keep the path's level.

    A frame that repeats the one before it is put between its neighbours; a picture that stands
    still for longer, while the shot moves, is not to be trusted there.
    """
    path, error, trust, runs = columns_of(rows, cuts)
    reasons = [row.reason for row in rows]
    for start, stop in runs:
        if stop - start > LONGEST_REPEAT:
            reasons[start:stop] = ["frozen"] * (stop - start)
    t_s = np.array([row.t_s for row in rows])
    followed = [row.outlier_share for row in rows if row.step is not None and row.trust >= TRUSTED]
    trusted = (trust >= TRUSTED) & np.isfinite(path[:, 0])
    held = np.zeros(len(rows), np.bool_)
    for start, stop in runs:
        held[start:stop] = True
    return Motion(
        t_s=t_s,
        pan_pct=path[:, 0],
        tilt_pct=path[:, 1],
        roll_deg=path[:, 2],
        zoom_pct=path[:, 3],
        trust=trust,
        error=error,
        aspect=aspect,
        shots=split_shots(trusted, t_s, cuts, reasons),
        outlier_share=float(np.mean(followed)) if followed else 0.0,
        repeated=float(np.mean([row.repeat for row in rows])) if rows else 0.0,
        held=held if runs else None,
        readout=_readout(rows, cuts, t_s, path, trusted, aspect=aspect, upright=upright),
    )


def _readout(
    rows: list[Row],
    cuts: list[int],
    t_s: Floats,
    path: Floats,
    trusted: NDArray[np.bool_],
    *,
    aspect: float,
    upright: bool,
) -> Readout | None:
    shear = np.array([np.nan if row.repeat else row.shear for row in rows])
    shear[~trusted] = np.nan
    fresh = np.array([row.fresh for row in rows])
    fresh[cuts] = True
    reference = np.cumsum(fresh).astype(np.float64)
    return read_out(t_s, path, shear, reference, aspect=aspect, upright=upright)


def columns_of(
    rows: Sequence[Row], cuts: Sequence[int]
) -> tuple[Floats, Floats, Floats, list[tuple[int, int]]]:
    """Path and error (n, 4) in path units, trust (n,), and runs of repeated frames."""
    count = len(rows)
    path = np.full((count, 4), np.nan)
    error = np.full((count, 4), np.nan)
    starts = set(cuts)
    total = np.zeros(4)
    for index, row in enumerate(rows):
        if index in starts:
            total = np.zeros(4)
        if row.step is None:
            continue
        total = total + (0.0 if row.repeat else in_path_units(row.step))
        path[index] = total
        error[index] = row.error
    path[:, 3] = 100.0 * np.expm1(path[:, 3])
    error[:, 3] = 100.0 * np.expm1(error[:, 3])
    t_s = np.array([row.t_s for row in rows])
    trust = np.array([row.trust for row in rows])
    runs = _repeats(rows, cuts, path)
    for start, stop in runs:
        if stop - start > LONGEST_REPEAT:
            trust[start:stop] = 0.0
    _put_between(path, t_s, [run for run in runs if run[1] - run[0] <= LONGEST_REPEAT], cuts)
    return path, error, trust, runs


def _repeats(rows: Sequence[Row], cuts: Sequence[int], path: Floats) -> list[tuple[int, int]]:
    """Runs (start, stop) of repeated frames in shots that move; where the camera stands still, a
    picture that stays the same is what is to be expected."""
    found = []
    for start, stop in pairwise([0, *sorted(cuts), len(rows)]):
        fresh = [k for k in range(start, stop) if not rows[k].repeat]
        steps = np.abs(np.diff(path[fresh, :2], axis=0)).max(axis=1) if len(fresh) > 1 else []
        known = [step for step in steps if np.isfinite(step)]
        if not known or float(np.median(known)) < MOVING_PCT:
            continue
        for before, after in pairwise([*fresh, stop]):
            if after - before > 1:
                found.append((before + 1, after))
    return found


def _put_between(
    path: Floats, t_s: Floats, runs: list[tuple[int, int]], cuts: Sequence[int]
) -> None:
    """Put repeated frames onto a cubic through the two fresh frames before and after; a straight
    line would take fast shake away."""
    repeated = np.zeros(len(path), bool)
    for start, stop in runs:
        repeated[start:stop] = True
    for first, last in pairwise([0, *sorted(cuts), len(path)]):
        inside = np.arange(first, last)
        fresh = inside[~repeated[inside] & np.isfinite(path[inside, 0])]
        wanted = inside[repeated[inside]]
        places = np.searchsorted(fresh, wanted)
        between = (places > 0) & (places < len(fresh))  # else nothing to go by on one side
        wanted, begin = wanted[between], np.maximum(places[between] - 2, 0)
        many = np.minimum(places[between] + 2, len(fresh)) - begin
        for count in np.unique(many):
            at = wanted[many == count]
            near = fresh[begin[many == count][:, None] + np.arange(count)]
            path[at] = np.einsum("mk,mkp->mp", _cubic_weights(t_s[near], t_s[at]), path[near])


def _cubic_weights(times: Floats, at: Floats) -> Floats:
    """Weights (m, k) of samples at a few times (m, k) for the values in between (m,) (Lagrange's
    polynomial)."""
    weights = np.ones(times.shape)
    for k in range(times.shape[1]):
        others = np.delete(times, k, axis=1)
        weights[:, k] = np.prod((at[:, None] - others) / (times[:, [k]] - others), axis=1)
    return weights


def in_path_units(step: Similarity) -> Floats:
    """Signs of the path: the camera goes right, up and clockwise; the scale stays a log."""
    return np.array([-100.0 * step.dx, 100.0 * step.dy, -np.degrees(step.turn), step.log_scale])
