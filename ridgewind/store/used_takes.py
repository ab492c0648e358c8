"""What became film: parts of takes that time lines from the desk use."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.store.database import NOW


@dataclass(frozen=True)
class UsedPart:
    """in_s, out_s: of the take's film, from its first frame. seconds: on screen."""

    take_id: int
    in_s: float
    out_s: float
    seconds: float


def put(
    db: sqlite3.Connection, outing_id: int, *, timeline: str, parts: Sequence[UsedPart]
) -> None:
    """Keep what an outing's time line uses, in place of what was brought back before."""
    db.execute("delete from used_take where outing_id = ?", (outing_id,))
    db.executemany(
        "insert into used_take (outing_id, take_id, timeline, in_s, out_s, seconds, brought_at)"
        f" values (?, ?, ?, ?, ?, ?, {NOW})",
        [
            (outing_id, part.take_id, timeline, part.in_s, part.out_s, part.seconds)
            for part in parts
        ],
    )


def of_outing(db: sqlite3.Connection, outing_id: int) -> list[UsedPart]:
    """What was brought back of an outing last, in the order of its time line."""
    rows = db.execute(
        "select take_id, in_s, out_s, seconds from used_take where outing_id = ? order by id",
        (outing_id,),
    )
    return [UsedPart(**dict(row)) for row in rows]


def everywhere(db: sqlite3.Connection) -> list[UsedPart]:
    """What the time lines of all outings use, of takes that are here."""
    rows = db.execute(
        "select take_id, in_s, out_s, seconds from used_take join take on take.id = take_id"
        " where deleted_at is null order by used_take.id"
    )
    return [UsedPart(**dict(row)) for row in rows]


@dataclass(frozen=True)
class HeldTake:
    """A measured take of the shooter's own, by how it was held or moved. drill_key, variation_key:
    what it is filed under, None for nothing. shot_id: the planned shot that it meets, None for
    none."""

    take_id: int
    gust: float
    drill_key: str | None
    variation_key: str | None
    shot_id: int | None


def held_takes(db: sqlite3.Connection, *, pictureless: str) -> list[HeldTake]:
    """Takes that could be used in a film: with a picture, and their technique or planned move is
    known, and their gust. pictureless: the codec of those without a picture."""
    rows = db.execute(
        "select take.id as take_id, summary.gust, filed.drill_key, filed.variation_key,"
        " shot_take.shot_id from take join summary on summary.take_id = take.id"
        " join clip on clip.id = take.clip_id"
        " left join session_take as filed on filed.take_id = take.id"
        " left join shot_take on shot_take.take_id = take.id"
        " where take.deleted_at is null and take.origin = 'own' and summary.gust is not null"
        " and (filed.drill_key is not null or shot_take.shot_id is not null)"
        " and clip.codec is not ?",
        (pictureless,),
    )
    return [HeldTake(**dict(row)) for row in rows]


def by_file(db: sqlite3.Connection, file: str) -> int | None:
    """The take of an original, by its name among them; None where it is not here."""
    row = db.execute(
        "select min(take.id) as id from take join clip on clip.id = take.clip_id"
        " where clip.file = ? and take.deleted_at is null",
        (file,),
    ).fetchone()
    found: int | None = row["id"]
    return found


def file_of(db: sqlite3.Connection, take_id: int) -> str | None:
    """The name of a take's original among them; None where there is no such take."""
    row = db.execute(
        "select clip.file from take join clip on clip.id = take.clip_id where take.id = ?",
        (take_id,),
    ).fetchone()
    return None if row is None else str(row["file"])
