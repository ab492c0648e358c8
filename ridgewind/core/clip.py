"""The clip: what judging a film needs to know of its file and its set-up."""

from __future__ import annotations

from dataclasses import dataclass

USUAL_SHUTTER = 0.5
"""Share of the frame interval that the shutter is taken to be open."""


@dataclass(frozen=True)
class Clip:
    """What is judged. size_px: as displayed.
    focal_eq_mm: equivalent focal length. move_expected: its drill asks for a move. shutter_share:
    of the frame interval that the shutter was open."""

    fps: float
    duration_s: float
    has_sound: bool
    size_px: tuple[int, int]
    focal_eq_mm: float
    move_expected: bool = False
    shutter_share: float = USUAL_SHUTTER

    @property
    def upright(self) -> bool:
        return self.size_px[1] > self.size_px[0]
