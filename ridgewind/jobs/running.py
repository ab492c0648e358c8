"""What all long work has in common: claimed once, told of, stopped, ended, or failed."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable
from dataclasses import dataclass

from ridgewind.library.library import Library
from ridgewind.media.errors import MediaError
from ridgewind.store import database, jobs
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault, Kind

log = logging.getLogger(__name__)

REPORT_EVERY_S = 0.25

KeepResult = Callable[[], None]
"""Writes what came of the work to the store; called in the transaction that ends it."""


class Cancelled(Exception):  # noqa: N818 - not an error: the shooter asked for it
    """The shooter asked to stop."""


class Watch:
    """Notes how far work is, now and then, and raises Cancelled where the shooter asked to stop."""

    def __init__(self, db: Connection, kind: Kind, subject_id: int) -> None:
        self._db, self._kind, self._subject_id = db, kind, subject_id
        self._next_s = 0.0

    def feed(self, done: float | None) -> None:
        """done: the share that is done, 0 to 1, None where it is not known."""
        now = time.monotonic()
        if now >= self._next_s:
            self._next_s = now + REPORT_EVERY_S
            self.tell(done)

    def tell(self, done: float | None) -> None:
        """Note it now."""
        with database.atomic(self._db):
            asked_to_stop = jobs.report(self._db, self._kind, self._subject_id, done)
        if asked_to_stop:
            raise Cancelled


Work = Callable[[Library, Connection, int, Watch], KeepResult]
"""Given the library, a connection, the subject and a watch to feed."""


@dataclass(frozen=True)
class Task:
    """One kind of long work. undo: removes what a work that did not end has left. unforeseen: what
    is said of a fault that nobody thought of."""

    kind: Kind
    work: Work
    unforeseen: Fault
    undo: Callable[[Library, int], None] = lambda _library, _subject_id: None


def run_task(library: Library, task: Task, subject_id: int) -> None:
    """Do a task on a subject that is still waiting; all of it is kept, or nothing."""
    kind = task.kind
    with database.opened(library.database) as db:
        with database.atomic(db):
            if not jobs.claim(db, kind, subject_id):
                return
        watch = Watch(db, kind, subject_id)
        try:
            keep = task.work(library, db, subject_id, watch)
            watch.tell(1.0)
            with database.atomic(db):
                keep()
                jobs.finish(db, kind, subject_id)
        except Cancelled:
            task.undo(library, subject_id)
            with database.atomic(db):
                jobs.stop(db, kind, subject_id)
        except MediaError as error:
            _fail(library, db, task, subject_id, Fault(error.code, error.what, error.next_step))
        except Exception:
            log.exception("to %s %s failed", kind, subject_id)
            _fail(library, db, task, subject_id, task.unforeseen)


def _fail(library: Library, db: Connection, task: Task, subject_id: int, fault: Fault) -> None:
    task.undo(library, subject_id)
    with database.atomic(db):
        jobs.fail(db, task.kind, subject_id, fault)
