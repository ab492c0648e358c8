"""Follow one thing that the shooter marked: where in the picture it is, frame by frame.

Its look is compared with what was marked and with how it looked lately, because a subject turns
and grows while the camera goes round it. What scores too low is lost, not guessed. Where it is
found it is aligned to a fraction of a pixel (Gauss and Newton's steps on the patch, the middle of
which counts most), so that a picture that is held by it does not tremble.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.motion.pyramid import Image

Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]

PATCH_PX, SEARCH_PX = 17, 36
"""Half sizes of what is compared and of where it is sought, px at the working size."""

LEAST_SCORE, SURE_SCORE, MARKED_SCORE = 0.72, 0.85, 0.75
"""Correlation from which a match is believed, from which the lately seen look is renewed, and from
which what was marked itself has the say."""

RENEWAL = 0.15
STEPS, MOST_STEP_PX = 4, 1.0
"""Of the alignment, and how far it may lead from the best whole pixel (chosen here: the curve of
scores is within half a pixel)."""
_ALONG = np.arange(-PATCH_PX, PATCH_PX + 1) / (0.5 * PATCH_PX)
WINDOW: Floats = np.exp(-0.5 * (_ALONG[:, None] ** 2 + _ALONG[None, :] ** 2))
"""Weight of each pixel of a patch: what is behind a subject shows at its corners first."""

MOST_LOST = 15
"""Frames after which a lost subject is given up."""


class Follower:
    """Follows a subject through working pictures, one after the other, either way in time."""

    def __init__(self, luma: Image, at_px: tuple[float, float]) -> None:
        """luma: (height, width), the picture in which it was marked. at_px: where."""
        height, width = luma.shape
        require_between("x", at_px[0], 0, width - 1, "px")
        require_between("y", at_px[1], 0, height - 1, "px")
        if min(luma.shape) <= 2 * PATCH_PX + 2:
            raise InvalidArgumentError("luma", luma.shape, "it must be larger than the patch")
        self._shape = luma.shape
        self._at = np.array(at_px, np.float64)
        self._speed = np.zeros(2)
        self._marked = _cut(luma, self._at)
        self._lately = self._marked.copy()
        self._lost = 0

    def next(self, luma: Image) -> tuple[float, float] | None:
        """Where the subject is in the next picture, px; None where it is not seen."""
        if luma.shape != self._shape:
            raise InvalidArgumentError("luma", luma.shape, f"its shape must be {self._shape}")
        if self._lost > MOST_LOST:
            return None
        expected = self._at + self._speed
        at, score, marked = self._find(luma, expected)
        if score < LEAST_SCORE:
            self._lost += 1
            self._speed *= 0.5
            return None
        self._speed = 0.5 * self._speed + 0.5 * (at - self._at) if self._lost == 0 else self._speed
        self._at, self._lost = at, 0
        if score > SURE_SCORE and not marked:
            seen = _cut(luma, at)
            self._lately = (1 - RENEWAL) * self._lately + RENEWAL * seen
        return float(at[0]), float(at[1])

    def _find(self, luma: Image, expected: Floats) -> tuple[Floats, float, bool]:
        """The best place near where it is expected, its score, and whether what was marked itself
        was found there."""
        reach = SEARCH_PX + PATCH_PX
        corner = np.round(expected).astype(int) - reach
        padded = cv2.copyMakeBorder(luma, reach, reach, reach, reach, cv2.BORDER_REPLICATE)
        x, y = np.clip(corner + reach, 0, np.array(luma.shape[::-1]) - 1)
        area = padded[y : y + 2 * reach + 1, x : x + 2 * reach + 1].astype(np.float32)
        origin = np.array([x - reach, y - reach], np.float64) + PATCH_PX
        for template, marked in ((self._marked, True), (self._lately, False)):
            scores = np.asarray(cv2.matchTemplate(area, template, cv2.TM_CCOEFF_NORMED), np.float64)
            row, column = np.unravel_index(int(scores.argmax()), scores.shape)
            top = float(scores[row, column])
            if not marked or top >= MARKED_SCORE:
                break
        peak = np.array([_vertex(scores[row], int(column)), _vertex(scores[:, column], int(row))])
        near = origin + np.array([column, row]) + peak
        return _aligned(luma, template, near), top, marked


def _aligned(luma: Image, template: Float32s, near: Floats) -> Floats:
    """Where a template lies, sought from near; near itself where the steps lead away from it."""
    rows, columns = np.gradient(template.astype(np.float64))
    steepest = np.stack([columns, rows]) * WINDOW
    hessian = np.einsum("kij,lij->kl", steepest, np.stack([columns, rows]))
    if np.linalg.det(hessian) <= 0:
        return near
    at, norm = near.copy(), _spread_of(template)
    for _ in range(STEPS):
        seen = _cut(luma, at)
        gain = norm / max(_spread_of(seen), 1e-3)
        error = gain * (seen - _mean_of(seen)) - (template - _mean_of(template))
        at -= np.linalg.solve(hessian, np.einsum("kij,ij->k", steepest, error))
    return at if np.abs(at - near).max() <= MOST_STEP_PX else near


def _mean_of(patch: Float32s) -> float:
    return float((WINDOW * patch).sum() / WINDOW.sum())


def _spread_of(patch: Float32s) -> float:
    away = patch - _mean_of(patch)
    return float(np.sqrt((WINDOW * away * away).sum() / WINDOW.sum()))


def _cut(luma: Image, at: Floats) -> Float32s:
    side = 2 * PATCH_PX + 1
    centre = (float(at[0]), float(at[1]))
    patch = cv2.getRectSubPix(luma, (side, side), centre)
    return np.asarray(patch, np.float32)


def _vertex(values: Floats, index: int) -> float:
    """Where between samples a peak is, -0.5 to 0.5."""
    if not 0 < index < len(values) - 1:
        return 0.0
    a, b, c = values[index - 1 : index + 2]
    curve = a - 2 * b + c
    return float(np.clip(0.5 * (a - c) / curve, -0.5, 0.5)) if curve < 0 else 0.0
