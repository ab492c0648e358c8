"""The shooter's own hand: how it turns, and what it would read through another lens."""

from __future__ import annotations

from http import HTTPStatus

import numpy as np
from flask import Response

from ridgewind.core.brief import SCREENS_DEG
from ridgewind.core.trials.own_hand import MIDDLES_HZ, Prediction
from ridgewind.services import own_hand, profile
from ridgewind.services.own_hand import CURVE_MM, Asked, TechniqueHand
from ridgewind.store import briefs, database, hand_films, jobs
from ridgewind.store.hand_films import HandFilmRow
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import sentence
from ridgewind.web.findings import hand_models as models

api = blueprint("hand")


@api.get("/hand", responses={200: models.HandAnswer, **FAULTS})
def hand(query: models.HandQuery) -> Response:
    """Every technique's hand, and what the chosen one would read."""
    with current().read() as db:
        found = own_hand.hands(db)
    techniques = [_technique(one) for one in found]
    hz = np.round(MIDDLES_HZ, 3).tolist()
    if not found:
        return answered(
            models.HandAnswer(
                techniques=[], hz=hz, chosen=None, takes=0, filmed_mm=[], here=None, error=None,
                focal_mm=[], curve=[],
            )
        )  # fmt: skip
    asked = Asked(query.focal_eq_mm, query.rate, SCREENS_DEG[query.screen])
    answer = own_hand.ask(found, query.technique or found[0].key, asked)
    return answered(
        models.HandAnswer(
            techniques=techniques,
            hz=hz,
            chosen=answer.technique.key,
            takes=answer.here.takes,
            filmed_mm=sorted({round(float(mm), 1) for mm in answer.technique.hand.focal_eq_mm}),
            here=_predicted(answer.here),
            error=answer.error,
            focal_mm=np.round(CURVE_MM, 2).tolist(),
            curve=[_predicted(one) for one in answer.curve],
        )
    )


@api.get("/hand/profile", responses={200: models.ProfileAnswer, **FAULTS})
def hand_profile(query: models.ProfileQuery) -> Response:
    """Each technique at a glance, and the drills that would gain most."""
    with current().read() as db:
        row = briefs.usual(db) if query.brief_id is None else briefs.by_id(db, query.brief_id)
        found = profile.profile_of(db, row.brief)
    return answered(
        models.ProfileAnswer(
            target=found.target,
            lines=[
                models.ProfileLine(
                    key=one.key,
                    name=one.name,
                    drill_key=one.drill.key,
                    drill=one.drill.name,
                    takes=one.takes,
                    deg_s=one.deg_s,
                    low=one.low,
                    high=one.high,
                    shares=[round(share, 4) for share in one.shares],
                    longest_mm=one.longest_mm,
                    hint=one.hint,
                )
                for one in found.lines
            ],
            strongest=found.strongest,
            gains=[
                models.GainLine(
                    drill_key=one.drill.key,
                    drill=one.drill.name,
                    purpose=one.drill.purpose,
                    over=one.over,
                    kind=one.kind,
                )
                for one in found.gains
            ],
        )
    )


@api.post("/hand/films", responses={201: models.HandFilm, **FAULTS})
def begin_film(body: models.FilmAsk) -> Response:
    """Let the stand-in camera film a made scene in the shooter's hand."""
    service = current()
    with service.read() as db:
        film_id = own_hand.ask_for_film(
            db, body.technique, focal_eq_mm=body.focal_eq_mm, rate=body.rate
        )
        service.queue.put("film", film_id)
        return answered(_film(hand_films.by_id(db, film_id)), HTTPStatus.CREATED)


@api.get("/hand/films/<int:film_id>", responses={200: models.HandFilm, **FAULTS})
def film(path: models.FilmPath) -> Response:
    """How far a film is."""
    with current().read() as db:
        return answered(_film(hand_films.by_id(db, path.film_id)))


@api.delete("/hand/films/<int:film_id>", responses={200: models.HandFilm, **FAULTS})
def stop_film(path: models.FilmPath) -> Response:
    """Stop filming: nothing of it is kept."""
    with current().read() as db:
        with database.atomic(db):
            jobs.request_cancel(db, "film", path.film_id)
        return answered(_film(hand_films.by_id(db, path.film_id)))


def _film(row: HandFilmRow) -> models.HandFilm:
    fault = row.job.error_what
    return models.HandFilm(
        id=row.id,
        name=row.ask.name,
        state=row.job.state,  # type: ignore[arg-type]
        progress=row.job.progress,
        predicted=_predicted(row.ask.predicted),
        fault=None if fault is None else sentence(f"{fault}: {row.job.error_next}"),
        take_id=row.take_id,
    )


def _technique(one: TechniqueHand) -> models.HandTechnique:
    return models.HandTechnique(
        key=one.key,
        name=one.name,
        drill_key=one.drill.key,
        drill=one.drill.name,
        takes=len(one.hand.focal_eq_mm),
        density=[float(f"{value:.4g}") for value in one.density],
    )


def _predicted(one: Prediction) -> models.Predicted:
    return models.Predicted(gust=one.gust, low=one.low, high=one.high)
