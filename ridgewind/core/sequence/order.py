"""The order in which to film, apart from the order on screen: by light, place and set-up.

What the light allows comes first, since nobody can wait for it; then each place is visited as few
times as it can be, and at a place the camera is set up as seldom as it can be.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.sequence.shot import HEIGHTS, SIZES, Light, PlannedShot

HOURS: dict[Light, int] = {"morning": 0, "noon": 1, "any": 2, "inside": 2, "evening": 3, "night": 4}
"""When each light is there; what needs none fills the middle of the day."""


@dataclass(frozen=True)
class FilmingOrder:
    """positions: of the shots on screen, in the order in which to film them. walks: from place to
    place. set_ups: times that height or size is changed at a place."""

    positions: tuple[int, ...]
    walks: int
    set_ups: int


def filming_order(shots: Sequence[PlannedShot], *, here: str = "") -> FilmingOrder:
    """Order shots for filming. here: where shots without a place of their own are.

    A shot that any light allows is filmed when its place is visited for one that needs a light.
    """
    places = [shot.place.strip().lower() or here.strip().lower() for shot in shots]
    hours = [HOURS[shot.light] for shot in shots]
    visit: list[int] = []
    for place, shot, hour in zip(places, shots, hours, strict=True):
        needed = [
            when
            for other, one, when in zip(places, shots, hours, strict=True)
            if other == place and one.light not in ("any", "inside")
        ]
        bound = shot.light not in ("any", "inside")
        visit.append(hour if bound or not needed else min(needed))
    first = {place: places.index(place) for place in places}

    def key(k: int) -> tuple[int, int, int, int, str, int]:
        shot = shots[k]
        height, size = HEIGHTS.index(shot.height), SIZES.index(shot.size)
        return visit[k], first[places[k]], height, size, shot.heading or "", k

    order = sorted(range(len(shots)), key=key)
    steps = list(itertools.pairwise(order))
    walks = sum(places[a] != places[b] for a, b in steps)
    set_ups = len(shots[:1]) + sum(
        places[a] != places[b]
        or (shots[a].height, shots[a].size) != (shots[b].height, shots[b].size)
        for a, b in steps
    )
    return FilmingOrder(tuple(order), walks, set_ups)
