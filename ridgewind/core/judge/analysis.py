"""One path, read at whatever playback rates are asked for; none of it depends on the brief."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import replace
from typing import Generic, TypeVar

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import require_positive
from ridgewind.core.judge.cadence import shown_frames
from ridgewind.core.judge.polish import PolishCurve, Smoothed, polish_curve, smoothed
from ridgewind.core.motion.path import DOUBTS, Motion
from ridgewind.core.motion.subject import Subject, SubjectPath
from ridgewind.core.moves.move import MoveReading, as_played, read_move
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.causes import Causes, find_causes
from ridgewind.core.shake.reading import (
    EvenShot,
    Reading,
    band_shares,
    evened,
    read_motion,
)

Floats = NDArray[np.float64]
Key = TypeVar("Key", bound=Hashable)
Value = TypeVar("Value")

MOST_READINGS = 8
"""Playback rates that an analysis keeps at a time."""


class Analysis:
    """Readings of one path, each worked out when first asked for."""

    def __init__(self, motion: Motion, *, stretch: float = 1.0) -> None:
        """stretch: how many times slower the film plays than it was filmed. Gust and remedies are
        of the film as it plays; bands, causes, the move and body speed of what was filmed."""
        require_positive("stretch", stretch)
        self.motion, self.stretch = motion, stretch
        self._at_capture: Reading | None = None
        self._shown: _Recent[float, tuple[Motion, tuple[EvenShot | None, ...]]] = _Recent()
        self._readings: _Recent[tuple[float, float], Reading] = _Recent()
        # The largest of what is kept: of all that was filmed, and of the frames last thinned out.
        self._smoothed: dict[bool, _Recent[tuple[float, bool], Smoothed | None]]
        self._smoothed = {all_frames: _Recent(1) for all_frames in (True, False)}
        self._polish: _Recent[tuple[float, float, bool], PolishCurve | None] = _Recent()
        self._bands: tuple[tuple[Band, ...], list[Floats]] | None = None
        self._causes: dict[bool, Causes] = {}
        self._move: tuple[tuple[float, bool], MoveReading | None] | None = None

    @property
    def doubt(self) -> str | None:
        """Why nothing can be drawn from the path: the doubt of its measurable shots, the gravest
        first; None where it is settled."""
        doubts = {shot.doubt for shot in self.motion.shots if shot.measurable}
        return next((doubt for doubt in DOUBTS if doubt in doubts), None)

    def reading(self, playback: float = 1.0, *, step: float = 1.0) -> Reading:
        """The reading at a playback rate, of the frames that are shown where each stands for `step`
        of them."""

        def show() -> tuple[Motion, tuple[EvenShot | None, ...]]:
            motion = self.motion if step == 1 else thinned(self.motion, step)
            return motion, evened(motion)

        def make() -> Reading:
            motion, even = self._shown.get(step, show)
            return read_motion(motion, playback=playback, even=even)

        return self._readings.get((playback, step), make)

    def at_capture(self) -> Reading:
        """The reading of what was filmed, at the speed at which it was; its times count from the
        film's first frame."""
        if self.stretch == 1.0:
            return self.reading()
        if self._at_capture is None:
            t_s = self.motion.t_s
            filmed = replace(self.motion, t_s=t_s[0] + (t_s - t_s[0]) / self.stretch)
            self._at_capture = read_motion(filmed)
        return self._at_capture

    def polish(
        self, playback: float = 1.0, *, step: float = 1.0, upright: bool = False
    ) -> PolishCurve | None:
        """The curve of crop against shake left, at a playback rate."""

        reading = self.reading(playback, step=step)

        def smooth() -> Smoothed | None:
            return smoothed(reading, aspect=self.motion.aspect, step=step, upright=upright)

        def make() -> PolishCurve | None:
            frames = self._smoothed[step == 1].get((step, upright), smooth)
            return None if frames is None else polish_curve(reading, frames)

        return self._polish.get((playback, step, upright), make)

    def bands(self) -> tuple[tuple[Band, ...], list[Floats]]:
        """Bands of the clip and each shot's band powers, at capture speed."""
        if self._bands is None:
            self._bands = band_shares(self.at_capture())
        return self._bands

    def move(self, *, focal_eq_mm: float, expected: bool) -> MoveReading | None:
        """The move that was meant, at capture speed; its times are of the film as it plays."""
        key = (focal_eq_mm, expected)
        if self._move is None or self._move[0] != key:
            aspect = self.motion.aspect
            found = read_move(
                self.at_capture(), aspect=aspect, focal_eq_mm=focal_eq_mm, expected=expected
            )
            if found is not None and self.stretch != 1.0:
                found = as_played(found, self.stretch, from_s=float(self.motion.t_s[0]))
            self._move = (key, found)
        return self._move[1]

    def causes(self, *, moves: bool) -> Causes:
        """Why it shakes. moves: the camera was meant to move."""
        if moves not in self._causes:
            self._causes[moves] = find_causes(self.at_capture(), self.bands()[1], moves=moves)
        return self._causes[moves]


def thinned(motion: Motion, step: float) -> Motion:
    """The frames of a path that are shown where each stands for `step` of them, when they are.

    A frame that repeats the picture before it shows that one's place: which of the two is shown
    can no more be told, and what is seen is what counts.
    """
    index, at_s = shown_frames(motion.t_s, step)
    seen = index
    if motion.held is not None:
        fresh = np.where(motion.held, 0, np.arange(len(motion.held)))
        seen = np.maximum.accumulate(fresh)[index]
    shots = (
        replace(shot, start=start, stop=stop)
        for shot in motion.shots
        for start, stop in [np.searchsorted(index, [shot.start, shot.stop]).tolist()]
    )
    return replace(
        motion,
        t_s=at_s,
        pan_pct=motion.pan_pct[seen],
        tilt_pct=motion.tilt_pct[seen],
        roll_deg=motion.roll_deg[seen],
        zoom_pct=motion.zoom_pct[seen],
        trust=motion.trust[index],
        error=motion.error[index],
        held=None,
        shots=tuple(
            shot if shot.stop - shot.start > 2 else replace(shot, reason=shot.reason or "short")
            for shot in shots
            if shot.stop > shot.start
        ),
    )


def thinned_subject(subject: Subject, t_s: Floats, step: float) -> Subject:
    """A subject as a film shows it that is thinned so. t_s: (n,) times of the film's frames."""
    index, at_s = shown_frames(t_s, step)
    filmed_s = t_s[index]
    paths = []
    for path in subject.paths:
        at = np.searchsorted(path.t_s, filmed_s - 1e-4).clip(max=len(path.t_s) - 1)
        there = np.abs(path.t_s[at] - filmed_s) < 1e-3
        paths.append(SubjectPath(at_s[there], path.x_pct[at[there]], path.y_pct[at[there]]))
    return replace(subject, paths=tuple(paths))


class _Recent(Generic[Key, Value]):
    """A few values, each worked out when first asked for; the one that was asked for longest ago
    goes first. Safe between threads, which only take out and put in whole entries; two of them may
    work the same value out."""

    def __init__(self, most: int = MOST_READINGS) -> None:
        self._kept: dict[Key, tuple[Value]] = {}
        self._most = most

    def get(self, key: Key, make: Callable[[], Value]) -> Value:
        found = self._kept.pop(key, None) or (make(),)
        self._kept[key] = found  # the last one now
        for oldest in list(self._kept)[: -self._most]:
            self._kept.pop(oldest, None)
        return found[0]
