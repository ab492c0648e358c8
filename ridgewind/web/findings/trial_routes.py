"""Trials: what many takes tell of the variations of a drill."""

from __future__ import annotations

from dataclasses import asdict
from http import HTTPStatus

from flask import Response

from ridgewind.services import picked_trial as picked_trial_service
from ridgewind.services import trials
from ridgewind.services.trials import Comparison, DrillTrial, TrialLine, TrialTake
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.findings import trial_models as models
from ridgewind.web.models import KeptSession
from ridgewind.web.takes.models import TakePath

api = blueprint("trials")


@api.get("/trials", responses={200: models.TrialList, **FAULTS})
def list_trials() -> Response:
    """Drills that were filmed in two ways or more."""
    with current().read() as db:
        found = trials.lines(db)
    return answered(models.TrialList(trials=[_line(one) for one in found]))


@api.get("/trials/<string:drill_key>", responses={200: models.DrillTrial, **FAULTS})
def one_trial(path: models.TrialPath, query: models.TrialQuery) -> Response:
    """The trial of a drill, by gust or by another figure."""
    with current().read() as db:
        return answered(_trial(trials.of_drill(db, path.drill_key, by=query.by)))


@api.get("/trials/picked", responses={200: models.DrillTrial, **FAULTS})
def picked_trial(query: models.PickedQuery) -> Response:
    """A trial by hand, of any takes."""
    ids = [int(one) for one in query.takes.split(",")]
    with current().read() as db:
        found = picked_trial_service.of_picked(
            db, ids, grouping=query.grouping, control=query.control, by=query.by
        )
    return answered(_comparison(found, drill_key="", drill="Picked takes", next_round=(), rounds=0))


@api.post("/trials/<string:drill_key>/session", responses={201: KeptSession, **FAULTS})
def plan_next(path: models.TrialPath) -> Response:
    """Keep a session of the takes that would settle a trial."""
    with current().read() as db:
        session_id = trials.plan_next(db, path.drill_key, seed=1)
    return answered(KeptSession(session_id=session_id), HTTPStatus.CREATED)


@api.put("/takes/<int:take_id>/counts", responses={200: models.CountsAsk, **FAULTS})
def let_in(path: TakePath, body: models.CountsAsk) -> Response:
    """Let a take into trials, or keep it out."""
    with current().read() as db:
        trials.let_in(db, path.take_id, body.counts)
    return answered(body)


def _line(one: TrialLine) -> models.TrialLine:
    names = {variation.key: variation.name for variation in one.drill.variations}
    shares = {} if one.trial is None else one.trial.best
    best = max(shares, key=lambda key: shares[key], default=None)
    told = () if one.trial is None else one.trial.against_control.values()
    return models.TrialLine(
        drill_key=one.drill.key,
        drill=one.drill.name,
        takes=one.takes,
        sessions=one.sessions,
        best=None if best is None else names.get(best, best),
        chance=None if best is None else shares[best],
        hint=one.trial is None or one.trial.hint,
        settled=bool(told) and all(side.more_takes == 0 and not side.hint for side in told),
    )


def _trial(found: DrillTrial) -> models.DrillTrial:
    return _comparison(
        found,
        drill_key=found.drill.key,
        drill=found.drill.name,
        next_round=found.next_round,
        rounds=found.rounds,
    )


def _comparison(
    found: Comparison, *, drill_key: str, drill: str, next_round: tuple[str, ...], rounds: int
) -> models.DrillTrial:
    trial = found.trial
    counted = [one for one in found.takes if not one.why_out]
    place = None if trial is None or trial.place is None else asdict(trial.place)
    return models.DrillTrial(
        drill_key=drill_key,
        drill=drill,
        figure=models.FigureLine(**asdict(found.figure)),
        figures=[models.FigureLine(**asdict(one)) for one in found.figures],
        sides=_sides(found),
        takes=[_take(one) for one in found.takes],
        sessions=len({one.filed.session_id for one in counted}),
        dof=None if trial is None else trial.dof,
        spread=None if trial is None else trial.spread,
        place=None if place is None else models.PlaceLine(**place),
        next_round=list(next_round),
        rounds=rounds,
        why_not=found.why_not,
    )


def _sides(found: Comparison) -> list[models.TrialSide]:
    trial = found.trial
    counted = [one.filed.variation_key for one in found.takes if not one.why_out]
    sides = []
    for one in found.sides:
        told = None if trial is None else trial.against_control.get(one.key)
        sides.append(
            models.TrialSide(
                key=one.key,
                name=one.name,
                control=one.control,
                takes=counted.count(one.key),
                best=None if trial is None else trial.best.get(one.key),
                difference=None if told is None else told.value,
                low=None if told is None else told.low,
                high=None if told is None else told.high,
                p=None if told is None else told.p,
                more_takes=told.more_takes if told is not None and found.figure.gust else None,
                hint=told is not None and told.hint,
            )
        )
    return sides


def _take(one: TrialTake) -> models.TrialTakeLine:
    filed = one.filed
    return models.TrialTakeLine(
        take_id=filed.take_id,
        name=filed.name,
        session_id=filed.session_id,
        session=filed.session_name,
        variation=filed.variation_key,
        place=filed.place,
        filmed_at=filed.filmed_at,
        value=one.value,
        gust=filed.gust,
        felt=filed.felt,
        why_out=one.why_out,
        chosen=one.chosen,
    )
