"""Requests and responses of the shooter's own eye."""

from __future__ import annotations

from pydantic import Field

from ridgewind.web.models import FeelName, Model, RowId, Strict
from ridgewind.web.takes.models import FilmPart


class ThresholdLine(Model):
    value: float
    low: float
    high: float
    width: float
    marks: int
    offered: bool


class MarkLine(Model):
    take_id: int
    take_name: str
    smooth: bool
    blind: bool
    gust: float
    crop_pct: float | None
    by: float = Field(description="How far it is from what the number expects, in gust")


class FeelEye(Model):
    """default: the target that the feel ships with. used: targets of its named briefs."""

    feel: FeelName
    default: float
    threshold: ThresholdLine
    marks: list[MarkLine]
    surprises: list[MarkLine]
    used: list[float]


class EyeAnswer(Model):
    """polish: how much crop may be taken, percent. unmarked: measured takes without a mark."""

    feels: list[FeelEye]
    polish: ThresholdLine
    unmarked: int


class BlindQuery(Strict):
    feel: FeelName | None = None
    seed: int = Field(default=0, ge=0, le=2**31)


class BlindOrder(Model):
    takes: list[FilmPart]


class FeelPath(Model):
    feel: FeelName


class TargetBefore(Strict):
    brief_id: RowId
    own_target: float | None


class MovedBrief(Strict):
    from_id: RowId
    to_id: RowId


class UsedEye(Strict):
    """What using a threshold changed, to be sent back to undo it."""

    targets: list[TargetBefore]
    moved: list[MovedBrief]
