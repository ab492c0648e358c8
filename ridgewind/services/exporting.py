"""What is known of takes, a record each, for tables and other programs."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ridgewind.core.judge.assessment import Assessment
from ridgewind.core.judge.remedy import Remedy
from ridgewind.core.practice.drill import Drill
from ridgewind.core.shake.causes import Cause
from ridgewind.services import assessing
from ridgewind.store import drills, marks, sessions, takes
from ridgewind.store.database import Connection
from ridgewind.store.takes import TakeRow


@dataclass(frozen=True)
class Reading:
    """What was measured of a take, and what follows from it. verdict: with the part that it uses;
    lee: from, to and gust. Times are s from the film's first frame."""

    gust: float | None
    peak_gust: float | None
    body_deg_s: float | None
    trusted_share: float
    verdict: Remedy | None
    text: str
    part: tuple[float, float] | None
    lee: tuple[float, float, float] | None
    causes: tuple[Cause, ...]


@dataclass(frozen=True)
class TakeRecord:
    """session, drill, variation: what it is filed under. smooth: by the shooter's own eye.
    reading: None while it has not been measured."""

    take: TakeRow
    session: str | None
    drill: str | None
    variation: str | None
    smooth: bool | None
    reading: Reading | None


def records(db: Connection, take_ids: Sequence[int]) -> Iterator[TakeRecord]:
    """A record of each take, in order, worked out one by one; those that are gone are left out."""
    shelf, held = drills.library(db, archived=True), sessions.names(db)
    known = takes.existing(db, list(take_ids))
    for take_id in take_ids:
        if take_id in known:
            yield _record(db, take_id, shelf, held)


def _record(
    db: Connection, take_id: int, shelf: Mapping[str, Drill], held: Mapping[int, str]
) -> TakeRecord:
    judged = assessing.judge(db, take_id)
    take = judged.take
    drill = shelf.get(take.drill_key or "")
    variations = () if drill is None else drill.variations
    reading = None
    if judged.assessment is not None and judged.motion is not None:
        reading = _reading(judged.assessment, float(judged.motion.t_s[0]))
    return TakeRecord(
        take=take,
        session=held.get(take.session_id or 0),
        drill=take.drill_key if drill is None else drill.name,
        variation=next(
            (one.name for one in variations if one.key == take.variation_key), take.variation_key
        ),
        smooth=marks.one(db, take_id, view=marks.AS_SHOT),
        reading=reading,
    )


def _reading(found: Assessment, start_s: float) -> Reading:
    decision, lee = found.decision, found.lee
    verdict = None if decision.remedy is None else decision.of(decision.remedy)
    part = None
    if verdict is not None and verdict.start_s is not None and verdict.end_s is not None:
        part = max(0.0, verdict.start_s - start_s), verdict.end_s - start_s
    settled = found.doubt is None
    return Reading(
        gust=found.gust if settled else None,
        peak_gust=found.peak_gust if settled else None,
        body_deg_s=found.body_deg_s if settled else None,
        trusted_share=found.reading.trusted_share,
        verdict=verdict,
        text=decision.text,
        part=part,
        lee=None if lee is None else (lee.start_s - start_s, lee.end_s - start_s, lee.gust),
        causes=found.causes.causes,
    )
