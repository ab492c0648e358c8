"""All that works beside the pages of one server: processes and threads, begun and ended as one."""

from __future__ import annotations

from contextlib import ExitStack
from typing import TYPE_CHECKING

from ridgewind.jobs.keeper import Keeper
from ridgewind.jobs.mover import Mover
from ridgewind.jobs.queue import TASKS, Queue
from ridgewind.jobs.refresher import Refresher
from ridgewind.jobs.remote.desk import WorkersDesk
from ridgewind.jobs.remote.leases import Leases
from ridgewind.jobs.supervisor import Supervisor
from ridgewind.jobs.watcher import Watcher
from ridgewind.library.library import Library
from ridgewind.services.workers import queue_name
from ridgewind.store import database, settings, workers
from ridgewind.store.jobs import LENT_KINDS, Kind

if TYPE_CHECKING:
    from ridgewind.jobs.remote.broker import Feeder


class Crew:
    """Of a prepared library; use as a context manager. broker: address of the one that hands work
    to other machines, "" for none. resting: measuring and rendering are left to these, as they are
    where that was asked for before and one of them is still let in."""

    def __init__(self, library: Library, *, broker: str = "", resting: bool = False) -> None:
        self._library = library
        self.refresher = Refresher(library)
        queue = Queue(library)
        queue.refill(library.database)
        self.watcher = Watcher(library, queue)
        self.mover = Mover(library)
        self._supervisors = {kind: Supervisor(library, queue, kind) for kind in TASKS}
        self._leases = Leases(
            library, Queue(library, on_put=self.on_put), on_kept=self.refresher.wake
        )
        self._feeder: Feeder | None = None
        if broker:
            # Only then: what speaks to a broker takes a tenth of a start to import.
            from ridgewind.jobs.remote.broker import Broker, Feeder  # noqa: PLC0415

            self._feeder = Feeder(library, Broker(broker, queue_name(library.key())))
        self.desk = WorkersDesk(self._leases, broker, self._reached, self._rest, self._resting)
        with database.opened(library.database) as db:
            before = settings.resting(db) and bool(workers.every(db))
        self._let_rest(resting or before)
        self._stack = ExitStack()

    def __enter__(self) -> Crew:
        # Kept open, so that the files beside the database are there also when the disk is full.
        self._stack.enter_context(database.opened(self._library.database))
        for supervisor in self._supervisors.values():
            self._stack.enter_context(supervisor)
        self._stack.enter_context(self._leases)
        if self._feeder is not None:
            self._stack.enter_context(self._feeder)
        self._stack.enter_context(Keeper(self._library))
        self._stack.enter_context(self.refresher)
        self._stack.enter_context(self.watcher)
        self._stack.enter_context(self.mover)
        return self

    def __exit__(self, *exc: object) -> None:
        self._stack.close()

    def on_put(self, kind: Kind) -> None:
        """There is work of a kind."""
        self._supervisors[kind].wake()
        if self._feeder is not None:
            self._feeder.wake()

    def _reached(self) -> bool | None:
        return None if self._feeder is None else self._feeder.reached

    def _rest(self, resting: bool) -> None:
        with database.opened(self._library.database) as db, database.atomic(db):
            settings.set_resting(db, resting)
        self._let_rest(resting)

    def _let_rest(self, resting: bool) -> None:
        for kind in LENT_KINDS:
            self._supervisors[kind].rest(resting)

    def _resting(self) -> bool:
        return self._supervisors[LENT_KINDS[0]].resting
