"""Drills, what is due, the weeks ahead, and a session before it is kept."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.services import one_step, practising
from ridgewind.services.practising import ShelvedDrill
from ridgewind.store import database, drills
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current, download
from ridgewind.web.models import KeptSession
from ridgewind.web.plan import models

api = blueprint("plan")


@api.get("/drills", responses={200: models.DrillList, **FAULTS})
def list_drills() -> Response:
    """The library, own drills first, with when each is due."""
    with current().read() as db:
        found, weakest = practising.shelf(db)
    today = practising.iso(practising.today())
    body = {"drills": [_item(one) for one in found], "weakest": weakest, "today": today}
    return answered(models.DrillList.model_validate(body))


@api.put("/drills/<string:key>", responses={200: models.DrillAsk, **FAULTS})
def keep_drill(path: models.DrillPath, body: models.DrillAsk) -> Response:
    """Keep a drill of one's own, new or changed."""
    if body.drill.key != path.key:
        raise InvalidArgumentError("key", body.drill.key, "it must be the address's own")
    with current().read() as db, database.atomic(db):
        drills.put(db, body.drill)
    return answered(body)


@api.post("/drills/<string:key>/archive", responses={200: models.DrillAsk, **FAULTS})
def archive_drill(path: models.DrillPath) -> Response:
    """Put a drill away."""
    return _archive(path.key, archived=True)


@api.post("/drills/<string:key>/restore", responses={200: models.DrillAsk, **FAULTS})
def restore_drill(path: models.DrillPath) -> Response:
    """Bring a drill back."""
    return _archive(path.key, archived=False)


def _archive(key: str, *, archived: bool) -> Response:
    with current().read() as db:
        with database.atomic(db):
            drills.set_archived(db, key, archived=archived)
        return answered(models.DrillAsk(drill=drills.by_key(db, key).drill))


@api.post("/sessions/plan", responses={200: models.PlanAnswer, **FAULTS})
def plan_session(body: models.PlanAsk) -> Response:
    """Build a session; nothing is kept."""
    with current().read() as db:
        return answered(models.PlanAnswer(plan=practising.plan(db, body.ask)))


@api.post("/drills/<string:key>/session", responses={201: KeptSession, **FAULTS})
def practise_drill(path: models.DrillPath, body: models.PractiseAsk) -> Response:
    """Keep a session of one drill."""
    with current().read() as db:
        session_id = one_step.practise(db, path.key, variation=body.variation, seed=1)
    return answered(KeptSession(session_id=session_id), HTTPStatus.CREATED)


@api.post("/sessions/first-look", responses={201: KeptSession, **FAULTS})
def plan_first_look() -> Response:
    """Keep the first look at the shooter's hand: six drills, twelve takes."""
    with current().read() as db:
        session_id = one_step.first_look(db)
    return answered(KeptSession(session_id=session_id), HTTPStatus.CREATED)


@api.get("/practice.ics")
def calendar() -> Response:
    """The weeks ahead, for any calendar."""
    with current().read() as db:
        text = practising.calendar(db)
    return download(text, "text/calendar", "ridgewind-practice.ics")


def _item(found: ShelvedDrill) -> dict[str, object]:
    row, due = found.row, found.due
    return {
        "drill": row.drill,
        "shipped": row.shipped,
        "archived": row.archived,
        "due_on": due and due.due_on,
        "last_on": due and due.last_on,
        "overdue": due and due.due.overdue,
        "ahead": list(due.ahead) if due else [],
        "passes": due.passes if due else 0,
        "takes": due.takes if due else 0,
    }
