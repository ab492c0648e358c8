"""Whose motion is it? Over a whole shot, the motion that is the background's, or no answer."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.path import UNSETTLED_TRUST, Motion, RivalPath
from ridgewind.core.motion.rival import Followed
from ridgewind.core.motion.rows import Row, columns_of, in_path_units
from ridgewind.core.motion.sighting import Sighting

Floats = NDArray[np.float64]

LEAST_FRAMES_SHARE = 0.3
"""Share of a shot in which a motion has to be followed to be a rival at all."""

STILL_PX = 0.12
"""Root mean square way from its middle, px at the working size, of what is exactly still (chosen
here: three times the scatter of the measurement on plain walls)."""

MOVES_TIMES = 5.0
"""How many times further a rival has to go for stillness to say anything."""

LEAST_STILL_EDGE = 0.5
"""Share of what is followed along the edges that what is exactly still has to hold."""

EDGE_WEIGHT, SPREAD_WEIGHT, STILL_WEIGHT, PRESENT_WEIGHT = 1.0, 0.35, 0.8, 0.25
SURE_MARGIN = 0.25
"""Lead of one motion over the next from which it is sure (chosen here, from made clips)."""

LEAST_SIDES = 2

TWIN_PX, LEAST_COMMON = 0.25, 15
"""Root mean square distance of two ways, px at the working size, under which they are one, and
frames that it takes to tell."""

ALIKE_TIMES, NOTHING_PCT = 1.18, 0.003
"""Two motions whose quick parts differ by less are as good as one: 0.3 of a gust; and the step,
percent of the long side a frame, that counts as none."""


@dataclass(frozen=True)
class Candidate:
    """One motion of a shot. rows: its path. score: what speaks for its being the background's.
    middle: (2,) mean place of its points, long sides from the centre. points: mean count. reach,
    sides, upper: which of the picture's edges it holds, see Evidence. still: it is exactly still
    where others move. share: of the shot's frames in which it was followed. seen: where its
    points were."""

    rows: tuple[Row, ...]
    score: float
    middle: tuple[float, float]
    points: float
    reach: float
    sides: int
    upper: bool
    still: bool
    share: float
    seen: tuple[Sighting, ...]


@dataclass(frozen=True)
class FollowedShot:
    """rows: the path of the camera. candidates: every motion that was followed, the most likely
    first. doubt: why it is not settled whose motion it is, None where it is."""

    rows: tuple[Row, ...]
    candidates: tuple[Candidate, ...]
    doubt: str | None


def settle(rivals: Sequence[Followed], long_side_px: float) -> FollowedShot:
    """Which of the motions of a shot is the camera's."""
    rivals = _without_twins(rivals, long_side_px)
    ways = [_way_px(rival.rows, long_side_px) for rival in rivals]
    furthest = max((way for way in ways if np.isfinite(way)), default=0.0)
    found = []
    for rival, way in zip(rivals, ways, strict=True):
        still = way < STILL_PX and furthest > MOVES_TIMES * max(way, 0.5 * STILL_PX)
        # A date or a frame that is drawn over a film is exactly still too, but holds few edges.
        still = still and rival.evidence.edge > LEAST_STILL_EDGE
        found.append(_candidate(rival, still))
    found = [one for one in found if one.share >= LEAST_FRAMES_SHARE] or found[:1]
    found.sort(key=lambda one: -one.score)
    return FollowedShot(found[0].rows, tuple(found), _doubt(found))


def _without_twins(rivals: Sequence[Followed], long_side_px: float) -> list[Followed]:
    """Rivals without those that took the same way as an earlier one, which has their points too:
    a poor picture's points scatter so much that one motion can be found twice."""
    kept: list[Followed] = []
    for rival in sorted(rivals, key=lambda one: one.evidence.born):
        twin = next((one for one in kept if _apart_px(one, rival, long_side_px) < TWIN_PX), None)
        if twin is None:
            kept.append(rival)
        else:
            twin.evidence.take_in(rival.evidence)
    return kept


def _apart_px(one: Followed, other: Followed, long_side_px: float) -> float:
    """Root mean square distance of two ways, px, where both were followed since they parted."""
    since = max(one.evidence.born, other.evidence.born)
    both = [
        (in_path_units(a.step)[:2], in_path_units(b.step)[:2])
        for a, b in zip(one.rows[since:], other.rows[since:], strict=True)
        if a.step is not None and b.step is not None
    ]
    if len(both) < LEAST_COMMON:
        return float("inf")
    ways = np.cumsum(np.array(both), axis=0) * long_side_px / 100.0
    apart = ways[:, 0] - ways[:, 1]
    return float(np.sqrt(((apart - apart.mean(axis=0)) ** 2).sum(axis=1).mean()))


def _candidate(rival: Followed, still: bool) -> Candidate:
    evidence = rival.evidence
    frames = max(evidence.frames, 1)
    since = 0 if evidence.one_before else evidence.born
    known = [row for row in rival.rows[since:] if row.step is not None]
    share = len(known) / max(len(rival.rows), 1)
    score = (
        EDGE_WEIGHT * evidence.edge
        + SPREAD_WEIGHT * evidence.spread / frames
        + STILL_WEIGHT * still
        + PRESENT_WEIGHT * share
    )
    return Candidate(
        rows=tuple(rival.rows),
        score=score,
        middle=(evidence.x / frames, evidence.y / frames),
        points=evidence.points / frames,
        reach=evidence.reach,
        sides=evidence.sides,
        upper=evidence.upper,
        still=still,
        share=share,
        seen=tuple(rival.seen),
    )


def _doubt(found: list[Candidate]) -> str | None:
    first = found[0]
    if not first.still and not first.upper and (first.sides < LEAST_SIDES or len(found) > 1):
        # Land under a plain sky is all that can be followed, and one rigid thing; a person is not.
        return "alone"
    if len(found) > 1 and first.score - found[1].score < SURE_MARGIN:
        return "rivals"
    return None


def settled(
    motion: Motion,
    followed: dict[tuple[int, int], FollowedShot],
    size: tuple[int, int],
    *,
    told: bool,
) -> Motion:
    """The motion with what is known of each shot's rivals; what is not settled is trusted less.

    followed: by first frame and end. size: (width, height) of the working pictures, px. told: the
    shooter has said where the background is, so that nothing is left to doubt.
    """
    trust = motion.trust.copy()
    shots = []
    for shot in motion.shots:
        found = followed.get((shot.start, shot.stop))
        if found is None or not found.candidates or shot.reason is not None:
            shots.append(shot)
            continue
        rivals = tuple(_rival_path(one, size) for one in found.candidates)
        doubt = None if told else found.doubt
        if doubt == "rivals" and _alike(rivals[0], rivals[1], motion.t_s[shot.start : shot.stop]):
            doubt = None
        if doubt is not None:
            inside = slice(shot.start, shot.stop)
            trust[inside] = np.minimum(trust[inside], UNSETTLED_TRUST)
        shots.append(
            replace(
                shot,
                doubt=doubt,
                rivals=rivals if len(rivals) > 1 or doubt else (),
                seen=rivals[0].seen,
            )
        )
    return replace(motion, trust=trust, shots=tuple(shots))


def _rival_path(one: Candidate, size: tuple[int, int]) -> RivalPath:
    path, _, trust, _ = columns_of(one.rows, ())
    half = np.array(size) / (2.0 * max(size))
    x, y = np.array(one.middle) / half
    return RivalPath(path, trust, float(x), float(y), one.points, one.reach, one.still, one.seen)


def _alike(one: RivalPath, other: RivalPath, t_s: Floats) -> bool:
    """Whether two paths shake so much alike that it does not matter whose they are."""
    both = np.isfinite(one.path[:, 0]) & np.isfinite(other.path[:, 0])
    if both.sum() < 10:
        return False
    span = max(3, int(both.sum() / max(float(t_s[-1] - t_s[0]), 0.1)) | 1)
    quick = [_quick_speed(path[both, :2], span) for path in (one.path, other.path)]
    return max(quick) <= ALIKE_TIMES * max(min(quick), NOTHING_PCT)


def _quick_speed(path: Floats, span: int) -> float:
    """Root mean square step of a path (n, 2) about its mean over `span` frames."""
    steps = np.diff(path, axis=0)
    kernel = np.ones(min(span, len(steps))) / min(span, len(steps))
    slow = np.column_stack([np.convolve(column, kernel, mode="same") for column in steps.T])
    return float(np.sqrt(((steps - slow) ** 2).sum(axis=1).mean()))


def _way_px(rows: Sequence[Row], long_side_px: float) -> float:
    """Root mean square distance of a path from its middle, px; not a number where unknown."""
    steps = np.array([in_path_units(row.step)[:2] for row in rows if row.step is not None])
    if len(steps) < 2:
        return float("nan")
    path = np.cumsum(steps, axis=0) * long_side_px / 100.0
    return float(np.sqrt(((path - path.mean(axis=0)) ** 2).sum(axis=1).mean()))
