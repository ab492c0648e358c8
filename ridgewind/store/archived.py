"""The tables that go into an archive, row by row, and what stays behind."""

from __future__ import annotations

import base64
import sqlite3
from collections.abc import Iterable, Iterator
from typing import Any

from ridgewind.store.names import require_pair

ARCHIVED = (
    "brief", "kit_item", "setup", "setup_support", "drill", "drill_archived", "clip", "take",
    "measurement", "motion_log", "log_mapping", "named_background", "whose_motion", "subject",
    "mark", "summary", "session", "session_take", "outing", "outing_shot", "shot_take",
    "used_take", "hand_film", "setting", "job",
)  # fmt: skip
"""Whatever a row points at stands before it."""

LEFT = {
    "migration": "stands in the manifest",
    "phone": "keys of other people's machines", "worker": "keys of other machines",
    "folder_copy": "a folder of this computer", "folder_copy_film": "a folder of this computer",
    "watched_folder": "a folder of this computer", "watched_film": "a folder of this computer",
    "import_source": "files of this computer", "removed_original": "files of this computer",
    "render": "can be made again", "sequence_film": "can be made again",
    "bulk_change": "what could be undone is done", "merge": "what could be undone is done",
    "motion_log_away": "what could be undone is done",
    "subject_away": "what could be undone is done", "subject_ask": "it can be marked again",
}  # fmt: skip
"""Tables that stay behind, and why."""

ONLY = {"job": "kind = 'measure'", "setting": "name not in ('mended', 'resting')"}
"""Of some tables, the rows that are archived: not what is of this machine alone."""


def tables_of(db: sqlite3.Connection) -> list[str]:
    """All tables of a database."""
    rows = db.execute(
        "select name from sqlite_master where type = 'table' and name not like 'sqlite_%'"
    )
    return [row["name"] for row in rows]


def rows_of(db: sqlite3.Connection, table: str) -> Iterator[dict[str, Any]]:
    """The archived rows of a table, as JSON has them: bytes as {"base64": text}."""
    assert table in ARCHIVED
    where = f" where {ONLY[table]}" if table in ONLY else ""
    names = columns_of(db, table)
    for row in db.execute(f"select {', '.join(names)} from {table}{where} order by 1"):
        yield {name: _told(row[name]) for name in names}


def columns_of(db: sqlite3.Connection, table: str) -> list[str]:
    """Without those that are worked out from others."""
    return [row["name"] for row in db.execute(f"pragma table_info({table})")]


def _told(value: Any) -> Any:
    if isinstance(value, bytes):
        return {"base64": base64.b64encode(value).decode()}
    return value


def _read(value: Any) -> Any:
    if isinstance(value, dict):
        return base64.b64decode(value["base64"], validate=True)
    return value


def put_rows(db: sqlite3.Connection, table: str, rows: Iterable[dict[str, Any]]) -> int:
    """Put rows into an empty table of the schema that they are of; returns how many. What the table
    was seeded with goes. Raises ValueError for a row that the table cannot hold."""
    assert table in ARCHIVED
    columns = set(columns_of(db, table))
    db.execute(f"delete from {table}")
    count = 0
    for row in rows:
        if not set(row) <= columns:
            raise ValueError(f"{table} has no {', '.join(sorted(set(row) - columns))}")
        names, marks = ", ".join(row), ", ".join("?" * len(row))
        if table == "clip":  # an older schema does not look at its names itself
            require_pair(row.get("sha256"), row.get("file"))
        try:
            values = [_read(value) for value in row.values()]
            db.execute(f"insert into {table} ({names}) values ({marks})", values)
        except (sqlite3.IntegrityError, sqlite3.ProgrammingError, KeyError, TypeError) as error:
            raise ValueError(f"a row of {table} cannot be: {error}") from error
        count += 1
    return count


def broken_references(db: sqlite3.Connection) -> int:
    """Rows that point at nothing."""
    return len(db.execute("pragma foreign_key_check").fetchall())


def applied(db: sqlite3.Connection) -> list[str]:
    """Names of the migrations that a database has, in order."""
    return [row["name"] for row in db.execute("select name from migration order by name")]
