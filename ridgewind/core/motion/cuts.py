"""Whether one picture is of another shot than the one before it.

Two pictures of one shot have parts in common, whatever passes in front: there each small part is
found again near where the shift of the whole puts it. Two shots of alike things (a street, and the
same street from the other kerb) may be as bright in the same places, but hold no part in common.
"""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.dissolve import correlation, overlap

Float32s = NDArray[np.float32]

CUT_CORRELATION = 0.5
"""Two neighbouring pictures that correlate less, at the best shift, are different shots."""

CELLS = (8, 5)
"""Parts that are sought again, along the long side and the short."""

REACH_PX = 6
"""How far from the shift of the whole each part is sought, px at a quarter."""

BLUR_PX = 3.0
"""What is smoother than this is taken away: light and dark alone make no part alike."""

LEAST_TEXTURE = 2.0
"""Spread of a part's grey levels under which it is too plain to be told again."""

FOUND = 0.8
"""Correlation from which a part is found again (chosen here: the best of the places that are tried
reaches 0.3 to 0.6 between pictures that have nothing in common)."""

FEWEST_TOLD, FOUND_SHARE = 8, 0.18
"""Textured parts that it takes to tell, and share of them found again in one shot (chosen here:
from one frame to the next 0.23 are with somebody coming before three fifths of the picture, and
0.4 with water over as much; up to 0.17 are in a shot and its mirror image)."""


@dataclass(frozen=True)
class Sight:
    """A picture at an eighth of the working size, for its whole, and at a quarter, for its
    parts: an eighth keeps too little of a part to tell it from another."""

    whole: Float32s
    parts: Float32s

    @classmethod
    def of(cls, levels: list[Float32s]) -> Sight:
        return cls(whole=levels[-1], parts=levels[-2])


def is_cut(before: Sight, now: Sight, shift_px: tuple[float, float]) -> bool:
    """Whether now is of another shot than before. shift_px: of the whole picture between them,
    right and down, px at an eighth."""
    height, width = now.whole.shape
    dx, dy = (round(one) for one in shift_px)
    if abs(dx) > width // 2 or abs(dy) > height // 2:
        return True
    a, b = overlap(before.whole, now.whole, dx, dy)
    if min(correlation(a, b), 1.0) < CUT_CORRELATION and (
        correlation(before.whole, now.whole) < CUT_CORRELATION
    ):
        return True
    shifts = {(0, 0), (round(2 * shift_px[0]), round(2 * shift_px[1]))}
    found = [_found_share(before.parts, now.parts, shift) for shift in shifts]
    told = [share for share in found if share is not None]
    return len(told) == len(found) and max(told) < FOUND_SHARE


def _found_share(before: Float32s, now: Float32s, shift_px: tuple[int, int]) -> float | None:
    """Share of the textured parts of before that are found in now; None where too few tell."""
    a, b = _without_light(before), _without_light(now)
    height, width = a.shape
    across, down = CELLS if width >= height else CELLS[::-1]
    wide, high = width // across, height // down
    told = found = 0
    for row in range(down):
        for column in range(across):
            x, y = column * wide, row * high
            part = a[y : y + high, x : x + wide]
            left, top = x + shift_px[0] - REACH_PX, y + shift_px[1] - REACH_PX
            right, low = left + wide + 2 * REACH_PX, top + high + 2 * REACH_PX
            place = b[max(top, 0) : min(low, height), max(left, 0) : min(right, width)]
            if place.shape[0] < high or place.shape[1] < wide or part.std() < LEAST_TEXTURE:
                continue
            told += 1
            found += float(cv2.matchTemplate(place, part, cv2.TM_CCOEFF_NORMED).max()) >= FOUND
    return found / told if told >= FEWEST_TOLD else None


def _without_light(picture: Float32s) -> Float32s:
    smooth = cv2.GaussianBlur(picture, (0, 0), BLUR_PX)
    return np.asarray(picture - smooth, np.float32)
