"""What is kept of a library for good: copies of its database, and all of it as one archive."""

from __future__ import annotations

import itertools
import shutil
from dataclasses import asdict
from datetime import UTC, datetime

from flask import Response

from ridgewind.library import snapshots, space
from ridgewind.services import archiving
from ridgewind.store import clips, database
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.settings import models

api = blueprint("keeping")


@api.get("/kept", responses={200: models.Kept, **FAULTS})
def kept() -> Response:
    """Which copies of the database there are, and how large the films are."""
    library = current().library
    found = snapshots.snapshots(library.snapshots)
    return answered(
        models.Kept(
            copies=[database.moment_text(one.made_at) for one in found],
            films_bytes=sum(
                path.stat().st_size
                for folder in (library.originals, library.cleared, library.copies)
                for path in folder.iterdir()
                if path.is_file()
            ),
        )
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


def _space() -> models.Space:
    service = current()
    with service.read() as db:
        months = clips.sizes_by_month(db)
    disk = shutil.disk_usage(service.library.root)
    return models.Space(
        kinds=[models.SpaceKind(**asdict(one)) for one in space.kinds(service.library)],
        months=[models.SpaceMonth(month=month, bytes=size) for month, size in months],
        free_bytes=disk.free,
        total_bytes=disk.total,
    )


@api.get("/archive.zip", responses=FAULTS)
def archive(query: models.ArchiveAsk) -> Response:
    """The whole library in one file, made while it is sent."""
    now = datetime.now(UTC)
    made = archiving.archive(
        current().library, films=query.films, made_at=now.isoformat(timespec="seconds")
    )
    # The first piece is made at once, so that what cannot be begun is still an answer.
    begun = next(made)

    reply = Response(itertools.chain([begun], made), mimetype="application/zip")
    reply.call_on_close(made.close)
    name = f"ridgewind-{now:%Y-%m-%d}.zip"
    reply.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return reply
