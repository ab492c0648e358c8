"""What this Ridgewind is, and its defaults."""

from __future__ import annotations

from flask import Response

from ridgewind import __version__
from ridgewind.core.brief import FEELS, SCREENS_DEG
from ridgewind.web import models
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import answered, current

api = blueprint("status")


@api.get("/status", responses={200: models.Status})
def status() -> Response:
    """What this Ridgewind is, and its defaults."""
    return answered(
        models.Status(
            version=__version__,
            demo=current().demo,
            feels=FEELS,  # type: ignore[arg-type]
            screens_deg=SCREENS_DEG,  # type: ignore[arg-type]
        )
    )
