"""Copies of the database: one before every migration and one a day of use, the last ten kept; and
what is done with them where the database is damaged.

A damaged database is put aside, never overwritten, and the newest copy that is whole takes its
place. Films that came since that copy are found among the originals when the library is put in
order, and measured anew.

SQLite notices a broken page, not a flipped bit in a number. So the digest of a copy stands in its
name, and a database is sealed with its own at a clean stop; the first write breaks the seal.
"""

from __future__ import annotations

import hashlib
import os
import re
import shutil
import zlib
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from ridgewind.media.whole import partial_of
from ridgewind.store import database
from ridgewind.store.errors import DamagedError

KEPT = 10
EVERY = timedelta(days=1)
_MOMENT = "%Y%m%dT%H%M%S"
NAME = re.compile(r"library-(\d{8}T\d{6})-([0-9a-f]{16})\.db")
SIDES = ("", "-wal", "-shm")
"""A database and the files that SQLite keeps beside it."""


@dataclass(frozen=True)
class Snapshot:
    """made_at: aware, UTC. digest: what its content must have."""

    path: Path
    made_at: datetime
    digest: str

    @property
    def whole(self) -> bool:
        return _digest(self.path) == self.digest


@dataclass(frozen=True)
class Mended:
    """damaged: what was put aside. made_at: of the copy that took its place."""

    damaged: Path
    made_at: datetime


def snapshots(folder: Path) -> list[Snapshot]:
    """Of a folder, the newest first."""
    found = []
    for path in folder.glob("library-*.db") if folder.is_dir() else ():
        if told := NAME.fullmatch(path.name):
            made_at = datetime.strptime(told[1], _MOMENT).replace(tzinfo=UTC)
            found.append(Snapshot(path, made_at, told[2]))
    return sorted(found, key=lambda one: (one.made_at, one.path.name), reverse=True)


def keep(source: Path, folder: Path, *, now: datetime) -> Path:
    """Copy a database as it is now into a folder, whole or not at all; the oldest copies go. Raises
    StorageError."""
    folder.mkdir(parents=True, exist_ok=True)
    moment = now.astimezone(UTC).strftime(_MOMENT)
    partial = partial_of(folder / f"library-{moment}.db")
    partial.unlink(missing_ok=True)
    try:
        database.back_up(source, partial)
        target = folder / f"library-{moment}-{_digest(partial)}.db"
        os.replace(partial, target)
    finally:
        partial.unlink(missing_ok=True)
    for old in snapshots(folder)[KEPT:]:
        old.path.unlink(missing_ok=True)
    return target


def is_due(folder: Path, *, now: datetime) -> bool:
    """Whether the newest copy is a day old."""
    found = snapshots(folder)
    return not found or now - found[0].made_at >= EVERY


def keep_before_migrating(source: Path, folder: Path, *, now: datetime) -> None:
    """A copy of a database that a migration is going to change. Raises StorageError."""
    if source.is_file() and database.missing(source):
        keep(source, folder, now=now)


def mend(source: Path, folder: Path, *, now: datetime) -> Mended:
    """Put a damaged database aside, and the newest copy that is whole in its place. Call while
    nothing has it open. Raises DamagedError where there is none, and leaves everything as it is."""
    chosen = next((one for one in snapshots(folder) if one.whole), None)
    if chosen is None:
        raise DamagedError("it is damaged, and no copy of it is whole")
    # First the copy: a disk that is too full for it leaves everything as it was.
    fresh = source.with_name(f"{source.name}.mended")
    shutil.copyfile(chosen.path, fresh)
    stem = f"damaged-{now.astimezone(UTC).strftime(_MOMENT)}.db"
    for side in SIDES:
        beside = source.with_name(source.name + side)
        if beside.exists():
            os.replace(beside, folder / (stem + side))
    os.replace(fresh, source)
    return Mended(folder / stem, chosen.made_at)


def _digest(path: Path) -> str:
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()[:16]


SEALED_BY = "crc32"
"""Against damage, not against an enemy: a burst of up to 32 bits never passes, anything else once
in four milliards. A large database is read at every start, and this takes a third of md5's time."""

SEAL_PIECE_BYTES = 1 << 20


def _seal_of(path: Path, how: str) -> str:
    with path.open("rb") as file:
        if how != SEALED_BY:
            return f"{how}:{hashlib.file_digest(file, lambda: hashlib.new(how)).hexdigest()}"
        found = size = 0
        while piece := file.read(SEAL_PIECE_BYTES):
            found, size = zlib.crc32(piece, found), size + len(piece)
        return f"{how}:{found:08x}-{size:x}"


def _is_sealed(source: Path, seal: str) -> bool:
    """Seals of before are md5's, and those before them of no name."""
    how, _, known = seal.rpartition(":")
    return _seal_of(source, how) == seal if how else _digest(source) == known


def checked(source: Path, folder: Path, *, now: datetime) -> Mended | None:
    """Mend a database that is damaged; None where it is whole, or not there yet. Raises
    DamagedError, see `mend`."""
    if not source.is_file():
        return None
    sealed = database.seal_of(source)
    whole = _is_sealed(source, sealed) if sealed else not database.faults(source)
    return None if whole else mend(source, folder, now=now)


def seal(source: Path) -> None:
    """Write down what a database is, once nobody writes to it any more. Raises StorageError."""
    database.number_edition(source)
    database.seal(source, _seal_of(source, SEALED_BY))
