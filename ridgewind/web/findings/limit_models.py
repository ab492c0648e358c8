"""Requests and responses of limits."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ridgewind.web.models import NamedLink, Strict


class LimitsQuery(Strict):
    brief_id: int | None = Field(default=None, ge=1)


class ChanceCurve(BaseModel):
    """Chance of passing, 0 to 1, by equivalent focal length, mm."""

    focal_mm: list[float]
    chance: list[float]


class HoldLine(BaseModel):
    """The share of takes that outlast each second, with bounds. seconds: at which takes were over.
    held_s: of the longest take. eighty: outlasted by 80 % of takes, half: by half of them; null
    where more are left at the end. held: takes that never were over."""

    seconds: list[float]
    share: list[float]
    low: list[float]
    high: list[float]
    held: int
    held_s: float
    eighty: float | None
    eighty_low: float | None
    eighty_high: float | None
    half: float | None


class WalkLine(BaseModel):
    """cadence: the fastest, steps a minute, that passes four times in five; null where none does.
    at_most_walked: every cadence that was walked passes, so that the limit lies beyond. slope: gust
    a further step a minute. cadences, gusts, take_ids: of the takes that it is from."""

    cadence: float | None
    at_most_walked: bool
    slope: float
    cadences: list[float]
    gusts: list[float]
    take_ids: list[int]


class TechniqueLine(BaseModel):
    """A variation of a drill with its limits. longest_mm: equivalent focal length at which four
    takes in five pass. hint: of too few takes to go by."""

    key: str
    name: str
    drill_key: str
    drill: str
    takes: int
    hint: bool
    longest_mm: float
    curve: ChanceCurve
    hold: HoldLine | None
    walk: WalkLine | None


class StrapLine(BaseModel):
    """Gust over tension, 1 to 5, less its session's own: a + b x + c x². lowest: the best tension
    with its bounds; null where there is none inside of what was filmed."""

    a: float
    b: float
    c: float
    lowest: float | None
    low: float | None
    high: float | None
    tensions: list[float]
    gusts: list[float]
    take_ids: list[int]


class LensLine(BaseModel):
    name: str
    low_mm: float
    high_mm: float


class LimitsAnswer(BaseModel):
    """target: gust that the brief allows, on the usual screen. focal_eq_mm: of the set-up in use,
    null without one."""

    brief: NamedLink
    briefs: list[NamedLink]
    target: float
    techniques: list[TechniqueLine]
    strap: StrapLine | None
    lenses: list[LensLine]
    focal_eq_mm: float | None
