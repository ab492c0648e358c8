"""A season of practice, and what was noted against what was measured."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response

from ridgewind.core.trials.curves import Progress
from ridgewind.core.trials.effects import Tiredness
from ridgewind.core.trials.feeling import Feeling
from ridgewind.core.trials.trial import Estimate
from ridgewind.services import became_film, noted, progress
from ridgewind.services.noted import BODY, FeltTechnique
from ridgewind.services.progress import DrillProgress, Season
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.findings import progress_models as models
from ridgewind.web.findings.trial_models import FigureLine

api = blueprint("progress")


@api.get("/progress", responses={200: models.Season, **FAULTS})
def season(query: models.ProgressQuery) -> Response:
    """Weeks, drills, records and what to work on next."""
    with current().read() as db:
        found = progress.season_of(db, query.drill)
    return answered(_season(found))


@api.get("/became-film", responses={200: models.BecameFilm, **FAULTS})
def what_became_film() -> Response:
    """How many takes of each technique time lines from the desk use, and how calm they are."""
    with current().read() as db:
        found = became_film.became_film(db)
    lines = [models.FilmLine(**asdict(one)) for one in found]
    return answered(models.BecameFilm(lines=lines))


@api.get("/noted", responses={200: models.Noted, **FAULTS})
def what_was_noted() -> Response:
    """Feeling, tiredness and rest against gust."""
    with current().read() as db:
        found = noted.noted(db)
    tiring, rest = found.tiring, found.rest
    return answered(
        models.Noted(
            feeling=_feeling(found.feeling),
            techniques=[_technique(one) for one in found.techniques],
            felt=found.felt,
            tiredness=_tiredness(found.tiredness),
            tired=found.tired,
            tiring=None if tiring is None else _estimate(tiring.a_take),
            stop_after=None if tiring is None else tiring.takes,
            rest=None
            if rest is None
            else models.RestLine(
                doubled=_estimate(rest.doubled), usual_s=rest.usual_s, longest_s=rest.longest_s
            ),
            rests_alike=found.rests_alike,
        )
    )


def _season(found: Season) -> models.Season:
    drills = {one.drill.key: one.drill for one in found.drills}
    return models.Season(
        weeks=[
            models.WeekLine(
                begins=one.begins.isoformat(),
                takes=one.takes,
                sessions=one.sessions,
                minutes=round(one.minutes, 1),
                values=[round(value, 3) for value in one.values],
                take_ids=list(one.take_ids),
            )
            for one in found.weeks
        ],
        drills=[_drill(one) for one in found.drills],
        chosen=None if found.chosen is None else _drill(found.chosen),
        trend=_trend(found.trend),
        work=[
            models.WorkLine(
                drill_key=one.drill_key,
                drill=drills[one.drill_key].name,
                over=one.over,
                target=drills[one.drill_key].target,
                weeks=one.weeks,
            )
            for one in found.work
        ],
    )


def _drill(one: DrillProgress) -> models.ProgressDrill:
    held = one.record
    return models.ProgressDrill(
        drill_key=one.drill.key,
        drill=one.drill.name,
        figure=FigureLine(**asdict(one.figure)),
        target=one.drill.target,
        takes=one.takes,
        usual=one.usual,
        trend=_trend(one.trend),
        record=None
        if held is None
        else models.RecordLine(
            take_id=held.take.take_id,
            name=held.take.name,
            value=held.value,
            filmed_at=held.moment.isoformat(),
        ),
    )


def _trend(found: Progress | None) -> models.TrendLine | None:
    if found is None:
        return None
    return models.TrendLine(slope=found.slope, low=found.low, high=found.high)


def _feeling(found: Feeling | None) -> models.FeelingLine | None:
    return None if found is None else models.FeelingLine(word=found.word, **asdict(found))


def _technique(one: FeltTechnique) -> models.FeltTechnique:
    return models.FeltTechnique(
        key=one.key,
        name=one.name,
        drill=one.drill.name,
        feeling=_feeling(one.feeling),
        good=[take.figures[BODY.key] for take in one.good],
        bad=[take.figures[BODY.key] for take in one.bad],
    )


def _tiredness(found: Tiredness | None) -> models.Tiredness | None:
    if found is None:
        return None
    return models.Tiredness(
        base=found.base,
        base_takes=found.base_takes,
        levels=[models.TirednessLine(**asdict(one)) for one in found.levels],
        stop_from=found.stop_from,
    )


def _estimate(one: Estimate) -> models.EstimateLine:
    return models.EstimateLine(value=one.value, low=one.low, high=one.high)
