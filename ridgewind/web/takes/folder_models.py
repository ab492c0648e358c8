"""Requests and responses of folders and cards."""

from __future__ import annotations

from pydantic import Field

from ridgewind.library.folders import FoundFilm, PassedOver
from ridgewind.web.models import JobState, Model, RowId, Strict

LONGEST_PATH = 2000


class FolderAsk(Strict):
    path: str = Field(min_length=1, max_length=LONGEST_PATH)


class FolderScan(Model):
    root: str
    films: list[FoundFilm]
    more: bool
    passed_over: list[PassedOver]


class CopyAsk(FolderAsk):
    files: list[str] = Field(min_length=1, max_length=5000, description="Paths inside the folder")


class CopyPath(Model):
    copy_id: RowId


class RefusedFilm(Model):
    """A film that could not be brought in, why, and what to do."""

    file: str
    what: str
    next_step: str


class CopyLine(Model):
    """A copy from a folder, root. progress: 0 to 1 of all its films. films: how many were asked
    for; settled: brought in or refused; brought_in: that are in the library now."""

    id: int
    root: str
    state: JobState
    progress: float
    films: int
    settled: int
    brought_in: int
    refused: list[RefusedFilm]


class ToldCopies(Model):
    copies: list[CopyLine]
