"""Many takes at once: change them in one write, and take all of it back by one undo."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, fields

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.services import taking
from ridgewind.store import briefs, bulk_changes, database, kit, summaries, takes
from ridgewind.store.bulk_changes import BulkChange, TakeBefore
from ridgewind.store.database import Connection
from ridgewind.store.takes import TakeRow

JUDGED_BY = {"brief_id", "setup_id", "own_capture_fps"}
"""Parts that a verdict depends on."""


@dataclass(frozen=True)
class ManyChange:
    """What of every chosen take is changed; None leaves a thing as it is, () makes it open again.
    name: of all, numbered in the order in which they were chosen. own_capture_fps: frames a second
    at which they were filmed. choice: keep, reject or retake. deleted: hide them."""

    name: str | tuple[()] | None = None
    brief_id: int | None = None
    setup_id: int | None = None
    own_capture_fps: float | tuple[()] | None = None
    choice: str | tuple[()] | None = None
    deleted: bool | None = None

    @property
    def parts(self) -> tuple[str, ...]:
        """Fields of a take that it changes."""
        given = (field.name for field in fields(self) if getattr(self, field.name) is not None)
        return tuple("own_name" if name == "name" else name for name in given)


@dataclass(frozen=True)
class Done:
    """takes: how many were changed. to_measure: films that wait to be measured because of it."""

    change_id: int | None
    takes: int
    to_measure: tuple[int, ...] = ()


def change(db: Connection, take_ids: Sequence[int], asked: ManyChange) -> Done:
    """Change many takes, all or none. What went out of date is left to be judged again.
    Raises NotFoundError, InvalidArgumentError."""
    if not asked.parts:
        raise InvalidArgumentError("change", None, "it must say what is to be changed")
    if not take_ids:
        raise InvalidArgumentError("ids", [], "choose at least one take")
    with database.atomic(db):
        rows = [takes.by_id(db, take_id) for take_id in dict.fromkeys(take_ids)]
        before = tuple(_before(db, row) for row in rows)
        change_id = bulk_changes.add(db, BulkChange(asked.parts, before))
        if asked.brief_id is not None:
            briefs.mark_used(db, briefs.by_id(db, asked.brief_id).id)
        if asked.setup_id is not None:
            kit.mark_setup_used(db, kit.setup_by_id(db, asked.setup_id).id)
        for number, row in enumerate(rows, start=1):
            _apply(db, row, asked, number=number, of=len(rows))
    return Done(change_id, len(rows))


def undo(db: Connection, change_id: int) -> Done:
    """Put back what a change of many took away, once; takes that are gone for good stay away.
    Raises NotFoundError."""
    to_measure = []
    with database.atomic(db):
        found = bulk_changes.pop(db, change_id)
        here = takes.existing(db, [one.take_id for one in found.takes])
        for one in found.takes:
            if one.take_id in here and _put_back(db, one, set(found.parts)):
                to_measure.append(takes.by_id(db, one.take_id).clip_id)
    return Done(None, len(here), tuple(to_measure))


def _before(db: Connection, row: TakeRow) -> TakeBefore:
    own = briefs.by_id(db, row.brief_id) if row.brief_name is None else None
    return TakeBefore(
        take_id=row.id,
        own_name=row.own_name,
        brief_id=row.brief_id,
        own_brief=None if own is None else own.brief,
        parent_id=None if own is None else own.parent_id,
        setup_id=row.setup_id,
        own_capture_fps=row.own_capture_fps,
        choice=row.choice,
        deleted=row.deleted_at is not None,
    )


def _apply(db: Connection, row: TakeRow, asked: ManyChange, *, number: int, of: int) -> None:
    takes.point(db, row.id, brief_id=asked.brief_id, setup_id=asked.setup_id)
    if asked.name is not None:
        name = f"{asked.name} {number}" if asked.name and of > 1 else asked.name or None
        takes.set_own_name(db, row.id, name)
    if asked.own_capture_fps is not None:
        takes.set_own_capture(db, row.id, asked.own_capture_fps or None)
    if asked.choice is not None:
        takes.set_choice(db, row.id, asked.choice or None)
    if asked.deleted:
        taking.delete(db, row.id)
    if JUDGED_BY & set(asked.parts):
        summaries.mark_take_stale(db, row.id)


def _put_back(db: Connection, one: TakeBefore, parts: set[str]) -> bool:
    """Whether its film waits to be measured now."""
    if "own_name" in parts:
        takes.set_own_name(db, one.take_id, one.own_name)
    if "brief_id" in parts:
        brief_id = one.brief_id
        if one.own_brief is not None:
            brief_id = briefs.add(db, one.own_brief, name=None, parent_id=one.parent_id)
        takes.point(db, one.take_id, brief_id=brief_id)
    if "setup_id" in parts:
        takes.set_setup(db, one.take_id, one.setup_id)
    if "own_capture_fps" in parts:
        takes.set_own_capture(db, one.take_id, one.own_capture_fps)
    if "choice" in parts:
        takes.set_choice(db, one.take_id, one.choice)
    if parts & JUDGED_BY:
        summaries.mark_take_stale(db, one.take_id)
    if "deleted" in parts and not one.deleted:
        return taking.restore(db, one.take_id).state == "queued"
    return False
