"""A folder on another disk where originals may stay, and that is not always there.

A mark in it, made with it, tells it from the empty folder on which a disk is hung when it is away,
and from another library's.
"""

from __future__ import annotations

import hashlib
import json
import os
import secrets
import shutil
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from ridgewind.media.errors import DISK_FULL, MediaError
from ridgewind.media.whole import own_only

MARK = ".ridgewind-originals"
CHUNK_BYTES = 4 << 20
SPARE_BYTES = 64 << 20


class SecondDiskError(Exception):
    """A folder cannot hold originals. message, hint: for the shooter."""

    def __init__(self, message: str, hint: str) -> None:
        super().__init__(message)
        self.message, self.hint = message, hint


@dataclass(frozen=True)
class SecondDisk:
    """token: that its mark holds."""

    folder: Path
    token: str

    @property
    def cleared(self) -> Path:
        """Where its rejected originals are put aside."""
        return self.folder / "cleared"

    @property
    def is_here(self) -> bool:
        """Whether the disk is there, and is the one that is meant."""
        try:
            return (self.folder / MARK).read_text(encoding="ascii").strip() == self.token
        except (OSError, ValueError):
            return False


def read(note: Path) -> SecondDisk | None:
    """What a library's note says, None where it has no second disk."""
    try:
        told = json.loads(note.read_text(encoding="utf-8"))
        return SecondDisk(Path(told["folder"]), str(told["token"]))
    except FileNotFoundError:
        return None
    except (ValueError, KeyError, TypeError):
        return None


def begin(note: Path, folder: Path, *, library: Path) -> SecondDisk:
    """Let originals stay in a folder. Raises SecondDiskError where that cannot be."""
    if not folder.is_absolute() or not folder.is_dir():
        raise SecondDiskError(
            "There is no such folder.", "Connect the disk, make a folder on it, and name it whole."
        )
    folder = folder.resolve()
    if folder.is_relative_to(library.resolve()) or library.resolve().is_relative_to(folder):
        raise SecondDiskError(
            "This folder is the library’s own, or holds it.", "Name a folder on another disk."
        )
    mark = folder / MARK
    if mark.exists():
        raise SecondDiskError(
            "This folder holds the originals of another library, or an earlier one’s.",
            "Name another folder; an empty one is best.",
        )
    disk = SecondDisk(folder, secrets.token_hex(16))
    try:
        mark.write_text(disk.token, encoding="ascii")
        disk.cleared.mkdir(exist_ok=True, mode=0o700)
    except OSError as error:
        raise SecondDiskError(
            "Nothing can be written in this folder.", "See whether it is yours to write."
        ) from error
    half = note.with_suffix(".half")
    told = {"folder": str(folder), "token": disk.token}
    half.write_text(json.dumps(told), encoding="utf-8")
    half.replace(note)
    return disk


def end(note: Path, disk: SecondDisk) -> None:
    """No original stays there any more; call once all are back."""
    note.unlink(missing_ok=True)
    (disk.folder / MARK).unlink(missing_ok=True)
    if disk.cleared.is_dir() and not any(disk.cleared.iterdir()):
        disk.cleared.rmdir()


def carry(source: Path, target: Path, *, on_bytes: Callable[[int], None]) -> None:
    """Move a film from disk to disk: copied whole, and only then taken away where it was. on_bytes:
    called with what each piece adds; may raise to stop. Raises MediaError where the disk is full,
    OSError where either is pulled out."""
    if shutil.disk_usage(target.parent).free < source.stat().st_size + SPARE_BYTES:
        raise MediaError(*DISK_FULL)
    copy_whole(source, target, on_bytes=on_bytes)
    source.unlink()


def copy_whole(source: Path, target: Path, *, on_bytes: Callable[[int], None]) -> None:
    """Copy a file to another disk, read it back, and compare; it is there whole, or not at all.
    Raises what on_bytes does, and OSError."""
    half = target.with_name(f".{target.name}.part")
    try:
        digest = hashlib.sha256()
        with source.open("rb") as film, open(half, "wb", opener=own_only) as copy:
            while piece := film.read(CHUNK_BYTES):
                digest.update(piece)
                copy.write(piece)
                on_bytes(len(piece))
            copy.flush()
            os.fsync(copy.fileno())
        with half.open("rb") as copy:
            if hashlib.file_digest(copy, "sha256").digest() != digest.digest():
                raise OSError(f"{target} does not hold what was written to it")
        half.replace(target)
    finally:
        half.unlink(missing_ok=True)
