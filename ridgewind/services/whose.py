"""Whose motion is it? What is in doubt, and the shooter's word on it."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.path import Motion, RivalPath, with_rival
from ridgewind.core.motion.sighting import Region, Sighting, mean_inside
from ridgewind.core.motion.subject import SubjectPath
from ridgewind.core.shake.reading import read_motion
from ridgewind.store import database, jobs, takes, whose_motion
from ridgewind.store.database import Connection
from ridgewind.store.whose_motion import SaidRow

LEAST_INSIDE, LEAST_THERE = 0.7, 10.0
"""Share of the points in a named part of the picture that one motion has to have, and how many
points there have to be, for what is known to settle it."""

ABOUT_SUBJECT = 0.1
"""Distance from a marked subject, long sides, within which points are taken to be its own."""

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
    it is settled. said: by the shooter, or, by_log, by a motion log."""

    shot: int
    start_s: float
    end_s: float
    doubt: str | None
    said: bool
    by_log: bool
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


def say(
    db: Connection, take_id: int, *, shot: int, rival: int, motion: Motion, by_log: bool = False
) -> None:
    """Keep that a motion of a shot is the camera's. motion: the path as it is told now. Every take
    of the film is judged anew. by_log: a motion log says so, which never overrules the shooter.
    Raises InvalidArgumentError where there is no such motion."""
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
                if by_log and not before.by_log:
                    return
                whose_motion.remove_one(db, clip_id, before.at_s)
        whose_motion.put(db, clip_id, SaidRow(at_s, chosen.x, chosen.y, by_log))


Chosen = list[tuple[int, int]]
"""Shots, each with the one of its motions that is the camera's."""


def chosen_by_region(motion: Motion, cells: frozenset[int], *, upright: bool) -> Chosen | None:
    """The motions that have most of their points in a part of the picture. None where what was
    followed does not settle it: then the film has to be measured anew, by that part alone. Raises
    InvalidArgumentError."""
    region = Region(cells, upright=upright)
    half = np.array([motion.aspect, 1.0] if upright else [1.0, motion.aspect]) / 2.0
    chosen = []
    for number, shot in enumerate(motion.shots):
        if not shot.measurable:
            continue
        inside = [mean_inside(one.seen, region, half) for one in shot.rivals]
        most = max(inside, default=0.0)
        if most < LEAST_INSIDE * max(sum(inside), LEAST_THERE):
            return None
        chosen.append((number, inside.index(most)))
    return chosen or None


def chosen_without(motion: Motion, subject: SubjectPath) -> Chosen | None:
    """The likeliest motions that are not a marked subject's. None where nothing else was followed
    in the shots in which it is seen."""
    chosen = []
    for number, shot in enumerate(motion.shots):
        near = [_points_near(one.seen, subject, motion.t_s[0]) for one in shot.rivals]
        if not shot.measurable or not any(near):
            continue
        others = [k for k in range(len(near)) if k != int(np.argmax(near))]
        if not others:
            return None
        chosen.append((number, others[0]))
    return chosen or None


def _points_near(seen: tuple[Sighting, ...], subject: SubjectPath, first_s: float) -> float:
    """Mean count of a motion's points about a subject, over the moments in which it is seen."""
    at = np.searchsorted(subject.t_s, [one.t_s - first_s - 1e-6 for one in seen])
    counts = []
    for one, k in zip(seen, at.clip(max=len(subject.t_s) - 1), strict=True):
        middle = np.array([subject.x_pct[k], subject.y_pct[k]]) / 100.0
        if np.isfinite(middle).all():
            counts.append(int((np.hypot(*(one.points - middle).T) < ABOUT_SUBJECT).sum()))
    return float(np.mean(counts)) if counts else 0.0


def forget(db: Connection, take_id: int) -> None:
    """Take back what was said of a take's film; it waits to be measured again where it was
    measured by a part of its picture."""
    clip_id = takes.by_id(db, take_id).clip_id
    with database.atomic(db):
        whose_motion.remove(db, clip_id)
        if whose_motion.background_of(db, clip_id):
            whose_motion.name_background(db, clip_id, frozenset())
            jobs.enqueue(db, "measure", clip_id)


def measure_by(db: Connection, take_id: int, cells: frozenset[int]) -> None:
    """Let a take's film be measured anew by a part of its picture alone."""
    clip_id = takes.by_id(db, take_id).clip_id
    with database.atomic(db):
        whose_motion.remove(db, clip_id)
        whose_motion.name_background(db, clip_id, cells)
        jobs.enqueue(db, "measure", clip_id)


def doubts(motion: Motion, said: tuple[SaidRow, ...], *, screen_deg: float) -> list[ShotDoubt]:
    """Every shot of which there is something to say: a doubt, or more than one motion."""
    found = []
    for number, shot in enumerate(motion.shots):
        words = [one for one in said if _shot_at(motion, one.at_s) == number]
        spoken, by_log = bool(words), any(one.by_log for one in words)
        if shot.doubt is None and len(shot.rivals) < 2 and not spoken:
            continue
        times = motion.t_s[[shot.start, shot.stop - 1]] - motion.t_s[0]
        lines = tuple(
            _line(motion, number, which, rival, screen_deg)
            for which, rival in enumerate(shot.rivals)
        )
        begun_s, ended_s = (float(one) for one in times)
        found.append(ShotDoubt(number, begun_s, ended_s, shot.doubt, spoken, by_log, lines))
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
