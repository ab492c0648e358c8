"""Which frames of a film are shown: at full speed an editor leaves some out of a fast film.

A film of F frames a second that is delivered at D and plays at full speed shows, for each of its D
frames, the latest frame that was filmed by then. Where F is no multiple of D the steps between
them are uneven, and what moves stutters; that is what the viewer sees, so that is what is read.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import require_positive
from ridgewind.core.motion.path import typical_interval

Floats = NDArray[np.float64]

LEAST_DROPPED = 1.5
"""Frames filmed for each one delivered from which a film is read at its delivery (chosen here: 30
delivered at 24 or 25 is left as filmed, because whoever cares delivers it at 30)."""

WHOLE = 0.02
"""Distance from a whole number within which a step is one: 59.94 delivered at 30."""

NOT_YET = 0.01
"""Of an interval, by which a frame may be late and be shown: timestamps are rounded."""


def delivered_step(fps: float, delivery_fps: float) -> float:
    """Frames filmed for each one that is shown at full speed, 1 where all are shown.

    >>> [delivered_step(60, 24), delivered_step(59.94, 30), delivered_step(30, 24)]
    [2.5, 2.0, 1.0]
    """
    require_positive("fps", fps)
    require_positive("delivery_fps", delivery_fps)
    step = fps / delivery_fps
    if step < LEAST_DROPPED:
        return 1.0
    whole = round(step)
    return float(whole) if abs(step - whole) <= WHOLE * whole else step


def stutter_words(fps: float, delivery_fps: float) -> str:
    """What a delivery at full speed does to moves that were filmed at another rate; "" where every
    frame, or evenly each second, third and so on, is shown.

    >>> stutter_words(60, 30), stutter_words(29.97, 30)
    ('', '')
    >>> stutter_words(30, 24)
    '30 frames a second shown at 24 leave some out unevenly, so moves stutter.'
    """
    require_positive("fps", fps)
    require_positive("delivery_fps", delivery_fps)
    step = fps / delivery_fps
    if abs(step - max(1.0, round(step))) <= WHOLE * step:
        return ""
    how = "leave some out unevenly" if step > 1.0 else "show some twice"
    return f"{fps:.3g} frames a second shown at {delivery_fps:.3g} {how}, so moves stutter."


def shown_frames(t_s: Floats, step: float) -> tuple[NDArray[np.intp], Floats]:
    """Which frames (m,) of a film are shown when each stands for `step` of them, and when (m,).

    t_s: (n,). Whole steps show every such frame at its own time; others the latest one at even
    times.
    """
    require_positive("step", step)
    if step == int(step) or len(t_s) < 2:
        index = np.arange(0, len(t_s), int(step) or 1)
        return index, t_s[index]
    interval = typical_interval(t_s)
    count = int((t_s[-1] - t_s[0]) / (step * interval) + NOT_YET) + 1
    at_s = t_s[0] + step * interval * np.arange(count)
    index = np.searchsorted(t_s, at_s + NOT_YET * interval, side="right") - 1
    return index, at_s
