"""Requests and responses of one take, and its line in the list."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ridgewind.web.models import FeelName, JobState, Model, NamedLink, RowId, Strict
from ridgewind.web.plan.brief_models import Brief
from ridgewind.web.takes.whose_models import ShotDoubt

RemedyName = Literal["keep", "lee", "slow", "polish", "polish_lee", "slow_polish", "hold", "retake"]
OriginName = Literal["own", "simulated", "example"]
ChoiceName = Literal["keep", "reject", "retake"]
TakeName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
BandName = Literal["drift", "sway", "step", "jitter", "buzz"]


class Fault(Model):
    """Why a take could not be measured."""

    code: str
    what: str
    next_step: str


class TakeLine(Model):
    """A take in the list. ridge: base64 of the small drawing, 48 columns of 5 heights."""

    id: int
    name: str
    imported_at: str
    recorded_at: str | None
    duration_s: float | None
    fps: float | None
    feel: FeelName
    target: float
    gust: float | None
    peak_gust: float | None
    remedy: RemedyName | None
    ridge: str
    state: JobState
    progress: float | None
    fault: Fault | None
    choice: ChoiceName | None = Field(description="What the shooter settled")
    pictured: bool = Field(description="It is more than a motion log")
    origin: OriginName = Field(description="Who filmed it, see store/takes.py")
    filed: bool = Field(description="It is a take of a session")
    named: bool = Field(description="By the shooter, not by its file or what it is filed under")


class TakePath(Model):
    take_id: RowId


class ImportAnswer(Model):
    """duplicate: this very film was here already; take is the one that holds it."""

    take: TakeLine
    duplicate: bool


class ClipFacts(Model):
    """width, height: px as displayed. claimed_s: what the file says where it ends early."""

    width: int
    height: int
    fps: float
    variable_rate: bool
    duration_s: float
    claimed_s: float | None
    frames: int
    codec: str
    has_sound: bool
    size_bytes: int
    start_s: float
    file_focal_mm: float | None
    file_focal_eq_mm: float | None
    interlaced: bool
    from_log: bool = Field(description="The path comes from turning rates, not from a picture")
    starved: bool = Field(description="Compressed so much that fine shake may be lost")
    outlier_share: float = Field(description="Of what is followed, moves otherwise; 0 to 1")
    repeated: float = Field(description="Share of frames that show the one before again")


class BandReading(Model):
    """excursion_pct, excursion_arcmin: root mean square of pan and tilt together."""

    name: BandName
    share: float | None
    excursion_pct: float | None
    excursion_arcmin: float | None
    strongest_hz: float | None


CauseName = Literal[
    "footfalls", "weight_shift", "tremor", "buzz", "breath", "swing", "wander", "jerk"
]
DirectionName = Literal["right", "left", "up", "down", "clockwise", "anticlockwise", "in", "out"]


class CauseLine(Model):
    """A cause of the shake. share: of S². certainty: 0 to 1. change: the one thing to try."""

    key: CauseName
    name: str
    band: BandName
    share: float
    certainty: float
    evidence: str
    change: str


class StepsLine(Model):
    cadence_hz: float
    evenness: float
    hardness: float


class FatigueLine(Model):
    growth: float
    passes_at_s: float | None


class JoinLine(Model):
    speed_pct_s: float
    direction: DirectionName | None


class MoveLine(Model):
    """The move that was meant; see ridgewind/core/moves/move.py. line: pan and tilt of its two
    ends, percent of the long side, as in the path."""

    kind: Literal["pan", "tilt", "roll", "push"]
    direction: DirectionName
    start_s: float
    end_s: float
    extent: float
    extent_deg: float | None
    evenness: float
    reversals: int
    cross_pct: float
    dip_pct: float
    ease_in_s: float
    ease_out_s: float
    line: list[list[float]]


class MoveAnswer(Model):
    """move: null where the camera was held. wander_pct: how far the frame wandered."""

    move: MoveLine | None
    wander_pct: float
    entry: JoinLine
    exit: JoinLine


class SubjectMark(Strict):
    """Where a subject is at a moment: x, y from the picture's upper left, 0 to 1."""

    at_s: float = Field(ge=0)
    x: float = Field(ge=0, le=1)
    y: float = Field(ge=0, le=1)
    second: bool = Field(default=False, description="Another point of what is marked already")


class PointPath(Model):
    """Where a marked point was: percent of the long side from the middle, right and down."""

    t_s: list[float]
    x_pct: list[float | None]
    y_pct: list[float | None]


class FollowingLine(Model):
    """A point that is being followed. progress: 0 to 1, None while it waits."""

    progress: float | None


class SubjectAnswer(PointPath):
    """How near the middle of the picture a marked subject stayed, over the move or all of the
    take, and where it was: percent of the long side from the middle, right and down."""

    rms_pct: float | None
    worst_pct: float | None
    worst_s: float | None
    followed: float
    second: PointPath | None
    following: FollowingLine | None
    fault: str | None = Field(description="Why the last point could not be followed")


class PeakLine(Model):
    hz: float
    part: Literal["pan", "tilt", "roll", "zoom"]
    share: float


class SpectrumColumns(Model):
    """Weighted speed by frequency, of the shot that shakes most. speed: per part (pan, tilt,
    roll, zoom), root mean square in percent a second within each step of hz."""

    hz: list[float]
    speed: list[list[float]]
    peaks: list[PeakLine]


class Stretch(Model):
    start_s: float
    end_s: float
    gust: float


class ShotLine(Model):
    start_s: float
    end_s: float
    gust: float | None
    reason: str | None


class RemedyLine(Model):
    remedy: RemedyName
    passes: bool
    gust: float | None
    peak_gust: float | None
    start_s: float | None
    end_s: float | None
    rate: float
    plays_s: float | None
    crop_pct: float
    corner_hz: float | None = Field(description="What is slower is kept by the polish")
    cost: str
    points: float = Field(description="The same on the scale of docs/guide.md")
    warnings: list[str]
    reason: str
    glide: bool | None = Field(description="Of a subject that is held; null without one")
    subject_gust: float | None


class TraceColumns(Model):
    """Columns of equal length. shares: five lists, drift first."""

    t_s: list[float]
    gust: list[float | None]
    shares: list[list[float]]
    trusted: list[bool]


class PathColumns(Model):
    """The path thinned for drawing over the picture."""

    t_s: list[float]
    pan_pct: list[float | None]
    tilt_pct: list[float | None]
    meant_s: list[float] = Field(description="Times of the path that was meant")
    meant_pan_pct: list[float | None]
    meant_tilt_pct: list[float | None]


class ReadoutLine(Model):
    """In which the sensor reads a frame from its first line to its last, and who says so."""

    seconds: float
    source: Literal["setup", "film", "assumed"]


class LikenessLine(Model):
    """A take against its brief's example. example, here: shares by band of what both show. apart:
    share of the shake in other bands than the example's. more, less: the bands with most too much
    and most too little, "" where they are alike. move: of the take, null where it was held."""

    name: str
    example: dict[str, float]
    here: dict[str, float]
    apart: float
    alike: bool
    more: str
    less: str
    move: str | None
    wanted_move: str | None
    same_move: bool


class Judgement(Model):
    """Everything that depends on the brief. Times are seconds of the browser copy."""

    gust: float | None
    peak_gust: float | None
    floor_gust: float | None
    body_deg_s: float | None
    target: float
    trusted_share: float
    step: float = Field(description="Frames filmed for each one that is shown and read; 1 for all")
    readout: ReadoutLine
    trust: float = Field(description="Mean over all frames, 0 to 1")
    bands: list[BandReading]
    causes: list[CauseLine]
    steps: StepsLine | None
    fatigue: FatigueLine | None
    move: MoveAnswer | None
    lee: Stretch | None
    shots: list[ShotLine]
    remedies: list[RemedyLine]
    likeness: LikenessLine | None = Field(description="Null without an example in the brief")
    verdict: RemedyName | None = Field(description="Null where it is not settled what is measured")
    text: str
    trace: TraceColumns


class TakeSetup(Model):
    """The set-up of a take: its lens, and how it says the camera recorded."""

    id: int
    name: str
    typical: bool
    focal_mm: float
    focal_eq_mm: float
    width_px: int
    height_px: int
    rate_hz: float


class JudgedPart(Strict):
    """A part of a film, s from its first frame."""

    from_s: float = Field(ge=0)
    to_s: float = Field(gt=0)


class TakeChange(Strict):
    """What a take points at; a part that is left out stays. own_focal_eq_mm: null goes back to
    the set-up's. own_capture_fps: null leaves it to the file and the set-up. own_name: null goes
    back to what it is filed under, or to its file's name."""

    brief_id: RowId | None = None
    setup_id: RowId | None = None
    own_focal_eq_mm: float | None = Field(default=None, ge=1, le=3000)
    own_capture_fps: float | None = Field(default=None, ge=1, le=2000)
    own_name: TakeName | None = None
    whole: bool = Field(default=False, description="Judge all of the film again")
    part: JudgedPart | None = Field(default=None, description="Judge this part of it alone")


class TakePart(Model):
    """The part of its film that is judged, s of the browser copy. trimmed: its slate and
    count-in are left out; otherwise it is all between two slates."""

    from_s: float
    to_s: float
    trimmed: bool


class TakeDetail(Model):
    """judgement is null while the take has not been measured. brief_link: the named brief it
    points at, null where its brief is its own; brief_parent: the one its own departed from."""

    take: TakeLine
    brief: Brief
    brief_link: NamedLink | None
    brief_parent: NamedLink | None
    setup: TakeSetup | None
    focal_eq_mm: float
    own_focal_eq_mm: float | None
    own_capture_fps: float | None
    capture_fps: float | None = Field(description="Filmed at, where the file plays slower")
    part: TakePart | None
    clip: ClipFacts | None
    log: str | None = Field(description="Name of the motion log that belongs to its film")
    judgement: Judgement | None
    doubts: list[ShotDoubt]
    background: list[int] = Field(description="Cells that it was measured by alone; none for all")
    marked: bool | None = Field(description="Smooth enough to the shooter's own eye")
    cleared: bool = Field(description="Its original was cleared from the disk")
    away: bool = Field(description="Its original is on the second disk, which is not here")
    before_id: int | None
    after_id: int | None


class FilmPart(Model):
    """A take's part of its film, s of the browser copy; to_s: null for all of it."""

    take_id: int
    from_s: float
    to_s: float | None
