"""Responses of a season, and of what was noted against what was measured."""

from __future__ import annotations

from pydantic import Field

from ridgewind.web.findings.trial_models import FigureLine
from ridgewind.web.models import Model, Strict


class ProgressQuery(Strict):
    """drill: its key; all drills together where it is left out."""

    drill: str | None = Field(default=None, max_length=100)


class TrendLine(Model):
    """slope: gust a week, between low and high nine times in ten."""

    slope: float
    low: float
    high: float


class RecordLine(Model):
    take_id: int
    name: str
    value: float
    filmed_at: str


class ProgressDrill(Model):
    """takes: that count. usual: the middle of the latest. record: the calmest take that is fully
    trusted, null where none is."""

    drill_key: str
    drill: str
    figure: FigureLine
    target: float
    takes: int
    usual: float
    trend: TrendLine | None
    record: RecordLine | None


class WeekLine(Model):
    """begins: its Monday. minutes: of practice. values: of the takes that are shown."""

    begins: str
    takes: int
    sessions: int
    minutes: float
    values: list[float]
    take_ids: list[int]


class WorkLine(Model):
    """over: gust over the drill's mark. weeks: until it is there as it goes, null where it does not
    surely come down."""

    drill_key: str
    drill: str
    over: float
    target: float
    weeks: float | None


class Season(Model):
    """chosen: the drill whose values the weeks hold; null for all, as how far each take is off its
    own technique's middle. trend: of all."""

    weeks: list[WeekLine]
    drills: list[ProgressDrill]
    chosen: ProgressDrill | None
    trend: TrendLine | None
    work: list[WorkLine]


class EstimateLine(Model):
    value: float
    low: float | None
    high: float | None


class FeelingLine(Model):
    """right: chance, 0 to 1, that of two takes the one that felt good is the steadier. word: what
    it comes to."""

    right: float
    low: float
    high: float
    word: str
    good: int
    bad: int


class FeltTechnique(Model):
    """good, bad: body gust of the takes that felt so."""

    key: str
    name: str
    drill: str
    feeling: FeelingLine | None
    good: list[float]
    bad: list[float]


class TirednessLine(EstimateLine):
    """Gust that a tiredness adds against the least one noted."""

    level: int
    takes: int


class Tiredness(Model):
    """stop_from: the tiredness from which it is worth stopping."""

    base: int
    base_takes: int
    levels: list[TirednessLine]
    stop_from: int | None


class RestLine(Model):
    """doubled: gust that twice the rest before a take adds."""

    doubled: EstimateLine
    usual_s: float
    longest_s: float


class Noted(Model):
    """felt, tired: takes with such a note. tiring: gust that each further take of a session adds;
    stop_after: takes until it adds half a gust, null where it surely adds nothing. rests_alike: no
    rest was different enough to tell its worth."""

    feeling: FeelingLine | None
    techniques: list[FeltTechnique]
    felt: int
    tiredness: Tiredness | None
    tired: int
    tiring: EstimateLine | None
    stop_after: float | None
    rest: RestLine | None
    rests_alike: bool


class FilmLine(Model):
    """A technique, or a planned move (then drill_key is null). takes: on record; used: of them, in
    a film; seconds: on screen. gust: of what was used, null where that cannot be told. usual:
    middle gust of all its takes."""

    name: str
    drill: str
    drill_key: str | None
    takes: int
    used: int
    seconds: float
    gust: float | None
    usual: float


class BecameFilm(Model):
    lines: list[FilmLine]
