"""The tracker that a capable user would write with the vision library alone, to be measured beside.

Corners, pyramidal Lucas-Kanade from frame to frame, and a RANSAC similarity, at 640 px: about
thirty lines, with the library's usual settings.
"""

from __future__ import annotations

from pathlib import Path

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion import Motion, Shot
from ridgewind.media.decode import Film

LONG_SIDE_PX, CORNERS = 640, 200
FEW = 80
"""Corners that are left of them when new ones are looked for."""


def measure_plainly(path: Path) -> Motion:
    """The path of a film, every frame fully trusted: nothing in it says when it is fooled."""
    times, steps = [], []
    before: NDArray[np.uint8] | None = None
    corners: NDArray[np.float32] | None = None
    aspect = 1.0
    with Film(path) as film:
        for picture in film.pictures(_shrunk):
            luma = picture.luma
            aspect = min(luma.shape) / max(luma.shape)
            if before is None:
                step = np.zeros(4)
            else:
                if corners is None or len(corners) < FEW:
                    corners = cv2.goodFeaturesToTrack(before, CORNERS, 0.01, 8)  # type: ignore[assignment]
                step, corners = _step(before, luma, corners)
            times.append(picture.t_s)
            steps.append(step)
            before = luma
    pan, tilt, roll, zoom = np.cumsum(steps, axis=0).T
    count = len(times)
    return Motion(
        np.array(times), pan, tilt, roll, 100.0 * np.expm1(zoom), np.ones(count),
        np.zeros((count, 4)), aspect, (Shot(0, count, None),),
    )  # fmt: skip


def _shrunk(plane: NDArray[np.uint8]) -> NDArray[np.uint8]:
    scale = LONG_SIDE_PX / max(plane.shape)
    size = (round(plane.shape[1] * scale), round(plane.shape[0] * scale))
    return np.asarray(cv2.resize(plane, size, interpolation=cv2.INTER_AREA), np.uint8)


def _step(
    before: NDArray[np.uint8], now: NDArray[np.uint8], corners: NDArray[np.float32] | None
) -> tuple[NDArray[np.float64], NDArray[np.float32] | None]:
    """Pan %, tilt %, roll ° and log of zoom from one frame to the next, and the corners there."""
    if corners is None:
        return np.zeros(4), None
    found, seen, _ = cv2.calcOpticalFlowPyrLK(before, now, corners, None)  # type: ignore[call-overload]
    kept = seen.ravel() == 1
    if kept.sum() < 4:
        return np.zeros(4), None
    matrix, _ = cv2.estimateAffinePartial2D(corners[kept], found[kept], method=cv2.RANSAC)
    if matrix is None:
        return np.zeros(4), None
    height, width = now.shape
    middle = np.array([(width - 1) / 2, (height - 1) / 2])
    dx, dy = (matrix[:, :2] @ middle + matrix[:, 2] - middle) * 100.0 / max(width, height)
    turn = np.degrees(np.arctan2(matrix[1, 0], matrix[0, 0]))
    scale = np.log(np.hypot(matrix[0, 0], matrix[1, 0]))
    return np.array([-dx, dy, -turn, scale]), found[kept].reshape(-1, 1, 2)
