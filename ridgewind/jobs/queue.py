"""The persistent queue: huey on its own SQLite file.

A task is one number in, one stored result out. What still needs work is the store's to know (the
table `job`); the queue only hands numbers to whichever process is free, so that losing it loses
nothing, and another broker can take its place.
"""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from pathlib import Path
from typing import TYPE_CHECKING

from ridgewind.library.library import Library
from ridgewind.store import database, jobs
from ridgewind.store.jobs import Kind

if TYPE_CHECKING:
    from huey import SqliteHuey

TASKS: dict[Kind, tuple[str, str]] = {
    "measure": ("ridgewind.jobs.measure", "measure_clip"),
    "render": ("ridgewind.jobs.render", "render_one"),
    "copy": ("ridgewind.jobs.copy", "copy_films"),
    "film": ("ridgewind.jobs.film", "film_one"),
    "assemble": ("ridgewind.jobs.assemble", "assemble_one"),
    "follow": ("ridgewind.jobs.follow", "follow_one"),
}
"""Where the task of each kind stands. Each kind has a queue and a worker process of its own, so
that a preview never waits for a card of films to be measured, and only a worker imports what its
kind needs."""


def open_queue(library: Library, kind: Kind) -> SqliteHuey:
    """One of the library's queues, with its task registered as `run`."""
    # Only where something waits: it looks for every broker's library as it is imported.
    from huey import SqliteHuey  # noqa: PLC0415

    huey = SqliteHuey(name=f"ridgewind-{kind}", filename=str(library.queue), results=False)

    @huey.task(name=kind)  # type: ignore[untyped-decorator]
    def run(number: int) -> None:
        module, name = TASKS[kind]
        getattr(import_module(module), name)(library, number)

    huey.run = run
    return huey


class Queue:
    """Hands waiting subjects to the workers. on_put: called with the kind of what was put."""

    def __init__(
        self, library: Library, *, on_put: Callable[[Kind], None] = lambda _kind: None
    ) -> None:
        self._library, self._on_put = library, on_put
        self._opened: dict[Kind, SqliteHuey] = {}

    def _huey(self, kind: Kind) -> SqliteHuey:
        """Opened at first use, so that an application can be made without a library."""
        if kind not in self._opened:
            self._opened[kind] = open_queue(self._library, kind)
        return self._opened[kind]

    def put(self, kind: Kind, subject_id: int) -> None:
        """Let a subject be worked on."""
        self._huey(kind).run(subject_id)
        self._on_put(kind)

    def refill(self, path: Path) -> int:
        """Queue everything that the store says is waiting or was interrupted; call at start, before
        anything is put.

        Returns how much waits. What the queue file still held is dropped with the file, which may
        be damaged.
        """
        count = 0
        for suffix in ("", "-wal", "-shm"):
            self._library.queue.with_name(self._library.queue.name + suffix).unlink(missing_ok=True)
        with database.opened(path) as db:
            for kind in TASKS:
                with database.atomic(db):
                    jobs.lay_down(db, kind)
                for subject_id in jobs.waiting(db, kind):
                    self.put(kind, subject_id)
                    count += 1
        return count

    def top_up(self, db: database.Connection, kind: Kind) -> None:
        """Queue again what waits in the store while the queue is empty: a message was lost. One
        too many costs nothing, because work is claimed once."""
        waiting = jobs.waiting(db, kind)
        if waiting and self._huey(kind).pending_count() == 0:
            for subject_id in waiting:
                self.put(kind, subject_id)

    def take_up(self, db: database.Connection, kind: Kind, *, stuck: bool) -> None:
        """Queue again what a dead worker was doing. stuck: it was ended because it gave no sign of
        life."""
        for subject_id in jobs.interrupted(db, kind):
            with database.atomic(db):
                again = jobs.crashed(db, kind, subject_id, stuck=stuck)
            if again:
                self.put(kind, subject_id)
