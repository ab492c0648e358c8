"""Requests and responses of folders and cards."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ridgewind.library.folders import FoundFilm
from ridgewind.web.models import Strict


class FolderAsk(Strict):
    path: str = Field(min_length=1, max_length=2000)


class FolderFilmAsk(FolderAsk):
    file: str = Field(min_length=1, max_length=2000, description="Path inside the folder")
    ticket: str = Field(
        pattern="^[a-z0-9-]{1,40}$", description="Names this copy while it is under way"
    )


class TicketPath(BaseModel):
    ticket: str = Field(pattern="^[a-z0-9-]{1,40}$")


class CopyShare(BaseModel):
    share: float | None = Field(description="0 to 1; null where nothing is being copied")


class FolderScan(BaseModel):
    root: str
    films: list[FoundFilm]
    more: bool
