"""Polish, simulated: how much crop takes how much shake away at the desk.

The path is smoothed without delay, every frame is moved onto the smooth one, and the picture is
enlarged until no corner of any frame is empty. Nothing is rendered: the smallest enlargement
follows from the corrections, and what shake is left from the smooth path, seen enlarged. Motion
blur stays as it was shot.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.clip import USUAL_SHUTTER
from ridgewind.core.errors import require_positive
from ridgewind.core.judge.when_asked import WhenAsked
from ridgewind.core.moves.move import INTENDED_HZ
from ridgewind.core.shake.gust import (
    Singles,
    SpeedSpectrum,
    in_logarithms,
    long_sides_of,
    median,
    peak_speed,
    percentile,
    seconds_of,
)
from ridgewind.core.shake.lowpass import LowPass
from ridgewind.core.shake.reading import Reading, ShotReading
from ridgewind.core.shake.stretch import Stretch
from ridgewind.core.units import aspect_to_rho

Floats = NDArray[np.float64]

CORNERS_HZ = (3.0, 2.3, 1.8, 1.4, 1.1, 0.85, 0.65, 0.5, 0.38, 0.28, 0.2, 0.14)
"""What is slower than each of these is kept, from the lightest polish to the strongest."""

LONG_SAMPLES, LONGEST_SAMPLES = 12_000, 30_000
"""From this many samples on, only every second and every third strength is tried, so that a take of
ten minutes is judged in a tenth of a second."""

SAMPLES_A_WAVE, FEWEST_HZ = 6.0, 8.0
"""Of such a take, what is left is looked at in so many samples for each wave at the corner, but at
least so many a second: at half of that a smooth path has 0.002 of what was filmed."""

LIGHT_PCT, MEDIUM_PCT = 4.0, 10.0
"""Crop up to which a polish is light, and medium; beyond it is strong (definition)."""

USUAL_READOUT_S = 0.02
"""Time in which a rolling shutter reads a frame from top to bottom (chosen here: common sensors
take 10 to 30 ms)."""

ONE_IN_TWENTY = 95.0


@dataclass(frozen=True)
class PolishPoint:
    """One strength. corner_hz: what is slower is kept. crop_pct: of the long side. speed_pct_s,
    peak_pct_s: S that is left, and the 95th percentile of it over a second, as seen enlarged."""

    corner_hz: float
    crop_pct: float
    speed_pct_s: float
    peak_pct_s: float

    @property
    def enlarge(self) -> float:
        return 1.0 / (1.0 - self.crop_pct / 100.0)


@dataclass(frozen=True)
class SmoothedPath:
    """A shot at one strength. needed: (n,) enlargement that each frame wants. speeds: of the smooth
    path, in every `every`-th sample."""

    needed: Singles
    speeds: SpeedSpectrum
    every: int


@dataclass(frozen=True)
class SmoothedShot:
    """A shot at whatever rate it is played. paths: by strength. smear_pct, lean_pct: (n - 1,), see
    PolishCurve. wobble: (n - 1, 1) speed of the lines that lean so, root mean square over the
    picture. meant_pct_s: (n - 1,) speed of the meant move at capture."""

    paths: Sequence[SmoothedPath]
    smear_pct: Floats
    lean_pct: Floats
    wobble: SpeedSpectrum
    meant_pct_s: Floats


@dataclass(frozen=True)
class Smoothed:
    """The frames of a reading at every strength. shots: by their place in it, None where one was
    not measured."""

    corners_hz: tuple[float, ...]
    shots: tuple[SmoothedShot | None, ...]


@dataclass(frozen=True)
class Left:
    """What shakes of a shot at one strength, in every `every`-th sample of the reading. power: (m,)
    squared weighted speed of the smooth path, not enlarged. counted: (m,)."""

    power: Floats
    counted: NDArray[np.bool_]
    every: int

    def part(self, stretch: Stretch) -> Left:
        inside = slice(stretch.start // self.every, -(-stretch.stop // self.every))
        return Left(self.power[inside], self.counted[inside], self.every)


@dataclass(frozen=True)
class PolishedShot:
    """A shot at every strength. needed: (n,) enlargement that each frame wants. left: what shakes.
    counted, smear_pct, lean_pct, move_pct_s: (n - 1,), see PolishCurve. wobble_power: (n - 1,)
    squared weighted speed. playback_hz: samples a second."""

    needed: Sequence[Singles]
    left: Sequence[Left]
    counted: NDArray[np.bool_]
    smear_pct: Floats
    lean_pct: Floats
    wobble_power: Floats
    move_pct_s: Floats
    playback_hz: float
    floor_power: float


@dataclass(frozen=True)
class PolishCurve:
    """points: from light to strong, crop growing; each is worked out when it is asked for, as most
    takes need only the lightest. blur_pct: smear of a frame that one in twenty
    exceeds, percent of the long side, at a shutter of half the frame interval. lean_pct: of
    uprights while a frame is read in the usual time, likewise: a polish moves frames whole and
    cannot take it away. wobble_pct_s: how fast the picture's lines move by it, as S is of the
    whole picture. move_pct_s: speed of the meant move at its fastest, at playback.
    followed: share of the samples that are trusted. floor_pct_s: speed of the measurement's own
    error. shots: by their place in the reading, None where one was not measured."""

    points: Sequence[PolishPoint]
    blur_pct: float
    lean_pct: float
    wobble_pct_s: float
    move_pct_s: float
    followed: float
    floor_pct_s: float
    corners_hz: tuple[float, ...]
    shots: tuple[PolishedShot | None, ...]

    def part(self, shot: int, stretch: Stretch) -> PolishCurve | None:
        """The curve of a stretch of one shot alone; None where nothing of it counts."""
        found = self.shots[shot]
        cut = None if found is None else _cut(found, stretch)
        return None if cut is None or not cut.counted.any() else _curve(self.corners_hz, (cut,))


def smoothed(
    reading: Reading, *, aspect: float, step: float = 1.0, upright: bool = False
) -> Smoothed | None:
    """The frames of a reading at every strength, the same at whatever rate they are played; None
    where nothing was measured. aspect: short side / long side. step: frames filmed for each sample
    of the reading. upright: the long side stands."""
    require_positive("aspect", aspect)
    measured = [shot for shot in reading.shots if shot.counted.any()]
    if not measured:
        return None
    samples = sum(len(shot.path) for shot in measured)
    corners = CORNERS_HZ[:: 1 + (samples > LONG_SAMPLES) + (samples > LONGEST_SAMPLES)]
    shots = tuple(
        _smoothed(shot, corners, aspect, step, upright, samples > LONG_SAMPLES)
        if shot.counted.any()
        else None
        for shot in reading.shots
    )
    return Smoothed(corners, shots)


def polish_curve(reading: Reading, frames: Smoothed) -> PolishCurve:
    """The curve of crop against what is left, at a reading's playback rate. One enlargement serves
    all shots. frames: those of the reading, at every strength."""
    shots = tuple(
        None if one is None else _polished(shot, one)
        for shot, one in zip(reading.shots, frames.shots, strict=True)
    )
    return _curve(frames.corners_hz, shots)


def enlargements(
    off: NDArray[np.floating[Any]], *, aspect: float, upright: bool = False
) -> Singles:
    """(n,) smallest enlargement at which no corner of each corrected frame is empty, at least 1.

    off: (n, 4) corrections. A frame that is off by (x, y), turned and grown shows the smooth
    one's window moved, turned and grown within it; all four corners must lie inside. In single
    precision, a ten-millionth of the picture, which is many times as fast.
    """
    off = off.astype(np.float32, copy=False)
    width, height = (aspect, 1.0) if upright else (1.0, aspect)
    shift_x, shift_y = np.abs(off[:, 0]) / 100.0, np.abs(off[:, 1]) / 100.0
    turn = np.abs(np.radians(off[:, 2]))
    grown = 1.0 + off[:, 3] / 100.0
    cosine, sine = np.cos(turn), np.sin(turn)
    across = (cosine * width + sine * height) / np.maximum(width - 2.0 * shift_x, 1e-3)
    down = (cosine * height + sine * width) / np.maximum(height - 2.0 * shift_y, 1e-3)
    out: Singles = np.maximum(np.maximum(across, down) * grown, np.float32(1.0))
    return out


class Polisher:
    """One shot, transformed once and then polished at any strength."""

    def __init__(self, shot: ShotReading, *, aspect: float) -> None:
        self._shot, self._aspect = shot, aspect
        self._path = in_logarithms(shot.path)
        self._filter = LowPass(self._path, rate_hz=shot.rate_hz)

    def off(self, corner_hz: float) -> Singles:
        """(n, 4) by which each frame is off the smooth path: pan %, tilt %, roll °, and 100 times
        the logarithm of its growth."""
        return self._filter.fast(corner_hz)

    def corrections(self, corner_hz: float) -> Floats:
        """(n, 4) by which the picture that is shown is off the smooth path: like `off`, with
        growth in percent, and for a picture that is held by what it is behind."""
        return self.shown(self.off(corner_hz)).astype(np.float64)

    def shown(self, off: Singles) -> Singles:
        """(n, 4) the corrections of the pictures that are shown, from `off`."""
        found = off.copy(order="K")
        found[:, 3] = 100.0 * np.expm1(off[:, 3] / 100.0)
        if self._shot.lag is not None:
            found += self._shot.lag.astype(np.float32)
        return found

    def smooth(self, corner_hz: float) -> Floats:
        """(n, 4) the smooth path: pan %, tilt %, roll °, zoom %."""
        found = self._path - self.off(corner_hz)
        found[:, 3] = 100.0 * np.expm1(found[:, 3] / 100.0)
        return found

    def meant_pct_s(self) -> Floats:
        """(n - 1,) speed of the meant move, pan and tilt, at capture."""
        slow = self._path[:, :2] - self._filter.fast(INTENDED_HZ)[:, :2]
        steps = np.diff(slow, axis=0)
        out: Floats = np.hypot(steps[:, 0], steps[:, 1]) * self._shot.rate_hz
        return out

    def left(self, off: Singles, *, every: int = 1) -> SpeedSpectrum:
        """The speeds of the smooth path, in every so many-th sample."""
        shot, units = self._shot, long_sides_of(aspect_to_rho(self._aspect))
        before, after = (
            self._path[first:last:every] - off[first:last:every]
            for first, last in ((0, -1), (1, None))
        )
        speeds = (after - before) * units * shot.rate_hz
        return SpeedSpectrum(speeds, rate_hz=shot.rate_hz / every)


def _smoothed(
    shot: ShotReading,
    corners: tuple[float, ...],
    aspect: float,
    step: float,
    upright: bool,
    is_long: bool,
) -> SmoothedShot:
    polisher = Polisher(shot, aspect=aspect)

    def at(strength: int) -> SmoothedPath:
        corner_hz = corners[strength]
        every = _every(corner_hz, shot.rate_hz) if is_long else 1
        off = polisher.off(corner_hz)
        needed = enlargements(polisher.shown(off), aspect=aspect, upright=upright)
        return SmoothedPath(needed, polisher.left(off, every=every), every)

    # A steady pan leans uprights too, but evenly, which is no wobble.
    along = shot.speeds[:, 1 if upright else 0]
    across = np.abs(along - median(along[shot.counted]))
    # Lines are off by up to half of the lean: a root of twelve, evenly spread over the picture.
    lines = np.diff(along, prepend=along[0]) * shot.rate_hz * USUAL_READOUT_S / 12**0.5
    exposure_s = USUAL_SHUTTER / (step * shot.rate_hz)
    return SmoothedShot(
        paths=WhenAsked(len(corners), at),
        smear_pct=np.hypot(shot.speeds[:, 0], shot.speeds[:, 1]) * exposure_s,
        lean_pct=across * USUAL_READOUT_S,
        wobble=SpeedSpectrum(lines[:, None], rate_hz=shot.rate_hz),
        meant_pct_s=polisher.meant_pct_s(),
    )


def _every(corner_hz: float, rate_hz: float) -> int:
    """Every how many-th sample is enough to see a path without what is faster than a corner."""
    return max(1, int(rate_hz / max(FEWEST_HZ, SAMPLES_A_WAVE * corner_hz)))


def _polished(shot: ShotReading, frames: SmoothedShot) -> PolishedShot:
    count = len(frames.paths)

    def left(strength: int) -> Left:
        path = frames.paths[strength]
        # What was measured wrongly is moved wrongly: the measurement's own error stays in.
        power = path.speeds.power(shot.playback) + shot.floor_power
        return Left(power, _any(shot.counted, path.every), path.every)

    return PolishedShot(
        needed=WhenAsked(count, lambda strength: frames.paths[strength].needed),
        left=WhenAsked(count, left),
        counted=shot.counted,
        smear_pct=frames.smear_pct,
        lean_pct=frames.lean_pct,
        wobble_power=frames.wobble.power(shot.playback),
        move_pct_s=frames.meant_pct_s * shot.playback,
        playback_hz=shot.rate_hz * shot.playback,
        floor_power=shot.floor_power,
    )


def _cut(shot: PolishedShot, stretch: Stretch) -> PolishedShot:
    inside, frames = slice(stretch.start, stretch.stop), slice(stretch.start, stretch.stop + 1)
    count = len(shot.left)
    return PolishedShot(
        needed=WhenAsked(count, lambda strength: shot.needed[strength][frames]),
        left=WhenAsked(count, lambda strength: shot.left[strength].part(stretch)),
        counted=shot.counted[inside],
        smear_pct=shot.smear_pct[inside],
        lean_pct=shot.lean_pct[inside],
        wobble_power=shot.wobble_power[inside],
        move_pct_s=shot.move_pct_s[inside],
        playback_hz=shot.playback_hz,
        floor_power=shot.floor_power,
    )


def _curve(corners: tuple[float, ...], shots: tuple[PolishedShot | None, ...]) -> PolishCurve:
    measured = [shot for shot in shots if shot is not None]
    wobble_power = float(
        np.concatenate([shot.wobble_power[shot.counted] for shot in measured]).mean()
    )
    return PolishCurve(
        points=_points(corners, measured),
        blur_pct=_one_in_twenty([shot.smear_pct[shot.counted] for shot in measured]),
        lean_pct=_one_in_twenty([shot.lean_pct[shot.counted] for shot in measured]),
        wobble_pct_s=wobble_power**0.5,
        move_pct_s=max(float(shot.move_pct_s.max()) for shot in measured),
        followed=float(np.concatenate([shot.counted for shot in measured]).mean()),
        floor_pct_s=max(shot.floor_power for shot in measured) ** 0.5,
        corners_hz=corners,
        shots=shots,
    )


def _one_in_twenty(parts: list[Floats]) -> float:
    return percentile(np.concatenate(parts), ONE_IN_TWENTY)


def _points(corners: tuple[float, ...], shots: list[PolishedShot]) -> Sequence[PolishPoint]:
    def at(strength: int) -> PolishPoint:
        enlarge = max(float(shot.needed[strength].max()) for shot in shots)
        crop_pct = 100.0 * (1.0 - 1.0 / enlarge)
        if strength:  # a stronger one never takes less
            crop_pct = max(crop_pct, points[strength - 1].crop_pct)
        enlarge = 1.0 / (1.0 - crop_pct / 100.0)
        left = [(shot.left[strength], shot.playback_hz) for shot in shots]
        counted = np.concatenate([one.power[one.counted] for one, _ in left])
        seconds = np.concatenate([_counted_seconds(one, hz) for one, hz in left])
        speed, peak = float(counted.mean()) ** 0.5, peak_speed(seconds)
        return PolishPoint(corners[strength], crop_pct, enlarge * speed, enlarge * peak)

    points = WhenAsked(len(corners), at)
    return points


def _counted_seconds(left: Left, playback_hz: float) -> Floats:
    """Squared speed over the surrounding second, where it counts."""
    around = seconds_of(left.power, left.counted, playback_hz=playback_hz / left.every)
    return around[left.counted]


def _any(counted: NDArray[np.bool_], every: int) -> NDArray[np.bool_]:
    """Of so many samples each, whether one counts."""
    if every == 1 or counted.all():
        return counted[::every]
    return np.logical_or.reduceat(counted, np.arange(0, len(counted), every))
