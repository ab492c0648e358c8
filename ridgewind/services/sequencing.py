"""An outing's takes, joined: which pieces, how well they join, and what would join better."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from ridgewind.core.brief import Brief
from ridgewind.core.errors import require_between, require_choice
from ridgewind.core.judge.verdict import Verdict
from ridgewind.core.sequence.meeting import is_reversed
from ridgewind.core.sequence.piece import SHORTEST_S, Piece, check_piece
from ridgewind.core.sequence.seen import Look
from ridgewind.core.sequence.shapes import SHAPES
from ridgewind.core.sequence.tempo import TEMPO_RANGE, on_beats
from ridgewind.core.sequence.timeline import placed
from ridgewind.services import assessing
from ridgewind.services.cuts import Better, CutSheet, better_cuts, cut_between, side_of
from ridgewind.services.errors import NOTHING_JOINED, NotReadyError
from ridgewind.services.pieces import (
    MeasuredTake,
    PieceSheet,
    look_of,
    measured_take,
    row_of,
    sheet_of,
)
from ridgewind.store import briefs, database, outings, sequence_films, takes
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.outings import MetRow, OutingRow, ShotRow
from ridgewind.store.sequence_films import SequenceFilmRow
from ridgewind.store.takes import TakeRow


@dataclass(frozen=True)
class JoinedTakes:
    """pieces in order, and a cut between each two of them. here: takes of them that can be shown.
    proposed: nobody has changed it yet."""

    row: OutingRow
    brief: Brief
    look: Look
    pieces: tuple[PieceSheet, ...]
    cuts: tuple[CutSheet, ...]
    here: dict[int, MeasuredTake]
    proposed: bool

    @property
    def rate_hz(self) -> float:
        return self.look.rate_hz


def sequence_of(
    db: Connection, outing_id: int, *, film: SequenceFilmRow | None = None
) -> JoinedTakes:
    """An outing's sequence: as a film of it was asked for; else as it was kept; else as its shots
    propose it. Raises NotFoundError."""
    row = outings.by_id(db, outing_id)
    brief_row = briefs.by_id(db, row.brief_id) if row.brief_id is not None else briefs.usual(db)
    brief = brief_row.brief
    if film is not None:
        row = replace(row, shape=film.shape)
    look = look_of(brief, row.shape)
    kept = outings.pieces(db, outing_id)
    by_id = {shot.id: shot for shot in outings.shots(db, outing_id)}
    pieces: Sequence[Piece]
    if film is not None:
        pieces = film.pieces
    else:
        pieces = propose(db, outing_id, list(by_id.values())) if kept is None else kept
    here: dict[int, MeasuredTake] = {}
    for take_id in {piece.take_id for piece in pieces if piece.take_id is not None}:
        found = measured_take(db, take_id)
        if found is not None:
            here[take_id] = found
    sheets = []
    for piece, place in zip(pieces, placed(pieces, rate_hz=look.rate_hz), strict=True):
        shot = None if piece.shot_id is None else by_id.get(piece.shot_id)
        taken = None
        if piece.take_id is not None:
            taken = here.get(piece.take_id) or row_of(db, piece.take_id)
        sheets.append(sheet_of(piece, place, shot, taken, brief, look))
    cuts = tuple(cut_between(one, other) for one, other in pairwise(sheets))
    return JoinedTakes(row, brief, look, tuple(sheets), cuts, here, kept is None)


def better_at(db: Connection, outing_id: int, cut: int) -> tuple[Better, ...]:
    """What would make a cut match better, from 0. Raises NotFoundError."""
    found = sequence_of(db, outing_id)
    if not 0 <= cut < len(found.cuts):
        raise NotFoundError("cut", cut)
    sides = []
    for sheet in found.pieces[cut : cut + 2]:
        take = found.here.get(sheet.piece.take_id or 0)
        if take is None or sheet.motion is None:
            return ()
        sides.append(side_of(sheet, take, found.brief))
    return better_cuts(sides[0], sides[1], found.look)


def snapped(db: Connection, outing_id: int) -> tuple[Piece, ...]:
    """The pieces with every cut on a beat; as they are without a tempo. Raises NotFoundError."""
    found = sequence_of(db, outing_id)
    pieces = tuple(one.piece for one in found.pieces)
    if found.row.beats_per_min is None:
        return pieces
    lengths = [one.length_s for one in found.pieces]
    return on_beats(pieces, lengths, beats_per_min=found.row.beats_per_min, rate_hz=found.rate_hz)


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
        verdict = None if chosen is None else assessing.verdict_of(db, chosen.id)
        if chosen is None or verdict is None:
            # One that is not measured yet keeps its place as one that is missing does.
            unmeasured = next(iter(met.get(shot.id, [])), None)
            out.append(Piece(unmeasured, shot.id, 0.0, max(shot.shot.seconds, SHORTEST_S)))
        else:
            out.append(_piece_of(chosen, verdict, shot))
    return out


def _rank(take: TakeRow) -> tuple[bool, bool, float]:
    passes = take.remedy not in (None, "retake")
    return take.choice == "retake", not passes, 99.0 if take.gust is None else take.gust


def _piece_of(take: TakeRow, verdict: Verdict, shot: ShotRow) -> Piece:
    first_s, recipe, move = verdict.first_s, verdict.recipe, verdict.move
    length_s = take.duration_s or SHORTEST_S
    start_s, end_s = 0.0, length_s
    part = take.judged_part
    if part is not None:
        start_s, end_s = part[0], min(part[1], end_s)
    speed = shot.shot.playback
    if recipe is not None:
        start_s, end_s = recipe.start_s - first_s, recipe.end_s - first_s
        speed = min(speed, recipe.rate)
    wanted_s = max(shot.shot.seconds * speed, SHORTEST_S)
    spare_s = max(0.0, end_s - start_s - wanted_s)
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
        take.id, shot.id, round(start_s, 3), round(end_s, 3), round(speed, 3),
        is_reversed(shot.shot, move),
    )  # fmt: skip


def put(
    db: Connection, outing_id: int, pieces: Sequence[Piece], *, base: Sequence[Piece] | None
) -> bool:
    """Keep a sequence. base: what was seen; returns False, and changes nothing, where it is
    another one now. Raises NotFoundError and InvalidArgumentError."""
    checked = [check_piece(piece) for piece in pieces]
    while True:
        outings.by_id(db, outing_id)
        seen = _seen(db, outing_id)
        kept, shots, _ = seen
        # Judged before the write begins: it may take seconds, in which nobody else could write.
        now = propose(db, outing_id, shots) if kept is None else list(kept)
        if base is not None and list(base) != now:
            return False
        with database.atomic(db):
            if _seen(db, outing_id) != seen:
                continue
            outings.put_pieces(db, outing_id, checked)
        return True


def _seen(db: Connection, outing_id: int) -> tuple[list[Piece] | None, list[ShotRow], list[MetRow]]:
    """What a sequence is kept as, or else proposed from."""
    pieces = outings.pieces(db, outing_id)
    return (
        None if pieces is None else list(pieces),
        outings.shots(db, outing_id),
        outings.met(db, outing_id),
    )


def propose_anew(db: Connection, outing_id: int) -> None:
    """Let the shots propose the sequence again. Raises NotFoundError."""
    with database.atomic(db):
        outings.by_id(db, outing_id)
        outings.put_pieces(db, outing_id, None)


def gust_of(db: Connection, take_id: int, in_s: float, out_s: float) -> float | None:
    """The gust of a part of a take as it was filmed, s from its film's first frame."""
    found = measured_take(db, take_id)
    if found is None:
        return None
    brief = found.take.brief
    look = Look(found.clip.fps or brief.delivery_fps, found.picture, brief.screen_deg)
    shown = found.shown(Piece(take_id, None, in_s, out_s), look)
    return None if shown is None else shown.motion.gust


def put_look(
    db: Connection, outing_id: int, *, shape: str | None, beats_per_min: float | None
) -> None:
    """Keep how a sequence is shown. Raises NotFoundError and InvalidArgumentError."""
    if shape is not None:
        require_choice("shape", shape, SHAPES)
    if beats_per_min is not None:
        require_between("beats_per_min", beats_per_min, *TEMPO_RANGE)
    with database.atomic(db):
        outings.put_look(db, outing_id, shape=shape, beats_per_min=beats_per_min)


def ask_for_film(db: Connection, outing_id: int, *, whole: bool) -> int:
    """Ask for the sequence as one film, small or at full size; returns its id. Raises NotFoundError
    and NotReadyError."""
    found = sequence_of(db, outing_id)
    if not any(one.length_s for one in found.pieces):
        raise NotReadyError(*NOTHING_JOINED)
    with database.atomic(db):
        pieces = [one.piece for one in found.pieces]
        return sequence_films.add(
            db, outing_id, pieces, whole=whole, shape=found.row.shape, delivered=_delivered(found)
        )


def is_stale(db: Connection, film: SequenceFilmRow) -> bool:
    """Whether a film shows its sequence as it was: other pieces, another shape, or for another
    brief. Raises NotFoundError."""
    now = sequence_of(db, film.outing_id)
    return (
        film.shape != now.row.shape
        or film.pieces != tuple(one.piece for one in now.pieces)
        or film.delivered not in (None, _delivered(now))
    )


def _delivered(found: JoinedTakes) -> str:
    look, (width, height) = found.look, found.brief.delivery_px
    return f"{look.rate_hz:g} {look.shape:.4f} {look.screen_deg:g} {width}x{height}"
