"""Requests and responses of how to get a shot."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.web.models import FeelName, Model, NamedLink, RowId, ScreenName, Strict

RemedyName = Literal["keep", "slow", "polish", "slow_polish", "nearer"]


class ShotQuery(Strict):
    """brief_id, setup_id: the ones in use where they are left out. feel to delivery_width_px: over
    what the brief says; a delivered size keeps the brief's shape. target: gust that is allowed,
    over the feel's own. focal_eq_mm: through which it is seen."""

    brief_id: RowId | None = None
    setup_id: RowId | None = None
    move: Literal["still", "move", "walk"] = "still"
    focal_eq_mm: float = Field(default=50.0, ge=8, le=1000)
    feel: FeelName | None = None
    target: float | None = Field(default=None, ge=0, le=10)
    wanted_s: float | None = Field(default=None, ge=0.5, le=600)
    keep_sound: bool | None = None
    screen: ScreenName | None = None
    delivery_fps: float | None = Field(default=None, ge=1, le=1000)
    delivery_width_px: int | None = Field(default=None, ge=64, le=20_000)


class OptionLine(Model):
    """fps: to film at. rate: of playback. crop_pct: of a polish. distance: share of the distance to
    stand at. gust: of a usual take, in the end. chance: that a take passes. lasts: that one which
    is smooth enough goes on for the seconds, null where no take tells. longest_s: of its own takes.
    left_px: long side that is left of the picture. works: four in five do. takes: that it is from,
    0 for typical figures. lens: of the kit, null where none reaches. needs: beside a camera.
    seconds: to hold the real shot."""

    key: str
    name: str
    drill_key: str
    drill: str
    variation: str
    needs: list[str]
    remedy: RemedyName
    fps: float
    rate: float
    crop_pct: float | None
    distance: float
    focal_eq_mm: float
    lens: str | None
    gust: float
    chance: float
    lasts: float | None
    longest_s: float | None
    left_px: int
    works: bool
    blurs: bool
    takes: int
    seconds: float


class ReachLine(Model):
    name: str
    low_mm: float
    high_mm: float


class ShotAnswer(Model):
    """three_legs: no way passes more often than not. recorded: takes that the options are from.
    target: gust allowed on the brief's screen."""

    brief: NamedLink
    briefs: list[NamedLink]
    setup: NamedLink
    setups: list[NamedLink]
    feel: FeelName
    wanted_s: float
    keep_sound: bool
    screen: ScreenName
    delivery_fps: float
    delivery_width_px: int
    target: float
    options: list[OptionLine]
    three_legs: bool
    recorded: int
    lenses: list[ReachLine]


class LikePath(Model):
    take_id: RowId


class LikeAnswer(Model):
    """What a clip shows, as a shot like it is asked for."""

    name: str
    feel: FeelName
    target: float
    screen: ScreenName
    focal_eq_mm: float
    move: Literal["still", "move", "walk"]
    wanted_s: float


class SetupOfShot(Strict):
    setup_id: RowId
    focal_eq_mm: float = Field(ge=8, le=1000)
    fps: float = Field(ge=1, le=2000)


class MadeSetup(Model):
    setup_id: int
    before_id: int | None
