"""Drills: those that ship with the package, and the shooter's own."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from functools import cache
from importlib import resources

from ridgewind.core.practice.drill import Drill, library_of, parse_drills
from ridgewind.store.as_json import AsJson
from ridgewind.store.errors import NotFoundError, TypicalError

_SPEC = AsJson(Drill)


@dataclass(frozen=True)
class DrillRow:
    """shipped: it comes with the package and is brought up to date with it."""

    drill: Drill
    shipped: bool
    archived: bool


@cache
def shipped() -> dict[str, Drill]:
    """The drills of the package, by key."""
    folder = resources.files("ridgewind.core.practice") / "drills"
    files = sorted((file for file in folder.iterdir() if file.name.endswith(".toml")),
                   key=lambda file: file.name)  # fmt: skip
    return library_of(
        drill for file in files for drill in parse_drills(file.read_text(encoding="utf-8"))
    )


def all_drills(db: sqlite3.Connection) -> list[DrillRow]:
    """Own drills first, then shipped ones."""
    away = {row["key"] for row in db.execute("select key from drill_archived")}
    own = [_SPEC.read(row["spec"]) for row in db.execute("select spec from drill")]
    rows = [DrillRow(drill, False, drill.key in away) for drill in own]
    return rows + [DrillRow(drill, True, key in away) for key, drill in shipped().items()]


def library(db: sqlite3.Connection, *, archived: bool = False) -> dict[str, Drill]:
    """Drills by key, archived ones only where asked for."""
    return {row.drill.key: row.drill for row in all_drills(db) if archived or not row.archived}


def by_key(db: sqlite3.Connection, key: str) -> DrillRow:
    for row in all_drills(db):
        if row.drill.key == key:
            return row
    raise NotFoundError("drill", key)


def put(db: sqlite3.Connection, drill: Drill) -> None:
    """Keep a drill of one's own, new or changed. Raises TypicalError for a shipped key."""
    if drill.key in shipped():
        raise TypicalError("drill", drill.key)
    db.execute(
        "insert into drill (key, spec) values (?, ?)"
        " on conflict (key) do update set spec = excluded.spec",
        (drill.key, _SPEC.text(drill)),
    )


def set_archived(db: sqlite3.Connection, key: str, *, archived: bool) -> None:
    by_key(db, key)
    if archived:
        db.execute("insert or ignore into drill_archived (key) values (?)", (key,))
    else:
        db.execute("delete from drill_archived where key = ?", (key,))
