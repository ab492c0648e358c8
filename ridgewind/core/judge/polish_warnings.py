"""What a polish cannot take away, and what it adds: each with its evidence."""

from __future__ import annotations

from ridgewind.core.brief import Brief
from ridgewind.core.clip import USUAL_SHUTTER, Clip
from ridgewind.core.judge.polish import (
    LIGHT_PCT,
    MEDIUM_PCT,
    USUAL_READOUT_S,
    PolishCurve,
    PolishPoint,
)
from ridgewind.core.judge.shutter import KnownReadout
from ridgewind.core.shake.gust import to_gust

LEAST_ENLARGING = 1.05
"""Enlarging by less cannot be seen (chosen here)."""

BLUR_PCT, MOST_BLUR_PCT = 0.15, 0.3
"""Smear in one exposure from which it shows after polishing (definition), and from which a polished
shot looks wrong, because it smears where nothing moves (chosen here: twice that)."""

MOST_OUTLIERS = 0.3
"""Share of the picture that moves otherwise, from which a polish bends it."""

LEAST_FOLLOWED = 0.95
"""Share of the frames that must be trusted: what was not followed cannot be held still."""

NOISY_GUST = 1.0
"""Gust of the measurement's own error from which a polish cannot be relied on (chosen here: night
clips of 1.3 came out half a gust rougher than predicted)."""

WOBBLE_PCT, LEAST_WOBBLE_PCT = 0.2, 0.1
"""Lean of an upright, percent of the long side over the height, from which it is seen to wobble
once the frame is still (chosen here: a third more than the smear that shows); half of that where
the lines move faster by it than what is left of the whole picture (a preview measured again
read half a gust and more over its prediction there)."""

FAST_PCT_S = 30.0
"""Speed of a move from which it judders, polished or not: a thing crosses the frame in under half
of the seven seconds that are a guide at cinema rates."""

STRONG_CORNER_HZ = 0.3
"""Below this a polish takes the way a person moves away too (chosen here)."""


def enlarging(brief: Brief, clip: Clip, *, crop_pct: float) -> float:
    """How many times the picture must be enlarged for its delivery, at least 1."""
    width, height = clip.size_px
    shape = brief.delivery_width_px / brief.delivery_height_px
    fits = min(float(width), height * shape) * (1.0 - crop_pct / 100.0)
    return max(1.0, brief.delivery_width_px / fits)


def enlarged_words(brief: Brief, clip: Clip) -> str:
    """What it means that the picture is smaller than its delivery, or nothing."""
    factor = enlarging(brief, clip, crop_pct=0.0)
    if factor < LEAST_ENLARGING:
        return ""
    return f"enlarged {factor:.1f} times for {brief.delivery_width_px} px"


def smear_pct(curve: PolishCurve, clip: Clip) -> float:
    """Smear of a frame that one in twenty exceeds, at the shutter of the clip."""
    return curve.blur_pct * clip.shutter_share / USUAL_SHUTTER


def wobbles(curve: PolishCurve, point: PolishPoint, readout: KnownReadout) -> bool:
    """Whether what stays of a rolling shutter shows once the frame is still."""
    longer = readout.seconds / USUAL_READOUT_S
    lean_pct, faster = curve.lean_pct * longer, curve.wobble_pct_s * longer > point.speed_pct_s
    return lean_pct > (LEAST_WOBBLE_PCT if faster else WOBBLE_PCT)


def of_polish(
    brief: Brief,
    clip: Clip,
    curve: PolishCurve,
    point: PolishPoint,
    *,
    outlier_share: float,
    readout: KnownReadout,
) -> list[str]:
    """What will be seen all the same, each with its figure; the worst first."""
    found = []
    blur_pct = smear_pct(curve, clip)
    if blur_pct > BLUR_PCT:
        found.append(f"Motion blur stays ({blur_pct:.2f} %).")
    if wobbles(curve, point, readout):
        lean_pct = curve.lean_pct * readout.seconds / USUAL_READOUT_S
        found.append(f"Uprights may wobble ({lean_pct:.1f} % lean).")
    if curve.followed < LEAST_FOLLOWED:
        lost = 100.0 * (1.0 - curve.followed)
        found.append(f"It may jump where it could not be followed ({lost:.0f} % of it).")
    if to_gust(curve.floor_pct_s) > NOISY_GUST:
        found.append("The picture is noisy: see it before you rely on it.")
    if outlier_share > MOST_OUTLIERS:
        otherwise = 100.0 * outlier_share
        found.append(f"Near things ({otherwise:.0f} % of it) move otherwise and will bend.")
    if curve.move_pct_s > FAST_PCT_S:
        found.append(f"A move of {curve.move_pct_s:.0f} % of the width a second will judder.")
    left_px = max(clip.size_px) * (1.0 - point.crop_pct / 100.0)
    wanted_px = max(brief.delivery_width_px, brief.delivery_height_px)
    if left_px * LEAST_ENLARGING < wanted_px:
        found.append(f"{left_px:.0f} px are left for {wanted_px}.")
    if point.crop_pct > MEDIUM_PCT or (
        point.corner_hz < STRONG_CORNER_HZ and point.crop_pct > LIGHT_PCT
    ):
        found.append("Strong enough to look unnatural.")
    return found
