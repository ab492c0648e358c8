"""Requests and responses of the shooter's own hand."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ridgewind.web.models import ScreenName, Strict


class HandQuery(Strict):
    """technique: drill/variation; the most filmed where it is left out. rate: of playback, 1 as
    filmed."""

    technique: str | None = Field(default=None, max_length=200)
    focal_eq_mm: float = Field(default=50.0, ge=8, le=1000)
    rate: float = Field(default=1.0, ge=0.05, le=1.0)
    screen: ScreenName = "laptop"


class HandTechnique(BaseModel):
    """hz, density: of pan and tilt together, deg²/Hz."""

    key: str
    name: str
    drill_key: str
    drill: str
    takes: int
    density: list[float]


class Predicted(BaseModel):
    """gust of the mean take; a further one lies between low and high four times in five."""

    gust: float
    low: float
    high: float


class HandAnswer(BaseModel):
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
