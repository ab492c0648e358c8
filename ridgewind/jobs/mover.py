"""Moves originals to a second disk, or back from it, while everything else goes on."""

from __future__ import annotations

from pathlib import Path

from ridgewind.jobs.carrying import Carrying, Direction, Moving
from ridgewind.library import second_disk
from ridgewind.library.library import Library
from ridgewind.library.second_disk import SecondDisk
from ridgewind.store import clips, database, jobs


class Mover:
    """Use as a context manager."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._carrying = Carrying(stopped="stopped; what was moved stays moved")

    def __enter__(self) -> Mover:
        return self

    def __exit__(self, *exc: object) -> None:
        self.stop()

    @property
    def moving(self) -> Moving | None:
        """What it does, or did last; None before the first time."""
        return self._carrying.moving

    def begin(self, direction: Direction) -> None:
        """Move all originals that can be moved now."""

        def carry() -> None:
            disk = self._library.second_disk
            if disk is not None:
                self._move(disk, direction)

        self._carrying.begin(direction, 0, carry)

    def stop(self) -> None:
        """Leave what is not moved yet where it is."""
        self._carrying.stop()

    def _move(self, disk: SecondDisk, direction: Direction) -> None:
        library = self._library
        with database.opened(library.database) as db:
            ways = [
                (here, there) if direction == "out" else (there, here)
                for file, cleared in clips.originals(db).items()
                for here, there in (_places(library, disk, file, cleared=cleared),)
            ]
        wanted = [(one, other) for one, other in ways if one.is_file()]
        self._carrying.expect(sum(one.stat().st_size for one, _ in wanted))
        for source, target in wanted:
            if self._is_worked_on(source.name):
                continue  # it stays until the next time
            second_disk.carry(source, target, on_bytes=self._carrying.moved)
        if direction == "back" and not any(one.is_file() for one, _ in ways):
            second_disk.end(library.second_disk_note, disk)

    def _is_worked_on(self, file: str) -> bool:
        with database.opened(self._library.database) as db:
            clip = clips.by_hash(db, file.partition(".")[0])
            return clip is not None and jobs.is_worked_on(db, clip.id)


def _places(library: Library, disk: SecondDisk, file: str, *, cleared: bool) -> tuple[Path, Path]:
    """Where an original is on the library's own disk, and on the second."""
    if cleared:
        return library.cleared / file, disk.cleared / file
    return library.originals / file, disk.folder / file
