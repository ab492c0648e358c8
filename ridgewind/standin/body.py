"""The model of hand, body and gait: what a person does to a camera while meaning to hold it.

Each source of shake is a sum of sines with random phases, so that it can be evaluated at any
instant (motion blur needs instants within a frame) and repeats exactly for a seed. Sizes are
round figures chosen here so that an unaided stand with a phone reads about 4 to 5 in gust at
26 mm and a plain walk about 7; frequencies follow the literature:

* tremor of the hands, 8 to 12 Hz (Elble and Koller, 1990, "Tremor"), growing with fatigue;
* breath, 0.2 to 0.3 Hz, and postural sway, mostly under 1 Hz (Winter, 1995, "A.B.C. of
  Balance");
* footfalls at the cadence with harmonics, a landing impact, and weight shift at half the step
  rate (Winter, 1991, "Biomechanics of Human Gait").

How each technique scales the parts is chosen here, after what shooters report.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

Hold = Literal["body", "off_body"]
Support = Literal["hands", "monopod", "table"]
Stance = Literal["planted", "narrow", "leaning", "seated"]

TREMOR_HZ = (8.0, 12.0)
SWAY_HZ = (0.3, 1.1)
DRIFT_HZ = (0.04, 0.18)
BREATH_HZ = 0.26
TONES = 14
"""Sines that make up one band of noise."""

TREMOR_DEG = np.array([0.020, 0.020, 0.012])
SWAY_DEG = np.array([0.16, 0.13, 0.10])
DRIFT_DEG = np.array([0.30, 0.20, 0.10])
BREATH_DEG, BREATH_M = 0.10, 0.003
SWAY_M = np.array([0.008, 0.003, 0.006])
STEP_M, STEP_PITCH_DEG = 0.016, 0.36
HARMONICS = (1.0, 0.4, 0.12)
IMPACT_DEG, IMPACT_HZ, IMPACT_DECAY_S = 0.06, 7.0, 0.07
WADDLE_M, WADDLE_ROLL_DEG, WADDLE_YAW_DEG = 0.020, 0.45, 0.30
SWING_DECAY_S, JOLT_S = 2.2, 0.08
FATIGUE_TIME_S = 12.0
"""Seconds after which tremor has doubled at fatigue 1."""

STANCE_SWAY: dict[str, float] = {"planted": 1.0, "narrow": 1.6, "leaning": 0.45, "seated": 0.4}
SUPPORT_SCALE: dict[str, tuple[float, float]] = {
    "hands": (1.0, 1.0),
    "monopod": (0.35, 0.22),
    "table": (0.02, 0.02),
}
"""What is left of (sway and drift, tremor) on each support."""

BEST_TENSION = 0.6


@dataclass(frozen=True)
class Technique:
    """How the camera is held. Defaults: two hands, planted, a light camera, standing.

    contacts: points of contact, 1 to 4. strap_tension: 0 slack to 1 as hard as it goes.
    cadence_hz: steps a second, 0 for standing. landing: hardness of the heel, 0 to 2.
    fatigue: 0 fresh to 1. stabiliser: share of fast rotation that the lens or body removes,
    0 to 1. tremor_from_s, tremor_until_s: when the tremor is bad (a grip that slips), for
    takes that are calm in part; rough: how many times worse it then is. tremor, breath, sway,
    bounce, waddle: how many times their usual size. unevenness: how much harder one foot lands
    than the other, beside a little by chance. swing_deg: a hung rig set swinging at swing_from_s,
    dying away in seconds. jolt_deg: a jolt around jolt_at_s, as from a button press.
    """

    stance: Stance = "planted"
    contacts: int = 2
    elbows_in: bool = True
    strap_tension: float = 0.0
    mass_kg: float = 0.5
    hold: Hold = "body"
    support: Support = "hands"
    stabiliser: float = 0.0
    cadence_hz: float = 0.0
    landing: float = 1.0
    fatigue: float = 0.0
    rough: float = 1.0
    rough_from_s: float = 0.0
    rough_until_s: float = 0.0
    buzz_deg: float = 0.0
    buzz_hz: float = 22.0
    tremor: float = 1.0
    breath: float = 1.0
    sway: float = 1.0
    bounce: float = 1.0
    waddle: float = 1.0
    unevenness: float = 0.0
    swing_deg: float = 0.0
    swing_hz: float = 0.8
    swing_from_s: float = 0.0
    jolt_deg: float = 0.0
    jolt_at_s: float = 0.0

    @property
    def tremor_scale(self) -> float:
        strap = 1.0 - 0.5 * min(self.strap_tension, BEST_TENSION) / BEST_TENSION
        strap += 2.0 * max(0.0, self.strap_tension - BEST_TENSION)
        contact = {1: 1.7, 2: 1.0, 3: 0.65, 4: 0.5}[self.contacts]
        mass = (0.5 / max(self.mass_kg, 0.1)) ** 0.5
        elbows = 1.0 if self.elbows_in else 1.5
        return self.tremor * strap * contact * mass * elbows * SUPPORT_SCALE[self.support][1]

    @property
    def sway_scale(self) -> float:
        contact = {1: 1.2, 2: 1.0, 3: 0.7, 4: 0.5}[self.contacts]
        heavy = 1.0 + 0.1 * max(0.0, self.mass_kg - 1.5)
        return STANCE_SWAY[self.stance] * contact * heavy * SUPPORT_SCALE[self.support][0]

    @property
    def step_scale(self) -> float:
        return 1.0 if self.hold == "body" else 0.45


class Body:
    """One person on one take: evaluate `pose(t_s)` at any instants."""

    def __init__(self, technique: Technique, *, seed: int) -> None:
        self._how = technique
        rng = np.random.default_rng([seed, 7])
        self._tremor = [_Noise(rng, *TREMOR_HZ) for _ in range(3)]
        self._sway = [_Noise(rng, *SWAY_HZ) for _ in range(6)]
        self._drift = [_Noise(rng, *DRIFT_HZ, tones=4) for _ in range(3)]
        self._phase = rng.uniform(0, 2 * np.pi, 8)
        self._uneven = float(rng.uniform(0.9, 1.1)) / (1.0 + technique.unevenness) ** 0.5

    @property
    def evenness(self) -> float:
        """The softer foot's landing over the harder one's, 0 to 1."""
        return float(min(self._uneven, 1.0 / self._uneven) ** 2)

    def pose(self, t_s: Floats) -> Floats:
        """Unwanted motion (n, 6) at instants (n,): yaw, pitch, roll in degrees, x, y, z in m."""
        how = self._how
        out = np.zeros((len(t_s), 6))
        slow, fast = self._slow(t_s), self._fast(t_s)
        out[:, :3] = slow[:, :3] + fast * (1.0 - how.stabiliser)
        out[:, 3:] = slow[:, 3:]
        if how.cadence_hz > 0:
            out += self._gait(t_s)
        if how.swing_deg:
            out[:, :3] += self._swing(t_s)
        if how.jolt_deg:
            since = (t_s - how.jolt_at_s) / JOLT_S
            out[:, 1] += how.jolt_deg * since * np.exp(0.5 - 0.5 * since**2)
        return out

    def _swing(self, t_s: Floats) -> Floats:
        """A hung mass let go: yaw and roll together, dying away."""
        how = self._how
        since = np.maximum(t_s - how.swing_from_s, 0.0)
        wave = np.sin(2 * np.pi * how.swing_hz * since) * np.exp(-since / SWING_DECAY_S)
        return how.swing_deg * np.stack([0.6 * wave, 0.1 * wave, wave], 1)

    def _slow(self, t_s: Floats) -> Floats:
        scale = self._how.sway_scale
        steadied = 1.0 - 0.4 * self._how.stabiliser
        out = np.zeros((len(t_s), 6))
        for axis in range(3):
            sway = SWAY_DEG[axis] * self._sway[axis](t_s) * steadied
            drift = DRIFT_DEG[axis] * self._drift[axis](t_s)
            out[:, axis] = scale * self._how.sway * (sway + drift)
            out[:, 3 + axis] = scale * self._how.sway * SWAY_M[axis] * self._sway[3 + axis](t_s)
        breath = np.sin(2 * np.pi * BREATH_HZ * t_s + self._phase[0])
        out[:, 1] += scale * self._how.breath * BREATH_DEG * breath
        out[:, 4] += scale * self._how.breath * BREATH_M * breath
        return out

    def _fast(self, t_s: Floats) -> Floats:
        how = self._how
        growth = 1.0 + how.fatigue * t_s / FATIGUE_TIME_S
        bad = np.clip((t_s - how.rough_from_s) / 0.3, 0, 1)
        bad *= np.clip((how.rough_until_s - t_s) / 0.3, 0, 1)
        growth = growth * (1.0 + (how.rough - 1.0) * bad)
        scale = how.tremor_scale
        out = np.stack(
            [TREMOR_DEG[axis] * scale * growth * self._tremor[axis](t_s) for axis in range(3)], 1
        )
        out[:, 1] += how.buzz_deg * np.sin(2 * np.pi * how.buzz_hz * t_s + self._phase[5])
        return out

    def _gait(self, t_s: Floats) -> Floats:
        how = self._how
        step = 2 * np.pi * how.cadence_hz
        bounce = sum(
            size * np.sin(k * step * t_s + self._phase[k])
            for k, size in enumerate(HARMONICS, start=1)
        )
        since_landing = np.mod(t_s * how.cadence_hz + self._phase[4], 1.0) / how.cadence_hz
        left = np.mod(np.floor(t_s * how.cadence_hz + self._phase[4]), 2) == 0
        strength = how.landing * np.where(left, self._uneven, 1.0 / self._uneven)
        rise = np.clip(since_landing / 0.012, 0, 1)
        impact = strength * rise * np.exp(-since_landing / IMPACT_DECAY_S)
        impact = impact * np.sin(2 * np.pi * IMPACT_HZ * since_landing)
        waddle = how.waddle * np.sin(step / 2 * t_s + self._phase[6])
        bounce = how.bounce * bounce
        scale, calm = how.step_scale, 1.0 - 0.55 * how.stabiliser
        out = np.zeros((len(t_s), 6))
        out[:, 0] = scale * calm * WADDLE_YAW_DEG * waddle
        out[:, 1] = scale * calm * (STEP_PITCH_DEG * bounce + IMPACT_DEG * impact)
        roll = how.waddle * np.sin(step / 2 * t_s + self._phase[7])
        out[:, 2] = scale * calm * WADDLE_ROLL_DEG * roll
        out[:, 3] = scale * WADDLE_M * waddle
        out[:, 4] = scale * STEP_M * bounce
        return out


class _Noise:
    """Band-limited noise of unit root mean square, as a sum of sines."""

    def __init__(
        self, rng: np.random.Generator, low_hz: float, high_hz: float, tones: int = TONES
    ) -> None:
        edges = np.linspace(low_hz, high_hz, tones + 1)
        self._hz = rng.uniform(edges[:-1], edges[1:])
        self._phase = rng.uniform(0, 2 * np.pi, tones)

    def __call__(self, t_s: Floats) -> Floats:
        waves = np.sin(2 * np.pi * np.outer(t_s, self._hz) + self._phase)
        out: Floats = waves.sum(axis=1) * np.sqrt(2.0 / len(self._hz))
        return out
