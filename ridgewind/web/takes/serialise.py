"""Rows and readings to response models. Missing samples become null; NaN never leaves."""

from __future__ import annotations

import base64
import math
from dataclasses import asdict
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.brief import Brief
from ridgewind.core.judge.assessment import Assessment
from ridgewind.core.judge.remedy import Remedy
from ridgewind.core.kit.items import Camera
from ridgewind.core.motion.compression import compression_trust
from ridgewind.core.motion.path import Motion
from ridgewind.core.motion.sighting import Sighting
from ridgewind.core.motion.subject import Centring, SubjectPath, centring_of
from ridgewind.core.moves.move import MoveReading
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.spectrum import Spectrum, peaks_of
from ridgewind.core.shake.trace import Trace
from ridgewind.core.units import pct_to_arcmin
from ridgewind.services.assessing import Judged
from ridgewind.services.subject import SubjectSheet
from ridgewind.services.taking import TakeSheet
from ridgewind.store.briefs import BriefRow
from ridgewind.store.clips import LOG_CODEC, ClipRow
from ridgewind.store.kit import SetupRow
from ridgewind.store.listing import Filter
from ridgewind.store.takes import TakeRow
from ridgewind.web.context import current
from ridgewind.web.errors import sentence
from ridgewind.web.models import NamedLink
from ridgewind.web.plan.serialise import brief_model
from ridgewind.web.takes import models, whose_models
from ridgewind.web.takes.list_models import FilterQuery

PATH_POINTS, MEANT_POINTS = 4000, 400
SPECTRUM_HZ, SPECTRUM_POINTS, MOST_PEAKS = 30.0, 600, 5


def filter_of(query: FilterQuery) -> Filter:
    """What the list is narrowed by."""
    values = query.model_dump()
    return Filter(**{name: values[name] for name in Filter.__dataclass_fields__})


def take_line(take: TakeRow) -> models.TakeLine:
    fault = None
    if take.error_code is not None:
        fault = models.Fault(
            code=take.error_code, what=take.error_what or "", next_step=take.error_next or ""
        )
    return models.TakeLine.model_validate(
        {
            "id": take.id,
            "name": take.name,
            "imported_at": take.imported_at,
            "recorded_at": take.recorded_at,
            "duration_s": take.duration_s,
            "fps": take.fps,
            "feel": take.brief.feel,
            "target": take.brief.target,
            "gust": take.gust,
            "peak_gust": take.peak_gust,
            "remedy": take.remedy,
            "ridge": base64.b64encode(take.ridge).decode(),
            "state": take.state,
            "progress": take.progress,
            "fault": fault,
            "choice": take.choice,
            "named": take.own_name is not None,
            "origin": take.origin,
            "filed": take.session_id is not None,
            "pictured": take.codec != LOG_CODEC,
        }
    )


def take_detail(found: TakeSheet) -> models.TakeDetail:
    """One take with everything that is said of it."""
    judged, take = found.judged, found.judged.take
    setup = None
    if found.setup is not None and found.camera is not None:
        setup = take_setup(found.setup, found.camera)
    return models.TakeDetail(
        take=take_line(take),
        brief=brief_model(take.brief),
        brief_link=_link(found.brief),
        brief_parent=_link(found.parent),
        setup=setup,
        focal_eq_mm=take.focal_eq_mm,
        own_focal_eq_mm=take.own_focal_eq_mm,
        own_capture_fps=take.own_capture_fps,
        capture_fps=found.capture_fps,
        part=_part(take),
        clip=None if judged.motion is None else clip_facts(judged.clip, judged.motion),
        log=found.log,
        judgement=judgement(judged),
        background=sorted(found.background),
        doubts=[whose_models.ShotDoubt.model_validate(asdict(one)) for one in found.doubts],
        marked=found.marked,
        cleared=judged.clip.cleared_at is not None,
        away=judged.clip.codec != LOG_CODEC and current().library.is_away(judged.clip.file),
        before_id=found.before_id,
        after_id=found.after_id,
    )


def _part(take: TakeRow) -> models.TakePart | None:
    if take.judged_part is None:
        return None
    from_s, to_s = take.judged_part
    return models.TakePart(from_s=from_s, to_s=to_s, trimmed=take.from_s is not None)


def _link(row: BriefRow | None) -> NamedLink | None:
    return None if row is None or row.name is None else NamedLink(id=row.id, name=row.name)


def take_setup(row: SetupRow, camera: Camera) -> models.TakeSetup:
    mode = camera.modes[row.ask.optics.mode]
    return models.TakeSetup(
        id=row.id,
        name=row.ask.name,
        typical=row.typical,
        focal_mm=row.ask.optics.focal_mm,
        focal_eq_mm=row.focal_eq_mm,
        width_px=mode.width_px,
        height_px=mode.height_px,
        rate_hz=row.ask.optics.rate_hz,
    )


def points(
    believed: list[Sighting], others: list[Sighting], first_s: float
) -> whose_models.PointsAnswer:
    def told(seen: list[Sighting]) -> list[whose_models.SeenPoints]:
        return [
            whose_models.SeenPoints(
                t_s=one.t_s - first_s,
                places=np.round(1000.0 * one.points).astype(int).reshape(-1).tolist(),
            )
            for one in seen
        ]

    return whose_models.PointsAnswer(believed=told(believed), others=told(others))


def clip_facts(clip: ClipRow, motion: Motion) -> models.ClipFacts:
    values = {name: getattr(clip, name, None) for name in models.ClipFacts.model_fields}
    bits, fps = clip.bits_per_pixel, clip.fps
    values |= {
        "start_s": _start(motion),
        "interlaced": bool(clip.interlaced),
        "from_log": clip.log_focal_eq_mm is not None,
        "starved": bits is not None and fps is not None and compression_trust(bits, fps=fps) < 1.0,
        "outlier_share": motion.outlier_share,
        "repeated": motion.repeated,
    }
    return models.ClipFacts.model_validate(values)


def judgement(judged: Judged) -> models.Judgement | None:
    """The judgement of a take, or None while it has not been measured."""
    if judged.assessment is None or judged.trace is None or judged.motion is None:
        return None
    found, start_s, brief = judged.assessment, _start(judged.motion), judged.take.brief
    return models.Judgement.model_validate(
        {
            "gust": found.gust,
            "peak_gust": found.peak_gust,
            "floor_gust": found.floor_gust,
            "body_deg_s": found.body_deg_s,
            "target": brief.target,
            "trusted_share": found.reading.trusted_share,
            "step": found.step,
            "readout": asdict(found.readout),
            "trust": float(judged.motion.trust.mean()),
            "bands": [_band(band, judged.take.focal_eq_mm) for band in found.bands],
            "causes": [asdict(cause) for cause in found.causes.causes],
            "steps": found.causes.steps and asdict(found.causes.steps),
            "fatigue": found.causes.fatigue and asdict(found.causes.fatigue),
            "move": _move(found.move, start_s),
            "lee": _lee(found, start_s),
            "shots": [
                {
                    "start_s": shot.start_s - start_s,
                    "end_s": shot.end_s - start_s,
                    "gust": shot.gust(screen_deg=brief.screen_deg),
                    "reason": shot.reason,
                }
                for shot in found.reading.shots
            ],
            "remedies": [
                remedy_line(remedy, start_s).model_dump() for remedy in found.decision.remedies
            ],
            "likeness": _likeness(found, brief),
            "verdict": found.decision.remedy,
            "text": found.decision.text,
            "trace": trace_columns(judged.trace, start_s),
        }
    )


def _likeness(found: Assessment, brief: Brief) -> dict[str, object] | None:
    if found.likeness is None or brief.likeness is None:
        return None
    return asdict(found.likeness) | {
        "name": brief.likeness.name,
        "alike": found.likeness.alike,
        "wanted_move": brief.likeness.move,
    }


def remedy_line(remedy: Remedy, start_s: float) -> models.RemedyLine:
    values = {name: getattr(remedy, name, None) for name in models.RemedyLine.model_fields}
    return models.RemedyLine.model_validate(
        values
        | {
            "remedy": remedy.kind,
            "peak_gust": remedy.peak,
            "glide": None if remedy.hold is None else remedy.hold.glide,
            "start_s": _shifted(remedy.start_s, start_s),
            "end_s": _shifted(remedy.end_s, start_s),
        }
    )


def path_columns(motion: Motion, move: MoveReading | None) -> models.PathColumns:
    """The path for drawing, at most PATH_POINTS of its frames, and the one that was meant."""
    step = max(1, len(motion.t_s) // PATH_POINTS)
    meant_s = np.zeros(0) if move is None else move.t_s - _start(motion)
    meant = np.zeros((0, 2)) if move is None else move.intended
    coarse = max(1, len(meant_s) // MEANT_POINTS)
    return models.PathColumns(
        t_s=np.round(motion.t_s[::step] - _start(motion), 4).tolist(),
        pan_pct=_numbers(motion.pan_pct[::step], 4),
        tilt_pct=_numbers(motion.tilt_pct[::step], 4),
        meant_s=np.round(meant_s[::coarse], 3).tolist(),
        meant_pan_pct=_numbers(meant[::coarse, 0], 3),
        meant_tilt_pct=_numbers(meant[::coarse, 1], 3),
    )


def spectrum_columns(spectrum: Spectrum) -> models.SpectrumColumns:
    """A spectrum for drawing: up to SPECTRUM_HZ, in at most SPECTRUM_POINTS steps."""
    shown = spectrum.between(0.0, SPECTRUM_HZ)
    power, hz = spectrum.power[shown], spectrum.hz[shown]
    step = max(1, -(-len(hz) // SPECTRUM_POINTS))
    starts = np.arange(0, len(hz), step)
    speed = np.sqrt(np.add.reduceat(power, starts, axis=0))
    return models.SpectrumColumns(
        hz=np.round(hz[np.minimum(starts + step // 2, len(hz) - 1)], 3).tolist(),
        speed=[np.round(column, 5).tolist() for column in speed.T],
        peaks=[
            models.PeakLine.model_validate(asdict(peak))
            for peak in peaks_of(spectrum, most=MOST_PEAKS)
        ],
    )


def subject_answer(sheet: SubjectSheet) -> models.SubjectAnswer:
    """Centring over the move, or over all that is judged where the camera was held."""
    subject, work = sheet.subject, sheet.work
    line = fault = None
    if work is not None and work.state in ("queued", "running") and not work.cancel_requested:
        line = models.FollowingLine(progress=work.progress)
    if work is not None and work.state == "failed":
        fault = sentence(f"{work.error_what}: {work.error_next}")
    found = None if subject is None else _centring(subject.paths[0], sheet.judged)
    second = None
    if subject is not None and len(subject.paths) > 1:
        second = models.PointPath.model_validate(_point_path(subject.paths[1]))
    return models.SubjectAnswer(
        rms_pct=None if found is None else found.rms_pct,
        worst_pct=None if found is None else found.worst_pct,
        worst_s=None if found is None else found.worst_s,
        followed=0.0 if found is None else found.followed,
        second=second,
        following=line,
        fault=fault,
        **(_NO_PATH if subject is None else _point_path(subject.paths[0])),
    )


def _centring(path: SubjectPath, judged: Judged) -> Centring | None:
    from_s, to_s = judged.take.judged_part or (0.0, math.inf)
    assessment = judged.assessment
    move = None if assessment is None or assessment.move is None else assessment.move.move
    if move is not None and judged.motion is not None:
        start_s = _start(judged.motion)
        from_s, to_s = move.start_s - start_s, move.end_s - start_s
    return centring_of(path, from_s=from_s, to_s=to_s)


_NO_PATH: dict[str, Any] = {"t_s": [], "x_pct": [], "y_pct": []}


def _point_path(path: SubjectPath) -> dict[str, Any]:
    step = max(1, len(path.t_s) // PATH_POINTS)
    return {
        "t_s": np.round(path.t_s[::step], 3).tolist(),
        "x_pct": _numbers(path.x_pct[::step], 3),
        "y_pct": _numbers(path.y_pct[::step], 3),
    }


def _move(found: MoveReading | None, start_s: float) -> dict[str, object] | None:
    if found is None:
        return None
    move = None
    if found.move is not None:
        values = asdict(found.move)
        move = values | {
            "start_s": found.move.start_s - start_s,
            "end_s": found.move.end_s - start_s,
        }
    return {
        "move": move,
        "wander_pct": found.wander_pct,
        "entry": asdict(found.entry),
        "exit": asdict(found.exit),
    }


def _start(motion: Motion) -> float:
    return float(motion.t_s[0])


def _shifted(t_s: float | None, start_s: float) -> float | None:
    return None if t_s is None else max(0.0, t_s - start_s)


def _lee(found: Assessment, start_s: float) -> dict[str, float] | None:
    if found.lee is None:
        return None
    return {
        "start_s": found.lee.start_s - start_s,
        "end_s": found.lee.end_s - start_s,
        "gust": found.lee.gust,
    }


def _band(band: Band, focal_eq_mm: float) -> dict[str, object]:
    both = None if band.excursion is None else math.hypot(*band.excursion[:2])
    return {
        "name": band.name,
        "share": band.share,
        "excursion_pct": both,
        "excursion_arcmin": None if both is None else pct_to_arcmin(both, focal_eq_mm=focal_eq_mm),
        "strongest_hz": band.strongest_hz,
    }


def trace_columns(line: Trace, start_s: float) -> dict[str, object]:
    return {
        "t_s": _numbers(line.t_s - start_s, 3),
        "gust": _numbers(line.gust, 3),
        "shares": [_numbers(column, 4) for column in line.shares.T],
        "trusted": line.trusted.tolist(),
    }


def _numbers(values: NDArray[np.float64], digits: int) -> list[float | None]:
    rounded = np.round(values, digits).tolist()
    return [value if math.isfinite(value) else None for value in rounded]


def film_part(take: TakeRow) -> models.FilmPart:
    """Which part of its film a take is."""
    from_s, to_s = take.judged_part or (0.0, None)
    return models.FilmPart(take_id=take.id, from_s=from_s, to_s=to_s)
