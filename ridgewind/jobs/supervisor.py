"""Keeps worker processes alive: a decoder that dies on a bad file takes nothing else down."""

from __future__ import annotations

import logging
import subprocess
import sys
import threading
import time
from contextlib import suppress
from pathlib import Path

from ridgewind.jobs.queue import Queue
from ridgewind.library.library import Library
from ridgewind.store import database, jobs
from ridgewind.store.jobs import Kind

log = logging.getLogger(__name__)

CHECK_S = 0.25
LOOK_S = 2.0
"""How often it is looked whether work waits that nobody was told of, or that the queue has lost,
and whether what runs still gives signs of life."""

STOP_S = 5.0
SHORT_LIFE_S = 5.0
"""A worker that ends sooner is not started again at once."""

FIRST_PAUSE_S, LONGEST_PAUSE_S = 0.5, 30.0
"""Before such a worker is started again; doubled each time."""

STUCK_S = 600.0
"""Without a sign of life for so long, a worker hangs in its decoder (chosen here: the longest step
without one, settling or judging hours of film, takes a minute on a slow machine)."""


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
        self._started_s = self._next_look_s = self._not_before_s = 0.0
        self._pause_s = 0.0
        self._sign: tuple[tuple[tuple[int, str | None], ...], float] = ((), 0.0)
        self._sign_s = 0.0
        self._stuck = False
        self._resting = False

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
        _let_go(self._worker)

    def wake(self) -> None:
        """There is work."""
        self._wanted.set()

    def rest(self, resting: bool) -> None:
        """Leave the work to other machines, or take part in it again. What its worker is at waits
        again."""
        self._resting = resting

    @property
    def resting(self) -> bool:
        """Whether the work is left to other machines."""
        return self._resting

    @property
    def worker_pid(self) -> int | None:
        """Of the worker process, None while there is none."""
        return None if self._worker is None else self._worker.pid

    def _watch(self) -> None:
        while not self._stopping.is_set():
            try:
                self._step()
            except Exception:
                # A locked store or a full disk passes; whatever it is, work goes on after it.
                log.exception("the %s worker could not be looked after; trying again", self._kind)
                self._stopping.wait(LOOK_S)

    def _step(self) -> None:
        now_s = time.monotonic()
        if now_s >= self._next_look_s:
            self._next_look_s = now_s + LOOK_S
            self._look(now_s)
        if self._resting:
            if self._worker is not None:
                self._send_to_rest(self._worker)
            self._stopping.wait(CHECK_S)
            return
        if self._worker is not None and self._worker.poll() is not None:
            self._bury(self._worker, now_s)
        if self._worker is not None or now_s < self._not_before_s:
            self._stopping.wait(CHECK_S)
        elif self._wanted.wait(CHECK_S) and not self._stopping.is_set():
            self._start()

    def _start(self) -> None:
        self._started_s = time.monotonic()
        self._not_before_s = self._started_s + FIRST_PAUSE_S  # where it cannot be started at all
        self._worker = start_worker(self._library.root, self._kind)

    def _bury(self, worker: subprocess.Popen[bytes], now_s: float) -> None:
        """Take up what a dead worker was doing, and let another one start."""
        log.warning("the %s worker ended with status %s", self._kind, worker.returncode)
        _let_go(worker)
        with database.opened(self._library.database) as db:
            self._queue.take_up(db, self._kind, stuck=self._stuck)
        self._worker, self._stuck = None, False
        lived_s = now_s - self._started_s
        if lived_s > SHORT_LIFE_S:
            self._pause_s = 0.0
        else:
            self._pause_s = min(max(2 * self._pause_s, FIRST_PAUSE_S), LONGEST_PAUSE_S)
        self._not_before_s = now_s + self._pause_s

    def _send_to_rest(self, worker: subprocess.Popen[bytes]) -> None:
        worker.kill()
        worker.wait(STOP_S)
        _let_go(worker)
        self._worker = None
        with database.opened(self._library.database) as db, database.atomic(db):
            jobs.lay_down(db, self._kind)

    def _look(self, now_s: float) -> None:
        """Whether something waits in the store, and whether what runs still moves."""
        with database.opened(self._library.database) as db:
            if jobs.unfinished(db, self._kind):
                self._wanted.set()
                self._queue.top_up(db, self._kind)
            waits = 0.0 if self._worker is None else self._library.sign_of_life(self._worker.pid)
            sign = (jobs.signs_of_life(db, self._kind), waits)
            if sign != self._sign or not sign[0] or self._worker is None:
                self._sign, self._sign_s = sign, now_s
            elif now_s - self._sign_s > STUCK_S:
                with database.atomic(db):  # else the store is locked, and nobody can tell
                    log.warning("the %s worker gave no sign of life; ending it", self._kind)
                self._stuck, self._sign_s = True, now_s
                self._worker.kill()


def start_worker(root: Path, kind: Kind) -> subprocess.Popen[bytes]:
    """A worker process for the library in a folder. It is in a session of its own: Ctrl+C in the
    terminal is for the server, which ends it. Its input ends with this process, however that
    ends."""
    return subprocess.Popen(
        [sys.executable, "-m", "ridgewind.jobs.worker", str(root), kind],
        stdin=subprocess.PIPE,
        start_new_session=True,
        creationflags=getattr(subprocess, "CREATE_NEW_PROCESS_GROUP", 0),
    )


def _let_go(worker: subprocess.Popen[bytes] | None) -> None:
    """End the input of a worker that has ended."""
    if worker is not None and worker.stdin is not None:
        with suppress(OSError):
            worker.stdin.close()
