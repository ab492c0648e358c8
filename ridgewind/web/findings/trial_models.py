"""Requests and responses of trials."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.web.models import Model, Strict


class FigureLine(Model):
    """gust: it is on the scale of gust; else in percent."""

    key: str
    words: str
    gust: bool


class TrialSide(Model):
    """A variation. takes: that count. best: chance that it is the steadiest, null where nothing is
    known of the spread. The rest is against the control, and null for it: difference with the
    bounds between which it lies with a chance of nine in ten, p, takes a side that are still
    wanted (null also where it is not gust that is compared), and whether it is only a hint."""

    key: str
    name: str
    control: bool
    takes: int
    best: float | None
    difference: float | None
    low: float | None
    high: float | None
    p: float | None
    more_takes: int | None
    hint: bool


class PlaceLine(Model):
    """What a further take in a session adds, fatigue above all."""

    value: float
    low: float | None
    high: float | None


class TrialTakeLine(Model):
    """place: among the filmed takes of its session. why_out: why it does not count, "" where it
    does. chosen: the shooter said so."""

    take_id: int
    name: str
    session_id: int
    session: str
    variation: str
    place: int
    filmed_at: str | None
    value: float | None
    gust: float | None
    felt: str | None
    why_out: str
    chosen: bool


class DrillTrial(Model):
    """sides: the plain control first. spread: of takes within a session, null where it is not
    known. next_round: variations to film next. rounds: of them. why_not: why nothing can be
    compared, "" where it can."""

    drill_key: str
    drill: str
    figure: FigureLine
    figures: list[FigureLine]
    sides: list[TrialSide]
    takes: list[TrialTakeLine]
    sessions: int
    dof: int | None
    spread: float | None
    place: PlaceLine | None
    next_round: list[str]
    rounds: int
    why_not: str


class TrialLine(Model):
    """A drill in the list. best: the side that is most likely the steadiest, null where none can be
    named. settled: every difference is told well enough."""

    drill_key: str
    drill: str
    takes: int
    sessions: int
    best: str | None
    chance: float | None
    hint: bool
    settled: bool


class TrialList(Model):
    trials: list[TrialLine]


class TrialPath(Model):
    drill_key: str = Field(max_length=80)


class TrialQuery(Strict):
    by: str | None = Field(default=None, max_length=40)


class PickedQuery(Strict):
    """takes: ids, separated by commas. grouping: what tells them apart. control: name of the group
    that the others are compared with; the largest where it is left out."""

    takes: str = Field(pattern=r"^[0-9]{1,15}(,[0-9]{1,15})*$", max_length=8000)
    grouping: Literal["variation", "setup", "lens", "brief"] = "variation"
    control: str | None = Field(default=None, max_length=200)
    by: str | None = Field(default=None, max_length=40)


class CountsAsk(Strict):
    """counts: null leaves it to what is known of the take."""

    counts: bool | None
