"""Follow what was marked in a take's picture, both ways from where it was marked."""

from __future__ import annotations

from collections import deque

import numpy as np

from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.motion import pyramid
from ridgewind.core.motion.follow import Follower, Mark, Subject, SubjectPath
from ridgewind.core.motion.pyramid import Image
from ridgewind.library.library import Library
from ridgewind.media.decode import Film
from ridgewind.store import clips, database, subjects, summaries, takes
from ridgewind.store.database import Connection

LONGEST_BACK_S, LONGEST_ON_S = 30.0, 120.0
"""How far it is followed either way: what lies further is of another moment."""


def follow(
    library: Library, db: Connection, take_id: int, mark: Mark, *, second: bool = False
) -> Subject:
    """Follow and keep a subject that was marked. second: the mark is of another point of the one
    that is marked already. Raises NotFoundError, MediaError, and InvalidArgumentError for a mark
    outside the film or a second one without a first."""
    require_between("x", mark.x, 0, 1)
    require_between("y", mark.y, 0, 1)
    known = subjects.of_take(db, take_id) if second else None
    if second and known is None:
        raise InvalidArgumentError("second", second, "a first point must be marked before it")
    path = _followed(library, db, take_id, mark)
    subject = Subject((mark,), (path,))
    if known is not None:
        subject = Subject((known.marks[0], mark), (known.paths[0], path))
    with database.atomic(db):
        subjects.put(db, take_id, subject)
        summaries.mark_take_stale(db, take_id)
    return subject


def _followed(library: Library, db: Connection, take_id: int, mark: Mark) -> SubjectPath:
    at_s, x, y = mark.at_s, mark.x, mark.y
    take = takes.by_id(db, take_id)
    clip = clips.by_id(db, take.clip_id)
    before: deque[tuple[float, Image]] = deque()
    found: list[tuple[float, float, float]] = []
    follower: Follower | None = None
    first_s: float | None = None
    with Film(library.film(clip.file)) as film:
        for picture in film.pictures(pyramid.to_working):
            first_s = picture.t_s if first_s is None else first_s
            since_s = picture.t_s - first_s
            if since_s > at_s + LONGEST_ON_S:
                break
            if follower is None and since_s < at_s - 0.5 / (clip.fps or 25.0):
                before.append((since_s, picture.luma))
                while before and before[0][0] < at_s - LONGEST_BACK_S:
                    before.popleft()
                continue
            if follower is None:
                follower, found = _marked(picture.luma, since_s, x, y, before)
                continue
            found.append((since_s, *_shown(follower.next(picture.luma), picture.luma)))
    if follower is None:
        raise InvalidArgumentError("at_s", at_s, "it must lie within the film")
    columns = np.array(sorted(found))
    return SubjectPath(columns[:, 0], columns[:, 1], columns[:, 2])


def _marked(
    luma: Image, since_s: float, x: float, y: float, before: deque[tuple[float, Image]]
) -> tuple[Follower, list[tuple[float, float, float]]]:
    """A follower from the marked picture on, and what was followed backwards from it."""
    height, width = luma.shape
    at = (x * (width - 1), y * (height - 1))
    found = [(since_s, *_shown(at, luma))]
    back = Follower(luma, at)
    for t_s, earlier in reversed(before):
        found.append((t_s, *_shown(back.next(earlier), earlier)))
    return Follower(luma, at), found


def _shown(at: tuple[float, float] | None, luma: Image) -> tuple[float, float]:
    """From the picture's middle, percent of its long side."""
    if at is None:
        return float("nan"), float("nan")
    height, width = luma.shape
    long_side = max(width, height)
    return (
        100.0 * (at[0] - (width - 1) / 2) / long_side,
        100.0 * (at[1] - (height - 1) / 2) / long_side,
    )
