"""Requests and responses of outings."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.core.sequence import shot as core
from ridgewind.web.models import MOST_CHOSEN, Model, RowId, Strict
from ridgewind.web.takes.models import TakeLine

MOST_NAME, MOST_NOTE, MOST_LINE = 120, 500, 400
Day = str
ShotState = Literal["open", "got", "impossible"]


class PlannedShot(Strict):
    """A planned shot; ranges are the core's, see ridgewind/core/sequence/shot.py."""

    subject: str = Field(max_length=MOST_LINE)
    size: core.Size
    height: core.Height
    move: core.ShotMove
    heading: core.Heading | None
    enters: bool = Field(description="The movement comes into a still frame")
    foreground: str = Field(description="What is near in front, empty for nothing")
    seconds: float = Field(description="On screen")
    sound: bool
    playback: float = Field(description="Share of full speed at which it is shown")
    part: core.Part
    joins: core.Joining
    ask: str = Field(description="Who or what must allow it")
    place: str
    light: core.Light
    takes: int = Field(description="How many are wanted")


class OutingFacts(Strict):
    """What is said of an outing. day: a date, empty where none was said."""

    name: str = Field(max_length=MOST_NAME)
    place: str = Field(default="", max_length=MOST_NAME)
    day: Day = Field(default="", pattern=r"^(\d{4}-\d{2}-\d{2})?$")
    light: str = Field(default="", max_length=MOST_NAME)
    brief_id: RowId | None = None
    setup_id: RowId | None = None


class OutingAsk(OutingFacts):
    """An outing to be kept. start: a starting point whose shots it begins with; about: what they
    show."""

    start: str | None = None
    about: str = Field(default="", max_length=MOST_NAME)


class OutingPath(Model):
    outing_id: RowId


class ShotPath(Model):
    shot_id: RowId


class LineAsk(Strict):
    """A line of plain words."""

    line: str = Field(min_length=1, max_length=MOST_LINE)


class StartAsk(Strict):
    """A starting point, and what it is about."""

    start: str
    about: str = Field(default="", max_length=MOST_NAME)


class ShotChange(Strict):
    """base: the shot as it was when the change was begun; what was changed elsewhere since then is
    not overwritten. None overwrites it."""

    shot: PlannedShot
    base: PlannedShot | None = None


class ShotOrder(Strict):
    """Shots in the order on screen; those of base that are left out are taken out. base: the order
    that was seen."""

    ids: list[RowId] = Field(max_length=MOST_CHOSEN)
    base: list[RowId] = Field(max_length=MOST_CHOSEN)


class ShotNote(Strict):
    """What became of a shot; what is left out stays. got: how many takes of it were got."""

    state: ShotState | None = None
    got: int | None = Field(default=None, ge=0, le=99)
    note: str | None = Field(default=None, max_length=MOST_NOTE)


class Waved(Strict):
    """Something that is missing, by its key."""

    key: str = Field(max_length=MOST_LINE)
    waved: bool


class ShotItem(Model):
    """A shot of an outing. filmed_s: how long to film for it. move_words: the move and its way.
    unhurried_pct: how far it may go without a hurry, percent of the picture; null where it is
    still, or where what goes is not the picture."""

    id: int
    shot: PlannedShot
    state: ShotState
    got: int
    note: str
    filmed_s: float
    move_words: str
    unhurried_pct: float | None


class GapLine(Model):
    """Something that is missing. shots: those it is about."""

    rule: str
    key: str
    text: str
    why: str
    shots: list[int]
    waved: bool


class MetLine(Model):
    """A take that meets a shot. otherwise: what of it was filmed otherwise than planned."""

    shot_id: int
    how: Literal["slate", "clock", "motion", "order", "hand"]
    otherwise: str | None
    take: TakeLine


class MeetingLine(Model):
    """A take that could meet a shot. certainty: 0 to 1."""

    take_id: int
    name: str
    shot_id: int
    how: Literal["slate", "clock", "motion", "order", "hand"]
    certainty: float
    reason: str
    otherwise: str | None


class Meetings(Model):
    met: list[MetLine]
    proposed: list[MeetingLine]


class FiledTake(Strict):
    """A take and the shot that it meets, null for none."""

    take_id: RowId
    shot_id: RowId | None
    how: Literal["slate", "clock", "motion", "order", "hand"] = "hand"


class FiledTakes(Strict):
    takes: list[FiledTake] = Field(min_length=1, max_length=200)


class Knot(Strict):
    """A speed at a moment of the film, s from its first frame."""

    at_s: float
    speed: float = Field(description="Share of full speed")


class Framing(Strict):
    """Where a window stands, or that it follows the marked subject."""

    right: float = Field(description="From the middle, share of the room, -1 to 1")
    down: float
    follows: bool


class Piece(Strict):
    """A part of a take, as the sequence shows it; ranges are the core's, see
    ridgewind/core/sequence/piece.py. Times are of the film, from its first frame."""

    take_id: RowId | None
    shot_id: RowId | None
    in_s: float
    out_s: float
    speed: float = Field(description="Share of full speed, where there is no ramp")
    backwards: bool
    ramp: list[Knot] = Field(max_length=16)
    framing: Framing


class PieceChange(Strict):
    """base: the pieces that were seen; what was changed elsewhere since then is not overwritten.
    None overwrites it."""

    pieces: list[Piece] = Field(max_length=400)
    base: list[Piece] | None = None


class LookChange(Strict):
    """How a sequence is shown. shape: null for as its brief delivers. beats_per_min: of the music
    that it is cut to, null for none."""

    shape: Literal["16:9", "9:16", "1:1", "4:5", "2.39:1"] | None
    beats_per_min: float | None


class PieceItem(Model):
    """start, frames: of the sequence. gust: as it is shown. entry, exit: velocity of pan, tilt and
    push at its ends, percent of the long side a second. trouble: why it cannot be shown as it is,
    null where it can; notes: what showing it so costs. window: width and height of the sequence's
    window, shares of the picture's, null without a picture. left: pixels of it for each one that is
    delivered, along a side. marked: a subject is marked in its take. fps: of its film.
    ridge: of the piece as it is shown, encoded as a take's."""

    piece: Piece
    start: int
    frames: int
    subject: str
    take: TakeLine | None
    length_s: float | None
    gust: float | None
    ridge: str
    entry: list[float] | None
    exit: list[float] | None
    trouble: str | None
    notes: list[str]
    window: list[float] | None
    left: float | None
    marked: bool
    fps: float | None


class CutPath(Model):
    outing_id: RowId
    cut: int = Field(ge=0)


class BetterLine(Model):
    """What would make a cut match better. pieces: both sides, changed."""

    words: str
    mismatch: float
    joined: Literal["matches", "passes", "fights"]
    pieces: list[Piece]


class BetterLines(Model):
    better: list[BetterLine]


class CutItem(Model):
    """A cut between two pieces. jump: gust leaps over it, so that the calm side makes the other
    look worse. beat: it falls on a beat, to half a frame; null without a tempo."""

    mismatch: float | None
    joined: Literal["matches", "passes", "fights"] | None
    jump: bool
    beat: bool | None


class Joined(Model):
    """An outing's sequence. proposed: by its shots; nobody has changed it. frames: of all. shape:
    null for as its brief delivers; ratio: width over height. delivered: its size, px."""

    name: str
    rate_hz: float
    target: float
    frames: int
    proposed: bool
    shape: Literal["16:9", "9:16", "1:1", "4:5", "2.39:1"] | None
    ratio: float
    delivered: list[int]
    beats_per_min: float | None
    pieces: list[PieceItem]
    cuts: list[CutItem]


class TimeLineAsk(Strict):
    """An OpenTimelineIO time line, as text."""

    text: str = Field(max_length=20_000_000)


class UsedLine(Model):
    """A part of a take that became film. gust: of it, null where that cannot be told."""

    take: TakeLine
    in_s: float
    out_s: float
    seconds: float
    gust: float | None


class Used(Model):
    """What the time line that was brought back last uses. unknown: its clips whose films are not
    here, as it was brought back. seconds: on screen, of what is here."""

    used: list[UsedLine]
    unknown: list[str]
    seconds: float


class SequenceFilmAsk(Model):
    """whole: at full size, to be kept; else small, to be seen."""

    whole: bool = False


class SequenceFilm(Model):
    """The sequence rendered. state: none where it was never asked for. stale: its pieces, its
    shape or its brief were changed since. gusts: of each piece as rendered, null where it cannot be
    told; empty of a whole film. bytes: its size."""

    id: int | None
    state: Literal["none", "queued", "running", "done", "failed", "cancelled"]
    progress: float | None
    stale: bool
    gusts: list[float | None]
    bytes: int | None
    error: str | None


class OutingDetail(Model):
    """shots: in the order on screen. order: the same shots in the order in which to film them."""

    id: int
    facts: OutingFacts
    shots: list[ShotItem]
    gaps: list[GapLine]
    order: list[int]
    walks: int
    set_ups: int
    total_s: float
    filmed_s: float


class FrameItem(Model):
    """A shot at a glance."""

    shot: PlannedShot
    state: ShotState


class OutingItem(Model):
    """open: shots that are still to be filmed. frames: the first of its shots."""

    id: int
    facts: OutingFacts
    made_at: str
    shots: int
    open: int
    frames: list[FrameItem]


class StartItem(Model):
    key: str
    name: str
    asks: str
    shots: list[PlannedShot]


class OutingList(Model):
    outings: list[OutingItem]
    starts: list[StartItem]
