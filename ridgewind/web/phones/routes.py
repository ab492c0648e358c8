"""Opening to phones on the local network, and which are let in; for the computer alone."""

from __future__ import annotations

from dataclasses import asdict

from flask import Response, send_file

from ridgewind.services import codes, pairing
from ridgewind.services.errors import NotReadyError
from ridgewind.store.database import Connection
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, Service, answered, current
from ridgewind.web.network import Opening
from ridgewind.web.phones import models

api = blueprint("network", prefix="/api/network")

CLOSED = ("Ridgewind is not open to phones.", "Open it first.")
NO_CODE = ("No code is offered now.", "Ask for a new one.")


@api.get("", responses={200: models.NetworkAnswer, **FAULTS})
def network() -> Response:
    """Whether it is open to phones, where, and which are paired."""
    service = current()
    with service.read() as db:
        return _answer(service, db)


@api.post("", responses={200: models.NetworkAnswer, **FAULTS})
def open_to_phones(body: models.OpenAsk) -> Response:
    """Let phones come to an address of the local network."""
    service = current()
    service.network.open(body.address)
    with service.read() as db:
        return _answer(service, db)


@api.delete("", responses={200: models.NetworkAnswer, **FAULTS})
def close() -> Response:
    """Let nobody come any more; phones stay paired for the next time."""
    service = current()
    service.network.close()
    with service.read() as db:
        return _answer(service, db)


@api.post("/code", responses={200: models.NetworkAnswer, **FAULTS})
def offer_code() -> Response:
    """Offer a new code; the one before it is good no more."""
    service = current()
    _opening(service)
    service.network.pairing.offer()
    with service.read() as db:
        return _answer(service, db)


@api.delete("/code", responses={200: models.NetworkAnswer, **FAULTS})
def withdraw_code() -> Response:
    """Offer no code any more."""
    service = current()
    service.network.pairing.withdraw()
    with service.read() as db:
        return _answer(service, db)


@api.get("/code.svg")
def code_drawing() -> Response:
    """The address with the code in it, for a phone's camera."""
    service = current()
    code = service.network.pairing.code()
    if code is None:
        raise NotReadyError(*NO_CODE)
    # Behind the #: what stands there is never sent, nor kept by what passes it on.
    text = f"{_opening(service).address}/pair#{code.digits}"
    drawing = Response(codes.svg_of(text, error="m"), mimetype="image/svg+xml")
    drawing.headers["Cache-Control"] = "no-store"
    return drawing


@api.delete("/phones/<int:phone_id>", responses={200: models.NetworkAnswer, **FAULTS})
def remove_phone(path: models.PhonePath) -> Response:
    """Let a phone in no more, from now on."""
    service = current()
    with service.read() as db:
        pairing.remove(db, path.phone_id)
        return _answer(service, db)


@api.get("/authority.crt")
def authority() -> Response:
    """The certificate that a phone is to trust, to open without a warning and without a network."""
    from ridgewind.library.certificates import certificate_for  # noqa: PLC0415

    service = current()
    address = _opening(service).address.removeprefix("https://").rsplit(":", 1)[0].strip("[]")
    found = certificate_for(service.library.network, address)
    return send_file(
        found.authority.resolve(),
        mimetype="application/x-x509-ca-cert",
        as_attachment=True,
        download_name="ridgewind.crt",
    )


def _opening(service: Service) -> Opening:
    opening = service.network.opening()
    if opening is None:
        raise NotReadyError(*CLOSED)
    return opening


def _answer(service: Service, db: Connection) -> Response:
    opening, code = service.network.opening(), service.network.pairing.code()
    return answered(
        models.NetworkAnswer(
            addresses=service.network.offered(),
            opening=None if opening is None else _opened(opening),
            code=None if code is None else models.CodeAnswer(**asdict(code)),
            phones=[models.PhoneLine(**asdict(one)) for one in pairing.paired(db)],
        )
    )


def _opened(opening: Opening) -> models.OpeningAnswer:
    return models.OpeningAnswer(
        address=opening.address,
        fingerprint=opening.certificate.fingerprint,
        certificate_ends_on=opening.certificate.ends_on,
        left_s=opening.left_s,
    )
