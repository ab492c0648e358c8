"""A session with all that its page shows: its drills, and what came of each take."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.kit.bench import usual_bench
from ridgewind.core.practice.checks import Check
from ridgewind.core.practice.drill import Drill
from ridgewind.services import practising, trials
from ridgewind.services.figures import FIGURES
from ridgewind.store import drills, findings, kit, sessions
from ridgewind.store.database import Connection
from ridgewind.store.sessions import SessionRow


@dataclass(frozen=True)
class Outcome:
    """ridge: the small one of its film, b"" while it is not measured. why_out: why its gust counts
    for nothing, as in a trial; "" where it does, and without a film."""

    ridge: bytes
    why_out: str


@dataclass(frozen=True)
class SessionSheet:
    """A session with its drills, what to look at before rolling each, the pace of a walk, steps a
    second, and what came of each of its takes."""

    session: SessionRow
    drills: dict[str, Drill]
    checks: dict[str, tuple[Check, ...]]
    cadence_hz: float
    outcomes: tuple[Outcome, ...]


def session_sheet(db: Connection, session_id: int) -> SessionSheet:
    """All of it. Raises NotFoundError."""
    session = sessions.by_id(db, session_id)
    library = drills.library(db, archived=True)
    keys = dict.fromkeys(block.drill_key for block in session.plan.blocks)
    found = {key: library[key] for key in keys if key in library}
    outcomes = _outcomes(db, session)
    if session.setup_id is None:
        return SessionSheet(session, found, {}, usual_bench().move.cadence_hz, outcomes)
    cadence_hz = kit.setup_by_id(db, session.setup_id).ask.bench.move.cadence_hz
    before = {key: practising.checks(db, session.setup_id, drill) for key, drill in found.items()}
    return SessionSheet(session, found, before, cadence_hz, outcomes)


def _outcomes(db: Connection, session: SessionRow) -> tuple[Outcome, ...]:
    ridges = sessions.ridges(db, session.id)
    why_out = {
        one.take_id: trials.take_of(one, FIGURES["gust"]).why_out
        for one in findings.filed_takes(db, session_id=session.id)
    }
    return tuple(
        Outcome(ridges.get(take.position, b""), why_out.get(take.take_id or 0, ""))
        for take in session.takes
    )
