"""Follow the background from frame to frame, in one pass and constant memory.

A film is one shot or several; each is followed by a ShotTracker. Where the picture fits nothing
that is followed, the new picture is followed on probation, beside the old one: should the old one
come back soon, something had only come between.
"""

from __future__ import annotations

from itertools import pairwise

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion import pyramid
from ridgewind.core.motion.cuts import Sight, is_cut
from ridgewind.core.motion.path import Motion
from ridgewind.core.motion.placing import Frame
from ridgewind.core.motion.rows import assemble, without_tiny_shots
from ridgewind.core.motion.settle import settled
from ridgewind.core.motion.shot_tracker import ShotTracker
from ridgewind.core.motion.sighting import Region

Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]

REPEAT_GREY = 0.02
"""Two pictures that differ by less, in mean grey levels, are one picture shown twice."""

LOST_FRAMES = 8
"""Frames after which a lost picture is given up, and a suspected cut is believed."""


JUMP_S, JUMP_INTERVALS = 2.0, 8.0
"""A gap between frames that is longer than both, in s and in intervals before it, is no lost frame
but another moment (chosen here: a recording that was paused, or a damaged time)."""


class Tracker:
    """Feed working pictures in order, then finish().

    size: (width, height) of the working pictures in px, display orientation. region: part of the
    picture in which the shooter sees the background; None where nothing was said.
    """

    def __init__(self, size: tuple[int, int], *, region: Region | None = None) -> None:
        width, height = size
        if min(width, height) < 32:
            raise InvalidArgumentError("size", size, "both sides must be at least 32 px")
        self._size, self._region = size, region
        self._done: list[ShotTracker] = []
        self._shot = ShotTracker(size, region)
        self._suspect: ShotTracker | None = None  # what follows a suspected cut, on probation
        self._placed: Sight | None = None  # the last picture that could be placed
        self._last: pyramid.Image | None = None
        self._last_s: float | None = None
        self._interval_s: float | None = None
        self._count = 0
        self._jumps: list[int] = []

    def feed(self, t_s: float, luma: pyramid.Image) -> None:
        """Measure the next frame. luma: (height, width) uint8 at the working size."""
        if luma.shape[::-1] != self._size:
            raise InvalidArgumentError("luma", luma.shape, f"its size must be {self._size}")
        if self._jumps_to(t_s):
            self._begin_anew()
        if self._last is not None and _difference(luma, self._last) < REPEAT_GREY:
            self._repeat(t_s)
        else:
            self._take(Frame(t_s, luma, pyramid.build(luma)))
        self._last = luma

    def finish(self) -> Motion:
        """The path of everything that was fed."""
        if self._suspect is not None:
            self._believe_cut()
        return self.so_far()

    def so_far(self) -> Motion:
        """The path of everything fed so far, while more is to come: a cut that is only suspected
        is none yet."""
        followed = [shot.finish() for shot in (*self._done, self._shot)]
        rows = [row for shot in followed for row in shot.rows]
        starts = [0, *np.cumsum([len(shot.rows) for shot in followed]).tolist()]
        rows, cuts = without_tiny_shots(
            rows, [start for start in starts[1:-1] if start < len(rows)]
        )
        cuts = sorted({*cuts, *(jump for jump in self._jumps if jump < len(rows))})
        motion = assemble(
            rows,
            cuts,
            min(self._size) / max(self._size),
            upright=self._size[1] > self._size[0],
        )
        told = {
            (start, stop): shot
            for (start, stop), shot in zip(pairwise(starts), followed, strict=True)
        }
        return settled(motion, told, self._size, told=self._region is not None)

    def _jumps_to(self, t_s: float) -> bool:
        """Whether the film's clock leaps: nothing is known of what lies between."""
        before_s, interval_s = self._last_s, self._interval_s
        self._last_s = t_s
        self._count += 1
        if before_s is None:
            return False
        self._interval_s = gap_s = t_s - before_s
        return interval_s is not None and gap_s > max(JUMP_S, JUMP_INTERVALS * interval_s)

    def _begin_anew(self) -> None:
        """Another shot begins with the next frame."""
        if self._suspect is not None:
            self._believe_cut()
        self._done.append(self._shot)
        self._shot = ShotTracker(self._size, self._region)
        self._placed = self._last = None
        self._jumps.append(self._count - 1)

    def _repeat(self, t_s: float) -> None:
        """The same picture again; whether it stood still or hides motion, the path will tell."""
        self._shot.repeat(t_s)
        if self._suspect is not None:
            self._suspect.repeat(t_s)

    def _take(self, frame: Frame) -> None:
        shot = self._shot
        if shot.feed(frame, lambda: self._jump(frame.levels)):
            self._suspect = None  # the old picture is back: it was no cut
            self._placed = Sight.of(frame.levels)
            if shot.replaced:
                self._done.append(shot)
                self._shot = shot.taken_over(frame)
            return
        # At once after a hard cut; later after a dissolve, or while something large goes by.
        asked = shot.lost in (1, LOST_FRAMES + 1)
        if self._suspect is None and shot.begun and asked and self._is_cut(frame.levels):
            self._suspect = ShotTracker(self._size, self._region)
        if self._suspect is not None:
            self._suspect.feed(frame, lambda: None)
            if self._suspect.count > LOST_FRAMES:
                self._believe_cut()
                self._placed = Sight.of(frame.levels)
        elif shot.lost > LOST_FRAMES:
            shot.begin_again(frame)

    def _believe_cut(self) -> None:
        """Go on from the picture that was followed on probation."""
        after = self._suspect
        assert after is not None
        self._shot.forget_last(after.count)
        self._done.append(self._shot)
        self._shot, self._suspect = after, None

    def _jump(self, levels: list[Float32s]) -> Floats | None:
        """Shift of the whole picture since it was last placed, by phase correlation, long sides."""
        if self._placed is None:
            return None
        now, before = levels[-1], self._placed.whole
        window = cv2.createHanningWindow(now.shape[::-1], cv2.CV_32F)
        (dx, dy), _ = cv2.phaseCorrelate(before, now, window)
        shift: Floats = np.array([dx, dy]) * 2**pyramid.EIGHTH / max(self._size)
        return shift

    def _is_cut(self, levels: list[Float32s]) -> bool:
        jump = self._jump(levels)
        assert self._placed is not None
        assert jump is not None
        dx, dy = (jump * max(self._size) / 2**pyramid.EIGHTH).tolist()
        return is_cut(self._placed, Sight.of(levels), (dx, dy))


def _difference(a: pyramid.Image, b: pyramid.Image) -> float:
    """Mean difference of two pictures, grey levels."""
    return float(cv2.norm(a, b, cv2.NORM_L1)) / a.size
