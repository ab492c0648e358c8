"""Limits: the longest lens, hold and walk of each technique, and the best tension of the strap."""

from __future__ import annotations

from flask import Response

from ridgewind.services import limits
from ridgewind.services.limits import Limits, TechniqueLimits
from ridgewind.store import briefs
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.findings import limit_models as models
from ridgewind.web.models import NamedLink

api = blueprint("limits")

SHORTEST_MM, LONGEST_MM, POINTS = 10.0, 320.0, 61
LONGEST_HOLD, HALF = 0.8, 0.5


@api.get("/limits", responses={200: models.LimitsAnswer, **FAULTS})
def limits_of(query: models.LimitsQuery) -> Response:
    """What each technique bears under a brief; the one in use where none is named."""
    with current().read() as db:
        named = [row for row in briefs.named(db) if not row.archived]
        row = briefs.usual(db) if query.brief_id is None else briefs.by_id(db, query.brief_id)
        found = limits.limits_of(db, row.brief)
    return answered(
        models.LimitsAnswer(
            brief=NamedLink(id=row.id, name=row.name or ""),
            briefs=[NamedLink(id=one.id, name=one.name or "") for one in named],
            target=found.target,
            techniques=[_technique(one, found.target) for one in found.techniques],
            strap=_strap(found),
            lenses=[
                models.LensLine(name=one.name, low_mm=one.low_mm, high_mm=one.high_mm)
                for one in found.lenses
            ],
            focal_eq_mm=found.focal_eq_mm,
        )
    )


def _technique(one: TechniqueLimits, target: float) -> models.TechniqueLine:
    ratio = LONGEST_MM / SHORTEST_MM
    focals = [SHORTEST_MM * ratio ** (k / (POINTS - 1)) for k in range(POINTS)]
    return models.TechniqueLine(
        key=one.key,
        name=one.name,
        drill_key=one.drill.key,
        drill=one.drill.name,
        takes=one.takes,
        hint=one.hint,
        longest_mm=one.longest_mm,
        curve=models.ChanceCurve(
            focal_mm=[round(focal, 2) for focal in focals],
            chance=[round(one.lens.chance(focal, target=target), 4) for focal in focals],
        ),
        hold=_hold(one),
        walk=_walk(one),
    )


def _hold(one: TechniqueLimits) -> models.HoldLine | None:
    found = one.hold
    if found is None:
        return None
    eighty, half = found.outlasting(LONGEST_HOLD), found.outlasting(HALF)
    return models.HoldLine(
        seconds=list(found.seconds),
        share=list(found.share),
        low=list(found.low),
        high=list(found.high),
        held=found.held,
        held_s=max(hold.seconds for hold in one.holds),
        eighty=eighty.seconds,
        eighty_low=eighty.low,
        eighty_high=eighty.high,
        half=half.seconds,
    )


def _walk(one: TechniqueLimits) -> models.WalkLine | None:
    if one.walk is None:
        return None
    return models.WalkLine(
        cadence=one.walk.cadence,
        at_most_walked=one.walk.at_most_walked,
        slope=one.walk.slope,
        cadences=[point.cadence for point in one.walked],
        gusts=[point.gust for point in one.walked],
        take_ids=[point.take_id for point in one.walked],
    )


def _strap(found: Limits) -> models.StrapLine | None:
    curve = found.strap
    if curve is None:
        return None
    return models.StrapLine(
        a=curve.a,
        b=curve.b,
        c=curve.c,
        lowest=curve.lowest,
        low=curve.low,
        high=curve.high,
        tensions=[one.tension for one in found.pulled],
        gusts=[one.gust for one in found.pulled],
        take_ids=[one.take_id for one in found.pulled],
    )
