"""Takes side by side: of a session, of a drill, or any that were chosen."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge.assessment import Assessment
from ridgewind.core.judge.lee import find_lee
from ridgewind.core.practice.drill import Drill
from ridgewind.core.shake.trace import Trace, trace
from ridgewind.core.trials.compare import Best, Candidate, best_of, missing_words
from ridgewind.services import assessing
from ridgewind.services.assessing import Judged
from ridgewind.store import drills, sessions, takes
from ridgewind.store.database import Connection

MOST_TAKES = 40
"""Takes that are compared at once: more cannot be looked at."""

MOST_NAMED = 1000
NUMBER = re.compile(r"[0-9]{1,15}")

TRACE_POINTS = 360
"""Points of a small trace: about its pixels across."""


@dataclass(frozen=True)
class Side:
    """One take of a comparison. variation: how it was done, "" where it is filed nowhere.
    session: that it was filmed in. candidate, trace: None while it has not been measured; start_s:
    of the film's first frame, s in the file. move_s: when its move begins, s of the browser copy.
    top_band: that holds the largest share of its shake."""

    judged: Judged
    variation: str
    session: str
    candidate: Candidate | None = None
    trace: Trace | None = None
    start_s: float = 0.0
    move_s: float | None = None
    top_band: str | None = None


@dataclass(frozen=True)
class Group:
    """Takes of one drill, or those that are filed nowhere. missing: how many more are wanted,
    beyond those kept and those still to be settled."""

    title: str
    drill: Drill | None
    sides: tuple[Side, ...]
    best: Best | None
    missing: int

    @property
    def missing_words(self) -> str:
        return missing_words(self.missing)


@dataclass(frozen=True)
class _Filed:
    drill_key: str
    variation_key: str
    session: str


def of_session(db: Connection, session_id: int) -> tuple[str, tuple[Group, ...]]:
    """The takes of a session by drill, in its order. Raises NotFoundError."""
    session = sessions.by_id(db, session_id)
    filed = {
        row.take_id: _Filed(row.drill_key, row.variation_key, session.name)
        for row in session.takes
        if row.take_id is not None
    }
    wanted: dict[str, int] = {}
    for row in session.takes:
        if row.state != "skipped" or row.take_id is not None:  # else nobody wants it any more
            wanted[row.drill_key] = wanted.get(row.drill_key, 0) + 1
    return session.name, _groups(db, list(filed), filed, wanted)


def of_drill(db: Connection, key: str) -> tuple[str, tuple[Group, ...]]:
    """The newest takes of a drill, of all sessions. Raises NotFoundError."""
    drill = drills.by_key(db, key).drill
    filed = {
        row.take_id: _Filed(key, row.variation_key, row.session_name)
        for row in sessions.filed_under(db, key, limit=MOST_TAKES)
    }
    return drill.name, _groups(db, list(filed), filed, {key: drill.takes})


def of_takes(db: Connection, ids: list[int]) -> tuple[str, tuple[Group, ...]]:
    """Chosen takes, all as one group: the shooter says that they belong together."""
    sides = [_side(db, take_id, None, {}) for take_id in ids[:MOST_TAKES]]
    return "Chosen takes", (_group("Chosen takes", None, sides, 0),) if sides else ()


def _groups(
    db: Connection, ids: list[int], filed: dict[int, _Filed], wanted: dict[str, int]
) -> tuple[Group, ...]:
    library = drills.library(db, archived=True)
    by_drill: dict[str, list[Side]] = {key: [] for key in wanted}
    for take_id in ids[:MOST_TAKES]:
        by_drill[filed[take_id].drill_key].append(_side(db, take_id, filed[take_id], library))
    return tuple(
        _group(library[key].name if key in library else key, library.get(key), sides, wanted[key])
        for key, sides in by_drill.items()
    )


def _group(title: str, drill: Drill | None, sides: list[Side], wanted: int) -> Group:
    counted = [side for side in sides if side.judged.take.choice != "reject"]
    open_or_kept = sum(side.judged.take.choice != "retake" for side in counted)
    wanted = wanted or len(counted)
    candidates = [side.candidate for side in counted if side.candidate is not None]
    return Group(
        title=title,
        drill=drill,
        sides=tuple(sides),
        best=best_of(candidates),
        missing=max(0, wanted - open_or_kept),
    )


def _side(db: Connection, take_id: int, filed: _Filed | None, library: dict[str, Drill]) -> Side:
    judged = assessing.judge(db, take_id)
    variation = ""
    if filed is not None and (drill := library.get(filed.drill_key)) is not None:
        names = {one.key: one.name for one in drill.variations}
        variation = names.get(filed.variation_key, filed.variation_key)
    side = Side(judged, variation, "" if filed is None else filed.session)
    found = judged.assessment
    if found is None or judged.motion is None:
        return side
    start_s = float(judged.motion.t_s[0])
    move = None if found.move is None else found.move.move
    drawn = trace(
        found.reading,
        found.band_powers,
        screen_deg=judged.take.brief.screen_deg,
        most_points=TRACE_POINTS,
    )
    return replace(
        side,
        candidate=_candidate(judged, found),
        trace=drawn,
        start_s=start_s,
        move_s=None if move is None else move.start_s - start_s,
        top_band=assessing.top_band(found),
    )


def _candidate(judged: Judged, found: Assessment) -> Candidate:
    lee = find_lee(found.reading, judged.take.brief)
    move = None if found.move is None else found.move.move
    return Candidate(
        id=judged.take.id,
        passes=found.decision.remedy not in ("retake", None),
        gust=found.gust,
        peak=found.peak_gust,
        evenness=None if move is None else move.evenness,
        lee_s=0.0 if lee is None else lee.length_s,
    )


def take_ids(db: Connection, text: str) -> list[int]:
    """Takes named by their numbers, "3,4,9", each once; the deleted are left out. Raises
    InvalidArgumentError, and NotFoundError for one that never was."""
    named = [part.strip() for part in text.split(",")]
    if not all(NUMBER.fullmatch(part) for part in named):
        raise InvalidArgumentError("takes", text[:100], "name takes by their numbers, as in 3,4,9")
    if len(named) > MOST_NAMED:
        raise InvalidArgumentError("takes", text[:100], f"name at most {MOST_NAMED} takes")
    rows = [takes.by_id(db, number) for number in dict.fromkeys(int(part) for part in named)]
    return [row.id for row in rows if row.deleted_at is None]
