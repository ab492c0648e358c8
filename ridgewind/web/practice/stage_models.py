"""Requests and responses of runners in step."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.web.models import Model, Strict

HOLDER = "^[0-9a-z]{6,32}$"


class PlaceBody(Strict):
    """Where a runner is, see ridgewind/services/stages.py."""

    at: int = Field(ge=-1, le=10_000)
    running: bool
    elapsed_s: float = Field(ge=-60, le=1e6)
    grown_s: float = Field(ge=0, le=1e6)
    speed: float = Field(gt=0, le=100)
    can_undo: bool
    slates: bool


class TellAsk(Strict):
    """holder: of the screen that runs the session. take_over: although another does."""

    holder: str = Field(pattern=HOLDER)
    take_over: bool = False
    place: PlaceBody


class TellAnswer(Model):
    """held: this screen runs the session. by: which does. wishes: asked of it, each once."""

    held: bool
    by: str
    wishes: list[Literal["go", "pause", "skip", "repeat", "undo"]]


class StageAnswer(Model):
    """by: name of the screen that runs the session, null where none does. age_s: since it said
    where it is."""

    by: str | None
    holder: str | None
    place: PlaceBody | None
    age_s: float


class WishAsk(Strict):
    wish: Literal["go", "pause", "skip", "repeat", "undo"]


class HolderQuery(Strict):
    holder: str = Field(pattern=HOLDER)
