"""The following task: a point that was marked in a take's picture in; where it went out."""

from __future__ import annotations

from ridgewind.core.motion.subject import Subject
from ridgewind.films.following import followed
from ridgewind.jobs.running import Cancelled, KeepResult, Task, Watch, run_task
from ridgewind.library.library import Library
from ridgewind.services import assessing
from ridgewind.store import clips, database, jobs, subjects, summaries, takes
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

UNFORESEEN = Fault(
    "internal",
    "following it failed in a way that was not foreseen",
    "mark it at another moment",
)


def follow_one(library: Library, take_id: int) -> None:
    """Follow what was marked in one take, if it still waits."""
    run_task(library, Task("follow", _follow, UNFORESEEN), take_id)
    with database.opened(library.database) as db:
        work = jobs.one(db, "follow", take_id)
        if work is not None and work.state == "done":
            assessing.summarise(db, take_id)


def _follow(library: Library, db: Connection, take_id: int, watch: Watch) -> KeepResult:
    asked, known = subjects.asked(db, take_id), subjects.of_take(db, take_id)
    if asked is None or (asked.second and known is None):
        raise Cancelled  # it was let go meanwhile
    clip = clips.by_id(db, takes.by_id(db, take_id).clip_id)
    path = followed(
        library.film(clip.file),
        asked.mark,
        rate_hz=clip.fps,
        length_s=clip.duration_s,
        on_progress=watch.feed,
    )
    subject = Subject((asked.mark,), (path,))
    if asked.second and known is not None:
        subject = Subject((known.marks[0], asked.mark), (known.paths[0], path))

    def keep() -> None:
        subjects.put(db, take_id, subject)
        summaries.mark_take_stale(db, take_id)

    return keep
