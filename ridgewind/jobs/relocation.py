"""A library's way to another disk, while it is in use up to the last moment."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from ridgewind.jobs.carrying import Carrying, Moving
from ridgewind.library import moving
from ridgewind.library.library import Library


class Relocation:
    """Use as a context manager. on_ready: called once all films are at the new place, so that the
    server can bring the rest over and go on there."""

    def __init__(self, library: Library, *, fault: str | None = None) -> None:
        """fault: why it came back from an earlier way."""
        self._library = library
        self.on_ready: Callable[[], None] = lambda: None
        before = None if fault is None else Moving("out", 0, 0, ended=True, fault=fault)
        self._carrying = Carrying(stopped="stopped; the library stays where it is", before=before)
        self.ready: Path | None = None
        """Where it goes on, None while it does not go."""

    def __enter__(self) -> Relocation:
        return self

    def __exit__(self, *exc: object) -> None:
        self.stop()

    @property
    def moving(self) -> Moving | None:
        """How far it is, None before the first time."""
        return self._carrying.moving

    def begin(self, target: Path) -> None:
        """Raises MoveError where it cannot go there."""
        moving.check(self._library, target)

        def carry() -> None:
            moving.copy_films(self._library, target, on_bytes=self._carrying.moved)

        def go() -> None:
            self.ready = target
            self.on_ready()

        self._carrying.begin("out", moving.size_of(self._library), carry, go)

    def stop(self) -> None:
        """Stay; what was copied is taken up where it goes there again."""
        self._carrying.stop()
