"""Watches a folder for films, in the server's own process: whatever arrives whole is taken in once,
measured, and filed under the session that runs.

The folder's events only wake it, since shared folders and some disks give none: it looks all the
same every few seconds. What became of each file stands in the store.
"""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path

from watchdog.events import FileSystemEvent, FileSystemEventHandler
from watchdog.observers import Observer
from watchdog.observers.api import BaseObserver

from ridgewind.jobs.queue import Queue
from ridgewind.library import folders
from ridgewind.library.arrivals import Stillness, films_in
from ridgewind.library.library import Library
from ridgewind.media.errors import DISK_FULL, MediaError
from ridgewind.services import watching
from ridgewind.store import database, watched
from ridgewind.store.database import Connection
from ridgewind.store.watched import FilmFile

log = logging.getLogger(__name__)

BUSY_S, IDLE_S, CALM_S = 0.5, 3.0, 0.2
"""Between two looks while something is on its way, while nothing is, and at the least: a film that
is written gives an event for each of its pieces."""

STOP_S = 5.0

STOPPED = ("stopped", "the application was closed", "it is taken in at the next start")

WAITS = (DISK_FULL[0], folders.GROWING[0], folders.PULLED[0], folders.NO_FOLDER[0], STOPPED[0])
"""Faults that pass: there is no room, somebody still writes it, the folder went away."""


class Watcher:
    """One thread; use as a context manager."""

    def __init__(self, library: Library, queue: Queue) -> None:
        self._library, self._queue = library, queue
        self._stillness = Stillness()
        self._wanted, self._stopping = threading.Event(), threading.Event()
        self._thread = threading.Thread(target=self._work, daemon=True)
        self._observer: BaseObserver | None = None
        self._observed: Path | None = None

    def wake(self) -> None:
        """Look now: another folder is watched, or something happened in it."""
        self._wanted.set()

    def __enter__(self) -> Watcher:
        self._thread.start()
        return self

    def __exit__(self, *exc: object) -> None:
        self._stopping.set()
        self.wake()
        self._thread.join(STOP_S)
        self._observe(None)

    def _work(self) -> None:
        while not self._stopping.is_set():
            busy = False
            try:
                with database.opened(self._library.database) as db:
                    busy = self.look(db)
            except Exception:
                # A locked store or a full disk passes; it looks again.
                log.exception("the watched folder could not be looked at; trying again")
            self._wanted.wait(BUSY_S if busy else IDLE_S)
            self._wanted.clear()
            self._stopping.wait(CALM_S)

    def look(self, db: Connection) -> bool:
        """Take in what is whole, file what is measured; returns whether more is on its way."""
        row = watched.folder(db)
        root = None if row is None else watching.root_of(row.root)
        self._observe(root)
        if root is not None:
            settled = watched.settled(db)
            found = films_in(root)
            for film in self._stillness.whole(root, found, settled, now_s=time.monotonic()):
                self._take(db, root, film)
            watching.file_what_is_measured(db)
            settled = watched.settled(db)
            return any(one not in settled for one in found) or watched.under_way(db)
        return False

    def _take(self, db: Connection, root: Path, film: FilmFile) -> None:
        try:
            taken = folders.bring_in(
                self._library, db, str(root), film.file, on_progress=self._go_on
            )
        except MediaError as error:
            if error.code in WAITS:
                return
            with database.atomic(db):
                watched.settle(db, film, "refused", fault=f"{error.what}: {error.next_step}")
            return
        with database.atomic(db):
            watched.settle(db, film, "taken", take_id=taken.take.id)
        if taken.take.state == "queued":
            self._queue.put("measure", taken.take.clip_id)

    def _go_on(self, _share: float) -> None:
        if self._stopping.is_set():
            raise MediaError(*STOPPED)

    def _observe(self, root: Path | None) -> None:
        """Let a folder's events wake this; none where it is None."""
        if root == self._observed:
            return
        if self._observer is not None:
            self._observer.stop()
            self._observer.join(STOP_S)
        self._observer, self._observed = None, root
        if root is not None:
            observer = Observer()
            with suppress(OSError):  # too many are observed, or it cannot be: it is looked at
                observer.schedule(_Waking(self.wake), str(root), recursive=True)
                observer.start()
                self._observer = observer


class _Waking(FileSystemEventHandler):
    def __init__(self, wake: Callable[[], None]) -> None:
        self._wake = wake

    def on_any_event(self, event: FileSystemEvent) -> None:
        if event.event_type in ("created", "modified", "moved", "closed"):
            self._wake()
