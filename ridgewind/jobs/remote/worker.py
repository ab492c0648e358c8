"""A worker on another machine: takes numbers from the broker, or asks the server where there is
none, fetches the film, lets a process of its own do the work, and sends back what came of it.

Whatever happens to it costs a piece of work at most, which another then does: it is heard of every
two seconds, and what comes after it was given up is dropped.
"""

from __future__ import annotations

import logging
import os
import shutil
import threading
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path
from typing import TypeVar

from ridgewind.jobs.remote import child
from ridgewind.jobs.remote.broker import Broker, BrokerError
from ridgewind.jobs.remote.client import (
    AwayError,
    Loan,
    LostError,
    NoSeatError,
    RefusedError,
    Server,
    UnfitPartError,
)
from ridgewind.jobs.remote.hands import Hands
from ridgewind.store.jobs import LENT_KINDS, Kind

log = logging.getLogger(__name__)

ASK_S, ASK_BESIDE_BROKER_S = 1.0, 5.0
"""Between two questions to the server whether work waits; the second where a broker says so."""

AGAIN_S, LONGEST_AGAIN_S = 0.5, 15.0
"""Before a server that is away is asked again; doubled each time."""

NO_ROOM_S = 30.0
STUCK_S = 600.0
"""Without progress for so long, a decoder hangs (as on the server's own machine)."""

TRIES = 3
"""Of sending a result that arrives otherwise than it was sent."""

LOOK_S = 0.05
END_S = 5.0
MOST_FILMS = 4
"""That are kept while it works, for films that are rendered several times."""

SENT: dict[str, str] = {
    "result": child.RESULT,
    "copy": child.COPY,
    "still": child.STILL,
    "film": child.FILM,
}
"""File of each part that is sent back."""


T = TypeVar("T")


class PutDown(Exception):  # noqa: N818 - not an error: another does it, or nobody wants it
    """The work is not to be gone on with."""


@dataclass
class _State:
    """done: share of what is worked at. down: it is to be put down. refused: why the server wants
    this worker no more."""

    done: float | None = None
    down: bool = False
    refused: str | None = None


class Worker:
    """One worker. folder: its own, for films and results. new_broker: called with the library's
    name there; None for no broker. tell: called with a line for whoever runs it."""

    def __init__(
        self,
        server: Server,
        folder: Path,
        *,
        version: str,
        new_broker: Callable[[str], Broker] | None = None,
        tell: Callable[[str], None] = lambda _line: None,
        stopping: threading.Event | None = None,
    ) -> None:
        self._server, self._folder, self._version = server, folder, version
        self._new_broker, self._tell = new_broker, tell
        self._stopping = stopping or threading.Event()
        self._hands = Hands()
        self._broker: Broker | None = None
        self._broker_away = False
        self._seat, self._beat_s = 0, 2.0
        self._next_ask_s = 0.0

    def run(self) -> None:
        """Work until it is stopped, here or by the shooter. Raises RefusedError."""
        shutil.rmtree(self._folder, ignore_errors=True)
        self._folder.mkdir(parents=True)
        try:
            self._sit()
            while not self._stopping.is_set():
                loan = self._bearing(self._next)
                if loan is not None:
                    self._work(loan)
        except PutDown:
            pass
        finally:
            self._hands.kill()
            with suppress(Exception):
                self._server.leave(self._seat)
            shutil.rmtree(self._folder, ignore_errors=True)

    def _sit(self) -> None:
        hello = self._bearing(
            lambda: self._server.hello(version=self._version, cores=os.cpu_count() or 1)
        )
        self._seat, self._beat_s = hello.seat, hello.beat_s
        if self._new_broker is not None and self._broker is None:
            self._broker = self._new_broker(hello.queue)
        self._tell("ready; waiting for work")

    def _bearing(self, ask: Callable[[], T], *, state: _State | None = None) -> T:
        """Ask until the server answers. Raises PutDown where this worker, or the work, is stopped
        meanwhile, and RefusedError."""
        pause_s, told = AGAIN_S, False
        while True:
            try:
                return ask()
            except NoSeatError:
                self._sit()
            except AwayError as error:
                if not told:
                    self._tell(f"the server is away ({error}); trying again")
                told = True
                if self._stopping.wait(pause_s):
                    raise PutDown from error
                pause_s = min(2 * pause_s, LONGEST_AGAIN_S)
            if state is not None:
                _check(state)

    def _next(self) -> Loan | None:
        """Work, or None after a moment without any."""
        for kind in LENT_KINDS:
            number = self._number(kind)
            if number is not None:
                loan = self._server.claim(self._seat, kind, number)
                if loan is not None:
                    return loan
        now_s = time.monotonic()
        if now_s >= self._next_ask_s:
            beside = self._broker is not None and not self._broker_away
            self._next_ask_s = now_s + (ASK_BESIDE_BROKER_S if beside else ASK_S)
            for kind in LENT_KINDS:
                loan = self._server.claim(self._seat, kind, None)
                if loan is not None:
                    self._next_ask_s = 0.0
                    return loan
        self._stopping.wait(LOOK_S)
        return None

    def _number(self, kind: Kind) -> int | None:
        if self._broker is None:
            return None
        try:
            number = self._broker.take(kind)
        except BrokerError as error:
            if not self._broker_away:
                self._tell(f"the broker is away ({error}); asking the server instead")
            self._broker_away = True
            return None
        if self._broker_away:
            self._tell("the broker is back")
        self._broker_away = False
        return number

    def _work(self, loan: Loan) -> None:
        """Do one piece of work, and send back what came of it."""
        what = "measuring" if loan.kind == "measure" else "rendering"
        self._tell(f"{what} a film of {loan.size_bytes / 1e6:.0f} MB")
        state, ended = _State(0.0), threading.Event()
        beating = threading.Thread(target=self._beat, args=(loan, state, ended), daemon=True)
        beating.start()
        place = self._folder / "work"
        place.mkdir()
        try:
            how = self._done(loan, place, state)
            if how == "done":
                how = self._sent(loan, place, state)
            if how != "done":
                self._bearing(lambda: self._server.give_back(self._seat, loan.lease, how))
                how = f"given back: {how}"
            self._tell(how)
        except (LostError, PutDown):
            self._tell("put down: stopped, or another machine does it")
            with suppress(Exception):
                self._server.give_back(self._seat, loan.lease, "put_down")
        finally:
            ended.set()
            beating.join(END_S)
            shutil.rmtree(place, ignore_errors=True)
        if state.refused is not None:
            raise RefusedError(state.refused)

    def _beat(self, loan: Loan, state: _State, ended: threading.Event) -> None:
        while not ended.wait(self._beat_s):
            try:
                if not self._server.beat(self._seat, loan.lease, state.done):
                    state.down = True
            except RefusedError as error:
                state.refused, state.down = str(error), True
            except NoSeatError:
                with suppress(Exception):
                    self._sit()
            except Exception as error:
                log.debug("no sign of life could be given: %s", error)

    def _done(self, loan: Loan, place: Path, state: _State) -> str:
        """Fetch the film and let a process do it; returns how that ended."""
        try:
            film = self._fetched(loan, state)
            (place / child.ORDER).write_text(loan.order, encoding="utf-8")
            return self._ran(place, film, state)
        except OSError as error:
            self._tell(f"this machine cannot: {error}; trying again in {NO_ROOM_S:.0f} s")
            self._stopping.wait(NO_ROOM_S)
            return "no_room"

    def _fetched(self, loan: Loan, state: _State) -> Path:
        films = self._folder / "films"
        films.mkdir(exist_ok=True)
        film = films / loan.sha256
        if not film.exists():
            kept = sorted(films.iterdir(), key=lambda one: one.stat().st_mtime)
            for old in kept[: max(0, len(kept) - MOST_FILMS + 1)]:
                old.unlink(missing_ok=True)
            self._bearing(
                lambda: self._server.fetch(loan, film, lambda: self._goes_on(state)), state=state
            )
        os.utime(film)
        return film

    def _ran(self, place: Path, film: Path, state: _State) -> str:
        self._hands.begin(place, film)
        try:
            while (how := self._hands.ended()) is None:
                self._goes_on(state)
                state.done = self._hands.done
                if time.monotonic() - self._hands.heard_s > STUCK_S:
                    self._hands.kill()
                    return "stuck"
                time.sleep(LOOK_S)
        except PutDown:
            self._hands.kill()
            raise
        if how == "no_room":
            raise OSError("its disk is full")
        return how

    def _sent(self, loan: Loan, place: Path, state: _State) -> str:
        for _ in range(TRIES):
            try:
                self._bearing(lambda: self._send(loan, place, state), state=state)
            except UnfitPartError:
                continue
            return "done"
        return "unforeseen"

    def _send(self, loan: Loan, place: Path, state: _State) -> None:
        """What came of it; whole or not at all."""
        digests = {}
        for name, file in SENT.items():
            path = place / file
            if path.exists():
                digests[name] = self._server.send(
                    loan.lease, name, path, lambda: self._goes_on(state)
                )
        self._server.finish(self._seat, loan.lease, digests)

    def _goes_on(self, state: _State) -> None:
        if self._stopping.is_set():
            raise PutDown
        _check(state)


def _check(state: _State) -> None:
    if state.down:
        raise PutDown
