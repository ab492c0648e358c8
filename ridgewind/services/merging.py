"""Another library's archive brought into one that is in use: what is not here comes, what is the
same stays, what differs is asked; all of it or nothing, and undone for a week."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

from ridgewind.core.practice.slate import OUTINGS_FROM
from ridgewind.library.library import Library
from ridgewind.library.tidying import take_over
from ridgewind.services import restoring
from ridgewind.services.things import (
    BY_TABLE,
    KINDS,
    LATER,
    SAID,
    SHOT_TAKES,
    Kind,
    Part,
    Side,
    digest_of,
    held_by,
    parts_of,
    slated,
)
from ridgewind.store import briefs, clips, database, merging, summaries, takes
from ridgewind.store.database import Connection
from ridgewind.store.merging import Row

Choice = Literal["ours", "theirs"]
Progress = Callable[[float], None]


@dataclass(frozen=True)
class Difference:
    """A thing that both libraries have, and not alike. words: its kind; name: its own; what: in
    which the two differ, in words."""

    number: int
    words: str
    name: str
    what: tuple[str, ...]


@dataclass(frozen=True)
class Came:
    """What a merge did. came: how many of each kind; same: things that were here already, alike.
    replaced: things of which the archive's was taken."""

    came: dict[str, int]
    same: int
    kept: int
    replaced: int
    merge_id: int


@dataclass(frozen=True)
class _Pair:
    kind: Kind
    theirs: Row
    ours: Row


def merge(
    file: Path,
    library: Library,
    *,
    choose: Callable[[list[Difference]], list[Choice]],
    on_progress: Progress = lambda _done: None,
) -> Came:
    """Bring an archive into a library that nobody else has open. choose: given all that differs,
    says which of the two is kept; may raise to stop, and then nothing was changed.

    Raises ArchiveError, StorageError, OSError.
    """
    library.prepare()
    take_over(library)  # what an earlier one, that was killed, has left
    try:
        with database.opened(library.database) as db:
            held = {name for name in clips.originals(db) if library.original(name).is_file()}
        restoring.restore(file, library.merging, on_progress=on_progress, leave_out=held)
        theirs = Library(library.merging).database
        with database.opened(theirs) as their_db, database.opened(library.database) as db:
            return _merged(their_db, library, db, choose, file.name)
    finally:
        take_over(library)


def _merged(
    their_db: Connection,
    library: Library,
    db: Connection,
    choose: Callable[[list[Difference]], list[Choice]],
    source: str,
) -> Came:
    theirs, ours = Side(their_db), Side(db)
    wanted, pairs, same = _compared(theirs, ours)
    told = [_difference(number, pair, theirs, ours) for number, pair in enumerate(pairs)]
    chosen = choose(told) if told else []
    taken = [pair for pair, choice in zip(pairs, chosen, strict=True) if choice == "theirs"]
    apply = _Apply(theirs, ours, db)
    with database.atomic(db):
        for kind, row in wanted:
            apply.add(kind, row)
        for pair in taken:
            apply.replace(pair)
        apply.point()
        merge_id = merging.keep(db, source, json.dumps(apply.record(db)))
    take_over(library)
    came = Counter(kind.words for kind, _ in wanted)
    return Came(dict(came), same, len(pairs) - len(taken), len(taken), merge_id)


def _compared(theirs: Side, ours: Side) -> tuple[list[tuple[Kind, Row]], list[_Pair], int]:
    """What comes, what differs, and how much is the same."""
    wanted: list[tuple[Kind, Row]] = []
    pairs: list[_Pair] = []
    same = 0
    living = {row["clip_id"] for row in theirs.rows("take") if row["deleted_at"] is None}
    for kind in KINDS:
        for key, row in theirs.by_key[kind.table].items():
            if kind.table == "take" and row["deleted_at"] is not None:
                continue
            if kind.table == "clip" and row["id"] not in living:
                continue
            mine = ours.by_key[kind.table].get(key)
            if mine is None:
                wanted.append((kind, row))
            elif row.get("typical_key") or _alike(theirs.told(kind, row), ours.told(kind, mine)):
                same += 1  # typical entries are the program's, not the shooter's
            else:
                pairs.append(_Pair(kind, row, mine))
    return wanted, pairs, same


def _alike(one: Row, other: Row) -> bool:
    return not _unlike(one, other)


def _unlike(one: Row, other: Row) -> tuple[str, ...]:
    return tuple(name for name in one if one[name] != other.get(name))


def _difference(number: int, pair: _Pair, theirs: Side, ours: Side) -> Difference:
    what = _unlike(theirs.told(pair.kind, pair.theirs), ours.told(pair.kind, pair.ours))
    said = dict.fromkeys(SAID.get(name, name.replace("_", " ")) for name in what)
    return Difference(number, pair.kind.words, ours.name_of(pair.kind, pair.ours), tuple(said))


class _Apply:
    """Writes one library's things into another, and notes what it wrote."""

    def __init__(self, theirs: Side, ours: Side, db: Connection) -> None:
        self._theirs, self._ours, self._db = theirs, ours, db
        self._numbers: dict[str, dict[int, int]] = {}
        for kind in KINDS:
            mine = ours.by_key[kind.table]
            self._numbers[kind.table] = {
                number: mine[key]["_rowid"]
                for number, key in theirs.keys[kind.table].items()
                if key in mine
            }
        self._shots: dict[int, int] = {}
        self._written: list[tuple[Kind, Row]] = []
        self._came: list[tuple[str, int]] = []
        self._before: list[dict[str, Any]] = []
        self._alone = {
            part.table: {
                row[part.alone] for row in ours.rows(part.table) if row[part.alone] is not None
            }
            for part in (SHOT_TAKES, *(part for kind in KINDS for part in kind.parts))
            if part.alone is not None
        }

    def add(self, kind: Kind, row: Row) -> None:
        """A thing that is not here."""
        number = merging.insert(self._db, kind.table, self._values(kind, row))
        self._numbers[kind.table][row["_rowid"]] = number
        self._came.append((kind.table, number))
        self._add_parts(kind, row, number)
        self._written.append((kind, row))

    def replace(self, pair: _Pair) -> None:
        """A thing that is here otherwise becomes the archive's."""
        kind, number = pair.kind, pair.ours["_rowid"]
        before: dict[str, Any] = {
            "table": kind.table, "number": number,
            "row": merging.packed(merging.whole(self._db, kind.table, pair.ours)), "parts": {},
        }  # fmt: skip
        for part in parts_of(kind):
            if not part.told:
                continue
            held = self._held(kind, part, pair.ours)
            before["parts"][part.table] = [
                merging.packed(merging.whole(self._db, part.table, row)) for row in held
            ]
        for part in reversed(parts_of(kind)):
            if part.told:
                for row in self._held(kind, part, pair.ours):
                    merging.remove(self._db, part.table, row["_rowid"])
                    if part.alone is not None:
                        self._alone[part.table].discard(row[part.alone])
        if kind.table == "take" and pair.ours["brief_id"] not in self._ours.keys["brief"]:
            brief = merging.whole(self._db, "brief", self._ours.row("brief", pair.ours["brief_id"]))
            before["own_brief"] = merging.packed(brief)
        values = self._values(kind, pair.theirs)
        for name in ("file", "cleared_at", "deleted_at"):
            values.pop(name, None)
        merging.change(self._db, kind.table, number, values)
        if "own_brief" in before:
            briefs.remove_own(self._db, pair.ours["brief_id"])
        self._add_parts(kind, pair.theirs, number, told_alone=True)
        self._before.append(before)
        self._written.append((kind, pair.theirs))
        if kind.table == "take":
            summaries.mark_take_stale(self._db, number)
        elif kind.table == "clip":
            for take in takes.of_clip(self._db, number):
                summaries.mark_take_stale(self._db, take.id)

    def point(self) -> None:
        """Write what points at things that came later than it."""
        for kind, row in self._written:
            number = self._numbers[kind.table][row["_rowid"]]
            if kind.table == "take" and row["slate_session"] is not None:
                table, told = slated(row["slate_session"])
                named = self._numbers[table].get(told or 0)
                if named is not None and table == "outing":
                    named += OUTINGS_FROM
                merging.change(self._db, "take", number, {"slate_session": named})
            elif kind.table == "outing" and row["pieces"] is not None:
                pieces = [
                    piece
                    | {
                        "take_id": self._numbers["take"].get(piece.get("take_id")),
                        "shot_id": self._shots.get(piece.get("shot_id")),
                    }
                    for piece in json.loads(row["pieces"])
                ]
                merging.change(self._db, "outing", number, {"pieces": json.dumps(pieces)})

    def record(self, db: Connection) -> dict[str, Any]:
        """What an undo needs: what came, as it came, and what was before."""
        now = Side(db)
        came = [
            [table, number, digest_of(now.told(BY_TABLE[table], now.row(table, number)))]
            for table, number in self._came
        ]
        for before in self._before:
            row = now.row(before["table"], before["number"])
            before["after"] = digest_of(now.told(BY_TABLE[before["table"]], row))
        return {"came": came, "before": self._before}

    def _values(self, kind: Kind, row: Row) -> Row:
        """A row in our numbers."""
        values = merging.whole(self._theirs.db, kind.table, row)
        if "id" in values:
            del values["id"]
        for name, table in kind.refs.items():
            if values[name] is not None:
                values[name] = self._numbers[table].get(values[name])
        for name in LATER.get(kind.table, ()):
            values[name] = None
        if kind.table == "take":
            values["brief_id"] = self._brief(row["brief_id"])
        if kind.table == "clip":
            values["cleared_at"] = None
        return values

    def _brief(self, number: int | None) -> int | None:
        """A named brief, or a take's own, which comes with it."""
        if number is None or number in self._theirs.keys["brief"]:
            return None if number is None else self._numbers["brief"][number]
        kind = BY_TABLE["brief"]
        return merging.insert(
            self._db, "brief", self._values(kind, self._theirs.row("brief", number))
        )

    def _add_parts(self, kind: Kind, row: Row, number: int, *, told_alone: bool = False) -> None:
        for part in parts_of(kind):
            if told_alone and not part.told:
                continue
            for one in self._held_by_theirs(kind, part, row):
                self._add_part(part, one, number)

    def _add_part(self, part: Part, one: Row, number: int) -> None:
        values = merging.whole(self._theirs.db, part.table, one)
        theirs_id = values.pop("id", None)
        for name, table in part.refs.items():
            if values[name] is None:
                continue
            values[name] = self._numbers[table].get(values[name])
            if part.alone == name and values[name] in self._alone[part.table]:
                values[name] = None  # it is filed elsewhere here
            if values[name] is None and part.table != "session_take":
                return  # what it is about does not come
        values[part.owner] = self._shots[one["shot_id"]] if part is SHOT_TAKES else number
        if part.table == "job":
            values["lease"] = None
            if values["state"] in ("queued", "running"):
                values |= {"state": "queued", "progress": None, "cancel_requested": 0}
        made = merging.insert(self._db, part.table, values)
        if part.alone is not None and values[part.alone] is not None:
            self._alone[part.table].add(values[part.alone])
        if part.table == "outing_shot" and theirs_id is not None:
            self._shots[theirs_id] = made

    def _held(self, kind: Kind, part: Part, row: Row) -> list[Row]:
        return held_by(self._ours, kind, part, row)

    def _held_by_theirs(self, kind: Kind, part: Part, row: Row) -> list[Row]:
        return held_by(self._theirs, kind, part, row)
