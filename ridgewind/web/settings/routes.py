"""Settings of the whole library: what costs weigh, and originals put aside."""

from __future__ import annotations

from dataclasses import asdict
from datetime import datetime, timedelta

from flask import Response
from flask_openapi3 import APIBlueprint

from ridgewind.core.judge.cost import Weights
from ridgewind.library.library import KEEP_DELETED_DAYS, Library
from ridgewind.store import clips, database, settings, takes
from ridgewind.store.clips import ClipRow
from ridgewind.store.database import Connection
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import MissingError
from ridgewind.web.settings import models

api = APIBlueprint("settings", __name__, url_prefix="/api")

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
            takes.mark_all_stale(db)
        current().judge_again(db, budget_s=AT_ONCE_S)
        return answered(_weights(db))


@api.get("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def cleared() -> Response:
    """What could be cleared from the disk, and what was."""
    service = current()
    with service.read() as db:
        return answered(_cleared(service.library, db))


@api.post("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def clear() -> Response:
    """Put the originals of rejected takes aside; they are gone for good after a week."""
    service = current()
    with service.read() as db:
        service.library.clear(db)
        return answered(_cleared(service.library, db))


@api.post("/cleared/<int:clip_id>/restore", responses={200: models.ClearedAnswer, **FAULTS})
def bring_back(path: models.ClipPath) -> Response:
    """Bring an original back."""
    service = current()
    with service.read() as db:
        if not service.library.bring_back(db, path.clip_id):
            raise MissingError("This original is gone for good.", "Bring the clip in again.")
        return answered(_cleared(service.library, db))


@api.delete("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def empty_cleared() -> Response:
    """Remove what was put aside at once; this cannot be undone."""
    service = current()
    with service.read() as db:
        service.library.empty_cleared(db)
        return answered(_cleared(service.library, db))


def _weights(db: Connection) -> models.WeightsAnswer:
    return models.WeightsAnswer(
        weights=models.WeightsBody(**asdict(settings.weights(db))),
        usual=models.WeightsBody(**asdict(Weights())),
        left=takes.stale_count(db),
    )


def _cleared(library: Library, db: Connection) -> models.ClearedAnswer:
    rejected, aside = clips.rejected(db), clips.cleared(db)
    lines = [_cleared_line(library, db, clip) for clip in aside]
    return models.ClearedAnswer(
        rejected=len(rejected),
        rejected_bytes=sum(clip.size_bytes for clip in rejected),
        aside=lines,
        aside_bytes=sum(line.size_bytes for line in lines if line.gone_on is not None),
    )


def _cleared_line(library: Library, db: Connection, clip: ClipRow) -> models.ClearedLine:
    assert clip.cleared_at is not None
    found = takes.of_clip(db, clip.id)
    gone = datetime.fromisoformat(clip.cleared_at) + timedelta(days=KEEP_DELETED_DAYS)
    return models.ClearedLine(
        clip_id=clip.id,
        name=found[0].name if found else clip.file,
        size_bytes=clip.size_bytes,
        gone_on=gone.date().isoformat() if library.is_aside(clip) else None,
    )
