"""Trials: the variations of a drill compared over all sessions in which they were filmed."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, replace

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.practice.drill import Drill
from ridgewind.core.trials.trial import LEAST_A_SIDE, Filmed, Trial, compare_variations
from ridgewind.services import one_step
from ridgewind.services.figures import FIGURES, Figure
from ridgewind.store import database, drills, findings
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.findings import FiledTake

LEAST_TRUST = 0.65
"""Share of trusted frames under which a take is unsure and stays out."""

SAME_LENS = 1.05
"""Ratio of the longest to the shortest lens of a trial up to which gust is compared as seen; across
lenses it is the body's."""

MOST_ROUNDS = 8
"""Rounds of a session that a trial asks for, each with every variation once."""


@dataclass(frozen=True)
class TrialTake:
    """A filed take of a trial. value: what is compared, None where it has none. why_out: why it
    does not count, "" where it does. chosen: the shooter said so."""

    filed: FiledTake
    value: float | None
    why_out: str
    chosen: bool


@dataclass(frozen=True)
class Side:
    """A way of holding that is compared. control: the plain one, or the one that others are
    compared with."""

    key: str
    name: str
    control: bool


@dataclass(frozen=True)
class Comparison:
    """Takes in groups, with what they tell. figure: what is compared; figures: what could be.
    sides: the control first. trial: None where nothing can be compared yet; then why_not says
    why."""

    figure: Figure
    figures: tuple[Figure, ...]
    sides: tuple[Side, ...]
    takes: tuple[TrialTake, ...]
    trial: Trial | None
    why_not: str


@dataclass(frozen=True)
class DrillTrial(Comparison):
    """The variations of a drill."""

    drill: Drill

    @property
    def next_round(self) -> tuple[str, ...]:
        """Variations to film next: those that are not told well enough, beside the control; all of
        them while nothing is told."""
        keys = [one.key for one in self.drill.variations]
        if self.trial is None:
            return tuple(keys)
        told = self.trial.against_control
        wanted = [
            key
            for key in keys
            if key != self.trial.control
            and (key not in told or told[key].hint or told[key].more_takes != 0)
        ]
        return (self.trial.control, *wanted) if wanted else ()

    @property
    def rounds(self) -> int:
        """Rounds of the next session that settle it, an even number, as far as one session goes."""
        told = {} if self.trial is None else self.trial.against_control
        more = [told[key].more_takes for key in self.next_round if key in told]
        most = max((MOST_ROUNDS if one is None else one for one in more), default=LEAST_A_SIDE)
        most = max(most, 2)
        return min(MOST_ROUNDS, most + most % 2)


@dataclass(frozen=True)
class TrialLine:
    """A drill that was filmed, in the list. takes: filed ones that count."""

    drill: Drill
    takes: int
    sessions: int
    trial: Trial | None


def lines(db: Connection) -> list[TrialLine]:
    """Drills that were filmed in two ways or more, the most filmed first."""
    library = drills.library(db, archived=True)
    by_drill: dict[str, list[FiledTake]] = {}
    for take in findings.filed_takes(db):
        by_drill.setdefault(take.drill_key, []).append(take)
    out = []
    for key, filed in by_drill.items():
        drill = library.get(key)
        if drill is None or len({take.variation_key for take in filed}) < 2:
            continue
        found = _trial(drill, filed, usual_figure(filed), shuffled=False)
        counted = [one for one in found.takes if not one.why_out]
        sessions = {one.filed.session_id for one in counted}
        out.append(TrialLine(drill, len(counted), len(sessions), found.trial))
    return sorted(out, key=lambda one: (-one.takes, one.drill.name))


def of_drill(db: Connection, drill_key: str, *, by: str | None = None) -> DrillTrial:
    """The trial of a drill. by: key of a figure; None is gust. Raises NotFoundError,
    InvalidArgumentError."""
    drill = drills.library(db, archived=True).get(drill_key)
    if drill is None:
        raise NotFoundError("drill", drill_key)
    if by is not None and by not in FIGURES:
        raise InvalidArgumentError("by", by, f"it must be one of {', '.join(FIGURES)}")
    filed = findings.filed_takes(db, drill_keys=[drill_key])
    return _trial(drill, filed, FIGURES[by] if by else usual_figure(filed))


def usual_figure(filed: list[FiledTake]) -> Figure:
    """What is compared unless something else is asked for."""
    lenses = [one.focal_eq_mm for one in filed]
    alike = not lenses or max(lenses) <= SAME_LENS * min(lenses)
    return FIGURES["gust" if alike else "body"]


def let_in(db: Connection, take_id: int, counts: bool | None) -> None:
    """Let a take into trials or keep it out. Raises NotFoundError."""
    with database.atomic(db):
        findings.set_counts(db, take_id, counts)


def plan_next(db: Connection, drill_key: str, *, seed: int) -> int:
    """Keep a session of the takes that a trial wants next, in an order that favours no side;
    returns its id. Raises NotFoundError, InvalidArgumentError where nothing is left to film."""
    found = of_drill(db, drill_key)
    if not found.next_round:
        rule = "its differences are told well enough"
        raise InvalidArgumentError("drill", found.drill.name, rule)
    return one_step.keep_block(
        db, found.drill, found.next_round, rounds=found.rounds, name=f"Trial: {found.drill.name}",
        why="to settle its trial", seed=seed,
    )  # fmt: skip


def _trial(
    drill: Drill, filed: list[FiledTake], figure: Figure, *, shuffled: bool = True
) -> DrillTrial:
    sides = tuple(Side(one.key, one.name, one.control) for one in drill.variations)
    found = compare(sides, filed, figure, shuffled=shuffled)
    return DrillTrial(**vars(found), drill=drill)


def compare(
    sides: tuple[Side, ...], filed: list[FiledTake], figure: Figure, *, shuffled: bool = True
) -> Comparison:
    """Compare takes by their variation_key, one side being the control."""
    control = next(one for one in sides if one.control)
    takes = tuple(take_of(one, figure) for one in filed)
    counted = [one for one in takes if not one.why_out]
    have = Counter(key for one in filed for key in one.figures)
    trial, why_not = None, ""
    try:
        trial = compare_variations(
            [_filmed(one) for one in counted], control=control.key, shuffled=shuffled
        )
    except InvalidArgumentError:
        why_not = _why_not(control, counted)
    return Comparison(
        figure=figure,
        figures=tuple(one for one in FIGURES.values() if have[one.key] or one == figure),
        sides=tuple(sorted(sides, key=lambda one: not one.control)),
        takes=_marked(takes, trial),
        trial=trial,
        why_not=why_not,
    )


def _filmed(one: TrialTake) -> Filmed:
    assert one.value is not None
    filed = one.filed
    return Filmed(str(filed.session_id), filed.variation_key, float(filed.place), one.value)


def take_of(filed: FiledTake, figure: Figure) -> TrialTake:
    """A filed take with what is compared of it, and why it stays out where it does."""
    value = filed.figures.get(figure.key)
    why = ""
    if value is None:
        why = "not measured" if filed.trusted_share is None else f"no {figure.words.lower()}"
    elif filed.counts is False:
        why = "left out by you"
    elif filed.counts is None and filed.choice == "reject":
        why = "rejected"
    elif filed.counts is None and (filed.trusted_share or 0.0) < LEAST_TRUST:
        why = "unsure"
    return TrialTake(filed, value, why, filed.counts is not None)


def _marked(takes: tuple[TrialTake, ...], trial: Trial | None) -> tuple[TrialTake, ...]:
    """Takes with those that say nothing in this trial marked as such."""
    if trial is None:
        return takes
    counted = [index for index, one in enumerate(takes) if not one.why_out]
    alone = {counted[index] for index in trial.left_out}
    return tuple(
        replace(one, why_out="alone in its session") if index in alone else one
        for index, one in enumerate(takes)
    )


def _why_not(control: Side, counted: list[TrialTake]) -> str:
    if not any(one.filed.variation_key == control.key for one in counted):
        return f"No take of “{control.name}”, which the others are compared with, counts yet."
    return f"No session holds “{control.name}” beside another way yet."
