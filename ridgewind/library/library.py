"""What is done with the files of a library: made ready, held by one server, taken in, put aside,
brought back, and forgotten. Where they stand is in places.py."""

from __future__ import annotations

import contextlib
import errno
import hashlib
import os
import re
import secrets
import shutil
import tempfile
import time
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Protocol

from filelock import FileLock, Timeout

from ridgewind.library import snapshots
from ridgewind.library.places import Places
from ridgewind.library.snapshots import Mended
from ridgewind.media.errors import DISK_FULL, EMPTY, MediaError, UnreadableError
from ridgewind.store import briefs, clips, database, jobs, kit, renders, seeds, takes
from ridgewind.store.clips import ClipRow
from ridgewind.store.database import Connection
from ridgewind.store.errors import NoRoomError, StorageError
from ridgewind.store.takes import Origin, TakeRow

CHUNK_BYTES = 1 << 20
SPARE_BYTES = 64 << 20
"""Room that an import leaves on the disk, for the database and the browser copy."""

OWN_ONLY = 0o700
"""Films are the shooter's alone: no other user of the computer can list or read the folder."""

WORKERS_LEAVE_S = 10.0
"""Workers of a server that was killed notice it within half a second."""

LET_GO_S = 1.0
"""In which what is left of a killed server lets the library go."""

QUICKLY_CHECKED_BYTES = 64 << 20
"""A database up to this is looked through at every start, which takes a fraction of a second."""

KEEP_DELETED_DAYS = 7
"""Days for which a deleted take can be brought back."""


class Readable(Protocol):
    """Gives bytes piece by piece; an empty piece is the end."""

    def read(self, size: int = -1, /) -> bytes: ...


@dataclass(frozen=True)
class Arrived:
    """A file that has arrived whole, on the library's own disk."""

    path: Path
    sha256: str
    size_bytes: int


@dataclass(frozen=True)
class Imported:
    """duplicate: the same film was in the library already, and this is its take."""

    take: TakeRow
    duplicate: bool


class LibraryBusyError(Exception):
    """Another Ridgewind is using this library."""


class Library(Places):
    """One library folder, and what is done with what lies in it; made on first use."""

    def prepare(self) -> None:
        """Make the folders and bring the database up to date, with a copy of it as it was. Raises
        StorageError, NewerSchemaError, OSError."""
        for folder in self.folders:
            folder.mkdir(parents=True, exist_ok=True)
        self.close_to_others()
        snapshots.keep_before_migrating(self.database, self.snapshots, now=datetime.now(UTC))
        with database.opened(self.database) as db:
            database.migrate(db)
            seeds.seed(db)

    def mend_if_damaged(self, *, thorough: bool = True) -> Mended | None:
        """Put the newest good copy in the place of a damaged database; None where it is whole.
        thorough: look at a large one too, which takes a while. Call while nothing has it open.
        Raises DamagedError where no copy is whole."""
        told = self.damaged_mark.exists() or database.seal_of(self.database) is not None
        small = self.database.is_file() and self.database.stat().st_size <= QUICKLY_CHECKED_BYTES
        if not (told or small or thorough):
            return None
        found = snapshots.checked(self.database, self.snapshots, now=datetime.now(UTC))
        self.damaged_mark.unlink(missing_ok=True)
        return found

    def seal(self) -> None:
        """Call at a clean stop, when no worker is left."""
        with contextlib.suppress(StorageError, OSError):
            snapshots.seal(self.database)

    def close_to_others(self) -> None:
        """Let no other user of the computer in, where the file system knows users: an exchange disk
        may not."""
        with contextlib.suppress(PermissionError):
            self.root.chmod(OWN_ONLY)

    @contextlib.contextmanager
    def locked(self) -> Iterator[None]:
        """Hold the library for one server; raises LibraryBusyError where another has it, and keeps
        it: a process that was just killed may leave a child that lets go a moment later."""
        self.root.mkdir(parents=True, exist_ok=True, mode=OWN_ONLY)
        with self._held(self.lock, LET_GO_S):
            yield

    @contextlib.contextmanager
    def _held(self, path: Path, patience_s: float) -> Iterator[None]:
        """Hold a lock that ends with the process, however that ends. Raises LibraryBusyError."""
        lock = FileLock(path, timeout=patience_s, thread_local=False)
        try:
            lock.acquire()
        except Timeout as error:
            raise LibraryBusyError(str(self.root)) from error
        try:
            yield
        finally:
            lock.release()

    def key(self) -> str:
        """What opens the pages of this library; made at its first start, for its owner's eyes
        alone, and kept so that pages that are open outlive a restart."""
        path = self.root / "key"
        if not path.exists():
            own_only = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
            with os.fdopen(own_only, "w", encoding="ascii") as file:
                file.write(secrets.token_urlsafe(24))
        return path.read_text(encoding="ascii").strip()

    @contextlib.contextmanager
    def worked_on(self) -> Iterator[None]:
        """Held by each worker process while it may write here."""
        self.workers.mkdir(exist_ok=True)
        mark = self.workers / str(os.getpid())
        with self._held(mark, WORKERS_LEAVE_S):
            yield

    def wait_for_workers(self) -> None:
        """Until no worker of a server that was killed writes here any more. Raises
        LibraryBusyError where one stays."""
        end = time.monotonic() + WORKERS_LEAVE_S
        for mark in self.workers.iterdir() if self.workers.is_dir() else ():
            with self._held(mark, max(0.0, end - time.monotonic())):
                pass
            mark.unlink(missing_ok=True)

    def clear(self, db: Connection) -> list[ClipRow]:
        """Put the originals of rejected films aside, for good after a week; path, copy, still and
        figures stay. Returns the films."""
        found = clips.rejected(db)
        for clip in found:
            with database.atomic(db):
                clips.set_cleared(db, clip.id, cleared=True)
            # Only once it is kept that it is so: ended in between, tidying puts the two together.
            self.agree(clip.file, cleared=True)
        return found

    def bring_back(self, db: Connection, clip_id: int) -> bool:
        """Take an original back from where it was put aside; False where it is gone for good."""
        clip = clips.by_id(db, clip_id)
        if clip.cleared_at is None or not self.aside(clip.file).is_file():
            return clip.cleared_at is None
        with database.atomic(db):
            clips.set_cleared(db, clip_id, cleared=False)
        self.agree(clip.file, cleared=False)
        return True

    def agree(self, file: str, *, cleared: bool) -> None:
        """Put an original where the store says that it is: aside, or among the originals."""
        for here, aside in self.homes_of(file):
            source, target = (here, aside) if cleared else (aside, here)
            if source.is_file():
                os.replace(source, target)

    def empty_cleared(self, db: Connection) -> int:
        """Remove what was put aside now; returns the bytes that this frees."""
        freed = 0
        for clip in clips.cleared(db):
            aside = self.aside(clip.file)
            if aside.is_file():
                freed += aside.stat().st_size
                aside.unlink()
        return freed

    def is_aside(self, clip: ClipRow) -> bool:
        """Whether an original that was cleared can still be brought back."""
        return self.aside(clip.file).is_file()

    def let_go(self, clip: ClipRow) -> None:
        """Remove an original that was put aside, for good."""
        for _, aside in self.homes_of(clip.file):
            aside.unlink(missing_ok=True)

    def forget(self, db: Connection, take_id: int) -> None:
        """Remove a take for good, with its film and all that was made from it, unless another
        take is a part of the same film."""
        clip = clips.by_id(db, takes.by_id(db, take_id).clip_id)
        made = [self.render_of(render.id) for render in renders.of_take(db, take_id)]
        with database.atomic(db):
            takes.remove(db, take_id)
            if not takes.of_clip(db, clip.id):
                clips.remove(db, clip.id)
                made += [self.copy_of(clip.sha256), self.still_of(clip.sha256)]
                made += self.places_of(clip.file)
                if self.second_disk is not None and not self.second_disk.is_here:
                    clips.note_removed(db, clip.file)
        for path in made:
            path.unlink(missing_ok=True)

    def add(
        self,
        db: Connection,
        stream: Readable,
        *,
        file_name: str,
        size_bytes: int | None,
        name: str | None = None,
        brief_id: int | None = None,
        setup_id: int | None = None,
        origin: Origin = "own",
    ) -> Imported:
        """Take a film in: stored whole under its content's name, or not at all, and queued.

        brief_id, setup_id: the last used ones where not given. origin: where it comes from.

        Raises MediaError where it is empty or the disk is full.
        """
        if size_bytes is not None and shutil.disk_usage(self.root).free < size_bytes + SPARE_BYTES:
            raise MediaError(*DISK_FULL)
        with self._received(stream) as arrived:
            return self.keep(
                db, arrived.path, sha256=arrived.sha256, size_bytes=arrived.size_bytes,
                file_name=file_name, name=name, brief_id=brief_id, setup_id=setup_id, origin=origin,
            )  # fmt: skip

    @contextlib.contextmanager
    def received(self, file: Path) -> Iterator[Arrived]:
        """A file of elsewhere, copied to where `keep` takes it from. Raises MediaError where it is
        empty or the disk is full."""
        if shutil.disk_usage(self.root).free < file.stat().st_size + SPARE_BYTES:
            raise MediaError(*DISK_FULL)
        with file.open("rb") as stream, self._received(stream) as arrived:
            yield arrived

    @contextlib.contextmanager
    def _received(self, stream: Readable) -> Iterator[Arrived]:
        arrived = Arrived(*self._receive(stream))
        try:
            yield arrived
        finally:
            arrived.path.unlink(missing_ok=True)

    def sign_of_life(self, pid: int) -> float:
        """When a worker last said that it waits, s; 0 where it never did."""
        try:
            return (self.workers / str(pid)).stat().st_mtime
        except OSError:
            return 0.0

    def give_sign_of_life(self) -> None:
        """Say that this worker waits for room, or for another program, though nothing can be
        written: a time of a file that is there already takes no room."""
        with contextlib.suppress(OSError):
            os.utime(self.workers / str(os.getpid()))

    def keep(
        self,
        db: Connection,
        arrived: Path,
        *,
        sha256: str,
        size_bytes: int,
        file_name: str,
        name: str | None = None,
        brief_id: int | None = None,
        setup_id: int | None = None,
        origin: Origin = "own",
    ) -> Imported:
        """Make a film that has arrived whole, on the library's own disk, one of its originals, see
        `add`. Its file is moved, unless the film is here already."""
        stored = f"{sha256}{_suffix(file_name)}"
        original = self.homes_of(stored)[0][0]
        moved = False
        try:
            # One after the other, so that the same film sent twice at once is one film.
            with database.atomic(db):
                existing = clips.by_hash(db, sha256)
                if existing is not None:
                    return self._again(db, existing, arrived)
                clip_id = clips.add(db, sha256=sha256, file=stored, size_bytes=size_bytes)
                take_id = takes.add(
                    db,
                    clip_id=clip_id,
                    name=name or readable_name(file_name),
                    brief_id=brief_id or briefs.usual(db).id,
                    setup_id=setup_id or kit.usual_setup_id(db),
                )
                takes.set_origin(db, take_id, origin)
                jobs.enqueue(db, "measure", clip_id)
                os.replace(arrived, original)
                moved = True
            return Imported(takes.by_id(db, take_id), duplicate=False)
        except BaseException as error:
            if moved:  # but not kept, because the store could not be written
                os.replace(original, arrived)
            if isinstance(error, NoRoomError):
                raise MediaError(*DISK_FULL) from error
            raise

    def _receive(self, stream: Readable) -> tuple[Path, str, int]:
        digest, size = hashlib.sha256(), 0
        with tempfile.NamedTemporaryFile(dir=self.incoming, delete=False) as arriving:
            path = Path(arriving.name)
            try:
                while chunk := stream.read(CHUNK_BYTES):
                    digest.update(chunk)
                    arriving.write(chunk)
                    size += len(chunk)
                arriving.flush()
                os.fsync(arriving.fileno())
            except BaseException as error:
                path.unlink(missing_ok=True)
                if isinstance(error, OSError) and error.errno == errno.ENOSPC:
                    raise MediaError(*DISK_FULL) from error
                raise
        if size == 0:
            path.unlink(missing_ok=True)
            raise UnreadableError(*EMPTY)
        return path, digest.hexdigest(), size

    def _again(self, db: Connection, clip: ClipRow, arrived: Path) -> Imported:
        """A film that is known is here again: its takes come back, and so does an original that was
        put aside, or is missing."""
        self.agree(clip.file, cleared=False)
        if not self.original(clip.file).is_file():
            os.replace(arrived, self.homes_of(clip.file)[0][0])
        clips.set_cleared(db, clip.id, cleared=False)
        found = takes.of_clip(db, clip.id)
        for take in found:
            if take.deleted_at is not None:
                takes.set_deleted(db, take.id, deleted=False)
        if found[0].state in ("failed", "cancelled"):
            jobs.enqueue(db, "measure", clip.id)
        return Imported(takes.by_id(db, found[0].id), duplicate=True)


def readable_name(file_name: str) -> str:
    """A take's first name from its file's: no folders, no suffix, no control characters."""
    stem = Path(file_name.replace("\\", "/")).stem
    words = re.sub(r"[\x00-\x1f\x7f]+", "", re.sub(r"[_]+", " ", stem)).strip()
    return words[:120] or "Untitled take"


def _suffix(file_name: str) -> str:
    """A harmless suffix to store a film under; its name is otherwise its content's."""
    suffix = Path(file_name).suffix.lower()
    return suffix if re.fullmatch(r"\.[a-z0-9]{1,5}", suffix) else ".film"
