"""Pieces of takes as a sequence shows them: what is here of each, and how it moves."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ridgewind.core.brief import Brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis
from ridgewind.core.judge.recipe import Recipe, predicted, recipe_of
from ridgewind.core.motion.path import Motion
from ridgewind.core.sequence.timeline import Piece, PieceMotion, Placed, motion_of, shown_step
from ridgewind.core.shake.reading import ShotReading
from ridgewind.services import assessing
from ridgewind.store import clips, takes
from ridgewind.store.clips import ClipRow
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.outings import ShotRow
from ridgewind.store.takes import TakeRow

POLISHED = frozenset({"polish", "polish_lee", "slow_polish"})
"""Verdicts whose polish a sequence shows."""


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
class MeasuredTake:
    """A take that is here and measured. motion: of its whole film. facts: what judging needs of the
    film. polish: as its verdict polishes it, None where it does not."""

    take: TakeRow
    clip: ClipRow
    motion: Motion
    analysis: Analysis
    facts: Clip
    polish: Recipe | None

    @property
    def first_s(self) -> float:
        """The film's first frame, s in the file."""
        return float(self.motion.t_s[0])

    def polish_of(self, piece: Piece) -> Recipe | None:
        """The recipe by which a piece of it is polished; None where it is shown as filmed."""
        if self.polish is None:
            return None
        start_s, end_s = self.first_s + piece.in_s, self.first_s + piece.out_s
        return replace(self.polish, start_s=start_s, end_s=end_s, rate=piece.speed, step=1.0)


def measured_take(db: Connection, take_id: int) -> MeasuredTake | None:
    """None where it is gone, or not measured yet."""
    take = _take(db, take_id)
    if take is None or take.deleted_at is not None:
        return None
    clip = clips.by_id(db, take.clip_id)
    motion, analysis = assessing.analysis_of(db, take, clip)
    if motion is None or analysis is None:
        return None
    facts = assessing.judged_clip(db, take, clip)
    return MeasuredTake(take, clip, motion, analysis, facts, _polish(db, take))


def _polish(db: Connection, take: TakeRow) -> Recipe | None:
    if take.remedy not in POLISHED:
        return None
    assessment = assessing.judge(db, take.id).assessment
    if assessment is None or assessment.decision.remedy not in POLISHED:
        return None
    return recipe_of(assessment.decision.of(assessment.decision.remedy))


def sheet_of(
    db: Connection,
    piece: Piece,
    place: Placed,
    shots: dict[int, ShotRow],
    measured: MeasuredTake | None,
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
    motion = motion_in(piece, measured, brief)
    file = measured.clip.file
    return PieceSheet(piece, place, shot, measured.take, motion, length_s, trouble, file)


def _take(db: Connection, take_id: int) -> TakeRow | None:
    try:
        return takes.by_id(db, take_id)
    except NotFoundError:
        return None


def reading_of(
    piece: Piece, measured: MeasuredTake, *, rate_hz: float
) -> tuple[ShotReading, float, float] | None:
    """The shot that a piece lies in, read at its speed; the film's first frame, s in the file; and
    the picture's aspect."""
    if measured.analysis.doubt is not None:
        return None
    first_s = measured.first_s
    middle_s = first_s + (piece.in_s + piece.out_s) / 2
    # As delivered: where frames are left out unevenly, a move stutters.
    fps = measured.clip.fps or rate_hz
    step = shown_step(fps, piece.speed, rate_hz=rate_hz)
    reading = measured.analysis.reading(piece.speed, step=step)
    for shot in reading.shots:
        if shot.reason is None and shot.start_s <= middle_s <= shot.end_s:
            return shot, first_s, measured.motion.aspect
    return None


def motion_in(piece: Piece, measured: MeasuredTake, brief: Brief) -> PieceMotion | None:
    """The motion of a piece as it is shown, polished where its take is."""
    found = reading_of(piece, measured, rate_hz=brief.delivery_fps)
    if found is None:
        return None
    shot, first_s, aspect = found
    motion = motion_of(piece, shot, first_s=first_s, aspect=aspect, screen_deg=brief.screen_deg)
    recipe = measured.polish_of(piece)
    if motion is None or recipe is None:
        return motion
    polished = predicted(recipe, measured.analysis, measured.facts, brief)
    return replace(motion, gust=polished.gust)
