"""What to do with a take, in the order that a shooter would choose.

Keep as shot; keep the lee; slow it; polish it; slow and polish; do it again. The first that passes
is the verdict.
"""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.judge.brief import Brief
from ridgewind.core.judge.polish import (
    BLUR_PCT,
    LIGHT_PCT,
    MEDIUM_PCT,
    MOST_APART,
    MOST_BLUR_PCT,
    PolishCurve,
)
from ridgewind.core.kit.timing import SLOWEST_USEFUL_RATE
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.causes import Causes
from ridgewind.core.shake.gust import GUST_MAX, STEP_PER_DOUBLING, to_gust
from ridgewind.core.shake.lee import PEAK_ALLOWANCE, Stretch, calmest
from ridgewind.core.shake.reading import Reading, ShotReading

LEAST_ENLARGING = 1.05
"""Enlarging by less cannot be seen (chosen here)."""

WIDEST_USUAL_MM = 13.0
"""No wider lens is suggested: few kits hold one, and it changes the shot (chosen here)."""

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


@dataclass(frozen=True)
class Clip:
    """Facts of the file and its set-up that the judgement needs. size_px: as displayed.
    focal_eq_mm: equivalent focal length. move_expected: its drill asks for a move."""

    fps: float
    duration_s: float
    has_sound: bool
    size_px: tuple[int, int]
    focal_eq_mm: float
    move_expected: bool = False


@dataclass(frozen=True)
class Remedy:
    """One way on, and what comes of it.

    kind: keep, lee, slow, polish, slow_polish or retake. passes: it meets the brief. gust, peak:
    after it, None where it does not apply. start_s, end_s: part of the file that it uses. rate:
    playback rate, 1 for as shot. plays_s: seconds on screen. cost: what it takes away, "" for
    nothing. reason: why it passes or why it is not open, one or two short sentences.
    """

    kind: str
    passes: bool
    gust: float | None
    peak: float | None
    start_s: float | None
    end_s: float | None
    rate: float
    plays_s: float | None
    cost: str
    reason: str


@dataclass(frozen=True)
class Decision:
    """remedies in order of preference; remedy: the kind that is the verdict; text: why."""

    remedies: tuple[Remedy, ...]
    remedy: str
    text: str


@dataclass(frozen=True)
class Lee:
    """A calm stretch, with its place in the file and its figures."""

    shot: ShotReading
    stretch: Stretch
    start_s: float
    end_s: float
    gust: float
    peak: float

    @property
    def length_s(self) -> float:
        return self.end_s - self.start_s


def find_lee(reading: Reading, brief: Brief) -> Lee | None:
    """The longest stretch of any shot that passes the brief's target."""
    found = []
    for shot in reading.shots:
        stretch = shot.lee(target=brief.target, screen_deg=brief.screen_deg)
        if stretch is None:
            continue
        gust = shot.gust(stretch, screen_deg=brief.screen_deg)
        peak = shot.peak(stretch, screen_deg=brief.screen_deg)
        if gust is not None and peak is not None:
            found.append(Lee(shot, stretch, *shot.times(stretch), gust, peak))
    return max(found, key=lambda lee: lee.length_s, default=None)


def decide(
    as_shot: Reading,
    slowed: Reading | None,
    bands: tuple[Band, ...],
    causes: Causes,
    brief: Brief,
    *,
    lee: Lee | None,
    clip: Clip,
    polish: PolishCurve | None,
    slow_polish: PolishCurve | None,
    apart: float,
) -> Decision:
    """Weigh the remedies.

    lee: the calm stretch as shot. slowed: the reading at the rate that delivery allows, None
    where slowing is not open. polish, slow_polish: what polishing would leave, as shot and
    slowed. apart: share of the picture that moves otherwise.
    """
    remedies = (
        _keep(as_shot, brief, clip),
        _keep_lee(lee, as_shot, brief, clip.duration_s),
        _slow(slowed, brief, clip),
        polish_remedy("polish", polish, as_shot, brief, clip, apart),
        polish_remedy("slow_polish", slow_polish, slowed, brief, clip, apart),
        _retake(bands, causes, as_shot, brief, clip),
    )
    chosen = next(remedy for remedy in remedies if remedy.passes)
    return Decision(remedies, chosen.kind, _verdict_text(chosen, remedies, brief))


def slow_rate(brief: Brief, *, fps: float) -> float | None:
    """Playback rate when every captured frame is shown at the delivery rate, or None."""
    rate = brief.delivery_fps / fps
    return rate if rate <= SLOWEST_USEFUL_RATE and not brief.keep_sound else None


def _passes(gust: float | None, peak: float | None, brief: Brief) -> bool:
    if gust is None or peak is None:
        return False
    return gust <= brief.target and peak <= brief.target + PEAK_ALLOWANCE


def _over(gust: float, peak: float, brief: Brief) -> str:
    if gust > brief.target:
        return f"Peak {peak:.1f}. Over target."
    return f"Peak {peak:.1f}, more than 1 over target."


def _keep(reading: Reading, brief: Brief, clip: Clip) -> Remedy:
    gust = reading.gust(screen_deg=brief.screen_deg)
    peak = reading.peak(screen_deg=brief.screen_deg)
    passes, duration_s = _passes(gust, peak, brief), clip.duration_s
    if gust is None or peak is None:
        reason = "Not measurable."
    elif not passes:
        reason = _over(gust, peak, brief)
    elif duration_s < brief.wanted_s - 0.05:
        reason = f"Calm throughout, but {duration_s:.1f} s where you want {brief.wanted_s:g} s."
    else:
        reason = f"Calm throughout. Peak {peak:.1f}."
    cost = _enlarging(brief, clip)
    if cost and passes:
        reason += f" {cost[0].upper()}{cost[1:]}."
    start_s, end_s = _whole(reading)
    return Remedy("keep", passes, gust, peak, start_s, end_s, 1.0, duration_s, cost, reason)


def _whole(reading: Reading) -> tuple[float, float]:
    """First and last moment of everything that is judged, s in the file."""
    return reading.shots[0].start_s, reading.shots[-1].end_s


def _enlarging(brief: Brief, clip: Clip) -> str:
    """What it means that the picture is smaller than its delivery, or nothing."""
    width, height = clip.size_px
    shape = brief.delivery_width_px / brief.delivery_height_px
    fits = min(float(width), height * shape)
    factor = brief.delivery_width_px / fits
    if factor < LEAST_ENLARGING:
        return ""
    return f"enlarged {factor:.1f} times for {brief.delivery_width_px} px"


def _keep_lee(lee: Lee | None, reading: Reading, brief: Brief, duration_s: float) -> Remedy:
    if lee is None:
        reason = f"No full second of it is calm enough.{_calmest_words(reading, brief)}"
        return Remedy("lee", False, None, None, None, None, 1.0, None, "", reason)
    long_enough = lee.length_s >= brief.wanted_s
    if long_enough:
        reason = f"{lee.length_s:.1f} s are calm, from {lee.start_s:.1f} to {lee.end_s:.1f} s."
    else:
        reason = f"Calm, but {lee.length_s:.1f} s. You want {brief.wanted_s:g} s."
    cost = f"{max(0.0, duration_s - lee.length_s):.1f} s cut away"
    return Remedy(
        "lee", long_enough, lee.gust, lee.peak, lee.start_s, lee.end_s, 1.0, lee.length_s,
        cost, reason,
    )  # fmt: skip


def _calmest_words(reading: Reading, brief: Brief) -> str:
    """Where the calmest stretch of the wanted length lies, or nothing where all are shorter."""
    found = []
    for shot in reading.shots:
        if shot.reason is not None:
            continue
        stretch = calmest(shot.power, shot.counted, rate_hz=shot.rate_hz, length_s=brief.wanted_s)
        if stretch is not None:
            gust = shot.gust(stretch, screen_deg=brief.screen_deg)
            found.append((gust or 0.0, shot.times(stretch)[0]))
    if not found:
        return ""
    gust, start_s = min(found)
    return f" Its calmest {brief.wanted_s:g} s, from {start_s:.1f} s, read {gust:.1f}."


def _slow(reading: Reading | None, brief: Brief, clip: Clip) -> Remedy:
    fps, has_sound, duration_s = clip.fps, clip.has_sound, clip.duration_s
    if reading is None:
        if brief.keep_sound:
            reason = "Not open: the brief keeps the sound."
        else:
            reason = f"Not open: {fps:.4g} frames a second leave no room at {brief.delivery_fps:g}."
        return Remedy("slow", False, None, None, None, None, 1.0, None, "", reason)
    rate = reading.playback
    cost = "sound lost" if has_sound else ""
    gust = reading.gust(screen_deg=brief.screen_deg)
    peak = reading.peak(screen_deg=brief.screen_deg)
    if _passes(gust, peak, brief) and duration_s / rate >= brief.wanted_s:
        reason = f"All of it plays {duration_s / rate:.1f} s."
        return Remedy(
            "slow", True, gust, peak, *_whole(reading), rate, duration_s / rate, cost,
            f"{reason}{' No sound.' if has_sound else ''}",
        )  # fmt: skip
    lee = find_lee(reading, brief)
    if lee is None:
        reason = "Still over target when slowed."
        return Remedy("slow", False, gust, peak, None, None, rate, None, cost, reason)
    plays_s = lee.length_s / rate
    enough = plays_s >= brief.wanted_s
    reason = f"{lee.length_s:.1f} s of calm play {plays_s:.1f} s."
    reason += "" if enough else f" You want {brief.wanted_s:g} s."
    return Remedy(
        "slow", enough, lee.gust, lee.peak, lee.start_s, lee.end_s, rate, plays_s, cost,
        f"{reason}{' No sound.' if has_sound else ''}",
    )  # fmt: skip


def polish_remedy(
    kind: str,
    curve: PolishCurve | None,
    reading: Reading | None,
    brief: Brief,
    clip: Clip,
    apart: float,
) -> Remedy:
    """The least crop that passes, or the best that the brief's crop allows."""
    if curve is None or reading is None:
        reason = "Not open: it cannot be slowed." if kind == "slow_polish" else "Not measurable."
        return Remedy(kind, False, None, None, None, None, 1.0, None, "", reason)
    within = [point for point in curve.points if point.crop_pct <= brief.most_crop_pct]
    if not within:
        least = curve.points[0].crop_pct
        reason = f"Not open: the lightest takes {least:.1f} % crop, of {brief.most_crop_pct:g} %."
        return Remedy(kind, False, None, None, None, None, reading.playback, None, "", reason)
    seen = [
        (to_gust(point.speed_pct_s, screen_deg=brief.screen_deg),
         to_gust(point.peak_pct_s, screen_deg=brief.screen_deg), point)
        for point in within
    ]  # fmt: skip
    passing = [one for one in seen if _passes(one[0], one[1], brief)]
    gust, peak, point = passing[0] if passing else min(seen, key=lambda one: one[0])
    plays_s = clip.duration_s / reading.playback
    enough = kind == "polish" or plays_s >= brief.wanted_s
    warnings = _polish_warnings(curve, clip, brief, point.crop_pct, apart)
    lost = reading.playback < 1.0 and clip.has_sound
    cost = f"{point.crop_pct:.1f} % crop{', sound lost' if lost else ''}"
    how = strength(point.crop_pct)
    smears = curve.blur_pct > MOST_BLUR_PCT
    if passing and smears:
        reason = f"{point.crop_pct:.1f} % crop would do, but it smears.{warnings}"
    elif passing:
        reason = f"{how}: {point.crop_pct:.1f} % crop.{warnings}"
    else:
        reason = f"Still over target with {point.crop_pct:.1f} % crop.{warnings}"
    return Remedy(
        kind, bool(passing) and enough and not smears, gust, peak, *_whole(reading),
        reading.playback, plays_s, cost, reason,
    )  # fmt: skip


def strength(crop_pct: float) -> str:
    """Light, medium or strong, by the crop that it takes."""
    return "Light" if crop_pct <= LIGHT_PCT else "Medium" if crop_pct <= MEDIUM_PCT else "Strong"


def _polish_warnings(
    curve: PolishCurve, clip: Clip, brief: Brief, crop_pct: float, apart: float
) -> str:
    """What will be seen all the same, each with its figure."""
    found = []
    left_px = max(clip.size_px) * (1.0 - crop_pct / 100.0)
    wanted_px = max(brief.delivery_width_px, brief.delivery_height_px)
    if left_px * LEAST_ENLARGING < wanted_px:
        found.append(f"{left_px:.0f} px are left for {wanted_px}.")
    if curve.blur_pct > BLUR_PCT:
        found.append(f"Motion blur stays ({curve.blur_pct:.2f} %).")
    if apart > MOST_APART:
        found.append("Near things move otherwise and will bend.")
    return f" {' '.join(found)}" if found else ""


def _retake(
    bands: tuple[Band, ...], causes: Causes, reading: Reading, brief: Brief, clip: Clip
) -> Remedy:
    known = [band for band in bands if band.share is not None]
    top = max(known, key=lambda band: band.share or 0.0, default=None)
    if causes.causes:
        first = causes.causes[0]
        reason = f"First cause: {first.name.lower()} ({100 * first.share:.0f} %). {first.change}"
    elif top is None or not top.share:
        reason = "No clear cause. Change one thing, and keep the rest as it was."
    else:
        where = BAND_RANGES[top.name]
        if top.strongest_hz is not None and top.name != "drift":
            where = f"near {top.strongest_hz:.1f} Hz"
        reason = f"Most is {top.name} ({100 * top.share:.0f} %, {where}). {ONE_CHANGE[top.name]}"
    reason += _wider(reading, brief, clip)
    return Remedy("retake", True, None, None, None, None, 1.0, None, "the shot again", reason)


def _wider(reading: Reading, brief: Brief, clip: Clip) -> str:
    """The focal length at which the same hand would pass, where a lens could reach it."""
    gust = reading.gust(screen_deg=brief.screen_deg)
    peak = reading.peak(screen_deg=brief.screen_deg)
    if gust is None or peak is None or gust >= GUST_MAX:
        return ""
    over = max(gust - brief.target, peak - brief.target - PEAK_ALLOWANCE)
    focal = clip.focal_eq_mm * 2.0 ** (-over / STEP_PER_DOUBLING)
    if over <= 0 or focal < WIDEST_USUAL_MM:
        return ""
    return f" At {int(focal)} mm the same hand would pass."


def _verdict_text(chosen: Remedy, remedies: tuple[Remedy, ...], brief: Brief) -> str:
    target = f"the {brief.target:.1f} that {brief.feel} allows"
    keep = remedies[0]
    if chosen.kind == "keep":
        return f"Keep it as shot: gust {chosen.gust:.1f}, within {target}. {chosen.reason}"
    if chosen.kind == "lee":
        return (
            f"Keep the lee from {chosen.start_s:.1f} to {chosen.end_s:.1f} s: "
            f"gust {chosen.gust:.1f} there, within {target}."
        )
    if chosen.kind in ("polish", "slow_polish"):
        slowed = f"Slow to {100 * chosen.rate:.0f} % and polish" if chosen.rate < 1 else "Polish it"
        return f"{slowed}: gust {chosen.gust:.1f}, within {target}. {chosen.reason}"
    if chosen.kind == "slow":
        return f"Slow to {100 * chosen.rate:.0f} %: gust {chosen.gust:.1f}, within {target}. " + (
            chosen.reason
        )
    if keep.gust is None:
        return f"Do it again. {chosen.reason}"
    return f"Do it again: gust {keep.gust:.1f} where {brief.target:.1f} is allowed. {chosen.reason}"
