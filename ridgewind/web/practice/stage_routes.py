"""Runners in step: one screen runs a session, others show it and ask things of it."""

from __future__ import annotations

from dataclasses import asdict
from http import HTTPStatus

from flask import Response

from ridgewind.services.errors import NotReadyError
from ridgewind.services.stages import Place
from ridgewind.store import sessions
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.phones import door
from ridgewind.web.practice import stage_models as models
from ridgewind.web.practice.models import SessionPath

api = blueprint("stage", prefix="/api/sessions/<int:session_id>/stage")

NOBODY = ("No screen runs this session just now.", "Run it here.")


@api.get("", responses={200: models.StageAnswer, **FAULTS})
def stage(path: SessionPath) -> Response:
    """Which screen runs a session, and where it is."""
    found = current().stages.stage(path.session_id)
    if found is None:
        return answered(models.StageAnswer(by=None, holder=None, place=None, age_s=0))
    place = models.PlaceBody(**asdict(found.place))
    return answered(
        models.StageAnswer(by=found.name, holder=found.holder, place=place, age_s=found.age_s)
    )


@api.put("", responses={200: models.TellAnswer, **FAULTS})
def tell(path: SessionPath, body: models.TellAsk) -> Response:
    """Say where the session is; the answer tells what others ask of it."""
    service, phone = current(), door.phone()
    with service.read() as db:
        sessions.by_id(db, path.session_id)
    wishes = service.stages.tell(
        path.session_id,
        body.holder,
        "the computer" if phone is None else phone.name,
        Place(**body.place.model_dump()),
        take_over=body.take_over,
    )
    holding = service.stages.stage(path.session_id)
    return answered(
        models.TellAnswer(
            held=wishes is not None,
            by="" if holding is None else holding.name,
            wishes=wishes or [],
        )
    )


@api.post("/wishes", responses={204: None, **FAULTS})
def wish(path: SessionPath, body: models.WishAsk) -> tuple[str, int]:
    """Ask something of the screen that runs a session."""
    if not current().stages.wish(path.session_id, body.wish):
        raise NotReadyError(*NOBODY)
    return "", int(HTTPStatus.NO_CONTENT)


@api.delete("", responses={204: None, **FAULTS})
def leave(path: SessionPath, query: models.HolderQuery) -> tuple[str, int]:
    """This screen runs the session no more."""
    current().stages.leave(path.session_id, query.holder)
    return "", int(HTTPStatus.NO_CONTENT)
