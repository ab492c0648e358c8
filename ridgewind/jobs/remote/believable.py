"""What a result may be. A worker's machine is another's, and what it sends is kept for good: it is
looked at as anything is that a stranger sends."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from ridgewind.core.motion.path import DOUBTS, REASONS, Motion
from ridgewind.films.orders import RenderResult
from ridgewind.store.clips import ClipFactsRow
from ridgewind.store.jobs import Fault

MOST_SECONDS = 400 * 3600.0
MOST_PCT = 1e7
"""That a path strays: a camera that turns around for hours."""

SIGNATURES = {"copy": (4, b"ftyp"), "film": (4, b"ftyp"), "still": (0, b"\xff\xd8\xff")}
"""Where in a part's file stands what it must begin with: MP4 and JPEG."""

MOST_STILL_BYTES = 4 << 20


class _Finite(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=False, allow_inf_nan=False)


class _Facts(_Finite):
    width: int = Field(ge=16, le=65_536)
    height: int = Field(ge=16, le=65_536)
    fps: float = Field(gt=0, le=100_000)
    variable_rate: bool
    duration_s: float = Field(gt=0, le=MOST_SECONDS)
    claimed_s: float | None = Field(ge=0, le=1e9)
    frames: int = Field(ge=2, le=100_000_000)
    codec: str = Field(max_length=60)
    has_sound: bool
    recorded_at: str | None = Field(max_length=60)
    file_focal_mm: float | None = Field(gt=0, le=100_000)
    file_focal_eq_mm: float | None = Field(gt=0, le=100_000)
    file_capture_fps: float | None = Field(gt=0, le=100_000)
    interlaced: bool
    bits_per_pixel: float = Field(ge=0, le=100_000)


class _Slate(_Finite):
    slate: tuple[int, int]
    from_s: float = Field(ge=0, le=MOST_SECONDS)
    until_s: float = Field(ge=0, le=MOST_SECONDS)


class _Rendered(_Finite):
    gust: float | None = Field(ge=0, le=10)
    peak_gust: float | None = Field(ge=0, le=10)
    unmeasured: str | None = Field(max_length=300)
    edge_gust: float | None = Field(ge=0, le=10)
    subject_gust: float | None = Field(ge=0, le=10)


class _Fault(_Finite):
    code: str = Field(pattern=r"^[a-z_]{1,40}$")
    what: str
    next_step: str


_TITLE = TypeAdapter(str | None)
MOST_TITLE = 300
MOST_SLATES = 10_000


def facts(told: object) -> ClipFactsRow:
    """The facts of a film. Raises ValueError."""
    found = _Facts.model_validate(told)
    if found.recorded_at is not None:
        datetime.fromisoformat(found.recorded_at)
    return ClipFactsRow(**found.model_dump())


def title(told: object) -> str | None:
    """A film's own title. Raises ValueError."""
    found = _TITLE.validate_python(told, strict=True)
    return None if found is None else found[:MOST_TITLE]


def slates(told: object) -> list[dict[str, object]]:
    """Slates that were seen. Raises ValueError."""
    found = TypeAdapter(list[_Slate]).validate_python(told)
    if len(found) > MOST_SLATES:
        raise ValueError("there are too many slates")
    return [one.model_dump() for one in found]


def rendered(told: object) -> RenderResult:
    """What a rendered film measures as. Raises ValueError."""
    return RenderResult(**_Rendered.model_validate(told).model_dump())


def fault(told: object, *, most_words: int) -> Fault:
    """Why a film cannot be done. Raises ValueError."""
    found = _Fault.model_validate(told)
    return Fault(found.code, found.what[:most_words], found.next_step[:most_words])


def require_path(motion: Motion, *, frames: int) -> None:
    """Raises ValueError for a path that no film of so many frames has."""
    columns = (motion.pan_pct, motion.tilt_pct, motion.roll_deg, motion.zoom_pct, motion.trust)
    lengths = {len(motion.t_s), len(motion.error), *(len(one) for one in columns)}
    if lengths != {frames}:
        raise ValueError("the path is not of the film's frames")
    if not (np.isfinite(motion.t_s).all() and (np.diff(motion.t_s) > 0).all()):
        raise ValueError("its times do not grow")
    if not (np.isfinite(motion.trust).all() and np.isfinite(motion.error).all()):
        raise ValueError("its trust or its error is no number")
    if motion.trust.min() < 0 or motion.trust.max() > 1 or not 0 < motion.aspect <= 1:
        raise ValueError("its trust or its aspect cannot be")
    path = np.column_stack(columns[:4])
    known = np.isfinite(path)
    if (known.any(axis=1) != known.all(axis=1)).any() or np.isinf(path).any():
        raise ValueError("a part of a frame's place is no number")
    if (np.abs(path[known]) > MOST_PCT).any() or (np.abs(motion.error) > MOST_PCT).any():
        raise ValueError("the path strays too far")
    shares = (motion.outlier_share, motion.repeated)
    if not all(0 <= share <= 1 for share in shares):
        raise ValueError("a share cannot be")
    _require_shots(motion, frames)


def _require_shots(motion: Motion, frames: int) -> None:
    at = 0
    for shot in motion.shots:
        if shot.start != at or not shot.start < shot.stop <= frames:
            raise ValueError("its shots do not follow one another")
        at = shot.stop
        if shot.reason is not None and shot.reason not in REASONS:
            raise ValueError("a shot has a reason that there is not")
        if shot.doubt is not None and shot.doubt not in DOUBTS:
            raise ValueError("a shot has a doubt that there is not")
        known = motion.trusted[shot.start : shot.stop]
        if shot.measurable and not known.any():
            raise ValueError("a shot is measurable without a frame that can be trusted")
        for rival in shot.rivals:
            if len(rival.path) != len(known) or not np.isfinite(rival.trust).all():
                raise ValueError("a rival is not of its shot's frames")
    if at != frames or not any(shot.measurable for shot in motion.shots):
        raise ValueError("it has no shot that can be measured")


def is_believable(part: str, path: Path) -> bool:
    """Whether a file that was sent back is of the kind that it is to be, by how it begins."""
    if part not in SIGNATURES:
        return True
    place, signature = SIGNATURES[part]
    if part == "still" and path.stat().st_size > MOST_STILL_BYTES:
        return False
    with path.open("rb") as file:
        return file.read(place + len(signature))[place:] == signature
