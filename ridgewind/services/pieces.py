"""Pieces of takes as a sequence shows them: what is here of each, and how it moves."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

from ridgewind.core.brief import Brief
from ridgewind.core.clip import Clip
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge import Analysis
from ridgewind.core.judge.cadence import stutter_words
from ridgewind.core.judge.recipe import Recipe, WindowMaker
from ridgewind.core.judge.verdict import Verdict
from ridgewind.core.motion.subject import Mark, Subject
from ridgewind.core.sequence.piece import Piece
from ridgewind.core.sequence.seen import Footage, Look, PieceMotion, Seen, footage_of, motion_of
from ridgewind.core.sequence.shapes import SHAPES, Cutout, cutout, delivered_px
from ridgewind.core.sequence.timeline import Placed
from ridgewind.core.shake.reading import band_shares
from ridgewind.core.shake.trace import trace
from ridgewind.services import assessing
from ridgewind.store import clips, subjects, takes
from ridgewind.store.clips import ClipRow
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.outings import ShotRow
from ridgewind.store.takes import TakeRow

MOST_MOTIONS = 2000
"""Motions of pieces that are kept: a page asks for all of a sequence again at each change."""


@dataclass(frozen=True)
class Shown:
    """How a piece moves as it is shown. ridge: of it, as small as in the list; see assessing."""

    motion: PieceMotion
    ridge: bytes


@dataclass(frozen=True)
class PieceSheet:
    """A piece with what is known of it. take: None where there is none, or it is gone. trouble: why
    it cannot be shown as it is, None where it can. notes: what showing it so costs. length_s: of
    its film; file: its name among the originals. left: how many pixels its window has for each one
    that is delivered, along a side; marked: a subject is marked in it. lee: its take's calm
    stretch, s from the film's first frame."""

    piece: Piece
    placed: Placed
    shot: ShotRow | None
    take: TakeRow | None
    motion: PieceMotion | None
    length_s: float | None
    trouble: str | None
    notes: tuple[str, ...] = ()
    file: str | None = None
    ridge: bytes = b""
    left: float | None = None
    marked: bool = False
    lee: tuple[float, float] | None = None


class MeasuredTake:
    """A take that is here and measured; what it takes to show pieces of it is fetched when it is
    first asked for."""

    def __init__(self, db: Connection, take: TakeRow, clip: ClipRow, key: assessing.Key) -> None:
        self._db, self.take, self.clip, self._key = db, take, clip, key

    @cached_property
    def verdict(self) -> Verdict | None:
        return assessing.verdict_of(self._db, self.take.id)

    @cached_property
    def analysis(self) -> Analysis:
        found = assessing.analysis_of(self._db, self.take, self.clip)[1]
        assert found is not None
        return found

    @cached_property
    def facts(self) -> Clip:
        """What judging needs of its film."""
        return assessing.judged_clip(self._db, self.take, self.clip)

    @cached_property
    def _subject(self) -> Subject | None:
        return subjects.of_take(self._db, self.take.id)

    @property
    def marks(self) -> tuple[Mark, ...]:
        """Of the subject that is marked in it; none without one."""
        return () if self._subject is None else self._subject.marks

    @cached_property
    def footage(self) -> Footage:
        motion = assessing.analysis_of(self._db, self.take, self.clip)[0]
        assert motion is not None
        subject = None if self._subject is None else self._subject.later(float(motion.t_s[0]))
        return footage_of(motion, upright=self.facts.upright, subject=subject)

    @property
    def picture(self) -> float:
        """Width over height of its picture as displayed."""
        return (self.clip.width or 16) / (self.clip.height or 9)

    @property
    def polish(self) -> Recipe | None:
        """As its verdict polishes it, or holds its subject; None where it does neither."""
        found = None if self.verdict is None else self.verdict.recipe
        if found is None or (found.corner_hz is None and found.hold is None):
            return None
        return found

    def polish_of(self, piece: Piece) -> Recipe | None:
        """The recipe by which a piece of it is polished; None where it is shown as filmed."""
        if self.polish is None:
            return None
        start_s, end_s = self.footage.first_s + piece.in_s, self.footage.first_s + piece.out_s
        return replace(self.polish, start_s=start_s, end_s=end_s, rate=1.0, step=1.0)

    def windows_of(self, piece: Piece, *, drawn_in_pct: float = 0.0) -> WindowMaker | None:
        """By which a piece is polished; None where it is not, or where the subject that is to be
        held is not seen throughout."""
        recipe = self.polish_of(piece)
        if recipe is None:
            return None
        try:
            return WindowMaker(
                recipe, self.analysis, upright=self.facts.upright, drawn_in_pct=drawn_in_pct,
                subject=self.footage.subject,
            )  # fmt: skip
        except InvalidArgumentError:
            return None

    def seen(self, piece: Piece, look: Look, *, drawn_in_pct: float = 0.0) -> Seen:
        """A piece of it, as it is seen."""
        windows = self.windows_of(piece, drawn_in_pct=drawn_in_pct)
        return Seen(piece, self.footage, look, polish=windows)

    def shown(self, piece: Piece, look: Look) -> Shown | None:
        """How a piece moves as it is shown; None where that cannot be told."""
        recipe = None if self.verdict is None else self.verdict.recipe
        key = (self._key, piece, look, recipe, self.marks)
        return _motions.get(key, lambda: self._shown(piece, look))

    def _shown(self, piece: Piece, look: Look) -> Shown | None:
        t_s = self.footage.motion.t_s
        start_s, end_s = self.footage.first_s + piece.in_s, self.footage.first_s + piece.out_s
        for shot in self.footage.motion.shots:
            inside = t_s[shot.start] < end_s and t_s[shot.stop - 1] > start_s
            if inside and shot.measurable and shot.doubt is not None:
                return None
        seen = self.seen(piece, look)
        motion = motion_of(seen)
        if motion is None:
            return None
        line = trace(
            seen.reading, band_shares(seen.reading)[1], screen_deg=look.screen_deg,
            most_points=assessing.TRACE_POINTS,
        )  # fmt: skip
        return Shown(motion, assessing.small_ridge(line))


class _Motions:
    """The motions that were asked for last."""

    def __init__(self) -> None:
        self._kept: OrderedDict[object, Shown | None] = OrderedDict()
        self._guard = threading.Lock()

    def get(self, key: object, make: Callable[[], Shown | None]) -> Shown | None:
        with self._guard:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key]
        made = make()
        with self._guard:
            self._kept[key] = made
            while len(self._kept) > MOST_MOTIONS:
                self._kept.popitem(last=False)
        return made


_motions = _Motions()


def measured_take(db: Connection, take_id: int) -> MeasuredTake | None:
    """None where it is gone, or not measured yet."""
    take = row_of(db, take_id)
    if take is None or take.deleted_at is not None:
        return None
    clip = clips.by_id(db, take.clip_id)
    key = assessing.path_key(db, take, clip)
    if key is None or clip.fps is None:
        return None
    return MeasuredTake(db, take, clip, key)


def shape_of(brief: Brief, key: str | None) -> float:
    """Width over height of a sequence of a shape; None for as its brief delivers."""
    return SHAPES.get(key or "", brief.delivery_width_px / brief.delivery_height_px)


def look_of(brief: Brief, shape: str | None) -> Look:
    return Look(brief.delivery_fps, shape_of(brief, shape), brief.screen_deg)


def sheet_of(
    piece: Piece,
    place: Placed,
    shot: ShotRow | None,
    found: MeasuredTake | TakeRow | None,
    brief: Brief,
    look: Look,
) -> PieceSheet:
    """found: a take that cannot be shown as its row."""
    if piece.take_id is None:
        return PieceSheet(piece, place, shot, None, None, None, "This shot has no take yet.")
    if not isinstance(found, MeasuredTake):
        gone = found is None or found.deleted_at is not None
        words = "Its take was deleted." if gone else "Its take is not measured yet."
        return PieceSheet(piece, place, shot, found, None, None, words)
    length_s = found.take.duration_s or 0.0
    trouble = None
    if piece.out_s > length_s + 1.0 / brief.delivery_fps:
        trouble = f"Its film is {length_s:.1f} s long, and this ends at {piece.out_s:.1f} s."
    verdict = found.verdict
    lee = None
    if verdict is not None and verdict.lee is not None:
        lee = (verdict.lee[0] - verdict.first_s, verdict.lee[1] - verdict.first_s)
    shown = found.shown(piece, look)
    return PieceSheet(
        piece, place, shot, found.take, None if shown is None else shown.motion, length_s, trouble,
        tuple(_notes(piece, shot, found, brief)), found.clip.file,
        b"" if shown is None else shown.ridge, _pixels_left(found, look.shape, brief),
        bool(found.marks), lee,
    )  # fmt: skip


def _notes(piece: Piece, shot: ShotRow | None, found: MeasuredTake, brief: Brief) -> list[str]:
    """What showing a piece so costs."""
    out = []
    if found.clip.cleared_at is not None:
        out.append("Its original was put aside: a desk will not find it.")
    if wants_sound(shot, brief) and found.clip.has_sound and not piece.keeps_sound:
        out.append("Its sound is wanted, and is lost.")
    slowest = min(knot.speed for knot in piece.knots)
    fps = (found.clip.fps or brief.delivery_fps) * slowest
    if fps < brief.delivery_fps and slowest < 1.0:
        out.append(stutter_words(fps, brief.delivery_fps))
    if piece.framing.follows and not found.marks:
        out.append("It has no marked subject to follow: mark one on the take.")
    return [one for one in out if one]


def wants_sound(shot: ShotRow | None, brief: Brief) -> bool:
    """Whether a piece is to keep its sound, so that it is neither slowed nor turned round."""
    return brief.keep_sound or (shot is not None and shot.shot.sound)


def window_of(found: MeasuredTake, shape: float) -> Cutout:
    """The sequence's window in a take's picture."""
    return cutout(shape, found.picture)


def _pixels_left(found: MeasuredTake, shape: float, brief: Brief) -> float:
    """Pixels of a take's window for each one that is delivered, along a side."""
    window = window_of(found, shape)
    polish = found.polish
    kept = 1.0 if polish is None else 1.0 - polish.crop_pct / 100.0
    delivered = delivered_px(shape, brief.delivery_px)
    return kept * window.width * (found.clip.width or 1) / delivered[0]


def row_of(db: Connection, take_id: int) -> TakeRow | None:
    """A take's row, None where it is gone for good."""
    try:
        return takes.by_id(db, take_id)
    except NotFoundError:
        return None
