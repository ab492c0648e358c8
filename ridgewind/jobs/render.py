"""The rendering task: a recipe in; a film and what it measures out."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.films import orders
from ridgewind.films.orders import RenderOrder, RenderResult
from ridgewind.jobs.running import KeepResult, Task, Watch, run_task
from ridgewind.library.library import Library
from ridgewind.media.errors import CLEARED, UnfitError, UnreadableError
from ridgewind.services import assessing
from ridgewind.store import clips, database, renders, takes
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

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
    prune(library)


def _remove_film(library: Library, render_id: int) -> None:
    library.render_of(render_id).unlink(missing_ok=True)


def order_of(library: Library, db: Connection, render_id: int) -> tuple[RenderOrder, Path]:
    """What is to be rendered, and the film that it is made from. Raises MediaError where it cannot
    be made any more."""
    render = renders.by_id(db, render_id)
    take = takes.by_id(db, render.take_id)
    row = clips.by_id(db, take.clip_id)
    motion, analysis = assessing.analysis_of(db, take, row)
    if motion is None or analysis is None or row.width is None or row.height is None:
        raise InvalidArgumentError("take", take.id, "it must be measured first")
    size, original = (row.width, row.height), library.original(row.file)
    subject = assessing.subject_of(db, take.id, motion)
    hold = render.recipe.hold
    if hold is not None and (subject is None or subject.marks != hold.marks):
        raise UnfitError(*MARKED_ANEW)
    preview = render.purpose == "preview"
    if not preview and row.cleared_at is not None:
        raise UnreadableError(*CLEARED)
    small = max(size) <= LARGEST_FROM_ORIGINAL_PX and original.is_file()
    from_copy = preview and not small
    order = RenderOrder(
        preview=preview,
        recipe=render.recipe,
        clip=assessing.judged_clip(db, take, row),
        motion=analysis.motion,
        stretch=analysis.stretch,
        shift_s=-float(motion.t_s[0]) if from_copy else 0.0,
        size=size,
        fps=row.fps or 25.0,
        subject=subject,
        screen_deg=take.brief.screen_deg,
    )
    return order, library.copy_of(row.sha256) if from_copy else library.film(row.file)


def keep(db: Connection, render_id: int, result: RenderResult, *, size_bytes: int) -> None:
    """Keep what the finished film measures as; call in a transaction."""
    renders.store_result(db, render_id, size_bytes=size_bytes, **asdict(result))


def _render(library: Library, db: Connection, render_id: int, watch: Watch) -> KeepResult:
    order, film = order_of(library, db, render_id)
    target = library.render_of(render_id)
    result = orders.render(film, order, target, on_progress=watch.feed)
    return lambda: keep(db, render_id, result, size_bytes=target.stat().st_size)


def prune(library: Library) -> None:
    """Old previews go; full-size films stay until the shooter removes them."""
    with database.opened(library.database) as db:
        for old in renders.old_previews(db, keep=MOST_PREVIEWS):
            library.render_of(old.id).unlink(missing_ok=True)
            with database.atomic(db):
                renders.remove(db, old.id)
