"""An outing's takes, joined."""

from __future__ import annotations

import base64
import csv
import io
from dataclasses import asdict
from http import HTTPStatus
from typing import Literal

from flask import Response, send_file

from ridgewind.core.sequence import joins
from ridgewind.core.sequence.piece import Piece, piece_from
from ridgewind.core.sequence.shapes import delivered_px
from ridgewind.core.sequence.tempo import is_on_beat
from ridgewind.services import brought_back, sequencing, timelines
from ridgewind.services.pieces import PieceSheet, window_of
from ridgewind.services.sequencing import JoinedTakes
from ridgewind.store import database, jobs, outings, sequence_films, takes, used_takes
from ridgewind.store.database import Connection
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current, download
from ridgewind.web.errors import ElsewhereError, MissingError
from ridgewind.web.sequence import models
from ridgewind.web.sequence.paper import contact_sheet
from ridgewind.web.takes.serialise import take_line

MOST_NAME = 64
RESERVED = {"con", "prn", "aux", "nul"} | {f"{one}{n}" for one in ("com", "lpt") for n in range(10)}
"""Names that one system keeps for itself, whatever follows the dot."""

api = blueprint("joined", prefix="/api/outings/<int:outing_id>")


@api.get("/joined", responses={200: models.Joined, **FAULTS})
def joined(path: models.OutingPath) -> Response:
    """The sequence: its pieces, and how well they join."""
    with current().read() as db:
        return answered(_joined(db, path.outing_id))


@api.put("/joined", responses={200: models.Joined, **FAULTS})
def put_pieces(path: models.OutingPath, body: models.PieceChange) -> Response:
    """Keep other pieces. Refused where they were changed elsewhere meanwhile."""
    pieces = [_piece(one) for one in body.pieces]
    base = None if body.base is None else [_piece(one) for one in body.base]
    with current().read() as db:
        if not sequencing.put(db, path.outing_id, pieces, base=base):
            raise ElsewhereError("sequence")
        return answered(_joined(db, path.outing_id))


@api.post("/joined/anew", responses={200: models.Joined, **FAULTS})
def propose_anew(path: models.OutingPath) -> Response:
    """Let the shots propose the sequence again."""
    with current().read() as db:
        sequencing.propose_anew(db, path.outing_id)
        return answered(_joined(db, path.outing_id))


@api.put("/joined/look", responses={200: models.Joined, **FAULTS})
def put_look(path: models.OutingPath, body: models.LookChange) -> Response:
    """Show the sequence in another shape, or cut it to another tempo."""
    with current().read() as db:
        sequencing.put_look(db, path.outing_id, shape=body.shape, beats_per_min=body.beats_per_min)
        return answered(_joined(db, path.outing_id))


@api.post("/joined/snap", responses={200: models.Joined, **FAULTS})
def snap(path: models.OutingPath) -> Response:
    """Move every cut to the beat nearest to it."""
    with current().read() as db:
        sequencing.put(db, path.outing_id, sequencing.snapped(db, path.outing_id), base=None)
        return answered(_joined(db, path.outing_id))


@api.get("/joined/cuts/<int:cut>", responses={200: models.BetterLines, **FAULTS})
def better_cut(path: models.CutPath) -> Response:
    """What would make a cut match better, the cuts counted from 0."""
    with current().read() as db:
        found = sequencing.better_at(db, path.outing_id, path.cut)
    lines = [
        models.BetterLine(
            words=one.words,
            mismatch=one.mismatch,
            joined=joins.joined(one.mismatch),
            pieces=[_as_model(piece) for piece in one.pieces],
        )
        for one in found
    ]
    return answered(models.BetterLines(better=lines))


@api.get("/film", responses={200: models.SequenceFilm, **FAULTS})
def film(path: models.OutingPath, query: models.SequenceFilmAsk) -> Response:
    """How far the sequence is rendered."""
    with current().read() as db:
        return answered(_film(db, path.outing_id, whole=query.whole))


@api.post("/film", responses={201: models.SequenceFilm, **FAULTS})
def begin_film(path: models.OutingPath, query: models.SequenceFilmAsk) -> Response:
    """Render the sequence; only what has changed is rendered anew."""
    service = current()
    with service.read() as db:
        film_id = sequencing.ask_for_film(db, path.outing_id, whole=query.whole)
        service.queue.put("assemble", film_id)
        return answered(_film(db, path.outing_id, whole=query.whole), HTTPStatus.CREATED)


@api.delete("/film", responses={200: models.SequenceFilm, **FAULTS})
def stop_film(path: models.OutingPath, query: models.SequenceFilmAsk) -> Response:
    """Stop rendering; pieces that are done stay for the next time."""
    with current().read() as db:
        found = sequence_films.newest(db, path.outing_id, whole=query.whole)
        if found is not None:
            with database.atomic(db):
                jobs.request_cancel(db, "assemble", found.id)
        return answered(_film(db, path.outing_id, whole=query.whole))


@api.get("/film.mp4", responses=FAULTS)
def film_file(path: models.OutingPath, query: models.SequenceFilmAsk) -> Response:
    """The rendered sequence; a whole one as a file to be kept."""
    service = current()
    with service.read() as db:
        found = sequence_films.newest(db, path.outing_id, whole=query.whole)
        name = outings.by_id(db, path.outing_id).name
    place = None if found is None else service.library.sequence_film_of(found.id)
    if place is None or not place.is_file():
        raise MissingError("This sequence has not been rendered.", "See it first.")
    return send_file(
        place, mimetype="video/mp4", conditional=True, max_age=0, as_attachment=query.whole,
        download_name=f"{_plain(name)}.mp4",
    )  # fmt: skip


def _film(db: Connection, outing_id: int, *, whole: bool) -> models.SequenceFilm:
    found = sequence_films.newest(db, outing_id, whole=whole)
    if found is None:
        outings.by_id(db, outing_id)
        return models.SequenceFilm(
            id=None, state="none", progress=None, stale=False, gusts=[], bytes=None, error=None
        )
    job = found.job
    error = None
    if job.state == "failed":
        error = f"{job.error_what}; {job.error_next}."
    return models.SequenceFilm(
        id=found.id,
        state=job.state,  # type: ignore[arg-type]
        progress=job.progress,
        stale=sequencing.is_stale(db, found),
        gusts=list(found.gusts),
        bytes=found.size_bytes,
        error=error,
    )


@api.get("/used", responses={200: models.Used, **FAULTS})
def used(path: models.OutingPath) -> Response:
    """Which takes became film, by the time line that was brought back last."""
    with current().read() as db:
        outings.by_id(db, path.outing_id)
        return answered(_used(db, path.outing_id, ()))


@api.post("/used", responses={200: models.Used, **FAULTS})
def bring_back(path: models.OutingPath, body: models.TimeLineAsk) -> Response:
    """Bring a time line back from the desk."""
    with current().read() as db:
        found = brought_back.bring_back(db, path.outing_id, body.text)
        return answered(_used(db, path.outing_id, found.unknown))


def _used(db: Connection, outing_id: int, unknown: tuple[str, ...]) -> models.Used:
    parts = used_takes.of_outing(db, outing_id)
    lines = [
        models.UsedLine(
            take=take_line(takes.by_id(db, part.take_id)),
            in_s=part.in_s,
            out_s=part.out_s,
            seconds=part.seconds,
            gust=sequencing.gust_of(db, part.take_id, part.in_s, part.out_s),
        )
        for part in parts
    ]
    return models.Used(
        used=lines, unknown=list(unknown), seconds=sum(part.seconds for part in parts)
    )


@api.get("/sequence.otio", responses=FAULTS)
def as_otio(path: models.OutingPath) -> Response:
    """An OpenTimelineIO time line, with the films as they came as its media."""
    service = current()
    with service.read() as db:
        found = sequencing.sequence_of(db, path.outing_id)
    text = timelines.as_otio(found, timelines.at_home(service.library.original))
    return download(text, "application/json", f"{_plain(found.row.name)}.otio")


@api.get("/sequence.json", responses=FAULTS)
def as_json(path: models.OutingPath) -> Response:
    """The sequence as JSON."""
    with current().read() as db:
        found = sequencing.sequence_of(db, path.outing_id)
    return download(timelines.as_json(found), "application/json", f"{_plain(found.row.name)}.json")


@api.get("/sequence.pdf", responses=FAULTS)
def as_pdf(path: models.OutingPath) -> Response:
    """The sequence as a contact sheet, on paper."""
    return _contact_sheet(path.outing_id, "pdf", "application/pdf")


@api.get("/sequence.png", responses=FAULTS)
def as_png(path: models.OutingPath) -> Response:
    """The sequence as a contact sheet, in one picture."""
    return _contact_sheet(path.outing_id, "png", "image/png")


def _contact_sheet(outing_id: int, kind: Literal["pdf", "png"], mimetype: str) -> Response:
    service = current()
    with service.read() as db:
        found = sequencing.sequence_of(db, outing_id)
        sheet = contact_sheet(service.library, found, kind=kind)
    return download(sheet, mimetype, f"{_plain(found.row.name)}.{kind}")


@api.get("/sequence.csv", responses=FAULTS)
def as_csv(path: models.OutingPath) -> Response:
    """The sequence as a table, a row a piece."""
    with current().read() as db:
        found = sequencing.sequence_of(db, path.outing_id)
    rows = timelines.as_rows(found)
    out = io.StringIO()
    writer = csv.DictWriter(out, fieldnames=list(rows[0]) if rows else ["number"])
    writer.writeheader()
    writer.writerows(rows)
    return download(out.getvalue(), "text/csv", f"{_plain(found.row.name)}.csv")


def _plain(name: str) -> str:
    """A file's name that every system takes."""
    kept = "".join(one if one.isascii() and one.isalnum() else "-" for one in name)[:MOST_NAME]
    found = kept.strip("-") or "sequence"
    return f"{found}-sequence" if found.lower() in RESERVED else found


def _piece(model: models.Piece) -> Piece:
    return piece_from(model.model_dump())


def _as_model(piece: Piece) -> models.Piece:
    return models.Piece(**asdict(piece))


def _joined(db: Connection, outing_id: int) -> models.Joined:
    found = sequencing.sequence_of(db, outing_id)
    starts = [one.placed.start for one in found.pieces]
    return models.Joined(
        name=found.row.name,
        rate_hz=found.rate_hz,
        target=found.brief.target,
        frames=sum(one.placed.frames for one in found.pieces),
        proposed=found.proposed,
        shape=found.row.shape,  # type: ignore[arg-type]
        ratio=found.look.shape,
        delivered=list(delivered_px(found.look.shape, found.brief.delivery_px)),
        beats_per_min=found.row.beats_per_min,
        pieces=[_item(found, one) for one in found.pieces],
        cuts=[
            models.CutItem(
                mismatch=cut.mismatch,
                joined=cut.joined,
                jump=cut.jump,
                beat=_is_on_beat(found, start),
            )
            for cut, start in zip(found.cuts, starts[1:], strict=True)
        ],
    )


def _is_on_beat(found: JoinedTakes, start: int) -> bool | None:
    tempo = found.row.beats_per_min
    return None if tempo is None else is_on_beat(start, beats_per_min=tempo, rate_hz=found.rate_hz)


def _item(found: JoinedTakes, sheet: PieceSheet) -> models.PieceItem:
    motion = sheet.motion
    take = found.here.get(sheet.piece.take_id or 0)
    window = None if take is None else window_of(take, found.look.shape)
    return models.PieceItem(
        piece=_as_model(sheet.piece),
        start=sheet.placed.start,
        frames=sheet.placed.frames,
        subject="" if sheet.shot is None else sheet.shot.shot.subject,
        take=None if sheet.take is None else take_line(sheet.take),
        length_s=sheet.length_s,
        gust=None if motion is None else motion.gust,
        ridge=base64.b64encode(sheet.ridge).decode(),
        entry=None if motion is None else [round(float(one), 2) for one in motion.entry],
        exit=None if motion is None else [round(float(one), 2) for one in motion.exit],
        trouble=sheet.trouble,
        notes=list(sheet.notes),
        window=None if window is None else [window.width, window.height],
        left=sheet.left,
        marked=sheet.marked,
        fps=None if take is None else take.clip.fps,
    )
