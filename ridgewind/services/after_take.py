"""What is said of a take in the rest after it: its gust against the drill's mark, how it stands to
the one before, the first cause and the one thing to change."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ridgewind.core.practice.drill import Drill
from ridgewind.core.shake.causes import Cause
from ridgewind.services import assessing, trials
from ridgewind.store import drills, jobs, sessions
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.sessions import SessionTakeRow

State = Literal["none", "measuring", "told", "failed"]

LEVEL = 0.3
"""Gust within which two takes are level (as side by side)."""


@dataclass(frozen=True)
class TakeResult:
    """state: none without a film, measuring, told, or failed. take_id: of the film. better_by: gust
    less than the take before it of the same drill, None where there is none. cause, change: the
    first cause and the one thing to change, "" where none is clear. figure, advice: what is said,
    in sentences."""

    state: State
    take_id: int | None
    gust: float | None
    target: float
    passed: bool | None
    better_by: float | None
    cause: str
    change: str
    figure: str
    advice: str


def result_of(db: Connection, session_id: int, position: int) -> TakeResult:
    """The result of one take of a session. Raises NotFoundError."""
    session = sessions.by_id(db, session_id)
    if not 0 <= position < len(session.takes):
        raise NotFoundError("take of this session", position)
    row = session.takes[position]
    target = _target(drills.library(db, archived=True).get(row.drill_key))
    if row.take_id is None:
        return _untold("none", None, target)
    judged = assessing.judge(db, row.take_id)
    job = jobs.one(db, "measure", judged.clip.id)
    if judged.assessment is None:
        if job is not None and job.state in ("queued", "running"):
            return _untold("measuring", row.take_id, target)
        what = "it was stopped" if job is None or job.error_what is None else job.error_what
        return _untold("failed", row.take_id, target, f"It could not be measured: {what}.")
    found = judged.assessment
    gust = None if found.doubt is not None else found.gust
    if gust is None:
        return _untold("failed", row.take_id, target, "It shows nothing that can be measured.")
    before = _before(session.takes, row)
    better_by = None if before is None or before.gust is None else before.gust - gust
    first = found.causes.causes[0] if found.causes.causes else None
    return TakeResult(
        state="told",
        take_id=row.take_id,
        gust=gust,
        target=target,
        passed=gust <= target,
        better_by=better_by,
        cause="" if first is None else first.name,
        change="" if first is None else first.change,
        figure=_figure_words(gust, target, better_by) + _doubt_words(found.reading.trusted_share),
        advice=_advice_words(first, passed=gust <= target),
    )


def _target(drill: Drill | None) -> float:
    return 10.0 if drill is None else drill.target


def _untold(state: State, take_id: int | None, target: float, figure: str = "") -> TakeResult:
    return TakeResult(state, take_id, None, target, None, None, "", "", figure, "")


def _before(takes: tuple[SessionTakeRow, ...], row: SessionTakeRow) -> SessionTakeRow | None:
    """The take filmed last before one, of the same drill, that has a figure."""
    earlier = [
        one
        for one in takes
        if one.position < row.position and one.drill_key == row.drill_key and one.gust is not None
    ]
    return earlier[-1] if earlier else None


def _figure_words(gust: float, target: float, better_by: float | None) -> str:
    told = f"Gust {gust:.1f}, {'within' if gust <= target else 'over'} {target:g}."
    if better_by is None:
        return told
    if abs(better_by) < LEVEL:
        return f"{told} About as the last."
    word = "Better" if better_by > 0.0 else "Rougher"
    return f"{told} {word} than the last by {abs(better_by):.1f}."


def _doubt_words(trusted_share: float) -> str:
    """That it is unsure, by the same share as keeps a take out of trials."""
    return (
        "" if trusted_share >= trials.LEAST_TRUST else f" Unsure: {trusted_share:.0%} is trusted."
    )


def _advice_words(first: Cause | None, *, passed: bool) -> str:
    """What to change, unless it passed: then the same again is what is wanted."""
    if passed:
        return "The same again."
    return "" if first is None else f"{first.name}. {first.change}"
