"""Takes side by side."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint

from ridgewind.core.shake.trace import trace
from ridgewind.services import assessing, comparing
from ridgewind.services.comparing import Group, Side
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import BadRequestError
from ridgewind.web.takes import compare_models as models
from ridgewind.web.takes import serialise
from ridgewind.web.takes.decision_models import DrillLink
from ridgewind.web.takes.models import TraceColumns

api = APIBlueprint("compare", __name__, url_prefix="/api")

TRACE_POINTS = 360


@api.get("/compare", responses={200: models.CompareAnswer, **FAULTS})
def compare(query: models.CompareQuery) -> Response:
    """Takes of a session, of a drill, or chosen ones, side by side."""
    with current().read() as db:
        if query.session is not None:
            title, groups = comparing.of_session(db, query.session)
        elif query.drill is not None:
            title, groups = comparing.of_drill(db, query.drill)
        elif query.takes is not None:
            title, groups = comparing.of_takes(db, comparing.take_ids(db, query.takes))
        else:
            raise BadRequestError("Nothing to compare.", "Name a session, a drill or takes.")
    return answered(models.CompareAnswer(title=title, groups=[_group(one) for one in groups]))


def _group(found: Group) -> models.GroupLine:
    drill = found.drill
    return models.GroupLine(
        title=found.title,
        drill=None if drill is None else DrillLink(key=drill.key, name=drill.name),
        sides=[_side(side) for side in found.sides],
        best=[] if found.best is None else list(found.best.ids),
        reason="" if found.best is None else found.best.reason,
        missing=found.missing,
        missing_words=found.missing_words,
    )


def _side(side: Side) -> models.SideLine:
    judged, candidate = side.judged, side.candidate
    line = serialise.take_line(judged.take)
    found, columns, move_s, top = judged.assessment, None, None, None
    if found is not None and judged.motion is not None:
        start_s = float(judged.motion.t_s[0])
        drawn = trace(
            found.reading,
            found.band_powers,
            screen_deg=judged.take.brief.screen_deg,
            most_points=TRACE_POINTS,
        )
        columns = TraceColumns.model_validate(serialise.trace_columns(drawn, start_s))
        move = None if found.move is None else found.move.move
        move_s = None if move is None else move.start_s - start_s
        top = assessing.top_band(found)
    return models.SideLine(
        take=line,
        part=serialise.film_part(judged.take),
        variation=side.variation,
        session=side.session,
        lee_s=None if candidate is None else candidate.lee_s,
        evenness=None if candidate is None else candidate.evenness,
        move_s=move_s,
        verdict=None if found is None else found.decision.remedy,  # type: ignore[arg-type]
        trace=columns,
        top_band=top,  # type: ignore[arg-type]
    )
