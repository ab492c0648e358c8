"""How long a clip's sensor takes to read a frame, and who says so."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ridgewind.core.clip import Clip
from ridgewind.core.judge.polish import USUAL_READOUT_S
from ridgewind.core.motion.path import Motion

Source = Literal["setup", "film", "assumed"]


@dataclass(frozen=True)
class KnownReadout:
    """seconds: from the first line to the last, as it was filmed. source: who says so."""

    seconds: float
    source: Source


def readout_of(clip: Clip, motion: Motion) -> KnownReadout:
    """As the set-up says, else as the film shows, else the usual one."""
    if clip.readout_s is not None:
        return KnownReadout(clip.readout_s, "setup")
    if motion.readout is not None:
        return KnownReadout(motion.readout.seconds / clip.stretch, "film")
    return KnownReadout(USUAL_READOUT_S, "assumed")
