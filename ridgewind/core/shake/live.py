"""Gust while it happens: of the last second, from pictures or turning rates, in bounded memory.

Pictures are followed by the same tracker as a film's. Since a tracker settles whose motion is the
camera's over all that it saw, and keeps all of it, two take turns: each begins when the other has
seen half of what it may, and is asked once it has seen more than the other. So every figure rests
on three to ten seconds, and nothing grows.
"""

from __future__ import annotations

import math
from collections import deque
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.path import REASONS, Motion
from ridgewind.core.motion.turn_rates import TurnRates, gaps_of, path_of_rates
from ridgewind.core.shake import bands
from ridgewind.core.shake.doubt import with_noise_told
from ridgewind.core.shake.gust import WINDOW_S, to_gust
from ridgewind.core.shake.reading import read_motion

if TYPE_CHECKING:  # what sees is imported with the first meter of pictures: a server starts without
    from ridgewind.core.motion.tracker import Tracker

Floats = NDArray[np.float64]
Luma = NDArray[np.uint8]

TURN_S = 5.0
"""After which the other tracker takes its turn (chosen here: a sway of a third of a hertz is seen
more than once, and a subject is told from the background)."""

LEAST_S = 1.0
"""Under which nothing is said: gust looks at a whole second."""

SETTLED_S = 3.0
"""Under which nothing is said of pictures either (chosen here, from made clips: until then, what
moves by itself before a dark or faint background is not told apart; figures are up to 2.9 off)."""

BROKEN_S = 1.0
"""A gap in the pictures after which all begins anew."""

HELD_OVER_S = 0.5
"""A calm stretch ends where gust has been over target for so long, as the longest hold does."""

LEAST_TRUSTED_SHARE = 0.5

LEAST_RATE_HZ = 25.0
"""Samples a second of a motion sensor under which fast shake would be missed (chosen here: twice
the corner over which the eye resolves none)."""


@dataclass(frozen=True)
class Instant:
    """t_s: of the newest sample. gust: of the last second, None where it cannot be told. power: of
    that second, squared weighted speed. shares: of it by band, drift to buzz. reason: why it cannot
    be told, a text of REASONS, "short" for too early, "slow" for too few samples, or one of DOUBTS
    where it is not settled whose motion it is."""

    t_s: float
    gust: float | None
    power: float
    shares: tuple[float, ...]
    reason: str | None


class PictureMeter:
    """Feed pictures in order, and read. size: (width, height), px."""

    def __init__(self, size: tuple[int, int]) -> None:
        self._size = size
        _tracker(size)  # refuses a size that cannot be followed
        self._trackers: list[tuple[float, Tracker]] = []
        self._last_s: float | None = None

    def feed(self, t_s: float, luma: Luma) -> None:
        """The next picture, (height, width) uint8. Raises InvalidArgumentError where its time is
        not after the one before, or it has another size."""
        if self._last_s is not None and not t_s > self._last_s:
            raise InvalidArgumentError("t_s", t_s, f"it must be after {self._last_s:g}")
        if self._last_s is None or t_s - self._last_s > BROKEN_S:
            self._trackers = [(t_s, _tracker(self._size))]
        elif t_s - self._trackers[-1][0] >= TURN_S:
            # The later one has seen half of what the earlier has: its turn comes, and a new begins.
            self._trackers = [self._trackers[-1], (t_s, _tracker(self._size))]
        for _, tracker in self._trackers:
            tracker.feed(t_s, luma)
        self._last_s = t_s

    def read(self, *, screen_deg: float) -> Instant:
        """What the last second was like, seen on a screen of that angle."""
        if self._last_s is None:
            return _nothing(0.0, "short")
        begun_s, tracker = self._trackers[0]
        if self._last_s - begun_s < SETTLED_S:
            return _nothing(self._last_s, "short")
        return read_end(with_noise_told(tracker.so_far()), screen_deg=screen_deg)


class RateMeter:
    """Feed a motion sensor's turning rates in order, and read. focal_eq_mm: of the lens that the
    figure is told for. aspect: short side / long side of its picture."""

    def __init__(self, *, focal_eq_mm: float, aspect: float) -> None:
        self._focal_eq_mm, self._aspect = focal_eq_mm, aspect
        self._samples: deque[tuple[float, float, float, float]] = deque()

    def feed(self, t_s: Floats, deg_s: Floats) -> None:
        """The next samples. t_s: (n,), growing. deg_s: (n, 3), right, up and clockwise positive.
        Raises InvalidArgumentError."""
        before_s = self._samples[-1][0] if self._samples else -math.inf
        if len(t_s) and not (np.diff(t_s, prepend=before_s) > 0).all():
            raise InvalidArgumentError("t_s", float(t_s[0]), "times must grow")
        if len(t_s) and t_s[0] - before_s > BROKEN_S:
            self._samples.clear()
        self._samples.extend(zip(*np.column_stack([t_s, deg_s]).T.tolist(), strict=True))
        while self._samples and self._samples[-1][0] - self._samples[0][0] > 2 * TURN_S:
            self._samples.popleft()

    def read(self, *, screen_deg: float) -> Instant:
        """What the last second was like, seen on a screen of that angle."""
        if not self._samples or self._samples[-1][0] - self._samples[0][0] < LEAST_S:
            return _nothing(self._samples[-1][0] if self._samples else 0.0, "short")
        rows = np.array(self._samples)
        t_s = rows[:, 0]
        rate_hz = 1.0 / float(np.median(np.diff(t_s)))
        if rate_hz < LEAST_RATE_HZ:
            return _nothing(float(t_s[-1]), "slow")
        rates = TurnRates(t_s, rows[:, 1:], gaps_of(t_s, rate_hz), rate_hz)
        motion = path_of_rates(rates, focal_eq_mm=self._focal_eq_mm, aspect=self._aspect)
        return read_end(motion, screen_deg=screen_deg)


@dataclass
class CalmRun:
    """How long it has been calm. target: the gust up to which it is. calm_s: of the stretch that
    goes on, 0 where none does. best_s: of the longest so far."""

    target: float
    calm_s: float = 0.0
    best_s: float = 0.0
    _since_s: float | None = None
    _last_s: float | None = field(default=None, repr=False)
    _over_since_s: float | None = field(default=None, repr=False)

    def add(self, t_s: float, gust: float | None) -> None:
        """The next figure; what cannot be told breaks a stretch as what is over target does, and so
        does a time without figures."""
        if self._last_s is not None and t_s - self._last_s > BROKEN_S:
            self._since_s = None
        self._last_s = t_s
        if gust is not None and gust <= self.target:
            self._over_since_s = None
            self._since_s = t_s if self._since_s is None else self._since_s
        elif self._over_since_s is None:
            self._over_since_s = t_s
        over_s = 0.0 if self._over_since_s is None else t_s - self._over_since_s
        if over_s >= HELD_OVER_S:
            self._since_s = None
        if self._since_s is None:
            self.calm_s = 0.0
            return
        until_s = t_s if self._over_since_s is None else self._over_since_s
        self.calm_s = until_s - self._since_s
        self.best_s = max(self.best_s, self.calm_s)


def read_end(motion: Motion, *, screen_deg: float) -> Instant:
    """The last second of a path."""
    now_s = float(motion.t_s[-1])
    shot = motion.shots[-1]
    if shot.doubt is not None:
        return _nothing(now_s, shot.doubt)
    if shot.reason is not None:
        return _nothing(now_s, "short" if shot.reason == "short" else REASONS[shot.reason])
    reading = read_motion(motion).shots[-1]
    last = reading.t_s > now_s - WINDOW_S
    counted = last & reading.counted
    if not last.any() or counted.sum() < LEAST_TRUSTED_SHARE * last.sum():
        return _nothing(now_s, REASONS["blur"])
    power = float(reading.power[counted].mean())
    by_band = bands.band_powers(reading.speeds, rate_hz=reading.rate_hz)[counted].mean(axis=0)
    total = float(by_band.sum())
    shares = tuple(float(one) / total if total > 0 else 0.0 for one in by_band)
    return Instant(now_s, to_gust(math.sqrt(power), screen_deg=screen_deg), power, shares, None)


def _tracker(size: tuple[int, int]) -> Tracker:
    from ridgewind.core.motion.tracker import Tracker  # noqa: PLC0415

    return Tracker(size)


def _nothing(t_s: float, reason: str) -> Instant:
    return Instant(t_s, None, 0.0, (0.0,) * len(bands.NAMES), reason)
