"""Moves originals to a second disk, or back from it, while everything else goes on."""

from __future__ import annotations

import logging
import threading
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Literal

from ridgewind.library import second_disk
from ridgewind.library.library import Library
from ridgewind.library.second_disk import SecondDisk
from ridgewind.media.errors import MediaError
from ridgewind.store import clips, database, jobs

log = logging.getLogger(__name__)

STOP_S = 10.0
PULLED = "the disk was pulled out, or cannot be written"

Direction = Literal["out", "back"]


@dataclass(frozen=True)
class Moving:
    """direction: to the second disk, or back. done, total: bytes. fault: why it ended early."""

    direction: Direction
    done: int
    total: int
    ended: bool = False
    fault: str | None = None


class Stopped(Exception):  # noqa: N818 - not an error: the shooter asked for it
    """The shooter asked to stop."""


class Mover:
    """One thread at most; use as a context manager. What was moved when it is stopped stays
    moved."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._guard = threading.Lock()
        self._stopping = threading.Event()
        self._thread: threading.Thread | None = None
        self.moving: Moving | None = None
        """What it does, or did last; None before the first time."""

    def __enter__(self) -> Mover:
        return self

    def __exit__(self, *exc: object) -> None:
        self.stop()

    def begin(self, direction: Direction) -> None:
        """Move all originals that can be moved now."""
        self.stop()
        with self._guard:
            self._stopping.clear()
            self.moving = Moving(direction, 0, 0)
            self._thread = threading.Thread(target=self._work, args=(direction,), daemon=True)
            self._thread.start()

    def stop(self) -> None:
        """Leave what is not moved yet where it is."""
        self._stopping.set()
        thread = self._thread
        if thread is not None:
            thread.join(STOP_S)

    def _work(self, direction: Direction) -> None:
        disk = self._library.second_disk
        fault = None
        try:
            if disk is not None:
                self._move(disk, direction)
        except Stopped:
            fault = "stopped; what was moved stays moved"
        except MediaError as error:
            fault = f"{error.what}: {error.next_step}"
        except OSError as error:
            log.warning("originals could not be moved: %s", error)
            fault = PULLED
        except Exception:
            log.exception("originals could not be moved")
            fault = "it failed in a way that was not foreseen"
        assert self.moving is not None
        self.moving = replace(self.moving, ended=True, fault=fault)

    def _move(self, disk: SecondDisk, direction: Direction) -> None:
        library = self._library
        with database.opened(library.database) as db:
            ways = [
                (here, there) if direction == "out" else (there, here)
                for file, cleared in clips.originals(db).items()
                for here, there in (_places(library, disk, file, cleared=cleared),)
            ]
        wanted = [(one, other) for one, other in ways if one.is_file()]
        total = sum(one.stat().st_size for one, _ in wanted)
        self.moving = Moving(direction, 0, total)
        for source, target in wanted:
            if self._is_worked_on(source.name):
                continue  # it stays until the next time
            second_disk.carry(source, target, on_bytes=self._moved)
        if direction == "back" and not any(one.is_file() for one, _ in ways):
            second_disk.end(library.second_disk_note, disk)

    def _moved(self, count: int) -> None:
        if self._stopping.is_set():
            raise Stopped
        assert self.moving is not None
        self.moving = replace(self.moving, done=self.moving.done + count)

    def _is_worked_on(self, file: str) -> bool:
        with database.opened(self._library.database) as db:
            clip = clips.by_hash(db, file.partition(".")[0])
            return clip is not None and jobs.is_worked_on(db, clip.id)


def _places(library: Library, disk: SecondDisk, file: str, *, cleared: bool) -> tuple[Path, Path]:
    """Where an original is on the library's own disk, and on the second."""
    if cleared:
        return library.cleared / file, disk.cleared / file
    return library.originals / file, disk.folder / file
