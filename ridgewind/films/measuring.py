"""The one pass over a film: decode, follow the background, and feed whoever else listens."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path

import cv2
import numpy as np

from ridgewind.core.motion import Motion, pyramid
from ridgewind.core.motion.compression import compression_trust, with_compression_told
from ridgewind.core.motion.path import NEAR_INTERVAL, REASONS, typical_interval
from ridgewind.core.motion.sighting import Region
from ridgewind.core.motion.tracker import Tracker
from ridgewind.core.shake.doubt import with_noise_told
from ridgewind.media.decode import Film, Picture, first_frame_error
from ridgewind.media.errors import SINGLE_FRAME, TOO_SMALL, UnfitError

LEAST_WORKING_PX = 32
VARIABLE_SHARE = 0.02
"""A rate is variable when more of its intervals than this are not near the usual one."""

COMPLETE_SHARE = 0.95


@dataclass(frozen=True)
class Measured:
    """A measured clip. width, height: px as displayed. fps: frames a second, from the usual
    interval. claimed_s: length that the file claims, where frames end well before it.
    file_focal_mm, file_focal_eq_mm, file_capture_fps: what its metadata says of the lens and of
    the rate at which it was filmed. interlaced: its lines
    belong to two moments, and one of the two was measured. bits_per_pixel: that its pictures
    were given."""

    motion: Motion
    width: int
    height: int
    fps: float
    variable_rate: bool
    duration_s: float
    frames: int
    codec: str
    has_sound: bool
    recorded_at: str | None
    title: str | None
    claimed_s: float | None
    file_focal_mm: float | None
    file_focal_eq_mm: float | None
    file_capture_fps: float | None
    interlaced: bool
    bits_per_pixel: float


Listener = Callable[[Picture, float | None], None]
"""Called with every frame and the share done so far, None where unknown; may raise."""


def measure_film(
    path: Path, *, on_picture: Listener | None = None, background: frozenset[int] = frozenset()
) -> Measured:
    """Measure a film in one decode pass and constant memory. background: cells of the picture, see
    Region, in which the shooter sees the background; none where nothing was said.

    Raises MediaError where the file cannot be read, holds a single frame, or no part of it
    can be measured.
    """
    cv2.setNumThreads(1)  # decoding fills the other core
    tracker: Tracker | None = None
    count, size = 0, (0, 0)
    with Film(path, plain=on_picture is None) as film:
        expected_s = film.facts.duration_s
        first_s = last_s = 0.0
        for picture in film.pictures(pyramid.to_working):
            if tracker is None:
                if min(picture.luma.shape) < LEAST_WORKING_PX:
                    raise UnfitError(*TOO_SMALL)
                height, width = picture.luma.shape
                region = Region(background, upright=height > width) if background else None
                tracker = Tracker((width, height), region=region)
                first_s, size = picture.t_s, picture.size
            if picture.size != size:
                break  # another picture size begins another film
            tracker.feed(picture.t_s, picture.luma)
            count, last_s = count + 1, picture.t_s
            if on_picture is not None:
                done = None if not expected_s else min(1.0, (last_s - first_s) / expected_s)
                on_picture(picture, done)
        if tracker is None:
            raise first_frame_error(film)
        if count < 2:
            raise UnfitError(*SINGLE_FRAME)
        facts = film.facts
    motion = tracker.finish()
    _refuse_unmeasurable(motion)
    bits_per_pixel = 8.0 * film.bytes_read / max(1, count * facts.width * facts.height)
    intervals = np.diff(motion.t_s)
    interval_s = typical_interval(motion.t_s)
    odd = np.abs(intervals - interval_s) > NEAR_INTERVAL * interval_s
    duration_s = last_s - first_s + interval_s
    believed = compression_trust(bits_per_pixel, fps=1.0 / interval_s)
    motion = with_noise_told(replace(motion, trust=with_compression_told(motion.trust, believed)))
    short = expected_s is not None and duration_s < COMPLETE_SHARE * expected_s
    return Measured(
        motion=motion,
        width=size[0],
        height=size[1],
        fps=round(1.0 / interval_s, 3),
        variable_rate=bool(odd.mean() > VARIABLE_SHARE),
        duration_s=duration_s,
        frames=count,
        codec=facts.codec,
        has_sound=facts.has_sound,
        recorded_at=facts.recorded_at,
        title=facts.title,
        claimed_s=expected_s if short else None,
        file_focal_mm=facts.focal_mm,
        file_focal_eq_mm=facts.focal_eq_mm,
        file_capture_fps=facts.capture_fps,
        interlaced=film.interlaced,
        bits_per_pixel=bits_per_pixel,
    )


NEXT_STEPS = {
    "short": "film for at least a second",
    "dark": "add light or raise the exposure, and film it again",
    "detail": "film something with texture in it, in focus",
    "blur": "use a shorter shutter time or move more slowly",
    "frozen": "export or copy it again; its picture stands still",
    "subject": "step back, so that some background shows",
    "times": "copy it from the card again, or convert it",
}


def _refuse_unmeasurable(motion: Motion) -> None:
    if any(shot.measurable for shot in motion.shots):
        return
    key = next((shot.reason for shot in motion.shots if shot.reason), "detail")
    raise UnfitError(f"not_measurable_{key}", _said(key), NEXT_STEPS[key])


def _said(key: str) -> str:
    said = {
        "detail": "blank or has too little detail to follow",
        "subject": "filled by something in front",
    }.get(key, REASONS[key])
    return said if key == "times" else f"its picture is {said}"
