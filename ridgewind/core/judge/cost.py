"""What a remedy costs, in points, so that unlike things can be put in order.

One point is what a shooter gives up without a second thought. The parts add up:

| part | points |
| --- | --- |
| seconds | share of the take that is cut away, and one for every halving of its speed |
| crop | one for every 5 % of the long side that is cropped |
| sharpness | one for every half doubling of enlargement that delivery needs, and one for every
  0.15 % of smear that stays after polishing |
| sound | a half where sound is lost that the brief did not ask to keep |
| desk | one for every five minutes of work at the desk |

each times the shooter's weight for it, 1 unless moved. Chosen here, so that with all weights at 1
the usual order comes out: keep, keep the lee, slow, polish, slow and polish. Doing the shot again
is not on this scale: it is what is left when nothing else passes.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ridgewind.core.errors import require_between

CROP_PCT_A_POINT = 5.0
DOUBLINGS_A_POINT = 0.5
BLUR_PCT_A_POINT = 0.15
DESK_MIN_A_POINT = 5.0
SOUND_POINTS = 0.5

DESK_MIN = {"cut": 1.0, "slow": 2.0, "uneven": 4.0, "polish": 12.0, "hold": 15.0}
"""Minutes at the desk that each step takes (chosen here: a person who knows their editor)."""

HEAVIEST = 5.0


@dataclass(frozen=True)
class Weights:
    """How much each part matters, 0 to 5; 1 is usual."""

    seconds: float = 1.0
    crop: float = 1.0
    sharpness: float = 1.0
    sound: float = 1.0
    desk: float = 1.0

    def __post_init__(self) -> None:
        for name in self.__dataclass_fields__:
            require_between(name, getattr(self, name), 0, HEAVIEST)


@dataclass(frozen=True)
class Price:
    """What a remedy takes. cut_share: of the take, 0 to 1. rate: of playback. crop_pct: of the
    long side. enlarge: by which the picture must be enlarged for delivery, 1 for not at all.
    blur_pct: smear that stays after polishing. sound_lost. steps: keys of DESK_MIN."""

    cut_share: float = 0.0
    rate: float = 1.0
    crop_pct: float = 0.0
    enlarge: float = 1.0
    blur_pct: float = 0.0
    sound_lost: bool = False
    steps: tuple[str, ...] = ()

    def points(self, weights: Weights) -> float:
        """The sum of its parts."""
        doublings = float(np.log2(max(self.enlarge, 1.0)))
        parts = (
            (weights.seconds, self.cut_share + abs(float(np.log2(self.rate)))),
            (weights.crop, self.crop_pct / CROP_PCT_A_POINT),
            (weights.sharpness, doublings / DOUBLINGS_A_POINT + self.blur_pct / BLUR_PCT_A_POINT),
            (weights.sound, SOUND_POINTS * self.sound_lost),
            (weights.desk, sum(DESK_MIN[step] for step in self.steps) / DESK_MIN_A_POINT),
        )
        return sum(weight * amount for weight, amount in parts)
