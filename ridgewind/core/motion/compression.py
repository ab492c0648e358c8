"""How far a file's compression lets fine shake be believed."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.path import TRUSTED

Floats = NDArray[np.float64]

ENOUGH_BITS_PER_PIXEL = 0.02
"""Bits that a pixel needs at 30 frames a second."""

LEAST_COMPRESSION_TRUST = 0.55
"""Even a starved film shows how it moves; the warning says what such a figure is worth."""


def compression_trust(bits_per_pixel: float, *, fps: float) -> float:
    """How far the encoding lets fine shake be believed, 0 to 1, as a factor of trust.

    An encoder that is starved of bits repeats blocks where they moved by a fraction of a pixel, so
    that the file itself shakes less than the camera did. On made clips gust was read within 0.3
    of the truth from about 0.02 bits a pixel at 30 frames a second on, and 1.2 too low at 0.006;
    faster films need fewer for each picture, about as one over the root of their rate.
    """
    enough = ENOUGH_BITS_PER_PIXEL * (30.0 / fps) ** 0.5
    return float(np.clip((bits_per_pixel / enough) ** 0.5, LEAST_COMPRESSION_TRUST, 1.0))


def with_compression_told(trust: Floats, believed: float) -> Floats:
    """Trust (n,) lowered by the factor that `compression_trust` gives.

    A frame that counted still counts: how a film was written may make its figure doubtful, but
    never leaves a measurable shot without one frame, whatever else lowered its trust before.
    """
    lowered = trust * believed
    return np.where(trust >= TRUSTED, np.maximum(lowered, TRUSTED), lowered)
