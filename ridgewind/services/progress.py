"""A season: what was practised week by week, what became of each drill, what to work on next."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from statistics import median

from ridgewind.core.practice.drill import Drill
from ridgewind.core.trials.curves import Progress, progress_of
from ridgewind.core.trials.next_work import Standing, Work, next_work
from ridgewind.moments import moment_of
from ridgewind.services import trials
from ridgewind.services.figures import FIGURES, Figure
from ridgewind.store import drills, findings
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.findings import FiledTake

FULLY_TRUSTED = 1.0 - 1e-6
"""Share of trusted frames from which a take can hold a record."""

OF_THE_LAST = 12
"""Takes that "usual" is the middle of (chosen here: about three sessions)."""

LEAST_MINUTES = 1.0


@dataclass(frozen=True)
class Counted:
    """A take that counts. value: as the drill is compared. off: of its own technique's middle."""

    take: FiledTake
    moment: datetime
    value: float
    off: float


@dataclass(frozen=True)
class Week:
    """begins: its Monday. minutes: between first and last take of each session, together. values:
    of the takes of the chosen drill that count, or of all of them how far off their own technique's
    middle."""

    begins: date
    takes: int
    sessions: int
    minutes: float
    values: tuple[float, ...]
    take_ids: tuple[int, ...]


@dataclass(frozen=True)
class DrillProgress:
    """usual: the middle of its latest takes, of the variations alone where there are any. record:
    the calmest take that is fully trusted."""

    drill: Drill
    figure: Figure
    takes: int
    usual: float
    trend: Progress | None
    record: Counted | None


@dataclass(frozen=True)
class Season:
    """chosen: the drill that the weeks are of, None for all of them together. trend: of all."""

    weeks: tuple[Week, ...]
    drills: tuple[DrillProgress, ...]
    chosen: DrillProgress | None
    trend: Progress | None
    work: tuple[Work, ...]


def season_of(
    db: Connection, drill_key: str | None, everything: list[FiledTake] | None = None
) -> Season:
    """Weeks from the first to the last that was practised. everything: all filed takes, read where
    they are not given. Raises NotFoundError for a drill that was not practised."""
    library = drills.library(db, archived=True)
    known = findings.filed_takes(db) if everything is None else everything
    filed = [one for one in known if one.drill_key in library]
    by_drill: dict[str, list[Counted]] = {}
    lines: dict[str, DrillProgress] = {}
    for key, group in _by_drill(filed).items():
        figure = trials.usual_figure(group)
        if own := _counted(group, figure):
            by_drill[key] = own
            lines[key] = _line(library[key], figure, own)
    if drill_key is not None and drill_key not in lines:
        raise NotFoundError("drill that was practised", drill_key)
    counted = [one for group in by_drill.values() for one in group]
    shown = counted if drill_key is None else by_drill[drill_key]
    return Season(
        weeks=_weeks(filed, shown, own=drill_key is not None),
        drills=tuple(sorted(lines.values(), key=lambda one: (-one.takes, one.drill.name))),
        chosen=None if drill_key is None else lines[drill_key],
        trend=_trend(counted),
        # Through lenses that differ, a drill's takes have no one mark: some are meant to fail.
        work=next_work(
            [
                _standing(one, by_drill[key])
                for key, one in lines.items()
                if one.figure is not FIGURES["body"]
            ]
        ),
    )


def _by_drill(filed: Sequence[FiledTake]) -> dict[str, list[FiledTake]]:
    out: dict[str, list[FiledTake]] = defaultdict(list)
    for one in filed:
        out[one.drill_key].append(one)
    return out


def _counted(filed: Sequence[FiledTake], figure: Figure) -> list[Counted]:
    """Takes that count in a trial and have a day, in the order in which they were filmed."""
    known = [
        (one, moment_of(one.filmed_at), one.figures[figure.key])
        for one in filed
        if one.filmed_at is not None and not trials.take_of(one, figure).why_out
    ]
    of_technique: dict[str, list[float]] = defaultdict(list)
    for one, _, value in known:
        of_technique[one.variation_key].append(value)
    middles = {key: median(values) for key, values in of_technique.items()}
    found = [
        Counted(one, moment, value, value - middles[one.variation_key])
        for one, moment, value in known
    ]
    return sorted(found, key=lambda one: one.moment)


def _line(drill: Drill, figure: Figure, counted: list[Counted]) -> DrillProgress:
    trusted = [one for one in counted if (one.take.trusted_share or 0.0) >= FULLY_TRUSTED]
    return DrillProgress(
        drill=drill,
        figure=figure,
        takes=len(counted),
        usual=median(one.value for one in _latest(drill, counted)),
        trend=_trend(counted),
        record=min(trusted, key=lambda one: one.value, default=None),
    )


def _latest(drill: Drill, counted: list[Counted]) -> list[Counted]:
    """The control is meant to be worse: it tells what is usual only where it was filmed alone."""
    varied = [one for one in counted if one.take.variation_key != drill.control.key]
    return (varied or counted)[-OF_THE_LAST:]


def _trend(counted: Sequence[Counted]) -> Progress | None:
    """By how far each take is off its own technique's middle, so that no mix of techniques passes
    for progress."""
    days = [float(one.moment.date().toordinal()) for one in counted]
    return progress_of(days, [one.off for one in counted])


def _standing(one: DrillProgress, counted: list[Counted]) -> Standing:
    """As seen, whatever the drill is compared by: its mark is of what is seen."""
    latest = _latest(one.drill, counted)
    seen = median(take.take.figures[FIGURES["gust"].key] for take in latest)
    return Standing(one.drill.key, seen, one.drill.target, one.trend, len(latest))


def _weeks(filed: Sequence[FiledTake], shown: Sequence[Counted], *, own: bool) -> tuple[Week, ...]:
    practised: dict[date, dict[int, list[datetime]]] = defaultdict(lambda: defaultdict(list))
    for take in filed:
        if take.filmed_at is not None:
            moment = moment_of(take.filmed_at)
            practised[_monday(moment)][take.session_id].append(moment)
    values: dict[date, list[Counted]] = defaultdict(list)
    for one in shown:
        values[_monday(one.moment)].append(one)
    if not practised:
        return ()
    begins = min(practised)
    weeks = []
    while begins <= max(practised):
        held = practised.get(begins, {})
        weeks.append(
            Week(
                begins=begins,
                takes=sum(len(moments) for moments in held.values()),
                sessions=len(held),
                minutes=sum(_minutes(moments) for moments in held.values()),
                values=tuple(one.value if own else one.off for one in values[begins]),
                take_ids=tuple(one.take.take_id for one in values[begins]),
            )
        )
        begins += timedelta(days=7)
    return tuple(weeks)


def _monday(moment: datetime) -> date:
    return moment.date() - timedelta(days=moment.weekday())


def _minutes(moments: Sequence[datetime]) -> float:
    return LEAST_MINUTES + (max(moments) - min(moments)).total_seconds() / 60.0
