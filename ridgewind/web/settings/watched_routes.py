"""The watched folder: films that come by themselves."""

from __future__ import annotations

from flask import Response

from ridgewind.services import watching
from ridgewind.services.watching import Watching
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import sentence
from ridgewind.web.settings import models

api = blueprint("watched")


@api.get("/watched", responses={200: models.WatchedAnswer, **FAULTS})
def watched() -> Response:
    """Which folder is watched, and what came."""
    with current().read() as db:
        return answered(_answer(watching.watching(db)))


@api.put("/watched", responses={200: models.WatchedAnswer, **FAULTS})
def watch(body: models.WatchAsk) -> Response:
    """Take films in as they come to a folder from now on."""
    service = current()
    with service.read() as db:
        found = watching.watch(db, body.path, library=service.library.root)
    service.on_watch()
    return answered(_answer(found))


@api.delete("/watched", responses={200: models.WatchedAnswer, **FAULTS})
def stop() -> Response:
    """Watch no folder any more; takes stay."""
    service = current()
    with service.read() as db:
        found = watching.stop(db)
    service.on_watch()
    return answered(_answer(found))


def _answer(found: Watching) -> models.WatchedAnswer:
    return models.WatchedAnswer(
        state=found.state,
        root=found.root,
        since=found.since,
        films=[
            models.ArrivedLine(
                file=one.file,
                take_id=one.take_id,
                fault=None if one.fault is None else sentence(one.fault),
            )
            for one in found.films
        ],
    )
