"""Streams that tell how far they were read."""

from __future__ import annotations

from collections.abc import Callable
from typing import IO

Progress = Callable[[float], None]
"""Called with the share done, 0 to 1; may raise to stop."""


class WatchedStream:
    """Reads from another stream, and tells how much of it is done before each piece. on_end: called
    once all is read, or more than there was; may raise to refuse it."""

    def __init__(
        self,
        stream: IO[bytes],
        size_bytes: int,
        on_progress: Progress,
        on_end: Callable[[], None] = lambda: None,
    ) -> None:
        self._stream, self._size_bytes, self._on_progress = stream, size_bytes, on_progress
        self._on_end = on_end
        self._done_bytes = 0

    def read(self, size: int = -1) -> bytes:
        """The next piece. Raises what on_progress and on_end raise."""
        self._on_progress(min(1.0, self._done_bytes / max(1, self._size_bytes)))
        piece = self._stream.read(size)
        self._done_bytes += len(piece)
        if not piece or self._done_bytes > self._size_bytes:
            self._on_end()
        return piece
