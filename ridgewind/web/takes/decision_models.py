"""Requests and responses of the decision: what lies behind the remedies, renders, marks."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.web.models import JobState, Model, RowId, Strict
from ridgewind.web.takes.models import ChoiceName, RemedyName

DriftName = Literal["left", "right", "up", "down"]
HintKind = Literal["limit", "lens", "rate", "support", "three_legs"]
Purpose = Literal["preview", "film"]
StrengthName = Literal["Light", "Medium", "Strong"]


class RateLine(Model):
    """step: every which frame is shown, evenly; null where the cadence is uneven."""

    rate: float
    step: int | None
    gust: float | None
    peak: float | None
    plays_s: float
    passes: bool


class StrengthLine(Model):
    """A strength of a polish. within: the brief's crop allows it."""

    corner_hz: float
    crop_pct: float
    gust: float
    peak: float
    passes: bool
    within: bool
    name: StrengthName
    warnings: list[str]


class CurveLine(Model):
    remedy: RemedyName
    strengths: list[StrengthLine]


class HintLine(Model):
    kind: HintKind
    text: str


class DrillLink(Model):
    key: str
    name: str


class RemedyDetails(Model):
    """What lies behind the remedies. drill: that works on the first cause."""

    rates: list[RateLine]
    curves: list[CurveLine]
    hints: list[HintLine]
    drill: DrillLink | None
    drift_crop_pct: float = Field(description="That a slow reframe may take; 0 for none")


class RemedyAsk(Strict):
    """What of a remedy is asked for; what is left out is as the remedy says."""

    remedy: RemedyName
    corner_hz: float | None = Field(default=None, gt=0, le=20)
    rate: float | None = Field(default=None, gt=0, le=4)
    drift: DriftName | None = None
    glide: bool | None = Field(default=None, description="Of a subject that is held")


class RenderAsk(RemedyAsk):
    purpose: Purpose


class RecipeLine(Model):
    """Times are seconds of the browser copy."""

    remedy: RemedyName
    start_s: float
    end_s: float
    rate: float
    step: float
    plays_s: float
    crop_pct: float
    corner_hz: float | None
    drift: DriftName | None
    gust: float | None
    peak_gust: float | None
    glide: bool | None = Field(description="Of a subject that is held; null without one")
    subject_gust: float | None


class RenderLine(Model):
    """A film made from a take. gust, peak_gust: a preview measured again; off: by how much that is
    more than predicted. edge_gust: by the edges of its picture alone. subject_gust: of the subject
    that it holds, measured again."""

    id: int
    take_id: int
    purpose: Purpose
    recipe: RecipeLine
    state: JobState
    progress: float | None
    fault_what: str | None
    fault_next: str | None
    gust: float | None
    peak_gust: float | None
    off: float | None
    unmeasured: str | None
    edge_gust: float | None
    subject_gust: float | None
    size_bytes: int | None
    worked: bool | None = Field(description="Smooth enough to the shooter's own eye")


class RenderList(Model):
    renders: list[RenderLine]


class RenderPath(Model):
    render_id: RowId


class WindowColumns(Model):
    """Windows of a recipe over time: the four corners, x and y from the upper left, 0 to 1."""

    t_s: list[float]
    corners: list[list[float]]


class MarkAsk(Strict):
    """smooth: null takes the mark back. render_id: of the preview that was marked."""

    smooth: bool | None
    blind: bool = False
    render_id: RowId | None = None


class ChoiceAsk(Strict):
    choice: ChoiceName | None
