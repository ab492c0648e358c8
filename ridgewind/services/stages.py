"""Runners in step: which screen runs a session, where it is, and what others ask of it.

A session is run by one screen at a time, the holder; it says where it is a few times a second and
takes the others' wishes with the answer. Kept in memory: a runner goes on by itself without it.
"""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

Wish = Literal["go", "pause", "skip", "repeat", "undo"]

HELD_S = 4.0
"""After which a holder that says nothing has let go."""

MOST_WISHES = 8


@dataclass(frozen=True)
class Place:
    """Where a runner is. at: of its steps, past the last where it is done. elapsed_s: of the step,
    at the clock's own speed. grown_s: by which a rest has grown. speed: of the clock against life.
    can_undo: a skip or repeat may be taken back. slates: they are among its steps."""

    at: int
    running: bool
    elapsed_s: float
    grown_s: float
    speed: float
    can_undo: bool
    slates: bool


@dataclass(frozen=True)
class Stage:
    """holder: of the screen that runs it. name: as people call that screen. age_s: since it said
    where it is."""

    holder: str
    name: str
    place: Place
    age_s: float


@dataclass
class _Held:
    holder: str
    name: str
    place: Place
    told_s: float
    wishes: list[Wish]


class Stages:
    """The runners of one server; safe between threads. clock: seconds that only grow."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
        self._guard = threading.Lock()
        self._held: dict[int, _Held] = {}

    def stage(self, session_id: int) -> Stage | None:
        """Who runs a session, None where nobody does."""
        with self._guard:
            held = self._living(session_id)
            if held is None:
                return None
            return Stage(held.holder, held.name, held.place, self._clock() - held.told_s)

    def tell(
        self, session_id: int, holder: str, name: str, place: Place, *, take_over: bool = False
    ) -> list[Wish] | None:
        """Say where the session is; returns what is asked of it, each wish once. None where another
        screen runs it, unless it is taken over."""
        with self._guard:
            held = self._living(session_id)
            if held is not None and held.holder != holder and not take_over:
                return None
            wishes = held.wishes if held is not None and held.holder == holder else []
            self._held[session_id] = _Held(holder, name, place, self._clock(), [])
            return wishes

    def wish(self, session_id: int, wish: Wish) -> bool:
        """Ask something of the screen that runs a session; whether one does."""
        with self._guard:
            held = self._living(session_id)
            if held is None or len(held.wishes) >= MOST_WISHES:
                return False
            held.wishes.append(wish)
            return True

    def leave(self, session_id: int, holder: str) -> None:
        """The screen runs it no more."""
        with self._guard:
            held = self._held.get(session_id)
            if held is not None and held.holder == holder:
                del self._held[session_id]

    def _living(self, session_id: int) -> _Held | None:
        held = self._held.get(session_id)
        if held is not None and self._clock() - held.told_s > HELD_S:
            del self._held[session_id]
            return None
        return held
