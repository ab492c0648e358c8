"""The rendering task: a recipe in, a film and what it measures out."""

from __future__ import annotations

import logging
import time

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.films.measuring import Cancelled
from ridgewind.films.rendering import Source, measured_again, render_film, render_preview
from ridgewind.library.library import Library
from ridgewind.media.errors import CLEARED, MediaError, UnreadableError
from ridgewind.services import assessing
from ridgewind.store import clips, database, renders, takes
from ridgewind.store.database import Connection
from ridgewind.store.renders import RenderRow

log = logging.getLogger(__name__)

REPORT_EVERY_S = 0.25
RENDERED_SHARE = 0.85
"""Of a preview's time; the rest goes to measuring it again."""

MOST_PREVIEWS = 40
UNFORESEEN = (
    "internal",
    "rendering it failed in a way that was not foreseen",
    "try another part or strength",
)

LARGEST_FROM_ORIGINAL_PX = 2048
"""Long side up to which a preview is made from the original: quick to decode, and its compression
adds no shake of its own. Larger films are seen through their browser copy, scaled down."""


def render_one(library: Library, render_id: int) -> None:
    """Render one film if it is still waiting; it is there whole, or not at all."""
    with database.opened(library.database) as db:
        with database.atomic(db):
            if not renders.claim(db, render_id):
                return
        render = renders.by_id(db, render_id)
        try:
            _make(library, db, render)
        except Cancelled:
            with database.atomic(db):
                renders.stop(db, render_id)
            library.render_of(render_id).unlink(missing_ok=True)
        except MediaError as error:
            _failed(library, db, render_id, (error.code, error.what, error.next_step))
        except Exception:
            log.exception("rendering %s failed", render_id)
            _failed(library, db, render_id, UNFORESEEN)
        _prune(library, db)


def _failed(library: Library, db: Connection, render_id: int, why: tuple[str, str, str]) -> None:
    code, what, next_step = why
    library.render_of(render_id).unlink(missing_ok=True)
    with database.atomic(db):
        renders.fail(db, render_id, code=code, what=what, next_step=next_step)


def _make(library: Library, db: Connection, render: RenderRow) -> None:
    take = takes.by_id(db, render.take_id)
    row = clips.by_id(db, take.clip_id)
    facts = assessing.judged_clip(db, take, row)
    motion, analysis = assessing.analysis_of(db, take, row)
    if motion is None or analysis is None or row.width is None or row.height is None:
        raise InvalidArgumentError("take", take.id, "it must be measured first")
    preview = render.purpose == "preview"
    size, fps = (row.width, row.height), row.fps or 25.0
    target = library.render_of(render.id)
    watch = _Watch(db, render.id, RENDERED_SHARE if preview else 1.0)
    original = library.originals / row.file
    whole = Source(original, 0.0, size, fps)
    if preview:
        small = max(size) <= LARGEST_FROM_ORIGINAL_PX and original.is_file()
        copy = Source(library.copy_of(row.sha256), -float(motion.t_s[0]), size, fps)
        source = whole if small else copy
        render_preview(render.recipe, analysis, facts, source, target, on_progress=watch.feed)
        again, unmeasured = measured_again(target)
    else:
        if row.cleared_at is not None:
            raise UnreadableError(*CLEARED)
        render_film(render.recipe, analysis, facts, whole, target, on_progress=watch.feed)
        again, unmeasured = None, None
    reading = None if again is None else again.reading()
    screen_deg = take.brief.screen_deg
    with database.atomic(db):
        if renders.report(db, render.id, 1.0):
            raise Cancelled
        renders.finish(
            db,
            render.id,
            size_bytes=target.stat().st_size,
            gust=None if reading is None else reading.gust(screen_deg=screen_deg),
            peak_gust=None if reading is None else reading.peak(screen_deg=screen_deg),
            unmeasured=unmeasured,
        )


class _Watch:
    """Notes how far a film is, now and then. Raises Cancelled where the shooter has asked."""

    def __init__(self, db: Connection, render_id: int, share: float) -> None:
        self._db, self._id, self._share = db, render_id, share
        self._next = 0.0

    def feed(self, done: float) -> None:
        now = time.monotonic()
        if now < self._next:
            return
        self._next = now + REPORT_EVERY_S
        with database.atomic(self._db):
            if renders.report(self._db, self._id, self._share * done):
                raise Cancelled


def _prune(library: Library, db: Connection) -> None:
    """Old previews go; full-size films stay until the shooter removes them."""
    for old in renders.old_previews(db, keep=MOST_PREVIEWS):
        library.render_of(old.id).unlink(missing_ok=True)
        with database.atomic(db):
            renders.remove(db, old.id)
