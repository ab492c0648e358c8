"""A library's way to another disk, while it is in use up to the last moment."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

from ridgewind.jobs.mover import PULLED, STOP_S, Moving, Stopped
from ridgewind.library import moving
from ridgewind.library.library import Library
from ridgewind.media.errors import MediaError

log = logging.getLogger(__name__)


class Relocation:
    """One thread at most; use as a context manager. on_ready: called once all films are at the new
    place, so that the server can bring the rest over and go on there."""

    def __init__(self, library: Library, on_ready: Callable[[], None] = lambda: None) -> None:
        self._library, self.on_ready = library, on_ready
        self._stopping = threading.Event()
        self._thread: threading.Thread | None = None
        self.moving: Moving | None = None
        """How far it is, None before the first time."""
        self.ready: Path | None = None
        """Where it goes on, None while it does not go."""

    def __enter__(self) -> Relocation:
        return self

    def __exit__(self, *exc: object) -> None:
        self.stop()

    def begin(self, target: Path) -> None:
        """Raises MoveError where it cannot go there."""
        self.stop()
        moving.check(self._library, target)
        self._stopping.clear()
        self.moving = Moving("out", 0, moving.size_of(self._library))
        self._thread = threading.Thread(target=self._work, args=(target,), daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Stay; what was copied is taken up where it goes there again."""
        self._stopping.set()
        if self._thread is not None and self._thread is not threading.current_thread():
            self._thread.join(STOP_S)

    def _work(self, target: Path) -> None:
        fault = None
        try:
            moving.copy_films(self._library, target, on_bytes=self._moved)
        except Stopped:
            fault = "stopped; the library stays where it is"
        except MediaError as error:
            fault = f"{error.what}: {error.next_step}"
        except OSError as error:
            log.warning("the library could not be moved: %s", error)
            fault = PULLED
        except Exception:
            log.exception("the library could not be moved")
            fault = "it failed in a way that was not foreseen"
        assert self.moving is not None
        self.moving = replace(self.moving, ended=True, fault=fault)
        if fault is None:
            self.ready = target
            self.on_ready()

    def _moved(self, count: int) -> None:
        if self._stopping.is_set():
            raise Stopped
        assert self.moving is not None
        self.moving = replace(self.moving, done=self.moving.done + count)
