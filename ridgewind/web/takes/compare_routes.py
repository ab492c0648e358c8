"""Takes side by side."""

from __future__ import annotations

from flask import Response

from ridgewind.services import comparing
from ridgewind.services.comparing import Group, Side
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import BadRequestError
from ridgewind.web.takes import compare_models as models
from ridgewind.web.takes import serialise
from ridgewind.web.takes.decision_models import DrillLink
from ridgewind.web.takes.models import TraceColumns

api = blueprint("compare")


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
    take, candidate, found = side.judged.take, side.candidate, side.judged.assessment
    columns = None
    if side.trace is not None:
        drawn = serialise.trace_columns(side.trace, side.start_s)
        columns = TraceColumns.model_validate(drawn)
    return models.SideLine(
        take=serialise.take_line(take),
        part=serialise.film_part(take),
        variation=side.variation,
        session=side.session,
        lee_s=None if candidate is None else candidate.lee_s,
        evenness=None if candidate is None else candidate.evenness,
        move_s=side.move_s,
        verdict=None if found is None else found.decision.remedy,  # type: ignore[arg-type]
        trace=columns,
        top_band=side.top_band,  # type: ignore[arg-type]
    )
