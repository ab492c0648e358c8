"""Who works for the library from another machine comes in by a key that opens this and nothing
else."""

from __future__ import annotations

from flask import g, request

from ridgewind.services import workers
from ridgewind.store.workers import WorkerRow
from ridgewind.web.context import current
from ridgewind.web.errors import ForbiddenError, LockedError
from ridgewind.web.phones.door import is_network

PREFIX = "/api/worker/"


def is_worker() -> bool:
    """Whether the request is of a worker's kind; those are answered to workers alone."""
    return request.path.startswith(PREFIX)


def worker() -> WorkerRow:
    """The machine that asks."""
    found: WorkerRow = g.worker
    return found


def check() -> None:
    """Let a worker in. Raises ForbiddenError and LockedError."""
    service = current()
    if is_network() and request.host != service.network.host:
        raise ForbiddenError(
            "This Ridgewind is not known by that name.",
            "Give the address that stands in Settings, Phones.",
        )
    key = request.headers.get("Authorization", "").removeprefix("Bearer ")
    with service.read() as db:
        found = workers.worker_of(db, key)
    if found is None:
        raise LockedError(
            "This key opens nothing here, or no more.",
            "Save a new one from Settings, Other computers.",
        )
    if is_network():
        service.network.came()
    g.worker = found
