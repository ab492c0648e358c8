"""The first look at a shooter's hand: six drills, two takes of each, twelve minutes."""

from __future__ import annotations

from collections.abc import Mapping

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.practice.drill import Drill
from ridgewind.core.practice.session import SHORTEST_WARM_UP_S, Block, Session

DRILLS: tuple[tuple[str, str], ...] = (
    ("hands", "two"),
    ("elbows", "in"),
    ("breath", "out"),
    ("contacts", "hip"),
    ("seated", "knees"),
    ("walk-camera", "off"),
)
"""A drill and its variation beside the plain control; they need nothing but a camera, and tell
tremor, breath, sway and step apart (chosen here)."""

TAKE_S, REST_S = 8.0, 16.0
"""Long enough for a slow sway, short enough for twelve takes in MINUTES with all around them."""

MINUTES = 12.0


def build_assessment(library: Mapping[str, Drill]) -> Session:
    """The session. The control goes first in every other drill, so that tiring favours no side.
    Raises InvalidArgumentError where the library lacks one of its drills."""
    blocks = []
    for at, (key, variation) in enumerate(DRILLS):
        drill = library.get(key)
        if drill is None or variation not in {one.key for one in drill.variations}:
            rule = "it belongs to the first look; bring it back from the archive"
            raise InvalidArgumentError("drill", key, rule)
        order = (drill.control.key, variation) if at % 2 == 0 else (variation, drill.control.key)
        blocks.append(Block(key, order, TAKE_S, REST_S, ("first look at your hand",)))
    total_s = SHORTEST_WARM_UP_S + sum(one.seconds for one in blocks)
    cautions = dict.fromkeys(one for key, _ in DRILLS for one in library[key].cautions)
    left_s = 60.0 * MINUTES - total_s
    return Session(SHORTEST_WARM_UP_S, tuple(blocks), total_s, left_s, tuple(cautions))
