"""Dissolves and fades: a picture that was replaced little by little, without ever being lost.

Through a dissolve the tracker goes from one picture to the other without a gap: points of the new
one earn their weight while those of the old one fade. Two things give it away: no point is left
that was there a second ago, although the camera has not moved away from it; and the picture of a
second ago, put where it should be seen now, is not there.
"""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass

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
"""Two pictures that correlate less, each where the path says, are not of one scene."""


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
        self._next_s = self._two_s = -np.inf

    def replaced(
        self,
        t_s: float,
        thumb: Float32s,
        step: Similarity,
        believed_born_s: Floats,
        *,
        motions: int,
    ) -> bool:
        """Whether the picture of a second ago has been replaced; then a new shot is watched.

        thumb: (h, w) coarse picture. step: motion since the last frame, long sides.
        believed_born_s: (k,) when the points that agree now were first found. motions: how many
        they follow; while there are two, one of them may only hide the other.
        """
        self._x, self._y = self._x + step.dx, self._y + step.dy
        if motions > 1:
            # One of them may only hide the other: the picture from before is kept to compare with.
            self._two_s = t_s
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
        old = int(np.count_nonzero(believed_born_s <= before.t_s))
        dx, dy = self._x - before.x, self._y - before.y
        # Two motions at a time are followed through most dissolves, and points take on a new look.
        remade = t_s - self._two_s < LOOK_BACK_S
        if max(abs(dx), abs(dy)) > MOST_SHIFT or (old >= LEAST_OLD_POINTS and not remade):
            return False
        long_side = max(thumb.shape)
        a, b = overlap(before.thumb, thumb, round(dx * long_side), round(dy * long_side))
        if correlation(a, b) >= (GONE_CORRELATION if remade else REPLACED_CORRELATION):
            return False
        self._seen.clear()
        return True


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
