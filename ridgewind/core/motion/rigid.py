"""Which points move as one: rigid motions that explain the tracks of many points.

A fit to all points blends two motions of about the same size into one that is neither. Here each
group is grown instead from a few neighbours, which nearly always belong to one thing, and has to
hold at several instants.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.fit import Equations, build_equations, fit_members

Floats = NDArray[np.float64]
Members = NDArray[np.bool_]

SEEDS, NEIGHBOURS = 20, 8
GROWN = 4
"""Seeds whose motions explain the most points, which are grown further."""

MOST_OF_ALL = 0.85
"""Share of the free points from which a group is surely the largest."""

NEAR, TIGHT = 16.0, 10.0
"""Multiples of the noise within which a point may belong to a seed's motion, and belongs to a
group's (chosen here: wide enough for rolling shutter, narrow enough for a person who stands)."""

SIGMAS = (6.0, 4.0, 3.0)
"""Multiples of the noise, one for each round of a group's fit."""

MOST_GROUPS = 4


def rigid_groups(
    points: Floats, tracks: Floats, spread: Floats, *, noise: float, least: int
) -> list[Members]:
    """Groups of points that each follow one rigid motion, the largest first; none overlap.

    points: (n, 2) in the reference, long sides from the centre. tracks: (k, n, 2) the same points
    at k later instants. spread: (n,) expected scatter, 1 for the sharpest. noise: scatter of the
    sharpest, long sides. least: points that make a group.
    """
    free = np.ones(len(points), np.bool_)
    found: list[Members] = []
    while len(found) < MOST_GROUPS and free.sum() >= least:
        members = _largest(points, tracks, spread, free, noise)
        if members.sum() < least:
            break
        found.append(members)
        free &= ~members
    return found


def _largest(
    points: Floats, tracks: Floats, spread: Floats, free: Members, noise: float
) -> Members:
    """The largest group among free points; it may be empty."""
    own = np.flatnonzero(free)
    here, scatter = points[own], spread[own]
    seeds = own[:: max(1, len(own) // SEEDS)]
    near = _distances(points[seeds], here).argsort(axis=1)[:, : min(NEIGHBOURS, len(own))]
    moved = _similarities(here, tracks[-1][own], near)
    close = moved < NEAR * noise * scatter
    best = close.sum(axis=1).argsort()[::-1][:GROWN]
    equations = [build_equations(here, track[own], noise=noise) for track in tracks]
    group = np.zeros(len(own), np.bool_)
    for seed in best:
        grown = _grown(equations, close[seed], scatter, noise)
        if grown.sum() > group.sum():
            group = grown
        if group.sum() > MOST_OF_ALL * len(own):
            break
    members = np.zeros(len(points), np.bool_)
    members[own[group]] = True
    return members


def _grown(equations: list[Equations], members: Members, spread: Floats, noise: float) -> Members:
    """Points that follow the motion of members at every instant."""
    sigmas = tuple(sigma * noise for sigma in SIGMAS)
    everybody = np.ones(len(members))
    inside = members
    for equation in reversed(equations):
        if inside.sum() < 4:
            return np.zeros_like(members)
        start, _ = fit_members(
            equation,
            inside.astype(np.float64),
            spread,
            start=_shift(equation, inside / spread**2),
            sigmas=(1.0, *sigmas),
        )
        _, residual = fit_members(equation, everybody, spread, start=start, sigmas=sigmas)
        agree = residual < TIGHT * noise
        inside = agree if equation is equations[-1] else inside & agree
    return inside


def _shift(equation: Equations, weights: Floats) -> Floats:
    """The weighted mean shift as a motion (3, 3)."""
    h = np.eye(3)
    h[:2, 2] = weights @ (equation.after - equation.before) / max(float(weights.sum()), 1e-12)
    return h


def _distances(a: Floats, b: Floats) -> Floats:
    out: Floats = np.hypot(*np.moveaxis(a[:, None] - b[None], 2, 0))
    return out


def _similarities(before: Floats, after: Floats, near: NDArray[np.intp]) -> Floats:
    """Residuals (s, n) of all points under the similarity of each seed's neighbours (s, k)."""
    b, a = before[near], after[near]
    mean_b, mean_a = b.mean(axis=1, keepdims=True), a.mean(axis=1, keepdims=True)
    (x, y), (u, v) = np.moveaxis(b - mean_b, 2, 0), np.moveaxis(a - mean_a, 2, 0)
    power = (x * x + y * y).sum(axis=1) + 1e-9
    p = ((x * u + y * v).sum(axis=1) / power)[:, None]
    q = ((x * v - y * u).sum(axis=1) / power)[:, None]
    dx, dy = np.moveaxis(before[None] - mean_b, 2, 0)
    across = mean_a[:, :, 0] + p * dx - q * dy - after[:, 0]
    down = mean_a[:, :, 1] + q * dx + p * dy - after[:, 1]
    out: Floats = np.hypot(across, down)
    return out


def explains(h: Floats, points: Floats, track: Floats, spread: Floats, *, noise: float) -> float:
    """Share of points (n, 2) that a motion (3, 3) puts where they were found (n, 2)."""
    moved = h[:, :2] @ points.T + h[:, 2:]
    away = np.hypot(*((moved[:2] / moved[2]).T - track).T)
    return float((away < TIGHT * noise * spread).mean())
