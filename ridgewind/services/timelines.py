"""A sequence as an OpenTimelineIO time line, with the films as they came as its media; and back."""

from __future__ import annotations

import json
import math
from collections.abc import Callable
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING

from ridgewind.core.sequence.piece import Piece, piece_from
from ridgewind.services.cuts import CutSheet
from ridgewind.services.pieces import PieceSheet, window_of
from ridgewind.services.sequencing import JoinedTakes

if TYPE_CHECKING:  # imported where it is used: it takes a twentieth of a start
    import opentimelineio as otio

OURS = "ridgewind"
"""Under which what is ours stands in the metadata."""

TRACK = "Takes"


def as_otio(sequence: JoinedTakes, place: Callable[[str], str]) -> str:
    """The time line as JSON. Lengths are whole frames at the sequence's rate; media times are of
    each film, from its first frame. A shot without a take is a gap that says so. place: the address
    of an original, by its name among them."""
    import opentimelineio as otio  # noqa: PLC0415

    rate = sequence.rate_hz
    timeline = otio.schema.Timeline(name=sequence.row.name)
    timeline.global_start_time = otio.opentime.RationalTime(0, rate)
    timeline.metadata[OURS] = {
        "outing": sequence.row.name, "place": sequence.row.place, "target": sequence.brief.target,
        "shape": sequence.look.shape, "beats_per_min": sequence.row.beats_per_min,
    }  # fmt: skip
    track = otio.schema.Track(name=TRACK, kind=otio.schema.TrackKind.Video)
    cuts = [None, *sequence.cuts]
    for sheet, cut in zip(sequence.pieces, cuts, strict=False):
        track.append(_item(sheet, cut, sequence, place))
    timeline.tracks.append(track)
    text: str = otio.adapters.write_to_string(timeline, "otio_json", indent=2)
    return f"{text}\n"


def _item(
    sheet: PieceSheet, cut: CutSheet | None, sequence: JoinedTakes, place: Callable[[str], str]
) -> otio.core.Item:
    import opentimelineio as otio  # noqa: PLC0415

    piece, take, rate = sheet.piece, sheet.take, sequence.rate_hz
    length = otio.opentime.RationalTime(sheet.placed.frames, rate)
    told = {"subject": "" if sheet.shot is None else sheet.shot.shot.subject}
    if take is None or sheet.length_s is None or take.deleted_at is not None:
        gap = otio.schema.Gap(duration=length, name=told["subject"] or "missing")
        gap.metadata[OURS] = told | {"missing": sheet.trouble or "no take"}
        return gap
    fps = take.fps or rate
    frames = round(sheet.length_s * fps)
    # Rounding to the sequence's frames must not reach out of the film.
    # Of a ramp a desk that knows none plays the mean speed, and the length stays right.
    speed = (piece.out_s - piece.in_s) / piece.seconds
    used = math.ceil(sheet.placed.frames / rate * speed * fps - 1e-6)
    start = otio.opentime.RationalTime(max(0, min(round(piece.in_s * fps), frames - used)), fps)
    media = otio.schema.ExternalReference(
        target_url=place(sheet.file or take.file_name),
        available_range=otio.opentime.TimeRange(
            otio.opentime.RationalTime(0, fps), otio.opentime.RationalTime(frames, fps)
        ),
    )
    clip = otio.schema.Clip(
        name=take.name,
        media_reference=media,
        source_range=otio.opentime.TimeRange(start, length),
    )
    if abs(speed - 1.0) > 1e-6 or piece.backwards:
        sign = -1.0 if piece.backwards else 1.0
        clip.effects.append(otio.schema.LinearTimeWarp(name="speed", time_scalar=sign * speed))
    clip.metadata[OURS] = told | _numbers(sheet, cut, sequence)
    for words, at_s, seconds in _markers(sheet):
        mark = otio.opentime.RationalTime(round(at_s * fps), fps)
        length = otio.opentime.RationalTime(max(1, round(seconds * fps)), fps)
        clip.markers.append(
            otio.schema.Marker(name=words, marked_range=otio.opentime.TimeRange(mark, length))
        )
    return clip


def at_home(place: Callable[[str], Path]) -> Callable[[str], str]:
    """Addresses of originals where they lie on this computer. place: where each is."""
    return lambda file: place(file).resolve().as_uri()


def _numbers(sheet: PieceSheet, cut: CutSheet | None, sequence: JoinedTakes) -> dict[str, object]:
    motion, take = sheet.motion, sheet.take
    assert take is not None
    told: dict[str, object] = {
        "take": take.id,
        "piece": asdict(sheet.piece),
        "remedy": take.remedy,
        "gust": None if motion is None else motion.gust,
        "join": None if cut is None or cut.mismatch is None else round(cut.mismatch, 3),
        "pixels_left": None if sheet.left is None else round(sheet.left, 3),
    }
    found = sequence.here.get(take.id)
    if found is None:
        return told
    window = window_of(found, sequence.look.shape)
    told["window"] = {"width": round(window.width, 4), "height": round(window.height, 4)}
    polish = found.polish
    if polish is not None:
        told["polish"] = {
            "keeps_under_hz": polish.corner_hz, "crop_pct": round(polish.crop_pct, 2),
            "enlarge": round(polish.enlarge, 4), "holds_subject": polish.hold is not None,
        }  # fmt: skip
    return told


def _markers(sheet: PieceSheet) -> list[tuple[str, float, float]]:
    """Words at moments of the film, s from its first frame, and how long each lasts."""
    out = []
    if sheet.lee is not None:
        out.append(("Lee", max(0.0, sheet.lee[0]), sheet.lee[1] - sheet.lee[0]))
    if sheet.shot is not None and sheet.shot.note:
        out.append((sheet.shot.note, sheet.piece.in_s, 0.0))
    if sheet.take is not None and sheet.take.cause is not None:
        out.append((f"Shake: {sheet.take.cause.replace('_', ' ')}", sheet.piece.in_s, 0.0))
    out.extend((f"Speed {100 * knot.speed:.0f} %", knot.at_s, 0.0) for knot in sheet.piece.ramp)
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
                "ramp": " ".join(f"{knot.at_s:g}:{knot.speed:g}" for knot in piece.ramp),
                "backwards": piece.backwards,
                "pixels_left": None if sheet.left is None else round(sheet.left, 3),
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
        "shape": round(sequence.look.shape, 4), "pieces": as_rows(sequence),
    }  # fmt: skip
    return json.dumps(told, ensure_ascii=False, indent=2) + "\n"


def read_back(text: str) -> tuple[Piece, ...]:
    """The pieces that a time line of ours holds. Raises ValueError where there are none."""
    import opentimelineio as otio  # noqa: PLC0415

    timeline = otio.adapters.read_from_string(text, "otio_json")
    out = []
    for clip in timeline.find_clips():
        told = clip.metadata.get(OURS, {}).get("piece")
        if told is not None:
            out.append(piece_from(told))
    if not out:
        raise ValueError("no piece of ours")
    return tuple(out)
