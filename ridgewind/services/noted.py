"""What the shooter noted, feeling, tiredness and rest, against what was measured."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ridgewind.core.practice.drill import Drill, HoldTechnique
from ridgewind.core.trials.effects import Seen, Tiredness, effects_of, takes_until, tiredness_of
from ridgewind.core.trials.feeling import Feeling, FeltTake, feeling_of
from ridgewind.core.trials.trial import Estimate
from ridgewind.moments import moment_of
from ridgewind.services import trials
from ridgewind.services.figures import FIGURES
from ridgewind.store import drills, findings
from ridgewind.store.database import Connection
from ridgewind.store.findings import FiledTake

BODY = FIGURES["body"]
"""What tiring is told by: takes of all techniques and lenses together."""

LEAST_RESTS = 1.5
"""How many times the shortest the longest rest must be for its worth to be told (chosen here)."""

LONGEST_REST_S = 3600.0
"""From here on it is another session, or the clock was wrong."""


@dataclass(frozen=True)
class FeltTechnique(HoldTechnique):
    """good, bad: takes by their feeling. feeling: None for too few of either."""

    good: tuple[FiledTake, ...]
    bad: tuple[FiledTake, ...]
    feeling: Feeling | None


@dataclass(frozen=True)
class Tiring:
    """a_take: gust that each further take of a session adds. takes: until it is worth stopping."""

    a_take: Estimate
    takes: float | None


@dataclass(frozen=True)
class Rest:
    """doubled: gust that twice the rest before a take adds (below nothing: it helps). usual_s: the
    middle of the rests, longest_s: the longest."""

    doubled: Estimate
    usual_s: float
    longest_s: float


@dataclass(frozen=True)
class Noted:
    """felt: takes with a feeling. rests_alike: no rest was different enough to tell its worth."""

    feeling: Feeling | None
    techniques: tuple[FeltTechnique, ...]
    felt: int
    tiredness: Tiredness | None
    tired: int
    tiring: Tiring | None
    rest: Rest | None
    rests_alike: bool


def noted(db: Connection) -> Noted:
    """Feeling, tiredness, place and rest of every filed take that counts, against its gust."""
    library = drills.library(db, archived=True)
    counted = [
        replace(one, variation_key=library[one.drill_key].hold_of(one.variation_key))
        for one in findings.filed_takes(db)
        if one.drill_key in library and not trials.take_of(one, BODY).why_out
    ]
    felt = [one for one in counted if one.felt in ("good", "bad")]
    tired = [one for one in counted if one.fatigue is not None]
    rest, alike = _rest(counted, library)
    return Noted(
        feeling=feeling_of([_felt(one) for one in felt]),
        techniques=_techniques(felt, library),
        felt=len(felt),
        tiredness=tiredness_of([_seen(one) for one in tired], [one.fatigue or 1 for one in tired]),
        tired=len(tired),
        tiring=_tiring(counted),
        rest=rest,
        rests_alike=alike,
    )


def _felt(one: FiledTake) -> FeltTake:
    return FeltTake(f"{one.drill_key} {one.variation_key}", one.felt == "good", _body(one))


def _body(one: FiledTake) -> float:
    return one.figures[BODY.key]


def _seen(one: FiledTake) -> Seen:
    return Seen(str(one.session_id), f"{one.drill_key} {one.variation_key}", _body(one))


def _techniques(felt: Sequence[FiledTake], library: dict[str, Drill]) -> tuple[FeltTechnique, ...]:
    """The most noted first."""
    groups: dict[tuple[str, str], list[FiledTake]] = defaultdict(list)
    for one in felt:
        groups[one.drill_key, one.variation_key].append(one)
    found = [
        FeltTechnique(
            library[drill_key],
            variation,
            good=tuple(one for one in group if one.felt == "good"),
            bad=tuple(one for one in group if one.felt == "bad"),
            feeling=feeling_of([_felt(one) for one in group]),
        )
        for (drill_key, variation), group in groups.items()
    ]
    return tuple(sorted(found, key=lambda one: (-len(one.good) - len(one.bad), one.key)))


def _tiring(counted: Sequence[FiledTake]) -> Tiring | None:
    places = [float(one.place) for one in counted]
    a_take = effects_of([_seen(one) for one in counted], {"place": places}).get("place")
    return None if a_take is None else Tiring(a_take, takes_until(a_take))


def _rest(counted: Sequence[FiledTake], library: dict[str, Drill]) -> tuple[Rest | None, bool]:
    """What twice the rest before a take is worth, and whether all rests were too alike to say."""
    before = rests_before(counted, library)
    told = [(one, before[one.take_id]) for one in counted if one.take_id in before]
    rests = sorted(rest for _, rest in told)
    if not rests or not told_apart((rests[0], rests[-1])):
        return None, bool(rests)
    columns = {
        "place": [float(one.place) for one, _ in told],
        "rest": [math.log2(rest) for _, rest in told],
    }
    found = effects_of([_seen(one) for one, _ in told], columns).get("rest")
    if found is None:
        return None, True
    return Rest(found, rests[len(rests) // 2], rests[-1]), False


def told_apart(ends_s: tuple[float, float]) -> bool:
    """Whether rests from the shortest to the longest differ enough to tell what one is worth."""
    return ends_s[1] >= LEAST_RESTS * ends_s[0]


def rests_before(counted: Sequence[FiledTake], library: dict[str, Drill]) -> dict[int, float]:
    """Seconds from the end of the take before to the beginning of each, by take id; those of a take
    whose time, or whose forerunner's, is not known are left out."""
    moments = {
        (one.session_id, one.place): moment_of(one.filmed_at).timestamp()
        for one in counted
        if one.filmed_at is not None
    }
    out = {}
    for one in counted:
        here, last = (one.session_id, one.place), (one.session_id, one.place - 1)
        if here in moments and last in moments:
            # The runner notes a take as it ends.
            gone = moments[here] - moments[last] - library[one.drill_key].take_s
            if 1.0 <= gone <= LONGEST_REST_S:
                out[one.take_id] = gone
    return out
