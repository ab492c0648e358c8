"""Requests and responses of the settings."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.core.judge.cost import HEAVIEST
from ridgewind.web.models import Model, RowId, Strict


class ClearedLine(Model):
    """A film whose original was put aside. gone_on: the day after which it is gone for good; null
    where it is gone."""

    clip_id: int
    name: str
    size_bytes: int
    gone_on: str | None


class ClearedAnswer(Model):
    """rejected: films that could be cleared, and their size. aside: those that were."""

    rejected: int
    rejected_bytes: int
    aside: list[ClearedLine]
    aside_bytes: int


class DeletedLine(Model):
    """A deleted take. gone_on: the day after which it is gone for good."""

    take_id: int
    name: str
    gone_on: str


class DeletedAnswer(Model):
    takes: list[DeletedLine]


class ClipPath(Model):
    clip_id: RowId


class WeightsBody(Strict):
    """How much each part of a cost matters, 1 is usual."""

    seconds: float = Field(ge=0, le=HEAVIEST)
    crop: float = Field(ge=0, le=HEAVIEST)
    sharpness: float = Field(ge=0, le=HEAVIEST)
    sound: float = Field(ge=0, le=HEAVIEST)
    desk: float = Field(ge=0, le=HEAVIEST)


class WeightsAnswer(Model):
    weights: WeightsBody
    usual: WeightsBody
    left: int = Field(description="Takes that are still to be judged again")


class WatchAsk(Strict):
    path: str = Field(min_length=1, max_length=2000)


class ArrivedLine(Model):
    """A film that came. take_id: what it became, null where it was refused, and why (fault)."""

    file: str
    take_id: int | None
    fault: str | None


class WatchedAnswer(Model):
    """state: off, watching, or gone where the folder is not there at the moment. films: the newest
    that came."""

    state: Literal["off", "watching", "gone"]
    root: str | None
    since: str | None
    films: list[ArrivedLine]


class SpaceKind(Model):
    """Files of one kind. made: all of them can be made again whenever they are wanted."""

    key: Literal[
        "films",
        "second",
        "rejected",
        "arriving",
        "copies",
        "renders",
        "database",
        "snapshots",
        "parts",
    ]
    bytes: int
    files: int
    made: bool


class SpaceMonth(Model):
    """month: YYYY-MM, in which the films were filmed."""

    month: str
    bytes: int


class MovingLine(Model):
    """Originals that move. direction: to the second disk, or back. done, total: bytes. ended: they
    do not move any more; fault: why that was before the end."""

    direction: Literal["out", "back"]
    done: int
    total: int
    ended: bool
    fault: str | None


class SecondDiskLine(Model):
    """Where originals stay beside this disk. here: the disk is there now."""

    folder: str
    here: bool


class SecondDiskAsk(Strict):
    """folder: where originals are to stay, named whole."""

    folder: str = Field(min_length=1, max_length=4000)


class Space(Model):
    """Where the space goes. free_bytes, total_bytes: of the disk. second: null for none. moving:
    what moves, or moved last, null for nothing. library: its folder, null where that is not told.
    relocating: its own way to another disk, null for none."""

    kinds: list[SpaceKind]
    months: list[SpaceMonth]
    free_bytes: int
    total_bytes: int
    second: SecondDiskLine | None
    moving: MovingLine | None
    library: str | None
    relocating: MovingLine | None


class MergedLine(Model):
    """An archive that was brought in. source: its name. until: the day after which it stays."""

    source: str
    made_at: str
    until: str


class TakenBackAnswer(Model):
    """went: things that are gone again. stays: those that were changed or used since."""

    went: int
    stays: int


class ArchiveLine(Model):
    """What an archive has, or would have. made_at: null while none was made since the start.
    missing, changed: names of takes whose originals are not there, or are not what they were; null
    where that was not looked at. strays: files and folders that are none of the library's. uploads:
    films that are still arriving."""

    made_at: str | None
    files: int
    missing: list[str]
    changed: list[str] | None
    strays: list[str]
    uploads: int


class Kept(Model):
    """copies: moments of the copies of the database, the newest first. films_bytes: of all films
    and what a browser plays of them. merged: the last archive that was brought in and can be taken
    back, null for none. archive: what one would have that is made now; archived: what the last one
    has, null for none since the start."""

    copies: list[str]
    films_bytes: int
    merged: MergedLine | None
    archive: ArchiveLine
    archived: ArchiveLine | None


class ArchiveAsk(Model):
    """films: with the films as they came."""

    films: bool = True
