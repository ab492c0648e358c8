"""The shooter's own eye: what marks say, blind marking, and using a threshold."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response

from ridgewind.core.trials.eye import Mark, Threshold, surprise
from ridgewind.services import eyes
from ridgewind.services.eyes import FeelEye, Used
from ridgewind.store import database, takes
from ridgewind.store.database import Connection
from ridgewind.store.marks import MarkRow
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.findings import models
from ridgewind.web.takes.serialise import film_part

api = blueprint("findings")

AT_ONCE_S = 0.4
"""A change judges takes again for so long before it answers; the rest follows."""


@api.get("/eye", responses={200: models.EyeAnswer, **FAULTS})
def eye() -> Response:
    """What the shooter's marks say, feel by feel."""
    with current().read() as db:
        return answered(_eye(db))


@api.get("/eye/blind", responses={200: models.BlindOrder, **FAULTS})
def blind(query: models.BlindQuery) -> Response:
    """Takes without a mark, in an order that tells nothing."""
    with current().read() as db:
        found = eyes.blind_order(db, feel=query.feel, seed=query.seed)
        parts = [film_part(takes.by_id(db, take_id)) for take_id in found]
    return answered(models.BlindOrder(takes=parts))


@api.post("/eye/<string:feel>/use", responses={200: models.UsedEye, **FAULTS})
def use_eye(path: models.FeelPath) -> Response:
    """Make the threshold of a feel the target of its briefs."""
    service = current()
    with service.read() as db:
        with database.atomic(db):
            used = eyes.use_threshold(db, path.feel)
        current().judge_again(db, budget_s=AT_ONCE_S)
    return answered(
        models.UsedEye(
            targets=[models.TargetBefore(brief_id=b, own_target=t) for b, t in used.targets],
            moved=[models.MovedBrief(from_id=a, to_id=b) for a, b in used.moved],
        )
    )


@api.post("/eye/undo", responses={200: models.EyeAnswer, **FAULTS})
def undo_eye(body: models.UsedEye) -> Response:
    """Put the targets back as they were."""
    with current().read() as db:
        with database.atomic(db):
            targets = tuple((one.brief_id, one.own_target) for one in body.targets)
            moved = tuple((one.from_id, one.to_id) for one in body.moved)
            eyes.undo_use(db, Used(targets, moved))
        current().judge_again(db, budget_s=AT_ONCE_S)
        return answered(_eye(db))


def _eye(db: Connection) -> models.EyeAnswer:
    return models.EyeAnswer(
        feels=[_feel(one) for one in eyes.eye_of(db)],
        polish=_threshold(eyes.polish_eye(db)),
        unmarked=len(eyes.blind_order(db, feel=None, seed=0)),
    )


def _feel(found: FeelEye) -> models.FeelEye:
    return models.FeelEye(
        feel=found.feel,  # type: ignore[arg-type]
        default=found.default,
        threshold=_threshold(found.threshold),
        marks=[_mark(row, found.threshold) for row in found.marks],
        surprises=[_mark(one.mark, found.threshold) for one in found.surprises],
        used=list(found.used),
    )


def _threshold(found: Threshold) -> models.ThresholdLine:
    return models.ThresholdLine(**asdict(found), offered=found.offered)


def _mark(row: MarkRow, threshold: Threshold) -> models.MarkLine:
    return models.MarkLine(
        take_id=row.take_id,
        take_name=row.take_name,
        smooth=row.smooth,
        blind=row.blind,
        gust=row.gust,
        crop_pct=row.crop_pct,
        by=surprise(Mark(row.gust, row.smooth), threshold),
    )
