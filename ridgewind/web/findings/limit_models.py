"""Requests and responses of limits."""

from __future__ import annotations

from ridgewind.web.models import Model, NamedLink, RowId, Strict


class LimitsQuery(Strict):
    brief_id: RowId | None = None


class ChanceCurve(Model):
    """Chance of passing, 0 to 1, by equivalent focal length, mm."""

    focal_mm: list[float]
    chance: list[float]


class HoldLine(Model):
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


class WalkLine(Model):
    """cadence: the fastest, steps a minute, that passes four times in five; null where none does.
    at_most_walked: every cadence that was walked passes, so that the limit lies beyond. slope: gust
    a further step a minute. cadences, gusts, take_ids: of the takes that it is from."""

    cadence: float | None
    at_most_walked: bool
    slope: float
    cadences: list[float]
    gusts: list[float]
    take_ids: list[int]


class TechniqueLine(Model):
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


class StrapLine(Model):
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


class LensLine(Model):
    name: str
    low_mm: float
    high_mm: float


class LimitsAnswer(Model):
    """target: gust that the brief allows, on the usual screen. focal_eq_mm: of the set-up in use,
    null without one."""

    brief: NamedLink
    briefs: list[NamedLink]
    target: float
    techniques: list[TechniqueLine]
    strap: StrapLine | None
    lenses: list[LensLine]
    focal_eq_mm: float | None


class TiringLine(Model):
    """Gust over the take's place in its session. a_take: that each further take adds, between low
    and high nine times in ten. gust_first, gust_last: of the usual take at the first and the
    last place drawn. until: the last take at which four in five pass, 0 where none does; null where
    no tiring is told, or none that matters."""

    a_take: float
    low: float
    high: float
    gust_first: float
    gust_last: float
    margin: float
    until: int | None


class RestingLine(Model):
    """Gust over the rest before a take. doubled: that twice the rest adds (below nothing: it
    helps). gust_short, gust_long: of the usual take after the shortest and the longest rest.
    enough_s: the shortest rest after which four in five pass; null where none is told."""

    doubled: float
    low: float
    high: float
    gust_short: float
    gust_long: float
    margin: float
    enough_s: float | None


class EnduranceLine(Model):
    """margin: gust over the usual take under which four in five lie. hint: of too few takes."""

    key: str
    name: str
    drill_key: str
    drill: str
    takes: int
    hint: bool
    tiring: TiringLine | None
    resting: RestingLine | None


class EnduranceAnswer(Model):
    """target: gust that the brief allows, on the usual screen. last_place: to which tiring is
    drawn. shortest_s, longest_s: of the rests that were taken; null where none is known.
    rests_alike: too alike to say what a longer one is worth."""

    target: float
    last_place: int
    shortest_s: float | None
    longest_s: float | None
    rests_alike: bool
    techniques: list[EnduranceLine]
