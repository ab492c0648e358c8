"""Quarter turns, clockwise, that bring a picture upright."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

_CODES = (cv2.ROTATE_90_CLOCKWISE, cv2.ROTATE_180, cv2.ROTATE_90_COUNTERCLOCKWISE)


def rotated(image: NDArray[np.generic], quarter_turns: int) -> NDArray[np.generic]:
    """An image (height, width) or (height, width, 3) turned clockwise; 0 gives it as it is."""
    if quarter_turns % 4 == 0:
        return image
    return np.ascontiguousarray(cv2.rotate(image, _CODES[quarter_turns % 4 - 1]))
