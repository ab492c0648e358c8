"""Requests and responses of other machines that work, and of the page that shows them."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.web.models import Model, RowId, Strict

LentKind = Literal["measure", "render"]


class SeatAsk(Strict):
    """version: of Ridgewind and its way of measuring. cores: that the worker may use."""

    version: str = Field(max_length=100)
    cores: int = Field(ge=1, le=4096)


class SeatAnswer(Model):
    """queue: name of the library at the broker. beat_s: between two signs of life."""

    seat: int
    queue: str
    beat_s: float


class SeatPath(Model):
    seat_id: RowId


class ClaimAsk(Strict):
    """subject: number of the work; null for the oldest that waits."""

    kind: LentKind
    subject: int | None = Field(default=None, ge=1)


class LoanAnswer(Model):
    """order: what is to be done, as text. size_bytes, sha256: of the film that it needs."""

    lease: str
    kind: LentKind
    order: str
    size_bytes: int
    sha256: str


class ClaimAnswer(Model):
    """loan: null where nothing waits."""

    loan: LoanAnswer | None


class BeatAsk(Strict):
    """done: share of the work, null where unknown."""

    lease: str | None = Field(default=None, max_length=64)
    done: float | None = Field(default=None, ge=0, le=1)


class BeatAnswer(Model):
    goes_on: bool


class FinishAsk(Strict):
    """parts: SHA-256 of each."""

    lease: str = Field(max_length=64)
    parts: dict[str, str] = Field(max_length=4)


class GiveBackAsk(Strict):
    lease: str = Field(max_length=64)
    how: str = Field(max_length=40)


class PartPath(Model):
    lease: str
    part: str


class PartQuery(Model):
    at: int = Field(ge=0)


class LeasePath(Model):
    lease: str


class ReceivedAnswer(Model):
    received: int


class EmptyAnswer(Model):
    """Done."""


class WorkerPath(Model):
    worker_id: RowId


class WorkerAsk(Strict):
    """name: of the machine that is let in."""

    name: str = Field(min_length=1, max_length=40)


class RestAsk(Strict):
    """resting: leave measuring and rendering to other machines."""

    resting: bool


class SeatLine(Model):
    """A process that works. doing: null while it waits. done: share, null where unknown. speed:
    seconds of film measured in a second, null before the first. ended: pieces of work done."""

    id: int
    cores: int
    doing: LentKind | None
    film: str
    done: float | None
    speed: float | None
    ended: int
    stopping: bool


class WorkerLine(Model):
    """A machine that is let in. seen_at: ISO moment, null where it never came."""

    id: int
    name: str
    let_in_at: str
    seen_at: str | None
    seats: list[SeatLine]


class WorkersAnswer(Model):
    """resting: this computer leaves the work to others. waiting: films that wait to be measured or
    rendered. broker: address without its password, null for none; reached: null while unknown.
    address: at which other machines come, null while it is closed to the network."""

    workers: list[WorkerLine]
    resting: bool
    waiting: int
    broker: str | None
    reached: bool | None
    address: str | None


class LetInAnswer(Model):
    """file: the key's, to be saved; it cannot be told again."""

    workers: WorkersAnswer
    file: str
    file_name: str
