"""The persistent queue: huey on its own SQLite file.

A task is one clip's number in, one stored measurement out. Which clips still need work is the
store's to know (the table `job`); the queue only hands numbers to whichever process is free, so
that losing it loses nothing, and another broker can take its place.
"""

from __future__ import annotations

import logging
from pathlib import Path

from huey import SqliteHuey

from ridgewind.store import database, jobs
from ridgewind.work.library import Library

log = logging.getLogger(__name__)


def open_queue(library: Library) -> SqliteHuey:
    """The library's queue, with the measuring task registered as `measure`."""
    huey = SqliteHuey(name="ridgewind", filename=str(library.queue), results=False)

    @huey.task(name="measure")
    def measure(clip_id: int) -> None:
        # Only a worker needs what measuring imports.
        from ridgewind.work.tasks import measure_clip  # noqa: PLC0415

        measure_clip(library, clip_id)

    huey.measure = measure
    return huey


class Queue:
    """Hands waiting clips to the workers."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._opened: SqliteHuey | None = None

    @property
    def _huey(self) -> SqliteHuey:
        """Opened at first use, so that an application can be made without a library."""
        if self._opened is None:
            self._opened = open_queue(self._library)
        return self._opened

    def put(self, clip_id: int) -> None:
        self._huey.measure(clip_id)

    def refill(self, path: Path) -> int:
        """Queue everything that the store says is waiting or was interrupted; call at start.

        Returns how many. What the queue file still held is dropped first.
        """
        self._huey.flush()
        with database.opened(path) as db:
            with database.atomic(db):
                for job in jobs.interrupted(db):
                    recover(db, job)
            waiting = jobs.waiting(db)
        for clip_id in waiting:
            self.put(clip_id)
        return len(waiting)


def recover(db: database.sqlite3.Connection, job: jobs.JobRow) -> bool:
    """Let an interrupted job wait again, or give it up; True where it waits again."""
    if job.cancel_requested:
        jobs.finish(db, job.clip_id, "cancelled")
        return False
    if job.attempts >= jobs.MOST_ATTEMPTS:
        jobs.fail(
            db,
            job.clip_id,
            code="crashed",
            what="measuring it ended the measuring process twice",
            next_step="convert the clip to H.264 in an mp4 file and bring that in",
        )
        return False
    jobs.put_back(db, job.clip_id)
    return True
