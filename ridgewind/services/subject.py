"""A take's marked subject: asked to be followed, stopped, let go and brought back."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.subject import Mark, Subject
from ridgewind.services import assessing
from ridgewind.services.assessing import Judged
from ridgewind.services.errors import NO_SUBJECT, GoneError
from ridgewind.store import clips, database, jobs, subjects, summaries, takes
from ridgewind.store.database import Connection
from ridgewind.store.jobs import JobRow
from ridgewind.store.subjects import AskRow

KIND: jobs.Kind = "follow"


@dataclass(frozen=True)
class SubjectSheet:
    """subject: None where none is marked. work: of the point that is followed or was last, None
    where none ever was."""

    subject: Subject | None
    work: JobRow | None
    judged: Judged


def sheet(db: Connection, take_id: int) -> SubjectSheet:
    """A take's subject. Raises NotFoundError."""
    judged = assessing.judge(db, take_id)
    return SubjectSheet(subjects.of_take(db, take_id), jobs.one(db, KIND, take_id), judged)


def ask(db: Connection, take_id: int, mark: Mark, *, second: bool) -> None:
    """Let a marked point be followed; put the take on the queue after it. second: it is another
    point of what is marked already. Raises NotFoundError, and InvalidArgumentError for a mark
    after the film or a second one without a first."""
    clip = clips.by_id(db, takes.by_id(db, take_id).clip_id)
    if clip.duration_s is not None and mark.at_s > clip.duration_s:
        raise InvalidArgumentError("at_s", mark.at_s, "it must lie within the film")
    if second and subjects.of_take(db, take_id) is None:
        raise InvalidArgumentError("second", second, "a first point must be marked before it")
    with database.atomic(db):
        subjects.ask(db, take_id, AskRow(mark, second))


def stop(db: Connection, take_id: int) -> None:
    """Follow no further, or forget that it failed; what was marked before stays."""
    with database.atomic(db):
        _end(db, take_id)


def _end(db: Connection, take_id: int) -> None:
    work = jobs.one(db, KIND, take_id)
    if work is not None and work.state == "failed":
        jobs.forget(db, KIND, take_id)
    else:
        jobs.request_cancel(db, KIND, take_id)


def let_go(db: Connection, take_id: int) -> None:
    """Take the mark away; what it could do for the take goes with it."""
    with database.atomic(db):
        _end(db, take_id)
        subjects.let_go(db, take_id)
        summaries.mark_take_stale(db, take_id)
    assessing.summarise(db, take_id)


def bring_back(db: Connection, take_id: int) -> None:
    """Bring back the subject that was let go. Raises GoneError."""
    with database.atomic(db):
        if not subjects.bring_back(db, take_id):
            raise GoneError(*NO_SUBJECT)
        summaries.mark_take_stale(db, take_id)
    assessing.summarise(db, take_id)
