"""The clip: what judging a film needs to know of its file and its set-up."""

from __future__ import annotations

from dataclasses import dataclass

SAME_RATE = 0.05
"""Share by which two rates may differ and be one: 59.94 and 60, or a rate that wavers."""

USUAL_SHUTTER = 0.5
"""Share of the frame interval that the shutter is taken to be open."""


@dataclass(frozen=True)
class Clip:
    """What is judged. size_px: as displayed.
    focal_eq_mm: equivalent focal length. move_expected: its drill asks for a move. shutter_share:
    of the frame interval that the shutter was open. capture_fps: frames a second at which it was
    filmed, where that is not how it plays. readout_s: in which its sensor reads a frame, where the
    set-up says so."""

    fps: float
    duration_s: float
    has_sound: bool
    size_px: tuple[int, int]
    focal_eq_mm: float
    move_expected: bool = False
    capture_fps: float | None = None
    shutter_share: float = USUAL_SHUTTER
    readout_s: float | None = None

    @property
    def stretch(self) -> float:
        """How many times slower the film plays than it was filmed."""
        return stretch_of(self.fps, self.capture_fps)

    @property
    def upright(self) -> bool:
        return self.size_px[1] > self.size_px[0]


def stretch_of(fps: float, capture_fps: float | None) -> float:
    """How many times slower a film plays than it was filmed; 1 where the two rates are one."""
    if capture_fps is None or abs(capture_fps - fps) <= SAME_RATE * fps:
        return 1.0
    return capture_fps / fps
