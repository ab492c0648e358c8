"""What lies behind a take's verdict: rates, polish curves, hints for next time, and recipes."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.clip import Clip
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge.analysis import Analysis, thinned_subject
from ridgewind.core.judge.asked import seen_after
from ridgewind.core.judge.assessment import Assessment
from ridgewind.core.judge.cadence import shown_frames
from ridgewind.core.judge.hold import hold_frames
from ridgewind.core.judge.lee import passes
from ridgewind.core.judge.next_time import Hint, hints_for
from ridgewind.core.judge.polish import PolishCurve
from ridgewind.core.judge.polish_warnings import of_polish
from ridgewind.core.judge.recipe import (
    LONGEST_PREVIEW_S,
    Direction,
    Recipe,
    WindowMaker,
    Windows,
    at_strength,
    predicted,
    recipe_of,
    roughest,
    stretch_of,
    with_drift,
)
from ridgewind.core.judge.remedies import strength
from ridgewind.core.judge.remedy import Remedy
from ridgewind.core.judge.shutter import readout_of
from ridgewind.core.judge.slow import RateReading, rate_readings
from ridgewind.core.motion.subject import Subject
from ridgewind.core.practice.drill import Drill
from ridgewind.library.library import Library
from ridgewind.services import assessing, next_time
from ridgewind.services.errors import NO_PICTURE, NOT_MEASURED, UNSETTLED, NotReadyError
from ridgewind.store import database, jobs, renders
from ridgewind.store.clips import LOG_CODEC
from ridgewind.store.database import Connection
from ridgewind.store.renders import RenderRow
from ridgewind.store.takes import TakeRow

POLISHES = ("polish", "polish_lee", "slow_polish")
SAME_RATE, SAME_TIME_S = 1e-3, 1e-6
LONGEST_ON_SCREEN_S, MOST_SHOWN_HZ = 16.0, 60.0
"""Seconds that a preview lasts when it is played, and frames that it shows of each: so that it is
ready within twice the time that it plays, whatever the camera's rate."""

LEAST_DRIFT_PCT, MOST_DRIFT_PCT = 1.0, 6.0
DRIFT_KINDS = ("keep", "lee", "slow")


@dataclass(frozen=True)
class Strength:
    """A point of a polish's curve, as seen on the brief's screen."""

    corner_hz: float
    crop_pct: float
    gust: float
    peak: float
    passes: bool
    within: bool
    name: str
    warnings: tuple[str, ...]


@dataclass(frozen=True)
class RemedyDetails:
    """rates: what slowing and speeding up would read. curves: by the kind of polish. hints: for
    next time. drill: that works on the first cause, None where none is known. drift_crop_pct:
    that a desk-made move may take, 0 where the brief leaves none."""

    rates: tuple[RateReading, ...]
    curves: dict[str, tuple[Strength, ...]]
    hints: tuple[Hint, ...]
    drill: Drill | None
    drift_crop_pct: float


@dataclass(frozen=True)
class RemedyRequest:
    """What of a remedy is asked for: another strength, another rate, a desk-made move, a subject
    that glides rather than stands still."""

    remedy: str
    corner_hz: float | None = None
    rate: float | None = None
    drift: Direction | None = None
    glide: bool | None = None


@dataclass(frozen=True)
class Case:
    """A measured take with everything that a decision about it needs. start_s: its film's first
    frame, s in the file. pictured: it is more than a motion log. subject: that is marked in it, s
    in the file."""

    take: TakeRow
    analysis: Analysis
    assessment: Assessment
    clip: Clip
    start_s: float
    pictured: bool
    subject: Subject | None

    def curve(self, remedy: Remedy) -> PolishCurve | None:
        return self.analysis.polish(remedy.rate, step=remedy.step, upright=self.clip.upright)


@dataclass(frozen=True)
class FrameWindows:
    """What of each frame a recipe shows. t_s: (n,), s of the browser copy. trusted_share: of the
    frames, 0 to 1."""

    t_s: NDArray[np.float64]
    windows: Windows
    trusted_share: float


def case_of(db: Connection, take_id: int) -> Case:
    """The case of a take. Raises NotFoundError, and NotReadyError while it has not been
    measured."""
    judged = assessing.judge(db, take_id)
    _, analysis = assessing.analysis_of(db, judged.take, judged.clip)
    if judged.assessment is None or judged.motion is None or analysis is None:
        raise NotReadyError(*NOT_MEASURED)
    if judged.assessment.doubt is not None:
        raise NotReadyError(*UNSETTLED)
    facts = assessing.judged_clip(db, judged.take, judged.clip)
    start_s = float(judged.motion.t_s[0])
    pictured = judged.clip.codec != LOG_CODEC
    subject = assessing.subject_of(db, take_id, judged.motion)
    return Case(judged.take, analysis, judged.assessment, facts, start_s, pictured, subject)


def details_of(db: Connection, case: Case) -> RemedyDetails:
    """Everything behind the remedies."""
    take, clip, found = case.take, case.clip, case.assessment
    reached = found.decision.remedy != "retake"
    causes = found.causes.causes
    limit = None
    if found.decision.remedy != "keep":
        limit = next_time.beyond_limit(db, take, clip.focal_eq_mm)
    return RemedyDetails(
        rates=rate_readings(case.analysis, take.brief, fps=clip.fps, duration_s=clip.duration_s)
        if case.pictured
        else (),
        curves={
            kind: strengths
            for kind in POLISHES
            if (strengths := curve_of(case, found.decision.of(kind)))
        },
        hints=(() if limit is None else (limit,))
        + hints_for(
            case.analysis,
            take.brief,
            focal_eq_mm=clip.focal_eq_mm,
            fps=clip.fps,
            lenses=next_time.lenses(db, take),
            rates_hz=next_time.rates_hz(db, take),
            records=next_time.records(db),
            reached=reached,
        ),
        drill=next_time.drill_for(db, causes[0].key, take.drill_key) if causes else None,
        drift_crop_pct=drift_crop_pct(case),
    )


def curve_of(case: Case, remedy: Remedy) -> tuple[Strength, ...]:
    """The strengths of a polish over the stretch that it uses."""
    brief, clip = case.take.brief, case.clip
    if remedy.kind == "slow_polish" and remedy.rate == 1.0:
        return ()
    curve = _over(case, remedy, case.curve(remedy))
    if curve is None:
        return ()
    outliers = case.analysis.motion.outlier_share
    readout = readout_of(clip, case.analysis.motion)
    return tuple(
        Strength(
            corner_hz=point.corner_hz,
            crop_pct=point.crop_pct,
            gust=seen_after(point, brief)[0],
            peak=seen_after(point, brief)[1],
            passes=passes(*seen_after(point, brief), brief),
            within=point.crop_pct <= brief.most_crop_pct,
            name=strength(point.crop_pct),
            warnings=tuple(
                of_polish(brief, clip, curve, point, outlier_share=outliers, readout=readout)
            ),
        )
        for point in curve.points
    )


def _over(case: Case, remedy: Remedy, curve: PolishCurve | None) -> PolishCurve | None:
    """The whole curve, or that of the one stretch that a remedy uses."""
    if curve is None or remedy.kind == "polish":
        return curve
    if remedy.start_s is None or remedy.end_s is None:
        return None if remedy.kind == "polish_lee" else curve
    reading = case.analysis.reading(remedy.rate, step=remedy.step)
    found = [
        (index, stretch)
        for index, shot in enumerate(reading.shots)
        if shot.counted.any()
        and (stretch := stretch_of(shot, remedy.start_s, remedy.end_s)) is not None
    ]
    # A stretch of one shot has a curve of its own; one over all of them has the whole.
    return curve.part(*found[0]) if len(found) == 1 else curve


def recipe(case: Case, asked: RemedyRequest) -> Recipe:
    """The recipe of a remedy, with what was asked of it. Raises InvalidArgumentError."""
    remedy = case.assessment.decision.of(asked.remedy)
    if remedy.start_s is None or remedy.end_s is None:
        remedy = _opened(case, remedy)
    found = recipe_of(remedy)
    brief = case.take.brief
    if asked.rate is not None:
        if asked.remedy != "slow":
            raise InvalidArgumentError(
                "rate", asked.rate, "only a slowed take has a rate to choose"
            )
        found = _at_rate(case, found, asked.rate)
    if asked.corner_hz is not None:
        curve = _over(case, remedy, case.curve(remedy))
        points = () if curve is None else curve.points
        point = next((one for one in points if one.corner_hz == asked.corner_hz), None)
        if curve is None or point is None:
            rule = "it must be a strength of the curve"
            raise InvalidArgumentError("corner_hz", asked.corner_hz, rule)
        found = at_strength(found, curve, point, brief)
    if asked.drift is not None:
        if asked.remedy not in DRIFT_KINDS:
            raise InvalidArgumentError("drift", asked.drift, "a polish needs the crop for itself")
        room_pct = drift_crop_pct(case)
        if not room_pct:
            raise InvalidArgumentError("drift", asked.drift, "the brief leaves no crop for it")
        found = with_drift(found, asked.drift, crop_pct=room_pct)
    if asked.glide is not None:
        found = _gliding(case, found, asked.glide)
    return predicted(found, case.analysis, case.clip, brief, subject=case.subject)


def _gliding(case: Case, found: Recipe, glide: bool) -> Recipe:
    """A subject held still or gliding, as was asked. Raises InvalidArgumentError."""
    if found.hold is None or case.subject is None:
        raise InvalidArgumentError("glide", glide, "only a subject that is held can glide")
    shown = thinned_subject(case.subject, case.analysis.motion.t_s, found.step)
    frames = hold_frames(
        shown, start_s=found.start_s, end_s=found.end_s, glide=glide,
        aspect=case.analysis.motion.aspect, upright=case.clip.upright,
    )  # fmt: skip
    return replace(found, hold=replace(found.hold, glide=glide), crop_pct=frames.crop_pct)


def frame_windows(case: Case, found: Recipe) -> FrameWindows:
    """The window of every frame that a recipe shows."""
    _, t_s = shown_frames(case.analysis.motion.t_s, found.step)
    t_s = t_s[(t_s >= found.start_s - SAME_TIME_S) & (t_s <= found.end_s + SAME_TIME_S)]
    reading = case.analysis.reading(found.rate, step=found.step)
    return FrameWindows(t_s - case.start_s, _maker(case, found).at(t_s), reading.trusted_share)


def drawn_windows(
    case: Case, found: Recipe, *, most: int
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Times (n,), s of the browser copy, and corners (n, 4, 2), shares of the frame, of at most so
    many windows of a recipe."""
    count = min(most, max(2, round((found.end_s - found.start_s) * case.clip.fps)))
    t_s = np.linspace(found.start_s, found.end_s, count)
    return t_s - case.start_s, _maker(case, found).at(t_s).corners(case.clip.size_px)


def _maker(case: Case, found: Recipe) -> WindowMaker:
    return WindowMaker(found, case.analysis, upright=case.clip.upright, subject=case.subject)


def ask_for_film(db: Connection, case: Case, asked: RemedyRequest, *, purpose: str) -> RenderRow:
    """Let a preview of the roughest seconds of a remedy be rendered, or all of it full size.
    Raises NotReadyError where there is no picture."""
    if not case.pictured:
        raise NotReadyError(*NO_PICTURE)
    found = recipe(case, asked)
    if purpose == "preview":
        found = preview_of(case, found)
    with database.atomic(db):
        number = renders.add(db, take_id=case.take.id, purpose=purpose, recipe=found)
        return renders.by_id(db, number)


def ask_for_verdict(db: Connection, take_id: int) -> RenderRow | None:
    """Let the verdict of a take be rendered full size; None where there is nothing to be made: it
    is kept as shot, to be filmed again, in doubt, not measured or without a picture.
    Raises NotFoundError."""
    try:
        case = case_of(db, take_id)
    except NotReadyError:
        return None
    kind = case.assessment.decision.remedy
    if not case.pictured or kind is None or kind in ("keep", "retake"):
        return None
    return ask_for_film(db, case, RemedyRequest(kind), purpose="film")


def films_of(db: Connection, take_id: int) -> tuple[list[RenderRow], float]:
    """Films made from a take, the newest first, and the file's time of its first frame, s."""
    rows = renders.of_take(db, take_id)
    return rows, case_of(db, take_id).start_s if rows else 0.0


def forget_film(library: Library, db: Connection, render_id: int) -> int:
    """Stop a film that is being made, or remove one that is done; returns its take."""
    with database.atomic(db):
        row = renders.by_id(db, render_id)
        if row.state in ("queued", "running"):
            jobs.request_cancel(db, "render", row.id)
        else:
            renders.remove(db, row.id)
            library.render_of(row.id).unlink(missing_ok=True)
    return row.take_id


def drift_crop_pct(case: Case) -> float:
    """Crop that a desk-made move may take: what the brief leaves, and no more than looks like a
    choice of framing; 0 where that is too little to be seen."""
    left = min(MOST_DRIFT_PCT, case.take.brief.most_crop_pct)
    return left if left >= LEAST_DRIFT_PCT else 0.0


def preview_of(case: Case, found: Recipe) -> Recipe:
    """The roughest few seconds of a recipe, with what they should read by themselves. No more
    frames of a second on screen are shown than a screen shows."""
    seconds = min(LONGEST_PREVIEW_S, LONGEST_ON_SCREEN_S * found.rate)
    part = roughest(found, case.analysis.reading(step=found.step), seconds=seconds)
    if found.rate == 1.0:
        step = float(math.ceil(case.clip.fps / MOST_SHOWN_HZ - 0.01))
        part = replace(part, step=max(part.step, step))
    return predicted(part, case.analysis, case.clip, case.take.brief, subject=case.subject)


def _opened(case: Case, remedy: Remedy) -> Remedy:
    """All of the take, for a remedy that is not open but is asked for all the same."""
    if remedy.kind not in ("slow", "polish", "slow_polish"):
        raise InvalidArgumentError("remedy", remedy.kind, "it uses no part of the film")
    keep = case.assessment.decision.of("keep")
    curve = case.curve(remedy)
    point = None if curve is None or remedy.kind == "slow" else curve.points[0]
    return replace(
        remedy,
        start_s=keep.start_s,
        end_s=keep.end_s,
        corner_hz=None if point is None else point.corner_hz,
        crop_pct=0.0 if point is None else point.crop_pct,
    )


def _at_rate(case: Case, found: Recipe, rate: float) -> Recipe:
    """All of the take at another even rate."""
    base = case.take.brief.delivery_fps / case.clip.fps
    step = round(rate / base)
    if step < 1 or abs(step * base - rate) > SAME_RATE:
        raise InvalidArgumentError("rate", rate, "only even rates can be rendered")
    keep = case.assessment.decision.of("keep")
    assert keep.start_s is not None
    assert keep.end_s is not None
    return replace(
        found, start_s=keep.start_s, end_s=keep.end_s, rate=step * base, step=float(step)
    )
