"""The watched folder: which it is, and what became of its films."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ridgewind.store.database import NOW

State = Literal["before", "taken", "refused"]


@dataclass(frozen=True)
class FilmFile:
    """A film as it lies in the folder. file: its path inside of it."""

    file: str
    size_bytes: int
    modified_ns: int


@dataclass(frozen=True)
class WatchedRow:
    """since: ISO moment from which on films are taken."""

    root: str
    since: str


@dataclass(frozen=True)
class WatchedFilmRow:
    """take_id: of what was taken. fault: why it was refused."""

    file: str
    state: State
    take_id: int | None
    fault: str | None


def folder(db: sqlite3.Connection) -> WatchedRow | None:
    """The watched folder, None where none is."""
    row = db.execute("select root, since from watched_folder").fetchone()
    return None if row is None else WatchedRow(row["root"], row["since"])


def begin(db: sqlite3.Connection, root: str, before: Sequence[FilmFile]) -> None:
    """Watch a folder from now on, whose films until now stay out."""
    stop(db)
    db.execute(f"insert into watched_folder (id, root, since) values (1, ?, {NOW})", (root,))
    db.executemany(
        "insert into watched_film (file, size_bytes, modified_ns, state, settled_at)"
        f" values (?, ?, ?, 'before', {NOW})",
        [(one.file, one.size_bytes, one.modified_ns) for one in before],
    )


def stop(db: sqlite3.Connection) -> None:
    """Watch no folder any more; takes stay."""
    db.execute("delete from watched_folder")
    db.execute("delete from watched_film")


def settle(
    db: sqlite3.Connection,
    film: FilmFile,
    state: State,
    *,
    take_id: int | None = None,
    fault: str | None = None,
) -> None:
    """Note what became of a film."""
    db.execute(
        "insert or replace into watched_film"
        " (file, size_bytes, modified_ns, state, take_id, fault, settled_at)"
        f" values (?, ?, ?, ?, ?, ?, {NOW})",
        (film.file, film.size_bytes, film.modified_ns, state, take_id, fault),
    )


def settled(db: sqlite3.Connection) -> set[FilmFile]:
    """Films that are not looked at any more."""
    rows = db.execute("select file, size_bytes, modified_ns from watched_film")
    return {FilmFile(row["file"], row["size_bytes"], row["modified_ns"]) for row in rows}


def newest(db: sqlite3.Connection, *, limit: int) -> list[WatchedFilmRow]:
    """What became of the films that came since it is watched, the newest first."""
    rows = db.execute(
        "select file, state, take_id, fault from watched_film where state <> 'before'"
        " order by settled_at desc, rowid desc limit ?",
        (limit,),
    )
    return [WatchedFilmRow(row["file"], row["state"], row["take_id"], row["fault"]) for row in rows]


def to_file(db: sqlite3.Connection) -> list[int]:
    """Takes of the folder that are measured and were not tried to be filed, the oldest first."""
    rows = db.execute(
        "select film.take_id from watched_film as film"
        " join take on take.id = film.take_id"
        " join job on job.kind = 'measure' and job.subject_id = take.clip_id"
        " where film.state = 'taken' and not film.looked and job.state in ('done', 'failed')"
        " order by film.settled_at, film.rowid"
    )
    return [row["take_id"] for row in rows]


def under_way(db: sqlite3.Connection) -> bool:
    """Whether a take of the folder is still to be measured or filed."""
    sql = "select 1 from watched_film where state = 'taken' and not looked limit 1"
    return db.execute(sql).fetchone() is not None


def looked(db: sqlite3.Connection, take_id: int) -> None:
    """It was tried to file a take."""
    db.execute("update watched_film set looked = 1 where take_id = ?", (take_id,))
