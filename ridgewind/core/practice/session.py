"""Build a session: which drills, in which order, and which variation in each take.

* Only drills whose needs are met, whose space is there, and that load no spared part.
* The most wanted first, until the minutes are filled: overdue, a goal, the weakest band, new.
* Blocks are ordered so that neighbours load different parts.
* Within a block each variation comes as often as every other, in a seeded order followed by the
  same order backwards, so that each stands at the same mean place: whatever grows or fades
  steadily (fatigue, light) favours none of them.
"""

from __future__ import annotations

import random
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ridgewind.core.errors import require_between
from ridgewind.core.practice.drill import LOADS, SPACES, Drill, Load, Space
from ridgewind.core.practice.due import Due
from ridgewind.core.practice.priority import drills_for_shot, priority_of

SHARE_OF_WARM_UP, LONGEST_WARM_UP_S, SHORTEST_WARM_UP_S = 0.1, 180.0, 60.0
SETTING_UP_S = 45.0
"""Time to set up each block (chosen here)."""

COUNT_IN_S, SLATE_S = 5.0, 3.0
LEAST_ROUNDS = 2
"""Each variation comes at least twice: once forwards, once backwards."""

LONGEST_SHOT = 200
MOST_VARIATIONS = 3
MOST_BLOCKS = 12
EASIER_FIRST, MOST_EASIER = 0.3, 8
"""Taken off for each easier drill on the way that has never been passed."""

SAME_FAMILY = 0.45
"""Taken off for each block of the same family that is in already, so that sessions vary."""

CHANCE = 0.05
"""Settles ties, by the seed."""
HEAVY = {"run": 2.0, "rise-orbit": 1.5}
"""Drills that tire more than one of their length (chosen here)."""


@dataclass(frozen=True)
class Ask:
    """minutes: in all. goals: keys of drills, or names of measures. needs: what is in the bag or
    at the place. limits: parts of the body to spare. locked: blocks to keep, by their index.
    shot: one that is wanted, in words; empty for none. focal_eq_mm: a lens to practise with, None
    for any."""

    minutes: float
    goals: tuple[str, ...]
    space: Space
    needs: tuple[str, ...]
    limits: tuple[Load, ...]
    seed: int
    locked: tuple[Locked, ...]
    shot: str = ""
    focal_eq_mm: float | None = None

    def __post_init__(self) -> None:
        require_between("minutes", self.minutes, 3, 240, "min")
        require_between("shot", len(self.shot), 0, LONGEST_SHOT, "characters")
        if self.focal_eq_mm is not None:
            require_between("focal_eq_mm", self.focal_eq_mm, 1, 3000, "mm")


@dataclass(frozen=True)
class Locked:
    """A block that stays as it is when the session is built again."""

    index: int
    block: Block


@dataclass(frozen=True)
class Block:
    """A drill within a session. order: keys of variations, a take each. reasons: why it is
    here, most important first."""

    drill_key: str
    order: tuple[str, ...]
    take_s: float
    rest_s: float
    reasons: tuple[str, ...]

    @property
    def seconds(self) -> float:
        """With setting up, slates, count-ins and rests."""
        return SETTING_UP_S + len(self.order) * take_seconds(self.take_s, self.rest_s)


@dataclass(frozen=True)
class Session:
    """warm_up_s: before the first block. left_s: of the minutes, unused. cautions: of all
    blocks, each once."""

    warm_up_s: float
    blocks: tuple[Block, ...]
    total_s: float
    left_s: float
    cautions: tuple[str, ...]


def take_seconds(take_s: float, rest_s: float) -> float:
    """One take with all around it."""
    return SLATE_S + COUNT_IN_S + take_s + rest_s


def balanced_order(keys: Sequence[str], rounds: int, rng: random.Random) -> tuple[str, ...]:
    """Every key `rounds` times (even), each at the same mean place.

    A shuffled order, then the same backwards, for as many pairs as are asked.
    """
    out: list[str] = []
    for _ in range(max(1, rounds // 2)):
        order = list(keys)
        rng.shuffle(order)
        out += order + order[::-1]
    return tuple(out)


def open_drills(library: Mapping[str, Drill], ask: Ask) -> list[Drill]:
    """Drills that place, bag and body allow."""
    return [
        drill
        for drill in library.values()
        if set(drill.needs) <= set(ask.needs)
        and SPACES.index(drill.space) <= SPACES.index(ask.space)
        and not set(drill.loads) & set(ask.limits)
    ]


def build_session(
    library: Mapping[str, Drill],
    ask: Ask,
    *,
    due: Mapping[tuple[str, str], Due],
    weakest: str | None,
    today: int,
) -> Session:
    """A session that fits the minutes; the same seed gives the same one.

    due: by drill and variation key; missing ones were never done. weakest: the measure that
    most failed takes show, or None.
    """
    rng = random.Random(ask.seed)
    budget = ask.minutes * 60.0
    warm_up = min(LONGEST_WARM_UP_S, max(SHORTEST_WARM_UP_S, SHARE_OF_WARM_UP * budget))
    locked = [
        one for one in sorted(ask.locked, key=lambda one: one.index)
        if one.block.drill_key in library
    ]  # fmt: skip
    spent = warm_up
    kept: list[Locked] = []
    for one in locked:
        if spent + one.block.seconds <= budget:
            kept.append(one)
            spent += one.block.seconds
    taken = {one.block.drill_key for one in kept}
    drills = open_drills(library, ask)
    open_keys = {drill.key for drill in drills}
    shot = drills_for_shot(ask.shot, drills)
    ranked: list[tuple[float, Drill, tuple[str, ...]]] = []
    for drill in drills:
        if drill.key not in taken:
            score, reasons = priority_of(
                drill, goals=ask.goals, shot=shot, focal_eq_mm=ask.focal_eq_mm, due=due,
                weakest=weakest, today=today,
            )  # fmt: skip
            score -= EASIER_FIRST * _easier_unpassed(drill, library, open_keys, due)
            ranked.append((score + CHANCE * rng.random(), drill, reasons))
    free: list[Block] = []
    families = [library[one.block.drill_key].family for one in kept]
    while ranked and len(free) + len(kept) < MOST_BLOCKS:
        best = max(ranked, key=lambda one: one[0] - SAME_FAMILY * families.count(one[1].family))
        ranked.remove(best)
        _, drill, reasons = best
        block = _fitting(drill, reasons, due, budget - spent, rng)
        if block is not None:
            free.append(block)
            families.append(drill.family)
            spent += block.seconds
    blocks = _placed(_spared(free, library), kept)
    cautions = dict.fromkeys(
        caution for block in blocks for caution in library[block.drill_key].cautions
    )
    return Session(warm_up, tuple(blocks), spent, budget - spent, tuple(cautions))


def _ever_passed(drill: Drill, due: Mapping[tuple[str, str], Due]) -> bool:
    known = [due.get((drill.key, one.key)) for one in drill.variations]
    return any(one is not None and one.last_passed for one in known)


def _easier_unpassed(
    drill: Drill,
    library: Mapping[str, Drill],
    open_keys: set[str],
    due: Mapping[tuple[str, str], Due],
) -> int:
    """How many easier drills lie on the way to this one that are open and never passed."""
    seen, key = {drill.key}, drill.easier
    while key is not None and key in open_keys and key not in seen and len(seen) <= MOST_EASIER:
        if _ever_passed(library[key], due):
            break
        seen.add(key)
        key = library[key].easier
    return len(seen) - 1


def _fitting(
    drill: Drill,
    reasons: tuple[str, ...],
    due: Mapping[tuple[str, str], Due],
    room_s: float,
    rng: random.Random,
) -> Block | None:
    """The largest balanced block of a drill that fits, at most its set; None where none does."""
    each = take_seconds(drill.take_s, drill.rest_s)
    most = int((room_s - SETTING_UP_S) // each)
    others = [one for one in drill.variations if not one.control]
    others.sort(key=lambda one: -_overdue(due.get((drill.key, one.key))))
    for count in range(min(MOST_VARIATIONS, len(drill.variations)), 1, -1):
        keys = [drill.control.key, *(one.key for one in others[: count - 1])]
        rounds = LEAST_ROUNDS
        if count * rounds > min(most, max(drill.takes, 2 * LEAST_ROUNDS)):
            continue
        while count * (rounds + 2) <= min(most, drill.takes):
            rounds += 2
        order = balanced_order(keys, rounds, rng)
        return Block(drill.key, order, drill.take_s, drill.rest_s, reasons)
    return None


def _overdue(due: Due | None) -> float:
    return 1.0 if due is None else due.overdue


def _spared(blocks: list[Block], library: Mapping[str, Drill]) -> list[Block]:
    """Blocks so ordered that each loads what the last one did not; the most wanted first."""
    left, out = list(blocks), []
    tired = dict.fromkeys(LOADS, 0.0)
    while left:
        best = min(
            range(len(left)),
            key=lambda k: (sum(tired[load] for load in library[left[k].drill_key].loads), k),
        )
        block = left.pop(best)
        out.append(block)
        loads = library[block.drill_key].loads
        for load in LOADS:
            tired[load] = 0.5 * tired[load] + (HEAVY.get(block.drill_key, 1.0)
                                               if load in loads else 0.0)  # fmt: skip
    return out


def _placed(free: list[Block], kept: list[Locked]) -> list[Block]:
    """Locked blocks at their places, the others around them."""
    out = list(free)
    for one in kept:
        out.insert(min(one.index, len(out)), one.block)
    return out
