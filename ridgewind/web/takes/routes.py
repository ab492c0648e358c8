"""Takes: the list, one take, and what can be done with it."""

from __future__ import annotations

from flask import Response, send_file

from ridgewind.core.motion.subject import Mark
from ridgewind.core.motion.table import to_csv
from ridgewind.services import subject, taking
from ridgewind.services.taking import TakeChange
from ridgewind.store import clips, database, jobs, listing, summaries, takes
from ridgewind.store.database import Connection
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current, download, given
from ridgewind.web.errors import MissingError
from ridgewind.web.plan.brief_models import Brief
from ridgewind.web.plan.serialise import brief_of
from ridgewind.web.takes import list_models, models, serialise, whose_models
from ridgewind.web.takes.serialise import filter_of

api = blueprint("takes")


@api.get("/takes", responses={200: list_models.TakePage, **FAULTS})
def list_takes(query: list_models.ListQuery) -> Response:
    """A page of the list."""
    service, only = current(), filter_of(query)
    with service.read() as db, database.of_one_moment(db):
        # First of all: of a state before what is read, it costs another look; of one after it,
        # what was written meanwhile would never be seen.
        stamp = database.stamp(service.library.database)
        rows = listing.page(
            db,
            only=only,
            sort=query.sort,
            descending=query.descending,
            offset=query.offset,
            limit=query.limit,
        )
        found = list_models.TakePage(
            stamp=stamp,
            takes=[serialise.take_line(row) for row in rows],
            total=listing.count(db, only=only),
            all=listing.count(db, only=listing.Filter()),
            busy=jobs.unfinished(db, "measure"),
            stale=summaries.stale_count(db),
        )
    return answered(found)


@api.get("/pulse", responses={200: list_models.Pulse, **FAULTS})
def pulse() -> Response:
    """Whether anything has changed; small, because every open page asks all the time."""
    service = current()
    with service.read() as db:
        found = list_models.Pulse(
            stamp=database.stamp(service.library.database),
            all=listing.count(db, only=listing.Filter()),
            busy=jobs.unfinished(db, "measure"),
            stale=summaries.stale_count(db),
        )
    return answered(found)


@api.get("/takes/<int:take_id>", responses={200: models.TakeDetail, **FAULTS})
def one_take(path: models.TakePath) -> Response:
    """One take with everything that is said of it."""
    with current().read() as db:
        return answered(serialise.take_detail(taking.sheet(db, path.take_id)))


@api.put("/takes/<int:take_id>/brief", responses={200: models.TakeDetail, **FAULTS})
def change_brief(path: models.TakePath, body: Brief) -> Response:
    """Change what is asked of this take alone; judged again without measuring again."""
    with current().read() as db:
        taking.change_own_brief(db, path.take_id, brief_of(body))
        return answered(serialise.take_detail(taking.sheet(db, path.take_id)))


@api.patch("/takes/<int:take_id>", responses={200: models.TakeDetail, **FAULTS})
def change_take(path: models.TakePath, body: models.TakeChange) -> Response:
    """Let a take point at another brief or set-up, or give it a focal length of its own."""
    asked = TakeChange(
        brief_id=body.brief_id,
        setup_id=body.setup_id,
        whole=body.whole,
        part=None if body.part is None else (body.part.from_s, body.part.to_s),
        focal_eq_mm=given(body, "own_focal_eq_mm"),
        capture_fps=given(body, "own_capture_fps"),
        name=given(body, "own_name"),
    )
    with current().read() as db:
        taking.change(db, path.take_id, asked)
        return answered(serialise.take_detail(taking.sheet(db, path.take_id)))


@api.put("/takes/<int:take_id>/whose-motion", responses={200: models.TakeDetail, **FAULTS})
def say_whose_motion(path: models.TakePath, body: whose_models.WhoseMotion) -> Response:
    """Say which motion of a shot is the camera's; judged again without measuring again."""
    with current().read() as db:
        taking.say_whose_motion(db, path.take_id, shot=body.shot, rival=body.rival)
        return answered(serialise.take_detail(taking.sheet(db, path.take_id)))


@api.put("/takes/<int:take_id>/background", responses={200: models.TakeDetail, **FAULTS})
def name_background(path: models.TakePath, body: whose_models.NamedBackground) -> Response:
    """Say where in the picture the background is seen; measured again only where it has to be."""
    with current().read() as db:
        taking.name_background(db, path.take_id, frozenset(body.cells))
        return _told(db, path.take_id)


@api.put("/takes/<int:take_id>/without-subject", responses={200: models.TakeDetail, **FAULTS})
def leave_out_subject(path: models.TakePath) -> Response:
    """Judge a take by what is not the subject that is marked in it."""
    with current().read() as db:
        taking.leave_out_subject(db, path.take_id)
        return _told(db, path.take_id)


@api.get("/takes/<int:take_id>/points", responses={200: whose_models.PointsAnswer, **FAULTS})
def points_of(path: models.TakePath, query: whose_models.PointsQuery) -> Response:
    """Where the points were that were believed, and those that move by themselves."""
    with current().read() as db:
        told, others, first_s = taking.points(
            db, path.take_id, from_s=query.from_s, to_s=query.from_s + whose_models.POINTS_S
        )
    return answered(serialise.points(told, others, first_s))


@api.delete("/takes/<int:take_id>/whose-motion", responses={200: models.TakeDetail, **FAULTS})
def forget_whose_motion(path: models.TakePath) -> Response:
    """Take back what was said of a take's motions."""
    with current().read() as db:
        taking.forget_whose_motion(db, path.take_id)
        return _told(db, path.take_id)


def _told(db: Connection, take_id: int) -> Response:
    """A take as it is after a word on it, handed to the worker where it waits."""
    found = taking.sheet(db, take_id)
    if found.judged.take.state == "queued":
        current().queue.put("measure", found.judged.take.clip_id)
    return answered(serialise.take_detail(found))


@api.delete("/takes/<int:take_id>", responses={200: models.TakeLine, **FAULTS})
def delete_take(path: models.TakePath) -> Response:
    """Hide a take; it can be brought back for a week."""
    with current().read() as db:
        return answered(serialise.take_line(taking.delete(db, path.take_id)))


@api.post("/takes/<int:take_id>/restore", responses={200: models.TakeLine, **FAULTS})
def restore_take(path: models.TakePath) -> Response:
    """Bring a deleted take back."""
    with current().read() as db:
        return _queued(taking.restore(db, path.take_id))


@api.post("/takes/<int:take_id>/cancel", responses={200: models.TakeLine, **FAULTS})
def cancel_measuring(path: models.TakePath) -> Response:
    """Stop measuring a take."""
    with current().read() as db:
        return answered(serialise.take_line(taking.cancel(db, path.take_id)))


@api.post("/takes/<int:take_id>/measure", responses={200: models.TakeLine, **FAULTS})
def measure_again(path: models.TakePath) -> Response:
    """Measure a take that failed or was cancelled."""
    with current().read() as db:
        return _queued(taking.measure_again(db, path.take_id))


def _queued(take: takes.TakeRow) -> Response:
    """The line of a take, which is handed to the worker where it waits."""
    if take.state == "queued":
        current().queue.put("measure", take.clip_id)
    return answered(serialise.take_line(take))


@api.get("/takes/<int:take_id>/path", responses={200: models.PathColumns, **FAULTS})
def path_of(path: models.TakePath) -> Response:
    """The path, for drawing over the picture."""
    with current().read() as db:
        motion, judged = taking.measured_path(db, path.take_id)
    move = None if judged.assessment is None else judged.assessment.move
    return answered(serialise.path_columns(motion, move))


@api.get("/takes/<int:take_id>/spectrum", responses={200: models.SpectrumColumns, **FAULTS})
def spectrum_of(path: models.TakePath) -> Response:
    """The shake by frequency, with its strongest lines."""
    with current().read() as db:
        return answered(serialise.spectrum_columns(taking.spectrum(db, path.take_id)))


@api.get("/takes/<int:take_id>/path.csv")
def path_as_csv(path: models.TakePath) -> Response:
    """The whole path, a row a frame."""
    with current().read() as db:
        motion, _ = taking.measured_path(db, path.take_id)
    return download(to_csv(motion), "text/csv", f"take-{path.take_id}-path.csv")


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
    # What films the demo's clips is large, and nothing else here asks for it.
    from ridgewind.demo.filling import SIMULATED_CAMERA  # noqa: PLC0415

    return send_file(SIMULATED_CAMERA, mimetype="video/mp4", conditional=True, max_age=0)


@api.post("/takes/<int:take_id>/subject", responses={200: models.SubjectAnswer, **FAULTS})
def mark_subject(path: models.TakePath, body: models.SubjectMark) -> Response:
    """Mark a subject in the picture; a worker follows it both ways."""
    service = current()
    with service.read() as db:
        mark = Mark(body.at_s, body.x, body.y)
        subject.ask(db, path.take_id, mark, second=body.second)
        service.queue.put(subject.KIND, path.take_id)
        return _subject(db, path.take_id)


@api.delete(
    "/takes/<int:take_id>/subject/following", responses={200: models.SubjectAnswer, **FAULTS}
)
def stop_following(path: models.TakePath) -> Response:
    """Follow no further; what was marked before stays."""
    with current().read() as db:
        subject.stop(db, path.take_id)
        return _subject(db, path.take_id)


@api.get("/takes/<int:take_id>/subject", responses={200: models.SubjectAnswer, **FAULTS})
def subject_of(path: models.TakePath) -> Response:
    """The marked subject of a take; nothing is followed where none was marked."""
    with current().read() as db:
        return _subject(db, path.take_id)


@api.delete("/takes/<int:take_id>/subject", responses={200: models.SubjectAnswer, **FAULTS})
def let_subject_go(path: models.TakePath) -> Response:
    """Take the mark away."""
    with current().read() as db:
        subject.let_go(db, path.take_id)
        return _subject(db, path.take_id)


@api.post("/takes/<int:take_id>/subject/restore", responses={200: models.SubjectAnswer, **FAULTS})
def bring_subject_back(path: models.TakePath) -> Response:
    """Bring back the mark that was taken away."""
    with current().read() as db:
        subject.bring_back(db, path.take_id)
        return _subject(db, path.take_id)


def _subject(db: Connection, take_id: int) -> Response:
    return answered(serialise.subject_answer(subject.sheet(db, take_id)))


def _makes_copy_again(take_id: int) -> bool:
    service = current()
    with service.read() as db:
        clip_id = taking.make_copy_again(service.library, db, take_id)
    if clip_id is not None:
        service.queue.put("measure", clip_id)
    return clip_id is not None


def _file(take_id: int, kind: str, mimetype: str) -> Response:
    service = current()
    with service.read() as db:
        clip = clips.by_id(db, takes.by_id(db, take_id).clip_id)
    library = service.library
    place = library.copy_of(clip.sha256) if kind == "copy" else library.still_of(clip.sha256)
    if not place.is_file() and kind == "copy" and _makes_copy_again(take_id):
        raise MissingError("The copy that a browser plays is being made again.", "Wait a moment.")
    if not place.is_file():
        raise MissingError("There is no picture of this take yet.", "Wait until it is measured.")
    return send_file(place, mimetype=mimetype, conditional=True, max_age=0)
