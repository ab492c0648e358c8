"""Outings, their shots in the order on screen, and which takes meet them."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.sequence.piece import Piece
from ridgewind.core.sequence.shot import PlannedShot
from ridgewind.store.as_json import AsJson
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError

_SHOT = AsJson(PlannedShot)
_PIECES = AsJson(tuple[Piece, ...])
ShotState = Literal["open", "got", "impossible"]


@dataclass(frozen=True)
class OutingRow:
    """day: a date, "" where none was said. waved: keys of what was waved away. shape: of its
    sequence, None for as its brief delivers. beats_per_min: of the music, None for none."""

    id: int
    name: str
    made_at: str
    place: str
    day: str
    light: str
    brief_id: int | None
    setup_id: int | None
    waved: tuple[str, ...]
    archived: bool
    shape: str | None = None
    beats_per_min: float | None = None


@dataclass(frozen=True)
class OutingFacts:
    """What is said of an outing."""

    name: str
    place: str = ""
    day: str = ""
    light: str = ""
    brief_id: int | None = None
    setup_id: int | None = None


@dataclass(frozen=True)
class ShotRow:
    """got: how many takes of it were got. changed_at: when that was last said."""

    id: int
    outing_id: int
    shot: PlannedShot
    state: ShotState
    got: int
    note: str
    changed_at: str | None


@dataclass(frozen=True)
class OutingLine:
    """shots: how many are planned; open: of them, how many are still to be filmed."""

    row: OutingRow
    shots: int
    open: int


def add(db: sqlite3.Connection, facts: OutingFacts) -> int:
    """Keep an outing; returns its id."""
    cursor = db.execute(
        "insert into outing (name, made_at, place, day, light, brief_id, setup_id)"
        f" values (?, {NOW}, ?, ?, ?, ?, ?)",
        _values(facts),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def change(db: sqlite3.Connection, outing_id: int, facts: OutingFacts) -> None:
    """Keep other facts. Raises NotFoundError."""
    by_id(db, outing_id)
    db.execute(
        "update outing set name = ?, place = ?, day = ?, light = ?, brief_id = ?, setup_id = ?"
        " where id = ?",
        (*_values(facts), outing_id),
    )


def _values(facts: OutingFacts) -> tuple[str | int | None, ...]:
    return (
        facts.name, facts.place, facts.day or None, facts.light, facts.brief_id, facts.setup_id,
    )  # fmt: skip


def set_archived(db: sqlite3.Connection, outing_id: int, *, archived: bool) -> None:
    """Put an outing away, or bring it back. Raises NotFoundError."""
    by_id(db, outing_id)
    stamp = NOW if archived else "null"
    db.execute(f"update outing set archived_at = {stamp} where id = ?", (outing_id,))


def wave(db: sqlite3.Connection, outing_id: int, keys: Sequence[str]) -> None:
    """Keep which of what is missing does not matter. Raises NotFoundError."""
    by_id(db, outing_id)
    db.execute("update outing set waved = ? where id = ?", (json.dumps(list(keys)), outing_id))


def by_id(db: sqlite3.Connection, outing_id: int) -> OutingRow:
    row = db.execute("select * from outing where id = ?", (outing_id,)).fetchone()
    if row is None:
        raise NotFoundError("outing", outing_id)
    return _outing(row)


_MEETING = (
    "(select count(*) from shot_take as met join take on take.id = met.take_id"
    " where met.shot_id = outing_shot.id and take.deleted_at is null)"
)
"""How many takes meet a shot; deleted ones do not."""

_WANTED = "coalesce(json_extract(outing_shot.spec, '$.takes'), 1)"

_STATE = (
    "case when state = 'got'"
    " and exists (select 1 from shot_take where shot_id = outing_shot.id and made_got)"
    f" and {_MEETING} < {_WANTED} then 'open' else state end"
)
"""A shot that was got by filing alone is open while fewer takes meet it than it wants."""


def lines(db: sqlite3.Connection) -> list[OutingLine]:
    """Outings that are not put away, the newest first."""
    rows = db.execute(
        "select outing.*, count(outing_shot.id) as shots,"
        f" coalesce(sum(({_STATE}) = 'open'), 0) as open"
        " from outing left join outing_shot"
        "  on outing_shot.outing_id = outing.id and outing_shot.position is not null"
        " where archived_at is null group by outing.id order by outing.id desc"
    )
    return [OutingLine(_outing(row), row["shots"], row["open"]) for row in rows]


def _outing(row: sqlite3.Row) -> OutingRow:
    return OutingRow(
        id=row["id"], name=row["name"], made_at=row["made_at"], place=row["place"],
        day=row["day"] or "", light=row["light"], brief_id=row["brief_id"],
        setup_id=row["setup_id"], waved=tuple(json.loads(row["waved"])),
        archived=row["archived_at"] is not None, shape=row["shape"],
        beats_per_min=row["beats_per_min"],
    )  # fmt: skip


def shots(db: sqlite3.Connection, outing_id: int) -> list[ShotRow]:
    """Shots of an outing in the order on screen, without those taken out."""
    rows = db.execute(
        f"select *, {_STATE} as state_now from outing_shot"
        " where outing_id = ? and position is not null order by position",
        (outing_id,),
    )
    return [_shot(row) for row in rows]


def first_shots(db: sqlite3.Connection, *, most: int) -> dict[int, list[ShotRow]]:
    """So many shots at the most, from the first on, of each outing that is not put away and has
    any, by its id."""
    rows = db.execute(
        f"select outing_shot.*, {_STATE} as state_now from outing_shot"
        " join outing on outing.id = outing_id"
        " where archived_at is null and position is not null and position < ?"
        " order by outing_id, position",
        (most,),
    )
    found: dict[int, list[ShotRow]] = {}
    for row in rows:
        found.setdefault(row["outing_id"], []).append(_shot(row))
    return found


def numbers(db: sqlite3.Connection, outing_id: int) -> dict[int, int]:
    """The number of each shot of an outing, taken out or not, by which its slate names it."""
    rows = db.execute("select id from outing_shot where outing_id = ? order by id", (outing_id,))
    return {row["id"]: number for number, row in enumerate(rows)}


def shot_by_id(db: sqlite3.Connection, shot_id: int) -> ShotRow:
    ask = f"select *, {_STATE} as state_now from outing_shot where id = ?"
    row = db.execute(ask, (shot_id,)).fetchone()
    if row is None:
        raise NotFoundError("shot", shot_id)
    return _shot(row)


def add_shots(db: sqlite3.Connection, outing_id: int, added: Sequence[PlannedShot]) -> list[int]:
    """Put shots at the end of an outing; returns their ids. Raises NotFoundError."""
    by_id(db, outing_id)
    first = len(shots(db, outing_id))
    ids = []
    for position, shot in enumerate(added, start=first):
        cursor = db.execute(
            "insert into outing_shot (outing_id, position, spec) values (?, ?, ?)",
            (outing_id, position, _SHOT.text(shot)),
        )
        assert cursor.lastrowid is not None
        ids.append(cursor.lastrowid)
    return ids


def change_shot(db: sqlite3.Connection, shot_id: int, shot: PlannedShot) -> None:
    """Plan a shot otherwise. Raises NotFoundError."""
    shot_by_id(db, shot_id)
    text = _SHOT.text(shot)
    db.execute("update outing_shot set spec = ? where id = ?", (text, shot_id))


def note_shot(
    db: sqlite3.Connection,
    shot_id: int,
    *,
    state: ShotState | None = None,
    got: int | None = None,
    note: str | None = None,
) -> None:
    """Keep what became of a shot, as it was said; None leaves a thing as it is. Raises
    NotFoundError."""
    shot_by_id(db, shot_id)
    if state is not None:
        db.execute("update shot_take set made_got = 0 where shot_id = ?", (shot_id,))
    db.execute(
        "update outing_shot set state = coalesce(?, state), got = coalesce(?, got),"
        f" note = coalesce(?, note), changed_at = {NOW} where id = ?",
        (state, got, note, shot_id),
    )


def put_order(db: sqlite3.Connection, outing_id: int, ids: Sequence[int]) -> None:
    """Let an outing show these shots in this order; others of it are taken out."""
    db.execute("update outing_shot set position = null where outing_id = ?", (outing_id,))
    db.executemany(
        "update outing_shot set position = ? where id = ? and outing_id = ?",
        [(position, shot_id, outing_id) for position, shot_id in enumerate(ids)],
    )


def _shot(row: sqlite3.Row) -> ShotRow:
    lost = row["state_now"] != row["state"]
    return ShotRow(
        id=row["id"], outing_id=row["outing_id"], shot=_SHOT.read(row["spec"]),
        state=row["state_now"], got=0 if lost else row["got"], note=row["note"],
        changed_at=row["changed_at"],
    )  # fmt: skip


def pieces(db: sqlite3.Connection, outing_id: int) -> tuple[Piece, ...] | None:
    """The pieces of an outing's sequence, None where none were kept. Raises NotFoundError."""
    by_id(db, outing_id)
    row = db.execute("select pieces from outing where id = ?", (outing_id,)).fetchone()
    return None if row["pieces"] is None else _PIECES.read(row["pieces"])


def put_pieces(db: sqlite3.Connection, outing_id: int, kept: Sequence[Piece] | None) -> None:
    """Keep the pieces of an outing's sequence; None lets its shots propose them again."""
    text = None if kept is None else _PIECES.text(tuple(kept))
    db.execute("update outing set pieces = ? where id = ?", (text, outing_id))


def put_look(
    db: sqlite3.Connection, outing_id: int, *, shape: str | None, beats_per_min: float | None
) -> None:
    """Keep how an outing's sequence is shown. Raises NotFoundError."""
    by_id(db, outing_id)
    db.execute(
        "update outing set shape = ?, beats_per_min = ? where id = ?",
        (shape, beats_per_min, outing_id),
    )


@dataclass(frozen=True)
class MetRow:
    """A take that meets a shot. how: slate, clock, order, motion or hand."""

    take_id: int
    shot_id: int
    how: str


def met(db: sqlite3.Connection, outing_id: int) -> list[MetRow]:
    """Takes that meet an outing's shots, deleted ones left out."""
    rows = db.execute(
        "select shot_take.* from shot_take join outing_shot on outing_shot.id = shot_take.shot_id"
        " join take on take.id = shot_take.take_id"
        " where outing_id = ? and deleted_at is null order by shot_take.take_id",
        (outing_id,),
    )
    return [MetRow(row["take_id"], row["shot_id"], row["how"]) for row in rows]


def met_anywhere(db: sqlite3.Connection) -> frozenset[int]:
    """Takes that meet a shot of any outing."""
    return frozenset(row["take_id"] for row in db.execute("select take_id from shot_take"))


def meet(db: sqlite3.Connection, take_id: int, shot_id: int | None, *, how: str) -> None:
    """Let a take meet a shot, or none. A shot is got once as many meet it as it wants."""
    unmeet(db, take_id)
    if shot_id is None:
        return
    db.execute(
        "insert into shot_take (take_id, shot_id, how, made_got) values (?, ?, ?, 0)",
        (take_id, shot_id, how),
    )
    row = db.execute(
        f"select {_STATE} != 'got' and {_MEETING} >= {_WANTED} as is_enough from outing_shot"
        " where id = ?", (shot_id,),
    ).fetchone()  # fmt: skip
    if row is not None and row["is_enough"]:
        db.execute("update shot_take set made_got = 1 where shot_id = ?", (shot_id,))
    db.execute(
        f"update outing_shot set state = iif({_MEETING} >= {_WANTED}, 'got', state),"
        f" changed_at = {NOW}, got = max(got, {_MEETING}) where id = ?",
        (shot_id,),
    )


def unmeet(db: sqlite3.Connection, take_id: int) -> None:
    """Let a take meet no shot any more. A shot that was got by that alone is open again."""
    row = db.execute("delete from shot_take where take_id = ? returning *", (take_id,)).fetchone()
    if row is None or not row["made_got"]:
        return
    shot_id = row["shot_id"]
    fewer = db.execute(
        f"update outing_shot set state = 'open', got = {_MEETING}"
        f" where id = ? and state = 'got' and {_MEETING} < {_WANTED} returning id",
        (shot_id,),
    ).fetchall()
    # Those that are left have made it got, or no longer do.
    db.execute("update shot_take set made_got = ? where shot_id = ?", (not fewer, shot_id))
