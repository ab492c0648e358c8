"""The measuring task: a film in; its path, browser copy and still out."""

from __future__ import annotations

import logging

from ridgewind.core.motion import METHOD
from ridgewind.films import orders, splitting
from ridgewind.films.measuring import Measured
from ridgewind.films.orders import MeasureOrder, MeasureResult
from ridgewind.jobs.running import KeepResult, Task, Watch, patiently, run_task
from ridgewind.library.library import Library
from ridgewind.services import assessing
from ridgewind.store import clips, sessions, takes, whose_motion
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

log = logging.getLogger(__name__)

UNFORESEEN = Fault(
    "internal",
    "measuring it failed in a way that was not foreseen",
    "try again, or convert the clip to H.264 in an mp4 file",
)


def measure_clip(library: Library, clip_id: int) -> None:
    """Measure one clip if it is still waiting, and store all of it or nothing."""
    run_task(library, Task("measure", _measure, UNFORESEEN), clip_id)


def order_of(db: Connection, clip_id: int) -> MeasureOrder:
    """What is to be known beside the film."""
    planned = sessions.planned_seconds(db)
    return MeasureOrder(whose_motion.background_of(db, clip_id), planned or None)


def keep(db: Connection, clip_id: int, result: MeasureResult) -> None:
    """Keep what measuring found; call in a transaction. The takes are judged after it."""
    measured = result.measured
    clips.store_measurement(
        db, clip_id, facts=_facts(measured), motion=measured.motion, method=METHOD
    )
    splitting.split(db, clip_id, result.slates, length_s=measured.duration_s)
    assessing.film_changed(db, clip_id)


def _measure(library: Library, db: Connection, clip_id: int, watch: Watch) -> KeepResult:
    clip = clips.by_id(db, clip_id)
    result = orders.measure(
        library.film(clip.file),
        order_of(db, clip_id),
        copy=library.copy_of(clip.sha256),
        still=library.still_of(clip.sha256),
        on_progress=watch.feed,
    )
    # Kept before it is judged, which takes seconds for an hour of film and must lock nobody out.
    patiently(db, lambda: keep(db, clip_id, result))
    for take in takes.of_clip(db, clip_id):
        try:
            assessing.summarise(db, take.id)
        except Exception:
            log.exception("take %s could not be judged; its measurement is kept", take.id)
    return lambda: None


def _facts(measured: Measured) -> clips.ClipFactsRow:
    names = clips.ClipFactsRow.__dataclass_fields__
    return clips.ClipFactsRow(**{name: getattr(measured, name) for name in names})
