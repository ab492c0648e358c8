"""Settings of the whole library, kept as JSON under a name."""

from __future__ import annotations

import sqlite3

from pydantic import TypeAdapter

from ridgewind.core.judge.cost import Weights

_WEIGHTS = TypeAdapter(Weights)


def weights(db: sqlite3.Connection) -> Weights:
    """What a remedy's costs weigh; the usual ones while none were set."""
    row = db.execute("select value from setting where name = 'weights'").fetchone()
    return Weights() if row is None else _WEIGHTS.validate_json(row["value"])


def set_weights(db: sqlite3.Connection, value: Weights) -> None:
    db.execute(
        "insert or replace into setting (name, value) values ('weights', ?)",
        (_WEIGHTS.dump_json(value).decode(),),
    )
