"""The move itself: the part of the path under 0.5 Hz, and how well it was made.

Which move it was is told from the path: the part that goes furthest in one direction. A turn and
a travel look the same in the path of one background, so that a pan may have been a slide.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import in_long_sides, median
from ridgewind.core.shake.lowpass import LowPass
from ridgewind.core.shake.reading import Reading, ShotReading
from ridgewind.core.units import aspect_to_rho, pct_to_deg

Floats = NDArray[np.float64]
Kind = Literal["pan", "tilt", "roll", "push"]
Direction = Literal["right", "left", "up", "down", "clockwise", "anticlockwise", "in", "out"]

INTENDED_HZ = 0.5
"""What is slower was meant (definition)."""

SETTLE_S = 0.6
"""How far the filter spreads the ends of a move: its extent is taken from before to after."""

EASE_HZ = 1.2
"""Starts and stops are looked at up to this frequency: 0.5 Hz would soften them."""

LEAST_EXTENT_PCT, LEAST_EXPECTED_PCT = 4.0, 1.5
"""How far a picture must go to be a move, and where one was expected (chosen here)."""

LEAST_ONWARD = 0.75
"""Net way over the whole way, from which it went in one direction."""

STARTED, SLOWER_SHARE = 0.35, 0.25
"""Share of the usual speed at which a move begins and ends; share of its power below that speed."""

STANDS_OUT = 4.0
"""How many times as fast as the wander around it a move is, where that wander goes as far."""

WANDER_HZ = 1.0
"""Corner at which a wander of 0.3 Hz is still read at nine tenths (it is peak to peak under 0.5 Hz
by definition; the filter is soft)."""

MIDDLE = 0.8
REVERSAL_SPEED, REVERSAL_S = 0.15, 0.2
CRUISE = 0.8
JOIN_S = 0.5
STILL_PCT_S = 0.8
"""Slower than this, a picture is still for the eye (chosen here)."""

SHORTEST_S = 1.5
KINDS: tuple[Kind, ...] = ("pan", "tilt", "roll", "push")
DIRECTIONS: dict[Kind, tuple[Direction, Direction]] = {
    "pan": ("right", "left"),
    "tilt": ("up", "down"),
    "roll": ("clockwise", "anticlockwise"),
    "push": ("in", "out"),
}
"""Names of the positive and the negative way."""


@dataclass(frozen=True)
class Join:
    """Motion at one end of a shot, for a cut on motion: over the first or last half second.
    direction: None while the picture is still."""

    speed_pct_s: float
    direction: Direction | None


@dataclass(frozen=True)
class MeasuredMove:
    """One intended move.

    start_s, end_s: s in the file. extent: percent of the long side for pan and tilt, degrees for
    roll, percent of growth for a push. extent_deg: of the camera's turn, None where the kind has
    none. evenness: 1 - spread / mean of the speed over the middle 80 %, 0 to 1. reversals: how
    often it went back. cross_pct: furthest from the straight line, percent of the long side;
    dip_pct: how far a push sank below it. ease_in_s, ease_out_s: time to and from cruising speed.
    line: ((pan, tilt), (pan, tilt)) of its ends, percent.
    """

    kind: Kind
    direction: Direction
    start_s: float
    end_s: float
    extent: float
    extent_deg: float | None
    evenness: float
    reversals: int
    cross_pct: float
    dip_pct: float
    ease_in_s: float
    ease_out_s: float
    line: tuple[tuple[float, float], tuple[float, float]]

    @property
    def seconds(self) -> float:
        return self.end_s - self.start_s


@dataclass(frozen=True)
class MoveReading:
    """move: None where the camera was held. t_s: (n,), s in the file; intended: (n, 2) pan and
    tilt of the path that was meant, percent. wander_pct: greatest peak to peak of it, which for
    a hold is how far the frame wandered. entry, exit: how the shot can be joined."""

    move: MeasuredMove | None
    t_s: Floats
    intended: Floats
    wander_pct: float
    entry: Join
    exit: Join


def read_move(
    reading: Reading, *, aspect: float, focal_eq_mm: float, expected: bool
) -> MoveReading | None:
    """The move of a reading's longest shot; None where nothing of 1.5 s can be measured.

    aspect: short side / long side. expected: a move was meant, so that a small one counts.
    """
    shots = [shot for shot in reading.shots if shot.reason is None and shot.counted.any()]
    shot = max(shots, key=lambda one: len(one.path), default=None)
    if shot is None or len(shot.path) < SHORTEST_S * shot.rate_hz:
        return None
    rho = aspect_to_rho(aspect)
    seen = in_long_sides(shot.path, rho=rho)
    smooth = LowPass(seen, rate_hz=shot.rate_hz)
    meant = smooth.slow(INTENDED_HZ)
    t_s = shot.start_s + np.arange(len(meant)) / shot.rate_hz
    move = _move_of(shot, smooth, meant, t_s, rho, focal_eq_mm, expected=expected)
    return MoveReading(
        move=move,
        t_s=t_s,
        intended=meant[:, :2],
        wander_pct=float(np.ptp(smooth.slow(WANDER_HZ)[:, :2], axis=0).max()),
        entry=_join(meant[: round(JOIN_S * shot.rate_hz) + 1], shot.rate_hz),
        exit=_join(meant[-round(JOIN_S * shot.rate_hz) - 1 :], shot.rate_hz),
    )


def as_played(found: MoveReading, stretch: float, *, from_s: float) -> MoveReading:
    """A move read at capture speed, with the times and the joins of its film, which plays slower.

    stretch: how many times. from_s: time of the film's first frame.
    """

    def at(t_s: float) -> float:
        return from_s + (t_s - from_s) * stretch

    move = found.move
    return replace(
        found,
        t_s=from_s + (found.t_s - from_s) * stretch,
        move=move and replace(move, start_s=at(move.start_s), end_s=at(move.end_s)),
        entry=replace(found.entry, speed_pct_s=found.entry.speed_pct_s / stretch),
        exit=replace(found.exit, speed_pct_s=found.exit.speed_pct_s / stretch),
    )


def _move_of(
    shot: ShotReading,
    smooth: LowPass,
    meant: Floats,
    t_s: Floats,
    rho: float,
    focal_eq_mm: float,
    *,
    expected: bool,
) -> MeasuredMove | None:
    ranges = np.ptp(meant, axis=0)
    part = int(ranges.argmax())
    along = meant[:, part]
    speed = np.gradient(along) * shot.rate_hz
    sign = 1.0 if along[-1] >= along[0] else -1.0
    first, last = _ends(sign * speed)
    inside = slice(first, last + 1)
    pad = round(SETTLE_S * shot.rate_hz)
    before, after = max(0, first - pad), min(len(along) - 1, last + pad)
    way = float(abs(along[after] - along[before]))
    onward = _onward(along)
    if _stands_out(speed, before, after):
        onward = max(onward, _onward(along[before : after + 1]))
    least = LEAST_EXPECTED_PCT if expected else LEAST_EXTENT_PCT
    if ranges[part] < least or (onward < LEAST_ONWARD and not expected) or onward < 0.3:
        return None
    kind = KINDS[part]
    cross, dip = _off_line(meant[inside], part)
    extent, extent_deg = _extent(kind, way, sign, rho, focal_eq_mm)
    finer = np.gradient(smooth.slow(EASE_HZ)[:, part])
    ease_in, ease_out = _eases(sign * finer * shot.rate_hz, first, last, shot.rate_hz)
    return MeasuredMove(
        kind=kind,
        direction=DIRECTIONS[kind][0 if sign > 0 else 1],
        start_s=float(t_s[first]),
        end_s=float(t_s[last]),
        extent=extent,
        extent_deg=extent_deg,
        evenness=_evenness(sign * speed[inside]),
        reversals=_reversals(sign * speed[inside], shot.rate_hz),
        cross_pct=cross,
        dip_pct=dip,
        ease_in_s=ease_in,
        ease_out_s=ease_out,
        line=(_point(meant[first]), _point(meant[last])),
    )


def _onward(along: Floats) -> float:
    """Net way over the whole way."""
    return float(abs(along[-1] - along[0]) / max(np.abs(np.diff(along)).sum(), 1e-9))


def _stands_out(speed: Floats, before: int, after: int) -> bool:
    """Whether a move is much faster than the wander of the hold around it."""
    around = np.concatenate([speed[:before], speed[after + 1 :]])
    moving = float(np.abs(speed[before : after + 1]).mean())
    return not len(around) or moving > STANDS_OUT * float(np.abs(around).mean())


def _ends(speed: Floats) -> tuple[int, int]:
    """First and last sample of a move, by its speed in its own direction. What is usual is told
    with each sample weighted by its power: a minute's hold around a short pan has no say."""
    order = np.argsort(speed)
    power = np.cumsum(np.maximum(speed[order], 0.0) ** 2)
    usual = float(speed[order[int(np.searchsorted(power, SLOWER_SHARE * power[-1]))]])
    moving = np.flatnonzero(speed > STARTED * usual)
    if len(moving) < 2:
        return 0, len(speed) - 1
    return int(moving[0]), int(moving[-1])


def _extent(
    kind: Kind, way: float, sign: float, rho: float, focal_eq_mm: float
) -> tuple[float, float | None]:
    """In the kind's own unit, and as a turn of the camera."""
    if kind == "roll":
        turned = float(np.degrees(way / (100.0 * rho)))
        return turned, turned
    if kind == "push":
        return float(100.0 * np.expm1(sign * way / (100.0 * rho))), None
    return way, pct_to_deg(way, focal_eq_mm=focal_eq_mm)


def _evenness(speed: Floats) -> float:
    cut = round(len(speed) * (1.0 - MIDDLE) / 2.0)
    middle = speed[cut : len(speed) - cut]
    mean = float(middle.mean())
    return float(np.clip(1.0 - middle.std() / mean, 0.0, 1.0)) if mean > 0 else 0.0


def _reversals(speed: Floats, rate_hz: float) -> int:
    """Stretches of at least a fifth of a second in which the move went back."""
    back = speed < -REVERSAL_SPEED * float(np.abs(speed).mean())
    edges = np.flatnonzero(np.diff(np.concatenate([[False], back, [False]]).astype(int)))
    lengths = edges[1::2] - edges[::2]
    return int((lengths >= REVERSAL_S * rate_hz).sum())


def _off_line(meant: Floats, part: int) -> tuple[float, float]:
    """Furthest from the straight line between the ends, and how far below it, percent."""
    share = np.linspace(0.0, 1.0, len(meant))[:, None]
    if part < 2:
        ends = meant[-1, :2] - meant[0, :2]
        length = float(np.hypot(*ends))
        if length < 1e-9:
            return 0.0, 0.0
        away = meant[:, :2] - meant[0, :2]
        cross = (away[:, 0] * ends[1] - away[:, 1] * ends[0]) / length
        return float(np.abs(cross).max()), 0.0
    off = meant[:, :2] - (meant[0, :2] + share * (meant[-1, :2] - meant[0, :2]))
    return float(np.hypot(off[:, 0], off[:, 1]).max()), float(max(0.0, -off[:, 1].min()))


def _eases(speed: Floats, first: int, last: int, rate_hz: float) -> tuple[float, float]:
    """Seconds from the first motion to cruising speed, and from it to the last."""
    inside = speed[first : last + 1]
    cruise = CRUISE * median(inside)
    fast = np.flatnonzero(inside >= cruise)
    if not len(fast):
        return 0.0, 0.0
    return float(fast[0] / rate_hz), float((len(inside) - 1 - fast[-1]) / rate_hz)


def _join(meant: Floats, rate_hz: float) -> Join:
    seconds = (len(meant) - 1) / rate_hz
    if seconds <= 0:
        return Join(0.0, None)
    velocity = (meant[-1] - meant[0]) / seconds
    part = int(np.abs(velocity).argmax())
    speed = float(abs(velocity[part]))
    if speed < STILL_PCT_S:
        return Join(speed, None)
    return Join(speed, DIRECTIONS[KINDS[part]][0 if velocity[part] > 0 else 1])


def _point(meant: Floats) -> tuple[float, float]:
    return float(meant[0]), float(meant[1])
