"""Keeps a copy of the database once a day of use, and looks through a large one in the background
for damage."""

from __future__ import annotations

import logging
import threading
from datetime import UTC, datetime

from ridgewind.library import snapshots
from ridgewind.library.library import QUICKLY_CHECKED_BYTES, Library
from ridgewind.store import database
from ridgewind.store.errors import StorageError

log = logging.getLogger(__name__)

EVERY_S = 600.0
STOP_S = 5.0


class Keeper:
    """One thread; use as a context manager."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._stopping = threading.Event()
        self._thread = threading.Thread(target=self._work, daemon=True)

    def __enter__(self) -> Keeper:
        self._thread.start()
        return self

    def __exit__(self, *exc: object) -> None:
        self._stopping.set()
        self._thread.join(STOP_S)

    def _work(self) -> None:
        self._look_through()
        while not self._stopping.is_set():
            self._keep()
            self._stopping.wait(EVERY_S)

    def _look_through(self) -> None:
        """A small one was looked through before the start."""
        path = self._library.database
        if path.stat().st_size <= QUICKLY_CHECKED_BYTES:
            return
        if found := database.faults(path):
            log.error("the database is damaged (%s); it is mended at the next start", found[0])
            self._library.damaged_mark.touch()

    def _keep(self) -> None:
        """None of a damaged one: it would push out those that are whole."""
        library, now = self._library, datetime.now(UTC)
        if library.damaged_mark.exists() or not snapshots.is_due(library.snapshots, now=now):
            return
        try:
            snapshots.keep(library.database, library.snapshots, now=now)
        except (StorageError, OSError) as error:
            log.warning("no copy of the database could be kept (%s); it is tried again", error)
