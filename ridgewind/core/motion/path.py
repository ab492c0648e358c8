"""The path: what the tracker makes of a clip."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.readout import Readout
from ridgewind.core.motion.sighting import Sighting

Floats = NDArray[np.float64]

TRUSTED = 0.5
"""Trust from which a frame counts (chosen here: where error passes half the usual scatter)."""

MIN_TRUSTED_SHARE = 0.5
MIN_SHOT_S = 0.3
"""A shot shorter than this holds too little to be called smooth or not (chosen here)."""

MIN_SHOT_FRAMES = 6

NEAR_INTERVAL = 0.25
"""Intervals within this share of the median are of the same rate (chosen here)."""

REASONS = {
    "short": "too short to measure",
    "dark": "too dark",
    "detail": "too little detail to follow",
    "blur": "too blurred or too fast to follow",
    "subject": "the subject fills the picture",
    "frozen": "a picture that stands still",
    "times": "the times of its frames cannot be",
}


MOST_STRETCHED = 20.0
"""A shot that lasts longer than so many times its frames at their usual interval has times that
cannot be; an even grid over it would have no end."""

UNSETTLED_TRUST = 0.6
"""Most trust of a shot of which it is not settled whose motion is the camera's."""

DOUBTS = ("rivals", "alone", "noise")
"""Why a shot's figure is not to be relied on: two motions are as likely to be the camera's; what is
followed does not reach the picture's edges; or it shakes hardly more than measuring it adds."""


@dataclass(frozen=True)
class RivalPath:
    """The path that the camera would have if one of a shot's motions were its own.

    path: (n, 4) pan %, tilt %, roll °, zoom %; not a number where it was not followed. trust:
    (n,). x, y: where its points are in the middle, -1 to 1 of half the picture, right and down
    positive. points: how many, on average. reach: share of the picture's edges that it holds.
    still: it is exactly still while something else moves. seen: where its points were, a few times
    a second.
    """

    path: Floats
    trust: Floats
    x: float
    y: float
    points: float
    reach: float
    still: bool
    seen: tuple[Sighting, ...] = ()


@dataclass(frozen=True)
class Shot:
    """Frames start to stop (exclusive) between two cuts.

    reason is None where the shot is measurable, else a key of REASONS. doubt: one of DOUBTS where
    it is not settled whose motion the path is. rivals: the motions that were followed, the one
    that the path shows first; empty where there was only one and no doubt. seen: where the points
    were that the path was worked out from, a few times a second.
    """

    start: int
    stop: int
    reason: str | None
    doubt: str | None = None
    rivals: tuple[RivalPath, ...] = ()
    seen: tuple[Sighting, ...] = ()

    @property
    def measurable(self) -> bool:
        return self.reason is None


@dataclass(frozen=True)
class Motion:
    """The path of a clip, a row a frame; see docs/measurement.md for signs.

    t_s, pan_pct, tilt_pct, roll_deg, zoom_pct: (n,) float64; not a number where a frame could
    not be measured. trust: (n,) 0 to 1. error: (n, 4), half the difference between the paths
    of two interleaved halves of the points (pan %, tilt %, roll °, zoom %): what the
    measurement itself adds. aspect: short side / long side. outlier_share: mean share of the
    followed points that move otherwise than the background. repeated: share of the frames that
    show the picture before once more. held: (n,) frames of them in shots that move, whose place
    in the path is put between their neighbours although their picture is still the one before;
    None for none. readout: of a rolling shutter, where the film shows it, s as it plays.
    """

    t_s: Floats
    pan_pct: Floats
    tilt_pct: Floats
    roll_deg: Floats
    zoom_pct: Floats
    trust: Floats
    error: Floats
    aspect: float
    shots: tuple[Shot, ...] = field(default_factory=tuple)
    outlier_share: float = 0.0
    repeated: float = 0.0
    held: NDArray[np.bool_] | None = None
    readout: Readout | None = None

    @property
    def trusted(self) -> NDArray[np.bool_]:
        """(n,) frames that count in statistics."""
        good: NDArray[np.bool_] = (self.trust >= TRUSTED) & np.isfinite(self.pan_pct)
        return good


def clipped(motion: Motion, *, from_s: float, to_s: float) -> Motion:
    """The part of a path between two times, s from its first frame; times stay as they are.

    Shots that are cut too short count as too short to measure.
    """
    if not 0 <= from_s < to_s:
        raise InvalidArgumentError(
            "to_s", to_s, f"it must be after {from_s:g} s, and that not before 0"
        )
    since = motion.t_s - motion.t_s[0]
    start, stop = (int(k) for k in np.searchsorted(since, [from_s - 1e-6, to_s + 1e-6]))
    inside = slice(start, stop)
    t_s, trusted = motion.t_s[inside], motion.trusted[inside]
    shots = []
    for shot in motion.shots:
        first, last = max(shot.start, start) - start, min(shot.stop, stop) - start
        if last > first:
            why = shot.reason or _why_not(trusted, t_s, [""] * len(t_s), first, last)
            part = slice(first + start - shot.start, last + start - shot.start)
            rivals = tuple(
                replace(rival, path=rival.path[part], trust=rival.trust[part])
                for rival in shot.rivals
            )
            shots.append(Shot(first, last, why, shot.doubt, rivals, shot.seen))
    return Motion(
        t_s=t_s,
        pan_pct=motion.pan_pct[inside],
        tilt_pct=motion.tilt_pct[inside],
        roll_deg=motion.roll_deg[inside],
        zoom_pct=motion.zoom_pct[inside],
        trust=motion.trust[inside],
        error=motion.error[inside],
        aspect=motion.aspect,
        shots=tuple(shots),
        outlier_share=motion.outlier_share,
        repeated=motion.repeated,
        held=None if motion.held is None else motion.held[inside],
        readout=motion.readout,
    )


def with_rival(motion: Motion, shot: int, rival: int) -> Motion:
    """The motion whose path in a shot is another of its rivals', as the shooter says."""
    chosen = motion.shots[shot]
    if not 0 <= rival < len(chosen.rivals):
        raise InvalidArgumentError("rival", rival, f"the shot has {len(chosen.rivals)}")
    inside, own = slice(chosen.start, chosen.stop), chosen.rivals[rival]
    columns = np.column_stack(
        [motion.pan_pct, motion.tilt_pct, motion.roll_deg, motion.zoom_pct, motion.trust]
    )
    columns[inside] = np.column_stack([own.path, own.trust])
    others = tuple(one for one in chosen.rivals if one is not own)
    known = (own.trust >= TRUSTED) & np.isfinite(own.path[:, 0])
    reason = _why_not(known, motion.t_s[inside], ["subject"] * len(known), 0, len(known))
    shots = list(motion.shots)
    shots[shot] = replace(chosen, reason=reason, doubt=None, rivals=(own, *others), seen=own.seen)
    pan, tilt, roll, zoom, trust = columns.T
    return replace(
        motion,
        pan_pct=pan,
        tilt_pct=tilt,
        roll_deg=roll,
        zoom_pct=zoom,
        trust=trust,
        shots=tuple(shots),
    )


EVEN_FRAMES = 15
"""Frames of a stretch that is looked at for a rate of its own."""

ANOTHER_RATE = 1.12
"""Ratio of two stretches' intervals from which their rates are two (chosen here: 30 over 25)."""


def typical_interval(t_s: Floats) -> float:
    """The usual interval between frames, s: the median, refined by the intervals near it.

    Some containers round timestamps to milliseconds, so that the median alone would turn 30
    frames a second into 30.3. Where a film falls from one even rate to another, as phones do when
    the light goes, it is that of the faster stretches: a middle of the two is the rate of neither.
    """
    intervals = np.diff(t_s)
    if float(intervals.max()) <= ANOTHER_RATE * float(intervals.min()):
        return float(intervals.mean())  # as nearly always
    # Of the two in the middle the shorter one: what lies between two rates is the rate of neither.
    middle = (len(intervals) - 1) // 2
    usual, within = float(np.partition(intervals, middle)[middle]), NEAR_INTERVAL
    if len(intervals) >= 2 * EVEN_FRAMES:
        stretches = np.lib.stride_tricks.sliding_window_view(intervals, EVEN_FRAMES)
        local = np.median(stretches[:: EVEN_FRAMES // 2], axis=1)
        fast, slow = (float(value) for value in np.percentile(local, [20, 90]))
        if slow > ANOTHER_RATE * fast:
            usual, within = fast, ANOTHER_RATE - 1.0
    near = np.abs(intervals - usual) <= within * usual
    return float(intervals[near].mean()) if near.any() else usual


def split_shots(
    trusted: NDArray[np.bool_], t_s: Floats, cuts: list[int], reasons: list[str]
) -> tuple[Shot, ...]:
    """Shots between cuts, each with the reason why it cannot be measured, if so.

    trusted: (n,). cuts: first frames of the later shots. reasons: (n,) per frame, a key of
    REASONS or "".
    """
    edges = [0, *sorted(cuts), len(trusted)]
    shots = []
    for start, stop in pairwise(edges):
        if stop > start:
            shots.append(Shot(start, stop, _why_not(trusted, t_s, reasons, start, stop)))
    return tuple(shots)


def _why_not(
    trusted: NDArray[np.bool_], t_s: Floats, reasons: list[str], start: int, stop: int
) -> str | None:
    part = trusted[start:stop]
    named = [reason for reason in reasons[start:stop] if reason]
    if part.mean() < MIN_TRUSTED_SHARE and named:
        return max(sorted(set(named)), key=named.count)
    too_short = stop - start < MIN_SHOT_FRAMES or t_s[stop - 1] - t_s[start] < MIN_SHOT_S
    if too_short:
        return "short"
    if part.mean() < MIN_TRUSTED_SHARE:
        return "detail"
    length_s = float(t_s[stop - 1] - t_s[start])
    if length_s > MOST_STRETCHED * (stop - start) * typical_interval(t_s[start:stop]):
        return "times"
    return None
