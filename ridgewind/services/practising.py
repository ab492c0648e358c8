"""Practice over time: what is due, sessions planned from it, the calendar, and slates."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit.bench import strap_plan
from ridgewind.core.practice.checks import Check, checks_before
from ridgewind.core.practice.drill import Drill
from ridgewind.core.practice.due import Due, Result, days_ahead, due
from ridgewind.core.practice.session import Ask, Session, build_session
from ridgewind.core.practice.slate import slate_text
from ridgewind.core.units import told_length
from ridgewind.moments import moment_of
from ridgewind.services import codes
from ridgewind.store import database, drills, kit, sessions
from ridgewind.store.database import Connection
from ridgewind.store.drills import DrillRow
from ridgewind.store.errors import NotFoundError

WEAKEST_OF = 20
"""Newest failed takes that are asked for the weakest band."""

HORIZON_DAYS = 42
START_OF_DAY = time(9, 0)


@dataclass(frozen=True)
class DrillDue:
    """A drill's place in time. ahead: ISO dates on which it falls due, if it passes."""

    key: str
    due: Due
    due_on: str
    last_on: str | None
    ahead: tuple[str, ...]
    passes: int
    takes: int


@dataclass(frozen=True)
class ShelvedDrill:
    """A drill of the library, and its place in time where it was ever filmed."""

    row: DrillRow
    due: DrillDue | None


def today() -> int:
    """Today as a whole number of days, in this computer's own time."""
    return date.today().toordinal()


def results_by_variation(db: Connection) -> dict[tuple[str, str], list[Result]]:
    """Results of every drill and variation that was filmed. A take passed where its measured
    gust is within the drill's mark; while it is not measured, how it felt counts. The plain control
    is meant to be worse: it passes or fails nothing."""
    library = drills.library(db, archived=True)
    found: dict[tuple[str, str], list[Result]] = defaultdict(list)
    for row in sessions.results(db):
        drill = library.get(row.drill_key)
        if drill is None or row.variation_key == drill.control.key:
            continue
        if row.gust is not None:
            passed = row.gust <= drill.target
        elif row.felt is not None:
            passed = row.felt == "good"
        else:
            continue
        day = min(_local_day(row.filmed_at), today())
        found[row.drill_key, row.variation_key].append(Result(day, passed))
    return found


def plan(db: Connection, ask: Ask) -> Session:
    """A session from the library, what is due, and what the takes show as weakest."""
    now = today()
    known = {key: due(rows, today=now) for key, rows in results_by_variation(db).items()}
    return build_session(
        drills.library(db),
        ask,
        due=known,
        weakest=sessions.weakest_band(db, limit=WEAKEST_OF),
        today=now,
    )


def keep_session(
    db: Connection, *, name: str, ask: Ask, plan: Session, setup_id: int | None
) -> int:
    """Keep a planned session; returns its id. setup_id: the last used one where not given.

    Raises InvalidArgumentError for a plan that holds no drill, or an unknown one.
    """
    library = drills.library(db, archived=True)
    for block in plan.blocks:
        known = library.get(block.drill_key)
        if known is None or not set(block.order) <= {one.key for one in known.variations}:
            raise InvalidArgumentError("plan", block.drill_key, "it names an unknown drill")
    if not plan.blocks:
        raise InvalidArgumentError("plan", 0, "it holds no drill; give it more minutes")
    with database.atomic(db):
        return sessions.add(
            db, name=name, ask=ask, plan=plan, setup_id=setup_id or kit.usual_setup_id(db)
        )


def shelf(db: Connection) -> tuple[list[ShelvedDrill], str | None]:
    """All drills, own ones first, and the band that the takes show as weakest."""
    due_by_key = {one.key: one for one in all_due(db)}
    rows = [ShelvedDrill(row, due_by_key.get(row.drill.key)) for row in drills.all_drills(db)]
    return rows, sessions.weakest_band(db, limit=WEAKEST_OF)


def all_due(db: Connection) -> list[DrillDue]:
    """Every drill that was practised, the most overdue first."""
    now = today()
    by_drill: dict[str, list[Result]] = defaultdict(list)
    for (drill_key, _), rows in results_by_variation(db).items():
        by_drill[drill_key] += rows
    found = []
    for key, rows in by_drill.items():
        one = due(rows, today=now)
        found.append(
            DrillDue(
                key=key,
                due=one,
                due_on=iso(one.due_day),
                last_on=None if one.last_day is None else iso(one.last_day),
                ahead=tuple(iso(d) for d in days_ahead(rows, today=now, horizon=HORIZON_DAYS)),
                passes=sum(row.passed for row in rows),
                takes=len(rows),
            )
        )
    return sorted(found, key=lambda one: -one.due.overdue)


def calendar(db: Connection) -> bytes:
    """The weeks ahead as iCalendar: an entry a day with what is due on it."""
    import icalendar  # noqa: PLC0415 - takes a fiftieth of a start

    library = drills.library(db, archived=True)
    by_day: dict[str, list[str]] = defaultdict(list)
    for one in all_due(db):
        for day in one.ahead:
            by_day[day].append(library[one.key].name)
    out = icalendar.Calendar()
    out.add("prodid", "-//Ridgewind//Practice//EN")
    out.add("version", "2.0")
    stamp = datetime.now(UTC)
    for day, names in sorted(by_day.items()):
        begin = datetime.combine(date.fromisoformat(day), START_OF_DAY)
        event = icalendar.Event()
        event.add("uid", f"{day}@practice.ridgewind")
        event.add("dtstamp", stamp)
        event.add("dtstart", begin)
        event.add("dtend", begin + timedelta(minutes=30))
        event.add("summary", f"Practice: {', '.join(names)}"[:200])
        event.add("description", "\n".join(names))
        out.add_component(event)
    data: bytes = out.to_ical()
    return data


def checks(db: Connection, setup_id: int, drill: Drill) -> tuple[Check, ...]:
    """What to look at before rolling with a set-up."""
    setup = kit.setup_by_id(db, setup_id)
    parts = kit.parts_of(db, setup.ask)
    mark = strap_plan(parts, setup.ask.bench.strap).mark_mm if parts.strapped else None
    return checks_before(
        drill,
        parts.camera,
        parts.lens,
        parts.optics,
        [support for _, _, support in parts.supports],
        strap_mark=None if mark is None else told_length(mark),
    )


def slate_svg(db: Connection, session_id: int, position: int) -> bytes:
    """The code of a take as a drawing that fills any screen."""
    session = sessions.by_id(db, session_id)
    if not 0 <= position < len(session.takes):
        raise NotFoundError("take of this session", position)
    return codes.svg_of(slate_text(session_id, position), error="h")


def iso(day: int) -> str:
    return date.fromordinal(day).isoformat()


def _local_day(moment: str) -> int:
    """The day of an ISO moment, in this computer's own time."""
    return moment_of(moment).date().toordinal()
