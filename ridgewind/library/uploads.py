"""Films that arrive in pieces: each needs its own size on the disk once, and nothing that is too
large, or from elsewhere, is ever written down to be refused."""

from __future__ import annotations

import errno
import hashlib
import os
import secrets
import shutil
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.library.library import SPARE_BYTES, Imported, Library
from ridgewind.media.errors import DISK_FULL, EMPTY, MediaError, UnreadableError
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError

MOST_PIECE_BYTES = 8 << 20
FORGOTTEN_S = 24 * 3600.0
"""An upload that was not gone on with for so long is given up."""


@dataclass
class _Upload:
    name: str
    size_bytes: int
    path: Path
    received: int = 0
    digest: Any = field(default_factory=hashlib.sha256)
    guard: threading.Lock = field(default_factory=threading.Lock)
    touched_s: float = field(default_factory=time.monotonic)


class Uploads:
    """The films that are on their way into a library; those of an earlier start are gone."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._under_way: dict[str, _Upload] = {}

    def begin(self, name: str, size_bytes: int) -> str:
        """Returns the key of a new upload. Raises MediaError where it is empty, or the disk has no
        room for it."""
        if size_bytes == 0:
            raise UnreadableError(*EMPTY)
        self._give_up_forgotten()
        if shutil.disk_usage(self._library.root).free < size_bytes + SPARE_BYTES:
            raise MediaError(*DISK_FULL)
        key = secrets.token_hex(16)
        path = self._library.incoming / key
        path.touch()
        self._under_way[key] = _Upload(name, size_bytes, path)
        return key

    def put(self, key: str, offset: int, piece: bytes) -> int:
        """Append a piece; returns how much has arrived. A piece that is here already is passed
        over, so that it can be sent again. Raises NotFoundError, InvalidArgumentError, and
        MediaError where the disk is full."""
        upload = self._one(key)
        with upload.guard:
            if offset + len(piece) == upload.received and piece:
                return upload.received
            if offset != upload.received or offset + len(piece) > upload.size_bytes:
                raise InvalidArgumentError(
                    "offset", offset, f"the next piece begins at {upload.received}"
                )
            try:
                with upload.path.open("r+b") as film:
                    film.truncate(offset)
                    film.seek(offset)
                    film.write(piece)
            except OSError as error:
                if error.errno == errno.ENOSPC:
                    raise MediaError(*DISK_FULL) from error
                raise
            upload.digest.update(piece)
            upload.received += len(piece)
            upload.touched_s = time.monotonic()
            return upload.received

    def finish(self, db: Connection, key: str) -> Imported:
        """Take the film in. Raises NotFoundError, MediaError, and InvalidArgumentError where it has
        not arrived whole."""
        upload = self._one(key)
        with upload.guard:
            if upload.received != upload.size_bytes:
                rule = f"{upload.size_bytes - upload.received} bytes are still to come"
                raise InvalidArgumentError("received", upload.received, rule)
            with upload.path.open("rb") as film:
                os.fsync(film.fileno())
            imported = self._library.keep(
                db,
                upload.path,
                sha256=upload.digest.hexdigest(),
                size_bytes=upload.size_bytes,
                file_name=upload.name,
            )
        self.drop(key)
        return imported

    def drop(self, key: str) -> None:
        """Forget an upload and what has arrived of it."""
        upload = self._under_way.pop(key, None)
        if upload is not None:
            upload.path.unlink(missing_ok=True)

    def _one(self, key: str) -> _Upload:
        found = self._under_way.get(key)
        if found is None:
            raise NotFoundError("upload", key)
        return found

    def _give_up_forgotten(self) -> None:
        end_s = time.monotonic() - FORGOTTEN_S
        for key, upload in list(self._under_way.items()):
            if upload.touched_s < end_s:
                self.drop(key)
