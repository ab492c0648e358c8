"""From single frames to the path: running sums, shots, and what cannot be followed."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.fit import Similarity
from ridgewind.core.motion.path import TRUSTED, Motion, split_shots

Floats = NDArray[np.float64]

TINY_SHOT_FRAMES = 6
"""Neighbouring shots that are all shorter than this are a picture that cannot be followed."""


@dataclass(frozen=True)
class Row:
    """One frame of the path under construction; step is None where it is unknown."""

    t_s: float
    step: Similarity | None
    error: Floats | None  # (4,) pan %, tilt %, roll °, zoom %
    trust: float
    reason: str


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


def assemble(rows: list[Row], cuts: list[int], aspect: float) -> Motion:
    """Running sums of the steps, each shot from zero; gaps keep the path's level."""
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
        total = total + in_path_units(row.step)
        path[index] = total
        error[index] = row.error
    path[:, 3] = 100.0 * np.expm1(path[:, 3])
    error[:, 3] = 100.0 * np.expm1(error[:, 3])
    t_s = np.array([row.t_s for row in rows])
    trust = np.array([row.trust for row in rows])
    trusted = (trust >= TRUSTED) & np.isfinite(path[:, 0])
    return Motion(
        t_s=t_s,
        pan_pct=path[:, 0],
        tilt_pct=path[:, 1],
        roll_deg=path[:, 2],
        zoom_pct=path[:, 3],
        trust=trust,
        error=error,
        aspect=aspect,
        shots=split_shots(trusted, t_s, cuts, [row.reason for row in rows]),
    )


def in_path_units(step: Similarity) -> Floats:
    """Signs of the path: the camera goes right, up and clockwise; the scale stays a log."""
    return np.array([-100.0 * step.dx, 100.0 * step.dy, -np.degrees(step.turn), step.log_scale])
