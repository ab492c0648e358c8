"""An outing's takes, joined: which pieces, how well they join, and what would join better."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.brief import Brief
from ridgewind.core.sequence.meeting import is_reversed
from ridgewind.core.sequence.timeline import SHORTEST_S, Piece, check_piece, placed
from ridgewind.services import assessing
from ridgewind.services.assessing import Judged
from ridgewind.services.cuts import CutSheet, cut_between
from ridgewind.services.errors import NOTHING_JOINED, NotReadyError
from ridgewind.services.pieces import (
    MeasuredTake,
    PieceSheet,
    measured_take,
    motion_in,
    sheet_of,
)
from ridgewind.store import briefs, database, outings, sequence_films, takes
from ridgewind.store.database import Connection
from ridgewind.store.outings import OutingRow, ShotRow
from ridgewind.store.takes import TakeRow


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
    here: dict[int, MeasuredTake | None] = {}
    for piece in pieces:
        if piece.take_id is not None and piece.take_id not in here:
            here[piece.take_id] = measured_take(db, piece.take_id)
    sheets = tuple(
        sheet_of(db, piece, place, by_id, here.get(piece.take_id or 0), brief)
        for piece, place in zip(pieces, placed(pieces, rate_hz=rate_hz), strict=True)
    )
    cuts = tuple(
        cut_between(sheets[k], sheets[k + 1], here, brief, suggest=suggest)
        for k in range(len(sheets) - 1)
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
    measured = measured_take(db, take_id)
    if measured is None:
        return None
    motion = motion_in(Piece(take_id, None, in_s, out_s), measured, measured.take.brief)
    return None if motion is None else motion.gust


def ask_for_film(db: Connection, outing_id: int) -> int:
    """Ask for the sequence as one small film; returns its id. Raises NotFoundError and
    NotReadyError."""
    found = sequence_of(db, outing_id, suggest=False)
    if not any(one.length_s for one in found.pieces):
        raise NotReadyError(*NOTHING_JOINED)
    with database.atomic(db):
        return sequence_films.add(db, outing_id, [one.piece for one in found.pieces])
