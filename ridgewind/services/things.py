"""What two libraries may both hold, and what tells one such thing from another: a film by its
content, everything else by its name and the moment at which it was made.

A thing is a row and the rows that are part of it. Told without its numbers, which differ from
library to library, it can be compared with another.
"""

from __future__ import annotations

import hashlib
import json
from collections import defaultdict
from dataclasses import dataclass, field
from typing import Any

from ridgewind.core.practice.slate import outing_of
from ridgewind.store import merging
from ridgewind.store.database import Connection
from ridgewind.store.merging import Row

Key = tuple[Any, ...]


@dataclass(frozen=True)
class Part:
    """A table whose rows are part of a thing. owner: the column that points at it. refs: those that
    point at other things, and their tables. told: whether it counts when things are compared; what
    is worked out from the rest does not. alone: a column whose value no other row has. ignored:
    columns that do not count either."""

    table: str
    owner: str
    refs: dict[str, str] = field(default_factory=dict)
    told: bool = True
    alone: str | None = None
    ignored: tuple[str, ...] = ()


@dataclass(frozen=True)
class Kind:
    """key: columns by which one is known. refs: columns that point at other things, and their
    tables. ignored: columns that do not count when things are compared."""

    table: str
    words: str
    key: tuple[str, ...]
    refs: dict[str, str] = field(default_factory=dict)
    ignored: tuple[str, ...] = ()
    parts: tuple[Part, ...] = ()


KINDS = (
    Kind("brief", "brief", ("typical_key", "name"), {"parent_id": "brief"}, ("used_at",)),
    Kind("kit_item", "kit", ("typical_key", "kind", "name")),
    Kind(
        "setup", "set-up", ("typical_key", "name"),
        {"camera_id": "kit_item", "lens_id": "kit_item"}, ("used_at",),
        (Part("setup_support", "setup_id", {"item_id": "kit_item"}),),
    ),
    Kind("drill", "drill", ("key",)),
    Kind("drill_archived", "drill put away", ("key",)),
    Kind(
        "clip", "film", ("sha256",), {}, ("cleared_at", "file"),
        (
            Part("measurement", "clip_id", ignored=("measured_at",)),
            Part("motion_log", "clip_id", ignored=("imported_at",)),
            Part("named_background", "clip_id"), Part("whose_motion", "clip_id"),
            Part("job", "subject_id", told=False),
        ),
    ),
    Kind(
        "take", "take", ("clip_id",), {"clip_id": "clip", "setup_id": "setup"},
        ("deleted_at", "imported_at"),
        (
            Part("subject", "take_id"), Part("mark", "take_id"),
            Part("summary", "take_id", told=False),
        ),
    ),
    Kind(
        "session", "session", ("made_at", "name"), {"setup_id": "setup"}, (),
        (Part("session_take", "session_id", {"take_id": "take"}, alone="take_id"),),
    ),
    Kind(
        "outing", "outing", ("made_at", "name"), {"brief_id": "brief", "setup_id": "setup"}, (),
        (
            Part("outing_shot", "outing_id"),
            Part("used_take", "outing_id", {"take_id": "take"}),
        ),
    ),
    Kind("hand_film", "film in your own hand", ("asked_at", "name"), {"take_id": "take"}),
    Kind("log_mapping", "columns of a motion log", ("columns",)),
    Kind("setting", "setting", ("name",)),
)  # fmt: skip
"""Whatever one points at stands before it."""


def slated(number: int | None) -> tuple[str, int | None]:
    """The table and the number of what a slate names: a session or an outing."""
    if number is None:
        return "session", None
    outing = outing_of((number, 0))
    return ("session", number) if outing is None else ("outing", outing[0])


SHOT_TAKES = Part("shot_take", "shot_id", {"take_id": "take"}, alone="take_id")
"""Part of an outing through its shots."""

BY_TABLE = {kind.table: kind for kind in KINDS}
NOT_TOLD = ("id", "_rowid")
LATER = {"take": ("slate_session",), "outing": ("pieces",)}
"""Columns that point at what comes later, or at numbers within."""

SAID = {
    "own_name": "name", "filed_name": "what it was filed as", "from_s": "the part that is judged",
    "to_s": "the part that is judged", "own_focal_eq_mm": "focal length", "brief_id": "brief",
    "setup_id": "set-up", "mark": "your mark", "subject": "the marked subject", "choice": "choice",
    "own_capture_fps": "rate at which it was filmed", "measurement": "its path",
    "setup_support": "supports", "session_take": "its takes", "outing_shot": "its shots",
    "shot_take": "takes of its shots", "used_take": "what became film", "spec": "its figures",
    "named_background": "the background that was named", "whose_motion": "whose motion it is",
    "motion_log": "its motion log", "slate_session": "its slate", "camera_id": "camera",
    "lens_id": "lens",
}  # fmt: skip
"""Columns and parts, where their names are no words."""

PASSED_OVER = {"setting": ("mended",)}


class Side:
    """All things of one library, read once; bytes as their digests."""

    def __init__(self, db: Connection) -> None:
        self.db = db
        self._rows: dict[str, dict[int, Row]] = {}
        for kind in KINDS:
            for table in (kind.table, *(part.table for part in kind.parts)):
                self._rows[table] = {row["_rowid"]: row for row in merging.rows(db, table)}
        self._rows["shot_take"] = {row["_rowid"]: row for row in merging.rows(db, "shot_take")}
        self._owned: dict[str, dict[int, list[Row]]] = {}
        for part in (SHOT_TAKES, *(part for kind in KINDS for part in kind.parts)):
            owned: dict[int, list[Row]] = defaultdict(list)
            for row in self._rows[part.table].values():
                if part.table != "job" or row["kind"] == "measure":
                    owned[row[part.owner]].append(row)
            self._owned[part.table] = owned
        self.keys: dict[str, dict[int, Key]] = {}
        """Of each table, the key of every thing by its number."""
        self.by_key: dict[str, dict[Key, Row]] = {}
        for kind in KINDS:
            self._find(kind)

    def rows(self, table: str) -> list[Row]:
        """Of a table, the oldest first."""
        return list(self._rows[table].values())

    def row(self, table: str, number: int) -> Row:
        """One row."""
        return self._rows[table][number]

    def owned(self, part: Part, number: int) -> list[Row]:
        """The rows that are part of a thing, the oldest first."""
        return self._owned[part.table][number]

    def name_of(self, kind: Kind, row: Row) -> str:
        """For people."""
        if kind.table == "take":
            return str(row["own_name"] or row["filed_name"] or row["file_name"])
        if kind.table == "clip":
            clip = next((one for one in self.rows("take") if one["clip_id"] == row["id"]), None)
            return str(row["file"]) if clip is None else self.name_of(BY_TABLE["take"], clip)
        return str(row.get("name") or row.get("key") or row.get("columns"))

    def told(self, kind: Kind, row: Row) -> dict[str, Any]:
        """A thing without its numbers."""
        skipped = (*NOT_TOLD, *kind.ignored, *kind.key, *LATER.get(kind.table, ()))
        found = {name: value for name, value in row.items() if name not in skipped}
        for name, table in kind.refs.items():
            if name in found:
                found[name] = self._pointed(table, row[name])
        if kind.table == "take":
            found["brief_id"] = self._brief_told(row["brief_id"])
            table, number = slated(row["slate_session"])
            found["slate_session"] = self._pointed(table, number)
        for part in kind.parts:
            if part.told:
                found[part.table] = [
                    self._part_told(part, one) for one in self.owned(part, row["_rowid"])
                ]
        if kind.table == "outing":
            shots = self.owned(kind.parts[0], row["id"])
            found["pieces"] = self.pieces_told(row)
            found["shot_take"] = [
                [self._part_told(SHOT_TAKES, one) for one in self.owned(SHOT_TAKES, shot["id"])]
                for shot in shots
            ]
        return found

    def pieces_told(self, row: Row) -> list[Row] | None:
        """An outing's pieces, which point at takes by key and at shots by place."""
        if row["pieces"] is None:
            return None
        outing = BY_TABLE["outing"]
        places = {one["id"]: k for k, one in enumerate(self.owned(outing.parts[0], row["id"]))}
        return [
            piece
            | {
                "take_id": self._pointed("take", piece.get("take_id")),
                "shot_id": places.get(piece.get("shot_id")),
            }
            for piece in json.loads(row["pieces"])
        ]

    def _part_told(self, part: Part, row: Row) -> Row:
        told = {name: value for name, value in row.items() if name not in (*NOT_TOLD, part.owner)}
        return told | {name: self._pointed(table, row[name]) for name, table in part.refs.items()}

    def _pointed(self, table: str, number: int | None) -> Any:
        return None if number is None else self.keys[table].get(number)

    def _brief_told(self, number: int | None) -> Any:
        """A named brief by its key; one of a take's own by all that it says."""
        if number is None or number in self.keys["brief"]:
            return self._pointed("brief", number)
        return self.told(BY_TABLE["brief"], self.row("brief", number))

    def _find(self, kind: Kind) -> None:
        counts: dict[Key, int] = defaultdict(int)
        keys: dict[int, Key] = {}
        by_key: dict[Key, Row] = {}
        for number, row in self._rows[kind.table].items():
            if kind.table == "brief" and row["name"] is None:
                continue
            if row.get("name") in PASSED_OVER.get(kind.table, ()):
                continue
            words = tuple(
                self.keys[kind.refs[name]].get(row[name]) if name in kind.refs else row[name]
                for name in kind.key
            )
            keys[number] = key = (*words, counts[words])
            counts[words] += 1
            by_key[key] = row
        self.keys[kind.table], self.by_key[kind.table] = keys, by_key


def parts_of(kind: Kind) -> tuple[Part, ...]:
    """All parts, also those of an outing's shots."""
    return (*kind.parts, SHOT_TAKES) if kind.table == "outing" else kind.parts


def held_by(side: Side, kind: Kind, part: Part, row: Row) -> list[Row]:
    """The rows of a part of a thing, the oldest first."""
    if part is not SHOT_TAKES:
        return side.owned(part, row["_rowid"])
    shots = side.owned(kind.parts[0], row["_rowid"])
    return [one for shot in shots for one in side.owned(SHOT_TAKES, shot["id"])]


def digest_of(told: Row) -> str:
    """By which a thing as it was told is known again."""
    text = json.dumps(told, sort_keys=True, default=lambda one: one.sha256)
    return hashlib.sha256(text.encode()).hexdigest()
