"""Takes: the list, one take, and what can be done with it."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response, request, send_file
from flask_openapi3 import APIBlueprint

from ridgewind.core.motion.table import to_csv
from ridgewind.demo.filling import SIMULATED_CAMERA
from ridgewind.films import following as subject_work
from ridgewind.services import assessing
from ridgewind.store import briefs, clips, database, jobs, kit, marks, motion_logs, subjects, takes
from ridgewind.store.database import Connection
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import MissingError, NotReadyError
from ridgewind.web.models import NamedLink
from ridgewind.web.plan.brief_models import Brief
from ridgewind.web.plan.serialise import brief_model, brief_of
from ridgewind.web.takes import models, serialise

api = APIBlueprint("takes", __name__, url_prefix="/api")


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
            busy=jobs.unfinished(db, "measure"),
            stale=takes.stale_count(db),
        )
    return answered(found)


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
        )
    if imported.take.state == "queued":
        service.queue.put("measure", imported.take.clip_id)
    answer = models.ImportAnswer(
        take=serialise.take_line(imported.take), duplicate=imported.duplicate
    )
    return answered(answer, HTTPStatus.CREATED)


@api.get("/takes/<int:take_id>", responses={200: models.TakeDetail, **FAULTS})
def one_take(path: models.TakePath) -> Response:
    """One take with everything that is said of it."""
    with current().read() as db:
        return answered(take_detail(db, path.take_id))


@api.put("/takes/<int:take_id>/brief", responses={200: models.TakeDetail, **FAULTS})
def change_brief(path: models.TakePath, body: Brief) -> Response:
    """Change what is asked of this take alone; judged again without measuring again."""
    with current().read() as db:
        with database.atomic(db):
            takes.set_own_brief(db, path.take_id, brief_of(body))
            assessing.summarise(db, path.take_id)
        return answered(take_detail(db, path.take_id))


@api.patch("/takes/<int:take_id>", responses={200: models.TakeDetail, **FAULTS})
def change_take(path: models.TakePath, body: models.TakeChange) -> Response:
    """Let a take point at another brief or set-up, or give it a focal length of its own."""
    with current().read() as db:
        with database.atomic(db):
            takes.point(db, path.take_id, brief_id=body.brief_id, setup_id=body.setup_id)
            if body.brief_id is not None:
                briefs.mark_used(db, body.brief_id)
            if body.setup_id is not None:
                kit.mark_setup_used(db, body.setup_id)
            if body.whole:
                takes.set_part(db, path.take_id, None)
            if "own_focal_eq_mm" in body.model_fields_set:
                takes.set_own_focal(db, path.take_id, body.own_focal_eq_mm)
            assessing.summarise(db, path.take_id)
        return answered(take_detail(db, path.take_id))


def take_detail(db: Connection, take_id: int) -> models.TakeDetail:
    """One take with everything that is said of it. Raises NotFoundError."""
    judged = assessing.judge(db, take_id)
    before_id, after_id = takes.neighbours(db, take_id)
    take, own = judged.take, briefs.by_id(db, judged.take.brief_id)
    parent = None if own.parent_id is None else briefs.by_id(db, own.parent_id)
    setup = None if take.setup_id is None else kit.setup_by_id(db, take.setup_id)
    return models.TakeDetail(
        take=serialise.take_line(take),
        brief=brief_model(take.brief),
        brief_link=_link(own),
        brief_parent=_link(parent),
        setup=None
        if setup is None
        else serialise.take_setup(setup, kit.parts_of(db, setup.ask).camera),
        focal_eq_mm=take.focal_eq_mm,
        own_focal_eq_mm=take.own_focal_eq_mm,
        part=_part(take),
        clip=None if judged.motion is None else serialise.clip_facts(judged.clip, judged.motion),
        log=None if (log := motion_logs.of_clip(db, take.clip_id)) is None else log.name,
        judgement=serialise.judgement(judged),
        marked=marks.one(db, take_id, view=marks.AS_SHOT),
        cleared=judged.clip.cleared_at is not None,
        before_id=before_id,
        after_id=after_id,
    )


def _part(take: takes.TakeRow) -> models.TakePart | None:
    if take.judged_part is None:
        return None
    from_s, to_s = take.judged_part
    return models.TakePart(from_s=from_s, to_s=to_s, trimmed=take.from_s is not None)


def _link(row: briefs.BriefRow | None) -> NamedLink | None:
    return None if row is None or row.name is None else NamedLink(id=row.id, name=row.name)


@api.delete("/takes/<int:take_id>", responses={200: models.TakeLine, **FAULTS})
def delete_take(path: models.TakePath) -> Response:
    """Hide a take; it can be brought back for a week."""
    with current().read() as db, database.atomic(db):
        takes.set_deleted(db, path.take_id, deleted=True)
        take = takes.by_id(db, path.take_id)
        jobs.request_cancel(db, "measure", take.clip_id)
    return answered(serialise.take_line(take))


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
                jobs.enqueue(db, "measure", take.clip_id)
        take = takes.by_id(db, path.take_id)
    if again:
        service.queue.put("measure", take.clip_id)
    return answered(serialise.take_line(take))


@api.post("/takes/<int:take_id>/cancel", responses={200: models.TakeLine, **FAULTS})
def cancel_measuring(path: models.TakePath) -> Response:
    """Stop measuring a take."""
    with current().read() as db, database.atomic(db):
        take = takes.by_id(db, path.take_id)
        jobs.request_cancel(db, "measure", take.clip_id)
        take = takes.by_id(db, path.take_id)
    return answered(serialise.take_line(take))


@api.post("/takes/<int:take_id>/measure", responses={200: models.TakeLine, **FAULTS})
def measure_again(path: models.TakePath) -> Response:
    """Measure a take that failed or was cancelled."""
    service = current()
    with service.read() as db:
        take = takes.by_id(db, path.take_id)
        if take.state in ("failed", "cancelled"):
            with database.atomic(db):
                jobs.enqueue(db, "measure", take.clip_id)
            service.queue.put("measure", take.clip_id)
            take = takes.by_id(db, path.take_id)
    return answered(serialise.take_line(take))


@api.get("/takes/<int:take_id>/path", responses={200: models.PathColumns, **FAULTS})
def path_of(path: models.TakePath) -> Response:
    """The path, for drawing over the picture."""
    with current().read() as db:
        judged = assessing.judge(db, path.take_id)
    if judged.motion is None:
        raise NotReadyError("This take has not been measured.", "Wait for it, or measure it.")
    move = None if judged.assessment is None else judged.assessment.move
    return answered(serialise.path_columns(judged.motion, move))


@api.get("/takes/<int:take_id>/spectrum", responses={200: models.SpectrumColumns, **FAULTS})
def spectrum_of(path: models.TakePath) -> Response:
    """The shake by frequency, with its strongest lines."""
    with current().read() as db:
        judged = assessing.judge(db, path.take_id)
    found = None if judged.assessment is None else assessing.spectrum(judged.assessment)
    if found is None:
        raise NotReadyError("No shot of this take can be measured.", "Bring in another take.")
    return answered(serialise.spectrum_columns(found))


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


@api.get("/standin/feed.mp4")
def simulated_camera() -> Response:
    """What the simulated camera sees; rendered by the stand-in camera, not a real recording."""
    return send_file(SIMULATED_CAMERA, mimetype="video/mp4", conditional=True, max_age=0)


@api.post("/takes/<int:take_id>/subject", responses={200: models.SubjectAnswer, **FAULTS})
def mark_subject(path: models.TakePath, body: models.SubjectMark) -> Response:
    """Mark a subject in the picture; it is followed at once, both ways."""
    service = current()
    with service.read() as db:
        found = subject_work.follow(
            service.library, db, path.take_id, at_s=body.at_s, x=body.x, y=body.y
        )
        return answered(serialise.subject_answer(found, assessing.judge(db, path.take_id)))


@api.get("/takes/<int:take_id>/subject", responses={200: models.SubjectAnswer, **FAULTS})
def subject_of(path: models.TakePath) -> Response:
    """The marked subject of a take; nothing is followed where none was marked."""
    with current().read() as db:
        judged = assessing.judge(db, path.take_id)
        found = subjects.of_take(db, path.take_id)
        return answered(serialise.subject_answer(found, judged))


@api.delete("/takes/<int:take_id>/subject", responses={200: models.SubjectAnswer, **FAULTS})
def forget_subject(path: models.TakePath) -> Response:
    """Take the mark away."""
    with current().read() as db:
        judged = assessing.judge(db, path.take_id)
        with database.atomic(db):
            subjects.remove(db, path.take_id)
        return answered(serialise.subject_answer(None, judged))


def _file(take_id: int, kind: str, mimetype: str) -> Response:
    service = current()
    with service.read() as db:
        clip = clips.by_id(db, takes.by_id(db, take_id).clip_id)
    library = service.library
    place = library.copy_of(clip.sha256) if kind == "copy" else library.still_of(clip.sha256)
    if not place.is_file():
        raise MissingError("There is no picture of this take yet.", "Wait until it is measured.")
    return send_file(place, mimetype=mimetype, conditional=True, max_age=0)
