"""Frames seen through a window: moved, turned, grown and cut, plane by plane."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.media.planes import Planes

BORDER = cv2.BORDER_REPLICATE
"""What the last half pixel at an edge is mixed with; nothing further outside is ever seen."""

BLACK_LUMA, GREY = 16, 128
"""What would lie outside of the recorded picture, in 8-bit video levels."""


def warped(
    planes: Planes,
    matrix: NDArray[np.float64],
    *,
    deep: bool,
    size: tuple[int, int] | None = None,
) -> Planes:
    """The planes seen through a window.

    matrix: (2, 3) from a pixel of the finished luma plane to one of the recorded; colour planes
    have half its size, and lie in its middle. size: even, of the finished plane, px; None for that
    of the recorded.
    """
    levels = 4 if deep else 1  # ten bits count four times as far
    half = _halved(matrix)
    lumas = size or (planes[0].shape[1], planes[0].shape[0])
    colours = lumas[0] // 2, lumas[1] // 2
    first = _warp(planes[0], matrix, BLACK_LUMA * levels, lumas)
    blue, red = (_warp(plane, half, GREY * levels, colours) for plane in planes[1:])
    return first, blue, red


def _halved(matrix: NDArray[np.float64]) -> NDArray[np.float64]:
    """The same window on a plane of half the size: pixel c lies at 2 c + 1/2 of the large one."""
    half = matrix.copy()
    half[:, 2] = (matrix[:, :2] @ np.array([0.5, 0.5]) + matrix[:, 2] - 0.5) / 2.0
    return half


def _warp(
    plane: NDArray[Any], matrix: NDArray[np.float64], outside: int, size: tuple[int, int]
) -> NDArray[Any]:
    return np.asarray(
        cv2.warpAffine(
            plane,
            matrix,
            size,
            flags=cv2.INTER_CUBIC | cv2.WARP_INVERSE_MAP,
            borderMode=BORDER,
            borderValue=(outside,),
        )
    )
