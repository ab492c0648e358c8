"""Keeps worker processes alive: a decoder that dies on a bad file takes nothing else down."""

from __future__ import annotations

import logging
import subprocess
import sys
import threading
import time

from ridgewind.jobs.queue import Queue
from ridgewind.library.library import Library
from ridgewind.store import database, jobs
from ridgewind.store.jobs import Kind

log = logging.getLogger(__name__)

CHECK_S = 0.25
LOOK_S = 2.0
"""How often it is looked whether work waits that nobody was told of, or that the queue has lost."""

STOP_S = 5.0


class Supervisor:
    """Starts the worker process of a kind once there is work, and again whenever it dies; use as a
    context manager.

    kind: of its queue.
    """

    def __init__(self, library: Library, queue: Queue, kind: Kind) -> None:
        self._library, self._queue, self._kind = library, queue, kind
        self._wanted = threading.Event()
        self._stopping = threading.Event()
        self._thread = threading.Thread(target=self._watch, daemon=True)
        self._worker: subprocess.Popen[bytes] | None = None

    def __enter__(self) -> Supervisor:
        self._thread.start()
        return self

    def __exit__(self, *exc: object) -> None:
        self._stopping.set()
        self._wanted.set()
        self._thread.join(STOP_S)
        if self._worker is not None and self._worker.poll() is None:
            self._worker.terminate()
            try:
                self._worker.wait(STOP_S)
            except subprocess.TimeoutExpired:
                self._worker.kill()
                self._worker.wait(STOP_S)
            self._lay_down()

    def wake(self) -> None:
        """There is work."""
        self._wanted.set()

    @property
    def worker_pid(self) -> int | None:
        """Of the worker process, None while there was no work."""
        return None if self._worker is None else self._worker.pid

    def _start(self) -> subprocess.Popen[bytes]:
        command = [sys.executable, "-m", "ridgewind.jobs.worker", str(self._library.root)]
        command.append(self._kind)
        return subprocess.Popen(command, stdin=subprocess.DEVNULL)

    def _watch(self) -> None:
        next_look_s = 0.0
        while not self._stopping.is_set():
            if time.monotonic() >= next_look_s:
                next_look_s = time.monotonic() + LOOK_S
                try:
                    self._look()
                except Exception:
                    log.exception("could not look for work; it is looked for again")
            if self._worker is None:
                if self._wanted.wait(LOOK_S) and not self._stopping.is_set():
                    self._worker = self._start()
                continue
            if self._worker.poll() is not None:
                log.warning("the worker ended with status %s; starting it again",
                            self._worker.returncode)  # fmt: skip
                with database.opened(self._library.database) as db:
                    self._queue.take_up(db, self._kind)
                self._worker = self._start()
            self._stopping.wait(CHECK_S)

    def _lay_down(self) -> None:
        """What the worker was stopped at goes on at the next start."""
        try:
            with database.opened(self._library.database) as db, database.atomic(db):
                jobs.lay_down(db, self._kind)
        except Exception:
            log.exception("what was under way could not be laid down; it counts as an attempt")

    def _look(self) -> None:
        """Whether something waits in the store."""
        with database.opened(self._library.database) as db:
            if jobs.unfinished(db, self._kind):
                self._wanted.set()
                self._queue.top_up(db, self._kind)
