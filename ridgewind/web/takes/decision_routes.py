"""What to do with one take: details of the remedies, recipes, rendered films, marks and choices."""

from __future__ import annotations

import csv
import io
import json
from dataclasses import asdict
from http import HTTPStatus

import numpy as np
from flask import Response, send_file
from flask_openapi3 import APIBlueprint

from ridgewind.core.judge.recipe import Recipe, WindowMaker
from ridgewind.services import deciding
from ridgewind.services.deciding import Case, RemedyRequest
from ridgewind.store import database, jobs, marks, renders, takes
from ridgewind.store.database import Connection
from ridgewind.store.renders import RenderRow
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import MissingError, NotReadyError
from ridgewind.web.takes import decision_models as models
from ridgewind.web.takes import serialise
from ridgewind.web.takes.models import TakeDetail, TakeLine, TakePath
from ridgewind.web.takes.routes import take_detail

api = APIBlueprint("decisions", __name__, url_prefix="/api")

WINDOW_POINTS = 900
"""Times at which a recipe's windows are given."""


@api.get("/takes/<int:take_id>/remedy-details", responses={200: models.RemedyDetails, **FAULTS})
def remedy_details(path: TakePath) -> Response:
    """Rates, polish curves, hints for next time, and the drill for the first cause."""
    with current().read() as db:
        found = deciding.details_of(db, _case(db, path.take_id))
    drill = found.drill
    return answered(
        models.RemedyDetails.model_validate(
            {
                "rates": [asdict(rate) for rate in found.rates],
                "curves": [
                    {"remedy": kind, "strengths": [asdict(one) for one in strengths]}
                    for kind, strengths in found.curves.items()
                ],
                "hints": [asdict(hint) for hint in found.hints],
                "drill": None if drill is None else {"key": drill.key, "name": drill.name},
                "drift_crop_pct": found.drift_crop_pct,
            }
        )
    )


@api.get("/takes/<int:take_id>/windows", responses={200: models.WindowColumns, **FAULTS})
def windows(path: TakePath, query: models.RemedyAsk) -> Response:
    """What of each frame a remedy shows, to be drawn over the picture."""
    with current().read() as db:
        case = _case(db, path.take_id)
        recipe = deciding.recipe(case, _request(query))
    count = min(WINDOW_POINTS, max(2, round((recipe.end_s - recipe.start_s) * case.clip.fps)))
    t_s = np.linspace(recipe.start_s, recipe.end_s, count)
    corners = (
        WindowMaker(recipe, case.analysis, upright=case.clip.upright)
        .at(t_s)
        .corners(case.clip.size_px)
    )
    return answered(
        models.WindowColumns(
            t_s=np.round(t_s - case.start_s, 3).tolist(),
            corners=np.round(corners.reshape(count, 8), 4).tolist(),
        )
    )


@api.get("/takes/<int:take_id>/recipe.json")
def recipe_as_json(path: TakePath, query: models.RemedyAsk) -> Response:
    """A remedy's numbers, with the window of every frame."""
    with current().read() as db:
        case = _case(db, path.take_id)
        recipe = deciding.recipe(case, _request(query))
    reading = case.analysis.reading(recipe.rate, step=recipe.step)
    t_s = case.analysis.motion.t_s
    t_s = t_s[(t_s >= recipe.start_s - 1e-6) & (t_s <= recipe.end_s + 1e-6)][:: recipe.step]
    found = WindowMaker(recipe, case.analysis, upright=case.clip.upright).at(t_s)
    body = {
        "take": case.take.name,
        **_recipe_line(recipe, case.start_s).model_dump(),
        "trusted_share": round(reading.trusted_share, 4),
        "windows": {
            "about": "centre of the window from the picture's, right and down, percent of the long"
            " side; turn in degrees clockwise; size against the frame",
            "t_s": np.round(t_s - case.start_s, 5).tolist(),
            "x_pct": np.round(found.x_pct, 5).tolist(),
            "y_pct": np.round(found.y_pct, 5).tolist(),
            "turn_deg": np.round(found.turn_deg, 5).tolist(),
            "size": np.round(found.size, 6).tolist(),
        },
    }
    return _download(json.dumps(body, indent=1), "application/json", path.take_id, recipe, "json")


@api.get("/takes/<int:take_id>/recipe.csv")
def recipe_as_csv(path: TakePath, query: models.RemedyAsk) -> Response:
    """A remedy's numbers: one row."""
    with current().read() as db:
        case = _case(db, path.take_id)
        recipe = deciding.recipe(case, _request(query))
    values = {"take": case.take.name, **_recipe_line(recipe, case.start_s).model_dump()}
    out = io.StringIO()
    writer = csv.DictWriter(out, fieldnames=list(values))
    writer.writeheader()
    writer.writerow(
        {name: f"{one:.5g}" if isinstance(one, float) else one for name, one in values.items()}
    )
    return _download(out.getvalue(), "text/csv", path.take_id, recipe, "csv")


@api.post("/takes/<int:take_id>/renders", responses={201: models.RenderLine, **FAULTS})
def render(path: TakePath, body: models.RenderAsk) -> Response:
    """Ask for a small preview of the roughest seconds of a remedy, or for all of it full size."""
    service = current()
    with service.read() as db:
        case = _case(db, path.take_id)
        if not case.pictured:
            raise NotReadyError("This take has no picture.", "A motion log alone shows nothing.")
        recipe = deciding.recipe(case, _request(body))
        if body.purpose == "preview":
            recipe = deciding.preview_of(case, recipe)
        with database.atomic(db):
            number = renders.add(db, take_id=path.take_id, purpose=body.purpose, recipe=recipe)
        row = renders.by_id(db, number)
        if row.state == "queued":
            service.queue.put("render", number)
        return answered(_line(db, row, case.start_s), HTTPStatus.CREATED)


@api.get("/takes/<int:take_id>/renders", responses={200: models.RenderList, **FAULTS})
def renders_of(path: TakePath) -> Response:
    """Films made from a take, the newest first."""
    with current().read() as db:
        rows = renders.of_take(db, path.take_id)
        case = _case(db, path.take_id) if rows else None
        lines = [_line(db, row, 0.0 if case is None else case.start_s) for row in rows]
    return answered(models.RenderList(renders=lines))


@api.delete("/renders/<int:render_id>", responses={200: models.RenderList, **FAULTS})
def forget_render(path: models.RenderPath) -> Response:
    """Stop a film that is being made, or remove one that is done; it can be made again."""
    service = current()
    with service.read() as db:
        with database.atomic(db):
            row = renders.by_id(db, path.render_id)
            if row.state in ("queued", "running"):
                jobs.request_cancel(db, "render", row.id)
            else:
                renders.remove(db, row.id)
                service.library.render_of(row.id).unlink(missing_ok=True)
        rows = renders.of_take(db, row.take_id)
        case = _case(db, row.take_id) if rows else None
        lines = [_line(db, one, 0.0 if case is None else case.start_s) for one in rows]
    return answered(models.RenderList(renders=lines))


@api.get("/renders/<int:render_id>/film.mp4")
def rendered_film(path: models.RenderPath) -> Response:
    """A rendered film: previews to be looked at, full-size ones to be kept."""
    service = current()
    with service.read() as db:
        row = renders.by_id(db, path.render_id)
        name = takes.by_id(db, row.take_id).name
    place = service.library.render_of(row.id)
    if row.state != "done" or not place.is_file():
        raise MissingError("This film is not ready.", "Wait for it, or ask for it again.")
    full = row.purpose == "film"
    return send_file(
        place,
        mimetype="video/mp4",
        conditional=True,
        max_age=0,
        as_attachment=full,
        download_name=f"{name} - {row.recipe.kind.replace('_', ' ')}.mp4" if full else None,
    )


@api.put("/takes/<int:take_id>/mark", responses={200: TakeDetail, **FAULTS})
def mark(path: TakePath, body: models.MarkAsk) -> Response:
    """Smooth enough or not to the shooter's own eye, of a take or of a preview."""
    with current().read() as db:
        take = takes.by_id(db, path.take_id)
        view, gust, crop_pct = marks.AS_SHOT, take.gust, None
        if body.render_id is not None:
            row = renders.by_id(db, body.render_id)
            view, gust = view_of(row), row.gust
            crop_pct = row.recipe.crop_pct if row.recipe.corner_hz is not None else None
        with database.atomic(db):
            if body.smooth is None:
                marks.remove(db, path.take_id, view=view)
            elif gust is None:
                raise NotReadyError("This has no gust to set beside it.", "Measure it first.")
            else:
                marks.put(
                    db, path.take_id, view=view, smooth=body.smooth, blind=body.blind,
                    feel=take.brief.feel, gust=gust, crop_pct=crop_pct,
                )  # fmt: skip
        return answered(take_detail(db, path.take_id))


@api.put("/takes/<int:take_id>/choice", responses={200: TakeLine, **FAULTS})
def choose(path: TakePath, body: models.ChoiceAsk) -> Response:
    """Keep a take, reject it, or film it again; null leaves it open."""
    with current().read() as db:
        with database.atomic(db):
            takes.set_choice(db, path.take_id, body.choice)
        return answered(serialise.take_line(takes.by_id(db, path.take_id)))


def view_of(row: RenderRow) -> str:
    """The name under which a preview is marked: the same treatment is the same view."""
    recipe = row.recipe
    return f"{recipe.kind} {recipe.rate:.3f} {recipe.corner_hz or 0:.3f} {recipe.drift or ''}"


def _case(db: Connection, take_id: int) -> Case:
    found = deciding.case_of(db, take_id)
    if found is None:
        raise NotReadyError("This take has not been measured.", "Wait for it, or measure it.")
    return found


def _request(body: models.RemedyAsk) -> RemedyRequest:
    return RemedyRequest(body.remedy, body.corner_hz, body.rate, body.drift)


def _recipe_line(recipe: Recipe, start_s: float) -> models.RecipeLine:
    values = asdict(recipe)
    return models.RecipeLine.model_validate(
        {name: values.get(name) for name in models.RecipeLine.model_fields}
        | {
            "remedy": recipe.kind,
            "start_s": max(0.0, recipe.start_s - start_s),
            "end_s": recipe.end_s - start_s,
            "plays_s": (recipe.end_s - recipe.start_s) / recipe.rate,
            "peak_gust": recipe.peak,
        }
    )


def _line(db: Connection, row: RenderRow, start_s: float) -> models.RenderLine:
    predicted = row.recipe.gust
    return models.RenderLine(
        id=row.id,
        take_id=row.take_id,
        purpose=row.purpose,  # type: ignore[arg-type]
        recipe=_recipe_line(row.recipe, start_s),
        state=row.state,  # type: ignore[arg-type]
        progress=row.progress,
        fault_what=row.error_what,
        fault_next=row.error_next,
        gust=row.gust,
        peak_gust=row.peak_gust,
        off=None if row.gust is None or predicted is None else row.gust - predicted,
        unmeasured=row.unmeasured,
        size_bytes=row.size_bytes,
        worked=marks.one(db, row.take_id, view=view_of(row)),
    )


def _download(text: str, mimetype: str, take_id: int, recipe: Recipe, suffix: str) -> Response:
    name = f"take-{take_id}-{recipe.kind.replace('_', '-')}.{suffix}"
    reply = Response(text, mimetype=mimetype)
    reply.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return reply
