"""Working size and coarser copies of a picture."""

from __future__ import annotations

from typing import cast

import cv2
import numpy as np
from numpy.typing import NDArray

WORKING_LONG_SIDE_PX = 480
"""Largest long side that is tracked (chosen here: 640 and 960 were no more accurate)."""

FULL, QUARTER, EIGHTH = 0, 2, 3
"""Levels of the pyramid that are tracked, as powers of one half."""

Image = NDArray[np.uint8]
FloatImage = NDArray[np.float32]
Samples = NDArray[np.uint8] | NDArray[np.uint16]
"""A plane of luma as decoded: 8 bits, or more of them in 16."""


def working_size(width: int, height: int) -> tuple[int, int]:
    """Size in px that to_working gives: halved while that is quick and exact, then brought to
    WORKING_LONG_SIDE_PX where it is still longer."""
    while max(width, height) >= 2 * WORKING_LONG_SIDE_PX:
        width, height = width // 2, height // 2
    if max(width, height) > WORKING_LONG_SIDE_PX:
        scale = WORKING_LONG_SIDE_PX / max(width, height)
        width, height = round(width * scale), round(height * scale)
    return width, height


def halve(image: Samples) -> Samples:
    """Mean of each 2 by 2 block; an odd last row or column is dropped."""
    height, width = image.shape[0] // 2, image.shape[1] // 2
    even = image[: 2 * height, : 2 * width]
    small = cv2.resize(even, (width, height), interpolation=cv2.INTER_AREA)
    return cast(Samples, small)


def to_working(luma: Samples) -> Samples:
    """Bring a luma picture (height, width) to its working size."""
    width, height = working_size(luma.shape[1], luma.shape[0])
    while max(luma.shape) >= 2 * WORKING_LONG_SIDE_PX:
        luma = halve(luma)
    if luma.shape != (height, width):
        luma = cast(Samples, cv2.resize(luma, (width, height), interpolation=cv2.INTER_AREA))
    return luma


def build(luma: Image) -> list[FloatImage]:
    """Copies of a working picture at FULL, QUARTER and EIGHTH size, float32, 0 to 255.

    The finest level is smoothed lightly so that linear interpolation between its pixels
    stays unbiased (3 by 3 binomial, chosen here).
    """
    coarse: list[Samples] = [luma]
    for _ in range(EIGHTH):
        coarse.append(halve(coarse[-1]))
    smooth = cv2.GaussianBlur(luma, (3, 3), 0)
    return [smooth.astype(np.float32), *(level.astype(np.float32) for level in coarse[2:])]


def to_level(points_px: NDArray[np.float64], level: int) -> NDArray[np.float64]:
    """Positions (n, 2) at the finest level to positions at a coarser level, px."""
    out: NDArray[np.float64] = (points_px + 0.5) / 2.0**level - 0.5
    return out
