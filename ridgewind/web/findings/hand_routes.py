"""The shooter's own hand: how it turns, and what it would read through another lens."""

from __future__ import annotations

import numpy as np
from flask import Response

from ridgewind.core.brief import SCREENS_DEG
from ridgewind.core.trials.own_hand import MIDDLES_HZ, Prediction
from ridgewind.services import own_hand
from ridgewind.services.own_hand import CURVE_MM, Asked, TechniqueHand
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
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
