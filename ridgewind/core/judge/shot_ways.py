"""A wanted shot, the ways of holding that could get it, and one way to get it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.brief import Brief
from ridgewind.core.errors import InvalidArgumentError, require_positive
from ridgewind.core.shake.gust import to_speed
from ridgewind.core.trials.outlast import Lastings
from ridgewind.core.trials.own_hand import Hand, seen_speeds
from ridgewind.core.units import pct_to_deg

Remedy = Literal["keep", "slow", "polish", "slow_polish", "nearer"]

SAME_MM = 0.5


def reaches_to(low_mm: float, high_mm: float, focal_eq_mm: float) -> bool:
    """Whether a lens that goes from one focal length to another reaches a third, nearly."""
    return low_mm - SAME_MM <= focal_eq_mm <= high_mm + SAME_MM


@dataclass(frozen=True)
class WayOfHolding:
    """key: of the technique. hand: of its takes, None where it was never filmed; then typical_deg_s
    is its usual body speed. needs: how many things it takes beside a camera. lastings: until when
    each of the hand's takes lasted; None where that is not known."""

    key: str
    hand: Hand | None
    typical_deg_s: float
    needs: int
    lastings: Lastings | None = None

    def __post_init__(self) -> None:
        if self.lastings is not None and len(self.lastings.length_s) != self.takes:
            rule = f"it must be of the hand's {self.takes} takes"
            raise InvalidArgumentError("lastings", len(self.lastings.length_s), rule)

    @property
    def takes(self) -> int:
        """Of its own; 0 where it is typical."""
        return 0 if self.hand is None else len(self.hand.focal_eq_mm)

    def usual_deg_s(self, *, focal_eq_mm: float, rate: float) -> float:
        """Body speed of its mean take, as seen through a lens at a rate; a typical one is taken to
        slow down in proportion."""
        if self.hand is None:
            return self.typical_deg_s * rate
        seen = seen_speeds(self.hand, focal_eq_mm=focal_eq_mm, rate=rate)
        return pct_to_deg(float((seen**2).mean() ** 0.5), focal_eq_mm=focal_eq_mm)


@dataclass(frozen=True)
class WantedShot:
    """focal_eq_mm: through which it is seen. widths_px: long side of the picture at each frame rate
    that the camera has. aspect: short side / long side of its picture. reaches: shortest and
    longest focal length of each lens of the kit; empty where they are not known."""

    brief: Brief
    focal_eq_mm: float
    widths_px: Mapping[float, int]
    aspect: float
    reaches: tuple[tuple[float, float], ...]

    def __post_init__(self) -> None:
        require_positive("focal_eq_mm", self.focal_eq_mm)
        if not self.widths_px:
            raise InvalidArgumentError("widths_px", self.widths_px, "at least one rate is needed")

    @property
    def target_pct_s(self) -> float:
        """Speed S that the brief allows on its screen."""
        return to_speed(self.brief.target, screen_deg=self.brief.screen_deg)

    def has_lens(self, focal_eq_mm: float) -> bool:
        """Whether the kit has a lens of a focal length."""
        return self.lens_for(focal_eq_mm) is not None

    def lens_for(self, focal_eq_mm: float) -> float | None:
        """What a lens of the kit that nearly reaches a focal length is set to: that length itself
        where it is within its reach, and the end of its reach otherwise. None where the kit has no
        such lens."""
        if not self.reaches:
            return focal_eq_mm
        set_to = [min(max(focal_eq_mm, low), high) for low, high in self.reaches]
        nearest = min(set_to, key=lambda one: abs(one - focal_eq_mm))
        return nearest if abs(nearest - focal_eq_mm) <= SAME_MM else None


@dataclass(frozen=True)
class Option:
    """One way to get it. fps: to film at. rate: of playback, 1 as filmed. crop_pct: of a polish.
    distance: share of the distance to stand at, 1 where it stays. gust: as a usual take would read
    in the end, on the brief's screen. chance: that a take passes. lasts: that one which is smooth
    enough goes on for the seconds that are wanted; None where no take tells. longest_s: that any of
    its own takes is long; None where none is. left_px: long side of the picture that is left.
    blurs: its frames are smeared, which a polish leaves. takes: of its own, that this is from; 0
    for typical figures."""

    way: WayOfHolding
    remedy: Remedy
    fps: float
    rate: float
    crop_pct: float | None
    distance: float
    focal_eq_mm: float
    gust: float
    chance: float
    lasts: float | None
    longest_s: float | None
    left_px: int
    cost: float
    blurs: bool
    takes: int
