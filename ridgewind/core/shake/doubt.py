"""A shake that is hardly more than what measuring it adds, or that is read off something so faint
that much of it may be lost, is told with less trust."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ridgewind.core.motion.path import UNSETTLED_TRUST, Motion, RivalPath, Shot
from ridgewind.core.shake.gust import to_gust
from ridgewind.core.shake.reading import read_motion

LEAST_DOUBTED_GUST = 1.0
"""Under this a shot is calm whatever it is."""

MOST_FLOOR_GUST = 2.4
"""Error, as gust, from which what is followed is so faint that its fine shake may be lost in the
file's compression too (chosen here, from dark and plain walls behind a person)."""

SURE_POWER = 4.0
"""Multiples of the measurement's own power from which a shake is beyond doubt (chosen here)."""


def with_noise_told(motion: Motion) -> Motion:
    """The motion with the doubt of every shot whose measurement errs much, or as it shakes."""
    trust, shots = motion.trust.copy(), []
    for shot, reading in zip(motion.shots, read_motion(motion).shots, strict=True):
        mean = float(reading.power[reading.counted].mean()) if reading.counted.any() else 0.0
        drowned = mean < SURE_POWER * reading.floor_power
        poor = to_gust(reading.floor_power**0.5) > MOST_FLOOR_GUST
        noisy = to_gust(mean**0.5) > LEAST_DOUBTED_GUST and (drowned or poor)
        if noisy:
            inside = slice(shot.start, shot.stop)
            trust[inside] = np.minimum(trust[inside], UNSETTLED_TRUST)
        if noisy and shot.doubt is None:
            # Kept as it is, so that the shooter can say that it is the camera all the same.
            own = shot.rivals or (_path_of(motion, shot),)
            shot = replace(shot, doubt="noise", rivals=own)  # noqa: PLW2901
        shots.append(shot)
    return replace(motion, trust=trust, shots=tuple(shots))


def _path_of(motion: Motion, shot: Shot) -> RivalPath:
    """The only motion of a shot."""
    inside = slice(shot.start, shot.stop)
    columns = (motion.pan_pct, motion.tilt_pct, motion.roll_deg, motion.zoom_pct)
    path = np.column_stack([column[inside] for column in columns])
    return RivalPath(path, motion.trust[inside].copy(), 0.0, 0.0, 0.0, 1.0, False)
