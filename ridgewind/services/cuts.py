"""Cuts between two pieces: how well they join on motion, and what would join better."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ridgewind.core.brief import Brief
from ridgewind.core.sequence.joins import (
    MATCHES,
    Joined,
    best_cut,
    joined,
    jumps,
    matching_rates,
    mismatch,
)
from ridgewind.core.sequence.piece import Piece, at_share, beginning_at, ending_at
from ridgewind.core.sequence.seen import Look, sweep_at, trims
from ridgewind.services.pieces import MeasuredTake, PieceSheet, wants_sound

SLOWEST = 0.4
"""To which a side of a cut may be slowed so that motion matches (chosen here: middle rates)."""

MOST_TRIM_S = 2.0
"""By which a cut may be moved into a piece (chosen here)."""

BETTER = 0.1
"""By which a suggestion's mismatch must be less to be told, and less than that of one that does
less (chosen here)."""

MOST_TOLD = 4


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


@dataclass(frozen=True)
class Side:
    """A piece beside a cut, and its take. free: its sound is not wanted. slowest: share of its own
    speed to which it may be slowed."""

    piece: Piece
    take: MeasuredTake
    free: bool
    slowest: float


Offer = tuple[frozenset[str], Better]
"""What is done, and what comes of it."""


def cut_between(before: PieceSheet, after: PieceSheet) -> CutSheet:
    if before.motion is None or after.motion is None:
        return CutSheet(None, None, False)
    value = mismatch(before.motion.exit, after.motion.entry)
    gusts = before.motion.gust, after.motion.gust
    jump = gusts[0] is not None and gusts[1] is not None and jumps(gusts[0], gusts[1])
    return CutSheet(value, joined(value), jump)


def side_of(sheet: PieceSheet, take: MeasuredTake, brief: Brief) -> Side:
    free = not (wants_sound(sheet.shot, brief) and take.clip.has_sound)
    # Slower than this its frames would be shown twice.
    each = brief.delivery_fps / (take.clip.fps or brief.delivery_fps)
    now = min(knot.speed for knot in sheet.piece.knots)
    slowest = min(1.0, max(SLOWEST, each) / now) if free else 1.0
    return Side(sheet.piece, take, free, slowest)


def better_cuts(before: Side, after: Side, look: Look) -> tuple[Better, ...]:
    """Trims, speeds, a reversal and sweeps that would make a cut match better, the best first; what
    does more is told only where it joins better than what does less."""
    value = _mismatch(before, after, look)
    if value is None or value <= MATCHES:
        return ()
    told: list[Offer] = []
    for kinds, found in _offers(before, after, look):
        least = min([value, *(one.mismatch for does, one in told if does <= kinds)])
        if found.mismatch < least - BETTER:
            told.append((kinds, found))
    return tuple(sorted((one for _, one in told), key=lambda one: one.mismatch)[:MOST_TOLD])


def _offers(before: Side, after: Side, look: Look) -> Iterator[Offer]:
    """What could be done, from what changes least."""
    trims_found = list(_trimmed(before, after, look))
    for trim in trims_found:
        yield frozenset({"trim"}), trim
    for slow in _slowed(before, after, look):
        yield frozenset({"slow"}), slow
    for trim in trims_found:
        moved = replace(before, piece=trim.pieces[0]), replace(after, piece=trim.pieces[1])
        for slow in _slowed(*moved, look):
            yield frozenset({"trim", "slow"}), replace(slow, words=f"{trim.words} {slow.words}")
    if after.free:
        turned = replace(after, piece=replace(after.piece, backwards=not after.piece.backwards))
        words, value = "Play the later one the other way round.", _mismatch(before, turned, look)
        if value is not None:
            yield frozenset({"turn"}), Better(words, value, (before.piece, turned.piece))
        for trim in _trimmed(before, turned, look):
            yield frozenset({"turn", "trim"}), replace(trim, words=f"{words} {trim.words}")
    for sweep in _swept(before, after, look):
        yield frozenset({"sweep"}), sweep


def _mismatch(before: Side, after: Side, look: Look) -> float | None:
    leaving = before.take.seen(before.piece, look).velocity(at_end=True)
    entering = after.take.seen(after.piece, look).velocity(at_end=False)
    if leaving is None or entering is None:
        return None
    return mismatch(leaving, entering)


def _slowed(before: Side, after: Side, look: Look) -> Iterator[Better]:
    """Both sides as fast: the quicker one is slowed, within what its frames and its sound allow."""
    leaving = before.take.seen(before.piece, look).velocity(at_end=True)
    entering = after.take.seen(after.piece, look).velocity(at_end=False)
    if leaving is None or entering is None:
        return
    quicker = float((leaving**2).sum()) > float((entering**2).sum())
    slowest = before.slowest if quicker else after.slowest
    if slowest >= 1.0:
        return
    rates = matching_rates(leaving, entering, slowest=slowest)
    if rates.before == rates.after == 1.0:
        return
    changed = at_share(before.piece, rates.before), at_share(after.piece, rates.after)
    slowed, name = (changed[0], "earlier") if rates.before < 1 else (changed[1], "later")
    share = 100 * min(knot.speed for knot in slowed.knots)
    yield Better(f"Slow the {name} one to {share:.0f} %.", rates.mismatch, changed)


def _swept(before: Side, after: Side, look: Look) -> Iterator[Better]:
    """Both sides run on into sweeps that were added at their ends."""
    out_s = sweep_at(before.piece, before.take.footage, look, at_end=True)
    in_s = sweep_at(after.piece, after.take.footage, look, at_end=False)
    if out_s is None or in_s is None:
        return
    sides = (
        replace(before, piece=ending_at(before.piece, out_s)),
        replace(after, piece=beginning_at(after.piece, in_s)),
    )
    value = _mismatch(*sides, look)
    if value is not None:
        words = "Cut inside the sweeps: end the earlier one in its own, begin the later in its own."
        yield Better(words, value, (sides[0].piece, sides[1].piece))


def _trimmed(before: Side, after: Side, look: Look) -> Iterator[Better]:
    sides = []
    for side, at_end in ((before, True), (after, False)):
        room_s = min(MOST_TRIM_S, 0.5 * (side.piece.out_s - side.piece.in_s))
        points = trims(
            side.piece, side.take.footage, look, at_end=at_end, most_s=room_s,
            polish=side.take.windows_of(side.piece),
        )  # fmt: skip
        if len(points[0]) == 0:
            return
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
    yield Better(words, cut.mismatch, changed)
