"""Requests and responses of drills, and of a session before it is kept."""

from __future__ import annotations

from pydantic import Field

from ridgewind.core.practice.drill import Drill
from ridgewind.core.practice.session import Ask, Session
from ridgewind.web.models import Model, Strict


class DrillPath(Model):
    key: str = Field(pattern="^[a-z0-9-]{1,60}$")


class DrillItem(Model):
    """shipped: stays as it is. due_on, last_on: ISO dates, null where it was never filmed.
    ahead: ISO dates on which it falls due if it passes each time."""

    drill: Drill
    shipped: bool
    archived: bool
    due_on: str | None
    last_on: str | None
    overdue: float | None
    ahead: list[str]
    passes: int
    takes: int


class DrillList(Model):
    drills: list[DrillItem]
    weakest: str | None
    today: str


class DrillAsk(Strict):
    drill: Drill


class PlanAsk(Strict):
    ask: Ask


class PlanAnswer(Model):
    plan: Session


class PractiseAsk(Strict):
    """variation: the one that is wanted beside the control; the first ones where it is left out."""

    variation: str | None = Field(default=None, max_length=60)
