"""Drills, what is due, sessions and their takes."""

from __future__ import annotations

import base64
from dataclasses import asdict
from http import HTTPStatus

from flask import Response

from ridgewind.services import after_take, filing, practising
from ridgewind.services.session_sheet import session_sheet
from ridgewind.store import database, sessions
from ridgewind.store.database import Connection
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current, download
from ridgewind.web.practice import models
from ridgewind.web.practice.alone import alone

api = blueprint("practice")

MOST_SESSIONS = 60


@api.get("/sessions", responses={200: models.SessionList, **FAULTS})
def list_sessions() -> Response:
    """The newest sessions."""
    with current().read() as db:
        rows = sessions.recent(db, limit=MOST_SESSIONS)
    return answered(models.SessionList(sessions=[_item(row) for row in rows]))


@api.post("/sessions", responses={201: models.SessionDetail, **FAULTS})
def add_session(body: models.SessionAsk) -> Response:
    """Keep a planned session."""
    with current().read() as db:
        session_id = practising.keep_session(
            db, name=body.name.strip(), ask=body.ask, plan=body.plan, setup_id=body.setup_id
        )
        return answered(_detail(db, session_id), HTTPStatus.CREATED)


@api.get("/sessions/<int:session_id>", responses={200: models.SessionDetail, **FAULTS})
def one_session(path: models.SessionPath) -> Response:
    """A session with its drills and the checks before rolling."""
    with current().read() as db:
        return answered(_detail(db, path.session_id))


@api.post("/sessions/<int:session_id>/accept", responses={200: models.SessionDetail, **FAULTS})
def accept_cautions(path: models.SessionPath) -> Response:
    """The cautions were read."""
    with current().read() as db:
        with database.atomic(db):
            sessions.accept(db, path.session_id)
        return answered(_detail(db, path.session_id))


@api.post("/sessions/<int:session_id>/end", responses={200: models.SessionDetail, **FAULTS})
def end_session(path: models.SessionPath, body: models.EndAsk) -> Response:
    """Close a session, or open it again; everything filmed stays."""
    with current().read() as db:
        with database.atomic(db):
            sessions.end(db, path.session_id, ended=body.ended)
        return answered(_detail(db, path.session_id))


@api.patch(
    "/sessions/<int:session_id>/takes/<int:position>",
    responses={200: models.SessionDetail, **FAULTS},
)
def note_take(path: models.SessionTakePath, body: models.TakeNote) -> Response:
    """Say what became of a take: filmed or skipped, how it felt, which film it is."""
    given = body.model_fields_set
    with current().read() as db:
        with database.atomic(db):
            if body.state is not None:
                sessions.set_state(
                    db, path.session_id, path.position, body.state, filmed_at=body.filmed_at
                )
            notes = {name: getattr(body, name) for name in sessions.NOTE_FIELDS if name in given}
            sessions.set_notes(db, path.session_id, path.position, notes)
        if "take_id" in given:
            filing.file_film(db, path.session_id, path.position, body.take_id)
        return answered(_detail(db, path.session_id))


@api.get("/sessions/<int:session_id>/matches", responses={200: models.Proposals, **FAULTS})
def matches(path: models.SessionPath) -> Response:
    """Which loose films could belong to which takes, with certainty and reason."""
    with current().read() as db:
        found = filing.proposals(db, path.session_id)
    values = {name: getattr(found, name) for name in models.Proposals.model_fields}
    return answered(models.Proposals.model_validate(values))


@api.get(
    "/sessions/<int:session_id>/takes/<int:position>/result",
    responses={200: models.TakeResult, **FAULTS},
)
def result(path: models.SessionTakePath) -> Response:
    """What is said of a take in the rest after it."""
    with current().read() as db:
        found = after_take.result_of(db, path.session_id, path.position)
    return answered(models.TakeResult.model_validate(asdict(found)))


@api.get("/sessions/<int:session_id>/slates/<int:position>.svg")
def slate(path: models.SessionTakePath) -> Response:
    """The code to film before a take."""
    with current().read() as db:
        drawing = practising.slate_svg(db, path.session_id, path.position)
    return Response(drawing, mimetype="image/svg+xml")


@api.get("/sessions/<int:session_id>/alone.html")
def session_alone(path: models.SessionPath) -> Response:
    """The session in one file that runs by itself."""
    with current().read() as db:
        detail = _detail(db, path.session_id)
        count = len(detail.session.takes)
        slates = [practising.slate_svg(db, path.session_id, take) for take in range(count)]
    return download(alone(detail, slates), "text/html", f"session {path.session_id}.html")


def _detail(db: Connection, session_id: int) -> models.SessionDetail:
    found = session_sheet(db, session_id)
    return models.SessionDetail.model_validate(
        {
            "session": _item(found.session),
            "drills": found.drills,
            "checks": found.checks,
            "cadence_hz": found.cadence_hz,
            "outcomes": [
                {"ridge": base64.b64encode(one.ridge).decode(), "why_out": one.why_out}
                for one in found.outcomes
            ],
        }
    )


def _item(row: sessions.SessionRow) -> models.SessionItem:
    fields = models.SessionTake.model_fields
    values = {name: getattr(row, name) for name in models.SessionItem.model_fields}
    values["takes"] = [{name: getattr(take, name) for name in fields} for take in row.takes]
    return models.SessionItem.model_validate(values)
