"""Requests and responses of the shooter's own hand."""

from __future__ import annotations

from pydantic import Field

from ridgewind.web.models import JobState, Model, RowId, ScreenName, Strict


class HandQuery(Strict):
    """technique: drill/variation; the most filmed where it is left out. rate: of playback, 1 as
    filmed."""

    technique: str | None = Field(default=None, max_length=200)
    focal_eq_mm: float = Field(default=50.0, ge=8, le=1000)
    rate: float = Field(default=1.0, ge=0.05, le=1.0)
    screen: ScreenName = "laptop"


class HandTechnique(Model):
    """hz, density: of pan and tilt together, deg²/Hz."""

    key: str
    name: str
    drill_key: str
    drill: str
    takes: int
    density: list[float]


class Predicted(Model):
    """gust of the mean take; a further one lies between low and high four times in five."""

    gust: float
    low: float
    high: float


class HandAnswer(Model):
    """here: at the lens that was asked. focal_mm, curve: at all lenses. error: the middle of how
    far each take is from what the others predict for it, gust; null for fewer than three takes.
    filmed_mm: the lenses that its takes are from. Null and empty where no take tells anything."""

    techniques: list[HandTechnique]
    hz: list[float]
    chosen: str | None
    takes: int
    filmed_mm: list[float]
    here: Predicted | None
    error: float | None
    focal_mm: list[float]
    curve: list[Predicted]


class FilmAsk(Strict):
    """What to film in a hand: its technique, the lens, and the rate at which it will be played."""

    technique: str = Field(max_length=200)
    focal_eq_mm: float = Field(ge=8, le=1000)
    rate: float = Field(default=1.0, ge=0.05, le=1.0)


class FilmPath(Model):
    film_id: RowId


class HandFilm(Model):
    """A film in the shooter's hand, on its way or there. progress: 0 to 1, null while it waits.
    predicted: what it should read, as filmed on a laptop. fault: why it failed, or waits. take_id:
    of the simulated take, once it is filmed."""

    id: int
    name: str
    state: JobState
    progress: float | None
    predicted: Predicted
    fault: str | None
    take_id: int | None


class ProfileQuery(Strict):
    brief_id: RowId | None = None


class ProfileLine(Model):
    """deg_s: mean body speed, between low and high nine times in ten. shares: of drift, breath,
    sway, step, jitter and buzz in what is seen. longest_mm: that it bears under the brief."""

    key: str
    name: str
    drill_key: str
    drill: str
    takes: int
    deg_s: float
    low: float
    high: float
    shares: list[float]
    longest_mm: float
    hint: bool


class GainLine(Model):
    """over: gust over its mark; null where it was never filmed and works on a kind of shake."""

    drill_key: str
    drill: str
    purpose: str
    over: float | None
    kind: str


class ProfileAnswer(Model):
    target: float
    lines: list[ProfileLine]
    strongest: str
    gains: list[GainLine]
