"""Requests and responses of the list: what it is narrowed by, its order, and its pages."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.web.models import FeelName, Model, RowId, Strict
from ridgewind.web.takes.models import ChoiceName, OriginName, RemedyName, TakeLine

SortName = Literal["imported", "recorded", "name", "gust", "length", "worth"]


class TakePage(Model):
    """stamp: of what was kept when it was read, see `Pulse`. total: takes that fit the filter. all:
    takes in the library. busy: jobs not ended. stale: takes still to be judged again after a brief
    has changed."""

    stamp: str
    takes: list[TakeLine]
    total: int
    all: int
    busy: int
    stale: int


class FilterQuery(Strict):
    """What the list is narrowed by; what is left out stays open."""

    remedy: RemedyName | Literal["none"] | None = None
    feel: FeelName | None = None
    text: str | None = Field(default=None, max_length=120)
    day: str | None = Field(default=None, pattern=r"^\d{4}-\d\d-\d\d$")
    session_id: RowId | None = None
    drill_key: str | None = Field(default=None, max_length=80)
    variation_key: str | None = Field(default=None, max_length=80)
    setup_id: RowId | None = None
    cause: str | None = Field(default=None, max_length=40)
    choice: ChoiceName | Literal["open"] | None = None
    origin: OriginName | Literal["any"] | None = None


class OrderQuery(FilterQuery):
    """A filter and an order."""

    sort: SortName = "imported"
    descending: bool = True


class ListQuery(OrderQuery):
    offset: int = Field(default=0, ge=0)
    limit: int = Field(default=100, ge=1, le=200)


class Pulse(Model):
    """stamp: changes with whatever is kept. all: takes. busy: films that wait or are measured.
    stale: takes whose line is out of date."""

    stamp: str
    all: int
    busy: int
    stale: int
