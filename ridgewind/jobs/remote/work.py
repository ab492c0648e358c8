"""What is lent to workers on other machines, by its kind: what they are told, and what becomes of
what they send back.

It brings the decoder along, without which a server starts: imported where something is lent.
"""

from __future__ import annotations

from pathlib import Path

from ridgewind.films.orders import MeasureResult
from ridgewind.jobs import measure, render
from ridgewind.jobs.remote.parts import Parts
from ridgewind.jobs.remote.wire import Order, Result
from ridgewind.library.library import Library
from ridgewind.store import clips, jobs
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault, JobRow, Kind


def order_of(library: Library, db: Connection, kind: Kind, subject_id: int) -> tuple[Order, Path]:
    """What a worker is told, and the film that it needs."""
    if kind == "render":
        return render.order_of(library, db, subject_id)
    clip = clips.by_id(db, subject_id)
    return measure.order_of(db, subject_id), library.film(clip.file)


def keep(
    library: Library, db: Connection, job: JobRow, lease: str, parts: Parts, result: Result
) -> None:
    """Keep a result; in one transaction, before whose end its files are in place."""
    number = job.subject_id
    if job.cancel_requested:
        jobs.stop(db, job.kind, number)
    elif isinstance(result, Fault):
        jobs.fail(db, job.kind, number, result)
    elif isinstance(result, MeasureResult):
        sha256 = clips.by_id(db, number).sha256
        measure.keep(db, number, result)
        jobs.finish(db, "measure", number)
        parts.path(lease, "copy").replace(library.copy_of(sha256))
        parts.path(lease, "still").replace(library.still_of(sha256))
    else:
        film = parts.path(lease, "film")
        render.keep(db, number, result, size_bytes=film.stat().st_size)
        jobs.finish(db, "render", number)
        film.replace(library.render_of(number))


def kept(library: Library, job: JobRow, result: Result) -> float:
    """What is done once a result is kept; returns the seconds of film that were measured."""
    if job.kind == "render":
        render.prune(library)
    return result.measured.duration_s if isinstance(result, MeasureResult) else 0.0


def unforeseen(kind: Kind) -> Fault:
    """What is told of work that a worker gave up."""
    return measure.UNFORESEEN if kind == "measure" else render.UNFORESEEN
