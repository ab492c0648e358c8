"""Processes on other machines that work, as the server knows them."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass

from ridgewind.store.jobs import Kind

LOST_S = 15.0
"""Without a sign of life for so long a worker is gone, and its work is another's."""

REMEMBERED_S = 24 * 3600.0
"""For so long a worker that sleeps is still told that it was to stop."""


class NoSeatError(Exception):
    """The worker is not known here: the server was started again, or it slept for long."""


class AskedToStopError(Exception):
    """The shooter asked this worker to stop."""


@dataclass(frozen=True)
class Machine:
    """What a worker tells of itself. cores: that it may use."""

    cores: int


@dataclass
class Seat:
    """One process that works. worker_id, name: of the machine. task: what it is at: kind, subject
    and lease. done: its share, None where unknown. film_s, busy_s: of films measured, and the time
    it took. ended: how many pieces of work it has done. stopping: it was asked to stop."""

    id: int
    worker_id: int
    name: str
    machine: Machine
    heard_s: float
    task: tuple[Kind, int, str] | None = None
    task_name: str = ""
    began_s: float = 0.0
    done: float | None = None
    film_s: float = 0.0
    busy_s: float = 0.0
    ended: int = 0
    stopping: bool = False


class Seats:
    """All of a server; safe between threads. clock: seconds that only grow."""

    def __init__(self, clock: Callable[[], float]) -> None:
        self._clock = clock
        self._guard = threading.Lock()
        self._seats: dict[int, Seat] = {}
        self._numbers = 0

    def sit(self, worker_id: int, name: str, machine: Machine) -> int:
        """A process that wants work; returns the number of its seat."""
        with self._guard:
            self._numbers += 1
            self._seats[self._numbers] = Seat(
                self._numbers, worker_id, name, machine, self._clock()
            )
            return self._numbers

    def here(self) -> list[Seat]:
        """All that were heard of lately, the first that came first."""
        now_s = self._clock()
        with self._guard:
            for seat_id, seat in list(self._seats.items()):
                if now_s - seat.heard_s > (REMEMBERED_S if seat.stopping else LOST_S):
                    del self._seats[seat_id]
            return [one for one in self._seats.values() if now_s - one.heard_s <= LOST_S]

    def of(self, seat_id: int, worker_id: int) -> Seat:
        """A machine's own seat. Raises NoSeatError."""
        with self._guard:
            seat = self._seats.get(seat_id)
        if seat is None or seat.worker_id != worker_id:
            raise NoSeatError
        return seat

    def heard(self, seat_id: int, worker_id: int) -> Seat:
        """It gave a sign of life. Raises NoSeatError, AskedToStopError."""
        seat = self.of(seat_id, worker_id)
        if seat.stopping:
            raise AskedToStopError
        seat.heard_s = self._clock()
        return seat

    def stop(self, seat_id: int) -> Seat:
        """Ask it to stop. Raises NoSeatError."""
        with self._guard:
            seat = self._seats.get(seat_id)
            if seat is None:
                raise NoSeatError
            seat.stopping = True
            return seat

    def leave(self, seat_id: int) -> None:
        """It goes."""
        with self._guard:
            self._seats.pop(seat_id, None)

    def begin(self, seat: Seat, task: tuple[Kind, int, str], name: str) -> None:
        """What it is at now. name: of the take."""
        with self._guard:
            seat.task, seat.task_name = task, name
            seat.began_s, seat.done = self._clock(), 0.0

    def end(self, seat: Seat, *, film_s: float) -> None:
        """It has done what it was at. film_s: of film that it measured."""
        with self._guard:
            seat.ended += 1
            seat.film_s += film_s
            seat.busy_s += self._clock() - seat.began_s if film_s else 0.0
            seat.task = None

    def put_down(self, lease: str) -> None:
        """Nobody is at a lease any more."""
        with self._guard:
            for seat in self._seats.values():
                if seat.task is not None and seat.task[2] == lease:
                    seat.task = None
