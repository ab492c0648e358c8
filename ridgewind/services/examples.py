"""A feel by example: a stretch of a film that one admires becomes the feel of a brief."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from ridgewind.core.brief import FEELS, LONGEST_NAME, Brief, Likeness
from ridgewind.core.judge.assessment import Assessment
from ridgewind.core.judge.likeness import shakes
from ridgewind.core.shake.gust import GUST_MAX
from ridgewind.services import assessing
from ridgewind.services.assessing import Judged
from ridgewind.services.errors import NO_SHOT, NOT_MEASURED, UNSETTLED, NotReadyError
from ridgewind.store import briefs, database, takes
from ridgewind.store.database import Connection
from ridgewind.store.takes import Origin


@dataclass(frozen=True)
class Example:
    """before: what the take was until then, so that it can be undone."""

    brief_id: int
    target: float
    before: Origin


def make_brief(db: Connection, take_id: int, *, name: str, is_own: bool) -> Example:
    """Make a brief that allows what a take, or the part of it that is judged, shows. is_own: it is
    a take of the shooter's and stays one; else it is an example from now on. Raises NotFoundError,
    NotReadyError where nothing can be told of it."""
    judged, found = settled(db, take_id)
    brief = like(judged.take.brief, judged.take.name, found)
    with database.atomic(db):
        brief_id = briefs.add(db, brief, name=name)
        if not is_own:
            takes.set_origin(db, take_id, "example")
    return Example(brief_id, brief.target, judged.take.origin)


def settled(db: Connection, take_id: int) -> tuple[Judged, Assessment]:
    """A take of which something can be told. Raises NotFoundError, NotReadyError."""
    judged = assessing.judge(db, take_id)
    found = judged.assessment
    if found is None:
        raise NotReadyError(*NOT_MEASURED)
    if found.doubt is not None:
        raise NotReadyError(*UNSETTLED)
    if found.gust is None:
        raise NotReadyError(*NO_SHOT)
    return judged, found


def like(brief: Brief, name: str, found: Assessment) -> Brief:
    """A brief that allows what an assessed film shows: the feel that is nearest above, with its
    gust for target, and its bands and its move to be held against."""
    target = min(GUST_MAX, math.ceil(10.0 * (found.gust or 0.0)) / 10.0)
    able = [feel for feel, allowed in FEELS.items() if allowed >= target]
    move = None if found.move is None else found.move.move
    return replace(
        brief,
        feel=able[0] if able else next(reversed(FEELS)),
        own_target=target,
        likeness=Likeness(
            name=name[:LONGEST_NAME],
            shares={
                one.name: one.share
                for one in found.bands
                if one.share is not None and shakes(found.speed_pct_s)
            },
            move=None if move is None else move.kind,
            move_s=None if move is None else move.seconds,
        ),
    )
