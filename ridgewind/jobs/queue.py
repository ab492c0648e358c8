"""The persistent queue: huey on its own SQLite file.

A task is one number in, one stored measurement or rendered film out. Which clips and films still
need work is the store's to know (the tables `job` and `render`); the queue only hands numbers to
whichever process is free, so that losing it loses nothing, and another broker can take its place.
"""

from __future__ import annotations

import logging
from pathlib import Path

from huey import SqliteHuey

from ridgewind.library.library import Library
from ridgewind.store import database, jobs, renders
from ridgewind.store.database import Connection

log = logging.getLogger(__name__)


KINDS = ("measure", "render")
"""Two queues, each with a worker process of its own, so that a preview never waits for a card of
films to be measured."""


def open_queue(library: Library, kind: str) -> SqliteHuey:
    """One of the library's queues, with its task registered as `run`."""
    huey = SqliteHuey(name=f"ridgewind-{kind}", filename=str(library.queue), results=False)

    @huey.task(name=kind)
    def run(number: int) -> None:
        # Only a worker needs what measuring and rendering import.
        if kind == "render":
            from ridgewind.jobs.render import render_one  # noqa: PLC0415

            render_one(library, number)
        else:
            from ridgewind.jobs.measure import measure_clip  # noqa: PLC0415

            measure_clip(library, number)

    huey.run = run
    return huey


class Queue:
    """Hands waiting clips and renders to the workers."""

    def __init__(self, library: Library) -> None:
        self._library = library
        self._opened: dict[str, SqliteHuey] = {}

    def _huey(self, kind: str) -> SqliteHuey:
        """Opened at first use, so that an application can be made without a library."""
        if kind not in self._opened:
            self._opened[kind] = open_queue(self._library, kind)
        return self._opened[kind]

    def put(self, clip_id: int) -> None:
        """Let a clip be measured."""
        self._huey("measure").run(clip_id)

    def put_render(self, render_id: int) -> None:
        """Let a film be rendered."""
        self._huey("render").run(render_id)

    def refill(self, path: Path) -> int:
        """Queue everything that the store says is waiting or was interrupted; call at start.

        Returns how many clips. What the queue file still held is dropped first.
        """
        for kind in KINDS:
            self._huey(kind).flush()
        with database.opened(path) as db:
            with database.atomic(db):
                for job in jobs.interrupted(db):
                    recover(db, job)
                for render in renders.in_state(db, "running"):
                    renders.recover(db, render)
            waiting = jobs.waiting(db)
            films = renders.in_state(db, "queued")
        for clip_id in waiting:
            self.put(clip_id)
        for film in films:
            self.put_render(film.id)
        return len(waiting)

    def take_up(self, db: Connection, kind: str) -> None:
        """Queue again what a dead worker was doing."""
        if kind == "render":
            for render in renders.in_state(db, "running"):
                with database.atomic(db):
                    again = renders.recover(db, render)
                if again:
                    self.put_render(render.id)
            return
        for job in jobs.interrupted(db):
            with database.atomic(db):
                again = recover(db, job)
            if again:
                self.put(job.clip_id)


def recover(db: Connection, job: jobs.JobRow) -> bool:
    """Let an interrupted job wait again, or give it up; True where it waits again."""
    if job.cancel_requested:
        jobs.finish(db, job.clip_id, "cancelled")
        return False
    if job.attempts >= jobs.MOST_ATTEMPTS:
        jobs.fail(
            db,
            job.clip_id,
            code="crashed",
            what="measuring it ended the measuring process twice",
            next_step="convert the clip to H.264 in an mp4 file and bring that in",
        )
        return False
    jobs.put_back(db, job.clip_id)
    return True
