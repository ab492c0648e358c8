"""Requests and responses of sessions and their takes."""

from __future__ import annotations

from typing import Literal

from pydantic import AwareDatetime, Field

from ridgewind.core.practice.checks import Check
from ridgewind.core.practice.drill import Drill
from ridgewind.core.practice.matching import Match
from ridgewind.core.practice.session import Ask, Session
from ridgewind.services.filing import LooseFilm
from ridgewind.web.models import Model, RowId, Strict

TakeState = Literal["planned", "filmed", "skipped"]
Felt = Literal["good", "bad"]


class SessionPath(Model):
    session_id: RowId


class SessionTakePath(SessionPath):
    position: int = Field(ge=0)


class SessionAsk(Strict):
    """A session as planned, to be kept."""

    name: str = Field(min_length=1, max_length=120)
    ask: Ask
    plan: Session
    setup_id: RowId | None


class SessionTake(Model):
    position: int
    block: int
    drill_key: str
    variation_key: str
    state: TakeState
    filmed_at: str | None
    felt: Felt | None
    wind: int | None
    fatigue: int | None
    tension: int | None
    take_id: int | None
    gust: float | None
    take_name: str | None


class TakeResult(Model):
    """What is said of a take in the rest after it. state: none without a film. gust: null unless it
    is told. better_by: gust less than the take before it of the same drill. cause, change: "" where
    no cause is clear. figure, advice: as they are said, in sentences."""

    state: Literal["none", "measuring", "told", "failed"]
    take_id: int | None
    gust: float | None
    target: float
    passed: bool | None
    better_by: float | None
    cause: str
    change: str
    figure: str
    advice: str


class SessionItem(Model):
    id: int
    name: str
    made_at: str
    ask: Ask
    plan: Session
    setup_id: int | None
    accepted_at: str | None
    ended_at: str | None
    takes: list[SessionTake]


class TakeOutcome(Model):
    """ridge: as in the list of takes, "" without a measured film. why_out: why its gust counts for
    nothing, "" where it does."""

    ridge: str
    why_out: str


class SessionDetail(Model):
    """drills: of its blocks. checks: by drill key, made from the set-up. cadence_hz: steps a
    second of walks, as on the set-up's bench. outcomes: of its takes."""

    session: SessionItem
    drills: dict[str, Drill]
    checks: dict[str, list[Check]]
    cadence_hz: float
    outcomes: list[TakeOutcome]


class SessionList(Model):
    sessions: list[SessionItem]


class TakeNote(Strict):
    """What became of a take; parts that are left out stay. filmed_at: when it ended, where the
    note had to wait; now where left out. take_id: the film filed under it."""

    state: TakeState | None = None
    filmed_at: AwareDatetime | None = None
    felt: Felt | None = None
    wind: int | None = Field(default=None, ge=0, le=3)
    fatigue: int | None = Field(default=None, ge=1, le=5)
    tension: int | None = Field(default=None, ge=1, le=5)
    take_id: RowId | None = None


class Proposals(Model):
    """films: all that are filed nowhere. rolled_s: by position. offset_s: how far the camera's
    clock is ahead, null where it could not be learnt."""

    films: list[LooseFilm]
    rolled_s: list[float | None]
    matches: list[Match]
    offset_s: float | None


class EndAsk(Strict):
    ended: bool
