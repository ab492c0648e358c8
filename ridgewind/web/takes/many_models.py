"""Requests and responses of many takes at once: which, what is changed, what is made of them."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.web.models import Model, RowId, RowIds, Strict
from ridgewind.web.takes.list_models import OrderQuery
from ridgewind.web.takes.models import ChoiceName, TakeName


class IdsQuery(OrderQuery):
    """All that the list would show."""


class TakeIds(Model):
    """In the order of the list."""

    ids: list[int]


class Chosen(Strict):
    """Takes, in the order in which they are meant."""

    ids: RowIds = Field(min_length=1)


class ManyAsk(Chosen):
    """What of all of them is changed; a part that is left out stays. name: numbered from the first;
    null goes back to what each is filed under, or to its file's. own_capture_fps: null leaves it to
    the files. choice: null leaves them open. deleted: hide them."""

    name: TakeName | None = None
    brief_id: RowId | None = None
    setup_id: RowId | None = None
    own_capture_fps: float | None = Field(default=None, ge=1, le=2000)
    choice: ChoiceName | None = None
    deleted: Literal[True] | None = None


class ManyAnswer(Model):
    """change_id: by which it is undone; null of an undo. takes: how many were changed."""

    change_id: int | None
    takes: int


class ChangePath(Model):
    change_id: RowId


class ManyRenders(Model):
    """render_ids: of the films that are being made. passed_over: takes that have nothing to be
    made: kept as shot, to be filmed again, or without a picture."""

    render_ids: list[int]
    passed_over: int


class ExportAsk(Chosen):
    """csv: a row a take. json: the same with every cause and its evidence."""

    form: Literal["csv", "json"]


class CountedValue(Model):
    """A value of a filter, in words, and how many takes it leaves."""

    value: str
    words: str
    takes: int


class Narrowings(Model):
    """What the list could be narrowed by, beside what it is narrowed by already."""

    day: list[CountedValue]
    session_id: list[CountedValue]
    drill_key: list[CountedValue]
    variation_key: list[CountedValue]
    setup_id: list[CountedValue]
    cause: list[CountedValue]
    choice: list[CountedValue]
    origin: list[CountedValue]
