"""Large files on their way to another disk in a thread of its own: how far they are, stopped, or
why that ended early."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

from ridgewind.media.errors import MediaError

log = logging.getLogger(__name__)

STOP_S = 10.0
PULLED = "the disk was pulled out, or cannot be written"

Direction = Literal["out", "back"]


@dataclass(frozen=True)
class Moving:
    """direction: to the other disk, or back. done, total: bytes. fault: why it ended early."""

    direction: Direction
    done: int
    total: int
    ended: bool = False
    fault: str | None = None


class Stopped(Exception):  # noqa: N818 - not an error: the shooter asked for it
    """The shooter asked to stop."""


class Carrying:
    """One thread at most; `stop` it at the end. What was carried when it is stopped stays
    carried. stopped: what is said then. before: what was told of an earlier one."""

    def __init__(self, *, stopped: str, before: Moving | None = None) -> None:
        self._said_when_stopped = stopped
        self._stopping = threading.Event()
        self._thread: threading.Thread | None = None
        self.moving: Moving | None = before
        """What it does, or did last; None before the first time."""

    def begin(
        self,
        direction: Direction,
        total: int,
        carry: Callable[[], None],
        after: Callable[[], None] = lambda: None,
    ) -> None:
        """Carry, and tell of each piece by `moved`. after: called where all of it came."""
        self.stop()
        self._stopping.clear()
        self.moving = Moving(direction, 0, total)
        self._thread = threading.Thread(target=self._work, args=(carry, after), daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Leave what is not carried yet where it is."""
        self._stopping.set()
        if self._thread is not None and self._thread is not threading.current_thread():
            self._thread.join(STOP_S)

    def moved(self, count: int) -> None:
        """So many bytes more. Raises Stopped."""
        if self._stopping.is_set():
            raise Stopped
        assert self.moving is not None
        self.moving = replace(self.moving, done=self.moving.done + count)

    def expect(self, total: int) -> None:
        """So many bytes are to be carried."""
        assert self.moving is not None
        self.moving = replace(self.moving, total=total)

    def _work(self, carry: Callable[[], None], after: Callable[[], None]) -> None:
        fault = None
        try:
            carry()
        except Stopped:
            fault = self._said_when_stopped
        except MediaError as error:
            fault = f"{error.what}: {error.next_step}"
        except OSError as error:
            log.warning("files could not be moved: %s", error)
            fault = PULLED
        except Exception:
            log.exception("files could not be moved")
            fault = "it failed in a way that was not foreseen"
        assert self.moving is not None
        self.moving = replace(self.moving, ended=True, fault=fault)
        if fault is None:
            after()
