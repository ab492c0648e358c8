"""A remedy as numbers that a renderer or an editor can follow, and what it should look like.

A recipe says which frames are shown, how fast, and which window of each is seen. Windows are in
the picture as displayed: the centre of the window from the picture's centre (right and down,
percent of the long side), its turn (degrees, clockwise on screen) and its size against the frame.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.brief import Brief
from ridgewind.core.clip import Clip
from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.judge.analysis import Analysis, thinned_subject
from ridgewind.core.judge.asked import seen_after
from ridgewind.core.judge.easing import progress
from ridgewind.core.judge.hold import EASE_S, HeldFrames, Hold, held_gust, hold_frames
from ridgewind.core.judge.polish import PolishCurve, Polisher, PolishPoint
from ridgewind.core.judge.remedy import Remedy
from ridgewind.core.motion.subject import Subject
from ridgewind.core.shake.gust import (
    part_speeds,
    peak_speed,
    power_at_playback,
    seconds_of,
    to_gust,
)
from ridgewind.core.shake.reading import Reading, ShotReading
from ridgewind.core.shake.stretch import Stretch

Floats = NDArray[np.float64]
Direction = Literal["left", "right", "up", "down"]
DIRECTIONS: dict[Direction, tuple[float, float]] = {
    "left": (-1.0, 0.0),
    "right": (1.0, 0.0),
    "up": (0.0, -1.0),
    "down": (0.0, 1.0),
}
"""Where the window travels, right and down."""

LONGEST_PREVIEW_S = 8.0
"""Seconds of a file that a preview shows: enough to judge, quick to make (chosen here)."""


@dataclass(frozen=True)
class Recipe:
    """kind: of the remedy. start_s, end_s: s in the file. rate, step: of playback, and frames
    filmed for each one that is shown. corner_hz: what is slower is kept; None without a polish.
    crop_pct: of the long side. drift: where a desk-made move travels, None without one. gust,
    peak: what it should read on the brief's screen over that stretch, None where not known. hold:
    of the subject, None without one; subject_gust: what that should read."""

    kind: str
    start_s: float
    end_s: float
    rate: float
    step: float
    corner_hz: float | None
    crop_pct: float
    drift: Direction | None
    gust: float | None
    peak: float | None
    hold: Hold | None = None
    subject_gust: float | None = None

    @property
    def enlarge(self) -> float:
        return 1.0 / (1.0 - self.crop_pct / 100.0)


@dataclass(frozen=True)
class Windows:
    """What is seen of each frame. x_pct, y_pct, turn_deg, size: (n,), see the module."""

    x_pct: Floats
    y_pct: Floats
    turn_deg: Floats
    size: Floats

    def matrices(self, size_px: tuple[int, int]) -> Floats:
        """(n, 2, 3) from a pixel of the finished frame to one of the recorded frame, both of
        size_px; pixel centres at whole numbers."""
        width, height = size_px
        angle = np.radians(self.turn_deg)
        cosine, sine = self.size * np.cos(angle), self.size * np.sin(angle)
        linear = np.stack([np.stack([cosine, -sine], -1), np.stack([sine, cosine], -1)], -2)
        middle = np.array([(width - 1) / 2.0, (height - 1) / 2.0])
        shift = np.column_stack([self.x_pct, self.y_pct]) / 100.0 * max(size_px)
        offset = middle + shift - linear @ middle
        return np.concatenate([linear, offset[:, :, None]], axis=2)

    def corners(self, size_px: tuple[int, int]) -> Floats:
        """(n, 4, 2) corners of the windows, from the upper left of the frame, clockwise, as
        shares of its width and height."""
        size = np.array(size_px, np.float64)
        edges = np.array([[0, 0], [1, 0], [1, 1], [0, 1]]) * (size - 1.0)
        matrices = self.matrices(size_px)
        at = np.einsum("nij,kj->nki", matrices[:, :, :2], edges) + matrices[:, None, :, 2]
        out: Floats = at / (size - 1.0)
        return out


def recipe_of(remedy: Remedy) -> Recipe:
    """The recipe of a remedy that uses a part of the file. Raises InvalidArgumentError for one
    that does not."""
    if remedy.start_s is None or remedy.end_s is None:
        raise InvalidArgumentError("remedy", remedy.kind, "it uses no part of the file")
    return Recipe(
        remedy.kind, remedy.start_s, remedy.end_s, remedy.rate, remedy.step, remedy.corner_hz,
        remedy.crop_pct, None, remedy.gust, remedy.peak, remedy.hold, remedy.subject_gust,
    )  # fmt: skip


def at_strength(recipe: Recipe, curve: PolishCurve, point: PolishPoint, brief: Brief) -> Recipe:
    """A polish of another strength. point: of the curve over the recipe's stretch."""
    if point.corner_hz not in curve.corners_hz:
        raise InvalidArgumentError("corner_hz", point.corner_hz, "the curve has no such strength")
    gust, peak = seen_after(point, brief)
    return replace(recipe, corner_hz=point.corner_hz, crop_pct=point.crop_pct, gust=gust, peak=peak)


def with_drift(recipe: Recipe, drift: Direction, *, crop_pct: float) -> Recipe:
    """The same with a slow reframe within more crop: the window travels through all the room."""
    require_between("crop_pct", crop_pct, 0.5, 50, "%")
    if recipe.corner_hz is not None:
        raise InvalidArgumentError("drift", drift, "a polish needs the crop for itself")
    return replace(recipe, drift=drift, crop_pct=max(crop_pct, recipe.crop_pct))


def roughest(recipe: Recipe, reading: Reading, *, seconds: float = LONGEST_PREVIEW_S) -> Recipe:
    """The part of a recipe that shakes most, of at most so many seconds of the file: what passes
    there passes everywhere. Gust and peak are then not known until predicted."""
    if recipe.end_s - recipe.start_s <= seconds:
        return recipe
    best: tuple[float, float] | None = None
    for shot in reading.shots:
        inside = np.flatnonzero((shot.t_s >= recipe.start_s) & (shot.t_s <= recipe.end_s))
        if not len(inside):
            continue
        length = min(round(seconds * shot.rate_hz), len(inside))
        sums = np.concatenate([[0.0], np.cumsum(np.where(shot.counted, shot.power, 0.0)[inside])])
        held = sums[length:] - sums[:-length]
        first = int(held.argmax())
        frame_s = float(shot.t_s[inside[first]]) - 0.5 / shot.rate_hz
        found = (float(held[first]), frame_s)
        best = found if best is None or found > best else best
    start_s = recipe.start_s if best is None else max(recipe.start_s, best[1])
    start_s = min(start_s, recipe.end_s - seconds)
    return replace(recipe, start_s=start_s, end_s=start_s + seconds, gust=None, peak=None)


def stretch_of(shot: ShotReading, start_s: float, end_s: float) -> Stretch | None:
    """The samples of a shot between two times, None where there are none."""
    start, stop = np.searchsorted(shot.t_s, [start_s - 1e-6, end_s + 1e-6])
    return Stretch(int(start), int(stop)) if stop > start else None


def predicted(
    recipe: Recipe,
    analysis: Analysis,
    clip: Clip,
    brief: Brief,
    *,
    subject: Subject | None = None,
) -> Recipe:
    """The same with the gust and the peak that its stretch should read as a film by itself.

    A stretch within a take is weighed with what surrounds it; cut out, with its own two ends. For
    short ones that differs by some tenths. subject: that the recipe holds, s in the file.
    """
    aspect, screen = analysis.motion.aspect, brief.screen_deg
    powers, seconds = [], []
    shown = _as_shown(recipe, subject, analysis)
    held = _held(recipe, shown, aspect=aspect, upright=clip.upright)
    steady = None
    for shot in analysis.reading(recipe.rate, step=recipe.step).shots:
        stretch = stretch_of(shot, recipe.start_s, recipe.end_s)
        if stretch is None or not shot.counted.any() or stretch.stop - stretch.start < 2:
            continue
        inside = slice(stretch.start, stretch.stop + 1)
        if held is None:
            seen = _seen_path(shot, recipe, aspect, clip.upright)[inside]
        else:
            shot_s, path = _grid_s(shot)[inside], shot.path[inside]
            seen = held.seen_path(path, shot_s)
            assert subject is not None
            steady = held_gust(
                subject, analysis.motion, start_s=recipe.start_s, end_s=recipe.end_s,
                enlarge=recipe.enlarge, shown_hz=shot.rate_hz, screen_deg=screen,
            )  # fmt: skip
        counted = shot.counted[stretch.start : stretch.stop]
        speeds = part_speeds(seen, rate_hz=shot.rate_hz, aspect=aspect)
        power = power_at_playback(speeds, rate_hz=shot.rate_hz, playback=shot.playback)
        if recipe.corner_hz is not None:
            power += shot.floor_power  # what was measured wrongly is moved wrongly
        around = seconds_of(power, counted, playback_hz=shot.rate_hz * shot.playback)
        powers.append(power[counted])
        seconds.append(around[counted])
    if not powers or not len(np.concatenate(powers)):
        return replace(recipe, gust=None, peak=None, subject_gust=None)
    speed = recipe.enlarge * float(np.concatenate(powers).mean()) ** 0.5
    peak = recipe.enlarge * peak_speed(np.concatenate(seconds))
    return replace(
        recipe,
        gust=to_gust(speed, screen_deg=screen),
        peak=to_gust(peak, screen_deg=screen),
        subject_gust=steady,
    )


def _as_shown(recipe: Recipe, subject: Subject | None, analysis: Analysis) -> Subject | None:
    """A subject in the frames that a recipe shows."""
    if subject is None or recipe.step == 1.0:
        return subject
    return thinned_subject(subject, analysis.motion.t_s, recipe.step)


def _held(
    recipe: Recipe, subject: Subject | None, *, aspect: float, upright: bool
) -> HeldFrames | None:
    """The windows of a hold. Raises InvalidArgumentError where another subject is marked now."""
    if recipe.hold is None:
        return None
    if subject is None or subject.marks != recipe.hold.marks:
        raise InvalidArgumentError("subject", "another", "it must be marked as the recipe has it")
    return hold_frames(
        subject, start_s=recipe.start_s, end_s=recipe.end_s, glide=recipe.hold.glide,
        aspect=aspect, upright=upright,
    )  # fmt: skip


def _seen_path(shot: ShotReading, recipe: Recipe, aspect: float, upright: bool) -> Floats:
    """(n, 4) path of what is seen, not enlarged."""
    if recipe.corner_hz is not None:
        return Polisher(shot, aspect=aspect).smooth(recipe.corner_hz)
    if recipe.drift is None:
        return shot.path
    x_pct, y_pct = _drift(recipe, _grid_s(shot), upright=upright, aspect=aspect)
    out: Floats = shot.path + np.column_stack([x_pct, -y_pct, 0.0 * x_pct, 0.0 * x_pct])
    return out


def subject_place(
    recipe: Recipe, analysis: Analysis, clip: Clip, subject: Subject | None
) -> tuple[float, float] | None:
    """Where the subject that a recipe holds is in the first finished frame: the place that was
    marked first, percent of the long side from the middle. None without a hold."""
    shown = _as_shown(recipe, subject, analysis)
    held = _held(recipe, shown, aspect=analysis.motion.aspect, upright=clip.upright)
    if held is None:
        return None
    x_pct, y_pct, turn_deg, growth = held.at(held.t_s[:1])[0]
    away = held.first - np.array([x_pct, y_pct])
    cosine, sine = np.cos(np.radians(turn_deg)), np.sin(np.radians(turn_deg))
    scale = recipe.enlarge / growth
    return (
        float(scale * (cosine * away[0] + sine * away[1])),
        float(scale * (cosine * away[1] - sine * away[0])),
    )


class WindowMaker:
    """Windows of a recipe at any time: the corrections of its shots are worked out once.

    drawn_in_pct: of the long side, by which every window is drawn in from its edges, so that a
    renderer's half pixels lie inside too. subject: that the recipe holds, s in the file.
    """

    def __init__(
        self,
        recipe: Recipe,
        analysis: Analysis,
        *,
        upright: bool,
        drawn_in_pct: float = 0.0,
        subject: Subject | None = None,
    ) -> None:
        self.recipe, self._upright = recipe, upright
        self._aspect = analysis.motion.aspect
        self._drawn_in = 1.0 - 2.0 * drawn_in_pct / 100.0 / self._aspect
        self._shots: list[tuple[float, float, Floats, Floats]] = []
        shown = _as_shown(recipe, subject, analysis)
        self._held = _held(recipe, shown, aspect=self._aspect, upright=upright)
        if recipe.corner_hz is None:
            return
        for shot in analysis.reading(recipe.rate, step=recipe.step).shots:
            if shot.counted.any() and shot.end_s > recipe.start_s and shot.start_s < recipe.end_s:
                polisher = Polisher(shot, aspect=self._aspect)
                off = polisher.corrections(recipe.corner_hz)
                self._shots.append((shot.start_s, shot.end_s, _grid_s(shot), off))

    def at(self, t_s: Floats) -> Windows:
        """What is seen of the frames that are shown at t_s (n,), s in the file."""
        scale = self._drawn_in / self.recipe.enlarge
        if self._held is not None:
            x_pct, y_pct, turn_deg, growth = self._held.at(t_s).T
            return Windows(x_pct, y_pct, turn_deg, growth * scale)
        off = np.zeros((len(t_s), 4))
        for start_s, end_s, grid_s, found in self._shots:
            inside = (t_s >= start_s - 1e-6) & (t_s <= end_s + 1e-6)
            for column in range(4 if inside.any() else 0):
                off[inside, column] = np.interp(t_s[inside], grid_s, found[:, column])
        x_pct, y_pct = -off[:, 0], off[:, 1]
        if self.recipe.drift is not None:
            add_x, add_y = _drift(self.recipe, t_s, upright=self._upright, aspect=self._aspect)
            x_pct, y_pct = x_pct + add_x, y_pct + add_y
        size = (1.0 + off[:, 3] / 100.0) * scale
        return Windows(x_pct, y_pct, -off[:, 2], size)


def _grid_s(shot: ShotReading) -> Floats:
    """(n,) times of the samples of a shot's path, one more than its speeds have."""
    half = 0.5 / shot.rate_hz
    return np.append(shot.t_s - half, shot.t_s[-1] + half)


def _drift(recipe: Recipe, t_s: Floats, *, upright: bool, aspect: float) -> tuple[Floats, Floats]:
    """Where the window of a desk-made move is: through all the room, eased at both ends."""
    assert recipe.drift is not None
    right, down = DIRECTIONS[recipe.drift]
    width, height = (aspect, 1.0) if upright else (1.0, aspect)
    room_pct = recipe.crop_pct * (width if right else height)
    gone = progress(t_s, start_s=recipe.start_s, end_s=recipe.end_s, ease_s=EASE_S * recipe.rate)
    along = room_pct * (gone - 0.5)
    return right * along, down * along
