"""A library that goes to another disk: its films while it is in use, the rest once nobody uses it
for a moment. Where it was stays a note of where it is, so that it is found by its old name.

Nothing is taken away before all of it is at its new place and was read back there.
"""

from __future__ import annotations

import hashlib
import os
import shutil
from collections.abc import Callable, Iterator
from pathlib import Path

from ridgewind.library.library import SPARE_BYTES, Library
from ridgewind.library.second_disk import copy_whole
from ridgewind.media.errors import DISK_FULL, MediaError
from ridgewind.store import database

NOTE = "moved-to"
LEFT_BEHIND = {"lock", "queue.db", "queue.db-wal", "queue.db-shm", "workers", "incoming", NOTE}
"""What is made anew, or belongs to the place."""

DATABASE = "library.db"
OnBytes = Callable[[int], None]


class MoveError(Exception):
    """A library cannot go there. message, hint: for the shooter."""

    def __init__(self, message: str, hint: str) -> None:
        super().__init__(message)
        self.message, self.hint = message, hint


def where(root: Path) -> Path:
    """Where the library of a folder is now: the folder itself, or where it was moved to."""
    seen = set()
    while root not in seen:
        seen.add(root)
        try:
            root = Path((root / NOTE).read_text(encoding="utf-8").strip())
        except OSError:
            break
    return root


def check(library: Library, target: Path) -> None:
    """Raises MoveError where a library cannot go to a folder."""
    if not target.is_absolute():
        raise MoveError("The folder is not named whole.", "Begin with the disk it is on.")
    if target.exists() and not target.is_dir():
        raise MoveError("This is a file.", "Name a folder.")
    own = library.root.resolve()
    if target.resolve().is_relative_to(own) or own.is_relative_to(target.resolve()):
        raise MoveError("This folder is within the library, or holds it.", "Name another.")
    if target.is_dir() and {path.name for path in target.iterdir()} - {"lock", NOTE}:
        raise MoveError("This folder is not empty.", "Name one that is, or is not there yet.")
    try:
        target.mkdir(parents=True, exist_ok=True, mode=0o700)
        free = shutil.disk_usage(target).free
    except OSError as error:
        raise MoveError(
            "No folder can be made there.",
            "Connect the disk, and see whether it is yours to write.",
        ) from error
    if free < size_of(library) + SPARE_BYTES:
        raise MoveError(
            "There is no room for the library there.", "Free some, or name another disk."
        )


def size_of(library: Library) -> int:
    """Bytes that go over while it is in use."""
    return sum(path.stat().st_size for path in _films(library))


def copy_films(library: Library, target: Path, *, on_bytes: OnBytes) -> None:
    """Copy what is not there yet. on_bytes: called with what each piece adds; may raise to stop.
    Raises MediaError where the disk is full, OSError where it is pulled out."""
    for source in _films(library):
        copy = target / source.relative_to(library.root)
        copy.parent.mkdir(exist_ok=True, mode=0o700)
        try:
            size = source.stat().st_size
            if copy.is_file() and copy.stat().st_size == size:
                on_bytes(size)
            elif shutil.disk_usage(target).free < size + SPARE_BYTES:
                raise MediaError(*DISK_FULL)
            else:
                copy_whole(source, copy, on_bytes=on_bytes)
        except FileNotFoundError:
            if source.exists():
                raise
            continue  # it was taken away meanwhile


def finish(library: Library, target: Path) -> None:
    """Bring the rest over, leave a note, and take away what is there twice. Call while nobody uses
    the library, and hold its lock. Raises MediaError, StorageError, OSError, and leaves it then as
    it is."""
    copy_films(library, target, on_bytes=lambda _count: None)
    wanted = {path.relative_to(library.root) for path in _films(library)}
    for path in list(_films(Library(target))):
        if path.relative_to(target) not in wanted:
            path.unlink()
    films = _film_folders(library)
    for path in library.root.iterdir():
        if path.name in LEFT_BEHIND or path.name.startswith(DATABASE):
            continue
        if path in films:
            # Its films are there, and nobody waits for hours of them to be read again; what else
            # somebody has put beside them comes along.
            for other in path.iterdir():
                if other.is_dir() or other.name.startswith("."):
                    _carry(other, target / path.name / other.name)
        else:
            _carry(path, target / path.name)
    fresh = target / DATABASE
    fresh.unlink(missing_ok=True)
    database.back_up(library.database, fresh)
    (target / NOTE).unlink(missing_ok=True)
    moved = Library(target)
    moved.close_to_others()
    moved.seal()
    note = library.root / NOTE
    half = note.with_suffix(".half")
    half.write_text(str(target), encoding="utf-8")
    half.replace(note)
    take_away(library.root)


def _carry(source: Path, target: Path) -> None:
    """A file or a folder, as it is."""
    target.parent.mkdir(exist_ok=True, mode=0o700)
    if source.is_symlink():
        target.unlink(missing_ok=True)
        target.symlink_to(os.readlink(source))
    elif source.is_dir():
        shutil.copytree(source, target, dirs_exist_ok=True, symlinks=True, copy_function=_copied)
    elif source.is_file():
        _copied(source, target)


def take_away(root: Path) -> None:
    """Remove what a library that has moved left behind, but for the note and the lock."""
    for path in root.iterdir():
        if path.name in ("lock", NOTE):
            continue
        if path.is_dir() and not path.is_symlink():
            shutil.rmtree(path, ignore_errors=True)
        else:
            path.unlink(missing_ok=True)


def _copied(source: str | Path, target: str | Path) -> None:
    """Small files, where the new place does not hold them yet; with their rights."""
    one, other = Path(source), Path(target)
    if not other.is_file() or _digest(one) != _digest(other):
        shutil.copy2(one, other)


def _digest(path: Path) -> bytes:
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").digest()


def _film_folders(library: Library) -> tuple[Path, ...]:
    """What is in them is large, and never changes once it is there."""
    return (
        library.originals, library.cleared, library.copies, library.stills, library.renders,
        library.sequences,
    )  # fmt: skip


def _films(library: Library) -> Iterator[Path]:
    for folder in _film_folders(library):
        if folder.is_dir():
            with os.scandir(folder) as found:
                names = [one.name for one in found if one.is_file()]
            yield from (folder / name for name in names if not name.startswith("."))
