"""Live steadiness: meters that run in the server while somebody films, a few at a time.

What they were fed is kept for ten seconds and no longer; a film or log that is to be kept as a take
is the browser's to send.
"""

from __future__ import annotations

import math
import secrets
import threading
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.shake.gust import to_gust
from ridgewind.core.shake.live import CalmRun, Instant, PictureMeter, RateMeter
from ridgewind.services.errors import NotReadyError
from ridgewind.store.errors import NotFoundError

MOST_METERS = 8
FORGOTTEN_S = 60.0
"""A meter that was not fed for so long is given up."""

TOO_MANY = (
    "Too many live meters run at once.",
    "Close one on another screen, then begin again.",
)


@dataclass(frozen=True)
class LiveState:
    """instant: the last second. calm_s, best_s: see CalmRun. whole: gust of all that was told so
    far, None where nothing was."""

    instant: Instant
    calm_s: float
    best_s: float
    whole: float | None


@dataclass
class _Meter:
    meter: PictureMeter | RateMeter
    size: tuple[int, int]
    screen_deg: float
    calm: CalmRun
    touched_s: float
    power: float = 0.0
    seconds: float = 0.0
    told_s: float | None = None
    guard: threading.Lock = field(default_factory=threading.Lock)

    def state(self) -> LiveState:
        instant = self.meter.read(screen_deg=self.screen_deg)
        self.calm.add(instant.t_s, instant.gust)
        if instant.gust is not None and self.told_s is not None:
            passed = instant.t_s - self.told_s
            self.power += passed * instant.power
            self.seconds += passed
        self.told_s = instant.t_s if instant.gust is not None else None
        whole = None
        if self.seconds > 0:
            whole = to_gust(math.sqrt(self.power / self.seconds), screen_deg=self.screen_deg)
        return LiveState(instant, self.calm.calm_s, self.calm.best_s, whole)


class LiveMeters:
    """The meters of one server; safe between threads. clock: seconds that only grow."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
        self._guard = threading.Lock()
        self._meters: dict[str, _Meter] = {}

    def begin_pictures(self, size: tuple[int, int], *, target: float, screen_deg: float) -> str:
        """Returns the key of a meter that is fed pictures. size: (width, height), px. Raises
        InvalidArgumentError, NotReadyError."""
        return self._begin(PictureMeter(size), size, target, screen_deg)

    def begin_rates(
        self, *, focal_eq_mm: float, aspect: float, target: float, screen_deg: float
    ) -> str:
        """Returns the key of a meter that is fed turning rates. Raises NotReadyError."""
        meter = RateMeter(focal_eq_mm=focal_eq_mm, aspect=aspect)
        return self._begin(meter, (0, 0), target, screen_deg)

    def pictures(self, key: str, times_s: Sequence[float], lumas: bytes) -> LiveState:
        """Feed pictures, one after the other, row by row, a byte a point. Raises NotFoundError,
        InvalidArgumentError."""
        one = self._one(key)
        if not isinstance(one.meter, PictureMeter):
            raise InvalidArgumentError("key", key, "it is a meter of turning rates")
        width, height = one.size
        if len(lumas) != len(times_s) * width * height:
            rule = f"{len(times_s)} pictures of {width} by {height} are that many bytes"
            raise InvalidArgumentError("body", len(lumas), rule)
        pictures = np.frombuffer(lumas, np.uint8).reshape(-1, height, width)
        with one.guard:
            for t_s, luma in zip(times_s, pictures, strict=True):
                one.meter.feed(t_s, luma)
            return one.state()

    def rates(self, key: str, t_s: NDArray[np.float64], deg_s: NDArray[np.float64]) -> LiveState:
        """Feed turning rates, (n,) and (n, 3), see RateMeter. Raises NotFoundError,
        InvalidArgumentError."""
        one = self._one(key)
        if not isinstance(one.meter, RateMeter):
            raise InvalidArgumentError("key", key, "it is a meter of pictures")
        with one.guard:
            one.meter.feed(t_s, deg_s)
            return one.state()

    def end(self, key: str) -> None:
        """Forget a meter; one that is not here any more is forgotten already."""
        with self._guard:
            self._meters.pop(key, None)

    def _begin(
        self,
        meter: PictureMeter | RateMeter,
        size: tuple[int, int],
        target: float,
        screen_deg: float,
    ) -> str:
        key, now = secrets.token_hex(16), self._clock()
        with self._guard:
            for old, one in list(self._meters.items()):
                if now - one.touched_s > FORGOTTEN_S:
                    del self._meters[old]
            if len(self._meters) >= MOST_METERS:
                raise NotReadyError(*TOO_MANY)
            self._meters[key] = _Meter(meter, size, screen_deg, CalmRun(target), now)
        return key

    def _one(self, key: str) -> _Meter:
        with self._guard:
            found = self._meters.get(key)
            if found is None:
                raise NotFoundError("live meter", key)
            found.touched_s = self._clock()
            return found
