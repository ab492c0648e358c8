"""Assemble the readings of a clip from its path."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import require_positive
from ridgewind.core.motion.path import REASONS, Motion, Shot
from ridgewind.core.shake import bands as band_module
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.gust import (
    USUAL_SCREEN_DEG,
    SpeedSpectrum,
    part_speeds,
    peak_speed,
    power_at_playback,
    seconds_of,
    to_gust,
    to_speed,
)
from ridgewind.core.shake.noise import Scatter, without_scatter
from ridgewind.core.shake.resample import resample
from ridgewind.core.shake.stretch import PEAK_ALLOWANCE, Stretch, longest_passing

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

MOST_KEPT = 50_000
"""Samples of a shot up to which its spectra are kept for another playback rate: some fourteen
minutes at 60 a second. Those of an hour would take a hundred megabytes."""

LEAST_TRUSTED = 2
"""Frames of a shot that a motion needs."""

PARTS = 4
"""Columns of a path: pan, tilt, roll, zoom."""


@dataclass(frozen=True)
class ShotReading:
    """What one shot's path says at a playback rate.

    start_s, end_s: first and last frame, s in the file. t_s: (n,) times of the samples.
    power: (n,) squared weighted speed. second_power: (n,) its mean over the surrounding
    second at playback. counted: (n,) trusted samples. rate_hz: samples a second at capture.
    playback: rate of playback, 1 for as shot. floor_power: mean square of the measurement's
    own error, weighted like the path. lag: (m, 4) by which the picture that is shown is behind
    the path, where it is held over some frames; None where it never is. reason: why the shot
    cannot be measured, or None; then the arrays are empty.
    """

    start_s: float
    end_s: float
    reason: str | None
    t_s: Floats
    power: Floats
    second_power: Floats
    counted: Bools
    floor_power: float
    rate_hz: float
    playback: float
    path: Floats
    speeds: Floats
    lag: Floats | None = None

    def gust(self, stretch: Stretch | None = None, *, screen_deg: float) -> float | None:
        """Gust of a stretch, or of the whole shot; None where nothing can be trusted."""
        inside = _slice(stretch)
        counted = self.counted[inside]
        if not counted.any():
            return None
        mean = float(self.power[inside][counted].mean())
        return to_gust(mean**0.5, screen_deg=screen_deg)

    def peak(self, stretch: Stretch | None = None, *, screen_deg: float) -> float | None:
        """95th percentile of gust(t) over the trusted samples of a stretch, or of all."""
        inside = _slice(stretch)
        seconds = self.second_power[inside][self.counted[inside]]
        return _peak_gust(seconds, screen_deg=screen_deg)

    def lee(self, *, target: float, screen_deg: float) -> Stretch | None:
        """The longest stretch that passes the target."""
        if self.reason is not None:
            return None
        return longest_passing(
            self.power,
            self.second_power,
            self.counted,
            rate_hz=self.rate_hz,
            target_power=to_speed(target, screen_deg=screen_deg) ** 2,
            peak_power=to_speed(target + PEAK_ALLOWANCE, screen_deg=screen_deg) ** 2,
        )

    def times(self, stretch: Stretch) -> tuple[float, float]:
        """In and out time of a stretch, s in the file."""
        half = 0.5 / self.rate_hz
        return (
            max(self.start_s, float(self.t_s[stretch.start]) - half),
            min(self.end_s, float(self.t_s[stretch.stop - 1]) + half),
        )


@dataclass(frozen=True)
class Reading:
    """What a clip's path says at a playback rate; figures over all trusted frames.

    speed_pct_s: S, None where no frame can be trusted. trusted_share: of all frames, 0 to 1.
    """

    shots: tuple[ShotReading, ...]
    trusted_share: float
    playback: float
    speed_pct_s: float | None
    floor_pct_s: float | None

    def gust(self, *, screen_deg: float = USUAL_SCREEN_DEG) -> float | None:
        if self.speed_pct_s is None:
            return None
        return to_gust(self.speed_pct_s, screen_deg=screen_deg)

    def peak(self, *, screen_deg: float = USUAL_SCREEN_DEG) -> float | None:
        peak = self._peak_pct_s
        return None if peak is None else to_gust(peak, screen_deg=screen_deg)

    @cached_property
    def _peak_pct_s(self) -> float | None:
        """Asked for by every remedy, and a sort of all samples."""
        seconds = np.concatenate([np.zeros(0), *(s.second_power[s.counted] for s in self.shots)])
        return peak_speed(seconds) if len(seconds) else None

    def floor(self, *, screen_deg: float = USUAL_SCREEN_DEG) -> float | None:
        if self.floor_pct_s is None:
            return None
        return to_gust(self.floor_pct_s, screen_deg=screen_deg)

    @property
    def reason(self) -> str | None:
        """Why nothing can be measured, or None."""
        if self.speed_pct_s is not None:
            return None
        return next((shot.reason for shot in self.shots if shot.reason), REASONS["detail"])


@dataclass(frozen=True)
class EvenShot:
    """A shot's path at even times, the same at whatever rate it is played. even_s: (m,), s in the
    file. path, error: (m, 4). counted: (m - 1,) trusted samples between them. lag: see
    ShotReading. aspect: short side / long side."""

    rate_hz: float
    even_s: Floats
    path: Floats
    error: Floats
    counted: Bools
    lag: Floats | None
    aspect: float

    @cached_property
    def speeds(self) -> Floats:
        """(m - 1, 4), see part_speeds."""
        return part_speeds(self.path, rate_hz=self.rate_hz, aspect=self.aspect)

    @property
    def error_speeds(self) -> Floats:
        """(m - 1, 4), see part_speeds."""
        return part_speeds(self.error, rate_hz=self.rate_hz, aspect=self.aspect)

    @cached_property
    def spectra(self) -> tuple[SpeedSpectrum, SpeedSpectrum]:
        """Of the path and of its error."""
        speeds = (self.speeds, self.error_speeds)
        path, error = (SpeedSpectrum(one, rate_hz=self.rate_hz) for one in speeds)
        return path, error

    @cached_property
    def scatter(self) -> Scatter:
        return Scatter(self.speeds, self.counted, rate_hz=self.rate_hz)

    def powers(self, playback: float) -> tuple[Floats, Floats]:
        """Squared weighted speeds (m - 1,) of the path and of its error at a playback rate."""
        if len(self.path) > MOST_KEPT:
            path, error = (
                power_at_playback(one, rate_hz=self.rate_hz, playback=playback)
                for one in (self.speeds, self.error_speeds)
            )
        else:
            path, error = (one.power(playback) for one in self.spectra)
        return path, error


def evened(motion: Motion) -> tuple[EvenShot | None, ...]:
    """Every shot's path at even times; None for those that cannot be measured."""
    return tuple(_evened(motion, shot) if shot.measurable else None for shot in motion.shots)


def read_motion(
    motion: Motion,
    *,
    playback: float = 1.0,
    even: tuple[EvenShot | None, ...] | None = None,
) -> Reading:
    """Gust and its companions of every shot, played at `playback` times the capture rate. even: the
    path at even times, where it is known already."""
    require_positive("playback", playback)
    shots = tuple(
        _read_shot(motion, shot, one, playback)
        for shot, one in zip(motion.shots, even or evened(motion), strict=True)
    )
    measured = [shot for shot in shots if shot.counted.any()]
    weights = [int(shot.counted.sum()) for shot in measured]
    speed = floor = None
    if measured:
        powers = [float(shot.power[shot.counted].mean()) for shot in measured]
        speed = float(np.average(powers, weights=weights)) ** 0.5
        floors = [shot.floor_power for shot in measured]
        floor = float(np.average(floors, weights=weights)) ** 0.5
    return Reading(
        shots=shots,
        trusted_share=float(motion.trusted.mean()) if len(motion.t_s) else 0.0,
        playback=playback,
        speed_pct_s=speed,
        floor_pct_s=floor,
    )


def band_shares(reading: Reading) -> tuple[tuple[Band, ...], list[Floats]]:
    """Bands of a reading at capture speed, and each shot's band powers (n, 5) over time.

    The bands of the whole clip weigh each shot by its trusted samples.
    """
    per_shot: list[tuple[Band, ...]] = []
    powers: list[Floats] = []
    weights: list[float] = []
    for shot in reading.shots:
        if not shot.counted.any():
            powers.append(np.zeros((0, len(band_module.NAMES))))
            continue
        power = band_module.band_powers(shot.speeds, rate_hz=shot.rate_hz)
        powers.append(power)
        per_shot.append(
            band_module.describe(shot.path, shot.speeds, power, shot.counted, rate_hz=shot.rate_hz)
        )
        weights.append(float((shot.counted @ power).sum()))
    if not per_shot:
        return tuple(Band(name, None, None, None) for name in band_module.NAMES), powers
    strongest = per_shot[int(np.argmax(weights))]
    total = sum(weights)
    merged = []
    for column, band in enumerate(strongest):
        shares = [shot_bands[column].share for shot_bands in per_shot]
        known = [(s, w) for s, w in zip(shares, weights, strict=True) if s is not None]
        if band.share is None or not known:
            merged.append(band)
            continue
        share = sum(s * w for s, w in known) / total if total > 0 else 0.0
        merged.append(replace(band, share=share))
    return tuple(merged), powers


def _evened(motion: Motion, shot: Shot) -> EvenShot | None:
    """Returns None if no two neighbouring frames can be trusted: nothing moves between them."""
    inside = slice(shot.start, shot.stop)
    t_s, trusted = motion.t_s[inside], motion.trusted[inside]
    if trusted.sum() < LEAST_TRUSTED:
        return None
    columns = (motion.pan_pct, motion.tilt_pct, motion.roll_deg, motion.zoom_pct)
    measured = np.array([*(one[inside] for one in columns), *motion.error[inside].T]).T
    even_s, both = resample(t_s, trusted, measured, curves=PARTS)
    rate_hz = (len(even_s) - 1) / float(even_s[-1] - even_s[0])
    held = motion.held
    lag = (
        None
        if held is None
        else _lag(measured[:, :PARTS], held[inside], t_s, even_s, both[:, :PARTS])
    )
    nearest = np.clip(np.searchsorted(t_s, even_s - 0.5 / rate_hz), 0, len(t_s) - 1)
    counted = trusted[nearest]
    counted = counted[1:] & counted[:-1]
    if not counted.any():
        return None
    return EvenShot(
        rate_hz, even_s, both[:, :PARTS], both[:, PARTS:], counted, lag,
        motion.aspect,
    )  # fmt: skip


def _read_shot(motion: Motion, shot: Shot, even: EvenShot | None, playback: float) -> ShotReading:
    t_s = motion.t_s[shot.start : shot.stop]
    start_s, end_s = float(t_s[0]), float(t_s[-1])
    if even is None:
        none = np.zeros(0)
        return ShotReading(
            start_s, end_s, REASONS[shot.reason or "detail"], none, none, none,
            none.astype(bool), 0.0, 0.0, playback, np.zeros((0, 4)), np.zeros((0, 4)),
        )  # fmt: skip
    rate_hz, counted = even.rate_hz, even.counted
    power, error_power = even.powers(playback)
    floor_power = float(error_power[counted].mean()) if counted.any() else 0.0
    scatter = even.scatter.power(floor_power=floor_power, playback=playback)
    power = without_scatter(power, counted, scatter_power=scatter, floor_power=floor_power)
    return ShotReading(
        start_s=start_s,
        end_s=end_s,
        reason=None,
        t_s=(even.even_s[1:] + even.even_s[:-1]) / 2.0,
        power=power,
        second_power=seconds_of(power, counted, playback_hz=rate_hz * playback),
        counted=counted,
        floor_power=floor_power,
        rate_hz=rate_hz,
        playback=playback,
        path=even.path,
        speeds=even.speeds,
        lag=even.lag,
    )


def _lag(path: Floats, held: Bools, t_s: Floats, even_s: Floats, even: Floats) -> Floats | None:
    """Where the picture shown is less where the path (m, 4) says, at the even times (m,)."""
    if not held.any():
        return None
    fresh = np.maximum.accumulate(np.where(held, 0, np.arange(len(held))))
    half_s = 0.5 * (even_s[1] - even_s[0])
    index = np.clip(np.searchsorted(t_s, even_s - half_s), 0, len(t_s) - 1)
    out: Floats = np.where(held[index, None], path[fresh[index]] - even, 0.0)
    return np.nan_to_num(out)


def _slice(stretch: Stretch | None) -> slice:
    return slice(None) if stretch is None else slice(stretch.start, stretch.stop)


def _peak_gust(second_power: Floats, *, screen_deg: float) -> float | None:
    if not len(second_power):
        return None
    return to_gust(peak_speed(second_power), screen_deg=screen_deg)
