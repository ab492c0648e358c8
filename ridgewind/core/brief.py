"""The brief: what a clip must feel like, and where it will be seen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ridgewind.core.errors import require_between, require_choice

FEELS = {"locked": 1.5, "smooth": 4.0, "alive": 6.0, "raw": 8.0}
"""Gust that each feel allows."""

SCREENS_DEG = {"phone": 12.0, "laptop": 30.0, "cinema": 45.0}
"""Angle that a screen fills, degrees; a television counts as a laptop."""

USUAL_FEEL = "smooth"
USUAL_SCREEN = "laptop"
USUAL_DELIVERY_FPS = 24.0
USUAL_DELIVERY_PX = (1920, 1080)
USUAL_WANTED_S = 4.0
USUAL_MOST_CROP_PCT = 10.0
"""Defaults while nothing is known; 10 % is where a polish stops being light or medium."""

LONGEST_WHY = 500


LONGEST_NAME = 200


@dataclass(frozen=True)
class Likeness:
    """What an example shows beside its gust. name: of its film. shares: of its shake by band, 0 to
    1; without the bands that its frame rate cannot show. move: kind of its move, None where the
    camera was held. move_s: how long that took."""

    name: str
    shares: Mapping[str, float]
    move: str | None
    move_s: float | None

    def __post_init__(self) -> None:
        require_between("name", len(self.name), 0, LONGEST_NAME, "characters")
        for band, share in self.shares.items():
            require_between(f"share of {band}", share, 0, 1)


@dataclass(frozen=True)
class Brief:
    """What is asked of a take.

    feel: a key of FEELS. screen: a key of SCREENS_DEG. delivery_fps: frames a second of the
    finished film. delivery_width_px, delivery_height_px: its size. wanted_s: seconds wanted on
    screen. keep_sound: sound or speech forbids slowing down. own_target: gust allowed, where
    the shooter has moved it from the feel's default. most_crop_pct: of the long side that
    polish may take. why: why shake is wanted where it is, in words for the shooter alone.
    likeness: of an example that a take is to shake and move like; it passes by its gust all the
    same.
    """

    feel: str
    screen: str
    delivery_fps: float
    delivery_width_px: int
    delivery_height_px: int
    wanted_s: float
    keep_sound: bool
    own_target: float | None
    most_crop_pct: float
    why: str
    likeness: Likeness | None = None

    def __post_init__(self) -> None:
        require_choice("feel", self.feel, FEELS)
        require_choice("screen", self.screen, SCREENS_DEG)
        require_between("delivery_fps", self.delivery_fps, 1, 1000, "frames a second")
        for name in ("delivery_width_px", "delivery_height_px"):
            require_between(name, getattr(self, name), 64, 20_000, "px")
        require_between("wanted_s", self.wanted_s, 0.1, 36_000, "s")
        require_between("most_crop_pct", self.most_crop_pct, 0, 90, "%")
        if self.own_target is not None:
            require_between("own_target", self.own_target, 0, 10)
        require_between("why", len(self.why), 0, LONGEST_WHY, "characters")

    @property
    def target(self) -> float:
        """Gust that is allowed."""
        return FEELS[self.feel] if self.own_target is None else self.own_target

    @property
    def screen_deg(self) -> float:
        return SCREENS_DEG[self.screen]

    @property
    def delivery_px(self) -> tuple[int, int]:
        return self.delivery_width_px, self.delivery_height_px


def usual_brief(feel: str = USUAL_FEEL) -> Brief:
    """The brief that is assumed until the shooter says otherwise."""
    width, height = USUAL_DELIVERY_PX
    return Brief(
        feel=feel,
        screen=USUAL_SCREEN,
        delivery_fps=USUAL_DELIVERY_FPS,
        delivery_width_px=width,
        delivery_height_px=height,
        wanted_s=USUAL_WANTED_S,
        keep_sound=False,
        own_target=None,
        most_crop_pct=USUAL_MOST_CROP_PCT,
        why="",
    )
