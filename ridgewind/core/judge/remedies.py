"""What to do with a take: every way on, what comes of it and what it costs.

Keep as shot; keep the lee; slow it; polish it; polish the lee; slow and polish; hold the subject;
do it again. The cheapest that passes is the verdict; see cost.py for what is cheap.
"""

from __future__ import annotations

from itertools import takewhile

from ridgewind.core.brief import Brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import polish_warnings
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.asked import Asked, seen_after
from ridgewind.core.judge.cadence import stutter_words
from ridgewind.core.judge.cost import Weights
from ridgewind.core.judge.hold_remedy import hold_remedy
from ridgewind.core.judge.lee import (
    LONGEST_LEE_SHARE,
    Lee,
    find_calmest,
    find_lee,
    passes,
)
from ridgewind.core.judge.polish import LIGHT_PCT, MEDIUM_PCT, PolishCurve, PolishPoint
from ridgewind.core.judge.polish_warnings import enlarging
from ridgewind.core.judge.remedy import Decision, Remedy, verdict_text
from ridgewind.core.judge.retake import retake_remedy
from ridgewind.core.judge.shutter import readout_of
from ridgewind.core.judge.slow import chosen_rate
from ridgewind.core.motion.subject import Subject
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.causes import Causes
from ridgewind.core.shake.reading import Reading
from ridgewind.core.words import ordinal, span_words, time_words


def decide(
    analysis: Analysis,
    brief: Brief,
    clip: Clip,
    *,
    weights: Weights,
    lee: Lee | None,
    bands: tuple[Band, ...],
    causes: Causes,
    subject: Subject | None = None,
    step: float = 1.0,
) -> Decision:
    """Weigh the remedies. lee: the calm stretch as shot. subject: that was marked, s in the
    file. step: frames filmed for each one that is shown at full speed."""
    asked = Asked(analysis, brief, clip, weights, subject, step)
    as_shot = asked.as_shot()
    rate = chosen_rate(analysis, brief, fps=clip.fps, duration_s=clip.duration_s)
    upright = clip.upright
    keep = _keep(asked, as_shot)
    others = [
        _keep_lee(asked, as_shot, lee),
        _slow(asked, rate),
        polish_remedy(
            asked, "polish", analysis.polish(step=step, upright=upright), as_shot, step=step
        ),
        _polish_lee(asked, as_shot),
        _slow_polish(asked, rate),
        hold_remedy(asked),
        retake_remedy(brief, clip, bands, causes, as_shot),
    ]
    remedies = (keep, *sorted(others, key=lambda one: one.points))
    open_ = [one for one in remedies if one.passes]
    chosen = min(open_, key=lambda one: one.points)
    return Decision(remedies, chosen.kind, verdict_text(chosen, keep, brief))


def _seen(reading: Reading, brief: Brief) -> tuple[float | None, float | None]:
    screen = brief.screen_deg
    return reading.gust(screen_deg=screen), reading.peak(screen_deg=screen)


def _whole(reading: Reading) -> tuple[float, float]:
    """First and last moment of everything that is judged, s in the file."""
    return reading.shots[0].start_s, reading.shots[-1].end_s


def _keep(asked: Asked, reading: Reading) -> Remedy:
    brief, clip = asked.brief, asked.clip
    gust, peak = _seen(reading, brief)
    good, duration_s = passes(gust, peak, brief), clip.duration_s
    cost = polish_warnings.enlarged_words(brief, clip)
    if gust is None or peak is None:
        reason = "Not measurable."
    elif gust > brief.target:
        reason = f"Peak {peak:.1f}. Over target."
    elif not good:
        reason = f"Peak {peak:.1f}, more than 1 over target."
    elif duration_s < brief.wanted_s - 0.05:
        reason = f"Within target, but {time_words(duration_s)} where you want {brief.wanted_s:g} s."
    else:
        reason = f"Within target throughout. Peak {peak:.1f}."
    if cost and good:
        reason += f" {cost[0].upper()}{cost[1:]}."
    if good:
        reason += _stutter(asked)
    start_s, end_s = _whole(reading)
    return Remedy(
        "keep", good, reason, asked.price(), gust, peak, start_s, end_s,
        step=asked.step, plays_s=duration_s, cost=cost,
    )  # fmt: skip


def _keep_lee(asked: Asked, reading: Reading, lee: Lee | None) -> Remedy:
    brief, duration_s = asked.brief, asked.clip.duration_s
    if lee is None:
        reason = f"No full second of it is calm enough.{_calmest_words(reading, brief)}"
        return Remedy("lee", False, reason, asked.price(cut_share=1.0, steps=("cut",)))
    cut_s = max(0.0, duration_s - lee.length_s)
    enough = lee.length_s >= brief.wanted_s - 0.05
    if enough:
        reason = f"{time_words(lee.length_s)} calm, {span_words(lee.start_s, lee.end_s)}."
        reason += _room_words(reading, brief, lee) + _stutter(asked)
    else:
        reason = f"Calm, but {time_words(lee.length_s)}. You want {brief.wanted_s:g} s."
    points = asked.price(cut_share=cut_s / max(duration_s, 1e-3), steps=("cut",))
    return Remedy(
        "lee", enough, reason, points, lee.gust, lee.peak, lee.start_s, lee.end_s,
        step=asked.step, plays_s=lee.length_s, cost=f"{time_words(cut_s)} cut away",
    )  # fmt: skip


def _stutter(asked: Asked) -> str:
    """What playing at full speed does to moves that were filmed at another rate."""
    words = stutter_words(asked.clip.fps, asked.brief.delivery_fps)
    return f" {words}" if words else ""


def _room_words(reading: Reading, brief: Brief, lee: Lee) -> str:
    """Where the best of the wanted length lies within the lee, and the room at its two ends."""
    best = find_calmest(reading, brief, length_s=brief.wanted_s, within=lee)
    if best is None:
        return ""
    head_s, tail_s = best.start_s - lee.start_s, lee.end_s - best.end_s
    if head_s + tail_s < 0.2:
        return ""
    return (
        f" Best {brief.wanted_s:g} s from {time_words(best.start_s)}, room of"
        f" {time_words(head_s)} before and {time_words(tail_s)} after."
    )


def _calmest_words(reading: Reading, brief: Brief) -> str:
    """Where the calmest stretch of the wanted length lies, or nothing where all are shorter."""
    best = find_calmest(reading, brief, length_s=brief.wanted_s)
    if best is None:
        return ""
    return (
        f" Its calmest {brief.wanted_s:g} s, from {time_words(best.start_s)}, read {best.gust:.1f}."
    )


def _slow_closed(asked: Asked) -> str:
    """Why slowing is not open."""
    if asked.brief.keep_sound:
        return "Not open: the brief keeps the sound."
    fps, delivery = asked.clip.fps, asked.brief.delivery_fps
    return f"Not open: {fps:.4g} frames a second leave no room at {delivery:g}."


def _slow(asked: Asked, rate: tuple[float, int] | None) -> Remedy:
    brief, clip = asked.brief, asked.clip
    if rate is None:
        return Remedy("slow", False, _slow_closed(asked), asked.price(rate=0.5, steps=("slow",)))
    playback, step = rate
    reading = asked.analysis.reading(playback, step=step)
    gust, peak = _seen(reading, brief)
    lost = clip.has_sound
    cost = "sound lost" if lost else ""
    tail = " No sound." if lost else ""
    tail += f" Every {ordinal(step)} frame." if step > 1 else ""
    plays_s = clip.duration_s / playback
    points = asked.price(rate=playback, sound_lost=lost, steps=("slow",))
    if passes(gust, peak, brief) and plays_s >= brief.wanted_s:
        return Remedy(
            "slow", True, f"All of it plays {time_words(plays_s)}.{tail}", points, gust, peak,
            *_whole(reading), playback, step, plays_s, cost=cost,
        )  # fmt: skip
    lee = find_lee(reading, brief)
    if lee is None:
        reason = "Still over target when slowed."
        return Remedy(
            "slow", False, reason, points, gust, peak, rate=playback, step=step, cost=cost
        )
    plays_s = lee.length_s / playback
    enough = plays_s >= brief.wanted_s
    reason = f"{time_words(lee.length_s)} of calm play {time_words(plays_s)}."
    reason += "" if enough else f" You want {brief.wanted_s:g} s."
    cut_share = max(0.0, 1.0 - lee.length_s / max(clip.duration_s, 1e-3))
    points += asked.price(cut_share=cut_share, steps=("cut",)) - asked.price()
    return Remedy(
        "slow", enough, f"{reason}{tail}", points, lee.gust, lee.peak, lee.start_s, lee.end_s,
        playback, step, plays_s, cost=cost,
    )  # fmt: skip


def polish_remedy(
    asked: Asked,
    kind: str,
    curve: PolishCurve | None,
    reading: Reading,
    *,
    lee: Lee | None = None,
    step: float = 1.0,
) -> Remedy:
    """The least crop that passes, or the best that the brief's crop allows. lee: polish that
    stretch alone."""
    brief, clip, playback = asked.brief, asked.clip, reading.playback
    steps = ("cut",) * (lee is not None) + ("slow",) * (playback < 1.0) + ("polish",)
    nominal = asked.price(crop_pct=brief.most_crop_pct, rate=playback, steps=steps)
    if curve is not None and lee is not None:
        curve = curve.part(lee.index, lee.stretch)
    if curve is None:
        return Remedy(kind, False, "Not measurable.", nominal)
    point = least_strength(curve, brief)
    if point is None:
        least = curve.points[0].crop_pct
        reason = f"Not open: the lightest takes {least:.1f} % crop, of {brief.most_crop_pct:g} %."
        return Remedy(kind, False, reason, nominal, rate=playback, step=step)
    gust, peak = seen_after(point, brief)
    blur_pct = polish_warnings.smear_pct(curve, clip)
    good, smears = passes(gust, peak, brief), blur_pct > polish_warnings.MOST_BLUR_PCT
    start_s, end_s = _whole(reading) if lee is None else (lee.start_s, lee.end_s)
    length_s = clip.duration_s if lee is None else lee.length_s
    outliers = asked.analysis.motion.outlier_share
    readout = readout_of(clip, asked.analysis.motion)
    found = polish_warnings.of_polish(
        brief, clip, curve, point, outlier_share=outliers, readout=readout
    )
    lost = playback < 1.0 and clip.has_sound
    if good and smears:
        reason = f"{point.crop_pct:.1f} % crop would do, but it smears."
    elif good:
        reason = f"{strength(point.crop_pct)}: {point.crop_pct:.1f} % crop."
    else:
        reason = f"Still over target with {point.crop_pct:.1f} % crop."
    if lee is not None:
        reason = (
            f"Calmest {time_words(lee.length_s / playback)}, from {time_words(start_s)}. {reason}"
        )
    return Remedy(
        kind=kind,
        passes=good and not smears and length_s / playback >= _least_s(asked, kind),
        reason=" ".join([reason, *found]),
        points=asked.price(
            cut_share=max(0.0, 1.0 - length_s / max(clip.duration_s, 1e-3)),
            rate=playback,
            crop_pct=point.crop_pct,
            enlarge=enlarging(brief, clip, crop_pct=point.crop_pct),
            blur_pct=blur_pct if blur_pct > polish_warnings.BLUR_PCT else 0.0,
            sound_lost=lost,
            steps=steps,
        ),
        gust=gust,
        peak=peak,
        start_s=start_s,
        end_s=end_s,
        rate=playback,
        step=step,
        plays_s=length_s / playback,
        crop_pct=point.crop_pct,
        corner_hz=point.corner_hz,
        cost=f"{point.crop_pct:.1f} % crop{', sound lost' if lost else ''}",
        warnings=tuple(found),
    )


def _least_s(asked: Asked, kind: str) -> float:
    """Seconds on screen that a polish must have: all of a short take is kept as it is."""
    return asked.brief.wanted_s - 0.05 if kind == "slow_polish" else 0.0


def _polish_lee(asked: Asked, reading: Reading) -> Remedy:
    brief = asked.brief
    lee = find_calmest(reading, brief, length_s=brief.wanted_s)
    if lee is None or lee.length_s > LONGEST_LEE_SHARE * asked.clip.duration_s:
        reason = "Not open: it is no longer than what you want of it."
        price = asked.price(crop_pct=brief.most_crop_pct, steps=("cut", "polish"))
        return Remedy("polish_lee", False, reason, price)
    curve = asked.analysis.polish(step=asked.step, upright=asked.clip.upright)
    return polish_remedy(asked, "polish_lee", curve, reading, lee=lee, step=asked.step)


def _slow_polish(asked: Asked, rate: tuple[float, int] | None) -> Remedy:
    """Slowed and polished, all of it, or the calmest of it where all of it would not pass."""
    if rate is None:
        nominal = asked.price(
            crop_pct=asked.brief.most_crop_pct, rate=0.5, steps=("slow", "polish")
        )
        reason = "Not open: it cannot be slowed."
        return Remedy("slow_polish", False, reason, nominal)
    playback, step = rate
    reading = asked.analysis.reading(playback, step=step)
    curve = asked.analysis.polish(playback, step=step, upright=asked.clip.upright)
    whole = polish_remedy(asked, "slow_polish", curve, reading, step=step)
    lee = find_calmest(reading, asked.brief, length_s=asked.brief.wanted_s)
    if whole.passes or lee is None or lee.length_s > LONGEST_LEE_SHARE * asked.clip.duration_s:
        return whole
    part = polish_remedy(asked, "slow_polish", curve, reading, lee=lee, step=step)
    return part if part.passes else whole


def least_strength(curve: PolishCurve, brief: Brief) -> PolishPoint | None:
    """The least crop that passes, else what leaves least; None where all take more than the brief
    allows."""
    seen = []
    for point in takewhile(lambda one: one.crop_pct <= brief.most_crop_pct, curve.points):
        if passes(*seen_after(point, brief), brief):
            return point
        seen.append(point)
    return min(seen, key=lambda one: one.speed_pct_s, default=None)


def strength(crop_pct: float) -> str:
    """Light, medium or strong, by the crop that it takes."""
    return "Light" if crop_pct <= LIGHT_PCT else "Medium" if crop_pct <= MEDIUM_PCT else "Strong"
