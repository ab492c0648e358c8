"""A sequence as an OpenTimelineIO time line, with the films as they came as its media; and back."""

from __future__ import annotations

import json
import math
from dataclasses import asdict
from pathlib import Path

import opentimelineio as otio

from ridgewind.core.sequence.timeline import Piece
from ridgewind.services.cuts import CutSheet
from ridgewind.services.pieces import PieceSheet
from ridgewind.services.sequencing import JoinedTakes

OURS = "ridgewind"
"""Under which what is ours stands in the metadata."""

TRACK = "Takes"


def as_otio(sequence: JoinedTakes, originals: Path) -> str:
    """The time line as JSON. Lengths are whole frames at the sequence's rate; media times are of
    each film, from its first frame. A shot without a take is a gap that says so."""
    rate = sequence.rate_hz
    timeline = otio.schema.Timeline(name=sequence.row.name)
    timeline.global_start_time = otio.opentime.RationalTime(0, rate)
    timeline.metadata[OURS] = {
        "outing": sequence.row.name, "place": sequence.row.place, "target": sequence.brief.target,
    }  # fmt: skip
    track = otio.schema.Track(name=TRACK, kind=otio.schema.TrackKind.Video)
    cuts = [None, *sequence.cuts]
    for sheet, cut in zip(sequence.pieces, cuts, strict=False):
        track.append(_item(sheet, cut, rate, originals))
    timeline.tracks.append(track)
    text: str = otio.adapters.write_to_string(timeline, "otio_json", indent=2)
    return f"{text}\n"


def _item(sheet: PieceSheet, cut: CutSheet | None, rate: float, originals: Path) -> otio.core.Item:
    piece, take = sheet.piece, sheet.take
    length = otio.opentime.RationalTime(sheet.placed.frames, rate)
    told = {"subject": "" if sheet.shot is None else sheet.shot.shot.subject}
    if take is None or sheet.length_s is None or take.deleted_at is not None:
        gap = otio.schema.Gap(duration=length, name=told["subject"] or "missing")
        gap.metadata[OURS] = told | {"missing": sheet.trouble or "no take"}
        return gap
    fps = take.fps or rate
    frames = round(sheet.length_s * fps)
    # Rounding to the sequence's frames must not reach out of the film.
    used = math.ceil(sheet.placed.frames / rate * piece.speed * fps - 1e-6)
    start = otio.opentime.RationalTime(max(0, min(round(piece.in_s * fps), frames - used)), fps)
    media = otio.schema.ExternalReference(
        target_url=(originals / (sheet.file or take.file_name)).as_uri(),
        available_range=otio.opentime.TimeRange(
            otio.opentime.RationalTime(0, fps), otio.opentime.RationalTime(frames, fps)
        ),
    )
    clip = otio.schema.Clip(
        name=take.name,
        media_reference=media,
        source_range=otio.opentime.TimeRange(start, length),
    )
    if piece.speed != 1.0 or piece.backwards:
        sign = -1.0 if piece.backwards else 1.0
        clip.effects.append(
            otio.schema.LinearTimeWarp(name="speed", time_scalar=sign * piece.speed)
        )
    clip.metadata[OURS] = told | _numbers(sheet, cut)
    for words, at_s in _markers(sheet):
        mark = otio.opentime.RationalTime(round(at_s * fps), fps)
        clip.markers.append(
            otio.schema.Marker(
                name=words,
                marked_range=otio.opentime.TimeRange(mark, otio.opentime.RationalTime(1, fps)),
            )
        )
    return clip


def _numbers(sheet: PieceSheet, cut: CutSheet | None) -> dict[str, object]:
    motion, take = sheet.motion, sheet.take
    assert take is not None
    return {
        "take": take.id,
        "piece": asdict(sheet.piece),
        "remedy": take.remedy,
        "gust": None if motion is None else motion.gust,
        "join": None if cut is None or cut.mismatch is None else round(cut.mismatch, 3),
    }


def _markers(sheet: PieceSheet) -> list[tuple[str, float]]:
    """Words at moments of the film, s from its first frame."""
    out = []
    if sheet.shot is not None and sheet.shot.note:
        out.append((sheet.shot.note, sheet.piece.in_s))
    if sheet.take is not None and sheet.take.cause is not None:
        out.append((f"Shake: {sheet.take.cause.replace('_', ' ')}", sheet.piece.in_s))
    return out


def as_rows(sequence: JoinedTakes) -> list[dict[str, object]]:
    """A row a piece, in order."""
    rate = sequence.rate_hz
    out = []
    for number, (sheet, cut) in enumerate(
        zip(sequence.pieces, [None, *sequence.cuts], strict=False), start=1
    ):
        piece, take, motion = sheet.piece, sheet.take, sheet.motion
        out.append(
            {
                "number": number,
                "subject": "" if sheet.shot is None else sheet.shot.shot.subject,
                "take": None if take is None else take.name,
                "film": None if take is None else take.file_name,
                "start_s": round(sheet.placed.start / rate, 3),
                "length_s": round(sheet.placed.frames / rate, 3),
                "frames": sheet.placed.frames,
                "in_s": piece.in_s,
                "out_s": piece.out_s,
                "speed": piece.speed,
                "backwards": piece.backwards,
                "gust": None if motion is None or motion.gust is None else round(motion.gust, 2),
                "join": None if cut is None or cut.mismatch is None else round(cut.mismatch, 3),
                "missing": sheet.trouble,
            }
        )
    return out


def as_json(sequence: JoinedTakes) -> str:
    """The sequence as JSON that other programs read."""
    told = {
        "name": sequence.row.name, "rate": sequence.rate_hz, "target": sequence.brief.target,
        "pieces": as_rows(sequence),
    }  # fmt: skip
    return json.dumps(told, ensure_ascii=False, indent=2) + "\n"


def read_back(text: str) -> tuple[Piece, ...]:
    """The pieces that a time line of ours holds. Raises ValueError where there are none."""
    timeline = otio.adapters.read_from_string(text, "otio_json")
    out = []
    for clip in timeline.find_clips():
        told = clip.metadata.get(OURS, {}).get("piece")
        if told is not None:
            out.append(Piece(**dict(told)))
    if not out:
        raise ValueError("no piece of ours")
    return tuple(out)
