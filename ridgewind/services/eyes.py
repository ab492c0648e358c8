"""The shooter's own eye: thresholds from marks, and where eye and number disagree."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ridgewind.core.brief import FEELS, USUAL_MOST_CROP_PCT
from ridgewind.core.trials.eye import Mark, Threshold, surprise, threshold_of
from ridgewind.store import briefs, listing, marks, summaries, takes
from ridgewind.store.clips import LOG_CODEC
from ridgewind.store.database import Connection
from ridgewind.store.marks import MarkRow

CROP_STEP_PCT = 3.0
"""One step of the scale of crop, over which a person's mind may change by about a gust's worth."""

LEAST_SURPRISE = 0.3
MOST_SURPRISES = 6
BLIND_LIMIT = 200


@dataclass(frozen=True)
class Surprise:
    """A mark that the number does not expect. by: how far, in gust."""

    mark: MarkRow
    by: float


@dataclass(frozen=True)
class FeelEye:
    """marks: as shot or treated, of this feel. target: that the feel has by default. used: the
    targets of its named briefs."""

    feel: str
    default: float
    threshold: Threshold
    marks: tuple[MarkRow, ...]
    surprises: tuple[Surprise, ...]
    used: tuple[float, ...]


def eye_of(db: Connection) -> tuple[FeelEye, ...]:
    """What the marks say of every feel."""
    rows = marks.all_marks(db)
    usual = briefs.usual(db).id
    named = [
        row
        for row in briefs.named(db)
        if not row.archived and (row.takes or row.id == usual or not row.typical)
    ]
    found = []
    for feel, default in FEELS.items():
        own = tuple(row for row in rows if row.feel == feel)
        threshold = threshold_of([Mark(row.gust, row.smooth) for row in own], default=default)
        surprised = sorted(
            (Surprise(row, surprise(Mark(row.gust, row.smooth), threshold)) for row in own),
            key=lambda one: -one.by,
        )
        found.append(
            FeelEye(
                feel=feel,
                default=default,
                threshold=threshold,
                marks=own,
                surprises=tuple(s for s in surprised if s.by >= LEAST_SURPRISE)[:MOST_SURPRISES],
                used=tuple(sorted({row.brief.target for row in named if row.brief.feel == feel})),
            )
        )
    return tuple(found)


def polish_eye(db: Connection) -> Threshold:
    """How much crop a polish may take before it no longer works for this shooter, percent."""
    rows = [row for row in marks.all_marks(db) if row.crop_pct is not None]
    return threshold_of(
        [Mark(row.crop_pct or 0.0, row.smooth) for row in rows],
        default=USUAL_MOST_CROP_PCT,
        step=CROP_STEP_PCT,
    )


def blind_order(db: Connection, *, feel: str | None, seed: int) -> Sequence[int]:
    """Measured takes that have no mark yet, in an order that tells nothing."""
    marked = {row.take_id for row in marks.all_marks(db) if row.view == marks.AS_SHOT}
    rows = listing.page(
        db, only=listing.Filter(feel=feel, origin="own"), sort="imported", descending=True,
        offset=0, limit=BLIND_LIMIT,
    )  # fmt: skip
    ids = sorted(
        row.id
        for row in rows
        if row.gust is not None and row.codec != LOG_CODEC and row.id not in marked
    )
    random.Random(seed).shuffle(ids)
    return ids


@dataclass(frozen=True)
class Used:
    """What using a threshold changed, so that it can be undone. targets: named briefs and the
    own target that each had. moved: briefs that ship and cannot be changed, and the copy that
    their takes point at instead."""

    targets: tuple[tuple[int, float | None], ...]
    moved: tuple[tuple[int, int], ...]


def use_threshold(db: Connection, feel: str) -> Used:
    """Make a feel's threshold the target of its named briefs. The takes under them are then
    stale. A typical brief stays; a copy takes its place where it is in use."""
    found = next(one for one in eye_of(db) if one.feel == feel)
    value = round(min(10.0, max(0.0, found.threshold.value)), 1)
    usual = briefs.usual(db)
    targets, moved = [], []
    for row in briefs.named(db):
        if row.brief.feel != feel or row.archived:
            continue
        if not row.typical:
            targets.append((row.id, row.brief.own_target))
            _set_target(db, row.id, value)
        elif row.takes or row.id == usual.id:
            brief = replace(row.brief, own_target=value)
            copy_id = briefs.add(db, brief, name=f"{row.name}, by eye")
            takes.move_brief(db, row.id, copy_id)
            if row.id == usual.id:
                briefs.mark_used(db, copy_id)
            moved.append((row.id, copy_id))
    return Used(tuple(targets), tuple(moved))


def undo_use(db: Connection, used: Used) -> None:
    """Put every target back as it was."""
    for brief_id, own_target in used.targets:
        _set_target(db, brief_id, own_target)
    for typical_id, copy_id in used.moved:
        takes.move_brief(db, copy_id, typical_id)
        briefs.set_archived(db, copy_id, archived=True)


def _set_target(db: Connection, brief_id: int, own_target: float | None) -> None:
    row = briefs.by_id(db, brief_id)
    briefs.change(db, brief_id, replace(row.brief, own_target=own_target), name=row.name)
    summaries.mark_brief_stale(db, brief_id)
