"""What is kept of a library for good: copies of its database, and all of it as one archive."""

from __future__ import annotations

import itertools
import shutil
from dataclasses import asdict
from datetime import UTC, datetime, timedelta
from pathlib import Path

from flask import Response

from ridgewind.library import second_disk, snapshots, space
from ridgewind.library.library import KEEP_DELETED_DAYS
from ridgewind.library.moving import MoveError
from ridgewind.library.second_disk import SecondDiskError
from ridgewind.moments import moment_of, utc_text
from ridgewind.services import archiving, taking_back
from ridgewind.store import clips
from ridgewind.store.merging import MergeRow
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import BadRequestError, NotReadyError
from ridgewind.web.phones.door import is_network
from ridgewind.web.settings import models

api = blueprint("keeping")

ANOTHER = (
    "Originals stay in another folder already.",
    "Bring them back from there first, or name that folder again.",
)
NOT_THE_DEMO = ("The demo stays where it is.", "It is made anew at each start.")
NOT_HERE = ("The second disk is not here.", "Connect it, and try again.")


@api.get("/kept", responses={200: models.Kept, **FAULTS})
def kept() -> Response:
    """Which copies of the database there are, and how large the films are."""
    service = current()
    library = service.library
    found = snapshots.snapshots(library.snapshots)
    with service.read() as db:
        last = taking_back.latest(db)
        would, _ = archiving.look(library, db)
    return answered(
        models.Kept(
            merged=None if last is None else _merged(last),
            copies=[utc_text(one.made_at) for one in found],
            films_bytes=sum(
                path.stat().st_size
                for folder in (library.originals, library.cleared, library.copies)
                for path in folder.iterdir()
                if path.is_file()
            ),
            archive=_archive_line(would, None),
            archived=None
            if service.archived.report is None
            else _archive_line(service.archived.report, service.archived.made_at),
        )
    )


def _archive_line(report: archiving.Report, made_at: str | None) -> models.ArchiveLine:
    return models.ArchiveLine(
        made_at=made_at,
        files=report.files,
        missing=[one.name for one in report.missing],
        changed=None if made_at is None else [one.name for one in report.changed],
        strays=list(report.strays),
        uploads=report.uploads,
    )


@api.delete("/kept/merged", responses={200: models.TakenBackAnswer, **FAULTS})
def take_back() -> Response:
    """Take the last archive that was brought in back; what was changed or used since stays."""
    service = current()
    with service.read() as db:
        made = taking_back.take_back(service.library, db)
    service.on_stale()
    return answered(models.TakenBackAnswer(went=made.went, stays=made.stays))


def _merged(last: MergeRow) -> models.MergedLine:
    until = moment_of(last.made_at) + timedelta(days=KEEP_DELETED_DAYS)
    return models.MergedLine(
        source=last.source, made_at=last.made_at, until=until.date().isoformat()
    )


@api.get("/space", responses={200: models.Space, **FAULTS})
def space_of() -> Response:
    """Where the space of the library goes, by kind and by month."""
    return answered(_space())


@api.post("/space/free", responses={200: models.Space, **FAULTS})
def free() -> Response:
    """Take away what can be made again at once."""
    space.free(current().library)
    return answered(_space())


@api.put("/space/second", responses={200: models.Space, **FAULTS})
def use_second_disk(body: models.SecondDiskAsk) -> Response:
    """Let originals stay on another disk, and move them there; asked again of the same one, what
    came since is moved."""
    service = current()
    library, folder = service.library, Path(body.folder)
    disk = library.second_disk
    if disk is None:
        try:
            second_disk.begin(library.second_disk_note, folder, library=library.root)
        except SecondDiskError as error:
            raise BadRequestError(error.message, error.hint, field="folder") from error
    elif folder.resolve() != disk.folder:
        raise BadRequestError(*ANOTHER, field="folder")
    elif not disk.is_here:
        raise NotReadyError(*NOT_HERE)
    service.mover.begin("out")
    return answered(_space())


@api.post("/space/second/stop", responses={200: models.Space, **FAULTS})
def stop_moving() -> Response:
    """Move no more; what was moved stays moved."""
    current().mover.stop()
    return answered(_space())


@api.put("/space/library", responses={200: models.Space, **FAULTS})
def move_library(body: models.SecondDiskAsk) -> Response:
    """Move the whole library to another folder, while it is in use; the server then goes on
    there."""
    service = current()
    if service.demo:
        raise NotReadyError(*NOT_THE_DEMO)
    try:
        service.relocation.begin(Path(body.folder))
    except MoveError as error:
        raise BadRequestError(error.message, error.hint, field="folder") from error
    return answered(_space())


@api.post("/space/library/stop", responses={200: models.Space, **FAULTS})
def stay() -> Response:
    """Leave the library where it is."""
    current().relocation.stop()
    return answered(_space())


@api.delete("/space/second", responses={200: models.Space, **FAULTS})
def leave_second_disk() -> Response:
    """Bring all originals back from the second disk, and use it no more."""
    service = current()
    disk = service.library.second_disk
    if disk is not None and not disk.is_here:
        raise NotReadyError(*NOT_HERE)
    service.mover.begin("back")
    return answered(_space())


def _space() -> models.Space:
    service = current()
    with service.read() as db:
        months = clips.sizes_by_month(db)
    disk = shutil.disk_usage(service.library.root)
    second, moving = service.library.second_disk, service.mover.moving
    goes = service.relocation.moving
    return models.Space(
        kinds=[models.SpaceKind(**asdict(one)) for one in space.kinds(service.library)],
        months=[models.SpaceMonth(month=month, bytes=size) for month, size in months],
        second=None
        if second is None or is_network()  # a phone sees none of this computer's folders
        else models.SecondDiskLine(folder=str(second.folder), here=second.is_here),
        moving=None if moving is None else models.MovingLine(**asdict(moving)),
        library=None if is_network() or service.demo else str(service.library.root.resolve()),
        relocating=None if goes is None else models.MovingLine(**asdict(goes)),
        free_bytes=disk.free,
        total_bytes=disk.total,
    )


@api.get("/archive.zip", responses=FAULTS)
def archive(query: models.ArchiveAsk) -> Response:
    """The whole library in one file, made while it is sent."""
    now = datetime.now(UTC)
    service, made_at = current(), now.isoformat(timespec="seconds")
    made = archiving.archive(
        service.library,
        films=query.films,
        made_at=made_at,
        on_report=lambda report: service.archived.put(report, made_at) if query.films else None,
    )
    # The first piece is made at once, so that what cannot be begun is still an answer.
    begun = next(made)

    reply = Response(itertools.chain([begun], made), mimetype="application/zip")
    reply.call_on_close(made.close)
    name = f"ridgewind-{now:%Y-%m-%d}.zip"
    reply.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return reply
