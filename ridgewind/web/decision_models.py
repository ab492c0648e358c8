"""Requests and responses of the decision: ways on, renders, marks, comparisons, settings."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ridgewind.core.judge.cost import HEAVIEST
from ridgewind.web.models import (
    BandName,
    ChoiceName,
    FeelName,
    JobState,
    RemedyName,
    Strict,
    TakeLine,
    TraceColumns,
)

DirectionName = Literal["left", "right", "up", "down"]
HintKind = Literal["lens", "rate", "support", "three_legs"]
Purpose = Literal["preview", "film"]
StrengthName = Literal["Light", "Medium", "Strong"]


class RateLine(BaseModel):
    """step: every which frame is shown, evenly; null where the cadence is uneven."""

    rate: float
    step: int | None
    gust: float | None
    peak: float | None
    plays_s: float
    passes: bool


class StrengthLine(BaseModel):
    """A strength of a polish. within: the brief's crop allows it."""

    corner_hz: float
    crop_pct: float
    gust: float
    peak: float
    passes: bool
    within: bool
    name: StrengthName
    warnings: list[str]


class CurveLine(BaseModel):
    remedy: RemedyName
    strengths: list[StrengthLine]


class HintLine(BaseModel):
    kind: HintKind
    text: str


class DrillLink(BaseModel):
    key: str
    name: str


class WaysAnswer(BaseModel):
    """What lies behind the remedies. drill: that works on the first cause."""

    rates: list[RateLine]
    curves: list[CurveLine]
    hints: list[HintLine]
    drill: DrillLink | None
    drift_crop_pct: float = Field(description="That a slow reframe may take; 0 for none")


class Wanted(Strict):
    """What of a remedy is asked for; what is left out is as the remedy says."""

    remedy: RemedyName
    corner_hz: float | None = Field(default=None, gt=0, le=20)
    rate: float | None = Field(default=None, gt=0, le=4)
    drift: DirectionName | None = None


class RenderAsk(Wanted):
    purpose: Purpose


class RecipeLine(BaseModel):
    """Times are seconds of the browser copy."""

    remedy: RemedyName
    start_s: float
    end_s: float
    rate: float
    step: int
    plays_s: float
    crop_pct: float
    corner_hz: float | None
    drift: DirectionName | None
    gust: float | None
    peak_gust: float | None


class RenderLine(BaseModel):
    """A film made from a take. gust, peak_gust: a preview measured again; off: by how much that is
    more than predicted."""

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
    size_bytes: int | None
    worked: bool | None = Field(description="Smooth enough to the shooter's own eye")


class RenderList(BaseModel):
    renders: list[RenderLine]


class RenderPath(BaseModel):
    render_id: int = Field(ge=1)


class WindowColumns(BaseModel):
    """Windows of a recipe over time: the four corners, x and y from the upper left, 0 to 1."""

    t_s: list[float]
    corners: list[list[float]]


class MarkAsk(Strict):
    """smooth: null takes the mark back. render_id: of the preview that was marked."""

    smooth: bool | None
    blind: bool = False
    render_id: int | None = None


class ChoiceAsk(Strict):
    choice: ChoiceName | None


class ThresholdLine(BaseModel):
    value: float
    low: float
    high: float
    width: float
    marks: int
    offered: bool


class MarkLine(BaseModel):
    take_id: int
    take_name: str
    smooth: bool
    blind: bool
    gust: float
    crop_pct: float | None
    by: float = Field(description="How far it is from what the number expects, in gust")


class FeelEye(BaseModel):
    """default: the target that the feel ships with. used: targets of its named briefs."""

    feel: FeelName
    default: float
    threshold: ThresholdLine
    marks: list[MarkLine]
    surprises: list[MarkLine]
    used: list[float]


class EyeAnswer(BaseModel):
    """polish: how much crop may be taken, percent. unmarked: measured takes without a mark."""

    feels: list[FeelEye]
    polish: ThresholdLine
    unmarked: int


class BlindQuery(Strict):
    feel: FeelName | None = None
    seed: int = Field(default=0, ge=0, le=2**31)


class FilmPart(BaseModel):
    """A take's part of its film, s of the browser copy; to_s: null for all of it."""

    take_id: int
    from_s: float
    to_s: float | None


class BlindOrder(BaseModel):
    takes: list[FilmPart]


class FeelPath(BaseModel):
    feel: FeelName


class TargetBefore(Strict):
    brief_id: int
    own_target: float | None


class MovedBrief(Strict):
    from_id: int
    to_id: int


class UsedEye(Strict):
    """What using a threshold changed, to be sent back to undo it."""

    targets: list[TargetBefore]
    moved: list[MovedBrief]


class CompareQuery(Strict):
    """One of the three. takes: numbers with commas between."""

    session: int | None = Field(default=None, ge=1)
    drill: str | None = Field(default=None, max_length=120)
    takes: str | None = Field(default=None, max_length=400)


class SideLine(BaseModel):
    """move_s: when its move begins, s of the browser copy; null where it holds none."""

    take: TakeLine
    part: FilmPart
    variation: str
    session: str
    lee_s: float | None
    evenness: float | None
    move_s: float | None
    verdict: RemedyName | None
    trace: TraceColumns | None
    top_band: BandName | None


class GroupLine(BaseModel):
    """best: takes that cannot be told apart, or the one; reason: why."""

    title: str
    drill: DrillLink | None
    sides: list[SideLine]
    best: list[int]
    reason: str
    missing: int
    missing_words: str


class CompareAnswer(BaseModel):
    title: str
    groups: list[GroupLine]


class ClearedLine(BaseModel):
    """A film whose original was put aside. gone_on: the day after which it is gone for good; null
    where it is gone."""

    clip_id: int
    name: str
    size_bytes: int
    gone_on: str | None


class ClearedAnswer(BaseModel):
    """rejected: films that could be cleared, and their size. aside: those that were."""

    rejected: int
    rejected_bytes: int
    aside: list[ClearedLine]
    aside_bytes: int


class ClipPath(BaseModel):
    clip_id: int = Field(ge=1)


class WeightsBody(Strict):
    """How much each part of a cost matters, 1 is usual."""

    seconds: float = Field(ge=0, le=HEAVIEST)
    crop: float = Field(ge=0, le=HEAVIEST)
    sharpness: float = Field(ge=0, le=HEAVIEST)
    sound: float = Field(ge=0, le=HEAVIEST)
    desk: float = Field(ge=0, le=HEAVIEST)


class WeightsAnswer(BaseModel):
    weights: WeightsBody
    usual: WeightsBody
    left: int = Field(description="Takes that are still to be judged again")
