"""Judge takes again in the background after a brief that many of them point at has changed.

What is left to do stands in the store (summary.stale), so that nothing is lost with the
process, and a start takes it up again.
"""

from __future__ import annotations

import logging
import threading
from contextlib import suppress
from datetime import UTC, datetime

from ridgewind.library import newest_error
from ridgewind.library.library import Library
from ridgewind.services import assessing
from ridgewind.store import database

log = logging.getLogger(__name__)

AT_A_TIME_S = 0.5
STOP_S = 5.0


class Refresher:
    """One thread that works whenever it is woken; use as a context manager."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._wanted = threading.Event()
        self._stopping = threading.Event()
        self._thread = threading.Thread(target=self._work, daemon=True)

    def wake(self) -> None:
        """There is something to judge again."""
        self._wanted.set()

    def __enter__(self) -> Refresher:
        self._thread.start()
        self.wake()
        return self

    def __exit__(self, *exc: object) -> None:
        self._stopping.set()
        self.wake()
        self._thread.join(STOP_S)

    def _work(self) -> None:
        while True:
            self._wanted.wait()
            self._wanted.clear()
            if self._stopping.is_set():
                return
            try:
                self._drain()
            except Exception:
                log.exception("judging takes again failed; it goes on at the next change")

    def _drain(self) -> None:
        with database.opened(self._library.database) as db:
            while not self._stopping.is_set() and assessing.refresh(
                db, budget_s=AT_A_TIME_S, on_fault=self._note
            ):
                pass

    def _note(self, error: Exception) -> None:
        """For `ridgewind doctor`."""
        with suppress(OSError):
            newest_error.keep(self._library.root, error, number="judge", at=datetime.now(UTC))
