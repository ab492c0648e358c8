"""What a worker is told beside the film, and what it gives back: no library and no store is needed
between the two, so that any machine that has the film can do it."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import ExitStack
from dataclasses import dataclass
from pathlib import Path

from ridgewind.core.clip import Clip
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.hold import subject_gust
from ridgewind.core.judge.recipe import Recipe, subject_place
from ridgewind.core.motion import Motion
from ridgewind.core.motion.subject import Subject
from ridgewind.core.practice.slate import SlateSeen
from ridgewind.films.measuring import Measured, measure_film
from ridgewind.films.rendering import Again, Source, measured_again, render_film, render_preview
from ridgewind.films.splitting import PlannedSeconds, SlateWatch
from ridgewind.media.decode import Picture
from ridgewind.media.encode import BrowserCopy, still_of, write_jpeg
from ridgewind.media.sound import Sound

STILL_LONG_SIDE_PX = 480
STILL_AT = 0.4
"""Share of the clip at which the list's picture is taken."""

RENDERED_SHARE = 0.85
"""Of a preview's time; the rest goes to measuring it again."""

Progress = Callable[[float | None], None]
"""Called with the share done, 0 to 1, None where unknown; may raise to stop."""


@dataclass(frozen=True)
class MeasureOrder:
    """background: cells in which the shooter sees the background, none where nothing was said.
    planned: seconds of every planned take, None where no session was ever planned."""

    background: frozenset[int]
    planned: PlannedSeconds | None


@dataclass(frozen=True)
class MeasureResult:
    """slates: that were seen, s from the film's first frame."""

    measured: Measured
    slates: list[SlateSeen]


@dataclass(frozen=True)
class RenderOrder:
    """preview: small, and measured again; else of full size. motion: of the part that the take is,
    stretch: how many times slower it plays than it was filmed. shift_s, size, fps: of the film that
    is sent along, see Source. subject: that is marked, None for none. screen_deg: of the brief."""

    preview: bool
    recipe: Recipe
    clip: Clip
    motion: Motion
    stretch: float
    shift_s: float
    size: tuple[int, int]
    fps: float
    subject: Subject | None
    screen_deg: float


@dataclass(frozen=True)
class RenderResult:
    """What a preview measures as, see RenderRow; all None for a film of full size."""

    gust: float | None = None
    peak_gust: float | None = None
    unmeasured: str | None = None
    edge_gust: float | None = None
    subject_gust: float | None = None


def measure(
    film: Path, order: MeasureOrder, *, copy: Path, still: Path, on_progress: Progress
) -> MeasureResult:
    """Measure a film, and make its browser copy and still in the same pass. Raises MediaError."""
    with ExitStack() as stack:
        pass_ = _Pass(film, order, copy, still, stack, on_progress)
        measured = measure_film(film, on_picture=pass_.feed, background=order.background)
    return MeasureResult(measured, pass_.slates.seen)


def render(film: Path, order: RenderOrder, target: Path, *, on_progress: Progress) -> RenderResult:
    """Render a film of a recipe; a preview is measured again. Raises MediaError."""
    analysis = Analysis(order.motion, stretch=order.stretch)
    source = Source(film, order.shift_s, order.size, order.fps, order.subject)
    if not order.preview:
        render_film(order.recipe, analysis, order.clip, source, target, on_progress=on_progress)
        return RenderResult()
    render_preview(
        order.recipe, analysis, order.clip, source, target,
        on_progress=lambda done: on_progress(RENDERED_SHARE * done),
    )  # fmt: skip
    again = measured_again(
        target,
        subject_at=subject_place(order.recipe, analysis, order.clip, order.subject),
        on_progress=lambda done: on_progress(RENDERED_SHARE + (1 - RENDERED_SHARE) * done),
    )
    return _told(again, order)


def _told(again: Again, order: RenderOrder) -> RenderResult:
    screen_deg = order.screen_deg
    reading = None if again.analysis is None else again.analysis.reading()
    edges = None if again.edges is None else again.edges.reading()
    held = again.subject
    return RenderResult(
        gust=None if reading is None else reading.gust(screen_deg=screen_deg),
        peak_gust=None if reading is None else reading.peak(screen_deg=screen_deg),
        unmeasured=again.unmeasured,
        edge_gust=None if edges is None else edges.gust(screen_deg=screen_deg),
        subject_gust=None
        if held is None
        else subject_gust(held, aspect=order.motion.aspect, screen_deg=screen_deg),
    )


class _Pass:
    """Who listens to the one decode pass: the browser copy, the still, the slates, the watch."""

    def __init__(
        self,
        film: Path,
        order: MeasureOrder,
        copy: Path,
        still: Path,
        stack: ExitStack,
        on_progress: Progress,
    ) -> None:
        self._film, self._copy_path, self._still_path = film, copy, still
        self._stack, self._on_progress = stack, on_progress
        self._copy: BrowserCopy | None = None
        self._still_written = 0
        self._first_s: float | None = None
        self.slates = SlateWatch(order.planned)

    def _begin_copy(self, first: Picture) -> BrowserCopy:
        sound = self._stack.enter_context(Sound(self._film, start_s=first.t_s))
        # The rate only sets the keyframe distance; a first guess will do.
        return BrowserCopy(self._copy_path, size=first.size, rate_hz=30.0, sound=sound)

    def feed(self, picture: Picture, done: float | None) -> None:
        """A frame has been measured."""
        if self._copy is None:
            self._copy = self._stack.enter_context(self._begin_copy(picture))
        self._copy.feed(picture)
        if self._first_s is None:
            self._first_s = picture.t_s
        self.slates.feed(picture, picture.t_s - self._first_s)
        if self._still_written == 0 or (
            self._still_written == 1 and done is not None and done >= STILL_AT
        ):
            self._still_written += 1
            image = still_of(picture, long_side_px=STILL_LONG_SIDE_PX)
            write_jpeg(self._still_path, image)
        self._on_progress(done)
