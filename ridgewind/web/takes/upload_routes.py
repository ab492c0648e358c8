"""Films that arrive in pieces, and become takes.

The pieces go by an open protocol for resumable uploads, tus 1.0.0 with its extensions creation,
checksum and termination (https://tus.io/protocols/resumable-upload), so that any of its clients can
send films here and go on where it was cut off. That a whole film becomes a take is one further
request, which may be repeated.
"""

from __future__ import annotations

import base64
import binascii
import re
from collections.abc import Callable
from functools import wraps
from http import HTTPStatus
from typing import ParamSpec

from flask import Response, request, url_for

from ridgewind.library.uploads import ChecksumError, OffsetError
from ridgewind.store.errors import NotFoundError
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import ApiError, BadRequestError
from ridgewind.web.takes import models, serialise
from ridgewind.web.takes.upload_models import KEY, UploadPath

api = blueprint("uploads", prefix="/api/uploads")
Asked = ParamSpec("Asked")

VERSION = "1.0.0"
EXTENSIONS = "creation,checksum,termination"
MOST_FILM_BYTES = 1 << 43
LONGEST_NAME = 300
PIECE_TYPE = "application/offset+octet-stream"
CHECKSUM_MISMATCH = 460
"""The protocol's own status."""

RESUME = "Ask how much is here, and go on from there."


def of_protocol(answer: Callable[Asked, Response]) -> Callable[Asked, Response]:
    """Every request of the protocol names its version, all but the one that asks for it."""

    @wraps(answer)
    def checked(*args: Asked.args, **told: Asked.kwargs) -> Response:
        if request.headers.get("Tus-Resumable") != VERSION:
            return _reply(HTTPStatus.PRECONDITION_FAILED, {"Tus-Version": VERSION})
        return answer(*args, **told)

    return checked


@api.route("", methods=["OPTIONS"], provide_automatic_options=False)
@api.route("/<key>", methods=["OPTIONS"], provide_automatic_options=False)
def options(key: str = "") -> Response:
    """What is understood."""
    del key
    return _reply(
        HTTPStatus.NO_CONTENT,
        {
            "Tus-Version": VERSION,
            "Tus-Extension": EXTENSIONS,
            "Tus-Max-Size": str(MOST_FILM_BYTES),
            "Tus-Checksum-Algorithm": "sha256",
        },
    )


@api.route("", methods=["POST"])
@of_protocol
def begin() -> Response:
    """Announce a film; its pieces follow."""
    size = _number("Upload-Length")
    if size > MOST_FILM_BYTES:
        return _reply(HTTPStatus.REQUEST_ENTITY_TOO_LARGE, {})
    name = _metadata().get("filename", "").strip()[-LONGEST_NAME:]
    if not name:
        raise BadRequestError("The film has no name.", "Send its file’s name.", field="filename")
    key = current().uploads.begin(name, size)
    return _reply(HTTPStatus.CREATED, {"Location": url_for("uploads.put", key=key)})


@api.route("/<key>", methods=["HEAD"])
@of_protocol
def received(key: str) -> Response:
    """How much of a film is here."""
    here, whole = current().uploads.received(_key(key))
    told = {"Upload-Offset": str(here), "Upload-Length": str(whole), "Cache-Control": "no-store"}
    return _reply(HTTPStatus.OK, told)


@api.route("/<key>", methods=["PATCH"])
@of_protocol
def put(key: str) -> Response:
    """The next piece of a film."""
    if request.mimetype != PIECE_TYPE:
        return _reply(HTTPStatus.UNSUPPORTED_MEDIA_TYPE, {})
    offset, checksum = _number("Upload-Offset"), _checksum()
    try:
        here = current().uploads.put(_key(key), offset, request.get_data(), sha256=checksum)
    except OffsetError:
        return _reply(HTTPStatus.CONFLICT, {})
    except ChecksumError:
        return _reply(CHECKSUM_MISMATCH, {})
    return _reply(HTTPStatus.NO_CONTENT, {"Upload-Offset": str(here)})


@api.route("/<key>", methods=["DELETE"])
@of_protocol
def drop(key: str) -> Response:
    """Forget a film that was on its way."""
    current().uploads.drop(_key(key))
    return _reply(HTTPStatus.NO_CONTENT, {})


@api.post("/<key>/take", responses={201: models.ImportAnswer, **FAULTS})
def finish(path: UploadPath) -> Response:
    """All pieces are here: take the film in. It is queued for measuring at once. Asked again, the
    answer is the same."""
    service = current()
    with service.read() as db:
        imported = service.uploads.finish(db, path.key)
    if imported.take.state == "queued":
        service.queue.put("measure", imported.take.clip_id)
    answer = models.ImportAnswer(
        take=serialise.take_line(imported.take), duplicate=imported.duplicate
    )
    return answered(answer, HTTPStatus.CREATED)


def _reply(status: int, headers: dict[str, str]) -> Response:
    reply = Response(status=int(status), headers=headers)
    reply.headers["Tus-Resumable"] = VERSION
    return reply


def _key(told: str) -> str:
    if not re.fullmatch(KEY, told):
        raise NotFoundError("upload", told)
    return told


def _number(header: str) -> int:
    told = request.headers.get(header, "")
    if not (told.isascii() and told.isdigit() and len(told) < 20):
        raise BadRequestError(f"{header} must be a whole number.", RESUME, field=header)
    return int(told)


def _metadata() -> dict[str, str]:
    """Names and values of Upload-Metadata; what is not base64 of UTF-8 is passed over."""
    told = {}
    for pair in request.headers.get("Upload-Metadata", "").split(","):
        name, _, value = pair.strip().partition(" ")
        try:
            told[name] = base64.b64decode(value, validate=True).decode()
        except (binascii.Error, UnicodeDecodeError):
            continue
    return told


def _checksum() -> bytes | None:
    told = request.headers.get("Upload-Checksum")
    if told is None:
        return None
    algorithm, _, value = told.partition(" ")
    try:
        digest = base64.b64decode(value, validate=True)
    except binascii.Error:
        digest = b""
    if algorithm != "sha256" or len(digest) != 32:
        raise ApiError("The checksum is none of SHA-256.", RESUME, code="checksum")
    return digest
