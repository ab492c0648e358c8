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
        imported = folders.bring_in(service.library, db, body.path, body.file)
    if imported.take.state == "queued":
        service.queue.put(imported.take.clip_id)
    answer = models.ImportAnswer(
        take=serialise.take_line(imported.take), duplicate=imported.duplicate
    )
    return answered(answer, HTTPStatus.CREATED)
