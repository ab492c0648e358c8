"""Cuts between two pieces: how well they join on motion, and what would join better."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.brief import Brief
from ridgewind.core.sequence.joins import (
    MATCHES,
    Joined,
    Rates,
    best_cut,
    joined,
    jumps,
    matching_rates,
    mismatch,
)
from ridgewind.core.sequence.timeline import Piece, beginning_at, ending_at, trims
from ridgewind.services.pieces import MeasuredTake, PieceSheet, reading_of

SLOWEST = 0.4
"""To which a side of a cut may be slowed so that motion matches (chosen here: middle rates)."""

MOST_TRIM_S = 2.0
"""By which a cut may be moved into a piece (chosen here)."""

BETTER = 0.1
"""By which a suggestion's mismatch must be less to be told (chosen here)."""


@dataclass(frozen=True)
class Better:
    """What would make a cut match better. words: in a sentence. pieces: both sides, changed."""

    words: str
    mismatch: float
    pieces: tuple[Piece, Piece]


@dataclass(frozen=True)
class CutSheet:
    """A cut between two pieces. mismatch: None where a side cannot be measured. jump: the calm side
    makes the other look worse."""

    mismatch: float | None
    joined: Joined | None
    jump: bool
    better: tuple[Better, ...]


def cut_between(
    before: PieceSheet,
    after: PieceSheet,
    here: dict[int, MeasuredTake | None],
    brief: Brief,
    *,
    suggest: bool,
) -> CutSheet:
    if before.motion is None or after.motion is None:
        return CutSheet(None, None, False, ())
    value = mismatch(before.motion.exit, after.motion.entry)
    gusts = before.motion.gust, after.motion.gust
    jump = gusts[0] is not None and gusts[1] is not None and jumps(gusts[0], gusts[1])
    better: tuple[Better, ...] = ()
    if suggest and value > MATCHES:
        better = _better(before, after, here, value, brief.delivery_fps)
    return CutSheet(value, joined(value), jump, better)


def _better(
    before: PieceSheet,
    after: PieceSheet,
    here: dict[int, MeasuredTake | None],
    value: float,
    rate_hz: float,
) -> tuple[Better, ...]:
    """Trims, speeds and a reversal that would make a cut match better, the best first."""
    assert before.motion is not None
    assert after.motion is not None
    one, other = before.piece, after.piece
    out = []
    found = _best_trim(before, after, here, rate_hz)
    if found is not None:
        out.append(found)
    rates = matching_rates(before.motion.exit, after.motion.entry, slowest=SLOWEST)
    if rates.mismatch < value:
        out.append(_at_rates(one, other, rates))
    back = mismatch(before.motion.exit, -after.motion.exit)
    turned = replace(other, backwards=not other.backwards)
    out.append(Better("Play the later one the other way round.", back, (one, turned)))
    good = [one for one in out if one.mismatch < value - BETTER]
    return tuple(sorted(good, key=lambda found: found.mismatch))


def _at_rates(one: Piece, other: Piece, rates: Rates) -> Better:
    changed = (
        replace(one, speed=round(one.speed * rates.before, 3)),
        replace(other, speed=round(other.speed * rates.after, 3)),
    )
    slowed = "the earlier" if rates.before < 1 else "the later"
    share = 100 * (changed[0].speed if rates.before < 1 else changed[1].speed)
    return Better(f"Slow {slowed} one to {share:.0f} %.", rates.mismatch, changed)


def _best_trim(
    before: PieceSheet,
    after: PieceSheet,
    here: dict[int, MeasuredTake | None],
    rate_hz: float,
) -> Better | None:
    sides: list[tuple[NDArray[np.float64], NDArray[np.float64]]] = []
    for sheet, at_end in ((before, True), (after, False)):
        known = here.get(sheet.piece.take_id or 0)
        found = None if known is None else reading_of(sheet.piece, known, rate_hz=rate_hz)
        if found is None:
            return None
        shot, first_s, aspect = found
        room_s = min(MOST_TRIM_S, 0.5 * (sheet.piece.out_s - sheet.piece.in_s))
        points = trims(
            sheet.piece, shot, first_s=first_s, aspect=aspect, at_end=at_end, most_s=room_s
        )
        if len(points[0]) == 0:
            return None
        sides.append(points)
    one, other = before.piece, after.piece
    # Where a piece runs backwards, what keeps more of it lies the other way.
    flips = one.backwards, other.backwards
    signed = [
        (-times[::-1], speeds[::-1]) if flip else (times, speeds)
        for (times, speeds), flip in zip(sides, flips, strict=True)
    ]
    cut = best_cut(signed[0][0], signed[0][1], signed[1][0], signed[1][1])
    changed = (
        ending_at(one, round(abs(cut.out_s), 3)), beginning_at(other, round(abs(cut.in_s), 3)),
    )  # fmt: skip
    lost_s = one.seconds - changed[0].seconds, other.seconds - changed[1].seconds
    words = f"Trim {lost_s[0]:.1f} s before the cut and {lost_s[1]:.1f} s after it."
    return Better(words, cut.mismatch, changed)
