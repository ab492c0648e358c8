"""A worker's side of the process that does its work: begun once, again where it has died."""

from __future__ import annotations

import json
import subprocess
import sys
import threading
import time
from contextlib import suppress
from pathlib import Path

from ridgewind.jobs.remote import child

END_S = 5.0


class Hands:
    """One process that works, and what it says; it does one thing at a time."""

    def __init__(self) -> None:
        self._process: subprocess.Popen[str] | None = None
        self.done: float | None = None
        """Share of what it is at, None where unknown."""
        self.heard_s = 0.0
        """When it last said something, on the clock that only grows."""
        self._ended: str | None = None

    def begin(self, place: Path, film: Path) -> None:
        """Let it do the order in a folder."""
        if self._process is None or self._process.poll() is not None:
            self._start()
        assert self._process is not None
        assert self._process.stdin is not None
        self.done, self._ended, self.heard_s = 0.0, None, time.monotonic()
        with suppress(OSError):  # it died in this moment, which `ended` tells
            self._process.stdin.write(json.dumps([str(place), str(film)]) + "\n")
            self._process.stdin.flush()

    def ended(self) -> str | None:
        """How it ended: done, no_room, unforeseen or crashed; None while it works."""
        assert self._process is not None
        if self._ended is None and self._process.poll() is not None:
            return "crashed"
        return self._ended

    def kill(self) -> None:
        """End it at once; another is begun for the next piece of work."""
        process, self._process = self._process, None
        if process is None:
            return
        process.kill()
        process.wait(END_S)
        for stream in (process.stdin, process.stdout):
            if stream is not None:
                with suppress(OSError):
                    stream.close()

    def _start(self) -> None:
        self.kill()
        self._process = subprocess.Popen(
            [sys.executable, "-m", child.__name__],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
            encoding="utf-8",
            start_new_session=True,
            creationflags=getattr(subprocess, "CREATE_NEW_PROCESS_GROUP", 0),
        )
        threading.Thread(target=self._listen, args=(self._process,), daemon=True).start()

    def _listen(self, process: subprocess.Popen[str]) -> None:
        assert process.stdout is not None
        with suppress(ValueError):  # closed, because it was killed
            for line in process.stdout:
                if process is self._process:
                    self._hear(line.strip())

    def _hear(self, line: str) -> None:
        self.heard_s = time.monotonic()
        if line.startswith(child.ENDED):
            self._ended = line.removeprefix(child.ENDED).strip()
        else:
            with suppress(ValueError):
                self.done = float(line) if line else None
