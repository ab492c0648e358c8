"""A hand drawn from its own spectrum: a take that it might film, as waves of random phases.

Each bin of the spectrum becomes a few waves of random frequencies within it that share its power,
so that the drawn hand never repeats and reads, on average, what the hand is predicted to read.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import require_positive
from ridgewind.core.motion.path import Motion, Shot
from ridgewind.core.shake.reading import read_motion
from ridgewind.core.trials.own_hand import EDGES_HZ, Hand, predict
from ridgewind.core.units import aspect_to_rho, deg_to_pct

Floats = NDArray[np.float64]

DRAWN, WAVES_A_BIN = 8, 3
"""Takes drawn to find a usual one; waves of a bin, so that none is a pure tone (chosen here)."""


@dataclass(frozen=True)
class DrawnHand:
    """Waves of a hand. hz: (m,). size, phase: (m, 4); size of pan and tilt in degrees, of roll and
    zoom in percent of the long side at the mean radius of the picture."""

    hz: Floats
    size: Floats
    phase: Floats

    def turned(self, t_s: Floats) -> Floats:
        """(n, 4) how far the hand is from its middle at instants (n,), in the units of size."""
        out = np.empty((len(t_s), 4))
        angle = 2.0 * np.pi * np.outer(t_s, self.hz)
        for part in range(4):
            out[:, part] = np.sin(angle + self.phase[:, part]) @ self.size[:, part]
        return out

    def path(self, t_s: Floats, *, focal_eq_mm: float, aspect: float) -> Floats:
        """(n, 4) the path that a lens shows: pan %, tilt %, roll °, zoom %."""
        require_positive("focal_eq_mm", focal_eq_mm)
        turned, radius = self.turned(t_s), 100.0 * aspect_to_rho(aspect)
        turned[:, :2] *= deg_to_pct(1.0, focal_eq_mm=focal_eq_mm)
        turned[:, 2] = np.degrees(turned[:, 2] / radius)
        turned[:, 3] = 100.0 * np.expm1(turned[:, 3] / radius)
        out: Floats = turned - turned[0]
        return out

    def motion(self, *, fps: float, seconds: float, focal_eq_mm: float, aspect: float) -> Motion:
        """A take of it as if it had been filmed and measured without error."""
        require_positive("fps", fps)
        require_positive("seconds", seconds)
        t_s = np.arange(max(2, round(seconds * fps))) / fps
        path = self.path(t_s, focal_eq_mm=focal_eq_mm, aspect=aspect)
        return Motion(
            t_s=t_s,
            pan_pct=path[:, 0],
            tilt_pct=path[:, 1],
            roll_deg=path[:, 2],
            zoom_pct=path[:, 3],
            trust=np.ones(len(t_s)),
            error=np.zeros((len(t_s), 4)),
            aspect=aspect,
            shots=(Shot(0, len(t_s), None),),
        )


def draw_hand(hand: Hand, *, seed: int, up_to_hz: float) -> DrawnHand:
    """Draw a hand's mean take. up_to_hz: what is faster is left out, half the frame rate of the
    film at most, which could not show it."""
    require_positive("up_to_hz", up_to_hz)
    rng = np.random.default_rng(seed)
    power = hand.mean_square.mean(axis=0)
    low, high = EDGES_HZ[:-1, None], EDGES_HZ[1:, None]
    within = np.arange(WAVES_A_BIN) + rng.random((len(power), WAVES_A_BIN))
    hz = (low + (high - low) * within / WAVES_A_BIN).ravel()
    speed = np.repeat(np.sqrt(2.0 * power / WAVES_A_BIN), WAVES_A_BIN, axis=0)
    kept = hz < up_to_hz
    size = speed[kept] / (2.0 * np.pi * hz[kept, None])
    return DrawnHand(hz[kept], size, rng.uniform(0.0, 2.0 * np.pi, size.shape))


def draw_usual(
    hand: Hand, *, seed: int, fps: float, seconds: float, focal_eq_mm: float, aspect: float
) -> DrawnHand:
    """Of a few takes drawn from a hand, the one that reads nearest to what it is predicted to read:
    a short take draws only a few of its slow waves."""
    expected = predict(hand, focal_eq_mm=focal_eq_mm).gust
    drawn = [draw_hand(hand, seed=seed + k, up_to_hz=fps / 2.0) for k in range(DRAWN)]

    def off(one: DrawnHand) -> float:
        motion = one.motion(fps=fps, seconds=seconds, focal_eq_mm=focal_eq_mm, aspect=aspect)
        return abs((read_motion(motion).gust() or 0.0) - expected)

    return min(drawn, key=off)
