"""Films that arrive in pieces, and become takes."""

from __future__ import annotations

from http import HTTPStatus

from flask import Response, request

from ridgewind.library.uploads import MOST_PIECE_BYTES
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.takes import models, serialise
from ridgewind.web.takes.upload_models import PieceQuery, UploadAnswer, UploadAsk, UploadPath

api = blueprint("uploads", prefix="/api/uploads")


@api.post("", responses={201: UploadAnswer, **FAULTS})
def begin(body: UploadAsk) -> Response:
    """Announce a film; its pieces follow."""
    key = current().uploads.begin(body.name, body.size_bytes)
    return answered(_answer(key, 0), HTTPStatus.CREATED)


@api.put("/<key>", responses={200: UploadAnswer, **FAULTS})
def put(path: UploadPath, query: PieceQuery) -> Response:
    """The next piece of a film; the request's body is the piece."""
    received = current().uploads.put(path.key, query.offset, request.get_data())
    return answered(_answer(path.key, received))


@api.post("/<key>/take", responses={201: models.ImportAnswer, **FAULTS})
def finish(path: UploadPath) -> Response:
    """All pieces are here: take the film in. It is queued for measuring at once."""
    service = current()
    with service.read() as db:
        imported = service.uploads.finish(db, path.key)
    if imported.take.state == "queued":
        service.queue.put("measure", imported.take.clip_id)
    answer = models.ImportAnswer(
        take=serialise.take_line(imported.take), duplicate=imported.duplicate
    )
    return answered(answer, HTTPStatus.CREATED)


@api.delete("/<key>", responses={204: None, **FAULTS})
def drop(path: UploadPath) -> tuple[str, int]:
    """Forget a film that was on its way."""
    current().uploads.drop(path.key)
    return "", int(HTTPStatus.NO_CONTENT)


def _answer(key: str, received: int) -> UploadAnswer:
    return UploadAnswer(key=key, received=received, most_piece_bytes=MOST_PIECE_BYTES)
