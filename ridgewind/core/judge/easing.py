"""How a move made at the desk begins and ends."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


def progress(t_s: Floats, *, start_s: float, end_s: float, ease_s: float) -> Floats:
    """(n,) share of the way that is gone at t_s (n,), 0 at start_s to 1 at end_s.

    Speed is even but for the first and last ease_s, at most a third of it all, where it rises and
    falls along half a cosine.

    >>> progress(np.array([0.0, 5.0, 10.0]), start_s=0, end_s=10, ease_s=1).tolist()
    [0.0, 0.5, 1.0]
    """
    length_s = max(end_s - start_s, 1e-3)
    ease = min(ease_s, length_s / 3.0)
    since = np.clip(t_s - start_s, 0.0, length_s)
    # The integral of the speed, in three pieces.
    top = length_s - ease

    def risen(s: Floats) -> Floats:
        out: Floats = (s - ease / np.pi * np.sin(np.pi * s / ease)) / 2.0
        return out

    way = np.where(
        since < ease,
        risen(np.minimum(since, ease)),
        np.where(
            since > top,
            top - risen(np.minimum(length_s - since, ease)),
            since - ease / 2.0,
        ),
    )
    out: Floats = way / top
    return out
