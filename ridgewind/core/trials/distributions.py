"""Distributions and slopes of the statistics library, which is imported when it is first asked, so
that a start stays quick."""

from __future__ import annotations

from collections.abc import Sequence


def t_quantile(dof: float, share: float) -> float:
    """Value that a share of Student's t lies under.

    >>> round(t_quantile(13, 0.95), 3)
    1.771
    """
    from scipy.special import stdtrit

    return float(stdtrit(dof, share))


def t_chance(dof: float, value: float) -> float:
    """Share of Student's t that lies under a value.

    >>> t_chance(5, 0.0)
    0.5
    """
    from scipy.special import stdtr

    return float(stdtr(dof, value))


def middle_slope(
    x: Sequence[float], y: Sequence[float], *, chance: float
) -> tuple[float, float, float]:
    """The middle of the slopes of all pairs, and the bounds between which it lies with a chance.

    Source: Theil 1950, Sen 1968.

    >>> middle_slope([0, 1, 2, 3], [0, 2, 4, 6], chance=0.9)
    (2.0, 2.0, 2.0)
    """
    from scipy.stats import theilslopes

    found = theilslopes(y, x, alpha=chance)
    return float(found.slope), float(found.low_slope), float(found.high_slope)
