"""Follow one shot: every rigid motion that may be the camera's, until the shot says which it is."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion import pyramid
from ridgewind.core.motion.dissolve import DissolveWatch
from ridgewind.core.motion.evidence import gather
from ridgewind.core.motion.fit import Similarity
from ridgewind.core.motion.parting import part
from ridgewind.core.motion.placing import Frame, Placer
from ridgewind.core.motion.reference import make_reference
from ridgewind.core.motion.rival import Rival
from ridgewind.core.motion.rows import Row
from ridgewind.core.motion.settle import FollowedShot, settle
from ridgewind.core.motion.sighting import Region, sighting

Floats = NDArray[np.float64]

DARK_MEAN, DARK_SPREAD = 36.0, 6.0
"""Mean and spread of luma (black is 16 in most films) under which a picture is too dark."""

MOST_RIVALS = 5
GATHER_EVERY = 3
"""Frames between two looks at what speaks for each motion."""

SEEN_EVERY = 6
"""Frames between two sightings that are kept of each motion's points."""

ALIKE_LOOKS = 5
"""Looks in a row at which two motions have to be the same to be one."""

HIDDEN_FRAMES = 8
"""Frames for which a motion that is not found counts as hidden by another."""

GONE_FRAMES = 15
"""Frames after which a motion that is not found any more is given up, while another is."""

STILL = Similarity(0.0, 0.0, 0.0, 0.0)


class ShotTracker:
    """Feed frames in order, then finish(). size: (width, height) of the working pictures, px.
    region: where alone points are chosen, as the shooter says."""

    def __init__(self, size: tuple[int, int], region: Region | None = None) -> None:
        self._placer = Placer(size, region)
        self._half = np.array(size) / (2.0 * max(size))
        self._rows: list[Row] = []  # before anything could be followed
        self._rivals: list[Rival] = []
        self._gone: list[Rival] = []
        self._watch = DissolveWatch()
        self.lost = 0
        """Frames since anything was placed."""
        self.replaced = False
        """The picture has been replaced little by little: a dissolve ended before this frame."""

    @property
    def count(self) -> int:
        """Frames fed so far."""
        return len(self._rivals[0].rows) if self._rivals else len(self._rows)

    @property
    def begun(self) -> bool:
        """Something is followed."""
        return bool(self._rivals)

    def feed(self, frame: Frame, jump: Callable[[], Floats | None]) -> bool:
        """Measure the next frame; whether anything that is followed was found in it.

        jump: gives a shift of the whole picture since the last one that was placed, long sides,
        for a second try, or None.
        """
        if not self._rivals:
            return self._begin(frame)
        taken = self._taken()
        placed = [
            rival.locate(frame.levels, beside)
            for rival, beside in zip(self._rivals, taken, strict=True)
        ]
        first = placed[0]
        if first is None or not self._rivals[0].believes(first):
            shift = jump()
            again = None if shift is None else self._rivals[0].locate(frame.levels, taken[0], shift)
            if again is not None and (first is None or again.hold > first.hold):
                placed[0] = again
        good = [
            one is not None and rival.believes(one)
            for rival, one in zip(self._rivals, placed, strict=True)
        ]
        if not any(good):
            self._lose(frame)
            return False
        self.lost = 0
        steps = []
        for number, (rival, one) in enumerate(zip(self._rivals, placed, strict=True)):
            if one is None or not good[number]:
                rival.miss(frame.t_s, "subject")
                continue
            steps.append(rival.accept(frame, one, taken[number]))
        self._look_around(frame, steps[0])
        return True

    def _taken(self) -> list[Floats | None]:
        """Where the points of all other motions were last, for each motion."""
        if len(self._rivals) < 2:
            return [None]
        return [
            np.concatenate([other.believed for other in self._rivals if other is not rival])
            for rival in self._rivals
        ]

    def _begin(self, frame: Frame) -> bool:
        reference = make_reference(
            frame.luma, frame.levels, t_s=frame.t_s, region=self._placer.region
        )
        if reference is None:
            self._rows.append(Row(frame.t_s, None, None, 0.0, _poor_picture(frame.luma)))
            self.lost += 1
            return False
        row = Row(frame.t_s, STILL, np.zeros(4), 1.0, "")
        self._rivals = [
            Rival(self._placer, reference, [*self._rows, row], error=np.zeros(4), young=True)
        ]
        self.lost = 0
        return True

    def _lose(self, frame: Frame) -> None:
        self.lost += 1
        for rival in self._rivals:
            rival.miss(frame.t_s, "blur")

    def _look_around(self, frame: Frame, step: Similarity) -> None:
        """New motions, motions that have gone, what speaks for each, and dissolves."""
        for rival in list(self._rivals):
            if len(self._rivals) < MOST_RIVALS:
                self._rivals += part(rival, self._rivals)
        if self.count % GATHER_EVERY == 0:
            gather(
                [rival.evidence for rival in self._rivals],
                [rival.believed for rival in self._rivals],
                self._half,
            )
            self._merge()
            self._lead()
        if self.count % SEEN_EVERY == 0:
            for rival in self._rivals:
                if len(rival.believed):
                    rival.seen.append(sighting(frame.t_s, rival.believed))
        for rival in self._rivals[1:]:
            if rival.reference.missed > GONE_FRAMES:
                self._rivals.remove(rival)
                self._gone.append(rival)
        seen = [rival for rival in self._rivals if rival.placed is not None]
        believed = np.concatenate([np.empty((0, 2)), *(rival.believed for rival in seen)])
        born_s = np.concatenate([np.empty(0), *(rival.believed_born_s for rival in seen)])
        # While a second motion is about, something may only have come before the first.
        motions = sum(one.reference.missed <= HIDDEN_FRAMES for one in self._rivals)
        self.replaced = self._watch.replaced(
            frame.t_s, frame.levels[-1], step, believed, born_s, motions=motions
        )

    def _merge(self) -> None:
        """Two motions that have been one for long are one: the later is given up."""
        for later in sorted(self._rivals, key=lambda rival: -rival.evidence.born):
            for other in self._rivals:
                if other is later or other.evidence.born > later.evidence.born:
                    continue
                alike = later.moves_like(other)
                count = later.alike.get(id(other), 0) + 1 if alike else 0
                later.alike[id(other)] = count
                if count >= ALIKE_LOOKS and len(self._rivals) > 1:
                    self._rivals.remove(later)
                    break

    def _lead(self) -> None:
        """The motion that holds most of the edges goes first; it is looked for the hardest."""
        living = [rival for rival in self._rivals if rival.placed is not None]
        if not living:
            return
        best = max(living, key=lambda rival: rival.evidence.edge * rival.evidence.frames)
        self._rivals.sort(key=lambda rival: rival is not best)

    def repeat(self, t_s: float) -> None:
        """The last picture was shown again."""
        for rows in self._all_rows():
            if rows:
                rows.append(replace(rows[-1], t_s=t_s, repeat=True))

    def _all_rows(self) -> list[list[Row]]:
        return [rival.rows for rival in self._rivals] if self._rivals else [self._rows]

    def forget_last(self, count: int) -> None:
        """The last frames belong to another shot."""
        keep = self.count - count
        for rival in (*self._rivals, *self._gone):
            del rival.rows[keep:]
            last_s = rival.rows[-1].t_s if rival.rows else -np.inf
            rival.seen = [one for one in rival.seen if one.t_s <= last_s]

    def begin_again(self, frame: Frame) -> None:
        """Nothing has been found for long: follow the picture as it is now."""
        reference = make_reference(
            frame.luma, frame.levels, t_s=frame.t_s, region=self._placer.region
        )
        if reference is None:
            return
        first = self._rivals[0] if self._rivals else None
        if first is None:
            return
        self._gone += self._rivals[1:]
        fresh = Rival(self._placer, reference, first.rows, error=np.zeros(4))
        fresh.evidence = first.evidence
        self._rivals = [fresh]
        self.lost = 0

    def taken_over(self, frame: Frame) -> ShotTracker:
        """The shot that has taken this one's place, begun with the frame that was fed last."""
        self.forget_last(1)
        after = ShotTracker(self._placer.size, self._placer.region)
        after.feed(frame, lambda: None)
        return after

    def finish(self) -> FollowedShot:
        """The path of the motion that is the camera's, and its rivals; more frames may follow."""
        if not self._rivals:
            return FollowedShot(tuple(self._rows), (), None)
        length, times = self.count, [row.t_s for row in self._rivals[0].rows]
        gone = [
            rival.followed(
                [*rival.rows, *(Row(t_s, None, None, 0.0, "subject") for t_s in times[k:])]
            )
            for rival in self._gone
            if (k := len(rival.rows)) <= length
        ]
        living = [rival.followed(rival.rows) for rival in self._rivals if len(rival.rows) == length]
        return settle([*living, *gone], self._placer.long_px)


def _poor_picture(luma: pyramid.Image) -> str:
    mean, spread = cv2.meanStdDev(luma)
    return "dark" if mean[0, 0] < DARK_MEAN and spread[0, 0] < DARK_SPREAD else "detail"
