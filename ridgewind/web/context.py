"""What handlers need: the library, the queue, a connection to the store, and how to answer."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from contextlib import AbstractContextManager
from dataclasses import dataclass, field
from http import HTTPStatus

from flask import Response, current_app
from pydantic import BaseModel

from ridgewind.store import database
from ridgewind.web.models import ErrorAnswer
from ridgewind.work.copying import Copies
from ridgewind.work.library import Library
from ridgewind.work.queue import Queue

EXTENSION = "ridgewind"


@dataclass(frozen=True)
class Service:
    """on_stale: called when verdicts are left to be judged again in the background. copies:
    files that are being copied from folders."""

    library: Library
    queue: Queue
    demo: bool
    on_stale: Callable[[], None]
    copies: Copies = field(default_factory=Copies)

    def read(self) -> AbstractContextManager[sqlite3.Connection]:
        """A connection for one request; writes go through database.atomic."""
        return database.opened(self.library.database)


def current() -> Service:
    service: Service = current_app.extensions[EXTENSION]
    return service


FAULTS = {"4XX": ErrorAnswer, "5XX": ErrorAnswer}
"""Answers that any address may give."""


def answered(model: BaseModel, status: HTTPStatus = HTTPStatus.OK) -> Response:
    return Response(model.model_dump_json(), status=int(status), mimetype="application/json")
