"""Requests and responses of briefs."""

from __future__ import annotations

from pydantic import Field

from ridgewind.web.models import FeelName, Model, RowId, ScreenName, Strict


class Likeness(Strict):
    """What an example shows beside its gust. shares: of its shake by band, 0 to 1. move: its kind,
    null where the camera was held."""

    name: str
    shares: dict[str, float]
    move: str | None
    move_s: float | None


class Brief(Strict):
    """Ranges are the core's; see ridgewind/core/brief.py."""

    feel: FeelName
    own_target: float | None = Field(description="Gust allowed, if moved")
    screen: ScreenName
    delivery_fps: float
    delivery_width_px: int
    delivery_height_px: int
    wanted_s: float
    keep_sound: bool
    most_crop_pct: float
    why: str
    likeness: Likeness | None = None


class BriefAsk(Strict):
    """A brief to be kept under a name."""

    name: str = Field(min_length=1, max_length=120)
    brief: Brief


class BriefChange(BriefAsk):
    """base: the brief as it was when the change was begun; what was changed elsewhere since then is
    not overwritten. None overwrites it."""

    base: BriefAsk | None = None


class BriefPath(Model):
    brief_id: RowId


class BriefItem(Model):
    """A named brief. takes: how many point at it. usual: new takes point at it."""

    id: int
    name: str
    brief: Brief
    target: float
    typical: bool
    archived: bool
    usual: bool
    takes: int


class BriefList(Model):
    briefs: list[BriefItem]


class BriefChanged(Model):
    """judged: takes that were judged again at once. left: takes that follow in a moment."""

    item: BriefItem
    judged: int
    left: int
