"""How many takes each technique bears before it tires, and how long a rest it wants, by brief."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.brief import Brief
from ridgewind.core.practice.drill import Drill, Technique
from ridgewind.core.shake.gust import screen_offset
from ridgewind.core.trials.effects import Seen, effects_of
from ridgewind.core.trials.endurance import Line, lines_of
from ridgewind.services import noted, trials
from ridgewind.services.figures import FIGURES
from ridgewind.services.limits import LEAST_TAKES
from ridgewind.store import drills, findings
from ridgewind.store.database import Connection
from ridgewind.store.findings import FiledTake

GUST = FIGURES["gust"]
"""As filmed, through the lens that each take was filmed with, as longest holds are told."""

MOST_TAKES = 60
"""Of a session: a limit beyond is none (chosen here: an hour and a half at a take and a half a
minute)."""


@dataclass(frozen=True)
class Tiring:
    """line: over the take's place. until: the last take of a session at which four in five pass, 0
    where none does; None where no tiring is told, or none that matters."""

    line: Line
    until: int | None


@dataclass(frozen=True)
class Resting:
    """line: over log2 of the rest in seconds. enough_s: the shortest rest after which four takes in
    five pass; None where a longer one is not told to help, or none that was taken is enough."""

    line: Line
    enough_s: float | None


@dataclass(frozen=True)
class TechniqueEndurance(Technique):
    """takes: that count. tiring, resting: None where nothing can be told of it."""

    takes: int
    tiring: Tiring | None
    resting: Resting | None

    @property
    def hint(self) -> bool:
        return self.takes < LEAST_TAKES


@dataclass(frozen=True)
class Endurance:
    """target: gust on the usual screen. rests_s: the shortest and the longest rest that was taken;
    None where none is known. rests_alike: they are too alike to say what a longer one is worth."""

    target: float
    techniques: tuple[TechniqueEndurance, ...]
    rests_s: tuple[float, float] | None
    rests_alike: bool


def endurance_of(db: Connection, brief: Brief) -> Endurance:
    """Each technique's takes before it tires and its rest, the most filmed first."""
    target = brief.target - screen_offset(brief.screen_deg)
    library = drills.library(db, archived=True)
    counted = [
        one
        for one in findings.filed_takes(db)
        if one.drill_key in library and not trials.take_of(one, GUST).why_out
    ]
    rests = noted.rests_before(counted, library)
    ends_s = (min(rests.values()), max(rests.values())) if rests else None
    alike = ends_s is not None and not noted.told_apart(ends_s)
    tiring = _lines(counted, [float(one.place) for one in counted])
    rested = [] if alike else [one for one in counted if one.take_id in rests]
    resting = _lines(rested, [math.log2(rests[one.take_id]) for one in rested])
    return Endurance(
        target, _told(counted, library, target, tiring, resting, ends_s), ends_s, alike
    )


def _lines(counted: Sequence[FiledTake], circumstance: Sequence[float]) -> dict[str, Line]:
    seen = [
        Seen(str(one.session_id), f"{one.drill_key}/{one.variation_key}", one.figures[GUST.key])
        for one in counted
    ]
    whole = effects_of(seen, {"it": circumstance}).get("it")
    return {} if whole is None else lines_of(seen, circumstance, whole=whole)


def _told(
    counted: Sequence[FiledTake],
    library: dict[str, Drill],
    target: float,
    tiring: dict[str, Line],
    resting: dict[str, Line],
    rests_s: tuple[float, float] | None,
) -> tuple[TechniqueEndurance, ...]:
    groups: dict[tuple[str, str], int] = {}
    for one in counted:
        key = (one.drill_key, one.variation_key)
        groups[key] = groups.get(key, 0) + 1
    found = []
    for (drill_key, variation), takes in groups.items():
        tires, rests = (lines.get(f"{drill_key}/{variation}") for lines in (tiring, resting))
        found.append(
            TechniqueEndurance(
                library[drill_key],
                variation,
                takes,
                None if tires is None else Tiring(tires, _until(tires, target)),
                None if rests is None or rests_s is None
                else Resting(rests, _enough_s(rests, target, rests_s)),
            )
        )  # fmt: skip
    return tuple(sorted(found, key=lambda one: (-one.takes, one.key)))


def _until(line: Line, target: float) -> int | None:
    place = line.crossing(target=target)
    if place is None or line.slope.value < 0.0 or place >= MOST_TAKES:
        return None
    return max(0, math.floor(place))


def _enough_s(line: Line, target: float, rests_s: tuple[float, float]) -> float | None:
    shortest_s, longest_s = rests_s
    where = line.crossing(target=target)
    if where is None or line.slope.value > 0.0 or where > math.log2(longest_s):
        return None
    return max(shortest_s, math.exp2(where))
