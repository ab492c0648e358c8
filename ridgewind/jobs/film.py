"""The filming task: a technique, a lens and a rate in; a simulated take out."""

from __future__ import annotations

from ridgewind.films.hand_filming import film_with_hand
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.running import KeepResult, Task, Watch, run_task
from ridgewind.library.library import Library
from ridgewind.services import own_hand
from ridgewind.store import database, hand_films, takes
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

UNFORESEEN = Fault(
    "internal",
    "filming it failed in a way that was not foreseen",
    "try another lens or technique",
)


def film_one(library: Library, film_id: int) -> None:
    """Film what was asked for, if it still waits."""
    run_task(library, Task("film", _film, UNFORESEEN, undo=_hide_take), film_id)


def _hide_take(library: Library, film_id: int) -> None:
    """Where it was stopped at the last moment."""
    with database.opened(library.database) as db, database.atomic(db):
        take_id = hand_films.by_id(db, film_id).take_id
        if take_id is not None:
            takes.set_deleted(db, take_id, deleted=True)


def _film(library: Library, db: Connection, film_id: int, watch: Watch) -> KeepResult:
    ask = hand_films.by_id(db, film_id).ask
    technique = own_hand.technique(own_hand.hands(db), ask.technique)
    take = film_with_hand(
        library,
        db,
        technique.hand,
        name=ask.name,
        focal_eq_mm=ask.focal_eq_mm,
        fps=ask.fps,
        seed=own_hand.film_seed(ask.name),
        on_progress=watch.feed,
    )
    with database.atomic(db):
        takes.set_own_focal(db, take.id, ask.focal_eq_mm)
        hand_films.filmed(db, film_id, take.id)
    Queue(library).put("measure", take.clip_id)
    return lambda: None
