"""How far a file's compression lets fine shake be believed."""

from __future__ import annotations

import numpy as np

ENOUGH_BITS_PER_PIXEL = 0.02
"""Bits that a pixel needs at 30 frames a second."""

LEAST_COMPRESSION_TRUST = 0.55
"""Trust under one half would leave every frame out; the warning says what it means."""


def compression_trust(bits_per_pixel: float, *, fps: float) -> float:
    """How far the encoding lets fine shake be believed, 0 to 1, as a factor of trust.

    An encoder that is starved of bits repeats blocks where they moved by a fraction of a pixel, so
    that the file itself shakes less than the camera did. On made clips gust was read within 0.3
    of the truth from about 0.02 bits a pixel at 30 frames a second on, and 1.2 too low at 0.006;
    faster films need fewer for each picture, about as one over the root of their rate.
    """
    enough = ENOUGH_BITS_PER_PIXEL * (30.0 / fps) ** 0.5
    return float(np.clip((bits_per_pixel / enough) ** 0.5, LEAST_COMPRESSION_TRUST, 1.0))
