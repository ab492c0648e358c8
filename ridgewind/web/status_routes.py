"""What this Ridgewind is, and its defaults."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import asdict
from http import HTTPStatus

from flask import Response

from ridgewind import __version__
from ridgewind.core.brief import FEELS, SCREENS_DEG
from ridgewind.library import health
from ridgewind.store import database, settings
from ridgewind.store.errors import StorageError
from ridgewind.web import models
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import unserved
from ridgewind.web.phones import door

api = blueprint("status")


@api.get("/status", responses={200: models.Status})
def status() -> Response:
    """What this Ridgewind is, its defaults, and whether it can keep what it is given."""
    found = health.trouble(current().library)
    phone = door.phone()
    told = None if found is None else unserved(found)
    note = None
    with suppress(StorageError), current().read() as db:
        note = settings.mended(db)
    return answered(
        models.Status(
            version=__version__,
            demo=current().demo,
            phone=None if phone is None else phone.name,
            trouble=None
            if told is None
            else models.Trouble(code=told.code, message=told.message, hint=told.hint),
            mended=None if note is None else models.Mended(**asdict(note)),
            feels=FEELS,  # type: ignore[arg-type]
            screens_deg=SCREENS_DEG,  # type: ignore[arg-type]
        )
    )


@api.delete("/mended", responses={204: None, **FAULTS})
def read_mended() -> Response:
    """What was mended has been read."""
    with current().read() as db, database.atomic(db):
        settings.set_mended(db, None)
    return Response(status=HTTPStatus.NO_CONTENT)
