"""The copying task: films of a folder or card in, one after the other; takes out.

What became of each film is kept at once, so that a copy which was broken off goes on where it was.
"""

from __future__ import annotations

from ridgewind.jobs.queue import Queue
from ridgewind.jobs.running import KeepResult, Task, Watch, run_task
from ridgewind.library import folders
from ridgewind.library.library import Library
from ridgewind.media.errors import DISK_FULL, MediaError
from ridgewind.store import database, folder_copies
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

UNFORESEEN = Fault(
    "internal",
    "copying failed in a way that was not foreseen",
    "bring the rest in again",
)


def copy_films(library: Library, copy_id: int) -> None:
    """Bring the films of one copy in, if it is still waiting."""
    run_task(library, Task("copy", _copy, UNFORESEEN), copy_id)


def _copy(library: Library, db: Connection, copy_id: int, watch: Watch) -> KeepResult:
    copy = folder_copies.by_id(db, copy_id)
    queue = Queue(library)
    for film in copy.films:
        if film.settled:
            continue

        def tell(share: float, before: int = film.position) -> None:
            watch.feed((before + share) / len(copy.films))

        try:
            found = folders.bring_in(library, db, copy.root, film.file, on_progress=tell)
        except MediaError as error:
            if error.code == DISK_FULL[0]:
                raise  # it waits for room, and goes on with this film
            with database.atomic(db):
                folder_copies.refused(
                    db, copy_id, film.position, what=error.what, next_step=error.next_step
                )
            continue
        with database.atomic(db):
            folder_copies.brought_in(
                db, copy_id, film.position, take_id=found.take.id, duplicate=found.duplicate
            )
        if found.take.state == "queued":
            queue.put("measure", found.take.clip_id)
    return lambda: None
