"""Doing it again: what to change, and the lens with which the same hand would pass."""

from __future__ import annotations

from ridgewind.core.brief import Brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge.remedy import Remedy
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.causes import Causes
from ridgewind.core.shake.gust import GUST_MAX, STEP_PER_DOUBLING
from ridgewind.core.shake.reading import Reading
from ridgewind.core.shake.stretch import PEAK_ALLOWANCE

WIDEST_USUAL_MM = 13.0
"""No wider lens is suggested: few kits hold one, and it changes the shot (chosen here)."""

RETAKE_POINTS = 1000.0
"""Dearer than all else, so that it stands last."""

LEAST_GUST = 0.05
"""Under which gust is shown as 0.0, and there is nothing to make better."""

BAND_RANGES = {
    "drift": "under 0.3 Hz",
    "sway": "0.3 to 1.2 Hz",
    "step": "1.2 to 4 Hz",
    "jitter": "4 to 14 Hz",
    "buzz": "over 14 Hz",
}

ONE_CHANGE = {
    "drift": "Fix your eye on one point, or brace against something.",
    "sway": "Add a third contact: brow, taut strap or hip.",
    "step": "Bend the knees more and land softer, or carry the camera off the body.",
    "jitter": "Tuck the elbows in, add a third contact, or go wider.",
    "buzz": "Hold the camera off what vibrates, and switch the stabiliser off on a support.",
}


def retake_remedy(
    brief: Brief, clip: Clip, bands: tuple[Band, ...], causes: Causes, reading: Reading
) -> Remedy:
    """Do it again, with the first cause and the one thing to change."""
    known = [band for band in bands if band.share is not None]
    top = max(known, key=lambda band: band.share or 0.0, default=None)
    if causes.causes:
        first = causes.causes[0]
        reason = f"First cause: {first.name.lower()} ({100 * first.share:.0f} %). {first.change}"
    elif _is_still(reading, brief):
        reason = "There is nothing to change: no shake can be read."
    elif top is None or not top.share:
        reason = "No clear cause. Change one thing, and keep the rest as it was."
    else:
        where = BAND_RANGES[top.name]
        if top.strongest_hz is not None and top.name != "drift":
            where = f"near {top.strongest_hz:.1f} Hz"
        reason = f"Most is {top.name} ({100 * top.share:.0f} %, {where}). {ONE_CHANGE[top.name]}"
    reason += _wider(reading, brief, clip)
    return Remedy("retake", True, reason, RETAKE_POINTS, cost="the shot again")


def _is_still(reading: Reading, brief: Brief) -> bool:
    gust = reading.gust(screen_deg=brief.screen_deg)
    return gust is not None and gust < LEAST_GUST


def widest_passing(gust: float | None, peak: float | None, brief: Brief, focal: float) -> float:
    """The longest focal length at which the same hand would pass, mm; 0 where gust is off the
    scale or not known."""
    if gust is None or peak is None or gust >= GUST_MAX:
        return 0.0
    over = max(gust - brief.target, peak - brief.target - PEAK_ALLOWANCE)
    return float(focal * 2.0 ** (-over / STEP_PER_DOUBLING))


def _wider(reading: Reading, brief: Brief, clip: Clip) -> str:
    """The focal length at which the same hand would pass, where a lens could reach it."""
    focal = widest_passing(
        reading.gust(screen_deg=brief.screen_deg),
        reading.peak(screen_deg=brief.screen_deg),
        brief,
        clip.focal_eq_mm,
    )
    if not WIDEST_USUAL_MM <= focal < clip.focal_eq_mm:
        return ""
    return f" At {int(focal)} mm the same hand would pass."
