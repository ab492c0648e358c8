"""Requests and responses of a feel by example."""

from __future__ import annotations

from pydantic import Field

from ridgewind.web.models import Model, Strict
from ridgewind.web.takes.models import OriginName


class ExampleAsk(Strict):
    """name: of the brief. is_own: the film is a take of the shooter's and stays one; else it is an
    example from now on."""

    name: str = Field(min_length=1, max_length=120)
    is_own: bool = False


class ExampleBrief(Model):
    """target: gust that the new brief allows. before: where the take came from until then."""

    brief_id: int
    target: float
    before: OriginName


class OriginAsk(Strict):
    origin: OriginName
