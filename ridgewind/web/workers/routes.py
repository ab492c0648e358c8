"""What workers on other machines ask: a seat, work, the film that it needs, and where to send what
came of it. Behind a key of its own, see door."""

from __future__ import annotations

from collections.abc import Callable
from http import HTTPStatus
from typing import TypeVar

from flask import Response, request, send_file

from ridgewind.jobs.remote import wire
from ridgewind.jobs.remote.leases import BEAT_S, VERSION, LeaseLostError, Leases
from ridgewind.jobs.remote.parts import MOST_PIECE_BYTES, PartError
from ridgewind.jobs.remote.seats import AskedToStopError, Machine, NoSeatError
from ridgewind.services import workers
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import ApiError, BadRequestError, ForbiddenError, NotReadyError
from ridgewind.web.workers import models
from ridgewind.web.workers.door import worker

api = blueprint("worker", prefix="/api/worker")

OTHER_VERSION = (
    "This worker is of another Ridgewind than the server, and would measure otherwise.",
    "Install the same version on both machines.",
)
ASKED_TO_STOP = ("It was asked to stop, in Ridgewind’s settings.", "Start it again when it may.")
NO_SEAT = ("This worker is not known here any more.", "It asks for a seat again.")
LOST = ("The work is another’s, or was stopped.", "Ask for the next.")
PART = ("What came is no result, or not what was sent.", "Send it again.")

T = TypeVar("T")


@api.post("/seats", responses={200: models.SeatAnswer, **FAULTS})
def sit(body: models.SeatAsk) -> Response:
    """A process that wants work."""
    if body.version != VERSION:
        raise BadRequestError(*OTHER_VERSION, code="other_version")
    service, machine = current(), worker()
    with service.read() as db:
        workers.saw(db, machine.id)
    seat = _leases().sit(machine.id, machine.name, Machine(body.cores))
    name = workers.queue_name(service.library.key())
    return answered(models.SeatAnswer(seat=seat, queue=name, beat_s=BEAT_S))


@api.delete("/seats/<int:seat_id>", responses={200: models.EmptyAnswer, **FAULTS})
def leave(path: models.SeatPath) -> Response:
    """It goes; what it was at is another's."""
    _told(lambda: _leases().leave(path.seat_id, worker().id))
    return answered(models.EmptyAnswer())


@api.post("/seats/<int:seat_id>/claim", responses={200: models.ClaimAnswer, **FAULTS})
def claim(path: models.SeatPath, body: models.ClaimAsk) -> Response:
    """Take work that waits."""
    lent = _told(lambda: _leases().claim(path.seat_id, worker().id, body.kind, body.subject))
    if lent is None:
        return answered(models.ClaimAnswer(loan=None))
    loan = models.LoanAnswer(
        lease=lent.lease,
        kind=body.kind,
        order=wire.order_text(lent.order),
        size_bytes=lent.size_bytes,
        sha256=lent.sha256,
    )
    return answered(models.ClaimAnswer(loan=loan))


@api.post("/seats/<int:seat_id>/beat", responses={200: models.BeatAnswer, **FAULTS})
def beat(path: models.SeatPath, body: models.BeatAsk) -> Response:
    """A sign of life."""
    goes_on = _told(lambda: _leases().beat(path.seat_id, worker().id, body.lease, body.done))
    return answered(models.BeatAnswer(goes_on=goes_on))


@api.post("/seats/<int:seat_id>/finish", responses={200: models.EmptyAnswer, **FAULTS})
def finish(path: models.SeatPath, body: models.FinishAsk) -> Response:
    """Keep what was sent, whole or not at all."""
    _told(lambda: _leases().finish(path.seat_id, worker().id, body.lease, body.parts))
    with current().read() as db:
        workers.saw(db, worker().id)
    return answered(models.EmptyAnswer())


@api.post("/seats/<int:seat_id>/give-back", responses={200: models.EmptyAnswer, **FAULTS})
def give_back(path: models.SeatPath, body: models.GiveBackAsk) -> Response:
    """The work is not done."""
    _told(lambda: _leases().give_back(path.seat_id, worker().id, body.lease, body.how))
    return answered(models.EmptyAnswer())


@api.get("/leases/<lease>/film")
def film(path: models.LeasePath) -> Response:
    """The one film that a lease opens, in pieces."""
    found = _told(lambda: _leases().film_of(path.lease))
    return send_file(found.resolve(), mimetype="application/octet-stream", conditional=True)


@api.get("/leases/<lease>/parts/<part>", responses={200: models.ReceivedAnswer, **FAULTS})
def received(path: models.PartPath) -> Response:
    """How much of a part is here."""
    here = _told(lambda: _leases().received(path.lease, path.part))
    return answered(models.ReceivedAnswer(received=here))


@api.put("/leases/<lease>/parts/<part>", responses={200: models.ReceivedAnswer, **FAULTS})
def put(path: models.PartPath, query: models.PartQuery) -> Response:
    """The next piece of a part; one that begins elsewhere changes nothing."""
    if (request.content_length or 0) > MOST_PIECE_BYTES:
        raise BadRequestError("A piece is too large.", "Send smaller ones.")
    piece = request.get_data()
    here = _told(lambda: _leases().put(path.lease, path.part, query.at, piece))
    return answered(models.ReceivedAnswer(received=here))


def _leases() -> Leases:
    return current().desk.leases


def _told(ask: Callable[[], T]) -> T:
    """What a lease's refusals are as answers."""
    try:
        return ask()
    except AskedToStopError as error:
        raise ForbiddenError(*ASKED_TO_STOP, code="asked_to_stop") from error
    except NoSeatError as error:
        raise NotReadyError(*NO_SEAT, code="no_seat") from error
    except LeaseLostError as error:
        lost = ApiError(*LOST, code="lease_lost")
        lost.status = HTTPStatus.GONE
        raise lost from error
    except PartError as error:
        raise BadRequestError(*PART, code="part") from error
