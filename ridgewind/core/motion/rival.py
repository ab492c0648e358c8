"""One rigid motion in the picture, followed from frame to frame by points of its own.

A picture holds one such motion, or several that are rivals for being the camera's. Frames are
compared with a reference that moves only when it must: every move of the reference adds a little
error for good, and comparing neighbours only would hide slow sway in a random walk. Points carry
a memory of how far they have agreed; what newly enters the picture has to earn its weight. Points
that go their own way are followed one by one, until some of them are seen to move as one.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Sequence
from copy import deepcopy
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.evidence import Evidence
from ridgewind.core.motion.fit import Fit, Similarity, apply, inverse_of, read_at_centre
from ridgewind.core.motion.patches import GRID
from ridgewind.core.motion.path import TRUSTED
from ridgewind.core.motion.placing import STRAY, Frame, Placed, Placer, predicted
from ridgewind.core.motion.reference import PROVEN, Kept, Reference, make_reference
from ridgewind.core.motion.rows import Row, in_path_units
from ridgewind.core.motion.sighting import Sighting

Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]
Members = NDArray[np.bool_]

SURPRISE_DECAY = 0.9
MEMORY = 0.12
"""Share of the newest frame in a point's memory of agreement."""

REFERENCE_SHIFT = 0.14
REFERENCE_LOG_SCALE = 0.12
REFERENCE_TURN_RAD = 0.14
REFERENCE_AGREE = 0.6
REFERENCE_REST = 8
"""Frames for which a new reference stays although fewer points agree with it: what crosses the
picture would otherwise move it in every frame, each time at a little error for good."""

FEW_BELIEVED, FEW_REST = 50, 15
"""Points, beside another motion, under which more are looked for, and frames between two such
looks: what is in front uncovers places that hold no point yet."""

OUTLIER_WEIGHT, BELIEVED_WEIGHT = 0.1, 0.3

REMEMBERED = 12
"""Frames whose tracks are kept, so that a motion that is found late is known from its start."""

LEAST_SEEN = 0.5
"""Share of the points that must be found for a young shot to go on."""

SAME_LOOK = 0.85
"""Correlation under which a point that stays is another one by its look, as in a dissolve."""

ALIKE_PX = 0.15
"""Median distance, px at the working size, under which two motions' steps are the same."""


@dataclass
class Instant:
    """Where points were found in a frame. found: (n, 2). seen: (n,). row: which of the rows it is.
    first: it is the first frame after the reference was made."""

    found: Floats
    seen: Members
    row: int
    first: bool

    def only(self, chosen: Members) -> Instant:
        """Of some of the points."""
        return Instant(self.found[chosen], self.seen[chosen], self.row, self.first)


def _outlier_share(placed: Placed, taken: Floats | None) -> float:
    """Share of what is followed that moves otherwise, by cells where other motions have points."""
    outlying = placed.fit.weights[placed.seen] < OUTLIER_WEIGHT
    if taken is None or not len(taken):
        return float(outlying.mean()) if len(outlying) else 0.0
    found = placed.found[placed.seen]
    own, other = _cells(found[~outlying]), _cells(np.concatenate([found[outlying], taken]))
    return len(other - own) / max(len(own | other), 1)


def _cells(points: Floats) -> set[tuple[int, int]]:
    """Cells of the grid in which points (n, 2) lie."""
    return set(map(tuple, np.floor(points * GRID[0]).astype(int).tolist()))


@dataclass(frozen=True)
class Followed:
    """What was made of a motion until now. rows: a row a frame. evidence: what speaks for it, its
    own to change. seen: where its points were."""

    rows: Sequence[Row]
    evidence: Evidence
    seen: Sequence[Sighting]


class Rival:
    """A motion and the path that the camera would have if the motion were its own.

    rows: one for each frame of the shot so far. error: (4,) left behind by earlier references.
    young: nothing is known yet of what moves as one in this shot.
    """

    def __init__(
        self,
        placer: Placer,
        reference: Reference,
        rows: list[Row],
        *,
        error: Floats,
        young: bool = False,
    ) -> None:
        self.placer = placer
        self.reference = reference
        self.rows = rows
        self.error_before = error
        self.young = young
        self.evidence = Evidence()
        self.instants: deque[Instant] = deque(maxlen=REMEMBERED)
        self.sparse = False
        """It was just told apart, and may find more points of its own."""
        self.search_in, self.search_every = 0, 0
        """Frames until the next search for other motions among its points, and between two."""
        self.usual_sigma: float | None = None
        """Spread of the agreeing points in the last second or so, long sides."""
        self.placed: Placed | None = None
        """Where it was in the last frame."""
        self.believed: Floats = np.empty((0, 2))
        """Where the points that agree are (k, 2), long sides from the centre."""
        self.believed_born_s: Floats = np.empty(0)
        """When the points that agreed in the last frame were first found (k,)."""
        self.seen: list[Sighting] = []
        """Where its points were, a few times a second."""
        self.alike: dict[int, int] = {}
        """At how many looks in a row this was the motion of another, by that one's id."""

    def followed(self, rows: Sequence[Row]) -> Followed:
        """What was made of it until now, with these rows; going on does not change it."""
        return Followed(tuple(rows), deepcopy(self.evidence), tuple(self.seen))

    def locate(
        self, levels: list[Float32s], taken: Floats | None, jump: Floats | None = None
    ) -> Placed | None:
        """Where it is in a frame, see Placer.place; None where too few points are found."""
        return self.placer.place(self.reference, levels, taken, jump, alone=self.young)

    def believes(self, placed: Placed) -> bool:
        """Whether the motion goes on there. In a young shot it does while most of the points are
        found, although they do not move as one: two motions are not yet told apart."""
        together = self.young and float(placed.seen.mean()) > LEAST_SEEN
        return placed.hold >= TRUSTED or together

    def accept(self, frame: Frame, placed: Placed, taken: Floats | None) -> Similarity:
        """Take a place for true and go on from it; returns the step since the last frame.

        taken: (m, 2) where points of other motions are, long sides from the centre.
        """
        reference, fit, seen = self.reference, placed.fit, placed.seen
        expected = predicted(reference, None)[:2, 2]
        off = float(np.abs(fit.h[:2, 2] - expected).max())
        reference.surprise = max(off, SURPRISE_DECAY * reference.surprise)
        step = read_at_centre(fit.h @ inverse_of(reference.h))
        error = self.error_before + in_path_units(fit.split)
        self._remember(reference, placed)
        beside = 0 if taken is None else len(taken)
        outlier_share = _outlier_share(placed, taken)
        self.placed = placed
        agree = seen & (fit.weights > BELIEVED_WEIGHT) & (reference.agree > STRAY)
        self.believe(placed.found, agree)
        self.instants.append(Instant(placed.found, seen, len(self.rows), reference.age == 1))
        fresh = reference.age == 1
        self.rows.append(
            Row(
                frame.t_s,
                step,
                error,
                placed.trust,
                "",
                outlier_share,
                shear=fit.shear,
                fresh=fresh,
            )
        )
        if self._worn(fit, beside > 0):
            self._move_reference(frame, placed, taken)
            self.error_before = error
        return step

    def _remember(self, reference: Reference, placed: Placed) -> None:
        """Points remember how far they agree, where they are, and how they came there."""
        fit, seen = placed.fit, placed.seen
        reference.agree += MEMORY * (fit.weights - reference.agree) * seen
        reference.proven |= reference.agree > PROVEN
        both = (seen & reference.followed)[:, None]
        reference.way = np.where(both, placed.found - reference.at, 0.0)
        reference.at, reference.followed, reference.gain = placed.found, seen, placed.gain
        reference.h_before = reference.h if reference.missed == 0 else fit.h
        reference.h, reference.missed = fit.h, 0
        reference.age += 1

    def believe(self, found: Floats, members: Members) -> None:
        """These of its points, found there (n, 2), are the motion's own."""
        self.believed, self.believed_born_s = found[members], self.reference.born_s[members]

    def miss(self, t_s: float, reason: str) -> None:
        """The motion was not found in this frame."""
        self.reference.missed += 1
        self.reference.h_before = self.reference.h
        self.reference.followed[:] = False
        self.placed = None
        self.believed, self.believed_born_s = np.empty((0, 2)), np.empty(0)
        self.instants.clear()
        self.rows.append(Row(t_s, None, None, 0.0, reason))

    def _worn(self, fit: Fit, rivalled: bool) -> bool:
        """Whether the reference has to move."""
        if self.young:
            return False
        reference, moved = self.reference, read_at_centre(fit.h)
        agreeing = float((fit.weights * reference.agree).sum())
        few = rivalled and len(self.believed) < FEW_BELIEVED and reference.age > FEW_REST
        return (
            self.sparse
            or few
            or np.hypot(moved.dx, moved.dy) > REFERENCE_SHIFT
            or abs(moved.log_scale) > REFERENCE_LOG_SCALE
            or abs(moved.turn) > REFERENCE_TURN_RAD
            or (agreeing < REFERENCE_AGREE * reference.usual and reference.age > REFERENCE_REST)
        )

    def _move_reference(self, frame: Frame, placed: Placed, taken: Floats | None) -> None:
        reference, fit = self.reference, placed.fit
        here = apply(fit.h, reference.points)
        inside = self.placer.inside(self.placer.to_px(here))
        keep = (fit.weights > BELIEVED_WEIGHT) & inside
        kept = Kept(
            points=here[keep],
            spread=reference.spread[keep],
            soft=np.arange(len(here))[keep] >= reference.sharp,
            agree=reference.agree[keep],
            born_s=np.where(placed.score > SAME_LOOK, reference.born_s, frame.t_s)[keep],
            lost=here[inside & ~keep],
        )
        made = make_reference(
            frame.luma,
            frame.levels,
            t_s=frame.t_s,
            kept=kept,
            taken=taken,
            region=self.placer.region,
        )
        if made is None:
            return
        drift = inverse_of(reference.h @ inverse_of(reference.h_before))
        made.h_before = drift / drift[2, 2]
        made.surprise = reference.surprise
        self.reference, self.sparse = made, False
        self.instants.clear()

    def last_step(self) -> Floats:
        """The motion (3, 3) of the last frame."""
        step: Floats = self.reference.h @ inverse_of(self.reference.h_before)
        step /= step[2, 2]
        return step

    def moves_like(self, other: Rival) -> bool:
        """Whether the last frame's step was the other's too, where this one's points are."""
        if self.placed is None or other.placed is None or len(self.believed) < 4:
            return False
        ways = [apply(rival.last_step(), self.believed) for rival in (self, other)]
        apart_px = np.hypot(*(ways[0] - ways[1]).T) * self.placer.long_px
        return float(np.median(apart_px)) < ALIKE_PX
