"""Folders and cards on this computer: what films they hold, and bringing one in.

A file is known by its name, size and date of change, so that a card that is put in again offers
only what is new. Copies are read back and compared by content before they count.
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from ridgewind.library.copying import Progress, WatchedStream
from ridgewind.library.library import CHUNK_BYTES, Imported, Library
from ridgewind.media.errors import MediaError, UnreadableError
from ridgewind.store import clips, database
from ridgewind.store.database import Connection

SUFFIXES = {
    ".mp4", ".mov", ".m4v", ".mkv", ".webm", ".avi", ".mts", ".m2ts", ".mxf", ".3gp", ".mpg",
    ".mpeg", ".wmv",
}  # fmt: skip
DEEPEST, MOST_FILES = 8, 3000

NO_FOLDER = (
    "no_folder",
    "there is no folder at this place",
    "check the path, and that the card is in",
)
PULLED = (
    "pulled",
    "the file could not be read to its end; the card may have been pulled",
    "put the card in again and bring the rest in",
)
DIFFERS = (
    "differs",
    "the copy does not match the file on the card",
    "bring it in again; if it stays, copy the card elsewhere first",
)
OUTSIDE = ("outside", "the file is not in this folder", "scan the folder again")


@dataclass(frozen=True)
class FoundFilm:
    """file: its path inside the folder. known: it was brought in before."""

    file: str
    size_bytes: int
    modified_at: str
    known: bool


@dataclass(frozen=True)
class Scan:
    """more: the folder holds more films than are listed."""

    root: str
    films: tuple[FoundFilm, ...]
    more: bool


def scan(db: Connection, path: str) -> Scan:
    """Films below a folder, the newest first. Raises UnreadableError where there is no folder."""
    root = Path(path).expanduser()
    if not path.strip() or not root.is_dir():
        raise UnreadableError(*NO_FOLDER)
    root = root.resolve()
    found: list[FoundFilm] = []
    more = False
    for file in _films(root):
        if len(found) >= MOST_FILES:
            more = True
            break
        try:
            about = file.stat()
        except OSError:
            continue
        known = clips.source_known(db, file.name, about.st_size, int(about.st_mtime))
        when = datetime.fromtimestamp(about.st_mtime, UTC).isoformat(timespec="seconds")
        found.append(FoundFilm(str(file.relative_to(root)), about.st_size, when, known))
    found.sort(key=lambda film: film.modified_at, reverse=True)
    return Scan(str(root), tuple(found), more)


def bring_in(
    library: Library,
    db: Connection,
    path: str,
    file: str,
    *,
    on_progress: Progress,
) -> Imported:
    """Copy one film of a folder into the library, verified by content.

    Raises MediaError where it cannot be read, the disk is full, or the copy differs, and whatever
    on_progress raises.
    """
    root = Path(path).expanduser().resolve()
    source = (root / file).resolve()
    if not source.is_relative_to(root) or source.suffix.lower() not in SUFFIXES:
        raise UnreadableError(*OUTSIDE)
    try:
        about = source.stat()
        with source.open("rb") as film:
            stream = WatchedStream(film, about.st_size, on_progress)
            imported = library.add(db, stream, file_name=source.name, size_bytes=about.st_size)
    except MediaError:
        raise
    except OSError as error:
        raise UnreadableError(*PULLED) from error
    clip = clips.by_id(db, imported.take.clip_id)
    if not imported.duplicate and _digest(library.originals / clip.file) != clip.sha256:
        library.forget(db, imported.take.id)
        raise UnreadableError(*DIFFERS)
    with database.atomic(db):
        clips.mark_source(db, source.name, about.st_size, int(about.st_mtime), clip.id)
    return imported


def _films(root: Path) -> Iterator[Path]:
    """Films below a folder; hidden folders and links are passed over."""
    base = len(root.parts)
    for folder, folders, names in os.walk(root, followlinks=False):
        folders[:] = sorted(name for name in folders if not name.startswith("."))
        if len(Path(folder).parts) - base >= DEEPEST:
            folders[:] = []
        for name in sorted(names):
            if Path(name).suffix.lower() in SUFFIXES and not name.startswith("."):
                yield Path(folder) / name


def _digest(path: Path) -> str:
    digest = hashlib.sha256()
    with path.open("rb") as stream:
        while chunk := stream.read(CHUNK_BYTES):
            digest.update(chunk)
    return digest.hexdigest()
