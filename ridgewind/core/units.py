"""Conversions between pixels, percent of the long side, angles and equivalent focal length.

Every conversion is named from one unit to another and has a round-trip test.
"""

from __future__ import annotations

import math

FULL_FRAME_LONG_SIDE_MM = 36.0
"""Long side of the picture that equivalent focal lengths refer to, mm."""

ARCMIN_PER_DEG = 60.0

STANDARD_GRAVITY_M_S2 = 9.80665
"""By definition (3rd General Conference on Weights and Measures, 1901)."""

MM_PER_INCH = 25.4
"""By definition (1959)."""

UNKNOWN_FOCAL_EQ_MM = 26.0
"""Taken where nobody says: a phone's usual main lens (chosen here)."""


def px_to_pct(length_px: float, *, long_side_px: float) -> float:
    """Pixels to percent of the picture's long side.

    >>> px_to_pct(19.2, long_side_px=1920)
    1.0
    """
    return 100.0 * length_px / long_side_px


def pct_to_px(length_pct: float, *, long_side_px: float) -> float:
    """Percent of the picture's long side to pixels."""
    return length_pct * long_side_px / 100.0


def pct_to_deg(length_pct: float, *, focal_eq_mm: float) -> float:
    """Percent of the long side to degrees of camera rotation, near the picture's centre.

    One percent is 0.01 * 36 / f radians (20.63 / f degrees) for small angles.

    >>> round(pct_to_deg(1.0, focal_eq_mm=26), 3)
    0.793
    """
    return math.degrees(length_pct / 100.0 * FULL_FRAME_LONG_SIDE_MM / focal_eq_mm)


def deg_to_pct(angle_deg: float, *, focal_eq_mm: float) -> float:
    """Degrees of camera rotation, near the centre, to percent of the long side."""
    return math.radians(angle_deg) * focal_eq_mm / FULL_FRAME_LONG_SIDE_MM * 100.0


def pct_to_arcmin(length_pct: float, *, focal_eq_mm: float) -> float:
    """Percent of the long side to minutes of arc, near the picture's centre."""
    return pct_to_deg(length_pct, focal_eq_mm=focal_eq_mm) * ARCMIN_PER_DEG


def aspect_to_rho(aspect: float) -> float:
    """Root-mean-square distance of picture points from the centre, in long sides.

    `aspect` is short side / long side. Mean of x² + y² over a 1 by a rectangle is
    (1 + a²) / 12.
    """
    return math.sqrt((1.0 + aspect * aspect) / 12.0)


def zoom_pct_to_log(zoom_pct: float) -> float:
    """Growth of the picture in percent to the natural logarithm of the scale."""
    return math.log1p(zoom_pct / 100.0)


def log_to_zoom_pct(log_scale: float) -> float:
    """Natural logarithm of the scale to growth of the picture in percent."""
    return 100.0 * math.expm1(log_scale)


def told_length(length_mm: float) -> str:
    """A length of a strap or a body in a sentence, for readers of either system.

    >>> told_length(430)
    '43 cm (17 in)'
    """
    return f"{length_mm / 10:.0f} cm ({length_mm / MM_PER_INCH:.0f} in)"
