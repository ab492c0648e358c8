"""Whether a library can be written just now."""

from __future__ import annotations

import shutil

from ridgewind.library.library import Library
from ridgewind.store import database
from ridgewind.store.errors import DamagedError, NoRoomError, StorageError

LEAST_FREE_BYTES = 8 << 20
"""Under which nothing can be measured or kept for long."""

BUSY_S = 0.5
"""No write of ours takes so long; who holds the store longer is another program."""


def trouble(library: Library) -> StorageError | None:
    """Why nothing can be written, None where all is well."""
    if library.damaged_mark.exists():
        return DamagedError("the database was found damaged; it is mended at the next start")
    if shutil.disk_usage(library.root).free < LEAST_FREE_BYTES:
        return NoRoomError("the disk is full")
    try:
        with database.opened(library.database, busy_s=BUSY_S) as db, database.atomic(db):
            return None
    except StorageError as error:
        return error
