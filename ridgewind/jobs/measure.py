"""Tasks of the worker processes: film in, stored measurement and browser copy out."""

from __future__ import annotations

import logging
import time
from contextlib import ExitStack

from ridgewind.core.motion import METHOD
from ridgewind.films import splitting
from ridgewind.films.measuring import Cancelled, Measured, measure_film
from ridgewind.films.splitting import SlateWatch
from ridgewind.library.library import Library
from ridgewind.media.decode import Picture
from ridgewind.media.encode import BrowserCopy, still_of, write_jpeg
from ridgewind.media.errors import MediaError
from ridgewind.services import assessing
from ridgewind.store import clips, database, jobs, sessions, takes
from ridgewind.store.database import Connection

log = logging.getLogger(__name__)

REPORT_EVERY_S = 0.25
STILL_LONG_SIDE_PX = 480
STILL_AT = 0.4
"""Share of the clip at which the list's picture is taken."""


def measure_clip(library: Library, clip_id: int) -> None:
    """Measure one clip if it is still waiting, and store all of it or nothing."""
    with database.opened(library.database) as db:
        with database.atomic(db):
            if not jobs.claim(db, clip_id):
                return
        clip = clips.by_id(db, clip_id)
        try:
            with ExitStack() as stack:
                pass_ = _Pass(library, db, clip, stack)
                measured = measure_film(library.originals / clip.file, on_picture=pass_.feed)
                with database.atomic(db):
                    if jobs.report(db, clip_id, 1.0):
                        raise Cancelled
            with database.atomic(db):
                clips.store_measurement(
                    db, clip_id, facts=_facts(measured), motion=measured.motion, method=METHOD
                )
                splitting.split(db, clip_id, pass_.slates.seen, length_s=measured.duration_s)
                for take in takes.of_clip(db, clip_id):
                    assessing.summarise(db, take.id)
                jobs.finish(db, clip_id, "done")
        except Cancelled:
            with database.atomic(db):
                jobs.finish(db, clip_id, "cancelled")
        except MediaError as error:
            with database.atomic(db):
                jobs.fail(db, clip_id, code=error.code, what=error.what, next_step=error.next_step)
        except Exception:
            log.exception("measuring clip %s failed", clip_id)
            with database.atomic(db):
                jobs.fail(
                    db,
                    clip_id,
                    code="internal",
                    what="measuring it failed in a way that was not foreseen",
                    next_step="try again, or convert the clip to H.264 in an mp4 file",
                )


class _Pass:
    """Who listens to the one decode pass: the browser copy, the still, and the progress."""

    def __init__(
        self,
        library: Library,
        db: Connection,
        clip: clips.ClipRow,
        stack: ExitStack,
    ) -> None:
        self._library, self._db, self._clip, self._stack = library, db, clip, stack
        self._copy: BrowserCopy | None = None
        self._next_report = 0.0
        self._still_written = 0
        self._first_s: float | None = None
        self.slates = SlateWatch(splitting.planned_seconds(db) if sessions.exist(db) else None)

    def feed(self, picture: Picture, done: float | None) -> None:
        """A frame has been measured. Raises Cancelled where the shooter has asked to stop."""
        if self._copy is None:
            # The rate only sets the keyframe distance; a first guess will do.
            copy = BrowserCopy(
                self._library.copy_of(self._clip.sha256), size=picture.size, rate_hz=30.0
            )
            self._copy = self._stack.enter_context(copy)
        self._copy.feed(picture)
        if self._first_s is None:
            self._first_s = picture.t_s
        self.slates.feed(picture, picture.t_s - self._first_s)
        if self._still_written == 0 or (
            self._still_written == 1 and done is not None and done >= STILL_AT
        ):
            self._still_written += 1
            image = still_of(picture, long_side_px=STILL_LONG_SIDE_PX)
            write_jpeg(self._library.still_of(self._clip.sha256), image)
        now = time.monotonic()
        if now >= self._next_report:
            self._next_report = now + REPORT_EVERY_S
            with database.atomic(self._db):
                if jobs.report(self._db, self._clip.id, done):
                    raise Cancelled


def _facts(measured: Measured) -> clips.ClipFactsRow:
    names = clips.ClipFactsRow.__dataclass_fields__
    return clips.ClipFactsRow(**{name: getattr(measured, name) for name in names})
