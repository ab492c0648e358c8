"""Briefs: named ones that takes point at; changing one judges them all again."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response

from ridgewind.store import briefs, database, summaries
from ridgewind.store.database import Connection
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import ElsewhereError
from ridgewind.web.plan import brief_models
from ridgewind.web.plan.serialise import brief_item, brief_of

api = blueprint("briefs")

AT_ONCE_S = 0.3
"""A change judges takes again for so long before it answers; the rest follows."""


@api.get("/briefs", responses={200: brief_models.BriefList, **FAULTS})
def list_briefs() -> Response:
    """All named briefs, the last used first, archived ones at the end."""
    with current().read() as db:
        usual_id = briefs.usual(db).id
        rows = [brief_item(row, usual_id=usual_id) for row in briefs.named(db)]
    return answered(brief_models.BriefList(briefs=rows))


@api.post("/briefs", responses={201: brief_models.BriefItem, **FAULTS})
def add_brief(body: brief_models.BriefAsk) -> Response:
    """Keep a brief under a name."""
    with current().read() as db:
        with database.atomic(db):
            brief_id = briefs.add(db, brief_of(body.brief), name=body.name.strip())
        return answered(_item(db, brief_id), HTTPStatus.CREATED)


@api.put("/briefs/<int:brief_id>", responses={200: brief_models.BriefChanged, **FAULTS})
def change_brief(path: brief_models.BriefPath, body: brief_models.BriefChange) -> Response:
    """Change a brief, and every verdict that depends on it, without measuring again. Refused where
    it was changed elsewhere meanwhile."""
    service = current()
    with service.read() as db:
        with database.atomic(db):
            kept = _item(db, path.brief_id)
            if body.base not in (None, brief_models.BriefAsk(name=kept.name, brief=kept.brief)):
                raise ElsewhereError("brief")
            brief = brief_of(body.brief)
            briefs.change(db, path.brief_id, brief, name=body.name.strip())
            changed = summaries.mark_brief_stale(db, path.brief_id)
        left = min(service.judge_again(db, budget_s=AT_ONCE_S), changed)
        item = _item(db, path.brief_id)
    return answered(brief_models.BriefChanged(item=item, judged=changed - left, left=left))


@api.post("/briefs/<int:brief_id>/use", responses={200: brief_models.BriefItem, **FAULTS})
def use_brief(path: brief_models.BriefPath) -> Response:
    """Let new takes point at this brief."""
    with current().read() as db:
        with database.atomic(db):
            briefs.set_archived(db, path.brief_id, archived=False)
            briefs.mark_used(db, path.brief_id)
        return answered(_item(db, path.brief_id))


@api.post("/briefs/<int:brief_id>/archive", responses={200: brief_models.BriefItem, **FAULTS})
def archive_brief(path: brief_models.BriefPath) -> Response:
    """Put a brief away; takes that point at it keep it."""
    return _archive(path.brief_id, archived=True)


@api.post("/briefs/<int:brief_id>/restore", responses={200: brief_models.BriefItem, **FAULTS})
def restore_brief(path: brief_models.BriefPath) -> Response:
    """Bring an archived brief back."""
    return _archive(path.brief_id, archived=False)


def _archive(brief_id: int, *, archived: bool) -> Response:
    with current().read() as db:
        with database.atomic(db):
            briefs.set_archived(db, brief_id, archived=archived)
        return answered(_item(db, brief_id))


def _item(db: Connection, brief_id: int) -> brief_models.BriefItem:
    return brief_item(briefs.by_id(db, brief_id), usual_id=briefs.usual(db).id)
