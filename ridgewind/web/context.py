"""What handlers need: the library, the queue, and a connection to the store."""

from __future__ import annotations

import sqlite3
from contextlib import AbstractContextManager
from dataclasses import dataclass

from flask import current_app

from ridgewind.store import database
from ridgewind.work.library import Library
from ridgewind.work.queue import Queue

EXTENSION = "ridgewind"


@dataclass(frozen=True)
class Service:
    library: Library
    queue: Queue
    demo: bool

    def read(self) -> AbstractContextManager[sqlite3.Connection]:
        """A connection for one request; writes go through database.atomic."""
        return database.opened(self.library.database)


def current() -> Service:
    service: Service = current_app.extensions[EXTENSION]
    return service
