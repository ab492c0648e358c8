"""Films that arrive in pieces: each needs its own size on the disk once, nothing that is too large,
or from elsewhere, is ever written down to be refused, and what has arrived outlives a restart.

What is here of an upload is a file under its key; beside it stands what it will be. Where a film
became a take, that stays for a day, so that whoever missed the answer can ask again.
"""

from __future__ import annotations

import errno
import hashlib
import json
import os
import secrets
import shutil
import threading
import time
from collections import defaultdict
from contextlib import suppress
from dataclasses import asdict, dataclass, replace
from pathlib import Path
from typing import Any

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.library.library import SPARE_BYTES, Imported, Library
from ridgewind.media.errors import DISK_FULL, EMPTY, MediaError, UnreadableError
from ridgewind.store import takes
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError

MOST_PIECE_BYTES = 8 << 20
FORGOTTEN_S = 24 * 3600.0
"""An upload that was not gone on with for so long is given up."""

READ_BYTES = 1 << 20


class OffsetError(Exception):
    """A piece does not begin where what is here ends."""


class ChecksumError(Exception):
    """A piece is not what was sent."""


@dataclass(frozen=True)
class Upload:
    """name: of the file. size_bytes: of the whole film. take_id: what it became; duplicate: that
    take was here before."""

    name: str
    size_bytes: int
    take_id: int | None = None
    duplicate: bool = False


class Uploads:
    """The films that are on their way into a library; safe between threads."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._guards: defaultdict[str, threading.Lock] = defaultdict(threading.Lock)
        self._digests: dict[str, tuple[int, Any]] = {}

    def begin(self, name: str, size_bytes: int) -> str:
        """Returns the key of a new upload. Raises MediaError where it is empty, or the disk has no
        room for it."""
        if size_bytes == 0:
            raise UnreadableError(*EMPTY)
        self._give_up_forgotten()
        if shutil.disk_usage(self._library.root).free < size_bytes + SPARE_BYTES:
            raise MediaError(*DISK_FULL)
        key = secrets.token_hex(16)
        self._write(key, Upload(name, size_bytes))
        self._film(key).touch()
        return key

    def received(self, key: str) -> tuple[int, int]:
        """How many bytes are here, and of how many. Raises NotFoundError."""
        upload = self._one(key)
        return self._received(key, upload), upload.size_bytes

    def arriving(self) -> int:
        """How many films are still on their way."""
        keys = [note.stem for note in self._library.uploads.glob("*.json")]
        found = 0
        for key in keys:
            with suppress(NotFoundError):
                found += self._one(key).take_id is None
        return found

    def put(self, key: str, offset: int, piece: bytes, *, sha256: bytes | None = None) -> int:
        """Append a piece; returns how much is here. sha256: of the piece, where it is told. Raises
        NotFoundError, OffsetError, ChecksumError, InvalidArgumentError where it is too much, and
        MediaError where the disk is full."""
        self._one(key)  # an unknown key gets no lock
        with self._guards[key]:
            upload = self._one(key)
            if offset != self._received(key, upload) or upload.take_id is not None:
                raise OffsetError
            if offset + len(piece) > upload.size_bytes:
                rule = f"the film was to be of {upload.size_bytes} bytes"
                raise InvalidArgumentError("offset", offset, rule)
            if sha256 is not None and hashlib.sha256(piece).digest() != sha256:
                raise ChecksumError
            try:
                with self._film(key).open("r+b") as film:
                    film.seek(offset)
                    film.write(piece)
            except OSError as error:
                with suppress(OSError):
                    os.truncate(self._film(key), offset)
                if error.errno == errno.ENOSPC:
                    raise MediaError(*DISK_FULL) from error
                raise
            self._digest(key, offset).update(piece)
            self._digests[key] = (offset + len(piece), self._digests[key][1])
            return offset + len(piece)

    def whole(self, key: str) -> Path:
        """The file of an upload that has arrived, until it is dropped. Raises NotFoundError, and
        InvalidArgumentError where it has not arrived whole."""
        received, size_bytes = self.received(key)
        self._require_whole(received, size_bytes)
        if not self._film(key).exists():
            raise NotFoundError("upload", key)
        return self._film(key)

    def finish(self, db: Connection, key: str) -> Imported:
        """Take the film in; asked again, it answers the same. Raises NotFoundError, MediaError, and
        InvalidArgumentError where it has not arrived whole."""
        self._one(key)
        with self._guards[key]:
            upload = self._one(key)
            if upload.take_id is not None:
                return Imported(takes.by_id(db, upload.take_id), duplicate=upload.duplicate)
            received = self._received(key, upload)
            self._require_whole(received, upload.size_bytes)
            digest = self._digest(key, received)
            with self._film(key).open("rb") as film:
                os.fsync(film.fileno())
            imported = self._library.keep(
                db,
                self._film(key),
                sha256=digest.hexdigest(),
                size_bytes=upload.size_bytes,
                file_name=upload.name,
            )
            done = replace(upload, take_id=imported.take.id, duplicate=imported.duplicate)
            self._write(key, done)
            self._film(key).unlink(missing_ok=True)
            self._digests.pop(key, None)
        return imported

    def drop(self, key: str) -> None:
        """Forget an upload and what has arrived of it; a take that it became stays."""
        with self._guards[key]:
            self._note(key).unlink(missing_ok=True)
            self._film(key).unlink(missing_ok=True)
            self._digests.pop(key, None)
        self._guards.pop(key, None)

    @staticmethod
    def _require_whole(received: int, size_bytes: int) -> None:
        if received != size_bytes:
            rule = f"{size_bytes - received} bytes are still to come"
            raise InvalidArgumentError("received", received, rule)

    def _digest(self, key: str, until: int) -> Any:
        """Of the first bytes of what is here; worked out anew where a restart has forgotten it."""
        known, digest = self._digests.get(key, (-1, None))
        if known != until:
            digest, left = hashlib.sha256(), until
            with self._film(key).open("rb") as film:
                while left and (chunk := film.read(min(READ_BYTES, left))):
                    digest.update(chunk)
                    left -= len(chunk)
        self._digests[key] = (until, digest)
        return digest

    def _received(self, key: str, upload: Upload) -> int:
        if upload.take_id is not None:
            return upload.size_bytes
        try:
            return self._film(key).stat().st_size
        except FileNotFoundError:
            raise NotFoundError("upload", key) from None

    def _one(self, key: str) -> Upload:
        try:
            return Upload(**json.loads(self._note(key).read_text(encoding="utf-8")))
        except (FileNotFoundError, ValueError, TypeError):
            raise NotFoundError("upload", key) from None

    def _write(self, key: str, upload: Upload) -> None:
        half = self._note(key).with_suffix(".half")
        try:
            half.write_text(json.dumps(asdict(upload)), encoding="utf-8")
        except OSError as error:
            half.unlink(missing_ok=True)
            if error.errno == errno.ENOSPC:
                raise MediaError(*DISK_FULL) from error
            raise
        half.replace(self._note(key))

    def _film(self, key: str) -> Path:
        return self._library.uploads / key

    def _note(self, key: str) -> Path:
        return self._library.uploads / f"{key}.json"

    def _give_up_forgotten(self) -> None:
        end_s = time.time() - FORGOTTEN_S
        for note in self._library.uploads.glob("*.json"):
            film = self._film(note.stem)
            newest = max(one.stat().st_mtime for one in (note, film) if one.exists())
            if newest < end_s:
                self.drop(note.stem)
