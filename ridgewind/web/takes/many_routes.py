"""Many takes at once: which there are, changing them with one undo, films and tables of them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import asdict
from http import HTTPStatus

from flask import Response, stream_with_context

from ridgewind.services import choosing, deciding, exporting, narrowing
from ridgewind.services.choosing import Done, ManyChange
from ridgewind.store import listing
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current, given
from ridgewind.web.takes import export_files
from ridgewind.web.takes import many_models as models
from ridgewind.web.takes.list_models import FilterQuery
from ridgewind.web.takes.serialise import filter_of

api = blueprint("many")

JUDGE_FIRST_S = 0.3
"""Spent on judging again before the answer; the rest follows in the background."""


@api.get("/takes/ids", responses={200: models.TakeIds, **FAULTS})
def ids_of(query: models.IdsQuery) -> Response:
    """Ids of all takes that the list would show."""
    with current().read() as db:
        found = listing.ids(db, only=filter_of(query), sort=query.sort, descending=query.descending)
    return answered(models.TakeIds(ids=found))


@api.get("/takes/narrowings", responses={200: models.Narrowings, **FAULTS})
def narrowings(query: FilterQuery) -> Response:
    """What the list could be narrowed by."""
    with current().read() as db:
        found = narrowing.values(db, filter_of(query))
    return answered(
        models.Narrowings.model_validate(
            {name: [asdict(one) for one in values] for name, values in found.items()}
        )
    )


@api.post("/takes/many", responses={200: models.ManyAnswer, **FAULTS})
def change_many(body: models.ManyAsk) -> Response:
    """Change many takes; all of it is undone by one answer."""
    service = current()
    asked = ManyChange(
        name=given(body, "name"),
        brief_id=body.brief_id,
        setup_id=body.setup_id,
        own_capture_fps=given(body, "own_capture_fps"),
        choice=given(body, "choice"),
        deleted=body.deleted,
    )
    with service.read() as db:
        done = choosing.change(db, body.ids, asked)
        service.judge_again(db, budget_s=JUDGE_FIRST_S)
    return _answer(done)


@api.post("/takes/many/<int:change_id>/undo", responses={200: models.ManyAnswer, **FAULTS})
def undo_many(path: models.ChangePath) -> Response:
    """Take back what was changed in many takes."""
    service = current()
    with service.read() as db:
        done = choosing.undo(db, path.change_id)
        for clip_id in done.to_measure:
            service.queue.put("measure", clip_id)
        service.judge_again(db, budget_s=JUDGE_FIRST_S)
    return _answer(done)


@api.post("/takes/many/renders", responses={201: models.ManyRenders, **FAULTS})
def render_many(body: models.Chosen) -> Response:
    """Let the verdict of each take be rendered full size, where it leaves anything to be made."""
    service = current()
    made: list[int] = []
    with service.read() as db:
        for take_id in body.ids:
            row = deciding.ask_for_verdict(db, take_id)
            if row is None:
                continue
            made.append(row.id)
            if row.state == "queued":
                service.queue.put("render", row.id)
    found = models.ManyRenders(render_ids=made, passed_over=len(body.ids) - len(made))
    return answered(found, HTTPStatus.CREATED)


@api.post("/takes/export")
def export(body: models.ExportAsk) -> Response:
    """Readings, verdicts, in and out, and causes of many takes, streamed as a table."""
    service = current()
    write = export_files.as_csv if body.form == "csv" else export_files.as_json

    def lines() -> Iterator[str]:
        with service.read() as db:
            yield from write(exporting.records(db, body.ids))

    reply = Response(
        stream_with_context(lines()),
        mimetype="text/csv" if body.form == "csv" else "application/json",
    )
    reply.headers["Content-Disposition"] = f'attachment; filename="takes.{body.form}"'
    return reply


def _answer(done: Done) -> Response:
    return answered(models.ManyAnswer(change_id=done.change_id, takes=done.takes))
