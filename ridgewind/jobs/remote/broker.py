"""Redis as the queue's broker: numbers of waiting work for whichever machine is free first.

The store knows what waits, and the library's own worker has a queue of its own, so a broker that is
gone, emptied, or full of numbers that are done costs nothing but time. Numbers travel as JSON: what
another program puts there is a number that nobody waits for, never something to be run.
"""

from __future__ import annotations

import json
import logging
import threading
from typing import Any

from huey import RedisHuey
from huey.registry import Message
from huey.serializer import Serializer
from redis.exceptions import RedisError

from ridgewind.library.library import Library
from ridgewind.store import database, jobs
from ridgewind.store.errors import StorageError
from ridgewind.store.jobs import LENT_KINDS, Kind

log = logging.getLogger(__name__)

ANSWER_S = 2.0
"""In which a broker answers, or is gone."""

LOOK_S = 2.0
STOP_S = 5.0
MOST_DONE = 100
"""Numbers beyond twice what waits; with more the broker holds mostly work that is done."""


class BrokerError(Exception):
    """The broker cannot be reached."""


class _Json(Serializer):  # type: ignore[misc]
    """Messages as JSON."""

    def _serialize(self, data: Any) -> bytes:
        return json.dumps(list(data)).encode()

    def _deserialize(self, data: bytes) -> Message:
        values = json.loads(data)
        return Message(*values)._replace(args=tuple(values[6] or ()))


class Broker:
    """One library's queues at a broker. url: redis://…; name: of the library there. Opened at first
    use; every method but `close` raises BrokerError."""

    def __init__(self, url: str, name: str) -> None:
        self._url, self._name = url, name
        self._opened: dict[Kind, RedisHuey] = {}

    def put(self, kind: Kind, subject_id: int) -> None:
        """Hand out a number."""
        self._asked(lambda: self._huey(kind).run(subject_id))

    def waiting(self, kind: Kind) -> int:
        """How many numbers nobody has taken."""
        return int(self._asked(lambda: self._huey(kind).pending_count()))

    def empty(self, kind: Kind) -> None:
        """Drop all numbers."""
        self._asked(lambda: self._huey(kind).flush())

    def take(self, kind: Kind) -> int | None:
        """The next number; None where there is none now."""
        found = self._asked(lambda: self._huey(kind).dequeue())
        number = None if found is None or len(found.args) != 1 else found.args[0]
        return number if isinstance(number, int) else None

    def _huey(self, kind: Kind) -> RedisHuey:
        if kind not in self._opened:
            # With a time limit in the address: huey hands nothing else on beside one.
            joint = "&" if "?" in self._url else "?"
            limits = f"socket_timeout={ANSWER_S}&socket_connect_timeout={ANSWER_S}"
            huey = RedisHuey(
                name=f"ridgewind-{self._name}-{kind}", url=f"{self._url}{joint}{limits}",
                results=False, blocking=False, serializer=_Json(),
            )  # fmt: skip

            @huey.task(name=kind)  # type: ignore[untyped-decorator]
            def run(number: int) -> None:
                raise NotImplementedError("numbers are taken, and not run here")

            huey.run = run
            self._opened[kind] = huey
        return self._opened[kind]

    def _asked(self, ask: Any) -> Any:
        try:
            return ask()
        except (RedisError, OSError) as error:
            raise BrokerError(str(error)) from error
        except Exception as error:
            # Whatever another program has put there; it is taken away by having been read.
            log.warning("the broker gave what is no number: %s", error)
            return None


class Feeder:
    """Tells the broker what waits, in a thread of its own, so that nobody waits for a broker that
    is gone; use as a context manager."""

    def __init__(self, library: Library, broker: Broker) -> None:
        self._library, self._broker = library, broker
        self._told: dict[Kind, set[int]] = {kind: set() for kind in LENT_KINDS}
        self._wanted, self._stopping = threading.Event(), threading.Event()
        self._thread = threading.Thread(target=self._work, daemon=True)
        self.reached: bool | None = None
        """Whether the broker answered last; None before the first time."""

    def __enter__(self) -> Feeder:
        self._thread.start()
        return self

    def __exit__(self, *exc: object) -> None:
        self._stopping.set()
        self._wanted.set()
        self._thread.join(STOP_S)

    def wake(self) -> None:
        """There is work."""
        self._wanted.set()

    def _work(self) -> None:
        while not self._stopping.is_set():
            try:
                with database.opened(self._library.database) as db:
                    for kind in LENT_KINDS:
                        self._tell(kind, jobs.waiting(db, kind))
                reached = True
            except (BrokerError, StorageError) as error:
                reached = isinstance(error, StorageError) and bool(self.reached)
                if self.reached is not False:
                    log.warning("the broker is not reached (%s); work goes on without it", error)
            self.reached = reached
            self._wanted.wait(LOOK_S)
            self._wanted.clear()

    def _tell(self, kind: Kind, waiting: list[int]) -> None:
        held = self._broker.waiting(kind)
        if held > 2 * len(waiting) + MOST_DONE:
            self._broker.empty(kind)
            held = 0
        known = self._told[kind] if held else set()  # emptied: by workers, or by its owner
        for subject_id in waiting:
            if subject_id not in known:
                self._broker.put(kind, subject_id)
        self._told[kind] = set(waiting)
