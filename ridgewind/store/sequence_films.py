"""Sequences rendered, small or at full size: what was asked for, and what came of it."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.sequence.piece import Piece
from ridgewind.store import jobs
from ridgewind.store.as_json import AsJson
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError
from ridgewind.store.jobs import JobRow

_PIECES = AsJson(tuple[Piece, ...])


@dataclass(frozen=True)
class SequenceFilmRow:
    """whole: at full size. shape: as it was asked for. gusts: of each piece as rendered, None where
    it cannot be told; empty until it is there. size_bytes: None until then. delivered: as what, in
    words that are compared alone; None where that was not kept yet."""

    id: int
    outing_id: int
    pieces: tuple[Piece, ...]
    whole: bool
    shape: str | None
    delivered: str | None
    gusts: tuple[float | None, ...]
    size_bytes: int | None
    job: JobRow


def add(
    db: sqlite3.Connection,
    outing_id: int,
    pieces: Sequence[Piece],
    *,
    whole: bool,
    shape: str | None,
    delivered: str,
) -> int:
    """Ask for a film; returns its id."""
    cursor = db.execute(
        "insert into sequence_film (outing_id, pieces, whole, shape, delivered, asked_at)"
        f" values (?, ?, ?, ?, ?, {NOW})",
        (outing_id, _PIECES.text(tuple(pieces)), whole, shape, delivered),
    )
    assert cursor.lastrowid is not None
    jobs.enqueue(db, "assemble", cursor.lastrowid)
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, film_id: int) -> SequenceFilmRow:
    row = db.execute("select * from sequence_film where id = ?", (film_id,)).fetchone()
    job = jobs.one(db, "assemble", film_id)
    if row is None or job is None:
        raise NotFoundError("film", film_id)
    gusts = () if row["gusts"] is None else tuple(json.loads(row["gusts"]))
    pieces = _PIECES.read(row["pieces"])
    return SequenceFilmRow(
        row["id"],
        row["outing_id"],
        pieces,
        bool(row["whole"]),
        row["shape"],
        row["delivered"],
        gusts,
        row["size_bytes"],
        job,
    )


def newest(db: sqlite3.Connection, outing_id: int, *, whole: bool) -> SequenceFilmRow | None:
    """The film of an outing that was asked for last, small or at full size."""
    row = db.execute(
        "select max(id) as id from sequence_film where outing_id = ? and whole = ?",
        (outing_id, whole),
    ).fetchone()
    return None if row["id"] is None else by_id(db, row["id"])


def before(db: sqlite3.Connection, film_id: int) -> list[int]:
    """Films of the same outing and kind that were asked for earlier."""
    rows = db.execute(
        "select earlier.id from sequence_film as earlier join sequence_film as film"
        " on film.outing_id = earlier.outing_id and film.whole = earlier.whole"
        " where film.id = ? and earlier.id < film.id",
        (film_id,),
    )
    return [row["id"] for row in rows]


def assembled(
    db: sqlite3.Connection, film_id: int, *, gusts: Sequence[float | None], size_bytes: int
) -> None:
    """It is there, and measured."""
    db.execute(
        "update sequence_film set gusts = ?, size_bytes = ? where id = ?",
        (json.dumps(list(gusts)), size_bytes, film_id),
    )
