"""Requests and responses of takes side by side."""

from __future__ import annotations

from pydantic import Field

from ridgewind.web.models import Model, Strict
from ridgewind.web.takes.decision_models import DrillLink
from ridgewind.web.takes.models import BandName, FilmPart, RemedyName, TakeLine, TraceColumns


class CompareQuery(Strict):
    """One of the three. takes: numbers with commas between."""

    session: int | None = Field(default=None, ge=1)
    drill: str | None = Field(default=None, max_length=120)
    takes: str | None = Field(default=None, max_length=400)


class SideLine(Model):
    """move_s: when its move begins, s of the browser copy; null where it holds none."""

    take: TakeLine
    part: FilmPart
    variation: str
    session: str
    lee_s: float | None
    evenness: float | None
    move_s: float | None
    verdict: RemedyName | None
    trace: TraceColumns | None
    top_band: BandName | None


class GroupLine(Model):
    """best: takes that cannot be told apart, or the one; reason: why."""

    title: str
    drill: DrillLink | None
    sides: list[SideLine]
    best: list[int]
    reason: str
    missing: int
    missing_words: str


class CompareAnswer(Model):
    title: str
    groups: list[GroupLine]
