"""The path as CSV text, the form in which it travels."""

from __future__ import annotations

import math

from ridgewind.core.motion.path import Motion

HEADER = "t_s,pan_pct,tilt_pct,roll_deg,zoom_pct,trust"


def to_csv(motion: Motion) -> str:
    """A row a frame under HEADER; empty cells where a frame could not be measured."""
    columns = (motion.pan_pct, motion.tilt_pct, motion.roll_deg, motion.zoom_pct)
    rows = [HEADER]
    for index, t_s in enumerate(motion.t_s):
        cells = ("" if math.isnan(column[index]) else f"{column[index]:.5f}" for column in columns)
        rows.append(",".join([f"{t_s:.6f}", *cells, f"{motion.trust[index]:.3f}"]))
    return "\n".join(rows) + "\n"
