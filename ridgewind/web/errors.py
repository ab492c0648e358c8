"""Errors of the interface, answered as {error: {code, message, hint, field}}.

ApiError
├── BadRequestError    400  a request broke a rule; field says which part
├── LockedError        401  whoever asks has no key
├── ForbiddenError     403  another site, or another host name, is asking
├── MissingError       404  no such take or page
├── NotReadyError      409  the take has not been measured
├── ElsewhereError     409  it was changed elsewhere since the change was begun
├── KeptError          409  a typical entry is not to be overwritten
├── UnservedError      503  the store cannot be written just now (507: full, 500: damaged)
├── CrowdedError       503  much is being worked out at once; it can be asked again soon
└── RefusedFilmError   422  the film cannot be taken in (507 where the disk is full)

Errors of other layers become these in `handlers()`; unknown ones are logged whole and answered
with an id.
"""

from __future__ import annotations

import logging
import secrets
from contextlib import suppress
from datetime import UTC, datetime
from http import HTTPStatus
from pathlib import Path

from flask import Flask, Response, jsonify, request
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.turn_rates import LogError
from ridgewind.library import newest_error
from ridgewind.media.errors import MediaError
from ridgewind.services import errors as services
from ridgewind.store.errors import (
    BusyError,
    NoRoomError,
    NotFoundError,
    StorageError,
    TypicalError,
)

log = logging.getLogger(__name__)


class ApiError(Exception):
    """message: what happened and why. hint: what to do next. field: what it is about."""

    status = HTTPStatus.BAD_REQUEST
    code = "bad_request"

    def __init__(self, message: str, hint: str, *, code: str = "", field: str | None = None):
        super().__init__(message)
        self.message, self.hint, self.field = message, hint, field
        self.code = code or self.code


class BadRequestError(ApiError):
    """A request broke a rule."""


class LockedError(ApiError):
    """Whoever asks has no key."""

    status = HTTPStatus.UNAUTHORIZED
    code = "locked"


class ForbiddenError(ApiError):
    """Another site, or another host name, is asking."""

    status = HTTPStatus.FORBIDDEN
    code = "forbidden"


class MissingError(ApiError):
    """No such take or page."""

    status = HTTPStatus.NOT_FOUND
    code = "missing"


class NotReadyError(ApiError):
    """The take has not been measured."""

    status = HTTPStatus.CONFLICT
    code = "not_ready"


class ElsewhereError(ApiError):
    """It was changed in another window since this change was begun."""

    status = HTTPStatus.CONFLICT
    code = "changed_elsewhere"

    def __init__(self, what: str) -> None:
        super().__init__(
            f"This {what} was changed in another window since you began.",
            "Look at both, and keep one.",
        )


class KeptError(ApiError):
    """A typical entry is not to be overwritten."""

    status = HTTPStatus.CONFLICT
    code = "typical"


class UnservedError(ApiError):
    """The store cannot be written, or read, just now."""

    status = HTTPStatus.SERVICE_UNAVAILABLE
    code = "busy"


class CrowdedError(ApiError):
    """One too many of what takes long."""

    status = HTTPStatus.SERVICE_UNAVAILABLE
    code = "crowded"

    def __init__(self) -> None:
        super().__init__("Much is being worked out at once.", "Try again in a moment.")


class RefusedFilmError(ApiError):
    """The film cannot be taken in."""

    status = HTTPStatus.UNPROCESSABLE_ENTITY
    code = "refused"


def answer(error: ApiError) -> tuple[Response, int]:
    """The one shape in which every error leaves."""
    body = {
        "code": error.code,
        "message": error.message,
        "hint": error.hint,
        "field": error.field,
    }
    return jsonify({"error": body}), int(error.status)


def handlers(app: Flask, root: Path) -> None:
    """Register the mapping of every error to its answer."""

    @app.errorhandler(ApiError)
    def own(error: ApiError) -> tuple[Response, int]:
        return answer(error)

    @app.errorhandler(NotFoundError)
    def not_found(error: NotFoundError) -> tuple[Response, int]:
        message = f"There is no {error.what} here."
        return answer(MissingError(message, "It may have been deleted. Go back to the list."))

    @app.errorhandler(TypicalError)
    def typical(error: TypicalError) -> tuple[Response, int]:
        message = f"Typical entries stay as they are, and this {error.what} is one."
        return answer(KeptError(message, "Copy it, and change the copy."))

    @app.errorhandler(StorageError)
    def storage(error: StorageError) -> tuple[Response, int]:
        log.warning("%s at %s %s", error, request.method, request.path)
        return answer(unserved(error))

    @app.errorhandler(services.NotReadyError)
    def not_ready(error: services.NotReadyError) -> tuple[Response, int]:
        return answer(NotReadyError(error.message, error.hint))

    @app.errorhandler(services.ArchiveError)
    def archive_error(error: services.ArchiveError) -> tuple[Response, int]:
        return answer(NotReadyError(error.message, error.hint))

    @app.errorhandler(services.TimeLineError)
    def time_line(error: services.TimeLineError) -> tuple[Response, int]:
        return answer(BadRequestError(error.message, error.hint, field="text", code="time_line"))

    @app.errorhandler(services.GoneError)
    def gone(error: services.GoneError) -> tuple[Response, int]:
        return answer(MissingError(error.message, error.hint))

    @app.errorhandler(InvalidArgumentError)
    def invalid(error: InvalidArgumentError) -> tuple[Response, int]:
        return answer(broken_rule(error, ()))

    @app.errorhandler(RecursionError)
    def too_deep(error: RecursionError) -> tuple[Response, int]:
        return answer(BadRequestError("The request is nested too deep.", CORRECT, code="invalid"))

    @app.errorhandler(LogError)
    def log_error(error: LogError) -> tuple[Response, int]:
        what, next_step = sentence(error.what), sentence(error.next_step)
        return answer(RefusedFilmError(what, next_step, code="log"))

    @app.errorhandler(MediaError)
    def media(error: MediaError) -> tuple[Response, int]:
        refused = RefusedFilmError(sentence(error.what), sentence(error.next_step), code=error.code)
        if error.code == "disk_full":
            refused.status = HTTPStatus.INSUFFICIENT_STORAGE
        return answer(refused)

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> tuple[Response, int]:
        wrapped = ApiError(error.description or error.name, "Check the address.", code="http")
        wrapped.status = HTTPStatus(error.code or 500)
        return answer(wrapped)

    @app.errorhandler(Exception)
    def unknown(error: Exception) -> tuple[Response, int]:
        number = secrets.token_hex(4)
        log.exception("error %s at %s %s", number, request.method, request.path)
        with suppress(Exception):  # a full disk must not hide what went wrong
            newest_error.keep(root, error, number=number, at=datetime.now(UTC))
        wrapped = ApiError(
            f"Something failed that was not foreseen (number {number}).",
            "Try again. If it stays, `ridgewind doctor` tells where it happened.",
            code="internal",
        )
        wrapped.status = HTTPStatus.INTERNAL_SERVER_ERROR
        return answer(wrapped)


def unserved(error: StorageError) -> UnservedError:
    """What is wrong with the store, as an answer."""
    if isinstance(error, BusyError):
        return UnservedError(
            "Another program holds Ridgewind’s library, so nothing can be kept just now.",
            "Close what else uses library.db. Work that waits goes on by itself.",
        )
    if isinstance(error, NoRoomError):
        full = UnservedError(
            "The disk is full, so nothing can be kept just now.",
            "Free some space. Work that waits goes on by itself.",
            code="disk_full",
        )
        full.status = HTTPStatus.INSUFFICIENT_STORAGE
        return full
    damaged = UnservedError(
        "Ridgewind’s library is damaged: library.db cannot be read here.",
        "Stop Ridgewind and put back a copy of library.db that was made earlier.",
        code="damaged",
    )
    damaged.status = HTTPStatus.INTERNAL_SERVER_ERROR
    return damaged


def validation(error: ValidationError) -> Response:
    """Called for a request that does not fit its model."""
    first = error.errors()[0]
    cause = first.get("ctx", {}).get("error")
    if isinstance(cause, InvalidArgumentError):
        refused = broken_rule(cause, first["loc"])
    else:
        field = ".".join(str(part) for part in first["loc"]) or None
        refused = BadRequestError(
            f"{field or 'The request'}: {first['msg'].lower()}.",
            CORRECT,
            code="invalid",
            field=field,
        )
    reply, status = answer(refused)
    reply.status_code = status
    return reply


CORRECT = "Correct the value and try again."


def broken_rule(error: InvalidArgumentError, where: tuple[int | str, ...]) -> BadRequestError:
    """A rule of the core that a request broke; where: the part of the request that holds it."""
    field = ".".join(str(part) for part in (*where, error.name))
    return BadRequestError(sentence(error.rule), CORRECT, code="invalid", field=field)


def sentence(words: str) -> str:
    """Words of a message as a sentence."""
    return words[:1].upper() + words[1:] + ("" if words.endswith(".") else ".")
