"""Takes: the list, one take, and what can be done with it."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response, request, send_file
from flask_openapi3 import APIBlueprint

from ridgewind.core.judge.brief import usual_brief
from ridgewind.core.motion.table import to_csv
from ridgewind.store import clips, database, jobs, takes
from ridgewind.web import models, serialise
from ridgewind.web.context import current
from ridgewind.web.errors import MissingError, NotReadyError
from ridgewind.work import assessing

api = APIBlueprint("takes", __name__, url_prefix="/api")

FAULTS = {"4XX": models.ErrorAnswer, "5XX": models.ErrorAnswer}


@api.get("/takes", responses={200: models.TakePage, **FAULTS})
def list_takes(query: models.ListQuery) -> Response:
    """A page of the list."""
    only = takes.Filter(remedy=query.remedy, feel=query.feel, text=query.text)
    with current().read() as db:
        rows = takes.page(
            db,
            only=only,
            sort=query.sort,
            descending=query.descending,
            offset=query.offset,
            limit=query.limit,
        )
        found = models.TakePage(
            takes=[serialise.take_line(row) for row in rows],
            total=takes.count(db, only=only),
            all=takes.count(db, only=takes.Filter()),
            busy=jobs.unfinished(db),
        )
    return _json(found)


@api.post("/takes", responses={201: models.ImportAnswer, **FAULTS})
def bring_in(query: models.ImportQuery) -> Response:
    """Take a film in; the request's body is the file. It is queued for measuring at once."""
    service = current()
    with service.read() as db:
        imported = service.library.add(
            db,
            request.stream,
            file_name=query.name,
            size_bytes=request.content_length,
            brief=usual_brief(),
        )
    if imported.take.state == "queued":
        service.queue.put(imported.take.clip_id)
    answer = models.ImportAnswer(
        take=serialise.take_line(imported.take), duplicate=imported.duplicate
    )
    return _json(answer, HTTPStatus.CREATED)


@api.get("/takes/<int:take_id>", responses={200: models.TakeDetail, **FAULTS})
def one_take(path: models.TakePath) -> Response:
    """One take with everything that is said of it."""
    with current().read() as db:
        judged = assessing.judge(db, path.take_id)
        before_id, after_id = takes.neighbours(db, path.take_id)
    facts = None if judged.motion is None else serialise.clip_facts(judged.clip, judged.motion)
    detail = models.TakeDetail(
        take=serialise.take_line(judged.take),
        brief=serialise.brief_model(judged.take.brief),
        clip=facts,
        judgement=serialise.judgement(judged),
        before_id=before_id,
        after_id=after_id,
    )
    return _json(detail)


@api.put("/takes/<int:take_id>/brief", responses={200: models.BriefAnswer, **FAULTS})
def change_brief(path: models.TakePath, body: models.Brief) -> Response:
    """Change what is asked of a take; the verdict is recomputed without measuring again."""
    with current().read() as db, database.atomic(db):
        takes.set_brief(db, path.take_id, serialise.brief_of(body))
        judged = assessing.summarise(db, path.take_id)
    answer = models.BriefAnswer(
        brief=serialise.brief_model(judged.take.brief), judgement=serialise.judgement(judged)
    )
    return _json(answer)


@api.delete("/takes/<int:take_id>", responses={200: models.TakeLine, **FAULTS})
def delete_take(path: models.TakePath) -> Response:
    """Hide a take; it can be brought back for a week."""
    with current().read() as db, database.atomic(db):
        takes.set_deleted(db, path.take_id, deleted=True)
        take = takes.by_id(db, path.take_id)
        jobs.request_cancel(db, take.clip_id)
    return _json(serialise.take_line(take))


@api.post("/takes/<int:take_id>/restore", responses={200: models.TakeLine, **FAULTS})
def restore_take(path: models.TakePath) -> Response:
    """Bring a deleted take back."""
    service = current()
    with service.read() as db:
        with database.atomic(db):
            takes.set_deleted(db, path.take_id, deleted=False)
            take = takes.by_id(db, path.take_id)
            again = take.state == "cancelled" and take.remedy is None
            if again:
                jobs.enqueue(db, take.clip_id)
        take = takes.by_id(db, path.take_id)
    if again:
        service.queue.put(take.clip_id)
    return _json(serialise.take_line(take))


@api.post("/takes/<int:take_id>/cancel", responses={200: models.TakeLine, **FAULTS})
def cancel_measuring(path: models.TakePath) -> Response:
    """Stop measuring a take."""
    with current().read() as db, database.atomic(db):
        take = takes.by_id(db, path.take_id)
        jobs.request_cancel(db, take.clip_id)
        take = takes.by_id(db, path.take_id)
    return _json(serialise.take_line(take))


@api.post("/takes/<int:take_id>/measure", responses={200: models.TakeLine, **FAULTS})
def measure_again(path: models.TakePath) -> Response:
    """Measure a take that failed or was cancelled."""
    service = current()
    with service.read() as db:
        take = takes.by_id(db, path.take_id)
        if take.state in ("failed", "cancelled"):
            with database.atomic(db):
                jobs.enqueue(db, take.clip_id)
            service.queue.put(take.clip_id)
            take = takes.by_id(db, path.take_id)
    return _json(serialise.take_line(take))


@api.get("/takes/<int:take_id>/path", responses={200: models.PathColumns, **FAULTS})
def path_of(path: models.TakePath) -> Response:
    """The path, for drawing over the picture."""
    with current().read() as db:
        judged = assessing.judge(db, path.take_id)
    if judged.motion is None:
        raise NotReadyError("This take has not been measured.", "Wait for it, or measure it.")
    return _json(serialise.path_columns(judged.motion))


@api.get("/takes/<int:take_id>/path.csv")
def path_as_csv(path: models.TakePath) -> Response:
    """The whole path, a row a frame."""
    with current().read() as db:
        judged = assessing.judge(db, path.take_id)
    if judged.motion is None:
        raise NotReadyError("This take has not been measured.", "Wait for it, or measure it.")
    name = f"take-{path.take_id}-path.csv"
    reply = Response(to_csv(judged.motion), mimetype="text/csv")
    reply.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return reply


@api.get("/takes/<int:take_id>/film")
def film(path: models.TakePath) -> Response:
    """The browser copy."""
    return _file(path.take_id, "copy", "video/mp4")


@api.get("/takes/<int:take_id>/still")
def still(path: models.TakePath) -> Response:
    """A small picture of the take."""
    return _file(path.take_id, "still", "image/jpeg")


def _file(take_id: int, kind: str, mimetype: str) -> Response:
    service = current()
    with service.read() as db:
        clip = clips.by_id(db, takes.by_id(db, take_id).clip_id)
    library = service.library
    place = library.copy_of(clip.sha256) if kind == "copy" else library.still_of(clip.sha256)
    if not place.is_file():
        raise MissingError("There is no picture of this take yet.", "Wait until it is measured.")
    return send_file(place, mimetype=mimetype, conditional=True, max_age=0)


def _json(model: models.BaseModel, status: HTTPStatus = HTTPStatus.OK) -> Response:
    return Response(model.model_dump_json(), status=int(status), mimetype="application/json")
