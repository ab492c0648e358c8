"""An archive that was brought in, taken back: what came goes again, what was replaced is as it was,
and what was changed or used since stays."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from ridgewind.library.library import Library
from ridgewind.services.errors import GoneError
from ridgewind.services.things import BY_TABLE, Kind, Side, digest_of, held_by, parts_of
from ridgewind.store import briefs, clips, database, merging, summaries, takes
from ridgewind.store.database import Connection
from ridgewind.store.merging import Row

NOTHING = ("There is no archive to take back.", "It was taken back, or came over a week ago.")


@dataclass(frozen=True)
class TakenBack:
    """went: things that are gone again. stays: those that came, and were changed or used since."""

    went: int
    stays: int


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
            changed = digest_of(self._side.told(kind, self._side.row(table, number))) != digest
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
        for part in reversed(parts_of(kind)):
            for one in held_by(self._side, kind, part, row):
                merging.remove(self._db, part.table, one["_rowid"])
        return merging.remove(self._db, kind.table, number)

    def _change_back(self, before: dict[str, Any]) -> None:
        table, number = before["table"], before["number"]
        kind = BY_TABLE[table]
        if merging.number_of(self._db, table, number) is None:
            return
        row = self._side.row(table, number)
        if digest_of(self._side.told(kind, row)) != before["after"]:
            self._stays += 1
            return
        for part in reversed(parts_of(kind)):
            if part.told:
                for one in held_by(self._side, kind, part, row):
                    merging.remove(self._db, part.table, one["_rowid"])
        values = merging.unpacked(before["row"])
        if "own_brief" in before:
            brief = merging.unpacked(before["own_brief"])
            brief.pop("id")
            values["brief_id"] = merging.insert(self._db, "brief", brief)
        merging.change(self._db, table, number, values)
        if table == "take":
            briefs.remove_own(self._db, row["brief_id"])
        for part in parts_of(kind):
            for one in before["parts"].get(part.table, []):
                merging.insert(self._db, part.table, merging.unpacked(one))
        if table == "take":
            summaries.mark_take_stale(self._db, number)
