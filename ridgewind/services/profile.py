"""A shooter's profile: how fast each technique turns and by which kinds of shake, how long a lens
it bears, and the drills that would gain most."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ridgewind.core.brief import Brief
from ridgewind.core.practice.drill import Drill, HoldTechnique
from ridgewind.core.shake.gust import screen_offset
from ridgewind.core.trials.distributions import t_quantile
from ridgewind.core.trials.kinds import BREATH, KINDS, kind_shares
from ridgewind.core.trials.lens_limit import LEAN, LensLimit
from ridgewind.services import limits, own_hand, progress
from ridgewind.store import drills, findings
from ridgewind.store.database import Connection
from ridgewind.store.findings import FiledTake

MOST_GAINS = 3
CHANCE = 0.9
"""That an interval holds the mean (definition, as of trials)."""


@dataclass(frozen=True)
class ProfileLine(HoldTechnique):
    """deg_s: its mean body speed, between low and high. shares: of what is seen of it, in the order
    of KINDS. longest_mm: that it bears. hint: of too few takes to go by."""

    takes: int
    deg_s: float
    low: float
    high: float
    shares: tuple[float, ...]
    longest_mm: float
    hint: bool


@dataclass(frozen=True)
class Gain:
    """over: gust that the drill is over its mark; None where it was never filmed and is named for
    the kind of shake that is strongest."""

    drill: Drill
    over: float | None
    kind: str


@dataclass(frozen=True)
class Profile:
    """strongest: of KINDS, what shows most over all techniques; "" where nothing is known."""

    target: float
    lines: tuple[ProfileLine, ...]
    strongest: str
    gains: tuple[Gain, ...]


def profile_of(db: Connection, brief: Brief) -> Profile:
    """The profile of all filed takes that count, the steadiest technique first."""
    filed = findings.filed_takes(db)
    limit_of = limits.lens_limits(filed, drills.library(db, archived=True))
    target = brief.target - screen_offset(brief.screen_deg)
    lines = []
    for one in own_hand.hands(db, filed):
        lens = limit_of.get((one.drill.key, one.variation))
        if lens is None:  # all its takes are exactly still
            continue
        low, mean, high = _ends(lens)
        lines.append(
            ProfileLine(
                one.drill, one.variation, takes=lens.takes, deg_s=mean, low=low, high=high,
                shares=tuple(kind_shares(one.hand).values()),
                longest_mm=lens.longest_mm(target=target), hint=lens.takes < limits.LEAST_TAKES,
            )
        )  # fmt: skip
    lines.sort(key=lambda one: one.deg_s)
    strongest = _strongest(lines)
    return Profile(target, tuple(lines), strongest, _gains(db, filed, strongest))


def _ends(lens: LensLimit) -> tuple[float, float, float]:
    """The mean body speed and its interval, degrees a second."""
    half = t_quantile(lens.dof, 0.5 + CHANCE / 2.0) * lens.spread / math.sqrt(lens.takes + LEAN)
    return 2.0 ** (lens.mean - half), 2.0**lens.mean, 2.0 ** (lens.mean + half)


def _strongest(lines: list[ProfileLine]) -> str:
    """By the mean of the techniques' shares, so that no technique counts twice for being filmed
    more often."""
    if not lines:
        return ""
    means = np.array([one.shares for one in lines]).mean(axis=0)
    return KINDS[int(means.argmax())]


def _gains(db: Connection, filed: list[FiledTake], strongest: str) -> tuple[Gain, ...]:
    """Those that are farthest over their marks; then, of those never filmed, what works on the
    strongest kind of shake."""
    library = drills.library(db)
    season = progress.season_of(db, None, filed)
    filmed = {one.drill.key for one in season.drills}
    over = [Gain(library[one.drill_key], one.over, "") for one in season.work
            if one.drill_key in library]  # fmt: skip
    fresh = [
        Gain(drill, None, strongest)
        for drill in library.values()
        if _works_on(drill, strongest) and drill.key not in filmed and not drill.needs
    ]
    return tuple((over + fresh)[:MOST_GAINS])


def _works_on(drill: Drill, kind: str) -> bool:
    return drill.tempo == BREATH if kind == BREATH else drill.measures == kind
