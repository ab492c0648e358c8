"""What the list of takes could be narrowed by, in words and counted."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ridgewind.core.shake.causes import NAMES
from ridgewind.store import drills, kit, listing, sessions
from ridgewind.store.database import Connection
from ridgewind.store.listing import Filter

CHOICES = {"open": "Open", "keep": "Kept", "reject": "Rejected", "retake": "To film again"}

ORIGINS = {"own": "Your films", "simulated": "Simulated", "example": "Examples"}


@dataclass(frozen=True)
class Narrowing:
    """A value of a filter, how it is told, and how many takes it leaves."""

    value: str
    words: str
    takes: int


def values(db: Connection, only: Filter) -> dict[str, list[Narrowing]]:
    """By filter. Variations are told only under one drill: their keys are its own."""
    found = listing.counts(db, only=only)
    if only.drill_key is None:
        found["variation_key"] = []
    words = _words(db, only)
    return {
        name: [
            Narrowing(one.value, words.get(name, {}).get(one.value, one.value), one.takes)
            for one in counted
        ]
        for name, counted in found.items()
    }


def _words(db: Connection, only: Filter) -> Mapping[str, Mapping[str, str]]:
    shelf = drills.library(db, archived=True)
    drill = shelf.get(only.drill_key or "")
    return {
        "session_id": {str(key): name for key, name in sessions.names(db).items()},
        "drill_key": {key: one.name for key, one in shelf.items()},
        "variation_key": {} if drill is None else {one.key: one.name for one in drill.variations},
        "setup_id": {str(key): name for key, name in kit.setup_names(db).items()},
        "cause": NAMES,
        "choice": CHOICES,
        "origin": ORIGINS,
    }
