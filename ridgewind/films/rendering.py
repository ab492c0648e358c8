"""Render a recipe from a take's film: a small preview, measured again, or a full-size film.

A full-size film has its sound where it keeps its speed. Films are entered at the keyframe before
the stretch, so that a few seconds of a long one are quickly there.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator
from contextlib import ExitStack
from dataclasses import dataclass
from pathlib import Path

import cv2
import numpy as np

from ridgewind.core.clip import Clip
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.cadence import NOT_YET
from ridgewind.core.judge.recipe import Recipe, WindowMaker
from ridgewind.core.motion.follow import Follower
from ridgewind.core.motion.sighting import Region, edge_cells
from ridgewind.core.motion.subject import Subject, SubjectPath
from ridgewind.core.motion.tracker import Tracker
from ridgewind.films.measuring import measure_film
from ridgewind.media.decode import Film, Picture
from ridgewind.media.encode import FilmWriter, Shown
from ridgewind.media.errors import DAMAGED, UnfitError, UnreadableError
from ridgewind.media.planes import (
    DEEP,
    SHALLOW,
    frame_of,
    pixel_format,
    planes_of,
    view_of,
)
from ridgewind.media.sound import Sound
from ridgewind.media.warp import warped

PREVIEW_LONG_SIDE_PX, FAST_LONG_SIDE_PX, FAST_HZ = 960, 640, 40.0
"""Of a preview, and of one that shows more frames of each second than FAST_HZ: it is to be ready
within twice the length of what it shows, and every frame takes its time."""

SAFE_PX = 0.5
"""Of the finished frame, by which a window is drawn in, so that no half pixel outside is seen."""

WARP_THREADS = 2
EDGE_TRUST = 0.8
"""Mean trust from which what the edges say is told."""

PREVIEW_OPTIONS = {"preset": "superfast", "crf": "12", "bf": "0", "g": "30", "threads": "2"}
FILM_OPTIONS = {"preset": "fast", "crf": "15", "threads": "2"}

Progress = Callable[[float], None]
"""Called with the share done, 0 to 1; may raise to stop."""


@dataclass(frozen=True)
class Source:
    """Where frames come from. shift_s: added to a time of the path to have one of the file.
    size: of the picture as displayed, px. fps: as measured. subject: that is marked in it, s of
    the path."""

    path: Path
    shift_s: float
    size: tuple[int, int]
    fps: float
    subject: Subject | None = None


def render_preview(
    recipe: Recipe,
    analysis: Analysis,
    clip: Clip,
    source: Source,
    target: Path,
    *,
    on_progress: Progress,
) -> None:
    """Write a small film of a recipe, with its sound where it keeps its speed; whole or not at
    all."""
    fast = source.fps / recipe.step > FAST_HZ
    scale = min(1.0, (FAST_LONG_SIDE_PX if fast else PREVIEW_LONG_SIDE_PX) / max(source.size))
    options = PREVIEW_OPTIONS | ({"preset": "ultrafast"} if fast else {})
    _render(recipe, analysis, clip, source, target, scale, SHALLOW, options, on_progress)


def render_film(
    recipe: Recipe,
    analysis: Analysis,
    clip: Clip,
    source: Source,
    target: Path,
    *,
    on_progress: Progress,
) -> None:
    """Write a film of a recipe at the recorded size, with its sound where it keeps its speed."""
    _render(recipe, analysis, clip, source, target, 1.0, None, FILM_OPTIONS, on_progress)


@dataclass(frozen=True)
class Again:
    """A rendered film measured again. analysis: None where it cannot be measured, and unmeasured
    why. edges: by the edges of its picture alone, None where little is to be followed there.
    subject: the path of what it holds, None where it holds nothing or that is not found."""

    analysis: Analysis | None
    unmeasured: str | None
    edges: Analysis | None
    subject: SubjectPath | None = None


def measured_again(
    path: Path,
    *,
    subject_at: tuple[float, float] | None = None,
    on_progress: Progress = lambda _done: None,
) -> Again:
    """What a rendered film measures as. It is looked at apart by its edges too: where the figures
    were of a subject, its remedy has set the background moving, and the same follower would find
    that in order. subject_at: where the subject that it holds is at first, percent of the long
    side from the middle, right and down."""
    edges, held = EdgeWatch(), SubjectWatch(subject_at)

    def look(picture: Picture, done: float | None) -> None:
        edges.feed(picture, done)
        held.feed(picture)
        on_progress(done or 0.0)

    try:
        found = measure_film(path, on_picture=look)
    except UnfitError as error:
        return Again(None, error.what, None)
    return Again(Analysis(found.motion), None, edges.analysis(), held.path())


class SubjectWatch:
    """Follows what stands at a place of the first picture."""

    def __init__(self, at_pct: tuple[float, float] | None) -> None:
        self._at_pct = at_pct
        self._follower: Follower | None = None
        self._found: list[tuple[float, float, float]] = []

    def feed(self, picture: Picture) -> None:
        """The next picture."""
        if self._at_pct is None:
            return
        height, width = picture.luma.shape
        middle, scale = ((width - 1) / 2, (height - 1) / 2), max(width, height) / 100.0
        if self._follower is None:
            first = tuple(m + scale * p for m, p in zip(middle, self._at_pct, strict=True))
            if not (0 <= first[0] <= width - 1 and 0 <= first[1] <= height - 1):
                self._at_pct = None
                return
            self._follower = Follower(picture.luma, (first[0], first[1]))
            seen: tuple[float, float] | None = (first[0], first[1])
        else:
            seen = self._follower.next(picture.luma)
        x, y = seen or (np.nan, np.nan)
        self._found.append((picture.t_s, (x - middle[0]) / scale, (y - middle[1]) / scale))

    def path(self) -> SubjectPath | None:
        """Where it went; None where it was not there."""
        if not self._found:
            return None
        columns = np.array(self._found)
        return SubjectPath(columns[:, 0], columns[:, 1], columns[:, 2])


class EdgeWatch:
    """Follows the edges of the pictures that are measured, and nothing else."""

    def __init__(self) -> None:
        self._tracker: Tracker | None = None

    def feed(self, picture: Picture, _: float | None) -> None:
        """The next picture."""
        height, width = picture.luma.shape
        if self._tracker is None:
            upright = height > width
            region = Region(edge_cells(upright=upright), upright=upright)
            self._tracker = Tracker((width, height), region=region)
        self._tracker.feed(picture.t_s, picture.luma)

    def analysis(self) -> Analysis | None:
        """What they measure as; None where it is not to be relied on."""
        motion = self._tracker.finish() if self._tracker is not None else None
        if motion is None or float(motion.trust.mean()) < EDGE_TRUST:
            return None
        return Analysis(motion) if any(shot.measurable for shot in motion.shots) else None


def _render(
    recipe: Recipe,
    analysis: Analysis,
    clip: Clip,
    source: Source,
    target: Path,
    scale: float,
    fmt: str | None,
    options: dict[str, str],
    on_progress: Progress,
) -> None:
    cv2.setNumThreads(WARP_THREADS)
    size = _even(source.size, scale)
    start_s, end_s = recipe.start_s + source.shift_s, recipe.end_s + source.shift_s
    windows = WindowMaker(
        recipe,
        analysis,
        upright=clip.upright,
        drawn_in_pct=100.0 * SAFE_PX / max(size),
        subject=source.subject,
    )
    with ExitStack() as stack:
        film = stack.enter_context(Film(source.path))
        sound = None
        if recipe.rate == 1.0 and film.facts.has_sound:
            sound = stack.enter_context(Sound(source.path, start_s=start_s, end_s=end_s))
        writer: FilmWriter | None = None
        shown = Shown() if fmt == SHALLOW else None
        for picture, at_s in shown_pictures(film, start_s, end_s, source.fps, recipe.step):
            # A preview is for the screen, in the very colours of the copy beside which it is seen.
            frame = picture.frame if shown is None else shown.frame(picture, size)
            if writer is None:
                fmt = fmt or pixel_format(picture)
                writer = stack.enter_context(
                    FilmWriter(
                        target,
                        size=size,
                        rate_hz=source.fps * recipe.rate / recipe.step,
                        options=options,
                        pixel_format=fmt,
                        sound_hz=0 if sound is None else sound.rate_hz,
                    )
                )
                writer.describe_colours(frame)
            t_s = at_s - source.shift_s
            window = windows.at(np.array([t_s])).matrices(size)[0]
            planes = warped(
                planes_of(picture, size, fmt or SHALLOW)
                if shown is None
                else (view_of(frame, 0), view_of(frame, 1), view_of(frame, 2)),
                window,
                deep=fmt == DEEP,
            )
            out_s = max(0.0, (t_s - recipe.start_s) / recipe.rate)
            writer.write(frame_of(planes, fmt or SHALLOW, frame), out_s)
            if sound is not None:
                sound.write(writer, until_s=out_s)
            on_progress(min(1.0, (picture.t_s - start_s) / max(end_s - start_s, 1e-3)))
        if writer is None:
            raise UnreadableError(*DAMAGED)
        if sound is not None:
            sound.write(writer)


def shown_pictures(
    film: Film, start_s: float, end_s: float, fps: float, step: float
) -> Iterator[tuple[Picture, float]]:
    """The frames of a stretch that are shown where each stands for `step` of them, and when; see
    core/judge/cadence.py."""
    half_s, whole = 0.5 / fps, step == int(step)
    # The latest frame by the first moment may have been filmed almost an interval before it.
    from_s = start_s - (half_s if whole else 2.0 / fps)
    film.begin_at(start_s if whole else from_s)
    pictures = (
        picture
        for picture in film.pictures(lambda plane: plane[::16, ::16])
        if picture.t_s >= from_s
    )
    within = itertools.takewhile(lambda picture: picture.t_s <= end_s + half_s, pictures)
    if whole:
        for picture in itertools.islice(within, 0, None, int(step)):
            yield picture, picture.t_s
        return
    late_s, interval_s = NOT_YET / fps, step / fps
    last: Picture | None = None
    next_s = start_s
    for picture in within:
        # The latest frame that was filmed by then stands for each moment.
        while last is not None and next_s + late_s < picture.t_s:
            yield last, next_s
            next_s += interval_s
        last = picture
    if last is not None and next_s <= last.t_s + half_s:
        yield last, next_s


def _even(size: tuple[int, int], scale: float) -> tuple[int, int]:
    width, height = (max(2, int(round(side * scale) // 2 * 2)) for side in size)
    return width, height
