"""Films that come by themselves: the folder that is watched, and filing what came of it."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from ridgewind.core.practice.matching import LIKELY
from ridgewind.library import arrivals, folders
from ridgewind.media.errors import UnfitError, UnreadableError
from ridgewind.services import filing
from ridgewind.store import database, sessions, watched
from ridgewind.store.database import Connection
from ridgewind.store.watched import WatchedFilmRow

State = Literal["off", "watching", "gone"]

MOST_TOLD = 12

OWN_FOLDER = (
    "own_folder",
    "the library itself lies there, and would take its own copies in",
    "name the folder that the phone or recorder fills",
)


@dataclass(frozen=True)
class Watching:
    """state: off, watching, or gone where the folder is not there at the moment. root, since: None
    where it is off. films: what came of the newest films."""

    state: State
    root: str | None
    since: str | None
    films: tuple[WatchedFilmRow, ...]


def watch(db: Connection, path: str, *, library: Path) -> Watching:
    """Take films in as they come to a folder; what is there now stays out. library: its folder,
    whose copies and renders are films too. Raises UnreadableError where there is no folder,
    UnfitError where it holds the library or lies in it."""
    root, own = folders.folder_at(path), library.resolve()
    if root.is_relative_to(own) or own.is_relative_to(root):
        raise UnfitError(*OWN_FOLDER)
    before = arrivals.films_in(root)
    with database.atomic(db):
        watched.begin(db, str(root), before)
    return watching(db)


def stop(db: Connection) -> Watching:
    """Take none in any more; takes stay."""
    with database.atomic(db):
        watched.stop(db)
    return watching(db)


def watching(db: Connection) -> Watching:
    """Which folder is watched, whether it is there, and what came."""
    row = watched.folder(db)
    if row is None:
        return Watching("off", None, None, ())
    state: State = "gone" if root_of(row.root) is None else "watching"
    return Watching(state, row.root, row.since, tuple(watched.newest(db, limit=MOST_TOLD)))


def root_of(root: str) -> Path | None:
    """The folder, None where it is not there at the moment."""
    try:
        return folders.folder_at(root)
    except UnreadableError:
        return None


def file_what_is_measured(db: Connection) -> None:
    """File takes that came, once they are measured, under the session that runs, where slate or
    clock says under which take; the others stay loose."""
    for take_id in watched.to_file(db):
        session_id = sessions.running(db)
        if session_id is not None:
            for match in filing.proposals(db, session_id).matches:
                if match.film_id == take_id and match.certainty >= LIKELY:
                    filing.file_film(db, session_id, match.position, take_id)
        with database.atomic(db):
            watched.looked(db, take_id)
