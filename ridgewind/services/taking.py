"""One take: everything that is said of it, what it points at, and whether it is measured."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.brief import Brief
from ridgewind.core.kit.items import Camera
from ridgewind.core.motion.path import Motion
from ridgewind.core.motion.sighting import Sighting
from ridgewind.core.shake.spectrum import Spectrum
from ridgewind.library.library import Library
from ridgewind.services import assessing, whose
from ridgewind.services.assessing import Judged
from ridgewind.services.errors import (
    NO_SHOT,
    NO_SUBJECT,
    NOT_MEASURED,
    NOTHING_ELSE,
    PUT_ASIDE,
    NotReadyError,
)
from ridgewind.services.whose import ShotDoubt
from ridgewind.store import (
    briefs,
    clips,
    database,
    jobs,
    kit,
    marks,
    motion_logs,
    subjects,
    summaries,
    takes,
    whose_motion,
)
from ridgewind.store.briefs import BriefRow
from ridgewind.store.database import Connection
from ridgewind.store.kit import SetupRow
from ridgewind.store.takes import TakeRow


@dataclass(frozen=True)
class TakeSheet:
    """A take with all that its page shows. background: cells of the picture that it was measured
    by alone, as the shooter said. brief, parent: its brief, and the named one that this
    departed from. camera: of its set-up. capture_fps: frames a second at which it was filmed, where
    it plays slower in its file. log: name of its motion log. marked: by the shooter's own eye.
    before_id, after_id: of its neighbours in the list."""

    judged: Judged
    doubts: list[ShotDoubt]
    background: frozenset[int]
    brief: BriefRow
    parent: BriefRow | None
    setup: SetupRow | None
    camera: Camera | None
    capture_fps: float | None
    log: str | None
    marked: bool | None
    before_id: int | None
    after_id: int | None


@dataclass(frozen=True)
class TakeChange:
    """What of a take is changed; None leaves a thing as it is. whole: judge all of its film;
    part: judge only that of it, s from its first frame.
    focal_eq_mm: of its own; given as () to go back to its set-up's. capture_fps: frames a second at
    which it was filmed; given as () to leave that to its file and its set-up. name: the shooter's
    own; given as () to go back to what it is filed under, or its file's."""

    brief_id: int | None = None
    setup_id: int | None = None
    whole: bool = False
    part: tuple[float, float] | None = None
    focal_eq_mm: float | tuple[()] | None = None
    capture_fps: float | tuple[()] | None = None
    name: str | tuple[()] | None = None


def sheet(db: Connection, take_id: int) -> TakeSheet:
    """Everything that is said of a take. Raises NotFoundError."""
    judged = assessing.judge(db, take_id)
    take = judged.take
    brief = briefs.by_id(db, take.brief_id)
    told: list[ShotDoubt] = []
    if judged.motion is not None:
        said = whose_motion.of_clip(db, take.clip_id)
        told = whose.doubts(judged.motion, said, screen_deg=brief.brief.screen_deg)
    setup = None if take.setup_id is None else kit.setup_by_id(db, take.setup_id)
    log = motion_logs.of_clip(db, take.clip_id)
    before_id, after_id = takes.neighbours(db, take_id)
    return TakeSheet(
        judged=judged,
        doubts=told,
        background=whose_motion.background_of(db, take.clip_id),
        brief=brief,
        parent=None if brief.parent_id is None else briefs.by_id(db, brief.parent_id),
        setup=setup,
        camera=None if setup is None else kit.parts_of(db, setup.ask).camera,
        capture_fps=assessing.slowed_from(db, take, judged.clip),
        log=None if log is None else log.name,
        marked=marks.one(db, take_id, view=marks.AS_SHOT),
        before_id=before_id,
        after_id=after_id,
    )


def change(db: Connection, take_id: int, asked: TakeChange) -> None:
    """Let a take point at another brief or set-up, or give it a focal length of its own; it is
    judged again without being measured again. Raises NotFoundError."""
    with database.atomic(db):
        takes.point(db, take_id, brief_id=asked.brief_id, setup_id=asked.setup_id)
        if asked.brief_id is not None:
            briefs.mark_used(db, asked.brief_id)
        if asked.setup_id is not None:
            kit.mark_setup_used(db, asked.setup_id)
        if asked.whole or asked.part is not None:
            takes.set_part(db, take_id, asked.part)
        if asked.focal_eq_mm is not None:
            takes.set_own_focal(db, take_id, asked.focal_eq_mm or None)
        if asked.capture_fps is not None:
            takes.set_own_capture(db, take_id, asked.capture_fps or None)
        if asked.name is not None:
            takes.set_own_name(db, take_id, asked.name or None)
        summaries.mark_take_stale(db, take_id)
    assessing.summarise(db, take_id)


def say_whose_motion(db: Connection, take_id: int, *, shot: int, rival: int) -> None:
    """Keep which motion of a shot is the camera's; every take of its film is judged anew, without
    being measured again. Raises NotFoundError, NotReadyError, InvalidArgumentError."""
    judged = assessing.judge(db, take_id)
    if judged.motion is None:
        raise NotReadyError(*NOT_MEASURED)
    with database.atomic(db):
        whose.say(db, take_id, shot=shot, rival=rival, motion=judged.motion)
        assessing.film_changed(db, judged.take.clip_id)
    assessing.summarise_film(db, judged.take.clip_id)


def name_background(db: Connection, take_id: int, cells: frozenset[int]) -> None:
    """Keep in which cells of the picture the background is seen. Settled at once where what was
    followed allows it, else by measuring the film again. Raises NotFoundError, NotReadyError,
    InvalidArgumentError."""
    judged = assessing.judge(db, take_id)
    if judged.motion is None:
        raise NotReadyError(*NOT_MEASURED)
    clip = judged.clip
    upright = (clip.height or 0) > (clip.width or 0)
    chosen = whose.chosen_by_region(judged.motion, cells, upright=upright)
    if chosen is not None and not whose_motion.background_of(db, clip.id):
        _say_all(db, judged, chosen)
    elif clip.cleared_at is not None:
        raise NotReadyError(*PUT_ASIDE)
    else:
        whose.measure_by(db, take_id, cells)


def leave_out_subject(db: Connection, take_id: int) -> None:
    """Judge a take's film by what is not the marked subject. Raises NotFoundError, and
    NotReadyError where none is marked, or nothing else was followed."""
    judged, subject = assessing.judge(db, take_id), subjects.of_take(db, take_id)
    if judged.motion is None:
        raise NotReadyError(*NOT_MEASURED)
    if subject is None:
        raise NotReadyError(*NO_SUBJECT)
    chosen = whose.chosen_without(judged.motion, subject.paths[0])
    if chosen is None:
        raise NotReadyError(*NOTHING_ELSE)
    _say_all(db, judged, chosen)


def _say_all(db: Connection, judged: Judged, chosen: whose.Chosen) -> None:
    assert judged.motion is not None
    with database.atomic(db):
        for shot, rival in chosen:
            whose.say(db, judged.take.id, shot=shot, rival=rival, motion=judged.motion)
        assessing.film_changed(db, judged.take.clip_id)
    assessing.summarise_film(db, judged.take.clip_id)


def points(
    db: Connection, take_id: int, *, from_s: float, to_s: float
) -> tuple[list[Sighting], list[Sighting], float]:
    """Where the points were that a take was worked out from, and those of other motions, between
    two times, s from the film's first frame; and when that is, s in the file."""
    motion, _ = measured_path(db, take_id)
    first_s = float(motion.t_s[0])
    told: list[Sighting] = []
    others: list[Sighting] = []
    for shot in motion.shots:
        told += shot.seen
        others += [one for rival in shot.rivals[1:] for one in rival.seen]

    def within(seen: list[Sighting]) -> list[Sighting]:
        return [one for one in seen if from_s <= one.t_s - first_s <= to_s]

    return within(told), within(others), first_s


def forget_whose_motion(db: Connection, take_id: int) -> None:
    """Take back what was said of the motions of a take's film. Raises NotFoundError, and
    NotReadyError where it would have to be measured again and its original was put aside."""
    clip = clips.by_id(db, takes.by_id(db, take_id).clip_id)
    if clip.cleared_at is not None and whose_motion.background_of(db, clip.id):
        raise NotReadyError(*PUT_ASIDE)
    with database.atomic(db):
        whose.forget(db, take_id)
        assessing.film_changed(db, clip.id)
    assessing.summarise_film(db, clip.id)


def change_own_brief(db: Connection, take_id: int, brief: Brief) -> None:
    """Change what is asked of this take alone. Raises NotFoundError."""
    with database.atomic(db):
        takes.set_own_brief(db, take_id, brief)
        summaries.mark_take_stale(db, take_id)
    assessing.summarise(db, take_id)


def delete(db: Connection, take_id: int) -> TakeRow:
    """Hide a take, and stop measuring it. Raises NotFoundError."""
    with database.atomic(db):
        takes.set_deleted(db, take_id, deleted=True)
        return cancel(db, take_id)


def restore(db: Connection, take_id: int) -> TakeRow:
    """Bring a deleted take back; it waits to be measured where it never was."""
    with database.atomic(db):
        takes.set_deleted(db, take_id, deleted=False)
        take = takes.by_id(db, take_id)
        stopping = jobs.is_stopping(db, "measure", take.clip_id)
        if stopping or (take.state == "cancelled" and take.remedy is None):
            jobs.enqueue(db, "measure", take.clip_id)
        return takes.by_id(db, take_id)


def cancel(db: Connection, take_id: int) -> TakeRow:
    """Stop measuring a take."""
    with database.atomic(db):
        jobs.request_cancel(db, "measure", takes.by_id(db, take_id).clip_id)
        return takes.by_id(db, take_id)


def make_copy_again(library: Library, db: Connection, take_id: int) -> int | None:
    """Let the copy that a browser plays be made anew, in the pass that measures the film; returns
    the clip that waits now, or None if nothing can be made, or it is on its way."""
    clip = clips.by_id(db, takes.by_id(db, take_id).clip_id)
    job = jobs.one(db, "measure", clip.id)
    has_picture = clip.codec not in (None, clips.LOG_CODEC)
    if not has_picture or job is None or job.state != "done":
        return None
    if library.is_away(clip.file) or not library.film(clip.file).is_file():
        return None
    with database.atomic(db):
        jobs.enqueue(db, "measure", clip.id)
    return clip.id


def measure_again(db: Connection, take_id: int) -> TakeRow:
    """Let a take wait that failed, was cancelled or is about to be; others stay as they are."""
    with database.atomic(db):
        take = takes.by_id(db, take_id)
        stopping = jobs.is_stopping(db, "measure", take.clip_id)
        if stopping or take.state in ("failed", "cancelled"):
            jobs.enqueue(db, "measure", take.clip_id)
        return takes.by_id(db, take_id)


def measured_path(db: Connection, take_id: int) -> tuple[Motion, Judged]:
    """The path of a take's film. Raises NotReadyError."""
    judged = assessing.judge(db, take_id)
    if judged.motion is None:
        raise NotReadyError(*NOT_MEASURED)
    return judged.motion, judged


def spectrum(db: Connection, take_id: int) -> Spectrum:
    """The shake of a take by frequency. Raises NotReadyError."""
    judged = assessing.judge(db, take_id)
    found = None if judged.assessment is None else assessing.spectrum(judged.assessment)
    if found is None:
        raise NotReadyError(*NO_SHOT)
    return found
