"""Which other machines work for the library, what they do, and letting them in; for the computer
alone."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Response

from ridgewind.jobs.remote import key_file
from ridgewind.jobs.remote.key_file import WorkerKey
from ridgewind.jobs.remote.seats import NoSeatError, Seat
from ridgewind.services import workers
from ridgewind.store import jobs
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, Service, answered, current
from ridgewind.web.workers import models

api = blueprint("workers", prefix="/api/workers")


@api.get("", responses={200: models.WorkersAnswer, **FAULTS})
def all_workers() -> Response:
    """The machines that are let in, and what they do."""
    service = current()
    with service.read() as db:
        return answered(_answer(service, db))


@api.post("", responses={200: models.LetInAnswer, **FAULTS})
def let_in(body: models.WorkerAsk) -> Response:
    """Let a machine in; its key is told this once."""
    service = current()
    opening = service.network.opening()
    with service.read() as db:
        number, key = workers.let_in(db, body.name)
        authority = ""
        if opening is not None:
            authority = opening.certificate.authority.read_text(encoding="ascii")
        file = key_file.text_of(
            WorkerKey(
                key=key,
                server="" if opening is None else opening.address,
                authority=authority,
                queue=service.desk.broker,
            )
        )
        return answered(
            models.LetInAnswer(
                workers=_answer(service, db), file=file, file_name=f"ridgewind-worker-{number}.json"
            )
        )


@api.delete("/<int:worker_id>", responses={200: models.WorkersAnswer, **FAULTS})
def remove(path: models.WorkerPath) -> Response:
    """Let a machine in no more; what it is at is another's."""
    service = current()
    with service.read() as db:
        workers.remove(db, path.worker_id)
        service.desk.leases.dismiss(path.worker_id)
        return answered(_answer(service, db))


@api.post("/seats/<int:seat_id>/stop", responses={200: models.WorkersAnswer, **FAULTS})
def stop(path: models.SeatPath) -> Response:
    """Ask a worker to stop; what it is at is another's."""
    service = current()
    try:
        service.desk.leases.stop(path.seat_id)
    except NoSeatError:
        raise NotFoundError("worker", path.seat_id) from None
    with service.read() as db:
        return answered(_answer(service, db))


@api.put("/here", responses={200: models.WorkersAnswer, **FAULTS})
def rest(body: models.RestAsk) -> Response:
    """Leave measuring and rendering to other machines, or take part again."""
    service = current()
    service.desk.rest(body.resting)
    with service.read() as db:
        return answered(_answer(service, db))


def _answer(service: Service, db: Connection) -> models.WorkersAnswer:
    desk, opening = service.desk, service.network.opening()
    seats = desk.leases.seats()
    return models.WorkersAnswer(
        workers=[
            models.WorkerLine(
                id=one.id,
                name=one.name,
                let_in_at=one.let_in_at,
                seen_at=one.seen_at,
                seats=[_seat(seat) for seat in seats if seat.worker_id == one.id],
            )
            for one in workers.every(db)
        ],
        resting=desk.resting(),
        waiting=sum(len(jobs.waiting(db, kind)) for kind in jobs.LENT_KINDS),
        broker=_shown(desk.broker),
        reached=desk.reached(),
        address=None if opening is None else opening.address,
    )


def _seat(seat: Seat) -> models.SeatLine:
    doing: models.LentKind | None = None
    if seat.task is not None:
        doing = "measure" if seat.task[0] == "measure" else "render"
    return models.SeatLine(
        id=seat.id,
        cores=seat.machine.cores,
        doing=doing,
        film="" if seat.task is None else seat.task_name,
        done=None if seat.task is None else seat.done,
        speed=seat.film_s / seat.busy_s if seat.busy_s else None,
        ended=seat.ended,
        stopping=seat.stopping,
    )


def _shown(broker: str) -> str | None:
    """Without a password."""
    if not broker:
        return None
    address = urlsplit(broker)
    return f"{address.scheme}://{address.hostname}:{address.port or 6379}{address.path}"
