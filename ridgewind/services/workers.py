"""Letting other machines work for the library: each gets a long random key, of which the library
keeps the hash alone."""

from __future__ import annotations

import hashlib
import secrets

from ridgewind.store import database, workers
from ridgewind.store.database import Connection
from ridgewind.store.workers import WorkerRow

MOST_NAME = 40


def let_in(db: Connection, name: str) -> tuple[int, str]:
    """Let a machine in; returns its id and the key that it is to be given, which cannot be told
    again."""
    key = secrets.token_urlsafe(32)
    with database.atomic(db):
        number = workers.add(db, name.strip()[:MOST_NAME] or "Computer", _hash(key))
    return number, key


def worker_of(db: Connection, key: str) -> WorkerRow | None:
    """The machine that holds a key, None where none does."""
    return workers.by_key_hash(db, _hash(key)) if key else None


def every(db: Connection) -> list[WorkerRow]:
    """All machines that are let in, the newest first."""
    return workers.every(db)


def saw(db: Connection, worker_id: int) -> None:
    """A machine is here."""
    with database.atomic(db):
        workers.see(db, worker_id)


def remove(db: Connection, worker_id: int) -> None:
    """Let a machine in no more. Raises NotFoundError."""
    with database.atomic(db):
        workers.remove(db, worker_id)


def queue_name(library_key: str) -> str:
    """The library's name at a broker, which tells nothing of it."""
    return hashlib.sha256(f"queue {library_key}".encode()).hexdigest()[:16]


def _hash(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()
