"""Limits: the longest lens, hold and walk of each technique, and the best tension of the strap."""

from __future__ import annotations

import math

from flask import Response

from ridgewind.services import endurance, limits
from ridgewind.services.endurance import Endurance, Resting, TechniqueEndurance, Tiring
from ridgewind.services.limits import Limits, TechniqueLimits
from ridgewind.store import briefs
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.findings import limit_models as models
from ridgewind.web.models import NamedLink

api = blueprint("limits")

LAST_PLACE = 16
"""To which tiring is drawn: a long session (chosen here)."""

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


@api.get("/limits/endurance", responses={200: models.EnduranceAnswer, **FAULTS})
def endurance_of(query: models.LimitsQuery) -> Response:
    """How many takes each technique bears before it tires, and how long a rest it wants."""
    with current().read() as db:
        row = briefs.usual(db) if query.brief_id is None else briefs.by_id(db, query.brief_id)
        found = endurance.endurance_of(db, row.brief)
    return answered(
        models.EnduranceAnswer(
            target=found.target,
            last_place=LAST_PLACE,
            shortest_s=None if found.rests_s is None else found.rests_s[0],
            longest_s=None if found.rests_s is None else found.rests_s[1],
            rests_alike=found.rests_alike,
            techniques=[_endurance(one, found) for one in found.techniques],
        )
    )


def _endurance(one: TechniqueEndurance, found: Endurance) -> models.EnduranceLine:
    return models.EnduranceLine(
        key=one.key,
        name=one.name,
        drill_key=one.drill.key,
        drill=one.drill.name,
        takes=one.takes,
        hint=one.hint,
        tiring=None if one.tiring is None else _tiring(one.tiring),
        resting=None
        if one.resting is None or found.rests_s is None
        else _resting(one.resting, found.rests_s),
    )


def _tiring(one: Tiring) -> models.TiringLine | None:
    slope = one.line.slope
    if slope.low is None or slope.high is None:
        return None
    return models.TiringLine(
        a_take=slope.value,
        low=slope.low,
        high=slope.high,
        gust_first=one.line.at(1.0),
        gust_last=one.line.at(LAST_PLACE),
        margin=one.line.margin,
        until=one.until,
    )


def _resting(one: Resting, rests_s: tuple[float, float]) -> models.RestingLine | None:
    slope = one.line.slope
    if slope.low is None or slope.high is None:
        return None
    short, long = (math.log2(rest_s) for rest_s in rests_s)
    return models.RestingLine(
        doubled=slope.value,
        low=slope.low,
        high=slope.high,
        gust_short=one.line.at(short),
        gust_long=one.line.at(long),
        margin=one.line.margin,
        enough_s=one.enough_s,
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
