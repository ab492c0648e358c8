"""What handlers need: the library, the queue, a connection to the store, and how to answer."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import AbstractContextManager
from dataclasses import dataclass
from http import HTTPStatus
from typing import Any

from flask import Response, current_app
from pydantic import BaseModel

from ridgewind.jobs.mover import Mover
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.relocation import Relocation
from ridgewind.jobs.remote.desk import WorkersDesk
from ridgewind.library.library import Library
from ridgewind.library.uploads import Uploads
from ridgewind.services import assessing
from ridgewind.services.archiving import Report
from ridgewind.services.live import LiveMeters
from ridgewind.services.stages import Stages
from ridgewind.store import database
from ridgewind.store.database import Connection
from ridgewind.web.models import ErrorAnswer
from ridgewind.web.network import Network

EXTENSION = "ridgewind"


class LastArchive:
    """What became of the last archive with films that was sent; of one that was broken off,
    nothing."""

    report: Report | None = None
    made_at: str | None = None

    def put(self, report: Report, made_at: str) -> None:
        self.report, self.made_at = report, made_at


@dataclass(frozen=True)
class Service:
    """on_stale: called when verdicts are left to be judged again in the background. on_watch: when
    another folder is watched."""

    library: Library
    uploads: Uploads
    queue: Queue
    demo: bool
    on_stale: Callable[[], None]
    on_watch: Callable[[], None]
    network: Network
    desk: WorkersDesk
    mover: Mover
    relocation: Relocation
    live: LiveMeters
    stages: Stages
    archived: LastArchive

    def judge_again(self, db: Connection, *, budget_s: float) -> int:
        """Judge takes again that a change has made stale, for about budget_s before answering; the
        rest follows in the background. Returns how many are left."""
        left = assessing.refresh(db, budget_s=budget_s)
        if left:
            self.on_stale()
        return left

    def read(self) -> AbstractContextManager[Connection]:
        """A connection for one request; writes go through database.atomic."""
        return database.opened(self.library.database)


def current() -> Service:
    service: Service = current_app.extensions[EXTENSION]
    return service


Answers = dict[str | int, type[BaseModel] | dict[Any, Any] | None]

FAULTS: Answers = {"4XX": ErrorAnswer, "5XX": ErrorAnswer}
"""Answers that any address may give."""


def download(text: str | bytes, mimetype: str, name: str) -> Response:
    """A text that the browser saves under a name."""
    reply = Response(text, mimetype=mimetype)
    reply.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return reply


def given(body: BaseModel, field: str) -> Any:
    """A field that null makes open again: None where it was left out, () where it is null."""
    if field not in body.model_fields_set:
        return None
    value = getattr(body, field)
    return () if value is None else value


def answered(model: BaseModel, status: HTTPStatus = HTTPStatus.OK) -> Response:
    return Response(model.model_dump_json(), status=int(status), mimetype="application/json")
