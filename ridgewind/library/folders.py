"""Folders and cards on this computer: what films they hold, and bringing one in.

A file is known by its name, size and date of change, so that a card that is put in again offers
only what is new. Copies are read back and compared by content before they count.
"""

from __future__ import annotations

import hashlib
import os
import stat
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
NO_FILE = ("no_file", "this is no plain file, but a link or a device", "copy the film itself here")
GROWING = (
    "growing",
    "the file changed while it was copied",
    "wait until whatever writes it has finished, and bring it in again",
)
BAD_NAME, BAD_DATE = "its name is not readable text", "its date cannot be"


@dataclass(frozen=True)
class FoundFilm:
    """file: its path inside the folder. known: it was brought in before."""

    file: str
    size_bytes: int
    modified_at: str
    known: bool


@dataclass(frozen=True)
class PassedOver:
    """A film that cannot be offered, and why. file: as far as it can be written."""

    file: str
    why: str


@dataclass(frozen=True)
class Scan:
    """films: the newest first. more: the folder holds more new films than are listed."""

    root: str
    films: tuple[FoundFilm, ...]
    more: bool
    passed_over: tuple[PassedOver, ...]


def scan(db: Connection, path: str) -> Scan:
    """Films below a folder, the newest first. Raises UnreadableError where there is no folder."""
    root = folder_at(path)
    brought_in = clips.sources(db)
    found: list[FoundFilm] = []
    passed_over: list[PassedOver] = []
    for file in films_below(root):
        film = _offered(root, file, brought_in)
        if isinstance(film, FoundFilm):
            found.append(film)
        elif film is not None:
            passed_over.append(film)
    found.sort(key=lambda film: film.modified_at, reverse=True)
    fresh = [film for film in found if not film.known]
    listed = [*fresh[:MOST_FILES], *[film for film in found if film.known][:MOST_FILES]]
    listed.sort(key=lambda film: film.modified_at, reverse=True)
    more = len(fresh) > MOST_FILES
    return Scan(str(root), tuple(listed), more, tuple(passed_over[:MOST_FILES]))


SYSTEM_FOLDERS = (Path("/proc"), Path("/dev"), Path("/sys"))
"""In which files are none: they have no end, or change as they are read."""


def folder_at(path: str) -> Path:
    """The folder at a path that somebody wrote. Raises UnreadableError where there is none, or
    where it is one of the system's own."""
    try:
        root = Path(path).expanduser()
        if path.strip() and root.is_dir():
            root = root.resolve()
            if not any(root.is_relative_to(one) for one in SYSTEM_FOLDERS):
                return root
    except (OSError, RuntimeError, ValueError) as error:  # no such user, or no possible path
        raise UnreadableError(*NO_FOLDER) from error
    raise UnreadableError(*NO_FOLDER)


def _offered(
    root: Path, file: Path, brought_in: set[tuple[str, int, int]]
) -> FoundFilm | PassedOver | None:
    """A plain file that can be offered, or why not; None for what is no file."""
    name = str(file.relative_to(root))
    readable = name.encode("utf-8", "replace").decode()
    try:
        about = file.lstat()
        if not stat.S_ISREG(about.st_mode):
            return None
        when = datetime.fromtimestamp(about.st_mtime, UTC).isoformat(timespec="seconds")
    except (ValueError, OverflowError):
        return PassedOver(readable, BAD_DATE)
    except OSError:
        return None
    if readable != name:
        return PassedOver(readable, BAD_NAME)
    known = (file.name, about.st_size, int(about.st_mtime)) in brought_in
    return FoundFilm(name, about.st_size, when, known)


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
    root = folder_at(path)
    source = _source(root, file)
    try:
        with open(source, "rb", opener=_open_plain) as film:
            about = os.fstat(film.fileno())
            if not stat.S_ISREG(about.st_mode):
                raise UnreadableError(*NO_FILE)

            def settled() -> None:
                now = os.fstat(film.fileno())
                if (now.st_size, now.st_mtime_ns) != (about.st_size, about.st_mtime_ns):
                    raise UnreadableError(*GROWING)

            stream = WatchedStream(film, about.st_size, on_progress, on_end=settled)
            imported = library.add(db, stream, file_name=source.name, size_bytes=about.st_size)
    except MediaError:
        raise
    except OSError as error:
        raise UnreadableError(*PULLED) from error
    clip = clips.by_id(db, imported.take.clip_id)
    if not imported.duplicate:
        try:
            _compare(library.original(clip.file), clip.sha256, on_progress)
        except BaseException:  # it differs, or was stopped meanwhile
            library.forget(db, imported.take.id)
            raise
    with database.atomic(db):
        clips.mark_source(db, source.name, about.st_size, int(about.st_mtime), clip.id)
    return imported


def _source(root: Path, file: str) -> Path:
    """A file in a folder. Raises UnreadableError where it is elsewhere, or no film by its name."""
    try:
        source = (root / file).resolve()
    except (OSError, RuntimeError, ValueError) as error:
        raise UnreadableError(*OUTSIDE) from error
    if not source.is_relative_to(root) or source.suffix.lower() not in SUFFIXES:
        raise UnreadableError(*OUTSIDE)
    return source


def _open_plain(path: str, flags: int) -> int:
    """Opening a pipe would wait for its other end."""
    return os.open(path, flags | os.O_NONBLOCK | os.O_NOFOLLOW)


def films_below(root: Path) -> Iterator[Path]:
    """Films below a folder; hidden folders and links are passed over."""
    base = len(root.parts)
    for folder, folders, names in os.walk(root, followlinks=False):
        folders[:] = sorted(name for name in folders if not name.startswith("."))
        if len(Path(folder).parts) - base >= DEEPEST:
            folders[:] = []
        for name in sorted(names):
            if Path(name).suffix.lower() in SUFFIXES and not name.startswith("."):
                yield Path(folder) / name


def _compare(copy: Path, sha256: str, on_progress: Progress) -> None:
    """Read a copy back; of a large film this takes minutes, in which it tells that it lives. Raises
    UnreadableError where it differs, and what on_progress raises."""
    digest = hashlib.sha256()
    with copy.open("rb") as stream:
        while chunk := stream.read(CHUNK_BYTES):
            digest.update(chunk)
            on_progress(1.0)
    if digest.hexdigest() != sha256:
        raise UnreadableError(*DIFFERS)
