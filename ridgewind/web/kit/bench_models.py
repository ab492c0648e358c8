"""Requests and responses of the bench.

The core's dataclasses stand in them as they are, as in kit/models.py.
"""

from __future__ import annotations

from pydantic import Field

from ridgewind.core.kit.balance import Balance, RigPart
from ridgewind.core.kit.bench import Shake
from ridgewind.core.kit.moving import PlannedMove
from ridgewind.core.kit.optics import Picture
from ridgewind.core.kit.strap import StrapPlan
from ridgewind.core.kit.timing import Timing
from ridgewind.services.benching import PanelProblem, Reach, Source, TakeDot
from ridgewind.web.kit.models import SetupAsk
from ridgewind.web.models import Model, RowId, Strict


class PreviewPath(Model):
    name: str = Field(pattern="^[0-9a-f]{24}$")


class BenchAsk(Strict):
    """A set-up, stored or not, and the brief to judge it by. setup_id: 0 while not stored.
    brief_id: null for the brief in use."""

    setup_id: int = Field(ge=0, le=2**53)
    brief_id: RowId | None
    setup: SetupAsk


class BenchAnswer(Model):
    """One entry a panel, null where a problem says why not."""

    picture: Picture | None
    shake: Shake | None
    source: Source
    dots: list[TakeDot]
    reaches: list[Reach]
    time: Timing | None
    move: PlannedMove | None
    rig: Balance | None
    rig_parts: list[RigPart]
    strap: StrapPlan | None
    strapped: bool = Field(description="The set-up holds a strap")
    problems: list[PanelProblem]


class PreviewAnswer(Model):
    """name: of the film. faster: than life it plays. share: of the move that it shows."""

    name: str
    faster: float
    share: float
