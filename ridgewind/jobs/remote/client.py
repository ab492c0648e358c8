"""A worker's side of the wire: what it asks the server, and how it bears a bad line.

ServerError
├── RefusedError    the server does not want this worker: another version, no key, asked to stop
├── LostError       the lease is another's
├── NoSeatError     the server knows this process no more
├── UnfitPartError  what was sent arrived otherwise
└── AwayError       it is not reached, or cannot answer now; passes
"""

from __future__ import annotations

import hashlib
import ssl
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import httpx

from ridgewind.store.jobs import Kind

ANSWER_S = 20.0
KEPT_S = 300.0
"""In which the server has kept a result: its copy may be large, and its disk slow."""

PIECE_BYTES = 4 << 20


class ServerError(Exception):
    """Base of what a server does not give. message: for whoever runs the worker."""


class RefusedError(ServerError):
    """The server does not want this worker."""


class LostError(ServerError):
    """The lease is another's."""


class NoSeatError(ServerError):
    """The server knows this process no more."""


class UnfitPartError(ServerError):
    """What was sent arrived otherwise, or is no result."""


class AwayError(ServerError):
    """Not reached, or it cannot answer now."""


BY_CODE: dict[str, type[ServerError]] = {
    "lease_lost": LostError,
    "no_seat": NoSeatError,
    "part": UnfitPartError,
}


@dataclass(frozen=True)
class Hello:
    """seat: of this process. queue: name of the library at the broker. beat_s: between two signs of
    life."""

    seat: int
    queue: str
    beat_s: float


@dataclass(frozen=True)
class Loan:
    """Work that was lent. order: see wire. suffix: of the film's name."""

    lease: str
    kind: Kind
    order: str
    size_bytes: int
    sha256: str


class Server:
    """Asks a server; a method raises ServerError. trusted: what vouches for it, None for one of
    this machine."""

    def __init__(self, address: str, key: str, trusted: ssl.SSLContext | None) -> None:
        self._client = httpx.Client(
            base_url=f"{address.rstrip('/')}/api/worker",
            headers={"Authorization": f"Bearer {key}"},
            verify=trusted if trusted is not None else True,
            timeout=ANSWER_S,
            trust_env=False,
            follow_redirects=False,
        )

    def close(self) -> None:
        """Let go of the line."""
        self._client.close()

    def hello(self, *, version: str, cores: int) -> Hello:
        """Ask for a seat."""
        told = self._ask("POST", "/seats", json={"version": version, "cores": cores})
        return Hello(int(told["seat"]), str(told["queue"]), float(told["beat_s"]))

    def leave(self, seat: int) -> None:
        """Go."""
        self._ask("DELETE", f"/seats/{seat}")

    def claim(self, seat: int, kind: Kind, subject_id: int | None) -> Loan | None:
        """Take work that waits; None where there is none."""
        told = self._ask("POST", f"/seats/{seat}/claim", json={"kind": kind, "subject": subject_id})
        loan = told["loan"]
        return None if loan is None else Loan(**loan)

    def beat(self, seat: int, lease: str | None, done: float | None) -> bool:
        """A sign of life; False where the work is to be put down."""
        told = self._ask("POST", f"/seats/{seat}/beat", json={"lease": lease, "done": done})
        return bool(told["goes_on"])

    def fetch(self, loan: Loan, target: Path, on_progress: Callable[[], None]) -> None:
        """The film of a loan, in pieces, from where an earlier try ended; checked by its content.
        on_progress: called after each piece, may raise to stop."""
        part = target.with_name(f"{target.name}.part")
        with part.open("ab") as file:
            while (here := file.tell()) < loan.size_bytes:
                last = min(here + PIECE_BYTES, loan.size_bytes) - 1
                answer = self._sent(
                    "GET", f"/leases/{loan.lease}/film", headers={"Range": f"bytes={here}-{last}"}
                )
                if len(answer.content) != last - here + 1:
                    raise AwayError("the film came in other pieces than were asked for")
                file.write(answer.content)
                on_progress()
        with part.open("rb") as file:
            digest = hashlib.file_digest(file, "sha256").hexdigest()
        if digest != loan.sha256:
            part.unlink()
            raise AwayError("the film that came is not the one that was sent")
        part.replace(target)

    def send(self, lease: str, name: str, path: Path, on_progress: Callable[[], None]) -> str:
        """A part of a result, in pieces, from where an earlier try ended; returns its SHA-256."""
        place = f"/leases/{lease}/parts/{name}"
        here, size = int(self._ask("GET", place)["received"]), path.stat().st_size
        with path.open("rb") as file:
            while here < size:
                file.seek(here)
                piece = file.read(PIECE_BYTES)
                told = self._ask("PUT", place, params={"at": here}, content=piece)
                here = int(told["received"])
                on_progress()
            file.seek(0)
            return hashlib.file_digest(file, "sha256").hexdigest()

    def finish(self, seat: int, lease: str, digests: dict[str, str]) -> None:
        """Let what was sent be kept."""
        self._ask(
            "POST", f"/seats/{seat}/finish", json={"lease": lease, "parts": digests}, timeout=KEPT_S
        )

    def give_back(self, seat: int, lease: str, how: str) -> None:
        """The work is not done. how: see Leases.give_back."""
        self._ask("POST", f"/seats/{seat}/give-back", json={"lease": lease, "how": how})

    def _ask(self, method: str, path: str, **how: Any) -> dict[str, Any]:
        answer = self._sent(method, path, **how)
        try:
            told = answer.json()
        except ValueError as error:
            raise AwayError("what answers there is no Ridgewind") from error
        if not isinstance(told, dict):
            raise AwayError("what answers there is no Ridgewind")
        return told

    def _sent(self, method: str, path: str, **how: Any) -> httpx.Response:
        try:
            answer = self._client.request(method, path, **how)
        except (httpx.HTTPError, ssl.SSLError, OSError) as error:
            raise AwayError(str(error) or type(error).__name__) from error
        if answer.is_success:
            return answer
        code, words = _told(answer)
        if code in BY_CODE:
            raise BY_CODE[code](words)
        if answer.status_code >= 500:
            raise AwayError(words)
        raise RefusedError(words)


def _told(answer: httpx.Response) -> tuple[str, str]:
    try:
        error = answer.json()["error"]
        return str(error["code"]), f"{error['message']} {error['hint']}"
    except (ValueError, KeyError, TypeError):
        return "", f"what answers there is no Ridgewind ({answer.status_code})"
