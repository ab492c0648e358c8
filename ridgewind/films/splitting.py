"""Slates within a film: seen while it is measured, and the film split where it holds several takes.

A slate is looked for at the head of a film, where it belongs. Once one was read, the next take
cannot begin before the first has ended, so that only films that go on are looked through further.
Beyond the head a cheap look comes first: at the working size while no slate was seen, which misses
small ones, and at full reading size once one was.
"""

from __future__ import annotations

from collections.abc import Mapping

import cv2
import numpy as np

from ridgewind.core.practice.session import COUNT_IN_S
from ridgewind.core.practice.slate import SlateSeen, find_slate, looks_like_slate, parts_between
from ridgewind.media.decode import Picture
from ridgewind.media.encode import still_of
from ridgewind.store import briefs, takes
from ridgewind.store.database import Connection

HEAD_S, EVERY_S, LONG_SIDE_PX = 6.0, 0.4, 960
"""How long the head of a film is, how often and how large a slate is looked for."""

SAME_SLATE_S = 3.0
"""Sightings of one code within this time are one slate."""

PlannedSeconds = Mapping[tuple[int, int], float]
"""Seconds of the take that a slate names, for every take that was ever planned."""


class SlateWatch:
    """Looks for slates as the frames of a film go by. planned: None where no session was ever
    planned, so that no slate is expected."""

    def __init__(self, planned: PlannedSeconds | None) -> None:
        self._planned = planned
        self._next_s = 0.0
        self.seen: list[SlateSeen] = []
        """Slates in the order of the film, s from its first frame."""

    def feed(self, picture: Picture, since_s: float) -> None:
        """A frame, since_s after the first."""
        if self._planned is None or since_s < self._next_s:
            return
        self._next_s = since_s + EVERY_S
        late = since_s > HEAD_S
        if late and not self.seen and not looks_like_slate(picture.luma):
            return
        image = still_of(picture, long_side_px=LONG_SIDE_PX)
        luma = np.asarray(cv2.cvtColor(image, cv2.COLOR_BGR2GRAY), np.uint8)
        found = find_slate(luma)
        if found is None:
            self._pass_over(since_s)
            return
        last = self.seen[-1] if self.seen else None
        if last and last.slate == found and since_s - last.until_s <= SAME_SLATE_S:
            self.seen[-1] = SlateSeen(found, last.from_s, since_s)
        else:
            self.seen.append(SlateSeen(found, since_s, since_s))

    def _pass_over(self, since_s: float) -> None:
        """Once a slate has gone, the next cannot come before its take has ended."""
        last = self.seen[-1] if self.seen else None
        if last is None or self._planned is None or since_s - last.until_s < SAME_SLATE_S:
            return
        take_s = self._planned.get(last.slate, 0.0)
        self._next_s = max(self._next_s, last.until_s + COUNT_IN_S + take_s)


def split(db: Connection, clip_id: int, seen: list[SlateSeen], *, length_s: float) -> list[int]:
    """Keep what the slates of a film say, and make a take of each part that one begins.

    Returns ids of the takes that were made. A film that was split before stays as it is.
    """
    found = takes.of_clip(db, clip_id)
    if not seen or len(found) != 1:
        return []
    first = found[0]
    parts = parts_between(seen, length_s=length_s)
    made = []
    for index, part in enumerate(parts):
        take_id = first.id
        if index > 0:
            take_id = takes.add(
                db,
                clip_id=clip_id,
                name=f"{first.name}, part {index + 1}",
                brief_id=_brief_like(db, first),
                setup_id=first.setup_id,
            )
            made.append(take_id)
        if len(parts) > 1:
            takes.set_film_part(db, take_id, part.from_s, part.to_s)
        if part.slate is not None:
            takes.set_slate(db, take_id, part.slate, until_s=part.slate_until_s)
    return made


def _brief_like(db: Connection, take: takes.TakeRow) -> int:
    """A take's named brief, or a copy of its own one, so that each changes by itself."""
    if take.brief_name is not None:
        return take.brief_id
    return briefs.add(db, take.brief, name=None, parent_id=None)
