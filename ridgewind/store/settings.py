"""Settings of the whole library, kept as JSON under a name."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from ridgewind.core.judge.cost import Weights
from ridgewind.store.as_json import AsJson

_WEIGHTS = AsJson(Weights)


@dataclass(frozen=True)
class MendedNote:
    """The database was damaged. copied_at: when the copy was made that took its place, as every
    moment is kept. films: that had come since, and were taken in anew. aside: name of the damaged
    file."""

    copied_at: str
    films: int
    aside: str


_MENDED = AsJson(MendedNote)


def mended(db: sqlite3.Connection) -> MendedNote | None:
    """What was mended and not read yet."""
    row = db.execute("select value from setting where name = 'mended'").fetchone()
    return None if row is None else _MENDED.read(row["value"])


def set_mended(db: sqlite3.Connection, note: MendedNote | None) -> None:
    """Keep what was mended; None once it was read."""
    db.execute("delete from setting where name = 'mended'")
    if note is not None:
        value = _MENDED.text(note)
        db.execute("insert into setting (name, value) values ('mended', ?)", (value,))


def weights(db: sqlite3.Connection) -> Weights:
    """What a remedy's costs weigh; the usual ones while none were set."""
    row = db.execute("select value from setting where name = 'weights'").fetchone()
    return Weights() if row is None else _WEIGHTS.read(row["value"])


def set_weights(db: sqlite3.Connection, value: Weights) -> None:
    db.execute(
        "insert or replace into setting (name, value) values ('weights', ?)",
        (_WEIGHTS.text(value),),
    )


def resting(db: sqlite3.Connection) -> bool:
    """Whether measuring and rendering are left to other machines."""
    return db.execute("select 1 from setting where name = 'resting'").fetchone() is not None


def set_resting(db: sqlite3.Connection, value: bool) -> None:
    db.execute("delete from setting where name = 'resting'")
    if value:
        db.execute("insert into setting (name, value) values ('resting', 'true')")
