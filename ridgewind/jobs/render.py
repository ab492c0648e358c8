"""The rendering task: a recipe in; a film and what it measures out."""

from __future__ import annotations

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge.hold import subject_gust
from ridgewind.core.judge.recipe import subject_place
from ridgewind.films.rendering import Again, Source, measured_again, render_film, render_preview
from ridgewind.jobs.running import KeepResult, Task, Watch, run_task
from ridgewind.library.library import Library
from ridgewind.media.errors import CLEARED, UnfitError, UnreadableError
from ridgewind.services import assessing
from ridgewind.store import clips, database, renders, takes
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

RENDERED_SHARE = 0.85
"""Of a preview's time; the rest goes to measuring it again."""

MOST_PREVIEWS = 40
UNFORESEEN = Fault(
    "internal",
    "rendering it failed in a way that was not foreseen",
    "try another part or strength",
)

MARKED_ANEW = (
    "marked_anew",
    "the subject was marked anew, or let go, since this was asked for",
    "ask for it again",
)

LARGEST_FROM_ORIGINAL_PX = 2048
"""Long side up to which a preview is made from the original: quick to decode, and its compression
adds no shake of its own. Larger films are seen through their browser copy, scaled down."""


def render_one(library: Library, render_id: int) -> None:
    """Render one film if it is still waiting; it is there whole, or not at all."""
    run_task(library, Task("render", _render, UNFORESEEN, undo=_remove_film), render_id)
    _prune(library)


def _remove_film(library: Library, render_id: int) -> None:
    library.render_of(render_id).unlink(missing_ok=True)


def _render(library: Library, db: Connection, render_id: int, watch: Watch) -> KeepResult:
    render = renders.by_id(db, render_id)
    take = takes.by_id(db, render.take_id)
    row = clips.by_id(db, take.clip_id)
    clip = assessing.judged_clip(db, take, row)
    motion, analysis = assessing.analysis_of(db, take, row)
    if motion is None or analysis is None or row.width is None or row.height is None:
        raise InvalidArgumentError("take", take.id, "it must be measured first")
    preview = render.purpose == "preview"
    size, fps = (row.width, row.height), row.fps or 25.0
    target = library.render_of(render.id)
    original = library.originals / row.file
    subject = assessing.subject_of(db, take.id, motion)
    hold = render.recipe.hold
    if hold is not None and (subject is None or subject.marks != hold.marks):
        raise UnfitError(*MARKED_ANEW)
    whole = Source(original, 0.0, size, fps, subject)
    again = Again(None, None, None)
    if preview:
        small = max(size) <= LARGEST_FROM_ORIGINAL_PX and original.is_file()
        copy = Source(library.copy_of(row.sha256), -float(motion.t_s[0]), size, fps, subject)
        source = whole if small else copy
        render_preview(
            render.recipe, analysis, clip, source, target,
            on_progress=lambda done: watch.feed(RENDERED_SHARE * done),
        )  # fmt: skip
        again = measured_again(
            target,
            subject_at=subject_place(render.recipe, analysis, clip, subject),
            on_progress=lambda done: watch.feed(RENDERED_SHARE + (1 - RENDERED_SHARE) * done),
        )
    elif row.cleared_at is not None:
        raise UnreadableError(*CLEARED)
    else:
        render_film(render.recipe, analysis, clip, whole, target, on_progress=watch.feed)
    reading = None if again.analysis is None else again.analysis.reading()
    edges = None if again.edges is None else again.edges.reading()
    screen_deg = take.brief.screen_deg
    held = again.subject

    def keep() -> None:
        renders.store_result(
            db,
            render.id,
            size_bytes=target.stat().st_size,
            gust=None if reading is None else reading.gust(screen_deg=screen_deg),
            peak_gust=None if reading is None else reading.peak(screen_deg=screen_deg),
            unmeasured=again.unmeasured,
            edge_gust=None if edges is None else edges.gust(screen_deg=screen_deg),
            subject_gust=None
            if held is None
            else subject_gust(held, aspect=analysis.motion.aspect, screen_deg=screen_deg),
        )

    return keep


def _prune(library: Library) -> None:
    """Old previews go; full-size films stay until the shooter removes them."""
    with database.opened(library.database) as db:
        for old in renders.old_previews(db, keep=MOST_PREVIEWS):
            library.render_of(old.id).unlink(missing_ok=True)
            with database.atomic(db):
                renders.remove(db, old.id)
