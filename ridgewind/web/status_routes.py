"""What this Ridgewind is, and its defaults."""

from __future__ import annotations

from flask import Response

from ridgewind import __version__
from ridgewind.core.brief import FEELS, SCREENS_DEG
from ridgewind.library import health
from ridgewind.web import models
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import answered, current
from ridgewind.web.errors import unserved
from ridgewind.web.phones import door

api = blueprint("status")


@api.get("/status", responses={200: models.Status})
def status() -> Response:
    """What this Ridgewind is, its defaults, and whether it can keep what it is given."""
    found = health.trouble(current().library)
    phone = door.phone()
    told = None if found is None else unserved(found)
    return answered(
        models.Status(
            version=__version__,
            demo=current().demo,
            phone=None if phone is None else phone.name,
            trouble=None
            if told is None
            else models.Trouble(code=told.code, message=told.message, hint=told.hint),
            feels=FEELS,  # type: ignore[arg-type]
            screens_deg=SCREENS_DEG,  # type: ignore[arg-type]
        )
    )
