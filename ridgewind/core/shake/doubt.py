"""A shake that is hardly more than what measuring it adds is told with less trust."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ridgewind.core.motion.path import UNSETTLED_TRUST, Motion
from ridgewind.core.shake.gust import to_gust
from ridgewind.core.shake.reading import read_motion

LEAST_DOUBTED_GUST = 1.0
"""Under this a shot is calm whatever it is."""

SURE_POWER = 4.0
"""Multiples of the measurement's own power from which a shake is beyond doubt (chosen here)."""


def with_noise_told(motion: Motion) -> Motion:
    """The motion with the doubt of every shot that shakes hardly more than its measurement errs."""
    trust, shots = motion.trust.copy(), []
    for shot, reading in zip(motion.shots, read_motion(motion).shots, strict=True):
        mean = float(reading.power[reading.counted].mean()) if reading.counted.any() else 0.0
        noisy = to_gust(mean**0.5) > LEAST_DOUBTED_GUST and mean < SURE_POWER * reading.floor_power
        if noisy:
            inside = slice(shot.start, shot.stop)
            trust[inside] = np.minimum(trust[inside], UNSETTLED_TRUST)
        shots.append(replace(shot, doubt=shot.doubt or ("noise" if noisy else None)))
    return replace(motion, trust=trust, shots=tuple(shots))
