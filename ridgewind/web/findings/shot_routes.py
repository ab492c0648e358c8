"""How do I get this shot: the ways, the cheapest first, and the set-up that one of them wants."""

from __future__ import annotations

from dataclasses import asdict, replace
from http import HTTPStatus
from typing import cast

from flask import Response

from ridgewind.core.brief import Brief
from ridgewind.core.judge.options import SURE
from ridgewind.services import getting
from ridgewind.services.getting import TechniqueOption
from ridgewind.store import briefs, kit
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.findings import shot_models as models
from ridgewind.web.models import FeelName, NamedLink, ScreenName

api = blueprint("shot")


@api.get("/shot", responses={200: models.ShotAnswer, **FAULTS})
def ways_to_get(query: models.ShotQuery) -> Response:
    """Every way to get a shot."""
    with current().read() as db:
        row = briefs.usual(db) if query.brief_id is None else briefs.by_id(db, query.brief_id)
        brief = _asked(row.brief, query)
        found = getting.get_shot(
            db, brief, focal_eq_mm=query.focal_eq_mm, move=query.move, setup_id=query.setup_id
        )
        named = [one for one in briefs.named(db) if not one.archived]
        setups = [one for one in kit.setups(db) if not one.archived]
    return answered(
        models.ShotAnswer(
            brief=NamedLink(id=row.id, name=row.name or ""),
            briefs=[NamedLink(id=one.id, name=one.name or "") for one in named],
            setup=NamedLink(id=found.setup.id, name=found.setup.name),
            setups=[NamedLink(id=one.id, name=one.ask.name) for one in setups],
            feel=cast(FeelName, brief.feel),
            wanted_s=brief.wanted_s,
            keep_sound=brief.keep_sound,
            screen=cast(ScreenName, brief.screen),
            delivery_fps=brief.delivery_fps,
            delivery_width_px=brief.delivery_width_px,
            target=brief.target,
            options=[_option(one, brief) for one in found.options],
            three_legs=found.three_legs,
            recorded=found.recorded,
            lenses=[
                models.ReachLine(name=one.name, low_mm=one.low_mm, high_mm=one.high_mm)
                for one in found.lenses
            ],
        )
    )


@api.get("/shot/like/<int:take_id>", responses={200: models.LikeAnswer, **FAULTS})
def shot_like(path: models.LikePath) -> Response:
    """What a clip shows, as a shot like it is asked for."""
    with current().read() as db:
        found = getting.shot_like(db, path.take_id)
    return answered(models.LikeAnswer.model_validate(asdict(found)))


@api.post("/shot/setup", responses={201: models.MadeSetup, **FAULTS})
def take_setup(body: models.SetupOfShot) -> Response:
    """Make the set-up that a way wants, and use it."""
    with current().read() as db:
        before = kit.usual_setup_id(db)
        made = getting.take_setup(db, body.setup_id, focal_eq_mm=body.focal_eq_mm, fps=body.fps)
    return answered(models.MadeSetup(setup_id=made, before_id=before), HTTPStatus.CREATED)


def _asked(brief: Brief, query: models.ShotQuery) -> Brief:
    """The brief with what is asked over it; another feel is meant with its own target."""
    if query.feel is not None and query.feel != brief.feel:
        brief = replace(brief, feel=query.feel, own_target=None)
    if query.target is not None:
        brief = replace(brief, own_target=query.target)
    if query.delivery_width_px is not None:
        shape = brief.delivery_height_px / brief.delivery_width_px
        brief = replace(brief, delivery_height_px=round(shape * query.delivery_width_px))
    over = query.model_dump(
        include={"wanted_s", "keep_sound", "screen", "delivery_fps", "delivery_width_px"},
        exclude_none=True,
    )
    return replace(brief, **over)


def _option(one: TechniqueOption, brief: Brief) -> models.OptionLine:
    option = one.option
    return models.OptionLine(
        key=one.key,
        name=one.name,
        drill_key=one.drill.key,
        drill=one.drill.name,
        variation=one.variation,
        needs=list(one.needs),
        remedy=option.remedy,
        fps=option.fps,
        rate=option.rate,
        crop_pct=option.crop_pct,
        distance=option.distance,
        focal_eq_mm=option.focal_eq_mm,
        lens=one.lens,
        gust=option.gust,
        chance=option.chance,
        lasts=option.lasts,
        longest_s=option.longest_s,
        left_px=option.left_px,
        works=option.chance >= SURE,
        blurs=option.blurs,
        takes=option.takes,
        seconds=brief.wanted_s * option.rate,
    )
