"""Copies that are under way: how far each one is, and the wish to stop it."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import IO

from ridgewind.media.errors import MediaError

STOPPED = ("stopped", "the copy was stopped; nothing of it was kept", "bring it in again any time")


@dataclass
class _Copy:
    size_bytes: int
    done_bytes: int = 0
    stopping: bool = False


class Copies:
    """What is being copied, by a ticket that the asker chooses; safe from several threads."""

    def __init__(self) -> None:
        self._open: dict[str, _Copy] = {}
        self._guard = threading.Lock()

    @contextmanager
    def watched(self, ticket: str, stream: IO[bytes], size_bytes: int) -> Iterator[WatchedStream]:
        """A stream whose reading is counted, and refused once the copy is to stop."""
        copy = _Copy(size_bytes)
        with self._guard:
            self._open[ticket] = copy
        try:
            yield WatchedStream(stream, copy)
        finally:
            with self._guard:
                self._open.pop(ticket, None)

    def share(self, ticket: str) -> float | None:
        """How much of a copy is done, 0 to 1; None where none is under way."""
        with self._guard:
            copy = self._open.get(ticket)
        return None if copy is None else min(1.0, copy.done_bytes / max(1, copy.size_bytes))

    def stop(self, ticket: str) -> bool:
        """Let a copy stop at its next piece; False where none is under way."""
        with self._guard:
            copy = self._open.get(ticket)
            if copy is not None:
                copy.stopping = True
        return copy is not None


class WatchedStream:
    """Reads from another stream for `Copies`."""

    def __init__(self, stream: IO[bytes], copy: _Copy) -> None:
        self._stream, self._copy = stream, copy

    def read(self, size: int = -1) -> bytes:
        """The next piece. Raises MediaError where the copy is to stop."""
        if self._copy.stopping:
            raise MediaError(*STOPPED)
        piece = self._stream.read(size)
        self._copy.done_bytes += len(piece)
        return piece
