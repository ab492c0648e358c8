"""Keeps the worker process alive: a decoder that dies on a bad file takes nothing else down."""

from __future__ import annotations

import logging
import subprocess
import sys
import threading
import time

from ridgewind.jobs.queue import Queue
from ridgewind.library.library import Library
from ridgewind.store import database
from ridgewind.store.jobs import Kind

log = logging.getLogger(__name__)

CHECK_S = 0.25
TOP_UP_S = 2.0
"""How often it is looked whether work waits that the queue has lost."""

STOP_S = 5.0


class Supervisor:
    """Starts one worker process and starts it again when it dies; use as a context manager.

    kind: of its queue."""

    def __init__(self, library: Library, queue: Queue, kind: Kind) -> None:
        self._library, self._queue, self._kind = library, queue, kind
        self._stopping = threading.Event()
        self._thread = threading.Thread(target=self._watch, daemon=True)
        self._worker: subprocess.Popen[bytes] | None = None

    def __enter__(self) -> Supervisor:
        self._worker = self._start()
        self._thread.start()
        return self

    def __exit__(self, *exc: object) -> None:
        self._stopping.set()
        self._thread.join(STOP_S)
        if self._worker is not None and self._worker.poll() is None:
            self._worker.terminate()
            try:
                self._worker.wait(STOP_S)
            except subprocess.TimeoutExpired:
                self._worker.kill()
                self._worker.wait(STOP_S)

    @property
    def worker_pid(self) -> int | None:
        return None if self._worker is None else self._worker.pid

    def _start(self) -> subprocess.Popen[bytes]:
        command = [sys.executable, "-m", "ridgewind.jobs.worker", str(self._library.root)]
        command.append(self._kind)
        return subprocess.Popen(command, stdin=subprocess.DEVNULL)

    def _watch(self) -> None:
        next_look_s = time.monotonic() + TOP_UP_S
        while not self._stopping.wait(CHECK_S):
            if time.monotonic() >= next_look_s:
                next_look_s = time.monotonic() + TOP_UP_S
                with database.opened(self._library.database) as db:
                    self._queue.top_up(db, self._kind)
            if self._worker is None or self._worker.poll() is None:
                continue
            log.warning("the worker ended with status %s; starting it again",
                        self._worker.returncode)  # fmt: skip
            with database.opened(self._library.database) as db:
                self._queue.take_up(db, self._kind)
            self._worker = self._start()
