"""What the volunteer of Harrow Top did at the desk once the clips were measured: marked some of
them by eye, and cut a film of the outing, whose time line came back.

What is true of this eye: it takes more shake than a smooth brief allows. What is true of this
cut: rough takes are left out, and the others are used shorter than they were planned.
"""

from __future__ import annotations

import json
import threading
from contextlib import suppress
from typing import Any

from ridgewind.demo.filling import OUTING
from ridgewind.demo.story import DEMO_TAKES
from ridgewind.library.library import Library
from ridgewind.services import brought_back, marking, sequencing, timelines
from ridgewind.services.errors import TimeLineError
from ridgewind.store import database, jobs, listing, outings
from ridgewind.store.database import Connection

LOOK_S = 0.5
"""Between two looks at whether everything is measured."""

SMOOTH_UP_TO = 5.3
"""Gust that the volunteer's eye calls smooth enough."""

MARKED = tuple(take.name for take in DEMO_TAKES[:6])
"""Clips that were marked; the others are left to whoever tries it."""

ROUGHEST = 6.0
"""Gust of a take that was still used in the film."""

KEPT = 0.8
"""How much of a planned piece was used."""


def sit_down(library: Library, stopping: threading.Event) -> None:
    """Do all of it, unless stopping is set before the clips are measured."""
    with database.opened(library.database) as db:
        while jobs.unfinished(db, "measure"):
            if stopping.wait(LOOK_S):
                return
        _mark(db)
        for line in outings.lines(db):
            if line.row.name == OUTING.name:
                _cut(library, db, line.row.id)


def _mark(db: Connection) -> None:
    rows = listing.page(
        db, only=listing.Filter(), sort="recorded", descending=False, offset=0, limit=1000
    )
    for take in rows:
        if take.name in MARKED and take.gust is not None:
            smooth = take.gust <= SMOOTH_UP_TO
            marking.mark(db, take.id, smooth=smooth, blind=True, render_id=None)


def _cut(library: Library, db: Connection, outing_id: int) -> None:
    sequence = sequencing.sequence_of(db, outing_id)
    taken_along = timelines.as_otio(sequence, timelines.at_home(library.original))
    with suppress(TimeLineError):  # somebody has thrown its takes away meanwhile
        brought_back.bring_back(db, outing_id, cut_down(taken_along))


def cut_down(text: str) -> str:
    """An OpenTimelineIO time line as it comes back from the desk."""
    timeline = json.loads(text)
    for track in timeline["tracks"]["children"]:
        track["children"] = [_shorter(one) for one in track["children"] if _is_used(one)]
    return json.dumps(timeline)


def _is_used(item: dict[str, Any]) -> bool:
    gust = item["metadata"].get(timelines.OURS, {}).get("gust")
    return gust is not None and gust <= ROUGHEST


def _shorter(clip: dict[str, Any]) -> dict[str, Any]:
    duration = clip["source_range"]["duration"]
    duration["value"] = max(1.0, float(round(KEPT * duration["value"])))
    return clip
