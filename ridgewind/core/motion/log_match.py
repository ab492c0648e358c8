"""Where in a motion log a film belongs, and which of the picture's motions the log is of.

A log knows nothing of what stands before the lens, so that a motion of the picture which goes as
the log does is the camera's, however large the other ones are.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from ridgewind.core.motion.path import Motion, Shot, with_rival
from ridgewind.core.motion.turn_rates import Offset, find_offset

SURE = 0.4
"""Certainty from which a place in the log is believed (chosen here, from made films)."""

LEAST_ALIKE, LEAST_LEAD = 0.7, 0.2
"""Correlation with the log from which a motion is the camera's, and by which it leads over the
shot's others (chosen here, from made films)."""


@dataclass(frozen=True)
class LogMatch:
    """motion: the picture's path, of the camera's motions as the log has them. settled: shots of
    which the log said so, each with the one of its motions, as they were told."""

    offset: Offset
    motion: Motion
    settled: tuple[tuple[int, int], ...]


def match_log(picture: Motion, log: Motion) -> LogMatch:
    """Find a film's place in a log by every motion that each of its shots shows.

    A shot is settled only where it was in doubt or the log contradicts it.
    """
    motion, settled = picture, []
    for number, shot in enumerate(picture.shots):
        which = _camera_of(picture, number, shot, log)
        if which is not None and (which > 0 or shot.doubt is not None):
            motion = with_rival(motion, number, which)
            settled.append((number, which))
    return LogMatch(find_offset(motion, log), motion, tuple(settled))


def _camera_of(picture: Motion, number: int, shot: Shot, log: Motion) -> int | None:
    """The one of a shot's motions that goes as the log does; None where none does, or two do."""
    if not shot.rivals:
        return None
    found = [
        find_offset(_alone(with_rival(picture, number, which), number), log)
        for which in range(len(shot.rivals))
    ]
    order = sorted(range(len(found)), key=lambda k: found[k].correlation, reverse=True)
    first = found[order[0]]
    second = found[order[1]].correlation if len(order) > 1 else 0.0
    sure = first.certainty >= SURE and first.correlation >= LEAST_ALIKE
    return order[0] if sure and first.correlation - second >= LEAST_LEAD else None


def _alone(motion: Motion, number: int) -> Motion:
    """The path of one shot."""
    shot = motion.shots[number]
    inside = slice(shot.start, shot.stop)
    return replace(
        motion,
        t_s=motion.t_s[inside], pan_pct=motion.pan_pct[inside], tilt_pct=motion.tilt_pct[inside],
        roll_deg=motion.roll_deg[inside], zoom_pct=motion.zoom_pct[inside],
        trust=motion.trust[inside], error=motion.error[inside],
        shots=(replace(shot, start=0, stop=shot.stop - shot.start),),
        held=None if motion.held is None else motion.held[inside],
    )  # fmt: skip
