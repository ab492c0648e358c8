"""Errors of the store.

StoreError
├── NotFoundError      no such row
└── NewerSchemaError   the library was written by a newer Ridgewind
"""

from __future__ import annotations


class StoreError(Exception):
    """Base of everything that the store raises on purpose."""


class NotFoundError(StoreError):
    """No such row."""

    def __init__(self, what: str, key: int) -> None:
        super().__init__(f"there is no {what} {key}")
        self.what = what


class NewerSchemaError(StoreError):
    """The library was written by a newer Ridgewind."""
