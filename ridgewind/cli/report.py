"""What the command line writes: a short summary, the path as CSV, the readings as JSON."""

from __future__ import annotations

import json
import math
from dataclasses import replace
from pathlib import Path
from typing import Any

from ridgewind.core.brief import Brief, usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, Assessment, assess
from ridgewind.core.motion import METHOD, Motion
from ridgewind.core.motion.table import to_csv
from ridgewind.core.moves import MoveReading
from ridgewind.core.units import UNKNOWN_FOCAL_EQ_MM
from ridgewind.core.words import span_words, time_words
from ridgewind.films.measuring import Measured
from ridgewind.media.whole import whole_file


def brief_from(*, feel: str, delivery_fps: float | None) -> Brief:
    """The usual brief with what the command line says instead."""
    usual = usual_brief(feel)
    return replace(usual, delivery_fps=delivery_fps or usual.delivery_fps)


def focal_of(measured: Measured, asked_mm: float | None) -> float:
    """Equivalent focal length: as asked, else as the file says, else the usual one."""
    return asked_mm or measured.file_focal_eq_mm or UNKNOWN_FOCAL_EQ_MM


def assess_measured(
    measured: Measured, brief: Brief, *, focal_eq_mm: float, as_filmed: bool
) -> Assessment:
    clip = Clip(
        measured.fps,
        measured.duration_s,
        measured.has_sound,
        (measured.width, measured.height),
        focal_eq_mm,
    )
    return assess(Analysis(measured.motion), clip, brief, as_filmed=as_filmed)


def write_csv(path: Path, motion: Motion) -> None:
    """Write the path as CSV, whole or not at all."""
    write_text(path, to_csv(motion))


def json_text(found: object) -> str:
    """As JSON that ends with a line."""
    return json.dumps(found, indent=2, ensure_ascii=False) + "\n"


def write_json(
    path: Path, measured: Measured, assessment: Assessment, brief: Brief, *, focal_eq_mm: float
) -> None:
    found = readings(measured, assessment, brief, focal_eq_mm=focal_eq_mm)
    write_text(path, json_text(found))


def readings(
    measured: Measured, assessment: Assessment, brief: Brief, *, focal_eq_mm: float
) -> dict[str, Any]:
    """The readings as plain values; null for what could not be measured."""
    lee = assessment.lee
    screen = brief.screen_deg
    decision = assessment.decision
    return {
        "method": METHOD,
        "clip": {
            "width": measured.width,
            "height": measured.height,
            "fps": measured.fps,
            "variable_rate": measured.variable_rate,
            "duration_s": _rounded(measured.duration_s, 3),
            "frames": measured.frames,
            "codec": measured.codec,
            "claimed_duration_s": _rounded(measured.claimed_s, 3),
        },
        "gust": _rounded(assessment.gust, 3),
        "peak_gust": _rounded(assessment.peak_gust, 3),
        "floor_gust": _rounded(assessment.floor_gust, 3),
        "body_deg_s": _rounded(assessment.body_deg_s, 4),
        "read_out_s": _rounded(assessment.readout.seconds, 4),
        "read_out_source": assessment.readout.source,
        "frames_filmed_for_each_shown": _rounded(assessment.step, 4),
        "trusted_share": _rounded(assessment.reading.trusted_share, 4),
        "shots": [
            {
                "start_s": _rounded(shot.start_s, 4),
                "end_s": _rounded(shot.end_s, 4),
                "gust": _rounded(shot.gust(screen_deg=screen), 3),
                "peak_gust": _rounded(shot.peak(screen_deg=screen), 3),
                "measurable": shot.reason is None,
                "reason": shot.reason,
            }
            for shot in assessment.reading.shots
        ],
        "bands": {band.name: _rounded(band.share, 4) for band in assessment.bands},
        "causes": [
            {
                "cause": cause.key,
                "share": _rounded(cause.share, 4),
                "certainty": _rounded(cause.certainty, 3),
                "evidence": cause.evidence,
                "change": cause.change,
            }
            for cause in assessment.causes.causes
        ],
        "move": _move(assessment.move),
        "lee": None
        if lee is None
        else {
            "start_s": _rounded(lee.start_s, 4),
            "end_s": _rounded(lee.end_s, 4),
            "gust": _rounded(lee.gust, 3),
        },
        "target": brief.target,
        "brief": {
            "feel": brief.feel,
            "screen": brief.screen,
            "delivery_fps": brief.delivery_fps,
            "wanted_s": brief.wanted_s,
            "focal_eq_mm": focal_eq_mm,
        },
        "remedies": [
            {
                "remedy": remedy.kind,
                "passes": remedy.passes,
                "gust": _rounded(remedy.gust, 3),
                "rate": _rounded(remedy.rate, 4),
                "plays_s": _rounded(remedy.plays_s, 3),
                "reason": remedy.reason,
            }
            for remedy in decision.remedies
        ],
        "verdict": {"remedy": decision.remedy, "text": decision.text},
    }


def summary(name: str, measured: Measured, assessment: Assessment, brief: Brief) -> str:
    """A few lines for a person."""
    rate = "variable, about " if measured.variable_rate else ""
    lines = [
        f"{name}  {measured.width}x{measured.height}, {rate}{measured.fps:g}/s, "
        f"{time_words(measured.duration_s)}",
        f"Gust {_one(assessment.gust)}, peak {_one(assessment.peak_gust)}, "
        f"target {brief.target:.1f} ({brief.feel}). Finest readable {_one(assessment.floor_gust)}. "
        f"Trusted {100 * assessment.reading.trusted_share:.0f} %.",
        "Bands: "
        + ", ".join(
            f"{band.name} {100 * band.share:.0f} %"
            for band in assessment.bands
            if band.share is not None
        ),
    ]
    for cause in assessment.causes.causes:
        lines.append(f"{cause.name} {100 * cause.share:.0f} %: {cause.evidence} {cause.change}")
    if assessment.lee is not None:
        lee = assessment.lee
        lines.append(f"Lee: {span_words(lee.start_s, lee.end_s)} at gust {lee.gust:.1f}.")
    if len(assessment.reading.shots) > 1:
        lines.append(f"{len(assessment.reading.shots)} shots, measured apart.")
    if measured.claimed_s is not None:
        lines.append(
            f"The file ends early: {measured.duration_s:.1f} of {measured.claimed_s:.1f} s could "
            "be read. Copy it from the card again to have the rest."
        )
    lines.append(f"Verdict: {assessment.decision.text}")
    return "\n".join(lines)


def _move(found: MoveReading | None) -> dict[str, Any] | None:
    """The move that was meant; null where the camera was held, or too little was measured."""
    if found is None or found.move is None:
        return None
    move = found.move
    return {
        "kind": move.kind,
        "direction": move.direction,
        "start_s": _rounded(move.start_s, 3),
        "end_s": _rounded(move.end_s, 3),
        "extent": _rounded(move.extent, 3),
        "extent_deg": _rounded(move.extent_deg, 3),
        "evenness": _rounded(move.evenness, 4),
        "reversals": move.reversals,
        "cross_pct": _rounded(move.cross_pct, 3),
    }


def _one(value: float | None) -> str:
    return "–" if value is None else f"{value:.1f}"


def _rounded(value: float | None, digits: int) -> float | None:
    return None if value is None or not math.isfinite(value) else round(value, digits)


def write_text(path: Path, text: str) -> None:
    """Write a file, whole or not at all."""
    with whole_file(path) as partial:
        partial.write_text(text, encoding="utf-8")
