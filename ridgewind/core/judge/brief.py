"""The brief: what a clip must feel like, and where it will be seen."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.errors import InvalidArgumentError, require_positive

FEELS = {"locked": 1.5, "smooth": 4.0, "alive": 6.0, "raw": 8.0}
"""Gust that each feel allows."""

SCREENS_DEG = {"phone": 12.0, "laptop": 30.0, "cinema": 45.0}
"""Angle that a screen fills, degrees; a television counts as a laptop."""

USUAL_FEEL = "smooth"
USUAL_SCREEN = "laptop"
USUAL_DELIVERY_FPS = 24.0
USUAL_WANTED_S = 4.0
USUAL_FOCAL_EQ_MM = 26.0
"""Defaults while nothing is known: 26 mm is a typical main lens of a phone (chosen here)."""


@dataclass(frozen=True)
class Brief:
    """What is asked of a take.

    feel: a key of FEELS. screen: a key of SCREENS_DEG. delivery_fps: frames a second of the
    finished film. wanted_s: seconds wanted on screen. focal_eq_mm: equivalent focal length.
    keep_sound: sound or speech forbids slowing down. own_target: gust allowed, where the
    shooter has moved it from the feel's default.
    """

    feel: str
    screen: str
    delivery_fps: float
    wanted_s: float
    focal_eq_mm: float
    keep_sound: bool
    own_target: float | None = None

    def __post_init__(self) -> None:
        if self.feel not in FEELS:
            raise InvalidArgumentError("feel", self.feel, f"it must be one of {', '.join(FEELS)}")
        if self.screen not in SCREENS_DEG:
            rule = f"it must be one of {', '.join(SCREENS_DEG)}"
            raise InvalidArgumentError("screen", self.screen, rule)
        require_positive("delivery_fps", self.delivery_fps)
        require_positive("wanted_s", self.wanted_s)
        require_positive("focal_eq_mm", self.focal_eq_mm)
        if self.own_target is not None and not 0 <= self.own_target <= 10:
            raise InvalidArgumentError("own_target", self.own_target, "gust goes from 0 to 10")

    @property
    def target(self) -> float:
        """Gust that is allowed."""
        return FEELS[self.feel] if self.own_target is None else self.own_target

    @property
    def screen_deg(self) -> float:
        return SCREENS_DEG[self.screen]


def usual_brief() -> Brief:
    """The brief that is assumed until the shooter says otherwise."""
    return Brief(
        feel=USUAL_FEEL,
        screen=USUAL_SCREEN,
        delivery_fps=USUAL_DELIVERY_FPS,
        wanted_s=USUAL_WANTED_S,
        focal_eq_mm=USUAL_FOCAL_EQ_MM,
        keep_sound=False,
    )
