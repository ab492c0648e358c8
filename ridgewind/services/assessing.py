"""Judge a stored path under a take's brief, and keep what the list shows of it."""

from __future__ import annotations

import logging
import threading
import time
from collections import OrderedDict
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

import numpy as np

from ridgewind.core.clip import USUAL_SHUTTER, Clip, stretch_of
from ridgewind.core.judge import Analysis, Assessment, assess
from ridgewind.core.judge.verdict import Verdict, verdict_from
from ridgewind.core.motion.path import Motion, clipped
from ridgewind.core.motion.subject import Subject
from ridgewind.core.shake.reading import MOST_KEPT
from ridgewind.core.shake.spectrum import LEAST_SAMPLES, Spectrum, spectrum_of
from ridgewind.core.shake.trace import Trace, trace
from ridgewind.services.figures import figures_of, hand_of, lasting_of
from ridgewind.services.whose import as_said
from ridgewind.store import (
    clips,
    database,
    drills,
    kit,
    settings,
    subjects,
    summaries,
    takes,
    whose_motion,
)
from ridgewind.store.clips import LOG_CODEC, ClipRow
from ridgewind.store.database import Connection
from ridgewind.store.errors import StorageError
from ridgewind.store.takes import TakeRow
from ridgewind.store.whose_motion import SaidRow

log = logging.getLogger(__name__)

RIDGE_COLUMNS = 48
RIDGE_BANDS = 5
RIDGE_STEPS_PER_GUST = 25.0
"""Bytes of the small ridge: heights in 25ths of a gust, near bands first, per column."""

SAME_RATE = 0.02
LEAST_STRETCH = 1.8
"""Ratio of the two rates from which a file's word on how it was filmed is believed (chosen here: 60
played at 30 is 2, and a phone that falls from 30 to 24 in low light is 1.25)."""

LEAST_PART_FRAMES = 12
APART_S = 600.0
"""For which a take that could not be judged is left alone."""

LONG_FRAMES = range(5000, MOST_KEPT)
"""Of which a judgement is worked out in parts side by side: of fewer it takes some twenty
milliseconds, and three threads one; of more it takes much memory, and at once three times that."""

TRACE_POINTS = 1600
"""Points of the large trace: more than its pixels across."""


@dataclass(frozen=True)
class Judged:
    """A take with everything that is recomputed from its path; assessment and the rest are
    None while it has not been measured. motion: of the whole film; what is judged may be a part
    of it."""

    take: TakeRow
    clip: ClipRow
    motion: Motion | None
    assessment: Assessment | None
    trace: Trace | None


def judge(db: Connection, take_id: int) -> Judged:
    """Read and decide a take under its brief. Raises NotFoundError."""
    with database.of_one_moment(db):  # its film may be done being measured in between
        take = takes.by_id(db, take_id)
        clip = clips.by_id(db, take.clip_id)
        motion, analysis = analysis_of(db, take, clip)
    if analysis is None:
        return Judged(take, clip, None, None, None)
    facts = judged_clip(db, take, clip)
    assessment = assess(
        analysis,
        facts,
        take.brief,
        weights=settings.weights(db),
        subject=subject_of(db, take_id, motion),
        side_by_side=side_by_side if len(analysis.motion.t_s) in LONG_FRAMES else None,
    )
    line = trace(
        assessment.reading,
        assessment.band_powers,
        screen_deg=take.brief.screen_deg,
        most_points=TRACE_POINTS,
    )
    return Judged(take, clip, motion, assessment, line)


def side_by_side(parts: Sequence[Callable[[], object]]) -> None:
    """Have parts of one judgement worked out at the same time: nearly all of it is done by what
    leaves the other threads alone. Raises what the first that fails does."""
    with ThreadPoolExecutor(len(parts)) as pool:
        for part in [pool.submit(one) for one in parts]:
            part.result()


def subject_of(db: Connection, take_id: int, motion: Motion | None) -> Subject | None:
    """The marked subject of a take, s in the file. motion: of the whole film."""
    found = subjects.of_take(db, take_id)
    if found is None or motion is None or not len(motion.t_s):
        return None
    return found.later(float(motion.t_s[0]))


def spectrum(assessment: Assessment) -> Spectrum | None:
    """The spectrum of the shot that shakes most; None where none is long enough."""
    shots = [shot for shot in assessment.reading.shots if len(shot.speeds) >= LEAST_SAMPLES]
    if not shots:
        return None
    shot = max(shots, key=lambda one: float(one.power[one.counted].sum()))
    return spectrum_of(np.where(shot.counted[:, None], shot.speeds, 0.0), rate_hz=shot.rate_hz)


def summarise(db: Connection, take_id: int) -> Judged:
    """Judge a take and store its line in the list, in one write. Call outside of a transaction:
    judging an hour of film takes seconds, in which nobody else could write."""
    staleness = summaries.staleness(db, take_id)
    judged = judge(db, take_id)
    if judged.assessment is None or judged.trace is None or judged.motion is None:
        return judged
    found, settled = judged.assessment, judged.assessment.doubt is None
    with database.atomic(db):
        # Nothing is put on record of a path that is in doubt.
        summaries.put(
            db,
            take_id,
            gust=found.gust if settled else None,
            peak_gust=found.peak_gust if settled else None,
            remedy=found.decision.remedy,
            ridge=small_ridge(judged.trace),
            speed_pct_s=found.speed_pct_s if settled else None,
            top_band=top_band(found) if settled else None,
            cause=first_cause(found) if settled else None,
            trusted_share=found.reading.trusted_share,
            figures=figures_of(found, subject_of(db, take_id, judged.motion)) if settled else {},
            lasting=lasting_of(found) if settled else None,
            turning=hand_of(found, judged.take.focal_eq_mm) if settled else None,
            verdict=verdict_from(found, judged.motion),
            staleness=staleness,
        )
    return judged


def verdict_of(db: Connection, take_id: int) -> Verdict | None:
    """What is kept of a take's verdict, worked out where that is out of date; None while it is not
    measured. Raises NotFoundError."""
    kept = summaries.verdict(db, take_id)
    if kept is not None:
        return kept
    judged = judge(db, take_id)
    if judged.assessment is None or judged.motion is None:
        return None
    return verdict_from(judged.assessment, judged.motion)


def summarise_film(db: Connection, clip_id: int) -> None:
    """Judge every take of a film, see `summarise`."""
    for take in takes.of_clip(db, clip_id):
        summarise(db, take.id)


def film_changed(db: Connection, clip_id: int) -> None:
    """The lines of all takes of a film are out of date; call in the transaction that changes it."""
    for take in takes.of_clip(db, clip_id):
        summaries.mark_take_stale(db, take.id)


def top_band(assessment: Assessment) -> str | None:
    """The band with the largest share."""
    shown = [band for band in assessment.bands if band.share is not None]
    return max(shown, key=lambda band: band.share or 0.0).name if shown else None


def first_cause(assessment: Assessment) -> str | None:
    """The key of the first cause that is named."""
    causes = assessment.causes.causes
    return causes[0].key if causes else None


def refresh(
    db: Connection,
    *,
    budget_s: float,
    on_fault: Callable[[Exception], None] = lambda _error: None,
) -> int:
    """Judge again what a changed brief has made stale, newest first, for at most about
    budget_s; returns how many are left. One that cannot be judged is set apart for a while, so that
    it stops no other; on_fault is told of it."""
    end = time.monotonic() + budget_s
    while waiting := summaries.stale_ids(db, limit=20, without=_apart.now()):
        for take_id in waiting:
            try:
                if summarise(db, take_id).assessment is None:
                    with database.atomic(db):
                        summaries.forget(db, take_id)
            except StorageError:
                raise
            except Exception as error:
                log.exception("take %s cannot be judged; it is tried again later", take_id)
                _apart.put(take_id)
                on_fault(error)
            if time.monotonic() > end:
                return summaries.stale_count(db, without=_apart.now())
    return 0


class _Apart:
    """Takes that could not be judged, each until it is tried again; safe between threads."""

    def __init__(self) -> None:
        self._until_s: dict[int, float] = {}
        self._guard = threading.Lock()

    def put(self, take_id: int) -> None:
        with self._guard:
            self._until_s[take_id] = time.monotonic() + APART_S

    def now(self) -> list[int]:
        with self._guard:
            now = time.monotonic()
            self._until_s = {one: until for one, until in self._until_s.items() if until > now}
            return list(self._until_s)


_apart = _Apart()


def small_ridge(line: Trace) -> bytes:
    """RIDGE_COLUMNS by RIDGE_BANDS bytes: heights reached by buzz, jitter, step, sway, drift,
    each on top of the last; all zero where not measured."""
    if not len(line.t_s):
        return b""
    edges = np.linspace(line.t_s[0], line.t_s[-1], RIDGE_COLUMNS + 1)
    columns = np.clip(np.searchsorted(edges, line.t_s, side="right") - 1, 0, RIDGE_COLUMNS - 1)
    heights = np.nan_to_num(line.gust)[:, None] * np.cumsum(line.shares[:, ::-1], axis=1)
    out = np.zeros((RIDGE_COLUMNS, RIDGE_BANDS))
    for column in range(RIDGE_COLUMNS):
        inside = columns == column
        if inside.any():
            out[column] = heights[inside].mean(axis=0)
        elif column:
            out[column] = out[column - 1]
    return np.clip(np.round(out * RIDGE_STEPS_PER_GUST), 0, 255).astype(np.uint8).tobytes()


def _move_expected(db: Connection, take: TakeRow) -> bool:
    """Whether the drill that a take is filed under asks for a move."""
    drill = (
        None if take.drill_key is None else drills.library(db, archived=True).get(take.drill_key)
    )
    return drill is not None and drill.tempo == "move"


def analysis_of(
    db: Connection, take: TakeRow, clip: ClipRow
) -> tuple[Motion | None, Analysis | None]:
    """The path of the whole film, and the analysis of the part that a take is; None while it has
    not been measured."""
    return _analyses.get(db, clip, take)


def judged_clip(db: Connection, take: TakeRow, clip: ClipRow) -> Clip:
    """What the judgement needs of a measured film and its set-up."""
    assert clip.fps is not None
    assert clip.duration_s is not None
    assert clip.width is not None
    assert clip.height is not None
    duration_s = clip.duration_s
    if take.judged_part is not None:
        from_s, to_s = take.judged_part
        duration_s = min(to_s, duration_s) - from_s
    # A log alone has no frames that could be played slower.
    fps = take.brief.delivery_fps if clip.codec == LOG_CODEC else clip.fps
    return Clip(
        fps=fps,
        duration_s=duration_s,
        has_sound=bool(clip.has_sound),
        size_px=(clip.width, clip.height),
        focal_eq_mm=take.focal_eq_mm,
        move_expected=_move_expected(db, take),
        capture_fps=None if clip.codec == LOG_CODEC else capture_fps(db, take, clip),
        shutter_share=_shutter_share(db, take, fps),
        readout_s=_readout_s(db, take),
    )


def capture_fps(db: Connection, take: TakeRow, clip: ClipRow) -> float | None:
    """Frames a second at which a take was filmed, as the shooter says, else its file, else its
    set-up where that slows its films; None where the film plays as it was filmed. A file is
    believed only where it plays at quite another rate: phones write the rate that was asked for
    into every film, also where the light made them fall from it."""
    if take.own_capture_fps is not None:
        return take.own_capture_fps
    told = clip.file_capture_fps
    if told is not None and clip.fps is not None:
        slower = told / clip.fps
        return told if max(slower, 1.0 / slower) >= LEAST_STRETCH else None
    if take.setup_id is None:
        return None
    optics = kit.setup_by_id(db, take.setup_id).ask.optics
    return optics.rate_hz if optics.stretched else None


def slowed_from(db: Connection, take: TakeRow, clip: ClipRow) -> float | None:
    """The same for the page: None too where the two rates are one."""
    told = capture_fps(db, take, clip)
    slowed = clip.fps is not None and stretch_of(clip.fps, told) != 1.0
    return told if slowed else None


def _shutter_share(db: Connection, take: TakeRow, fps: float) -> float:
    """Share of the frame interval that the shutter was open: as the shooter's own set-up says,
    where the film has the rate that it speaks of, else a half."""
    if take.setup_id is None:
        return USUAL_SHUTTER
    setup = kit.setup_by_id(db, take.setup_id)
    shutter, rate_hz = setup.ask.optics.shutter, setup.ask.optics.rate_hz
    if setup.typical or shutter is None or abs(fps - rate_hz) > SAME_RATE * rate_hz:
        return USUAL_SHUTTER
    return min(1.0, fps / shutter)


def _readout_s(db: Connection, take: TakeRow) -> float | None:
    """In which the sensor reads a frame, as the shooter's own set-up says."""
    setup = None if take.setup_id is None else kit.setup_by_id(db, take.setup_id)
    if setup is None or setup.typical:
        return None
    read_out_ms = kit.parts_of(db, setup.ask).camera.read_out_ms
    return None if read_out_ms is None else read_out_ms / 1000.0


JudgedPart = tuple[float, float] | None
Key = tuple[str, str, JudgedPart, float, float, tuple[SaidRow, ...]]


def path_key(db: Connection, take: TakeRow, clip: ClipRow) -> Key | None:
    """Names all that the path of a take depends on; None while it is not measured."""
    stamp = clips.measured_stamp(db, clip.id)
    if stamp is None:
        return None
    # A path from turning rates is another one at another focal length.
    scale = 1.0 if clip.log_focal_eq_mm is None else take.focal_eq_mm / clip.log_focal_eq_mm
    said = whose_motion.of_clip(db, clip.id)
    stretch = stretch_of(clip.fps, capture_fps(db, take, clip)) if clip.fps else 1.0
    return clip.sha256, stamp, take.judged_part, scale, stretch, said


class AnalysisCache:
    """The last few analyses, so that changing a brief repeats only what depends on it."""

    def __init__(self, size: int) -> None:
        self._size = size
        self._kept: OrderedDict[Key, tuple[Motion, Analysis]] = OrderedDict()
        self._guard = threading.Lock()

    def get(
        self, db: Connection, clip: ClipRow, take: TakeRow
    ) -> tuple[Motion | None, Analysis | None]:
        """The whole film's path, and the analysis of the part that the take is."""
        key = path_key(db, take, clip)
        if key is None:
            return None, None
        _, _, _, scale, stretch, said = key
        with self._guard:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        motion = clips.motion_of(db, clip.id)
        if motion is None:
            return None, None
        if scale != 1.0:
            motion = replace(
                motion, pan_pct=motion.pan_pct * scale, tilt_pct=motion.tilt_pct * scale
            )
        motion = as_said(motion, said)
        made = (motion, Analysis(_part(motion, take), stretch=stretch))
        with self._guard:
            kept = self._kept.setdefault(key, made)
            while len(self._kept) > self._size:
                self._kept.popitem(last=False)
        return kept


def _part(motion: Motion, take: TakeRow) -> Motion:
    """The part of a path that a take is; all of it where too little would be left."""
    if take.judged_part is None:
        return motion
    from_s, to_s = take.judged_part
    part = clipped(motion, from_s=from_s, to_s=to_s)
    return part if len(part.t_s) >= LEAST_PART_FRAMES and part.shots else motion


_analyses = AnalysisCache(size=8)
