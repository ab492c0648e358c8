"""Copies from folders and cards: which films were asked for, and what became of each."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.store import jobs
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError
from ridgewind.store.jobs import JobRow


@dataclass(frozen=True)
class CopiedFilm:
    """A film of a folder. file: its path inside the folder. take_id: that it became, None while
    it waits or was refused. duplicate: the library had it already. fault_what, fault_next: why it
    was refused, and what to do."""

    position: int
    file: str
    take_id: int | None
    duplicate: bool
    fault_what: str | None
    fault_next: str | None

    @property
    def settled(self) -> bool:
        return self.take_id is not None or self.fault_what is not None


@dataclass(frozen=True)
class FolderCopyRow:
    """root: the folder. films: in the order in which they are copied."""

    id: int
    root: str
    films: tuple[CopiedFilm, ...]
    job: JobRow


def add(db: sqlite3.Connection, *, root: str, files: Sequence[str]) -> int:
    """Ask for films of a folder; returns the copy's id."""
    cursor = db.execute(f"insert into folder_copy (root, asked_at) values (?, {NOW})", (root,))
    assert cursor.lastrowid is not None
    db.executemany(
        "insert into folder_copy_film (copy_id, position, file) values (?, ?, ?)",
        [(cursor.lastrowid, position, file) for position, file in enumerate(files)],
    )
    jobs.enqueue(db, "copy", cursor.lastrowid)
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, copy_id: int) -> FolderCopyRow:
    row = db.execute("select * from folder_copy where id = ?", (copy_id,)).fetchone()
    job = jobs.one(db, "copy", copy_id)
    if row is None or job is None:
        raise NotFoundError("copy", copy_id)
    films = db.execute(
        "select * from folder_copy_film where copy_id = ? order by position", (copy_id,)
    )
    return FolderCopyRow(row["id"], row["root"], tuple(_film(one) for one in films), job)


def told(db: sqlite3.Connection) -> list[FolderCopyRow]:
    """Copies that wait or run, and those that ended with something not brought in which nobody has
    seen yet; the first asked for first."""
    unseen = db.execute(
        "select folder_copy.id from folder_copy join job"
        " on job.kind = 'copy' and job.subject_id = folder_copy.id"
        " where seen_at is null and (job.state = 'failed' or job.state = 'done' and exists"
        "  (select 1 from folder_copy_film as film"
        "    where film.copy_id = folder_copy.id and film.fault_what is not null))"
    )
    found = [*jobs.waiting(db, "copy"), *jobs.interrupted(db, "copy"), *(one[0] for one in unseen)]
    return [by_id(db, copy_id) for copy_id in sorted(found)]


def see(db: sqlite3.Connection, copy_id: int) -> None:
    """What a copy could not bring in has been seen."""
    db.execute(f"update folder_copy set seen_at = {NOW} where id = ?", (copy_id,))


def brought_in(
    db: sqlite3.Connection, copy_id: int, position: int, *, take_id: int, duplicate: bool
) -> None:
    """A film has become a take."""
    db.execute(
        "update folder_copy_film set take_id = ?, duplicate = ? where copy_id = ? and position = ?",
        (take_id, duplicate, copy_id, position),
    )


def refused(
    db: sqlite3.Connection, copy_id: int, position: int, *, what: str, next_step: str
) -> None:
    """A film could not be brought in."""
    db.execute(
        "update folder_copy_film set fault_what = ?, fault_next = ?"
        " where copy_id = ? and position = ?",
        (what, next_step, copy_id, position),
    )


def _film(row: sqlite3.Row) -> CopiedFilm:
    return CopiedFilm(
        row["position"], row["file"], row["take_id"], bool(row["duplicate"]),
        row["fault_what"], row["fault_next"],
    )  # fmt: skip
