"""Robust fit of the picture's motion between a reference and a frame.

A camera that turns moves the picture by a homography, not by a similarity: with a 26 mm
equivalent lens the edges slide half as fast again as the centre. A plain similarity would be
pulled between centre and edge, so two *bending* terms are fitted as well, and the motion is
*read* as a similarity at the picture's centre, which is where the path is defined. The two
shearing terms of a full homography are not free: ground in the lower half of a picture slides
like a shear under parallax, and would be misread as roll. They follow from shift and bend.

Coordinates here: origin at the picture's centre, x right, y down, in long sides.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

TERMS = 6
PRIOR_BEND = 0.4
"""Prior spread of the bending terms (chosen here: a 10° turn at 26 mm)."""

PRIOR_PRECISION = np.array([0.0, 0.0, 0.0, 0.0, 1.0 / PRIOR_BEND, 1.0 / PRIOR_BEND])

TUKEY_C = 4.685
"""Tuning constant of Tukey's biweight for 95 % efficiency (Huber, 1981)."""

LEANING, LEAST_LEANING = 3.0, 0.003
"""Spread, in those of the points that agree and in long sides, within which points tell of a lean
(chosen here: a slow sensor in a jolt moves the edge by a hundredth)."""

MAD_TO_SIGMA = 1.4826
MIN_FULL_POINTS = 14.0
"""Weight of points below which only a similarity is fitted."""


@dataclass(frozen=True)
class Similarity:
    """Motion read at the picture's centre: shift in long sides, turn in rad, log of scale."""

    dx: float
    dy: float
    turn: float
    log_scale: float


@dataclass(frozen=True)
class Fit:
    """A fitted motion reference -> frame.

    h: (3, 3), maps reference to frame. weights: (n,) 0 to 1, how far each point agrees.
    centre_se: standard error of the motion read at the centre, long sides. split: half the
    difference between fits to two interleaved halves of the points, as a similarity. sigma:
    spread of the points that agree, long sides. shear: by which x grows with y over what the fit
    explains, as a rolling shutter leans a picture that moves.
    """

    h: Floats
    weights: Floats
    centre_se: float
    split: Similarity
    sigma: float
    shear: float


def apply(h: Floats, points: Floats) -> Floats:
    """Map points (n, 2) through a homography (3, 3)."""
    moved = h[:, :2] @ points.T + h[:, 2:]
    out: Floats = (moved[:2] / moved[2]).T
    return out


def inverse_of(h: Floats) -> Floats:
    """The homography (3, 3) that takes back another."""
    out: Floats = np.asarray(cv2.invert(h)[1], np.float64)
    return out


def read_at_centre(h: Floats) -> Similarity:
    """Value and derivative of a homography at the origin, as the nearest similarity."""
    (a, b, x), (c, d, y), (g1, g2, w) = h.tolist()
    dx, dy = x / w, y / w
    j11, j12 = (a - dx * g1) / w, (b - dx * g2) / w
    j21, j22 = (c - dy * g1) / w, (d - dy * g2) / w
    turn = math.atan2(j21 - j12, j11 + j22)
    scale = math.hypot(j11 + j22, j21 - j12) / 2.0
    return Similarity(dx, dy, turn, math.log(max(scale, 1e-6)))


@dataclass(frozen=True)
class Equations:
    """Linear equations for the six terms of the motion: shift, scale, turn, bend.

    before, after: (n, 2). rows: (2n, 6), the x equations first, after multiplying by the
    homography's denominator. noise: expected spread of a point, long sides; it sets the
    strength of the priors.
    """

    before: Floats
    after: Floats
    rows: Floats
    noise: float


def build_equations(before: Floats, after: Floats, *, noise: float) -> Equations:
    """Write down the equations once; they are solved for many weightings."""
    count = len(before)
    x, y = before.T
    rows = np.zeros((2 * count, TERMS))
    top, low = rows[:count], rows[count:]
    top[:, 0] = low[:, 1] = 1.0
    top[:, 2], top[:, 3] = x, -y
    low[:, 2], low[:, 3] = y, x
    top[:, 4:] = -before * after[:, :1]
    low[:, 4:] = -before * after[:, 1:]
    return Equations(before, after, rows, noise)


NO_STRETCH = np.zeros((2, 2))


def stretch_of_turn(h: Floats) -> Floats:
    """(2, 2) what a turn of the camera adds across its own direction, from shift and bend.

    For a turn by an angle t the shift is f tan t and the bend -tan t / f, so that their product
    gives tan² t whatever the focal length f; across the turn the picture grows by 1 / cos t.
    Travel past a flat has no bend and adds nothing.
    """
    (_, _, x), (_, _, y), (g1, g2, _) = h.tolist()
    square = x * x + y * y
    tangent2 = -(x * g1 + y * g2)
    if square < 1e-12 or tangent2 < 1e-12:
        return NO_STRETCH
    part = (math.sqrt(1.0 + tangent2) - 1.0) / square
    return np.array([[part * y * y, -part * x * y], [-part * x * y, part * x * x]])


def _solve(equations: Equations, weights: Floats, target: Floats) -> tuple[Floats, Floats, Floats]:
    """Weighted least squares: the terms (6,), the inverse (6, 6) of the normal matrix, and the
    weighted rows (2n, 6). weights: (n,) >= 0. target: (2n,)."""
    weighted = equations.rows * np.concatenate([weights, weights])[:, None]
    normal = equations.rows.T @ weighted
    top = max(float(weights.max()), 1e-12)
    stiff = 1e6 if weights.sum() < MIN_FULL_POINTS * top else 1.0
    normal.flat[:: TERMS + 1] += 1e-12 + stiff * top * (equations.noise * PRIOR_PRECISION) ** 2
    inverse = np.asarray(cv2.invert(normal, flags=cv2.DECOMP_CHOLESKY)[1], np.float64)
    return inverse @ (target @ weighted), inverse, weighted


def _homography(terms: Floats, stretch: Floats) -> Floats:
    bx, by, p, q, g1, g2 = terms.tolist()
    h = np.array([[1 + p, -q, bx], [q, 1 + p, by], [g1, g2, 1.0]])
    h[:2, :2] += stretch
    return h


def robust_fit(
    equations: Equations,
    prior_weights: Floats,
    *,
    start: Floats,
    rounds: int,
    spread: Floats | None = None,
) -> Fit:
    """Motion by iteratively reweighted least squares with Tukey's biweight.

    prior_weights: (n,) 0 to 1, how far each point has agreed so far, so that the points which
    have followed the background keep their weight when something crosses. start: (3, 3), a first
    estimate that decides which points agree to begin with. spread: (n,) expected scatter of each
    point, 1 for the sharpest; None for all alike.
    """
    h = start
    scale = 1.0 if spread is None else 1.0 / spread
    prior_weights = prior_weights * scale * scale
    residual = np.hypot(*(apply(h, equations.before) - equations.after).T) * scale
    sigma = max(_weighted_spread(residual, prior_weights), 3.0 * equations.noise)
    weights = prior_weights * _tukey(residual, sigma)
    for _ in range(rounds):
        stretch = stretch_of_turn(h)
        target = (equations.after - equations.before - equations.before @ stretch).T.reshape(-1)
        terms, inverse, weighted = _solve(equations, weights, target)
        h = _homography(terms, stretch)
        residual = _distance(apply(h, equations.before), equations.after) * scale
        sigma = max(_weighted_spread(residual, weights), equations.noise)
        agreed = _tukey(residual, sigma)
        weights = prior_weights * agreed
    spread = np.sqrt(weights @ residual**2 / max(2.0 * weights.sum(), 1e-9))
    se = float(spread * np.sqrt(inverse[0, 0] + inverse[1, 1]))
    # Gauss-Newton step from the whole fit to either half; their normals are half the whole's.
    left = target - equations.rows @ terms
    # What leans farthest agrees least: by the narrow weights a lean would look smaller than it is.
    leaning = prior_weights * _tukey(residual, max(LEANING * sigma, LEAST_LEANING))
    shear = _shear(equations.before, left.reshape(2, -1), leaning)
    left.reshape(2, -1)[:, ::2] *= -1.0
    bx, by, p, q = (inverse @ (left @ weighted))[:4].tolist()
    return Fit(h, agreed, se, Similarity(bx, by, q, p), sigma, shear)


def _shear(before: Floats, left: Floats, weights: Floats) -> float:
    """Shear in what a fit left over (2, n), whatever part of it the fit has taken for a turn."""
    total = max(float(weights.sum()), 1e-12)
    x, y = (before - weights @ before / total).T
    by_y = float((weights * y) @ left[0]) / max(float((weights * y) @ y), 1e-12)
    by_x = float((weights * x) @ left[1]) / max(float((weights * x) @ x), 1e-12)
    return by_y + by_x


def fit_members(
    equations: Equations,
    members: Floats,
    spread: Floats,
    *,
    start: Floats,
    sigmas: tuple[float, ...],
) -> tuple[Floats, Floats]:
    """Motion of the points that follow one rigid motion, by a scatter that is given and shrinks.

    members: (n,) 0 to 1, what each point may count at most. spread: (n,) expected scatter of each
    point, 1 for the sharpest. start: (3, 3). sigmas: scatter of the sharpest, long sides, one for
    each round. Returns the motion (3, 3) and the residuals (n,) over the spread, long sides.
    """
    h = start
    weights = members / spread**2
    residual = _distance(apply(h, equations.before), equations.after) / spread
    for sigma in sigmas:
        stretch = stretch_of_turn(h)
        target = (equations.after - equations.before - equations.before @ stretch).T.reshape(-1)
        terms, _, _ = _solve(equations, weights * _tukey(residual, sigma), target)
        h = _homography(terms, stretch)
        residual = _distance(apply(h, equations.before), equations.after) / spread
    return h, residual


def rough_similarity(before: Floats, after: Floats, weights: Floats, *, noise: float) -> Floats:
    """Similarity (3, 3) from one weighting about the weighted median shift: quick, for a start.

    before, after: (n, 2). weights: (n,) 0 to 1. noise: expected spread of a point, long sides.
    """
    move = after - before
    residual = _distance(move, _weighted_median(move, weights))
    sigma = max(_weighted_spread(residual, weights), noise)
    weights = weights * _tukey(residual, sigma)
    weights = weights / max(float(weights.sum()), 1e-9)
    mean_before, mean_after = weights @ before, weights @ after
    x, y = (before - mean_before).T
    u, v = ((after - mean_after) * weights[:, None]).T
    power = float(weights @ (x * x + y * y)) + 1e-12
    p, q = float(x @ u + y @ v) / power, float(x @ v - y @ u) / power
    linear = np.array([[p, -q], [q, p]])
    bx, by = (mean_after - linear @ mean_before).tolist()
    return np.array([[p, -q, bx], [q, p, by], [0.0, 0.0, 1.0]])


def _distance(a: Floats, b: Floats) -> Floats:
    difference = a - b
    out: Floats = np.hypot(difference[:, 0], difference[:, 1])
    return out


def _tukey(residual: Floats, sigma: float) -> Floats:
    scaled = residual / (TUKEY_C * sigma)
    out: Floats = np.maximum(1.0 - scaled * scaled, 0.0)
    return out * out


def _weighted_median(values: Floats, weights: Floats) -> Floats:
    middle = []
    for column in (values[:, 0], values[:, 1]):
        order = column.argsort()
        running = weights[order].cumsum()
        at = min(int(running.searchsorted(0.5 * running[-1])), len(order) - 1)
        middle.append(column[order[at]])
    return np.array(middle)


def _weighted_spread(residual: Floats, weights: Floats) -> float:
    """Spread of one coordinate, from the weighted median of radial residuals."""
    order = residual.argsort()
    running = weights[order].cumsum()
    if running[-1] <= 0:
        return 0.0
    at = min(int(running.searchsorted(0.5 * running[-1])), len(residual) - 1)
    # The median radius of a round normal cloud is 1.177 sigma.
    return float(residual[order[at]]) / 1.177
