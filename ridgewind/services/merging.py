"""Another library's archive brought into one that is in use: what is not here comes, what is the
same stays, what differs is asked; all of it or nothing, and undone for a week."""

from __future__ import annotations

import base64
import hashlib
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
from ridgewind.services.errors import GoneError
from ridgewind.services.things import (
    BY_TABLE,
    KINDS,
    LATER,
    SAID,
    SHOT_TAKES,
    Kind,
    Part,
    Side,
    slated,
)
from ridgewind.store import briefs, clips, database, merging, summaries, takes
from ridgewind.store.database import Connection
from ridgewind.store.merging import Row

Choice = Literal["ours", "theirs"]
Progress = Callable[[float], None]

NOTHING = ("There is no archive to take back.", "It was taken back, or came over a week ago.")


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
class TakenBack:
    """went: things that are gone again. stays: those that came, and were changed or used since."""

    went: int
    stays: int


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


def latest(db: Connection) -> merging.MergeRow | None:
    """What can be taken back, None where there is nothing."""
    return merging.newest(db)


def take_back(library: Library, db: Connection) -> TakenBack:
    """Undo the last merge. What was changed or used since it came stays. Raises GoneError."""
    kept = merging.newest(db)
    if kept is None:
        raise GoneError(*NOTHING)
    record = json.loads(kept.record)
    with database.atomic(db):
        made, films = _Undo(db, record).run()
        merging.drop(db, kept.id)
    for file in films:
        sha256 = file.partition(".")[0]
        copies = (library.copy_of(sha256), library.still_of(sha256))
        for path in (*copies, *library.places_of(file)):
            path.unlink(missing_ok=True)
    return made


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
            "row": _packed(merging.whole(self._db, kind.table, pair.ours)), "parts": {},
        }  # fmt: skip
        for part in _parts_of(kind):
            if not part.told:
                continue
            held = self._held(kind, part, pair.ours)
            before["parts"][part.table] = [
                _packed(merging.whole(self._db, part.table, row)) for row in held
            ]
        for part in reversed(_parts_of(kind)):
            if part.told:
                for row in self._held(kind, part, pair.ours):
                    merging.remove(self._db, part.table, row["_rowid"])
                    if part.alone is not None:
                        self._alone[part.table].discard(row[part.alone])
        if kind.table == "take" and pair.ours["brief_id"] not in self._ours.keys["brief"]:
            brief = merging.whole(self._db, "brief", self._ours.row("brief", pair.ours["brief_id"]))
            before["own_brief"] = _packed(brief)
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
            [table, number, _digest(now.told(BY_TABLE[table], now.row(table, number)))]
            for table, number in self._came
        ]
        for before in self._before:
            row = now.row(before["table"], before["number"])
            before["after"] = _digest(now.told(BY_TABLE[before["table"]], row))
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
        for part in _parts_of(kind):
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
        return _held_by(self._ours, kind, part, row)

    def _held_by_theirs(self, kind: Kind, part: Part, row: Row) -> list[Row]:
        return _held_by(self._theirs, kind, part, row)


def _parts_of(kind: Kind) -> tuple[Part, ...]:
    return (*kind.parts, SHOT_TAKES) if kind.table == "outing" else kind.parts


def _held_by(side: Side, kind: Kind, part: Part, row: Row) -> list[Row]:
    if part is not SHOT_TAKES:
        return side.owned(part, row["_rowid"])
    shots = side.owned(kind.parts[0], row["_rowid"])
    return [one for shot in shots for one in side.owned(SHOT_TAKES, shot["id"])]


class _Undo:
    """Takes back what a record says, but for what was changed or used since."""

    def __init__(self, db: Connection, record: dict[str, Any]) -> None:
        self._db, self._record = db, record
        self._side = Side(db)
        self._stays = 0

    def run(self) -> tuple[TakenBack, list[str]]:
        """Returns what went, and the files of the films that did."""
        for before in reversed(self._record["before"]):
            self._change_back(before)
        went, films = 0, []
        came = {(table, number) for table, number, _ in self._record["came"]}
        for table, number, digest in reversed(self._record["came"]):
            kind = BY_TABLE[table]
            row = merging.number_of(self._db, table, number)
            if row is None:
                continue
            changed = _digest(self._side.told(kind, self._side.row(table, number))) != digest
            if changed or self._used(table, number, came) or not self._remove(kind, row):
                self._stays += 1
                continue
            went += 1
            if table == "clip":
                films.append(row["file"])
        return TakenBack(went, self._stays), films

    def _used(self, table: str, number: int, came: set[tuple[str, int]]) -> bool:
        """Whether something that did not come with it points at a take."""
        if table != "take":
            return False
        sessions = {one["session_id"] for one in self._of_take("session_take", number)}
        outings = {one["outing_id"] for one in self._of_take("used_take", number)}
        shots = {one["shot_id"] for one in self._of_take("shot_take", number)}
        outings |= {self._side.row("outing_shot", shot)["outing_id"] for shot in shots}
        owners = {("session", one) for one in sessions} | {("outing", one) for one in outings}
        still = {one for one in owners if merging.number_of(self._db, *one) is not None}
        return bool(still) or bool(owners - came)

    def _of_take(self, table: str, number: int) -> list[Row]:
        return [row for row in self._side.rows(table) if row["take_id"] == number]

    def _remove(self, kind: Kind, row: Row) -> bool:
        number = row["_rowid"]
        if kind.table == "take":
            takes.remove(self._db, number)
            return True
        if kind.table == "clip":
            if takes.of_clip(self._db, number):
                return False
            clips.remove(self._db, number)
            return True
        for part in reversed(_parts_of(kind)):
            for one in _held_by(self._side, kind, part, row):
                merging.remove(self._db, part.table, one["_rowid"])
        return merging.remove(self._db, kind.table, number)

    def _change_back(self, before: dict[str, Any]) -> None:
        table, number = before["table"], before["number"]
        kind = BY_TABLE[table]
        if merging.number_of(self._db, table, number) is None:
            return
        row = self._side.row(table, number)
        if _digest(self._side.told(kind, row)) != before["after"]:
            self._stays += 1
            return
        for part in reversed(_parts_of(kind)):
            if part.told:
                for one in _held_by(self._side, kind, part, row):
                    merging.remove(self._db, part.table, one["_rowid"])
        values = _unpacked(before["row"])
        if "own_brief" in before:
            brief = _unpacked(before["own_brief"])
            brief.pop("id")
            values["brief_id"] = merging.insert(self._db, "brief", brief)
        merging.change(self._db, table, number, values)
        if table == "take":
            briefs.remove_own(self._db, row["brief_id"])
        for part in _parts_of(kind):
            for one in before["parts"].get(part.table, []):
                merging.insert(self._db, part.table, _unpacked(one))
        if table == "take":
            summaries.mark_take_stale(self._db, number)


def _digest(told: Row) -> str:
    text = json.dumps(told, sort_keys=True, default=lambda one: one.sha256)
    return hashlib.sha256(text.encode()).hexdigest()


def _packed(row: Row) -> Row:
    return {
        name: {"base64": base64.b64encode(value).decode()} if isinstance(value, bytes) else value
        for name, value in row.items()
    }


def _unpacked(row: Row) -> Row:
    return {
        name: base64.b64decode(value["base64"]) if isinstance(value, dict) else value
        for name, value in row.items()
    }
