"""What a file says of itself, before any frame is decoded."""

from __future__ import annotations

import re
import struct
from collections.abc import Mapping
from dataclasses import dataclass
from pathlib import Path

import av
import av.container

from ridgewind.media.errors import (
    BAD_CODEC,
    CUT_SHORT,
    EMPTY,
    FOLDER,
    FORBIDDEN,
    MISSING,
    NO_TRACK,
    NO_VIDEO,
    NOT_FILM,
    TOO_SMALL,
    UnfitError,
    UnreadableError,
    translated,
)
from ridgewind.moments import normalised

SMALLEST_PX = 64
"""Pictures with a shorter side than this hold too little to measure (chosen here)."""

FOCAL_MIN_MM, FOCAL_MAX_MM = 1.0, 3000.0
SLOWEST_CAPTURE_HZ, FASTEST_CAPTURE_HZ = 1.0, 2000.0

REFUSED_FORMATS = {"tty", "concat", "hls", "dash", "sdp", "lavfi", "ffmetadata", "webvtt", "srt"}
"""Text that the library would draw as a film, and lists that point at other files."""

WITHOUT_INDEX = {"mpegts", "mpeg"}
"""Streams as they are sent, which hold no index of their keyframes."""


@dataclass(frozen=True)
class ClipFacts:
    """width, height: px as coded, before rotation. duration_s: as the file claims, or None.
    frames: as the file claims, 0 where it does not say. recorded_at: in UTC, or None.
    focal_mm, focal_eq_mm: true and equivalent focal length, and capture_fps: frames a second at
    which it was filmed, where the metadata holds them."""

    width: int
    height: int
    codec: str
    duration_s: float | None
    frames: int
    has_sound: bool
    recorded_at: str | None
    title: str | None
    focal_mm: float | None
    focal_eq_mm: float | None
    capture_fps: float | None


def open_film(path: Path) -> av.container.InputContainer:
    """Open a file for reading; local files only, never one that a playlist points at."""
    _check_file(path)
    try:
        with translated():
            film = av.open(
                str(path), options={"protocol_whitelist": "file"}, metadata_errors="replace"
            )
    except UnreadableError as error:
        if isinstance(error.__cause__, av.error.InvalidDataError | av.error.EOFError):
            raise UnreadableError(*(CUT_SHORT if _lacks_index(path) else NOT_FILM)) from error
        raise
    if set(film.format.name.split(",")) & REFUSED_FORMATS:
        film.close()
        raise UnreadableError(*NOT_FILM)
    return film


def is_indexed(film: av.container.InputContainer) -> bool:
    """Whether a search by time ends at a keyframe."""
    return not set(film.format.name.split(",")) & WITHOUT_INDEX


def facts_in(film: av.container.InputContainer) -> ClipFacts:
    """Facts of an open film; refuses one without a usable picture."""
    videos = [s for s in film.streams.video if not s.disposition & s.disposition.attached_pic]
    if not videos:
        raise UnfitError(*(NO_VIDEO if film.streams.audio else NO_TRACK))
    stream = videos[0]
    if stream.codec_context is None:  # a damaged header names no format that is known
        raise UnreadableError(*BAD_CODEC)
    if stream.codec_context.name in {"ansi", "bintext", "xbin", "idf"}:
        raise UnreadableError(*NOT_FILM)
    width, height = stream.width or 0, stream.height or 0
    if width and height and min(width, height) < SMALLEST_PX:
        raise UnfitError(*TOO_SMALL)
    duration = None
    if stream.duration and stream.time_base:
        duration = float(stream.duration * stream.time_base)
    elif film.duration:
        duration = film.duration / av.time_base
    metadata = {**stream.metadata, **film.metadata}
    focal_mm, focal_eq_mm = focal_lengths(metadata)
    return ClipFacts(
        width=width,
        height=height,
        codec=stream.codec_context.name,
        duration_s=duration if duration and duration > 0 else None,
        frames=stream.frames,
        has_sound=bool(film.streams.audio),
        recorded_at=normalised(metadata.get("creation_time")),
        title=metadata.get("title"),
        focal_mm=focal_mm,
        focal_eq_mm=focal_eq_mm,
        capture_fps=capture_rate(metadata),
    )


def capture_rate(metadata: Mapping[str, str]) -> float | None:
    """Frames a second at which a film was taken, where a key such as com.android.capture.fps says
    so; None where none does, or says what no camera does."""
    for key, value in metadata.items():
        plain = re.sub(r"[^a-z]", "", key.lower())
        if not re.search(r"captur\w*(fps|framerate|rate)$", plain):
            continue
        match = re.match(r"\s*(\d+(?:\.\d+)?)(?:\s*/\s*(\d+(?:\.\d+)?))?\s*(?:fps)?\s*$", value)
        under = float(match[2] or 1) if match else 0.0
        rate = float(match[1]) / under if match and under else 0.0
        if SLOWEST_CAPTURE_HZ <= rate <= FASTEST_CAPTURE_HZ:
            return rate
    return None


def focal_lengths(metadata: Mapping[str, str]) -> tuple[float | None, float | None]:
    """True and equivalent focal length, mm, from whatever keys a camera writes them under.

    A key that speaks of focal length and of 35 (mm film) is taken as equivalent; values may be
    "24", "24.0 mm" or "240/10". Anything outside 1 to 3000 mm is not believed.
    """
    found: dict[bool, float] = {}
    for key, value in metadata.items():
        plain = re.sub(r"[^a-z0-9]", "", key.lower())
        match = re.match(r"\s*(\d+(?:\.\d+)?)\s*(?:/\s*(\d+(?:\.\d+)?))?\s*(?:mm)?\s*$", value)
        if "focallength" not in plain or match is None:
            continue
        under = float(match[2] or 1)
        focal = float(match[1]) / under if under else 0.0
        if FOCAL_MIN_MM <= focal <= FOCAL_MAX_MM:
            found.setdefault("35" in plain, focal)
    return found.get(False), found.get(True)


def _check_file(path: Path) -> None:
    try:
        if not path.exists():
            raise UnreadableError(*MISSING)
        if path.is_dir():
            raise UnreadableError(*FOLDER)
        if path.stat().st_size == 0:
            raise UnreadableError(*EMPTY)
        with path.open("rb"):
            pass
    except PermissionError as error:
        raise UnreadableError(*FORBIDDEN) from error


def _lacks_index(path: Path) -> bool:
    """Whether an ISO media file (mp4, mov) begins well but has no moov box."""
    with path.open("rb") as file:
        size = path.stat().st_size
        at, seen = 0, []
        while at + 8 <= size and len(seen) < 64:
            file.seek(at)
            length, kind = struct.unpack(">I4s", file.read(8))
            if length == 1 and at + 16 <= size:
                length = struct.unpack(">Q", file.read(8))[0]
            seen.append(kind)
            if length < 8:
                break
            at += length
    return (
        bool(seen)
        and seen[0] in {b"ftyp", b"moov", b"wide", b"mdat"}
        and (b"moov" not in seen or at > size)
    )
