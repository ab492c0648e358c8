"""Whose motion is it? What is in doubt, and the shooter's word on it."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.path import Motion, RivalPath, with_rival
from ridgewind.core.shake.reading import read_motion
from ridgewind.store import database, takes, whose_motion
from ridgewind.store.database import Connection
from ridgewind.store.whose_motion import SaidRow

AROUND_EDGE, MIDDLE = 0.5, 0.25
"""Share of the edges from which a motion lies around them, and how far from the middle of the
picture, in halves of it, its points are still in the middle."""


@dataclass(frozen=True)
class RivalLine:
    """One motion of a shot. where: its place in words. gust: what the camera would read if the
    motion were its own, None where it cannot be measured."""

    where: str
    gust: float | None
    still: bool
    points: float


@dataclass(frozen=True)
class ShotDoubt:
    """The motions of a shot, the one that is believed first. doubt: one of path.DOUBTS, None where
    it is settled. said: by the shooter."""

    shot: int
    start_s: float
    end_s: float
    doubt: str | None
    said: bool
    rivals: tuple[RivalLine, ...]


def as_said(motion: Motion, said: tuple[SaidRow, ...]) -> Motion:
    """A path as the shooter says: of each shot that was spoken of, the motion nearest to where the
    chosen one was."""
    for one in said:
        found = _shot_at(motion, one.at_s)
        if found is None or not motion.shots[found].rivals:
            continue
        away = [np.hypot(rival.x - one.x, rival.y - one.y) for rival in motion.shots[found].rivals]
        motion = with_rival(motion, found, int(np.argmin(away)))
    return motion


def say(db: Connection, take_id: int, *, shot: int, rival: int, motion: Motion) -> None:
    """Keep that a motion of a shot is the camera's. motion: the path as it is told now. Every take
    of the film is judged anew. Raises InvalidArgumentError where there is no such motion."""
    if not 0 <= shot < len(motion.shots):
        raise InvalidArgumentError("shot", shot, f"the take has {len(motion.shots)}")
    spoken = motion.shots[shot]
    if not 0 <= rival < len(spoken.rivals):
        raise InvalidArgumentError("rival", rival, f"the shot has {len(spoken.rivals)}")
    chosen = spoken.rivals[rival]
    middle = (spoken.start + spoken.stop) // 2
    at_s = float(motion.t_s[middle] - motion.t_s[0])
    clip_id = takes.by_id(db, take_id).clip_id
    with database.atomic(db):
        for before in whose_motion.of_clip(db, clip_id):
            if _shot_at(motion, before.at_s) == shot:
                whose_motion.remove_one(db, clip_id, before.at_s)
        whose_motion.put(db, clip_id, SaidRow(at_s, chosen.x, chosen.y))


def forget(db: Connection, take_id: int) -> None:
    """Take back what was said of a take's film."""
    with database.atomic(db):
        whose_motion.remove(db, takes.by_id(db, take_id).clip_id)


def doubts(motion: Motion, said: tuple[SaidRow, ...], *, screen_deg: float) -> list[ShotDoubt]:
    """Every shot of which there is something to say: a doubt, or more than one motion."""
    found = []
    for number, shot in enumerate(motion.shots):
        spoken = any(_shot_at(motion, one.at_s) == number for one in said)
        if shot.doubt is None and len(shot.rivals) < 2 and not spoken:
            continue
        times = motion.t_s[[shot.start, shot.stop - 1]] - motion.t_s[0]
        lines = tuple(
            _line(motion, number, which, rival, screen_deg)
            for which, rival in enumerate(shot.rivals)
        )
        found.append(ShotDoubt(number, float(times[0]), float(times[1]), shot.doubt, spoken, lines))
    return found


def _line(motion: Motion, shot: int, which: int, rival: RivalPath, screen_deg: float) -> RivalLine:
    own = with_rival(motion, shot, which)
    alone = replace(own, shots=(own.shots[shot],))
    gust = read_motion(alone).shots[0].gust(screen_deg=screen_deg)
    return RivalLine(where_of(rival), gust, rival.still, rival.points)


def where_of(rival: RivalPath) -> str:
    """Where a motion is in the picture, in words."""
    if rival.reach >= AROUND_EDGE:
        return "around the edges"
    across = "" if abs(rival.x) < MIDDLE else ("left" if rival.x < 0 else "right")
    if across:
        return f"on the {across}"
    if abs(rival.y) < MIDDLE:
        return "in the middle"
    return "along the top" if rival.y < 0 else "in the lower middle"


def _shot_at(motion: Motion, at_s: float) -> int | None:
    times = motion.t_s - motion.t_s[0]
    for number, shot in enumerate(motion.shots):
        if times[shot.start] <= at_s <= times[shot.stop - 1]:
            return number
    return None
