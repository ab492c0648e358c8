"""Requests and responses of the kit.

The core's dataclasses stand in them as they are: pydantic reads their types, and their own
rules refuse nonsense with the name of the field.
"""

from __future__ import annotations

from pydantic import Field

from ridgewind.core.kit.bench import Bench
from ridgewind.core.kit.items import Camera, Lens, Optics, Support
from ridgewind.web.models import Model, RowId, RowIds, Strict

NAME = Field(min_length=1, max_length=120)


class ItemPath(Model):
    item_id: RowId


class SetupPath(Model):
    setup_id: RowId


class CameraAsk(Strict):
    name: str = NAME
    spec: Camera


class LensAsk(Strict):
    name: str = NAME
    spec: Lens


class SupportAsk(Strict):
    name: str = NAME
    spec: Support


class KitItem(Model):
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
    camera_id: RowId
    lens_id: RowId
    support_ids: RowIds = Field(max_length=20)
    optics: Optics
    bench: Bench


class SetupChange(SetupAsk):
    """base: the set-up as it was when the change was begun; what was changed elsewhere since then
    is not overwritten. None overwrites it."""

    base: SetupAsk | None = None


class SetupItem(SetupAsk):
    """takes: how many were filmed with it. usual: new takes are filmed with it."""

    id: int
    focal_eq_mm: float
    typical: bool
    archived: bool
    usual: bool
    takes: int


class Kit(Model):
    cameras: list[CameraItem]
    lenses: list[LensItem]
    supports: list[SupportItem]
    setups: list[SetupItem]


class ChangedItem(Model):
    """setups: how many set-ups, and through them takes, were worked out again."""

    id: int
    setups: int
