"""Folders and cards on this computer: look what is on them, and bring films in one by one."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response
from flask_openapi3 import APIBlueprint

from ridgewind.library import folders
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.takes import models, serialise
from ridgewind.web.takes.folder_models import (
    CopyShare,
    FolderAsk,
    FolderFilmAsk,
    FolderScan,
    TicketPath,
)

api = APIBlueprint("folders", __name__, url_prefix="/api/folders")


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
