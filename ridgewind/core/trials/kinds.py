"""Of which kinds of shake a hand's turning is made: the bands, with breath told apart.

Breath lifts and lowers the camera and does not turn it aside: at its pace, what tilt has over pan
is breath's where tilt has plainly more, by the same rule as a single take's causes. It is taken out
of drift and sway, between which that pace lies.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.bands import EDGES_HZ, NAMES
from ridgewind.core.shake.causes import BREATH_HZ, BREATH_OVER_PAN
from ridgewind.core.shake.gust import weight
from ridgewind.core.trials.own_hand import Hand

Floats = NDArray[np.float64]

BREATH = "breath"
KINDS: tuple[str, ...] = (NAMES[0], BREATH, *NAMES[1:])
"""From slow to fast."""


def kind_shares(hand: Hand) -> dict[str, float]:
    """Of what is seen of a hand's pan and tilt, the share of each of KINDS, 0 to 1; all 0 where it
    is exactly still."""
    eye = weight(hand.hz) ** 2
    pan, tilt = (hand.mean_square[:, :, part].mean(axis=0) * eye for part in (0, 1))
    breath = _breath(hand.hz, pan, tilt)
    left = pan + tilt - breath
    whole = float((pan + tilt).sum()) or 1.0
    shares = dict.fromkeys(KINDS, 0.0)
    shares[BREATH] = float(breath.sum()) / whole
    for name, (low, high) in EDGES_HZ.items():
        shares[name] = float(left[(hand.hz >= low) & (hand.hz < high)].sum()) / whole
    return shares


def _breath(hz: Floats, pan: Floats, tilt: Floats) -> Floats:
    """The part of the power (bins,) that is breath's."""
    inside = (hz >= BREATH_HZ[0]) & (hz <= BREATH_HZ[1])
    if float(tilt[inside].sum()) < BREATH_OVER_PAN * float(pan[inside].sum()):
        return np.zeros_like(pan)
    out: Floats = np.where(inside, np.maximum(0.0, tilt - pan), 0.0)
    return out
