"""Takes of one shot side by side: which is the best, why, and when it cannot be said."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.words import time_words

GUST_TIE, PEAK_TIE = 0.3, 0.5
"""Differences that a viewer would not swear to (chosen here: a quarter of a doubling of speed is
0.3 gust)."""

EVENNESS_TIE = 0.1
LEE_TIE_S = 1.0


@dataclass(frozen=True)
class Candidate:
    """A take to be compared. passes: some part or treatment of it meets the brief short of doing it
    again. gust, peak: as shot. evenness: of its
    move, 0 to 1, None where it holds none. lee_s: length of its calm stretch."""

    id: int
    passes: bool
    gust: float | None
    peak: float | None
    evenness: float | None
    lee_s: float


@dataclass(frozen=True)
class Best:
    """ids: the best take, or those that cannot be told apart. reason: in words."""

    ids: tuple[int, ...]
    reason: str


def best_of(takes: Sequence[Candidate]) -> Best | None:
    """The best of the takes that were measured, or the tie; None where none was.

    Compared in order: gust, peak second, evenness of the move, length of the lee. The first that
    sets one apart from all the others decides; takes within a tie go on to the next.
    """
    measured = [take for take in takes if take.gust is not None]
    if not measured:
        return None
    if len(measured) == 1:
        return Best((measured[0].id,), "No other to choose from.")
    left = measured
    if any(take.passes for take in measured) and not all(take.passes for take in measured):
        left = [take for take in measured if take.passes]
        if len(left) == 1:
            return Best((left[0].id,), "The only one that can be made to pass.")
    for narrow in (_by_gust, _by_peak, _by_evenness, _by_lee):
        left, reason = narrow(left)
        if len(left) == 1:
            return Best((left[0].id,), reason)
    return Best(tuple(take.id for take in left), _tie_words(len(left)))


def missing_words(missing: int) -> str:
    """What is still wanted of a shot."""
    numbers = {1: "one", 2: "two", 3: "three", 4: "four", 5: "five", 6: "six"}
    return (
        "" if missing <= 0 else f"Planned, no film yet: {numbers.get(missing, str(missing))} more."
    )


def _narrow(
    takes: list[Candidate], values: list[float], tie: float, *, least: bool
) -> tuple[list[Candidate], float]:
    """Those within a tie of the best value, and by how much the next one is behind."""
    best = min(values) if least else max(values)
    gaps = [abs(value - best) for value in values]
    left = [take for take, gap in zip(takes, gaps, strict=True) if gap < tie]
    lead = min((gap for gap in gaps if gap >= tie), default=0.0)
    return left, lead


def _by_gust(takes: list[Candidate]) -> tuple[list[Candidate], str]:
    values = [take.gust if take.gust is not None else 10.0 for take in takes]
    left, lead = _narrow(takes, values, GUST_TIE, least=True)
    return left, f"Steadiest: gust {min(values):.1f}, {lead:.1f} less than the next."


def _by_peak(takes: list[Candidate]) -> tuple[list[Candidate], str]:
    values = [take.peak if take.peak is not None else 10.0 for take in takes]
    left, lead = _narrow(takes, values, PEAK_TIE, least=True)
    return left, f"As steady as others, but its worst second reads {lead:.1f} less."


def _by_evenness(takes: list[Candidate]) -> tuple[list[Candidate], str]:
    if any(take.evenness is None for take in takes):
        return takes, ""
    values = [take.evenness or 0.0 for take in takes]
    left, _ = _narrow(takes, values, EVENNESS_TIE, least=False)
    return left, f"As steady as others, with the evenest move ({100 * max(values):.0f} %)."


def _by_lee(takes: list[Candidate]) -> tuple[list[Candidate], str]:
    values = [take.lee_s for take in takes]
    left, _ = _narrow(takes, values, LEE_TIE_S, least=False)
    return left, f"As steady as others, with the longest lee ({time_words(max(values))})."


def _tie_words(many: int) -> str:
    return f"{'Two' if many == 2 else many} cannot be told apart: choose by what they show."
