"""What to do with one take: details of the remedies, recipes, rendered films, marks and choices."""

from __future__ import annotations

from dataclasses import asdict
from http import HTTPStatus

import numpy as np
from flask import Response, send_file

from ridgewind.core.judge.recipe import Recipe
from ridgewind.services import deciding, marking, taking
from ridgewind.services.deciding import RemedyRequest
from ridgewind.store import database, renders, takes
from ridgewind.store.database import Connection
from ridgewind.store.renders import RenderRow
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current, download
from ridgewind.web.errors import MissingError
from ridgewind.web.takes import decision_files, serialise
from ridgewind.web.takes import decision_models as models
from ridgewind.web.takes.models import TakeDetail, TakeLine, TakePath

api = blueprint("decisions")

WINDOW_POINTS = 900
"""Times at which a recipe's windows are given."""


@api.get("/takes/<int:take_id>/remedy-details", responses={200: models.RemedyDetails, **FAULTS})
def remedy_details(path: TakePath) -> Response:
    """Rates, polish curves, hints for next time, and the drill for the first cause."""
    with current().read() as db:
        found = deciding.details_of(db, deciding.case_of(db, path.take_id))
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
        case = deciding.case_of(db, path.take_id)
        found = deciding.recipe(case, _request(query))
    t_s, corners = deciding.drawn_windows(case, found, most=WINDOW_POINTS)
    return answered(
        models.WindowColumns(
            t_s=np.round(t_s, 3).tolist(),
            corners=np.round(corners.reshape(len(t_s), 8), 4).tolist(),
        )
    )


@api.get("/takes/<int:take_id>/recipe.json")
def recipe_as_json(path: TakePath, query: models.RemedyAsk) -> Response:
    """A remedy's numbers, with the window of every frame."""
    with current().read() as db:
        case = deciding.case_of(db, path.take_id)
        found = deciding.recipe(case, _request(query))
    text = decision_files.as_json(case, found, deciding.frame_windows(case, found))
    return download(text, "application/json", _name(path.take_id, found, "json"))


@api.get("/takes/<int:take_id>/recipe.csv")
def recipe_as_csv(path: TakePath, query: models.RemedyAsk) -> Response:
    """A remedy's numbers: one row."""
    with current().read() as db:
        case = deciding.case_of(db, path.take_id)
        found = deciding.recipe(case, _request(query))
    text = decision_files.as_csv(case, found)
    return download(text, "text/csv", _name(path.take_id, found, "csv"))


@api.post("/takes/<int:take_id>/renders", responses={201: models.RenderLine, **FAULTS})
def render(path: TakePath, body: models.RenderAsk) -> Response:
    """Ask for a small preview of the roughest seconds of a remedy, or for all of it full size."""
    service = current()
    with service.read() as db:
        case = deciding.case_of(db, path.take_id)
        row = deciding.ask_for_film(db, case, _request(body), purpose=body.purpose)
        if row.state == "queued":
            service.queue.put("render", row.id)
        return answered(_line(db, row, case.start_s), HTTPStatus.CREATED)


@api.get("/takes/<int:take_id>/renders", responses={200: models.RenderList, **FAULTS})
def renders_of(path: TakePath) -> Response:
    """Films made from a take, the newest first."""
    with current().read() as db:
        return answered(_lines(db, path.take_id))


@api.delete("/renders/<int:render_id>", responses={200: models.RenderList, **FAULTS})
def forget_render(path: models.RenderPath) -> Response:
    """Stop a film that is being made, or remove one that is done; it can be made again."""
    service = current()
    with service.read() as db:
        take_id = deciding.forget_film(service.library, db, path.render_id)
        return answered(_lines(db, take_id))


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
        marking.mark(
            db, path.take_id, smooth=body.smooth, blind=body.blind, render_id=body.render_id
        )
        return answered(serialise.take_detail(taking.sheet(db, path.take_id)))


@api.put("/takes/<int:take_id>/choice", responses={200: TakeLine, **FAULTS})
def choose(path: TakePath, body: models.ChoiceAsk) -> Response:
    """Keep a take, reject it, or film it again; null leaves it open."""
    with current().read() as db:
        with database.atomic(db):
            takes.set_choice(db, path.take_id, body.choice)
        return answered(serialise.take_line(takes.by_id(db, path.take_id)))


def _request(body: models.RemedyAsk) -> RemedyRequest:
    return RemedyRequest(body.remedy, body.corner_hz, body.rate, body.drift, body.glide)


def _line(db: Connection, row: RenderRow, start_s: float) -> models.RenderLine:
    predicted = row.recipe.gust
    return models.RenderLine(
        id=row.id,
        take_id=row.take_id,
        purpose=row.purpose,  # type: ignore[arg-type]
        recipe=decision_files.recipe_line(row.recipe, start_s),
        state=row.state,  # type: ignore[arg-type]
        progress=row.progress,
        fault_what=row.error_what,
        fault_next=row.error_next,
        gust=row.gust,
        peak_gust=row.peak_gust,
        off=None if row.gust is None or predicted is None else row.gust - predicted,
        unmeasured=row.unmeasured,
        edge_gust=row.edge_gust,
        subject_gust=row.subject_gust,
        size_bytes=row.size_bytes,
        worked=marking.marked(db, row),
    )


def _lines(db: Connection, take_id: int) -> models.RenderList:
    rows, start_s = deciding.films_of(db, take_id)
    return models.RenderList(renders=[_line(db, row, start_s) for row in rows])


def _name(take_id: int, found: Recipe, suffix: str) -> str:
    return f"take-{take_id}-{found.kind.replace('_', '-')}.{suffix}"
