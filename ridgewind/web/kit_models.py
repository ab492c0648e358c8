"""Requests and responses of kit and bench.

The core's dataclasses stand in them as they are: pydantic reads their types, and their own
rules refuse nonsense with the name of the field.
"""

from __future__ import annotations

from pydantic import BaseModel, Field

from ridgewind.core.kit.balance import Balance, Part
from ridgewind.core.kit.bench import Bench, Shake
from ridgewind.core.kit.items import Camera, Lens, Optics, Support
from ridgewind.core.kit.moving import Move
from ridgewind.core.kit.optics import Picture
from ridgewind.core.kit.strap import StrapPlan
from ridgewind.core.kit.timing import Timing
from ridgewind.web.brief_models import Strict
from ridgewind.work.benching import Problem, Reach, Source, TakeDot

NAME = Field(min_length=1, max_length=120)


class ItemPath(BaseModel):
    item_id: int = Field(ge=1)


class SetupPath(BaseModel):
    setup_id: int = Field(ge=1)


class PreviewPath(BaseModel):
    name: str = Field(pattern="^[0-9a-f]{24}$")


class CameraAsk(Strict):
    name: str = NAME
    spec: Camera


class LensAsk(Strict):
    name: str = NAME
    spec: Lens


class SupportAsk(Strict):
    name: str = NAME
    spec: Support


class KitItem(BaseModel):
    """setups: names of the set-ups that use it."""

    id: int
    name: str
    typical: bool
    archived: bool
    setups: list[str]


class CameraItem(KitItem):
    spec: Camera


class LensItem(KitItem):
    spec: Lens


class SupportItem(KitItem):
    spec: Support


class SetupAsk(Strict):
    name: str = NAME
    camera_id: int
    lens_id: int
    support_ids: list[int] = Field(max_length=20)
    optics: Optics
    bench: Bench


class SetupItem(SetupAsk):
    """takes: how many were filmed with it. usual: new takes are filmed with it."""

    id: int
    focal_eq_mm: float
    typical: bool
    archived: bool
    usual: bool
    takes: int


class Kit(BaseModel):
    cameras: list[CameraItem]
    lenses: list[LensItem]
    supports: list[SupportItem]
    setups: list[SetupItem]


class BenchAsk(Strict):
    """A set-up, stored or not, and the brief to judge it by. setup_id: 0 while not stored.
    brief_id: null for the brief in use."""

    setup_id: int = Field(ge=0)
    brief_id: int | None
    setup: SetupAsk


class BenchAnswer(BaseModel):
    """One entry a panel, null where a problem says why not."""

    picture: Picture | None
    shake: Shake | None
    source: Source
    dots: list[TakeDot]
    reaches: list[Reach]
    time: Timing | None
    move: Move | None
    rig: Balance | None
    rig_parts: list[Part]
    strap: StrapPlan | None
    problems: list[Problem]


class PreviewAnswer(BaseModel):
    """name: of the film. faster: than life it plays. share: of the move that it shows."""

    name: str
    faster: float
    share: float


class ChangedItem(BaseModel):
    """setups: how many set-ups, and through them takes, were worked out again."""

    id: int
    setups: int
