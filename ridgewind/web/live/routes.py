"""Live steadiness: meters that pictures and turning rates are fed to while somebody films."""

from __future__ import annotations

from http import HTTPStatus

import numpy as np
from flask import Response, request

from ridgewind.core.brief import SCREENS_DEG
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.units import UNKNOWN_FOCAL_EQ_MM
from ridgewind.demo import filling
from ridgewind.services.live import LiveState
from ridgewind.store import briefs, kit
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current, download
from ridgewind.web.live import models

api = blueprint("live", prefix="/api/live")

ASPECT = 9 / 16
"""Of the picture that turning rates are told for."""


@api.get("/setting", responses={200: models.LiveSetting, **FAULTS})
def setting() -> Response:
    """What a meter begins with: the brief and the lens of new takes."""
    with current().read() as db:
        brief = briefs.usual(db).brief
        setup_id = kit.usual_setup_id(db)
        setup = None if setup_id is None else kit.setup_by_id(db, setup_id)
    return answered(
        models.LiveSetting(
            feel=brief.feel,  # type: ignore[arg-type]
            target=brief.target,
            screen=brief.screen,  # type: ignore[arg-type]
            focal_eq_mm=UNKNOWN_FOCAL_EQ_MM if setup is None else setup.focal_eq_mm,
            setup="" if setup is None else setup.ask.name,
        )
    )


@api.post("", responses={201: models.LiveBegun, **FAULTS})
def begin(body: models.LiveAsk) -> Response:
    """Begin a meter that is fed pictures, or turning rates where a lens is told."""
    meters, screen_deg = current().live, SCREENS_DEG[body.screen]
    if body.width is not None and body.height is not None:
        size = (body.width, body.height)
        key = meters.begin_pictures(size, target=body.target, screen_deg=screen_deg)
    elif body.focal_eq_mm is not None:
        key = meters.begin_rates(
            focal_eq_mm=body.focal_eq_mm, aspect=ASPECT, target=body.target, screen_deg=screen_deg
        )
    else:
        raise InvalidArgumentError("width", None, "give a picture’s size, or a lens")
    return answered(models.LiveBegun(key=key), HTTPStatus.CREATED)


@api.put("/<key>/pictures", responses={200: models.LiveAnswer, **FAULTS})
def pictures(path: models.LivePath, query: models.PicturesQuery) -> Response:
    """The next pictures: the body holds them row by row, a byte a point."""
    times = [float(one) for one in query.times.split(",")]
    return answered(_answer(current().live.pictures(path.key, times, request.get_data())))


@api.put("/<key>/rates", responses={200: models.LiveAnswer, **FAULTS})
def rates(path: models.LivePath, body: models.RatesAsk) -> Response:
    """The next samples of a motion sensor."""
    columns = [body.pan_deg_s, body.tilt_deg_s, body.roll_deg_s]
    if any(len(column) != len(body.t_s) for column in columns):
        raise InvalidArgumentError("t_s", len(body.t_s), "all columns must be of one length")
    deg_s = np.array(columns, dtype=np.float64).reshape(3, -1).T
    return answered(_answer(current().live.rates(path.key, np.array(body.t_s), deg_s)))


@api.delete("/<key>", responses={204: None, **FAULTS})
def end(path: models.LivePath) -> tuple[str, int]:
    """Forget a meter."""
    current().live.end(path.key)
    return "", int(HTTPStatus.NO_CONTENT)


@api.get("/simulated.csv")
def simulated_sensor() -> Response:
    """Turning rates as the simulated phone would write them; a model of a hand, not a recording."""
    return download(filling.simulated_sensor(), "text/csv", "simulated-phone.csv")


def _answer(state: LiveState) -> models.LiveAnswer:
    return models.LiveAnswer(
        t_s=state.instant.t_s,
        gust=state.instant.gust,
        shares=list(state.instant.shares),
        reason=state.instant.reason,
        calm_s=state.calm_s,
        best_s=state.best_s,
        whole=state.whole,
    )
