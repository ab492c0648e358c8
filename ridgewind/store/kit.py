"""The kit: cameras, lenses and supports, and the set-ups that combine them.

What a thing is like is kept as JSON of the core's dataclass: it is read whole, and SQL never
asks about its inside. Nothing is ever deleted, since past takes refer to it.
"""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass, replace
from typing import Any, Literal

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit.bench import Bench, Parts
from ridgewind.core.kit.items import Camera, Lens, Optics, Support
from ridgewind.core.kit.optics import set_up_focal_eq_mm
from ridgewind.core.units import UNKNOWN_FOCAL_EQ_MM
from ridgewind.store import summaries
from ridgewind.store.as_json import AsJson
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError, TypicalError

ItemKind = Literal["camera", "lens", "support"]
Spec = Camera | Lens | Support

_SPECS: dict[str, AsJson[Any]] = {
    "camera": AsJson(Camera),
    "lens": AsJson(Lens),
    "support": AsJson(Support),
}
_OPTICS = AsJson(Optics)
_BENCH = AsJson(Bench)


@dataclass(frozen=True)
class ItemRow:
    """setups: names of the set-ups that use it, archived ones left out."""

    id: int
    kind: ItemKind
    name: str
    spec: Spec
    typical: bool
    archived: bool
    setups: tuple[str, ...]


@dataclass(frozen=True)
class SetupAsk:
    """What a set-up is made of, before it is stored."""

    name: str
    camera_id: int
    lens_id: int
    support_ids: tuple[int, ...]
    optics: Optics
    bench: Bench


@dataclass(frozen=True)
class SetupRow:
    """takes: how many were filmed with it, deleted ones left out."""

    id: int
    ask: SetupAsk
    focal_eq_mm: float
    typical: bool
    archived: bool
    takes: int


def kind_of(spec: Spec) -> ItemKind:
    if isinstance(spec, Camera):
        return "camera"
    return "lens" if isinstance(spec, Lens) else "support"


def add_item(db: sqlite3.Connection, spec: Spec, *, name: str, key: str | None = None) -> int:
    """Record a camera, lens or support; returns its id."""
    kind = kind_of(spec)
    cursor = db.execute(
        "insert into kit_item (kind, name, spec, typical_key) values (?, ?, ?, ?)",
        (kind, name, _SPECS[kind].text(spec), key),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def put_typical(db: sqlite3.Connection, spec: Spec, *, name: str, key: str) -> int:
    """Record a typical entry, or bring the one of this key up to date; returns its id."""
    row = db.execute("select id from kit_item where typical_key = ?", (key,)).fetchone()
    if row is None:
        return add_item(db, spec, name=name, key=key)
    before = item(db, row["id"])
    if (before.name, before.spec) != (name, spec):
        _put(db, before, spec, name=name)
    return before.id


def typical_ids(db: sqlite3.Connection) -> dict[str, int]:
    """Ids of the typical items by their keys."""
    rows = db.execute("select typical_key, id from kit_item where typical_key is not null")
    return {row["typical_key"]: row["id"] for row in rows}


def item(db: sqlite3.Connection, item_id: int, kind: ItemKind | None = None) -> ItemRow:
    """One item; of another kind counts as missing."""
    row = db.execute("select * from kit_item where id = ?", (item_id,)).fetchone()
    if row is None or kind not in (None, row["kind"]):
        raise NotFoundError(kind or "item", item_id)
    return _item(row, _uses(db, item_id))


def items(db: sqlite3.Connection) -> list[ItemRow]:
    """All items: the shooter's own first, archived ones at the end."""
    rows = db.execute(
        "select * from kit_item order by archived_at is not null, typical_key is not null, id"
    ).fetchall()
    return [_item(row, _uses(db, row["id"])) for row in rows]


def change_item(db: sqlite3.Connection, item_id: int, spec: Spec, *, name: str) -> list[int]:
    """Overwrite an item, and what is derived from it; returns the set-ups that use it.

    Set-ups follow a camera's mode by its name, wherever it stands in the list. Raises
    TypicalError for one that ships, and InvalidArgumentError where a set-up that uses it could
    no longer be.
    """
    row = item(db, item_id, kind_of(spec))
    if row.typical:
        raise TypicalError(row.kind, item_id)
    return _put(db, row, spec, name=name)


def _put(db: sqlite3.Connection, before: ItemRow, spec: Spec, *, name: str) -> list[int]:
    """Overwrite an item; the set-ups that use it follow, and the takes filmed with them are to be
    judged again."""
    db.execute(
        "update kit_item set name = ?, spec = ? where id = ?",
        (name, _SPECS[before.kind].text(spec), before.id),
    )
    using = db.execute(
        "select id from setup where camera_id = ? or lens_id = ? order by id",
        (before.id, before.id),
    ).fetchall()
    for setup in using:
        ask = setup_by_id(db, setup["id"]).ask
        if isinstance(before.spec, Camera) and isinstance(spec, Camera):
            ask = replace(ask, optics=_same_mode(ask, before.spec, spec))
        db.execute(
            "update setup set focal_eq_mm = ?, optics = ? where id = ?",
            (_focal(db, ask), _OPTICS.text(ask.optics), setup["id"]),
        )
        summaries.mark_setup_stale(db, setup["id"])
    return [setup["id"] for setup in using]


def _same_mode(ask: SetupAsk, before: Camera, after: Camera) -> Optics:
    """A set-up's optics with its mode found again by name after the camera was changed."""
    name = before.modes[ask.optics.mode].name
    for index, mode in enumerate(after.modes):
        if mode.name == name:
            return replace(ask.optics, mode=index)
    if len(after.modes) == len(before.modes):
        return ask.optics  # it was renamed in its place
    rule = f"the set-up “{ask.name}” records in the mode “{name}”"
    raise InvalidArgumentError("modes", name, rule)


def set_item_archived(db: sqlite3.Connection, item_id: int, *, archived: bool) -> None:
    item(db, item_id)
    db.execute(
        f"update kit_item set archived_at = {NOW if archived else 'null'} where id = ?", (item_id,)
    )


def parts_of(db: sqlite3.Connection, ask: SetupAsk) -> Parts:
    """The specs that a set-up combines. Raises NotFoundError."""
    camera = item(db, ask.camera_id, "camera").spec
    lens = item(db, ask.lens_id, "lens").spec
    assert isinstance(camera, Camera)
    assert isinstance(lens, Lens)
    supports = []
    for support_id in ask.support_ids:
        found = item(db, support_id, "support")
        assert isinstance(found.spec, Support)
        supports.append((found.id, found.name, found.spec))
    return Parts(camera, lens, ask.optics, tuple(supports))


def add_setup(db: sqlite3.Connection, ask: SetupAsk, *, key: str | None = None) -> int:
    """Record a set-up; returns its id. Raises InvalidArgumentError where it cannot be."""
    focal = _focal(db, ask)
    cursor = db.execute(
        "insert into setup (name, camera_id, lens_id, optics, bench, focal_eq_mm, typical_key)"
        " values (?, ?, ?, ?, ?, ?, ?)",
        (ask.name, ask.camera_id, ask.lens_id, _OPTICS.text(ask.optics),
         _BENCH.text(ask.bench), focal, key),
    )  # fmt: skip
    assert cursor.lastrowid is not None
    _set_supports(db, cursor.lastrowid, ask.support_ids)
    return cursor.lastrowid


def change_setup(db: sqlite3.Connection, setup_id: int, ask: SetupAsk) -> None:
    """Overwrite a set-up, for all takes that were filmed with it. Raises TypicalError."""
    if setup_by_id(db, setup_id).typical:
        raise TypicalError("set-up", setup_id)
    db.execute(
        "update setup set name = ?, camera_id = ?, lens_id = ?, optics = ?, bench = ?,"
        " focal_eq_mm = ? where id = ?",
        (ask.name, ask.camera_id, ask.lens_id, _OPTICS.text(ask.optics),
         _BENCH.text(ask.bench), _focal(db, ask), setup_id),
    )  # fmt: skip
    _set_supports(db, setup_id, ask.support_ids)
    summaries.mark_setup_stale(db, setup_id)


def setup_by_id(db: sqlite3.Connection, setup_id: int) -> SetupRow:
    row = db.execute(f"{_SETUPS} where setup.id = ?", (setup_id,)).fetchone()
    if row is None:
        raise NotFoundError("set-up", setup_id)
    return _setup(db, row)


def setup_names(db: sqlite3.Connection) -> dict[int, str]:
    """Of all set-ups, archived ones too."""
    return {row["id"]: row["name"] for row in db.execute("select id, name from setup")}


def setup_by_key(db: sqlite3.Connection, key: str) -> SetupRow | None:
    row = db.execute(f"{_SETUPS} where setup.typical_key = ?", (key,)).fetchone()
    return None if row is None else _setup(db, row)


def setups(db: sqlite3.Connection) -> list[SetupRow]:
    """All set-ups, the last used first, archived ones at the end."""
    rows = db.execute(
        f"{_SETUPS} order by archived_at is not null, coalesce(used_at, '') desc,"
        " typical_key is not null, id"
    ).fetchall()
    return [_setup(db, row) for row in rows]


def usual_setup_id(db: sqlite3.Connection) -> int | None:
    """The set-up of a new take: the last one used."""
    return next((row.id for row in setups(db) if not row.archived), None)


def focal_of(db: sqlite3.Connection, setup_id: int | None) -> float:
    """The equivalent focal length of what is filmed with a set-up, mm."""
    row = db.execute("select focal_eq_mm from setup where id = ?", (setup_id,)).fetchone()
    return UNKNOWN_FOCAL_EQ_MM if row is None else float(row["focal_eq_mm"])


def set_setup_archived(db: sqlite3.Connection, setup_id: int, *, archived: bool) -> None:
    setup_by_id(db, setup_id)
    db.execute(
        f"update setup set archived_at = {NOW if archived else 'null'} where id = ?", (setup_id,)
    )


def mark_setup_used(db: sqlite3.Connection, setup_id: int) -> None:
    """New takes are filmed with it from now on."""
    db.execute(f"update setup set used_at = {NOW} where id = ?", (setup_id,))


_SETUPS = """
select setup.*, (select count(*) from take
                  where take.setup_id = setup.id and take.deleted_at is null) as takes
  from setup
"""


def _focal(db: sqlite3.Connection, ask: SetupAsk) -> float:
    parts = parts_of(db, ask)
    return set_up_focal_eq_mm(parts.camera, parts.lens, parts.optics)


def _set_supports(db: sqlite3.Connection, setup_id: int, support_ids: tuple[int, ...]) -> None:
    db.execute("delete from setup_support where setup_id = ?", (setup_id,))
    for position, support_id in enumerate(support_ids):
        db.execute(
            "insert into setup_support (setup_id, position, item_id) values (?, ?, ?)",
            (setup_id, position, support_id),
        )


def _uses(db: sqlite3.Connection, item_id: int) -> tuple[str, ...]:
    rows = db.execute(
        "select name from setup where archived_at is null and (camera_id = ?1 or lens_id = ?1"
        " or exists (select 1 from setup_support where setup_id = setup.id and item_id = ?1))"
        " order by id",
        (item_id,),
    )
    return tuple(row["name"] for row in rows)


def _item(row: sqlite3.Row, setup_names: tuple[str, ...]) -> ItemRow:
    return ItemRow(
        id=row["id"],
        kind=row["kind"],
        name=row["name"],
        spec=_SPECS[row["kind"]].read(row["spec"]),
        typical=row["typical_key"] is not None,
        archived=row["archived_at"] is not None,
        setups=setup_names,
    )


def _setup(db: sqlite3.Connection, row: sqlite3.Row) -> SetupRow:
    supports = db.execute(
        "select item_id from setup_support where setup_id = ? order by position", (row["id"],)
    )
    ask = SetupAsk(
        name=row["name"],
        camera_id=row["camera_id"],
        lens_id=row["lens_id"],
        support_ids=tuple(support["item_id"] for support in supports),
        optics=_OPTICS.read(row["optics"]),
        bench=_BENCH.read(row["bench"]),
    )
    return SetupRow(
        id=row["id"],
        ask=ask,
        focal_eq_mm=row["focal_eq_mm"],
        typical=row["typical_key"] is not None,
        archived=row["archived_at"] is not None,
        takes=row["takes"],
    )
