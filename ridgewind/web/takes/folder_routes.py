"""Folders and cards on this computer: look what is on them, and bring films in."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response

from ridgewind.library import folders
from ridgewind.store import database, folder_copies, jobs
from ridgewind.store.folder_copies import FolderCopyRow
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import sentence
from ridgewind.web.takes.folder_models import (
    CopyAsk,
    CopyLine,
    CopyPath,
    FolderAsk,
    FolderScan,
    RefusedFilm,
    ToldCopies,
)

api = blueprint("folders", prefix="/api/folders")


@api.post("/scan", responses={200: FolderScan, **FAULTS})
def scan(body: FolderAsk) -> Response:
    """Films below a folder, with what was brought in before."""
    with current().read() as db:
        found = folders.scan(db, body.path)
    answer = FolderScan(
        root=found.root,
        films=list(found.films),
        more=found.more,
        passed_over=list(found.passed_over),
    )
    return answered(answer)


@api.post("/copies", responses={201: CopyLine, **FAULTS})
def begin_copy(body: CopyAsk) -> Response:
    """Bring films of a folder in, one after the other; each is measured as soon as it is here."""
    service = current()
    with service.read() as db:
        with database.atomic(db):
            copy_id = folder_copies.add(db, root=body.path, files=body.files)
        service.queue.put("copy", copy_id)
        return answered(_line(folder_copies.by_id(db, copy_id)), HTTPStatus.CREATED)


@api.get("/copies", responses={200: ToldCopies, **FAULTS})
def told_copies() -> Response:
    """All copies that wait or run, whoever asked for them, and those that ended with something not
    brought in until that has been seen."""
    with current().read() as db:
        return answered(ToldCopies(copies=[_line(row) for row in folder_copies.told(db)]))


@api.get("/copies/<int:copy_id>", responses={200: CopyLine, **FAULTS})
def copy_of(path: CopyPath) -> Response:
    """How far a copy is."""
    with current().read() as db:
        return answered(_line(folder_copies.by_id(db, path.copy_id)))


@api.delete("/copies/<int:copy_id>", responses={200: CopyLine, **FAULTS})
def stop_copy(path: CopyPath) -> Response:
    """Stop a copy: films that are here stay, nothing of the one under way is kept."""
    with current().read() as db:
        with database.atomic(db):
            jobs.request_cancel(db, "copy", path.copy_id)
        return answered(_line(folder_copies.by_id(db, path.copy_id)))


@api.post("/copies/<int:copy_id>/seen", responses={200: CopyLine, **FAULTS})
def see_copy(path: CopyPath) -> Response:
    """What a copy could not bring in has been seen; it is not told again."""
    with current().read() as db:
        with database.atomic(db):
            folder_copies.see(db, path.copy_id)
        return answered(_line(folder_copies.by_id(db, path.copy_id)))


def _line(row: FolderCopyRow) -> CopyLine:
    settled = sum(film.settled for film in row.films)
    share = settled / len(row.films)
    return CopyLine(
        id=row.id,
        root=row.root,
        state=row.job.state,  # type: ignore[arg-type]
        progress=max(share, row.job.progress or 0.0),
        films=len(row.films),
        settled=settled,
        brought_in=sum(film.take_id is not None for film in row.films),
        refused=[
            RefusedFilm(
                file=film.file,
                what=sentence(film.fault_what),
                next_step=sentence(film.fault_next or ""),
            )
            for film in row.films
            if film.fault_what is not None
        ],
    )
