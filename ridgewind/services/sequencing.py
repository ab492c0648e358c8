"""An outing's takes, joined: which pieces, how well they join, and what would join better."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.brief import Brief
from ridgewind.core.judge import Analysis
from ridgewind.core.motion.path import Motion
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
from ridgewind.core.sequence.meeting import is_reversed
from ridgewind.core.sequence.timeline import (
    SHORTEST_S,
    Piece,
    PieceMotion,
    Placed,
    beginning_at,
    check_piece,
    ending_at,
    motion_of,
    placed,
    shown_step,
    trims,
)
from ridgewind.core.shake.reading import ShotReading
from ridgewind.services import assessing
from ridgewind.services.assessing import Judged
from ridgewind.services.errors import NOTHING_JOINED, NotReadyError
from ridgewind.store import briefs, clips, database, outings, sequence_films, takes
from ridgewind.store.clips import ClipRow
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.outings import OutingRow, ShotRow
from ridgewind.store.takes import TakeRow

SLOWEST = 0.4
"""To which a side of a cut may be slowed so that motion matches (chosen here: middle rates)."""

MOST_TRIM_S = 2.0
"""By which a cut may be moved into a piece (chosen here)."""

BETTER = 0.1
"""By which a suggestion's mismatch must be less to be told (chosen here)."""


@dataclass(frozen=True)
class PieceSheet:
    """A piece with what is known of it. take: None where there is none, or it is gone. trouble: why
    it cannot be shown as it is, None where it can. length_s: of its film; file: its name among the
    originals."""

    piece: Piece
    placed: Placed
    shot: ShotRow | None
    take: TakeRow | None
    motion: PieceMotion | None
    length_s: float | None
    trouble: str | None
    file: str | None = None


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


@dataclass(frozen=True)
class JoinedTakes:
    """pieces in order, and a cut between each two of them. proposed: nobody has changed it yet."""

    row: OutingRow
    brief: Brief
    rate_hz: float
    pieces: tuple[PieceSheet, ...]
    cuts: tuple[CutSheet, ...]
    proposed: bool


def sequence_of(
    db: Connection,
    outing_id: int,
    *,
    pieces: Sequence[Piece] | None = None,
    suggest: bool = True,
) -> JoinedTakes:
    """An outing's sequence: of given pieces; else as it was kept; else as its shots propose it.
    suggest: tell what would join better. Raises NotFoundError."""
    row = outings.by_id(db, outing_id)
    brief_row = briefs.by_id(db, row.brief_id) if row.brief_id is not None else briefs.usual(db)
    brief = brief_row.brief
    shots = outings.shots(db, outing_id)
    kept = outings.pieces(db, outing_id)
    if pieces is None:
        pieces = propose(db, outing_id, shots) if kept is None else kept
    rate_hz = brief.delivery_fps
    by_id = {shot.id: shot for shot in shots}
    here: dict[int, _Measured | None] = {}
    for piece in pieces:
        if piece.take_id is not None and piece.take_id not in here:
            here[piece.take_id] = _measured(db, piece.take_id)
    sheets = tuple(
        _sheet(db, piece, place, by_id, here.get(piece.take_id or 0), brief)
        for piece, place in zip(pieces, placed(pieces, rate_hz=rate_hz), strict=True)
    )
    cuts = tuple(
        _cut(sheets[k], sheets[k + 1], here, brief, suggest=suggest) for k in range(len(sheets) - 1)
    )
    return JoinedTakes(row, brief, rate_hz, sheets, cuts, kept is None)


def propose(db: Connection, outing_id: int, shots: Sequence[ShotRow]) -> list[Piece]:
    """A piece for every shot on screen: of its best take what its remedy keeps, as long as was
    planned, turned round where it was filmed the wrong way; a gap where there is no take."""
    met: dict[int, list[int]] = {}
    for one in outings.met(db, outing_id):
        met.setdefault(one.shot_id, []).append(one.take_id)
    out = []
    for shot in shots:
        if shot.state == "impossible" and shot.id not in met:
            continue
        found = [takes.by_id(db, take_id) for take_id in met.get(shot.id, [])]
        measured = [take for take in found if take.state == "done"]
        chosen = min(measured, key=_rank, default=None)
        best = None if chosen is None else assessing.judge(db, chosen.id)
        if best is not None and best.assessment is None:
            best = None
        if best is None:
            # One that is not measured yet keeps its place as one that is missing does.
            unmeasured = next(iter(met.get(shot.id, [])), None)
            out.append(Piece(unmeasured, shot.id, 0.0, max(shot.shot.seconds, SHORTEST_S)))
        else:
            out.append(_piece_of(best, shot))
    return out


def _rank(take: TakeRow) -> tuple[bool, bool, float]:
    passes = take.remedy not in (None, "retake")
    return take.choice == "retake", not passes, 99.0 if take.gust is None else take.gust


def _piece_of(judged: Judged, shot: ShotRow) -> Piece:
    assessment, motion = judged.assessment, judged.motion
    assert assessment is not None
    assert motion is not None
    first_s = float(motion.t_s[0])
    remedy = next(
        (one for one in assessment.decision.remedies if one.kind == assessment.decision.remedy),
        None,
    )
    length_s = judged.take.duration_s or SHORTEST_S
    start_s, end_s = 0.0, length_s
    part = judged.take.judged_part
    if part is not None:
        start_s, end_s = part[0], min(part[1], end_s)
    speed = shot.shot.playback
    if remedy is not None and remedy.start_s is not None and remedy.end_s is not None:
        start_s, end_s = remedy.start_s - first_s, remedy.end_s - first_s
        speed = min(speed, remedy.rate)
    wanted_s = max(shot.shot.seconds * speed, SHORTEST_S)
    spare_s = max(0.0, end_s - start_s - wanted_s)
    move = None if assessment.move is None else assessment.move.move
    if move is not None and spare_s > 0:
        # The move in the middle of what is kept.
        middle_s = (move.start_s + move.end_s) / 2 - first_s - wanted_s / 2
        start_s = min(max(start_s, middle_s), start_s + spare_s)
    else:
        start_s += spare_s / 2
    end_s = min(end_s, start_s + wanted_s)
    if end_s - start_s < SHORTEST_S:
        start_s, end_s = 0.0, max(length_s, SHORTEST_S)
    return Piece(
        judged.take.id, shot.id, round(start_s, 3), round(end_s, 3), round(speed, 3),
        is_reversed(shot.shot, move),
    )  # fmt: skip


def put(
    db: Connection, outing_id: int, pieces: Sequence[Piece], *, base: Sequence[Piece] | None
) -> bool:
    """Keep a sequence. base: what was seen; returns False, and changes nothing, where it is
    another one now. Raises NotFoundError and InvalidArgumentError."""
    checked = [check_piece(piece) for piece in pieces]
    shots = outings.shots(db, outing_id)
    with database.atomic(db):
        outings.by_id(db, outing_id)
        kept = outings.pieces(db, outing_id)
        now = propose(db, outing_id, shots) if kept is None else list(kept)
        if base is not None and list(base) != now:
            return False
        outings.put_pieces(db, outing_id, checked)
    return True


def propose_anew(db: Connection, outing_id: int) -> None:
    """Let the shots propose the sequence again. Raises NotFoundError."""
    with database.atomic(db):
        outings.by_id(db, outing_id)
        outings.put_pieces(db, outing_id, None)


def gust_of(db: Connection, take_id: int, in_s: float, out_s: float) -> float | None:
    """The gust of a part of a take as it was filmed, s from its film's first frame."""
    measured = _measured(db, take_id)
    if measured is None:
        return None
    motion = _motion(Piece(take_id, None, in_s, out_s), measured, measured.take.brief)
    return None if motion is None else motion.gust


def ask_for_film(db: Connection, outing_id: int) -> int:
    """Ask for the sequence as one small film; returns its id. Raises NotFoundError and
    NotReadyError."""
    found = sequence_of(db, outing_id, suggest=False)
    if not any(one.length_s for one in found.pieces):
        raise NotReadyError(*NOTHING_JOINED)
    with database.atomic(db):
        return sequence_films.add(db, outing_id, [one.piece for one in found.pieces])


@dataclass(frozen=True)
class _Measured:
    """A take that is here and measured. motion: of its whole film."""

    take: TakeRow
    clip: ClipRow
    motion: Motion
    analysis: Analysis


def _measured(db: Connection, take_id: int) -> _Measured | None:
    """None where it is gone, or not measured yet."""
    take = _take(db, take_id)
    if take is None or take.deleted_at is not None:
        return None
    clip = clips.by_id(db, take.clip_id)
    motion, analysis = assessing.analysis_of(db, take, clip)
    if motion is None or analysis is None:
        return None
    return _Measured(take, clip, motion, analysis)


def _sheet(
    db: Connection,
    piece: Piece,
    place: Placed,
    shots: dict[int, ShotRow],
    measured: _Measured | None,
    brief: Brief,
) -> PieceSheet:
    shot = None if piece.shot_id is None else shots.get(piece.shot_id)
    if piece.take_id is None:
        return PieceSheet(piece, place, shot, None, None, None, "This shot has no take yet.")
    if measured is None:
        take = _take(db, piece.take_id)
        gone = take is None or take.deleted_at is not None
        words = "Its take was deleted." if gone else "Its take is not measured yet."
        return PieceSheet(piece, place, shot, take, None, None, words)
    length_s = measured.take.duration_s or 0.0
    trouble = None
    if piece.out_s > length_s + 1.0 / brief.delivery_fps:
        trouble = f"Its film is {length_s:.1f} s long, and this ends at {piece.out_s:.1f} s."
    motion = _motion(piece, measured, brief)
    file = measured.clip.file
    return PieceSheet(piece, place, shot, measured.take, motion, length_s, trouble, file)


def _take(db: Connection, take_id: int) -> TakeRow | None:
    try:
        return takes.by_id(db, take_id)
    except NotFoundError:
        return None


def _reading(
    piece: Piece, measured: _Measured, *, rate_hz: float
) -> tuple[ShotReading, float, float] | None:
    """The shot that a piece lies in, read at its speed; the film's first frame, s in the file; and
    the picture's aspect."""
    if measured.analysis.doubt is not None:
        return None
    first_s = float(measured.motion.t_s[0])
    middle_s = first_s + (piece.in_s + piece.out_s) / 2
    # As delivered: where frames are left out unevenly, a move stutters.
    fps = measured.clip.fps or rate_hz
    step = shown_step(fps, piece.speed, rate_hz=rate_hz)
    reading = measured.analysis.reading(min(piece.speed, 1.0), step=step)
    for shot in reading.shots:
        if shot.reason is None and shot.start_s <= middle_s <= shot.end_s:
            return shot, first_s, measured.motion.aspect
    return None


def _motion(piece: Piece, measured: _Measured, brief: Brief) -> PieceMotion | None:
    found = _reading(piece, measured, rate_hz=brief.delivery_fps)
    if found is None:
        return None
    shot, first_s, aspect = found
    return motion_of(piece, shot, first_s=first_s, aspect=aspect, screen_deg=brief.screen_deg)


def _cut(
    before: PieceSheet,
    after: PieceSheet,
    here: dict[int, _Measured | None],
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
    here: dict[int, _Measured | None],
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
    here: dict[int, _Measured | None],
    rate_hz: float,
) -> Better | None:
    sides: list[tuple[NDArray[np.float64], NDArray[np.float64]]] = []
    for sheet, at_end in ((before, True), (after, False)):
        known = here.get(sheet.piece.take_id or 0)
        found = None if known is None else _reading(sheet.piece, known, rate_hz=rate_hz)
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
