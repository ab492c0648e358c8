"""What crosses the wire of whose motion a take shows: doubts, the shooter's word, and points."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.web.models import Model, Strict


class RivalLine(Model):
    """One motion of a shot. where: its place in words. gust: what the camera would read if the
    motion were its own."""

    where: str
    gust: float | None
    still: bool = Field(description="Exactly still while something else moves")
    points: float


class ShotDoubt(Model):
    """The motions of a shot, the one that is believed first. Times are seconds of the film."""

    shot: int
    start_s: float
    end_s: float
    doubt: Literal["rivals", "alone", "noise"] | None
    said: bool = Field(description="The shooter, or a log, has said whose motion it is")
    by_log: bool = Field(description="It was a motion log of the camera that said so")
    rivals: list[RivalLine]


class WhoseMotion(Strict):
    """Which motion of a shot is the camera's, by their numbers."""

    shot: int = Field(ge=0)
    rival: int = Field(ge=0)


class NamedBackground(Strict):
    """Cells of the picture in which the background is seen: six along the long side and four along
    the short, from the upper left, row after row."""

    cells: list[int] = Field(min_length=1, max_length=24)


POINTS_S = 10.0


class PointsQuery(Strict):
    from_s: float = Field(ge=0, description="Seconds of the browser copy; ten from there are told")


class SeenPoints(Model):
    """Places x, y, x, y … of points at a moment: thousandths of the long side from the middle."""

    t_s: float
    places: list[int]


class PointsAnswer(Model):
    """believed: those of the motion that is taken for the camera's. others: of what moves by
    itself."""

    believed: list[SeenPoints]
    others: list[SeenPoints]
