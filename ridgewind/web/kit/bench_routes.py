"""The bench: figures of a set-up while it is being made, and moving previews of its move."""

from __future__ import annotations

from dataclasses import fields

from flask import Response, send_file

from ridgewind.core.kit.bench import move_plan
from ridgewind.films import previewing
from ridgewind.services import benching
from ridgewind.store import kit
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import MissingError
from ridgewind.web.kit import bench_models as models
from ridgewind.web.kit.routes import ask_of

api = blueprint("bench", prefix="/api/bench")


@api.post("", responses={200: models.BenchAnswer, **FAULTS})
def figures(body: models.BenchAsk) -> Response:
    """Every panel's figures; nothing is kept."""
    with current().read() as db:
        brief = benching.brief_for(db, body.brief_id)
        found = benching.figures(db, ask_of(body.setup), brief, body.setup_id)
    values = {field.name: getattr(found, field.name) for field in fields(found)}
    return answered(models.BenchAnswer.model_validate(values))


@api.post("/preview", responses={200: models.PreviewAnswer, **FAULTS})
def preview(body: models.BenchAsk) -> Response:
    """Film the planned move with the stand-in camera."""
    service = current()
    with service.read() as db:
        brief = benching.brief_for(db, body.brief_id)
        ask = ask_of(body.setup)
        plan = move_plan(kit.parts_of(db, ask), brief, ask.bench.move)
    name, found = previewing.preview(service.library, plan)
    answer = models.PreviewAnswer(name=name, faster=found.faster, share=found.share)
    return answered(answer)


@api.get("/previews/<string:name>")
def preview_film(path: models.PreviewPath) -> Response:
    """A preview's film."""
    place = current().library.preview_of(path.name)
    if not place.is_file():
        raise MissingError("This preview is gone.", "Render it again.")
    return send_file(place, mimetype="video/mp4", conditional=True, max_age=3600)
