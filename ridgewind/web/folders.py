"""Folders and cards on this computer: look what is on them, and bring films in one by one."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from ridgewind.web import models, serialise
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.work import folders
from ridgewind.work.folders import FoundFilm

api = APIBlueprint("folders", __name__, url_prefix="/api/folders")


class FolderAsk(models.Strict):
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


@api.post("/scan", responses={200: FolderScan, **FAULTS})
def scan(body: FolderAsk) -> Response:
    """Films below a folder, with what was brought in before."""
    with current().read() as db:
        found = folders.scan(db, body.path)
    return answered(FolderScan(root=found.root, films=list(found.films), more=found.more))


@api.post("/bring", responses={201: models.ImportAnswer, **FAULTS})
def bring(body: FolderFilmAsk) -> Response:
    """Bring one film in; it is queued for measuring at once."""
    service = current()
    with service.read() as db:
        imported = folders.bring_in(
            service.library, db, body.path, body.file, copies=service.copies, ticket=body.ticket
        )
    if imported.take.state == "queued":
        service.queue.put(imported.take.clip_id)
    answer = models.ImportAnswer(
        take=serialise.take_line(imported.take), duplicate=imported.duplicate
    )
    return answered(answer, HTTPStatus.CREATED)


@api.get("/copies/<string:ticket>", responses={200: CopyShare, **FAULTS})
def copy_share(path: TicketPath) -> Response:
    """How far a copy is."""
    return answered(CopyShare(share=current().copies.share(path.ticket)))


@api.delete("/copies/<string:ticket>", responses={200: CopyShare, **FAULTS})
def stop_copy(path: TicketPath) -> Response:
    """Stop a copy; nothing of it is kept."""
    copies = current().copies
    share = copies.share(path.ticket)
    copies.stop(path.ticket)
    return answered(CopyShare(share=share))
