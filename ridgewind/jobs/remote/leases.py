"""Work that is lent to workers on other machines: claimed, heard of, taken back, kept whole.

A worker's process has a seat here. What it works at stands in the table of all work with a lease,
the word that tells this work from the same one lent later. A lease that is not heard of for a while
is taken back; what comes under it after that is dropped. Times are this machine's own and only
grow, so that no clock can be wrong.
"""

from __future__ import annotations

import logging
import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING

from ridgewind import __version__
from ridgewind.core.motion import METHOD
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.remote.seats import LOST_S, Machine, Seat, Seats
from ridgewind.library.library import Library
from ridgewind.media.errors import MISSING, MediaError, UnreadableError
from ridgewind.store import database, jobs, renders, takes
from ridgewind.store.database import Connection
from ridgewind.store.errors import StorageError
from ridgewind.store.jobs import Fault, JobRow, Kind
from ridgewind.store.names import ORIGINAL

if TYPE_CHECKING:  # what is lent brings the decoder along, without which a server starts
    from ridgewind.jobs.remote.parts import Parts
    from ridgewind.jobs.remote.wire import Order

log = logging.getLogger(__name__)

VERSION = f"{__version__} {METHOD}"
"""Workers of another one are refused: they would measure otherwise."""

BEAT_S = 2.0
"""Between two signs of life of a worker."""

CHECK_S = 1.0
STOP_S = 5.0


class LeaseLostError(Exception):
    """The work was taken back, stopped, or done by another."""


@dataclass(frozen=True)
class Lent:
    """Work for a worker. film: that it needs, its bytes and digest."""

    lease: str
    kind: Kind
    order: Order
    film: Path
    size_bytes: int
    sha256: str


@dataclass
class _Loan:
    film: Path
    heard_s: float
    guard: threading.Lock = field(default_factory=threading.Lock)


class Leases:
    """All seats and leases of a server; safe between threads. A thread of its own takes back what
    is not heard of: use as a context manager. on_kept: called when verdicts are to be judged again.
    clock: seconds that only grow."""

    def __init__(
        self,
        library: Library,
        queue: Queue,
        *,
        on_kept: Callable[[], None] = lambda: None,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self._library, self._queue, self._on_kept, self._clock = library, queue, on_kept, clock
        self._seats = Seats(clock)
        self._loans: dict[str, _Loan] = {}
        self._digests: dict[tuple[Path, int, int], str] = {}
        self._stopping = threading.Event()
        self._thread = threading.Thread(target=self._work, daemon=True)

    def __enter__(self) -> Leases:
        self._thread.start()
        return self

    def __exit__(self, *exc: object) -> None:
        self._stopping.set()
        self._thread.join(STOP_S)

    @cached_property
    def _parts(self) -> Parts:
        from ridgewind.jobs.remote.parts import Parts  # noqa: PLC0415

        return Parts(self._library)

    def sit(self, worker_id: int, name: str, machine: Machine) -> int:
        """A process that wants work; returns the number of its seat."""
        return self._seats.sit(worker_id, name, machine)

    def leave(self, seat_id: int, worker_id: int) -> None:
        """It goes; what it was at is another's. Raises NoSeatError."""
        seat = self._seats.of(seat_id, worker_id)
        if seat.task is not None:
            self._take_back(seat.task[2])
        self._seats.leave(seat_id)

    def seats(self) -> list[Seat]:
        """All that were heard of lately, the first that came first."""
        return self._seats.here()

    def stop(self, seat_id: int) -> None:
        """Ask a worker to stop; what it is at is another's from now on. Raises NoSeatError."""
        seat = self._seats.stop(seat_id)
        if seat.task is not None:
            self._take_back(seat.task[2])

    def dismiss(self, worker_id: int) -> None:
        """A machine is let in no more."""
        for seat in self.seats():
            if seat.worker_id == worker_id:
                self.stop(seat.id)

    def claim(
        self, seat_id: int, worker_id: int, kind: Kind, subject_id: int | None
    ) -> Lent | None:
        """Lend what waits: a subject, or where None is told the oldest. None where it waits no
        more. Raises NoSeatError, AskedToStopError."""
        seat = self._seats.heard(seat_id, worker_id)
        with database.opened(self._library.database) as db:
            wanted = jobs.waiting(db, kind) if subject_id is None else [subject_id]
            for one in wanted:
                lease = secrets.token_urlsafe(18)
                with database.atomic(db):
                    claimed = jobs.claim(db, kind, one, lease=lease)
                # One that cannot be lent is left to this machine, and keeps none from the next.
                if claimed and (lent := self._lend(db, seat, kind, one, lease)) is not None:
                    return lent
        return None

    def beat(self, seat_id: int, worker_id: int, lease: str | None, done: float | None) -> bool:
        """A sign of life. Returns whether the work goes on; False where it was taken back or is to
        stop. Raises NoSeatError, AskedToStopError."""
        seat = self._seats.heard(seat_id, worker_id)
        if lease is None:
            return True
        loan = self._loans.get(lease)
        if loan is not None:
            loan.heard_s = self._clock()
        with database.opened(self._library.database) as db:
            with database.atomic(db):
                row = jobs.of_lease(db, lease)
                if row is None or jobs.report(db, row.kind, row.subject_id, done):
                    return False
            if seat.task is None:  # begun before this server was started
                self._set_down(seat, row.kind, row.subject_id, lease, db)
        seat.done = done
        return True

    def film_of(self, lease: str) -> Path:
        """The one film that a lease opens. Raises LeaseLostError."""
        with database.opened(self._library.database) as db:
            self._job(db, lease)
        return self._loan(lease).film

    def received(self, lease: str, part: str) -> int:
        """Bytes of a part that are here. Raises LeaseLostError, PartError."""
        self._loan(lease)
        return self._parts.received(lease, part)

    def put(self, lease: str, part: str, offset: int, piece: bytes) -> int:
        """Append to a part; returns how much is here. A piece that begins elsewhere changes
        nothing. Raises LeaseLostError, PartError, and MediaError where the disk is full."""
        with database.opened(self._library.database) as db:
            self._job(db, lease)
        loan = self._loan(lease)
        with loan.guard:
            here = self._parts.append(lease, part, offset, piece)
        loan.heard_s = self._clock()
        return here

    def finish(self, seat_id: int, worker_id: int, lease: str, digests: dict[str, str]) -> None:
        """Keep what a worker sent back, whole or not at all. digests: SHA-256 of each part. Raises
        NoSeatError, LeaseLostError, PartError."""
        from ridgewind.jobs.remote import work  # noqa: PLC0415

        seat = self._seats.heard(seat_id, worker_id)
        loan = self._loan(lease)
        with loan.guard, database.opened(self._library.database) as db:
            job = self._job(db, lease)
            result = self._parts.result(lease, job.kind, digests)
            with database.atomic(db):
                job = self._job(db, lease)
                work.keep(self._library, db, job, lease, self._parts, result)
            self._forget(lease)
        self._seats.end(seat, film_s=work.kept(self._library, job, result))
        self._on_kept()

    def give_back(self, seat_id: int, worker_id: int, lease: str, how: str) -> None:
        """A worker did not end its work. how: crashed or stuck (it counts against the film),
        unforeseen (it is given up), or anything else: no fault of the film. Raises NoSeatError."""
        from ridgewind.jobs.remote import work  # noqa: PLC0415

        self._seats.heard(seat_id, worker_id)
        with database.opened(self._library.database) as db, database.atomic(db):
            job = jobs.of_lease(db, lease)
            if job is None:
                pass
            elif job.cancel_requested:
                jobs.stop(db, job.kind, job.subject_id)
            elif how in ("crashed", "stuck"):
                jobs.crashed(db, job.kind, job.subject_id, stuck=how == "stuck")
            elif how == "unforeseen":
                jobs.fail(db, job.kind, job.subject_id, work.unforeseen(job.kind))
            else:
                jobs.put_back(db, job.kind, job.subject_id)
        self._again(job)
        self._forget(lease)

    def check(self) -> None:
        """Take back what was not heard of."""
        now_s = self._clock()
        with database.opened(self._library.database) as db:
            lent = jobs.lent(db)
        for job in lent:
            assert job.lease is not None
            loan = self._loans.get(job.lease)
            if loan is None:  # lent before this server was started: it may come again
                self._lend_on(job.kind, job.subject_id, job.lease)
            elif now_s - loan.heard_s > LOST_S:
                log.warning("a worker is not heard of; its work waits again")
                self._take_back(job.lease)
        held = {job.lease for job in lent}
        for lease in [one for one in self._loans if one not in held]:
            self._forget(lease)

    def _work(self) -> None:
        while not self._stopping.wait(CHECK_S):
            try:
                self.check()
            except StorageError as error:
                log.warning("lent work could not be looked after (%s); it is tried again", error)
            except Exception:
                log.exception("lent work could not be looked after; it is tried again")

    def _lend(
        self, db: Connection, seat: Seat, kind: Kind, subject_id: int, lease: str
    ) -> Lent | None:
        try:
            order, film = _order(self._library, db, kind, subject_id)
            lent = Lent(lease, kind, order, film, film.stat().st_size, self._digest(film))
        except (MediaError, FileNotFoundError) as error:
            told = error if isinstance(error, MediaError) else UnreadableError(*MISSING)
            with database.atomic(db):
                jobs.fail(db, kind, subject_id, Fault(told.code, told.what, told.next_step))
            return None
        except Exception:
            # What this machine says of it is better than what another could.
            log.exception("%s %s could not be lent; it is left to this machine", kind, subject_id)
            with database.atomic(db):
                jobs.put_back(db, kind, subject_id)
            return None
        self._loans[lease] = _Loan(film, self._clock())
        self._set_down(seat, kind, subject_id, lease, db)
        return lent

    def _lend_on(self, kind: Kind, subject_id: int, lease: str) -> None:
        """Let a worker go on that the server which lent to it left."""
        with database.opened(self._library.database) as db:
            try:
                film = _order(self._library, db, kind, subject_id)[1]
                self._loans[lease] = _Loan(film, self._clock())
            except Exception as error:
                log.warning("%s %s is taken back: %s", kind, subject_id, error)
                with database.atomic(db):
                    jobs.put_back(db, kind, subject_id)

    def _set_down(
        self, seat: Seat, kind: Kind, subject_id: int, lease: str, db: Connection
    ) -> None:
        """Note what a worker is at."""
        clip_id = subject_id
        if kind == "render":
            clip_id = takes.by_id(db, renders.by_id(db, subject_id).take_id).clip_id
        name = next((take.name for take in takes.of_clip(db, clip_id)), "")
        self._seats.begin(seat, (kind, subject_id, lease), name)

    def _job(self, db: Connection, lease: str) -> JobRow:
        row = jobs.of_lease(db, lease)
        if row is None:
            raise LeaseLostError
        return row

    def _loan(self, lease: str) -> _Loan:
        loan = self._loans.get(lease)
        if loan is None:
            raise LeaseLostError
        return loan

    def _take_back(self, lease: str) -> None:
        with database.opened(self._library.database) as db, database.atomic(db):
            job = jobs.of_lease(db, lease)
            if job is not None:
                jobs.put_back(db, job.kind, job.subject_id)
        self._again(job)
        self._forget(lease)

    def _again(self, job: JobRow | None) -> None:
        """Let another do what was given back."""
        if job is not None:
            self._queue.put(job.kind, job.subject_id)

    def _forget(self, lease: str) -> None:
        self._loans.pop(lease, None)
        self._parts.remove(lease)
        self._seats.put_down(lease)

    def _digest(self, film: Path) -> str:
        """Of what is sent along; an original's stands in its name."""
        if ORIGINAL.fullmatch(film.name):
            return film.name.partition(".")[0]
        stat = film.stat()
        key = (film, stat.st_size, stat.st_mtime_ns)
        if key not in self._digests:
            from ridgewind.jobs.remote.parts import sha256_of  # noqa: PLC0415

            self._digests[key] = sha256_of(film)
        return self._digests[key]


def _order(library: Library, db: Connection, kind: Kind, subject_id: int) -> tuple[Order, Path]:
    from ridgewind.jobs.remote import work  # noqa: PLC0415

    return work.order_of(library, db, kind, subject_id)
