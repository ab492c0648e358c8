"""The motion log that a phone would write beside a take: turning rates with noise and bias."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.standin.camera import Take

Floats = NDArray[np.float64]

LOG_HZ = 200.0
NOISE_DEG_S, BIAS_DEG_S = 0.05, 0.03
"""Round figures for such a sensor at rest (chosen here)."""

UPTIME_S = 81_234.5
HEADER = "timestamp_ns,gyro_x_rad_s,gyro_y_rad_s,gyro_z_rad_s"


def turning_log(take: Take, *, starts_before_s: float = 0.0, ends_after_s: float = 0.0) -> str:
    """CSV of a take's turning rates, as a phone held upright writes them: x to the right, y up, z
    towards the shooter, each turning anticlockwise about its axis.

    starts_before_s, ends_after_s: how much longer than the film it runs.
    """
    length_s = take.script.seconds + starts_before_s + ends_after_s
    count = round(length_s * LOG_HZ)
    rng = np.random.default_rng([take.script.seed, 29])
    t_s = np.arange(count) / LOG_HZ - starts_before_s + rng.uniform(-2e-4, 2e-4, count)
    step = 0.5 / LOG_HZ
    turned = take.poses(t_s + step)[:, :3] - take.poses(t_s - step)[:, :3]
    deg_s = turned / (2 * step)
    deg_s = deg_s + rng.normal(0, NOISE_DEG_S, deg_s.shape) + rng.normal(0, BIAS_DEG_S, 3)
    yaw, pitch, roll = np.radians(deg_s).T
    stamps = np.round((t_s + starts_before_s + UPTIME_S) * 1e9).astype(np.int64)
    rows = [
        f"{stamp},{x:.7f},{y:.7f},{z:.7f}"
        for stamp, x, y, z in zip(stamps, pitch, -yaw, -roll, strict=True)
    ]
    return "\n".join([HEADER, *rows, ""])
