"""Settings of the whole library: what costs weigh, and originals put aside."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response

from ridgewind.core.judge.cost import Weights
from ridgewind.library.library import Library
from ridgewind.services import clearing
from ridgewind.store import database, settings, summaries
from ridgewind.store.database import Connection
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.settings import models

api = blueprint("settings")

AT_ONCE_S = 0.4
"""A change judges takes again for so long before it answers; the rest follows."""


@api.get("/settings/weights", responses={200: models.WeightsAnswer, **FAULTS})
def weights() -> Response:
    """What a remedy's costs weigh."""
    with current().read() as db:
        return answered(_weights(db))


@api.put("/settings/weights", responses={200: models.WeightsAnswer, **FAULTS})
def change_weights(body: models.WeightsBody) -> Response:
    """Change what the costs weigh, and every verdict that depends on it."""
    with current().read() as db:
        with database.atomic(db):
            settings.set_weights(db, Weights(**body.model_dump()))
            summaries.mark_all_stale(db)
        current().judge_again(db, budget_s=AT_ONCE_S)
        return answered(_weights(db))


@api.get("/deleted", responses={200: models.DeletedAnswer, **FAULTS})
def deleted() -> Response:
    """Takes that were deleted and can still be brought back."""
    with current().read() as db:
        lines = [
            models.DeletedLine(take_id=one.take_id, name=one.name, gone_on=one.gone_on.isoformat())
            for one in clearing.deleted(db)
        ]
    return answered(models.DeletedAnswer(takes=lines))


@api.get("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def cleared() -> Response:
    """What could be cleared from the disk, and what was."""
    service = current()
    with service.read() as db:
        return _cleared(service.library, db)


@api.post("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def clear() -> Response:
    """Put the originals of rejected takes aside; they are gone for good after a week."""
    service = current()
    with service.read() as db:
        service.library.clear(db)
        return _cleared(service.library, db)


@api.post("/cleared/<int:clip_id>/restore", responses={200: models.ClearedAnswer, **FAULTS})
def bring_back(path: models.ClipPath) -> Response:
    """Bring an original back."""
    service = current()
    with service.read() as db:
        clearing.bring_back(service.library, db, path.clip_id)
        return _cleared(service.library, db)


@api.delete("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def empty_cleared() -> Response:
    """Remove what was put aside at once; this cannot be undone."""
    service = current()
    with service.read() as db:
        service.library.empty_cleared(db)
        return _cleared(service.library, db)


def _weights(db: Connection) -> models.WeightsAnswer:
    return models.WeightsAnswer(
        weights=models.WeightsBody(**asdict(settings.weights(db))),
        usual=models.WeightsBody(**asdict(Weights())),
        left=summaries.stale_count(db),
    )


def _cleared(library: Library, db: Connection) -> Response:
    found = clearing.clearing(library, db)
    return answered(
        models.ClearedAnswer(
            rejected=len(found.rejected),
            rejected_bytes=found.rejected_bytes,
            aside=[
                models.ClearedLine(
                    clip_id=one.clip.id,
                    name=one.name,
                    size_bytes=one.clip.size_bytes,
                    gone_on=None if one.gone_on is None else one.gone_on.isoformat(),
                )
                for one in found.aside
            ],
            aside_bytes=found.aside_bytes,
        )
    )
