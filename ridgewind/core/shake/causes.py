"""Why the picture shakes: causes named from the path, each with its evidence and one remedy.

Every bit of the squared weighted speed S² is claimed once. What stands out as lines at the beat
of a walk belongs to the footfalls; at half of it, sideways and in roll, to the weight that
shifts; a jolt at either end is set aside first; the rest goes by band. A cause is named where it
claims enough of S², and never more than three are.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import (
    SPEED_AT_ZERO,
    STEP_PER_DOUBLING,
    fast_length,
    median,
    percentile,
    power_of,
    rolling_mean,
    to_gust,
    transform,
    transform_back,
)
from ridgewind.core.shake.reading import Reading, ShotReading
from ridgewind.core.shake.spectrum import LEAST_SAMPLES, Spectrum, spectrum_of
from ridgewind.core.shake.steps import Steps, find_steps
from ridgewind.core.words import time_words

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]
CauseName = Literal[
    "footfalls", "weight_shift", "tremor", "buzz", "breath", "swing", "wander", "jerk"
]

MOST_CAUSES = 3
LEAST_SHARE = 0.12
"""Of S² from which a cause is named (chosen here: an eighth)."""

LEAST_SPEED_PCT_S = SPEED_AT_ZERO * 2.0 ** (1.0 / STEP_PER_DOUBLING)
"""Speed of gust 1: a picture that moves less has nothing to be named."""

LEAST_OVER_FLOOR = 1.5
"""S over the measurement's own error, from which causes are looked for."""

TREMOR_FROM_HZ, BUZZ_FROM_HZ = 4.0, 14.0
SLOW_TO_HZ = 1.2
BREATH_HZ = (0.15, 0.45)
BREATH_OVER_PAN = 3.0
"""Tilt over pan at the pace of breath, in power, from which it is breath and not sway."""

BREATH_LEAST_S = 5.0
SWING_HZ = (0.4, 1.3)
SWING_ROLL_SHARE = 0.1
SWING_CONCENTRATION = 0.6
SWING_LEAST_S, SWING_HALVES = 4.0, 0.5
"""A swing holds so much of its band near one frequency, and has died to this share of its
amplitude in the second half of what follows its height."""

END_S = 0.8
JERK_OVER_MIDDLE = 4.0
"""An end is a jolt where its mean power is so many times the usual of the rest, and so many times
that of what lies beside it."""

GROWTH, GROWTH_WINDOW_S = 1.5, 1.0
PAN, TILT, ROLL, ZOOM = range(4)

ONE_THING: dict[str, str] = {
    "footfalls": "Bend the knees more, or carry the camera off the body.",
    "weight_shift": "Set the feet nearer to one line, hips level.",
    "tremor": "Tuck the elbows in, add a third contact, or go wider.",
    "buzz": "Hold the camera off what vibrates; stabiliser off on a support.",
    "breath": "Hold the breath for a short take, or breathe out slowly through it.",
    "swing": "Less mass, or nearer; damp it with the second hand.",
    "wander": "Fix your eye on one point, and brace: brow, taut strap or wall.",
    "jerk": "Start before the move, and let a timer or a remote press the button.",
}
HOLD_THING = "Two hands, elbows tucked, knees soft; move from the hips."
GROWING_THING = "Keep takes under {seconds:.0f} s, or rest a minute longer."
NAMES: dict[str, str] = {
    "footfalls": "Footfalls", "weight_shift": "Weight shift", "tremor": "Tremor", "buzz": "Buzz",
    "breath": "Breath", "swing": "Swing", "wander": "Body sway", "jerk": "Jolt",
}  # fmt: skip
BAND_OF: dict[str, str] = {
    "footfalls": "step", "weight_shift": "sway", "tremor": "jitter", "buzz": "buzz",
    "breath": "drift", "swing": "sway", "wander": "sway", "jerk": "jitter",
}  # fmt: skip


@dataclass(frozen=True)
class Fatigue:
    """Growth of jitter. growth: its speed in the last third over that in the first.
    passes_at_s: when it has passed one and a half times its first third for good, s from the
    shot's first frame, or None."""

    growth: float
    passes_at_s: float | None


@dataclass(frozen=True)
class Cause:
    """key: stable name. name: as shown. band: whose colour it has. share: of S², 0 to 1.
    certainty: 0 to 1. evidence: one line. change: the one thing to try."""

    key: CauseName
    name: str
    band: str
    share: float
    certainty: float
    evidence: str
    change: str


@dataclass(frozen=True)
class Causes:
    """causes: at most three, strongest first; empty where no cause is clear. steps, fatigue:
    of the shot that shakes most, None where there are none."""

    causes: tuple[Cause, ...]
    steps: Steps | None
    fatigue: Fatigue | None


NO_CAUSES = Causes((), None, None)


def find_causes(reading: Reading, band_powers: Sequence[Floats], *, moves: bool) -> Causes:
    """Causes of a reading as shot, from the shot that holds most of its shake.

    band_powers: of each shot, see band_shares. moves: the camera was meant to move, so that what is
    slower than the step band is not sway.
    """
    shots = [
        (shot, powers)
        for shot, powers in zip(reading.shots, band_powers, strict=True)
        if shot.reason is None and shot.counted.any()
    ]
    if not shots:
        return NO_CAUSES
    shot, powers = max(shots, key=lambda one: float(one[0].power[one[0].counted].sum()))
    return causes_of_shot(shot, powers, moves=moves)


def causes_of_shot(shot: ShotReading, band_powers: Floats, *, moves: bool) -> Causes:
    """Causes within one measurable shot. band_powers: (n, 5)."""
    total = float(shot.power[shot.counted].mean())
    fatigue = fatigue_of(shot)
    speeds = np.where(shot.counted[:, None], shot.speeds, 0.0)
    middle, jolt = _without_jolt(shot, band_powers)
    if middle.stop - middle.start < LEAST_SAMPLES:
        return Causes((), None, fatigue)
    spectrum = spectrum_of(speeds[middle], rate_hz=shot.rate_hz)
    steps = find_steps(spectrum, speeds[middle], rate_hz=shot.rate_hz)
    calm = total <= max(LEAST_SPEED_PCT_S, LEAST_OVER_FLOOR * shot.floor_power**0.5) ** 2
    if calm:
        return Causes((), None, fatigue)
    claims = _Claims(spectrum, shot, steps, moves=moves)
    found = [*claims.all(fatigue), *([] if jolt is None else [jolt])]
    believed = 1.0 - shot.floor_power / total
    rest = 1.0 - sum(claim.share for claim in found if claim.key == "jerk")
    named = [
        Cause(
            key=claim.key,
            name=claim.name or NAMES[claim.key],
            band=BAND_OF[claim.key],
            share=claim.share * (1.0 if claim.key == "jerk" else rest),
            certainty=float(np.clip(claim.clarity * believed, 0.0, 1.0)),
            evidence=claim.evidence,
            change=claim.change or ONE_THING[claim.key],
        )
        for claim in found
    ]
    named = [cause for cause in named if cause.share >= LEAST_SHARE]
    named.sort(key=lambda cause: -cause.share)
    return Causes(tuple(named[:MOST_CAUSES]), steps, fatigue)


def fatigue_of(shot: ShotReading) -> Fatigue | None:
    """Growth of jitter through a shot; None where it is shorter than three seconds."""
    count = len(shot.speeds)
    window = round(GROWTH_WINDOW_S * shot.rate_hz)
    if count < 3 * window or not shot.counted.any():
        return None
    length = fast_length(count)
    frequency = np.fft.rfftfreq(length, 1.0 / shot.rate_hz)
    inside = (frequency >= TREMOR_FROM_HZ) & (frequency < BUZZ_FROM_HZ)
    if not inside.any():
        return None
    jitter = transform_back(transform(shot.speeds, rows=length), inside.astype(float), rows=length)[
        :count
    ]
    speed = np.sqrt(rolling_mean(power_of(jitter), shot.counted, window=window))
    third = count // 3
    ends = [part[np.isfinite(part)] for part in (speed[:third], speed[-third:])]
    if not all(len(part) for part in ends):
        return None
    first, last = (float(np.sqrt(np.mean(part**2))) for part in ends)
    if not first > 0:
        return None
    over = np.nan_to_num(speed) > GROWTH * first
    below = np.flatnonzero(~over)
    start = int(below[-1]) + 1 if len(below) else 0
    passes = start < count - window // 2
    return Fatigue(last / first, float(shot.t_s[start] - shot.t_s[0]) if passes else None)


@dataclass(frozen=True)
class _Claim:
    key: CauseName
    share: float
    clarity: float
    evidence: str
    name: str = ""
    change: str = ""


class _Claims:
    """Deals the power of a spectrum out to causes, each bit once."""

    def __init__(
        self, spectrum: Spectrum, shot: ShotReading, steps: Steps | None, *, moves: bool
    ) -> None:
        self._spectrum, self._shot, self._steps, self._moves = spectrum, shot, steps, moves
        self._left = spectrum.power.copy()
        self._total = max(float(spectrum.power.sum()), 1e-12)

    def all(self, fatigue: Fatigue | None) -> Iterator[_Claim]:
        if self._steps is not None:
            yield from self._walk(self._steps)
        yield self._buzz()
        yield self._tremor(fatigue)
        if not self._moves and self._steps is None:
            yield from self._breath()
            yield from self._swing()
        yield self._wander()

    def _claim(self, amount: Floats) -> float:
        """Claim an amount (f, 4) of what is left; returns its share of all."""
        claimed = np.minimum(amount, self._left)
        self._left -= claimed
        return float(claimed.sum()) / self._total

    def _walk(self, steps: Steps) -> Iterator[_Claim]:
        spectrum, beat = self._spectrum, steps.cadence_hz
        wide = min(spectrum.line_hz, 0.24 * beat)
        upright = np.array([False, True, False, True])
        halves = np.array([0.5, 1.5, 2.5]) * beat
        at_halves = spectrum.around(halves, within_hz=wide)
        sideways = spectrum.lines * (at_halves[:, None] & ~upright)
        aside = self._claim(sideways)
        beats = np.arange(beat, BUZZ_FROM_HZ, beat)
        falls = self._claim(spectrum.lines * spectrum.around(beats, within_hz=wide)[:, None])
        standing = float(np.clip(steps.standing / 20.0, 0.3, 1.0))
        hard = ", hard landings" if steps.hardness > 0.6 else ""
        uneven = "" if steps.evenness > 0.8 else f", one foot harder by {1 - steps.evenness:.0%}"
        yield _Claim(
            "footfalls", falls, standing,
            f"Up and down {beat:.2f} times a second, {60 * beat:.0f} steps a minute{hard} "
            f"(harmonics {steps.hardness:.1f} of the beat){uneven}.",
        )  # fmt: skip
        yield _Claim(
            "weight_shift", aside, standing,
            f"Roll and sideways at {beat / 2:.2f} Hz, half the step rate.",
        )  # fmt: skip

    def _buzz(self) -> _Claim:
        inside = self._spectrum.between(BUZZ_FROM_HZ, np.inf)
        if not inside.any():
            return _Claim("buzz", 0.0, 0.0, "")
        hz, part = self._strongest(inside)
        ground = median(self._left[inside].sum(axis=1))
        height = float(self._left[inside].sum(axis=1).max()) / max(ground, 1e-12)
        share = self._claim(self._left * inside[:, None])
        clarity = float(np.clip(height / 20.0, 0.3, 1.0))
        return _Claim("buzz", share, clarity, f"Even, near {hz:.0f} Hz, most in {part}.")

    def _tremor(self, fatigue: Fatigue | None) -> _Claim:
        inside = self._spectrum.between(TREMOR_FROM_HZ, BUZZ_FROM_HZ)
        hz, part = self._strongest(inside)
        share = self._claim(self._left * inside[:, None])
        growing = fatigue is not None and fatigue.growth >= GROWTH
        if not growing or fatigue is None or fatigue.passes_at_s is None:
            return _Claim("tremor", share, 0.9, f"Jitter near {hz:.1f} Hz, most in {part}.")
        at_s = fatigue.passes_at_s
        return _Claim(
            "tremor", share, 0.9,
            f"Jitter near {hz:.1f} Hz passes one and a half times its start at {time_words(at_s)}.",
            name="Tremor, growing",
            change=GROWING_THING.format(seconds=max(2.0, np.floor(at_s))),
        )  # fmt: skip

    def _breath(self) -> Iterator[_Claim]:
        """Rise and fall at the pace of breath that pan does not share."""
        length_s = len(self._shot.speeds) / self._shot.rate_hz
        inside = self._spectrum.between(*BREATH_HZ)
        if length_s < BREATH_LEAST_S or not inside.any():
            return
        tilt, pan = (float(self._left[inside, part].sum()) for part in (TILT, PAN))
        if tilt < BREATH_OVER_PAN * pan:
            return
        slow = self._spectrum.between(0.0, 2.0 * BREATH_HZ[1])
        amount = np.zeros_like(self._left)
        amount[:, TILT] = np.where(slow, self._left[:, TILT], 0.0)
        hz = self._spectrum.hz[inside][self._left[inside, TILT].argmax()]
        clarity = float(np.clip(tilt / (10.0 * pan + 1e-12), 0.3, 1.0))
        evidence = f"Rises and falls about {60 * hz:.0f} times a minute."
        yield _Claim("breath", self._claim(amount), clarity, evidence)

    def _swing(self) -> Iterator[_Claim]:
        """One slow tone, with roll in it, that dies away."""
        inside = self._spectrum.between(*SWING_HZ)
        length_s = len(self._shot.speeds) / self._shot.rate_hz
        if length_s < SWING_LEAST_S or not inside.any():
            return
        by_part = self._left[inside].sum(axis=0)
        if by_part[ROLL] < SWING_ROLL_SHARE * by_part.sum():
            return
        part = PAN if by_part[PAN] > by_part[ROLL] else ROLL
        hz = float(self._spectrum.hz[inside][self._left[inside, part].argmax()])
        near = self._spectrum.around(np.array([hz]), within_hz=self._spectrum.line_hz)
        slow = self._spectrum.between(0.2, 2.0)
        held = self._left[near & slow].sum() / max(float(self._left[slow].sum()), 1e-12)
        died = _dying(self._shot.speeds[:, part], hz, rate_hz=self._shot.rate_hz)
        if held < SWING_CONCENTRATION or died > SWING_HALVES:
            return
        share = self._claim(self._left * (near & slow)[:, None])
        evidence = f"Swings, with roll, at {hz:.2f} Hz and dies away."
        yield _Claim("swing", share, float(np.clip(held * (1.2 - died), 0.3, 1.0)), evidence)

    def _wander(self) -> _Claim:
        low_hz = 0.5 if self._moves else 0.0
        inside = self._spectrum.between(low_hz, TREMOR_FROM_HZ)
        hz, part = self._strongest(inside)
        share = self._claim(self._left * inside[:, None])
        path = self._shot.path[:, :2]
        wide = float(np.ptp(path, axis=0).max())
        pace = f"most near {hz:.1f} Hz in {part}" if hz > 0.15 else f"slowly, most in {part}"
        evidence = f"The frame sways, {pace}."
        if not self._moves:
            evidence = f"The frame wanders {wide:.1f} % of its long side, {pace}."
        if hz < SLOW_TO_HZ:
            return _Claim("wander", share, 0.7, evidence)
        evidence = f"Unevenly, {pace}, and not as steps do."
        return _Claim("wander", share, 0.6, evidence, name="Unsteady hold", change=HOLD_THING)

    def _strongest(self, inside: Bools) -> tuple[float, str]:
        """Frequency and part that carry most of what is left inside."""
        if not inside.any():
            return 0.0, "tilt"
        left = self._left[inside]
        hz = float(self._spectrum.hz[inside][left.sum(axis=1).argmax()])
        return hz, ("pan", "tilt", "roll", "zoom")[int(left.sum(axis=0).argmax())]


def _dying(speed: Floats, hz: float, *, rate_hz: float) -> float:
    """What is left of a tone some periods after its height, as a share of its amplitude."""
    count = len(speed)
    time_s = np.arange(count) / rate_hz
    turning = speed * np.exp(-2j * np.pi * hz * time_s)
    width = max(3, round(rate_hz / hz))
    size = np.abs(_means(turning, width))
    top = int(size.argmax())
    after = size[top:]
    if len(after) < 2 * width:
        return 1.0
    return float(after[len(after) // 2 :].mean() / max(float(size[top]), 1e-12))


def _without_jolt(shot: ShotReading, band_powers: Floats) -> tuple[slice, _Claim | None]:
    """The samples between the ends where one of them is a jolt, and the claim for it."""
    count = len(shot.power)
    ends = round(END_S * shot.rate_hz)
    whole = slice(0, count)
    if ends < 1 or count < 4 * ends:
        return whole, None
    # By bands, whose ends are mirrored: the definition of S leaks fast shake into its ends.
    power = np.where(shot.counted, band_powers.sum(axis=1), 0.0)
    usual = percentile(_means(power[ends:-ends], ends), 75.0) + 1e-12
    at_head = power[:ends].sum() >= power[-ends:].sum()
    inward = power if at_head else power[::-1]
    worst, beside = float(inward[:ends].mean()), float(inward[ends : 2 * ends].mean())
    if worst < JERK_OVER_MIDDLE * max(usual, beside):
        return whole, None
    share = (worst - usual) * ends / float(power.sum())
    middle = slice(ends, count) if at_head else slice(0, count - ends)
    gust = to_gust(worst**0.5)
    where = "first" if at_head else "last"
    evidence = f"A jolt in the {where} {END_S:.1f} s, gust {gust:.1f} there."
    clarity = float(np.clip(worst / usual / (2 * JERK_OVER_MIDDLE), 0.4, 1.0))
    return middle, _Claim("jerk", share, clarity, evidence)


def _means(values: Floats, window: int) -> Floats:
    """Mean of each stretch of so many samples."""
    sums = np.concatenate([[0.0], np.cumsum(values)])
    window = min(window, len(values))
    out: Floats = (sums[window:] - sums[:-window]) / window
    return out
