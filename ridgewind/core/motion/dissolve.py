"""Dissolves and fades: a picture that was replaced little by little, without ever being lost.

Through a dissolve the tracker goes from one picture to the other without a gap: points of the new
one earn their weight while those of the old one fade, or take on its look. One thing gives it away:
the picture of a second ago, put where it should be seen now, is not there, neither as a whole nor
about the points that are left of it, which something large that came before it would spare.
"""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.fit import Similarity

Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]

LOOK_BACK_S, LOOK_EVERY_S = 1.0, 0.2
MOST_SHIFT = 0.3
"""Way of the picture in that time, in long sides, over which too little of it is left to judge."""

LEAST_OLD_POINTS = 4
REPLACED_CORRELATION, GONE_CORRELATION = 0.4, 0.2
"""Two pictures that correlate less, each where the path says, are not of one scene; and the same
about the old points alone, which may have taken on a new look little by little."""

ABOUT_POINT_PX = 5
"""Side of what is compared about a point, px of the coarse picture."""


@dataclass(frozen=True)
class _Seen:
    t_s: float
    thumb: Float32s
    x: float
    y: float


class DissolveWatch:
    """Follows a shot and tells when another has taken its place."""

    def __init__(self) -> None:
        self._seen: deque[_Seen] = deque()
        self._x = self._y = 0.0
        self._next_s = -np.inf

    def replaced(
        self,
        t_s: float,
        thumb: Float32s,
        step: Similarity,
        believed: Floats,
        born_s: Floats,
        *,
        motions: int,
    ) -> bool:
        """Whether the picture of a second ago has been replaced; then a new shot is watched.

        thumb: (h, w) coarse picture. step: motion since the last frame, long sides.
        believed: (k, 2) where the points are that agree now, long sides from the centre. born_s:
        (k,) when they were first found. motions: how many they follow; while there are two, one of
        them may only hide the other.
        """
        self._x, self._y = self._x + step.dx, self._y + step.dy
        if motions > 1:
            # The picture from before is kept to compare with.
            return False
        if t_s < self._next_s:
            return False
        self._next_s = t_s + LOOK_EVERY_S
        while len(self._seen) > 1 and self._seen[1].t_s <= t_s - LOOK_BACK_S:
            self._seen.popleft()
        before = self._seen[0] if self._seen else None
        self._seen.append(_Seen(t_s, thumb, self._x, self._y))
        if before is None or before.t_s > t_s - LOOK_BACK_S:
            return False
        dx, dy = self._x - before.x, self._y - before.y
        if max(abs(dx), abs(dy)) > MOST_SHIFT:
            return False
        long_side = max(thumb.shape)
        shift = (round(dx * long_side), round(dy * long_side))
        gone = _is_gone(before.thumb, thumb, shift, believed[born_s <= before.t_s])
        if gone:
            self._seen.clear()
        return gone


def _is_gone(before: Float32s, now: Float32s, shift: tuple[int, int], old: Floats) -> bool:
    """Whether a picture that has moved by a shift, px, is not there any more, neither as a whole
    nor about its old points (k, 2), long sides from the centre."""
    a, b = overlap(before, now, *shift)
    if correlation(a, b) >= REPLACED_CORRELATION:
        return False
    if len(old) < LEAST_OLD_POINTS:
        return True
    # Something large may only have come before the rest, which is where the points are.
    there = overlap(now, _about(old, now.shape), *shift)[1] > 0
    return correlation(a[there], b[there]) < GONE_CORRELATION


def _about(points: Floats, shape: tuple[int, int]) -> Float32s:
    """1 about points (k, 2), long sides from the centre, else 0 (height, width)."""
    height, width = shape
    x, y = np.round(points * max(shape) + [(width - 1) / 2, (height - 1) / 2]).astype(int).T
    out = np.zeros(shape, np.float32)
    out[y.clip(0, height - 1), x.clip(0, width - 1)] = 1.0
    kernel = np.ones((ABOUT_POINT_PX, ABOUT_POINT_PX), np.uint8)
    return np.asarray(cv2.dilate(out, kernel), np.float32)


def overlap(before: Float32s, now: Float32s, dx: int, dy: int) -> tuple[Float32s, Float32s]:
    """The parts of two pictures that show the same, when the content moved by dx, dy px."""
    height, width = now.shape
    a = before[max(0, -dy) : height - max(0, dy), max(0, -dx) : width - max(0, dx)]
    b = now[max(0, dy) : height - max(0, -dy), max(0, dx) : width - max(0, -dx)]
    return a, b


def correlation(a: Float32s, b: Float32s) -> float:
    """Of two pictures of one size, -1 to 1; 0 where one is blank."""
    a, b = a - a.mean(), b - b.mean()
    power = float(np.sqrt((a * a).sum() * (b * b).sum()))
    return float((a * b).sum()) / power if power > 1e-3 else 0.0
