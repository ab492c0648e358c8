"""Motion logs: a preview with what each column is, then kept alone or with a take's film."""

from __future__ import annotations

import time
from dataclasses import asdict
from http import HTTPStatus

import numpy as np
from flask import Response

from ridgewind.library.logs import LONGEST_KEPT_S
from ridgewind.services import aside, logs, rigging
from ridgewind.store import takes
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.takes import models, serialise
from ridgewind.web.takes.log_models import (
    JoinedLine,
    LogAsk,
    LogLines,
    LogPreview,
    LogPreviewAsk,
    Mapping,
    SessionLogAnswer,
    SessionLogAsk,
    Shaken,
)

api = blueprint("logs")


@api.post("/logs/preview", responses={200: LogPreview, **FAULTS})
def preview_log(body: LogPreviewAsk) -> Response:
    """What would come of a log; nothing is kept."""
    mapping = None if body.mapping is None else body.mapping.core()
    service = current()
    log = service.uploads.whole(body.upload)
    with service.read() as db:
        found = aside.work_on(
            service.library, db, logs.preview, log, mapping=mapping, focal_eq_mm=body.focal_eq_mm
        )
    pan, tilt, roll = (np.round(column, 3).tolist() for column in found.deg_s.T)
    answer = LogPreview(
        names=list(found.names), mapping=Mapping(**vars(found.mapping)), seconds=found.seconds,
        rate_hz=found.rate_hz, gaps=found.gaps, gust=found.gust, longest_s=LONGEST_KEPT_S,
        t_s=np.round(found.t_s, 3).tolist(), pan_deg_s=pan, tilt_deg_s=tilt, roll_deg_s=roll,
    )  # fmt: skip
    return answered(answer)


@api.post("/logs", responses={201: models.TakeLine, **FAULTS})
def keep_log(body: LogAsk) -> Response:
    """Keep a log, as a take of its own or with the film of one."""
    service = current()
    log = service.uploads.whole(body.upload)
    told = {"name": body.name.strip(), "mapping": body.mapping.core()}
    with service.read() as db:
        take_id = body.take_id
        if take_id is None:
            stretch = None if body.stretch is None else body.stretch.core()
            take_id = aside.work_on(
                service.library, db, logs.add_alone, log, stretch=stretch, **told
            )
        else:
            aside.work_on(service.library, db, logs.attach, log, take_id=take_id, **told)
        line = serialise.take_line(takes.by_id(db, take_id))
    service.uploads.drop(body.upload)
    return answered(line, HTTPStatus.CREATED)


@api.post("/logs/rig", responses={200: SessionLogAnswer, **FAULTS})
def join_rig(body: SessionLogAsk) -> Response:
    """Cut a session's log from a phone on the rig, and join it to the films of that time."""
    service = current()
    log = service.uploads.whole(body.upload)
    with service.read() as db:
        found = aside.work_on(
            service.library,
            db,
            rigging.join,
            log,
            name=body.name.strip(),
            mapping=body.mapping.core(),
            clock_ahead_s=body.sent_at_s - time.time(),
        )
    service.uploads.drop(body.upload)
    return answered(SessionLogAnswer(films=[JoinedLine(**asdict(one)) for one in found]))


@api.get("/takes/<int:take_id>/log", responses={200: LogLines, **FAULTS})
def log_of_take(path: models.TakePath) -> Response:
    """A film's log beside its picture."""
    with current().read() as db:
        found = logs.beside_picture(db, path.take_id)
    offset = found.log.offset
    return answered(
        LogLines(
            name=found.log.name,
            rate_hz=found.log.rate_hz,
            offset_s=None if offset is None else offset.seconds - found.start_s,
            certainty=None if offset is None else offset.certainty,
            correlation=None if offset is None else offset.correlation,
            picture_s=np.round(found.picture_s, 3).tolist(),
            picture_pan=np.round(found.picture_pan, 3).tolist(),
            log_s=np.round(found.log_s, 3).tolist(),
            log_pan=np.round(found.log_pan, 3).tolist(),
            of_picture=None if found.of_picture is None else Shaken(**asdict(found.of_picture)),
            of_log=None if found.of_log is None else Shaken(**asdict(found.of_log)),
        )
    )


@api.delete("/takes/<int:take_id>/log", responses={200: models.TakeLine, **FAULTS})
def remove_log(path: models.TakePath) -> Response:
    """Take a log away from a film again."""
    with current().read() as db:
        logs.take_away(db, path.take_id)
        line = serialise.take_line(takes.by_id(db, path.take_id))
    return answered(line)


@api.post("/takes/<int:take_id>/log/restore", responses={200: models.TakeLine, **FAULTS})
def bring_log_back(path: models.TakePath) -> Response:
    """Bring back the log that was taken away from a film."""
    with current().read() as db:
        logs.bring_back(db, path.take_id)
        line = serialise.take_line(takes.by_id(db, path.take_id))
    return answered(line)
