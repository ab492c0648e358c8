"""Small picture patches: chosen evenly over the frame, aligned to sub-pixel accuracy.

Alignment is the inverse compositional form of Lucas and Kanade (Baker and Matthews, 2004,
"Lucas-Kanade 20 years on"): the steepest-descent images belong to the reference, so they are
computed once per reference, and each patch is warped by the motion predicted so far before
its own small residual shift is sought. Patches are compared with their mean removed and
their contrast matched, which makes exposure changes harmless.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.pyramid import FloatImage, Image, to_level

GRID = (15, 8)
"""Cells along the long and the short side; each gives at most one point."""

FINE_GRID = (28, 16)
"""Cells when GRID finds too few textured ones."""

ENOUGH_POINTS = 70
TAKEN_CELLS = 0.6
"""Cells around the points of other motions in which nothing is looked for."""

MIN_CORNER, FAINT_CORNER = 1.0, 0.3
"""Least corner strength: smaller eigenvalue of the mean gradient matrix, (grey levels/px)². The
lower one counts where a cell has nothing better, so that a plain wall has its say."""

SOFT_CORNER = 1.5
"""The same at the quarter size, for places that are out of focus."""

FAINT_SPREAD, SOFT_SPREAD = 3.0, 6.0
"""Expected scatter of such points, in multiples of a sharp one's (chosen here, from made clips)."""

FINE_RADIUS_PX = 5
COARSE_RADIUS_PX = 3

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Templates:
    """Patches of a reference picture at one pyramid level.

    centres_px: (n, 2) at this level. offsets_px: (k, 2). values: (n, k), mean removed.
    norms: (n,) root of the sum of squares. steepest: (n, 2, k), maps an error patch to the
    shift that explains it; blind to a constant. rest: (n, 2), what it gives for the template.
    """

    level: int
    centres_px: NDArray[np.float32]
    offsets_px: NDArray[np.float32]
    values: NDArray[np.float32]
    norms: NDArray[np.float32]
    steepest: NDArray[np.float32]
    rest: NDArray[np.float32]

    def only(self, chosen: NDArray[np.bool_] | slice) -> Templates:
        """Some of the patches."""
        return Templates(
            self.level,
            self.centres_px[chosen],
            self.offsets_px,
            self.values[chosen],
            self.norms[chosen],
            self.steepest[chosen],
            self.rest[chosen],
        )


@dataclass(frozen=True)
class Aligned:
    """Where patches were found: position_px (n, 2) at their level, score (n,) the correlation
    with the template, -1 to 1, and gain (n, 1), contrast of template over patch."""

    position_px: NDArray[np.float32]
    score: NDArray[np.float32]
    gain: NDArray[np.float32]


@dataclass(frozen=True)
class Found:
    """Points (n, 2), px at the finest level, those that are followed at the quarter size last.
    spread: (n,) expected scatter, 1 for a sharp one. soft: how many are followed at the quarter
    size only."""

    points_px: Floats
    spread: Floats
    soft: int


def find_points(luma: Image, quarter: FloatImage, taken_px: Floats | None = None) -> Found:
    """Textured points spread evenly over the picture.

    luma: (height, width) working picture. quarter: the same at a quarter of its size. taken_px:
    (m, 2) px, near which nothing is looked for. The strongest corner of each grid cell is taken
    where it is strong enough to be followed; where it is not, a faint one, or one of the smooth
    picture that a lens out of focus gives.
    """
    half = cv2.resize(luma, (luma.shape[1] // 2, luma.shape[0] // 2), interpolation=cv2.INTER_AREA)
    # OpenCV scales bytes by 1/255 and leaves a factor of two on each ksize 3 derivative.
    strength = _strength(np.asarray(half, np.uint8)) * np.float32(255.0**2 / 4.0)
    points, best = _best_per_cell(strength, GRID)
    apart_px = TAKEN_CELLS * max(luma.shape) / GRID[0]
    free = away_from(2.0 * points + 0.5, taken_px, apart_px)
    if np.count_nonzero(free & (best >= MIN_CORNER)) < ENOUGH_POINTS:
        points, best = _best_per_cell(strength, FINE_GRID)
        free = away_from(2.0 * points + 0.5, taken_px, apart_px)
    sharp = free & (best >= FAINT_CORNER)
    spread = np.where(best >= MIN_CORNER, 1.0, FAINT_SPREAD)[sharp]
    points = 2.0 * points[sharp] + 0.5
    soft, best = _best_per_cell(_strength(quarter) / np.float32(4.0), GRID)
    soft = 4.0 * soft[best >= SOFT_CORNER] + 1.5
    soft = soft[away_from(soft, points, 0.75 * max(luma.shape) / GRID[0])]
    soft = soft[away_from(soft, taken_px, apart_px)]
    return Found(
        np.concatenate([points, soft]),
        np.concatenate([spread, np.full(len(soft), SOFT_SPREAD)]),
        len(soft),
    )


def away_from(points: Floats, others: Floats | None, least: float) -> NDArray[np.bool_]:
    """Which points (n, 2) are further from all others (m, 2), by the longer side."""
    if others is None or not len(others) or not len(points):
        return np.ones(len(points), np.bool_)
    apart: NDArray[np.bool_] = (
        np.abs(points[:, None] - others[None]).max(axis=2).min(axis=1) > least
    )
    return apart


def _strength(image: NDArray[np.uint8] | FloatImage) -> NDArray[np.float32]:
    """Corner strength, zero along the edges, where a patch would not be whole."""
    strength = np.array(cv2.cornerMinEigenVal(image, blockSize=7, ksize=3), np.float32)
    margin = 2 * COARSE_RADIUS_PX + 1 if image.dtype == np.uint8 else COARSE_RADIUS_PX + 1
    strength[:margin] = strength[-margin:] = 0
    strength[:, :margin] = strength[:, -margin:] = 0
    return strength


def _best_per_cell(
    strength: NDArray[np.float32], grid: tuple[int, int]
) -> tuple[Floats, NDArray[np.float32]]:
    """The strongest place (n, 2) of each cell, and how strong it is (n,)."""
    height, width = strength.shape
    across, down = grid if width >= height else grid[::-1]
    cell_h, cell_w = max(1, height // down), max(1, width // across)
    top, left = (height - cell_h * down) // 2, (width - cell_w * across) // 2
    if top < 0 or left < 0:
        return np.empty((0, 2)), np.empty(0, np.float32)
    inner = strength[top : top + cell_h * down, left : left + cell_w * across]
    cells = inner.reshape(down, cell_h, across, cell_w).transpose(0, 2, 1, 3)
    flat = cells.reshape(down * across, cell_h * cell_w)
    best = flat.argmax(axis=1)
    rows, cols = np.divmod(np.arange(down * across), across)
    y = top + rows * cell_h + best // cell_w
    x = left + cols * cell_w + best % cell_w
    points: Floats = np.stack([x, y], axis=1).astype(np.float64)
    return points, flat[np.arange(len(flat)), best]


def _sample(
    image: FloatImage, xy: NDArray[np.float32], window: NDArray[np.float32]
) -> NDArray[np.float32]:
    """Bilinear samples (n, k) of image at xy (n, 2) plus window (k, 2), px; edges repeat."""
    if not len(xy):  # which the library refuses
        return np.empty((0, len(window)), np.float32)
    sampled = cv2.remap(
        image,
        xy[:, :1] + window[:, 0],
        xy[:, 1:] + window[:, 1],
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )
    return np.asarray(sampled, np.float32)


def make_templates(image: FloatImage, points_px: Floats, *, level: int) -> Templates:
    """Cut templates out of one pyramid level around points given at the finest level."""
    radius = FINE_RADIUS_PX if level == 0 else COARSE_RADIUS_PX
    span = np.arange(-radius, radius + 1, dtype=np.float32)
    offsets = np.stack(np.meshgrid(span, span), axis=-1).reshape(-1, 2)
    centres = to_level(points_px, level).astype(np.float32)
    values = _sample(image, centres, offsets)
    values -= values.mean(axis=1, keepdims=True)
    half_steps = (np.array([0.5, 0], np.float32), np.array([0, 0.5], np.float32))
    gradient = np.stack(
        [
            _sample(image, centres, offsets + step) - _sample(image, centres, offsets - step)
            for step in half_steps
        ],
        axis=1,
    )
    gradient -= gradient.mean(axis=2, keepdims=True)
    hessian = gradient @ gradient.transpose(0, 2, 1)
    ridge = 1e-3 * np.trace(hessian, axis1=1, axis2=2)[:, None, None] + 1e-3
    steepest = np.linalg.solve(hessian + ridge * np.eye(2, dtype=np.float32), gradient)
    norms = np.sqrt((values * values).sum(axis=1)) + np.float32(1e-3)
    rest = (steepest @ values[:, :, None])[:, :, 0]
    return Templates(level, centres, offsets, values, norms, steepest, rest)


def align(
    templates: Templates,
    image: FloatImage,
    *,
    start_px: NDArray[np.float32],
    linear: NDArray[np.float32],
    iterations: int,
    gain: NDArray[np.float32] | None = None,
) -> Aligned:
    """Seek each patch in image near a predicted position.

    start_px: (n, 2) predicted positions at this level. linear: (2, 2), how the neighbourhood
    is turned and scaled. gain: (n, 1) contrast of template over patch where a coarser level
    has told it; otherwise the first step measures it.
    """
    window = templates.offsets_px @ linear.T
    limit = templates.offsets_px.max()
    position = start_px.copy()
    score = np.zeros(len(position), np.float32)
    matched = np.ones((len(position), 1), np.float32) if gain is None else gain
    compare_at = {iterations - 1} if gain is not None else {0, iterations - 1}
    for turn in range(iterations):
        seen = _sample(image, position, window)
        shift = (templates.steepest @ seen[:, :, None])[:, :, 0]
        if turn in compare_at:
            score, matched = _compare(seen, templates)
        shift = np.minimum(np.maximum(matched * shift - templates.rest, -limit), limit)
        position -= shift @ linear.T
    return Aligned(position, score, matched)


def _compare(
    seen: NDArray[np.float32], templates: Templates
) -> tuple[NDArray[np.float32], NDArray[np.float32]]:
    """Correlation (n,) with the templates and the gain (n, 1) that matches their contrast."""
    count = seen.shape[1]
    total = seen.sum(axis=1)
    power = np.sqrt(np.maximum(np.einsum("nk,nk->n", seen, seen) - total * total / count, 1e-3))
    score = np.einsum("nk,nk->n", seen, templates.values) / (power * templates.norms)
    # A contrast that differs by more than a factor of two is not believed.
    return score, np.clip(templates.norms / power, 0.5, 2.0)[:, None]
