"""Errors of the store.

StoreError
├── NotFoundError      no such row
│   └── MissingReferenceError   a row would point at none (also an IntegrityError of SQLite)
├── TypicalError       a typical entry that ships is not to be overwritten
├── NewerSchemaError   the library was written by a newer Ridgewind
└── StorageError       the file itself does not serve
    ├── BusyError      another program holds it; passes
    ├── NoRoomError    the disk is full or fails; passes once there is room
    └── DamagedError   it is no library, or a damaged one
"""

from __future__ import annotations

import sqlite3


class StoreError(Exception):
    """Base of everything that the store raises on purpose."""


class NotFoundError(StoreError):
    """No such row."""

    def __init__(self, what: str, key: int | str) -> None:
        super().__init__(f"there is no {what} {key}")
        self.what = what


class MissingReferenceError(NotFoundError, sqlite3.IntegrityError):
    """What is written points at something that is not there, or what goes is pointed at."""

    def __init__(self) -> None:
        super().__init__("entry that this points at", 0)


class TypicalError(StoreError):
    """A typical entry that ships is not to be overwritten."""

    def __init__(self, what: str, key: int | str) -> None:
        super().__init__(f"{what} {key} is a typical entry")
        self.what = what


class NewerSchemaError(StoreError):
    """The library was written by a newer Ridgewind."""


class StorageError(StoreError):
    """The file itself does not serve."""


class BusyError(StorageError):
    """Another program holds the file; passes."""


class NoRoomError(StorageError):
    """The disk is full, or fails; passes once there is room."""


class DamagedError(StorageError):
    """The file is no library, or a damaged one."""
