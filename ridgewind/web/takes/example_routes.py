"""A feel by example: a film becomes a brief, and is no take of the shooter's any more."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response

from ridgewind.services import examples
from ridgewind.store import database, takes
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.takes import example_models as models
from ridgewind.web.takes.models import TakePath

api = blueprint("examples")


@api.post("/takes/<int:take_id>/brief-like-it", responses={201: models.ExampleBrief, **FAULTS})
def brief_like_it(path: TakePath, body: models.ExampleAsk) -> Response:
    """Make the feel of a film the feel of a brief."""
    with current().read() as db:
        made = examples.make_brief(db, path.take_id, name=body.name.strip(), is_own=body.is_own)
    told = models.ExampleBrief(brief_id=made.brief_id, target=made.target, before=made.before)
    return answered(told, HTTPStatus.CREATED)


@api.put("/takes/<int:take_id>/origin", responses={200: models.OriginAsk, **FAULTS})
def say_origin(path: TakePath, body: models.OriginAsk) -> Response:
    """Say whether a film is the shooter's own, or an example."""
    with current().read() as db, database.atomic(db):
        takes.set_origin(db, path.take_id, body.origin)
    return answered(body)
