"""What all long work has in common: claimed once, told of, stopped, ended, or failed."""

from __future__ import annotations

import logging
import shutil
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import TypeVar

from ridgewind.library import newest_error
from ridgewind.library.library import SPARE_BYTES, Library
from ridgewind.media.errors import DISK_FULL, MediaError
from ridgewind.store import database, jobs
from ridgewind.store.database import Connection
from ridgewind.store.errors import BusyError, NoRoomError
from ridgewind.store.jobs import Fault, Kind

log = logging.getLogger(__name__)

REPORT_EVERY_S = 0.25
RETRY_S = 1.0
MORE_ROOM_BYTES = 32 << 20
"""By how much the free space must have grown before work that ran out of it is tried again."""

LONGEST_WAIT_S = 60.0
"""After which it is tried all the same: room may have come before anybody looked."""

ROOM_NEXT = "free some space; it goes on by itself"

HELD = Fault("busy", "another program holds the library", "close it; this goes on by itself")

T = TypeVar("T")

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
        """Note it now, unless the store cannot be written for a moment."""
        try:
            with database.atomic(self._db):
                asked_to_stop = jobs.report(self._db, self._kind, self._subject_id, done)
        except (BusyError, NoRoomError):
            return
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


def patiently(db: Connection, write: Callable[[], T]) -> T:
    """Write to the store, however long another program holds it or the disk is full. write may be
    called more than once; nothing is kept of a call that fails."""
    told = False
    while True:
        try:
            with database.atomic(db):
                return write()
        except (BusyError, NoRoomError) as error:
            if not told:
                log.warning("the library cannot be written (%s); it is tried until it can", error)
            told = True
            _waits()
            time.sleep(RETRY_S)


def waits_by(give_sign: Callable[[], None]) -> None:
    """Say how this process gives signs of life while it can write nothing; done once, as it
    starts."""
    global _waits  # noqa: PLW0603 - of the process, as its signals are
    _waits = give_sign


_waits: Callable[[], None] = lambda: None  # noqa: E731


def run_task(library: Library, task: Task, subject_id: int) -> None:
    """Do a task on a subject that is still waiting; all of it is kept, or nothing. Done again where
    it was asked for anew meanwhile."""
    with database.opened(library.database) as db:
        while _claimed(db, task.kind, subject_id):
            short_of_room = _run(library, db, task, subject_id)
            if short_of_room:
                _wait_for_room(library)


def _claimed(db: Connection, kind: Kind, subject_id: int) -> bool:
    return patiently(db, lambda: jobs.claim(db, kind, subject_id))


def _run(library: Library, db: Connection, task: Task, subject_id: int) -> bool:
    """Returns whether it had to stop because the disk is full."""
    kind = task.kind
    watch = Watch(db, kind, subject_id)
    try:
        keep = task.work(library, db, subject_id, watch)
        watch.tell(1.0)

        def end() -> None:
            keep()
            jobs.finish(db, kind, subject_id)

        patiently(db, end)
    except Cancelled:
        task.undo(library, subject_id)
        patiently(db, lambda: jobs.stop(db, kind, subject_id))
    except MediaError as error:
        task.undo(library, subject_id)
        fault = Fault(error.code, error.what, error.next_step)
        if error.code == DISK_FULL[0]:
            waits = Fault(fault.code, fault.what, ROOM_NEXT)
            patiently(db, lambda: jobs.wait_on(db, kind, subject_id, waits))
            return True
        patiently(db, lambda: jobs.fail(db, kind, subject_id, fault))
    except (BusyError, NoRoomError) as error:
        log.warning("to %s %s waits for the library: %s", kind, subject_id, error)
        task.undo(library, subject_id)
        patiently(db, lambda: jobs.wait_on(db, kind, subject_id, HELD))
    except Exception as error:
        log.exception("to %s %s failed", kind, subject_id)
        with suppress(OSError):
            newest_error.keep(library.root, error, number=kind, at=datetime.now(UTC))
        task.undo(library, subject_id)
        patiently(db, lambda: jobs.fail(db, kind, subject_id, task.unforeseen))
    return False


def _wait_for_room(library: Library) -> None:
    """Until the disk has room again, or more than now, or it is time to try all the same. What the
    worker was at waits in the store meanwhile, and can be cancelled there."""
    time.sleep(RETRY_S)
    end_s = time.monotonic() + LONGEST_WAIT_S
    enough = min(SPARE_BYTES, shutil.disk_usage(library.root).free + MORE_ROOM_BYTES)
    while shutil.disk_usage(library.root).free < enough and time.monotonic() < end_s:
        time.sleep(RETRY_S)
