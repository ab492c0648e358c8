"""Requests and responses of live steadiness."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ridgewind.web.models import FeelName, Model, ScreenName, Strict

MOST_SAMPLES = 2000


class LiveAsk(Strict):
    """width, height: of the pictures that come, px; left out where turning rates come, for which
    the lens is told. target: the gust that is still calm."""

    width: int | None = Field(None, ge=32, le=960)
    height: int | None = Field(None, ge=32, le=960)
    focal_eq_mm: float | None = Field(None, ge=1, le=3000)
    target: float = Field(ge=0, le=10)
    screen: ScreenName


class LiveBegun(Model):
    key: str


class LivePath(Model):
    key: str = Field(pattern="^[0-9a-f]{32}$")


class PicturesQuery(Strict):
    """times: of the pictures in the body, s, with commas between."""

    times: str = Field(max_length=2000, pattern=r"^\d+(\.\d+)?(,\d+(\.\d+)?)*$")


Rate = Annotated[float, Field(ge=-2000, le=2000)]


class RatesAsk(Strict):
    """Samples of a motion sensor: s, and degrees a second, right, up and clockwise positive."""

    t_s: list[Annotated[float, Field(ge=0, le=1e9)]] = Field(max_length=MOST_SAMPLES)
    pan_deg_s: list[Rate]
    tilt_deg_s: list[Rate]
    roll_deg_s: list[Rate]


class LiveAnswer(Model):
    """gust: of the last second; null where it cannot be told, and reason says why. shares: of it by
    band, drift to buzz. calm_s: for how long it has been calm; best_s: the longest until now.
    whole: gust of all of it."""

    t_s: float
    gust: float | None
    shares: list[float]
    reason: str | None
    calm_s: float
    best_s: float
    whole: float | None


class LiveSetting(Model):
    """What a meter begins with: the brief and the lens of new takes. setup: the name of the set-up
    that has the lens."""

    feel: FeelName
    target: float
    screen: ScreenName
    focal_eq_mm: float
    setup: str
