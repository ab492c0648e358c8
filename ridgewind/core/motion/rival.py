"""One rigid motion in the picture, followed from frame to frame by points of its own.

A picture holds one such motion, or several that are rivals for being the camera's. Frames are
compared with a reference that moves only when it must: every move of the reference adds a little
error for good, and comparing neighbours only would hide slow sway in a random walk. Points carry
a memory of how far they have agreed; what newly enters the picture has to earn its weight. Points
that go their own way are followed one by one, until some of them are seen to move as one.
"""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion import patches, pyramid
from ridgewind.core.motion.evidence import Evidence
from ridgewind.core.motion.fit import (
    Fit,
    Similarity,
    apply,
    build_equations,
    fit_members,
    read_at_centre,
    robust_fit,
    rough_similarity,
)
from ridgewind.core.motion.path import TRUSTED
from ridgewind.core.motion.reference import MIN_POINTS, PROVEN, Kept, Reference, make_reference
from ridgewind.core.motion.rigid import explains, rigid_groups
from ridgewind.core.motion.rows import Row, in_path_units

Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]
Members = NDArray[np.bool_]

NOISE_PX = 0.03
"""Least scatter of aligned patches, px at the working size (measured on sharp made clips)."""

COARSE_NOISE_PX = 0.25
"""Scatter of patches at the quarter size, px there."""

PLACE_OF_LEVEL = {pyramid.FULL: 0, pyramid.QUARTER: 1, pyramid.EIGHTH: 2}
FIT_ROUNDS = 2
SURE_PX = 1.0
"""While predictions have been off by less, px at the working size, the coarse search is spared."""

SURPRISE_DECAY = 0.9
FINE_ITERATIONS, SOFT_ITERATIONS = 2, 4
MIN_SCORE = 0.6
"""Correlation with its template from which a patch is believed."""

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
STRAY = 0.2
"""Memory of agreement under which a point is followed by its own last step."""

ERROR_SCALE_PX = 0.25
"""Standard error of the centre at which trust falls to a half, px at the working size."""

REMEMBERED = 12
"""Frames whose tracks are kept, so that a motion that is found late is known from its start."""

LEAST_REMEMBERED = 5
LEAST_SEEN, LEAST_TOLD = 0.5, 0.6
"""Shares of the points that must be found for a young shot to go on, and that must move as one in
groups for it to be young no more."""

SEARCH_EVERY, SEARCH_AT_MOST_EVERY = 3, 24
"""Frames between two searches for a motion among the points that do not agree."""

LOOSE_SIGMA_PX, MANY_STRAYS = 0.15, 0.15
"""Spread of the agreeing points, and share of the others, from which a search is worth it."""

OWN_AGREEMENT = 0.85
"""Memory of agreement that the members of a new motion begin with."""

MANY_PROVEN = 0.3
NARROWEST = 0.12
"""Root mean square extent of the agreeing points, in sides of the picture, under which trust
falls."""

HOLD_NARROWEST = 0.05
"""The same for whether a motion goes on there at all, beside another one, which may leave little
to be seen of it for a while."""

TURNED = 0.02
"""Turn (rad) or growth of a motion from which it matters that other things do not share it."""

ALIKE_PX = 0.15
"""Median distance, px at the working size, under which two motions' steps are the same."""

UNMIXED = 0.85
"""Share of the agreeing points that a motion's own group must make for its path to stand."""

RETRACE_SIGMAS = (8.0, 4.0, 3.0)


@dataclass(frozen=True)
class Frame:
    """A picture to be measured. luma: (height, width) at the working size. levels: pyramid."""

    t_s: float
    luma: pyramid.Image
    levels: list[Float32s]


@dataclass(frozen=True)
class Placed:
    """Where a motion has taken its points. fit: reference to frame. seen: (n,) points that were
    found. found: (n, 2) where, long sides from the centre. trust: 0 to 1. hold: how sure it is that
    the motion goes on there, which may be when its figures are not to be trusted."""

    fit: Fit
    seen: Members
    found: Floats
    trust: float
    hold: float


@dataclass
class _Instant:
    found: Floats
    seen: Members
    row: int  # which of the rows it is
    first: bool  # the first frame after the reference was made


class Rival:
    """A motion and the path that the camera would have if the motion were its own.

    size: (width, height) px of the working pictures. rows: one for each frame of the shot so far.
    """

    def __init__(
        self, size: tuple[int, int], reference: Reference, rows: list[Row], error: Floats
    ) -> None:
        self._size = size
        self._long = float(max(size))
        self._centre = np.array([(size[0] - 1) / 2.0, (size[1] - 1) / 2.0])
        self.reference = reference
        self.rows = rows
        self.evidence = Evidence()
        self._error_before = error  # left behind by earlier references
        self._instants: deque[_Instant] = deque(maxlen=REMEMBERED)
        self._wait = self._every = SEARCH_EVERY
        self._searched = len(rows) > 1  # a shot's first motion has to be looked at once
        self._sparse = False  # it was just told apart, and may find more points of its own
        self.placed: Placed | None = None  # in the last frame
        self.believed: Floats = np.empty((0, 2))
        """Where the points that agree are (k, 2), long sides from the centre."""
        self.alike: dict[int, int] = {}
        """At how many looks in a row this was the motion of another, by that one's id."""

    def locate(
        self, levels: list[Float32s], taken: Floats | None, jump: Floats | None = None
    ) -> Placed | None:
        """Align every patch, coarse to fine, and fit the motion; None where too few are found.

        taken: (m, 2) where points of other motions were last, long sides from the centre. jump:
        (2,) a shift of the picture since the last frame, long sides, to begin from; otherwise the
        motion of the last frame is taken to go on.
        """
        reference = self.reference
        h = self._predict(jump)
        strays = None if jump is not None else self._strays()
        plan = [(reference.quarter, 2), (reference.fine, FINE_ITERATIONS)]
        if jump is not None:
            plan = [(reference.eighth, 3), (reference.quarter, 3), (reference.fine, 4)]
        elif reference.surprise * self._long < SURE_PX:
            plan = [(reference.fine, FINE_ITERATIONS + 1)]
        gain: Float32s | None = None
        alone: Floats | None = None if strays is None else (reference.at + reference.way)[strays]
        if strays is not None:
            strays, alone = self._with_fresh(levels, h, strays)
        for templates, iterations in plan:
            guess = apply(h, reference.points)
            if strays is not None and alone is not None:
                guess[strays] = alone
            found, seen, gain = self._align(templates, levels, guess, h, iterations, gain, strays)
            if seen.sum() < MIN_POINTS:
                return None
            if templates.level:
                noise = COARSE_NOISE_PX * 2**templates.level / self._long
                h = rough_similarity(
                    apply(h, reference.points)[seen], found[seen], reference.agree[seen],
                    noise=noise,
                ) @ h  # fmt: skip
                if strays is not None:
                    alone = found[strays]
        equations = build_equations(
            reference.points[seen], found[seen], noise=NOISE_PX / self._long
        )
        spread = None if reference.spread[seen].max() <= 1.0 else reference.spread[seen]
        fit = robust_fit(
            equations, self._counted()[seen], start=h, rounds=FIT_ROUNDS, spread=spread
        )
        weights = np.zeros(len(found))
        weights[seen] = fit.weights
        fit = replace(fit, weights=weights)
        hidden = ~seen
        if taken is not None and len(taken):
            hidden[hidden] = ~patches.away_from(
                apply(fit.h, reference.points[hidden]), taken, 1.0 / patches.GRID[0]
            )
            narrowest = HOLD_NARROWEST
        else:
            hidden[:] = False
            narrowest = NARROWEST
        agree = reference.agree * ~hidden
        trust = self._trust(fit, agree, NARROWEST)
        return Placed(fit, seen, found, trust, self._trust(fit, agree, narrowest))

    def _counted(self) -> Floats:
        """(n,) how far each point counts in a fit, apart from its scatter. Where the points that
        have proven themselves are faint, a sharp newcomer counts no more than they do: it may be
        of what stands in front."""
        reference = self.reference
        proven, sharpness = reference.proven, 1.0 / reference.spread**2
        if not proven.any() or proven.all():
            return reference.agree
        usual = float(sharpness[proven].mean())
        fair = np.minimum(1.0, usual / sharpness)
        return np.where(proven, 1.0, fair) * reference.agree

    def _with_fresh(
        self, levels: list[Float32s], h: Floats, strays: Members
    ) -> tuple[Members, Floats]:
        """Points that go their own way, and where each begins: just after the reference was made,
        those without a memory are sought from coarse to fine, as nothing tells where they go."""
        reference = self.reference
        start = reference.at + reference.way
        fresh = (reference.agree < STRAY) & (reference.age == 0) & (reference.missed == 0)
        if not fresh.any():
            return strays, start[strays]
        place, linear = apply(h, reference.points[fresh]), _linear_at_centre(h).astype(np.float32)
        for templates in (reference.eighth, reference.quarter):
            guess = pyramid.to_level(place * self._long + self._centre, templates.level)
            aligned = patches.align(
                templates.only(fresh),
                levels[PLACE_OF_LEVEL[templates.level]],
                start_px=guess.astype(np.float32),
                linear=linear,
                iterations=3,
            )
            fine_px = (aligned.position_px.astype(np.float64) + 0.5) * 2**templates.level - 0.5
            place = (fine_px - self._centre) / self._long
        start[fresh] = place
        either = strays | fresh
        return either, start[either]

    def _strays(self) -> Members:
        """Points that are followed by their own last step: those that go their own way, and all
        while a shot is too young to tell."""
        reference = self.reference
        if self._young:
            return reference.followed.copy()
        out: Members = reference.followed & (reference.agree < STRAY)
        return out

    @property
    def _young(self) -> bool:
        """No search has been made since the shot began."""
        return not self._searched

    def believes(self, placed: Placed) -> bool:
        """Whether the motion goes on there. In a young shot it does while most of the points are
        found, although they do not move as one: two motions are not yet told apart."""
        together = self._young and float(placed.seen.mean()) > LEAST_SEEN
        return placed.hold >= TRUSTED or together

    def _align(
        self,
        templates: patches.Templates,
        levels: list[Float32s],
        guess: Floats,
        h: Floats,
        iterations: int,
        gain: Float32s | None,
        strays: Members | None,
    ) -> tuple[Floats, Members, Float32s]:
        """Where points are found (n, 2), which are, and their gains (n, 1), from a guess (n, 2).

        What goes its own way is not turned with the others.
        """
        linear = _linear_at_centre(h).astype(np.float32)
        alone = None
        if strays is not None and strays.any() and np.abs(linear - np.eye(2)).max() > TURNED:
            alone = strays
        fine_px, score = np.empty_like(guess), np.empty(len(guess), np.float32)
        gains = np.ones((len(guess), 1), np.float32)
        for part, turns, which in self._parts(templates, iterations):
            for chosen, turned in _halves(which, alone, linear):
                at = which[chosen]
                start_px = pyramid.to_level(guess[at] * self._long + self._centre, part.level)
                aligned = patches.align(
                    part if len(at) == len(which) else part.only(chosen),
                    levels[PLACE_OF_LEVEL[part.level]],
                    start_px=start_px.astype(np.float32),
                    linear=turned,
                    iterations=turns,
                    gain=None if gain is None else gain[at],
                )
                fine_px[at] = (aligned.position_px.astype(np.float64) + 0.5) * 2**part.level - 0.5
                score[at], gains[at] = aligned.score, aligned.gain
        seen = (score > MIN_SCORE) & self._inside(fine_px)
        return (fine_px - self._centre) / self._long, seen, gains

    def _parts(
        self, templates: patches.Templates, iterations: int
    ) -> list[tuple[patches.Templates, int, NDArray[np.intp]]]:
        """Templates, iterations and point numbers: soft points stay at the quarter size."""
        reference = self.reference
        every = np.arange(len(reference.points))
        if templates.level != pyramid.FULL or reference.sharp == len(every):
            return [(templates, iterations, every)]
        soft = slice(reference.sharp, None)
        return [
            (templates, iterations, every[: reference.sharp]),
            (reference.quarter.only(soft), SOFT_ITERATIONS, every[soft]),
        ]

    def _predict(self, jump: Floats | None) -> Floats:
        reference = self.reference
        if jump is None:
            h = reference.h @ np.linalg.inv(reference.h_before) @ reference.h
            steady: Floats = h / h[2, 2]
            return steady
        move = np.eye(3)
        move[:2, 2] = jump
        return move @ reference.h

    def _inside(self, at_px: Floats) -> Members:
        width, height = self._size
        edge = 4.0
        x, y = at_px[:, 0], at_px[:, 1]
        # Two comparisons instead of four: within so far of the middle.
        inside: Members = np.abs(x - (width - 1) / 2) < (width - 1) / 2 - edge
        inside &= np.abs(y - (height - 1) / 2) < (height - 1) / 2 - edge
        return inside

    def _trust(self, fit: Fit, agree: Floats, narrowest: float) -> float:
        """How far the fit can be believed: agreement, spread over the picture, sharpness."""
        reference = self.reference
        in_frame = self._inside(apply(fit.h, reference.points) * self._long + self._centre)
        weight = fit.weights * agree
        total, possible = float(weight.sum()), float(agree @ in_frame)
        if np.count_nonzero(fit.weights > 0.1) < MIN_POINTS or possible <= 0:
            return 0.0
        middle = weight @ reference.points / total
        variance = weight @ (reference.points**2) / total - middle**2
        # Root mean square distance along either side, 0.29 of it where the picture is full.
        spread = float((np.sqrt(variance) * self._long / self._size).min())
        sharp = 1.0 / (1.0 + (fit.centre_se * self._long / ERROR_SCALE_PX) ** 2)
        return min(1.0, total / possible / 0.5) * min(1.0, spread / narrowest) * sharp

    def accept(self, frame: Frame, placed: Placed, taken: Floats | None) -> Similarity:
        """Take a place for true and go on from it; returns the step since the last frame.

        taken: (m, 2) where points of other motions are, long sides from the centre.
        """
        reference, fit, seen = self.reference, placed.fit, placed.seen
        expected = self._predict(None)[:2, 2]
        off = float(np.abs(fit.h[:2, 2] - expected).max())
        reference.surprise = max(off, SURPRISE_DECAY * reference.surprise)
        step = read_at_centre(fit.h @ np.linalg.inv(reference.h))
        error = self._error_before + in_path_units(fit.split)
        reference.agree += MEMORY * (fit.weights - reference.agree) * seen
        reference.proven |= reference.agree > PROVEN
        reference.way = np.where(
            (seen & reference.followed)[:, None], placed.found - reference.at, 0.0
        )
        reference.at, reference.followed = placed.found, seen
        gone = reference.missed + 1
        reference.h_before = reference.h if gone == 1 else fit.h
        reference.h, reference.missed = fit.h, 0
        reference.age += 1
        beside = 0 if taken is None else len(taken)
        outliers = int(np.count_nonzero(fit.weights[seen] < OUTLIER_WEIGHT)) + beside
        outlier_share = outliers / max(int(np.count_nonzero(seen)) + beside, 1)
        self.placed = placed
        agree = seen & (fit.weights > BELIEVED_WEIGHT) & (reference.agree > STRAY)
        self.believed = placed.found[agree]
        self._instants.append(_Instant(placed.found, seen, len(self.rows), reference.age == 1))
        self.rows.append(Row(frame.t_s, step, error, placed.trust, "", outlier_share))
        if self._worn(fit, beside > 0):
            self._move_reference(frame, fit, taken)
            self._error_before = error
        return step

    def miss(self, t_s: float, reason: str) -> None:
        """The motion was not found in this frame."""
        self.reference.missed += 1
        self.reference.h_before = self.reference.h
        self.reference.followed[:] = False
        self.placed, self.believed = None, np.empty((0, 2))
        self._instants.clear()
        self.rows.append(Row(t_s, None, None, 0.0, reason))

    def _worn(self, fit: Fit, rivalled: bool) -> bool:
        reference = self.reference
        if self._young:
            return False
        moved = read_at_centre(fit.h)
        agreeing = float((fit.weights * reference.agree).sum())
        few = rivalled and len(self.believed) < FEW_BELIEVED and reference.age > FEW_REST
        return (
            self._sparse
            or few
            or np.hypot(moved.dx, moved.dy) > REFERENCE_SHIFT
            or abs(moved.log_scale) > REFERENCE_LOG_SCALE
            or abs(moved.turn) > REFERENCE_TURN_RAD
            or (agreeing < REFERENCE_AGREE * reference.usual and reference.age > REFERENCE_REST)
        )

    def _move_reference(self, frame: Frame, fit: Fit, taken: Floats | None) -> None:
        reference = self.reference
        here = apply(fit.h, reference.points)
        inside = self._inside(here * self._long + self._centre)
        keep = (fit.weights > BELIEVED_WEIGHT) & inside
        kept = Kept(
            points=here[keep],
            spread=reference.spread[keep],
            soft=np.arange(len(here))[keep] >= reference.sharp,
            agree=reference.agree[keep],
            born_s=reference.born_s[keep],
            lost=here[inside & ~keep],
        )
        made = make_reference(frame.luma, frame.levels, t_s=frame.t_s, kept=kept, taken=taken)
        if made is None:
            return
        drift = np.linalg.inv(reference.h @ np.linalg.inv(reference.h_before))
        made.h_before = drift / drift[2, 2]
        made.surprise = reference.surprise
        self.reference, self._sparse = made, False
        self._instants.clear()

    def split(self, others: list[Rival]) -> list[Rival]:
        """Motions that are found among points which do not agree with this one, as rivals of
        their own. This one's own path is told anew where two motions had been blended."""
        if not self._worth_a_search():
            return []
        first = self._young
        groups = self._groups()
        told = bool(np.sum(groups) > LEAST_TOLD * np.count_nonzero(self._instants[-1].seen))
        self._searched |= told or len(self._instants) == REMEMBERED
        own = self._own_of(groups, first)
        fresh = [group for group in groups if group is not own and self._is_new(group, others)]
        if own is None or not (fresh or first) or self._young:
            self._every = min(2 * self._every, SEARCH_AT_MOST_EVERY)
            self._wait = self._every
            return []
        self._wait = self._every = SEARCH_EVERY
        children = [self._child(group) for group in fresh]
        shared = [self._share_evidence(*one) for one in zip(children, fresh, strict=True)]
        foreign = ~own if first else np.any([g for g in groups if g is not own], axis=0)
        self._take_as_own(own, foreign, anew=first)
        gone = np.any(fresh, axis=0) if fresh else np.zeros(len(own), np.bool_)
        if gone.any():
            if any(shared):
                self.evidence = Evidence(born=self.evidence.born)
            self._sparse = True
            self.reference = self.reference.only(~gone)
            for instant in self._instants:
                instant.found, instant.seen = instant.found[~gone], instant.seen[~gone]
        self.believed = self.reference.at[own[~gone]]
        return children

    def _share_evidence(self, child: Rival, members: Members) -> bool:
        """Whether a new motion's points have agreed with this one so far: then what was gathered
        says nothing of either. Points that never did came into the picture later, and before
        that this motion had it for itself."""
        if float(self.reference.proven[members].mean()) > MANY_PROVEN or not self.evidence.frames:
            return True
        child.evidence.frames = self.evidence.frames
        child.evidence.known = self.evidence.known.copy()
        return False

    def _worth_a_search(self) -> bool:
        if self.placed is None or len(self._instants) < LEAST_REMEMBERED:
            return False
        if self._young:
            return True
        self._wait -= 1
        if self._wait > 0:
            return False
        fit, seen = self.placed.fit, self.placed.seen
        strays = np.count_nonzero(fit.weights[seen] < OUTLIER_WEIGHT)
        return strays > max(MIN_POINTS - 1, MANY_STRAYS * seen.sum()) or (
            fit.sigma * self._long > LOOSE_SIGMA_PX
        )

    def _groups(self) -> list[Members]:
        """Rigid groups among all points that were found lately."""
        instants = list(self._instants)
        last = len(instants) - 1
        chosen = [instants[k] for k in sorted({last // 3, 2 * last // 3, last})]
        usable = np.all([instant.seen for instant in chosen], axis=0)
        if usable.sum() < 2 * MIN_POINTS:
            return []
        found = rigid_groups(
            self.reference.points[usable],
            np.stack([instant.found[usable] for instant in chosen]),
            self.reference.spread[usable],
            noise=NOISE_PX / self._long,
            least=MIN_POINTS,
        )
        groups = []
        for members in found:
            group = np.zeros(len(usable), np.bool_)
            group[np.flatnonzero(usable)[members]] = True
            groups.append(group)
        return groups

    def _own_of(self, groups: list[Members], first: bool) -> Members | None:
        """Which group is this motion; None where there is none."""
        if not groups or self.placed is None:
            return None
        if first:
            return groups[0]
        weight = self.placed.fit.weights * self.reference.agree
        return max(groups, key=lambda group: float(weight[group].sum()))

    def _is_new(self, group: Members, others: list[Rival]) -> bool:
        """Whether no other rival moves in this way."""
        points, spread = self.reference.points[group], self.reference.spread[group]
        here, noise = self.reference.at[group], NOISE_PX / self._long
        for other in others:
            if other is self or other.placed is None or len(other._instants) < 2:
                continue
            # What has happened since the other's last frame but one, seen at these points.
            turn = other.reference.h @ np.linalg.inv(other.reference.h_before)
            before = here - self.reference.way[group]
            if explains(turn / turn[2, 2], before, here, spread, noise=noise) > 0.6:
                return False
        return bool(len(points))

    def moves_like(self, other: Rival) -> bool:
        """Whether the last frame's step was the other's too, where this one's points are."""
        if self.placed is None or other.placed is None or len(self.believed) < 4:
            return False
        here = self.believed
        ways = [
            apply(rival.reference.h @ np.linalg.inv(rival.reference.h_before), here)
            for rival in (self, other)
        ]
        apart_px = np.hypot(*(ways[0] - ways[1]).T) * self._long
        return float(np.median(apart_px)) < ALIKE_PX

    def _traced(self, members: Members) -> list[Floats]:
        """The motion (3, 3) of some points at every remembered instant."""
        noise, h, out = NOISE_PX / self._long, np.eye(3), []
        sigmas = tuple(sigma * noise for sigma in RETRACE_SIGMAS)
        for instant in self._instants:
            seen = members & instant.seen
            if seen.sum() >= 4:
                points, found = self.reference.points[seen], instant.found[seen]
                start = np.eye(3)
                start[:2, 2] = np.median(found - apply(h, points), axis=0)
                h, _ = fit_members(
                    build_equations(points, found, noise=noise),
                    np.ones(len(points)),
                    self.reference.spread[seen],
                    start=start @ h,
                    sigmas=(20.0 * noise, *sigmas),
                )
            out.append(h)
        return out

    def _rows_along(self, traced: list[Floats], trust: float) -> list[Row]:
        """This motion's rows, the last ones told anew along traced motions."""
        rows = list(self.rows)
        first = self._instants[0].first
        before = np.eye(3) if first else traced[0]
        for instant, h in zip(self._instants, traced, strict=True):
            if first or instant is not self._instants[0]:
                step = read_at_centre(h @ np.linalg.inv(before))
                rows[instant.row] = replace(
                    rows[instant.row], step=step, error=self._error_before.copy(), trust=trust
                )
            before = h
        return rows

    def _trust_along(self, members: Members, traced: list[Floats]) -> float:
        """Trust of the last frame for the motion of some points alone."""
        last = self._instants[-1]
        seen = members & last.seen
        equations = build_equations(
            self.reference.points[seen], last.found[seen], noise=NOISE_PX / self._long
        )
        spread = self.reference.spread[seen]
        fit = robust_fit(
            equations, np.ones(len(spread)), start=traced[-1], rounds=FIT_ROUNDS, spread=spread
        )
        weights = np.zeros(len(seen))
        weights[seen] = fit.weights
        return self._trust(replace(fit, weights=weights), members.astype(np.float64), NARROWEST)

    def _child(self, members: Members) -> Rival:
        traced = self._traced(members)
        trust = self._trust_along(members, traced)
        reference = self.reference.only(members)
        reference.agree[:] = OWN_AGREEMENT
        reference.usual = float(reference.agree.sum())
        reference.h = traced[-1]
        reference.h_before = traced[-2]
        child = Rival(
            self._size, reference, self._rows_along(traced, trust), self._error_before.copy()
        )
        child.evidence.born = self._instants[0].row
        child._instants = deque(
            (_Instant(i.found[members], i.seen[members], i.row, i.first) for i in self._instants),
            maxlen=REMEMBERED,
        )
        child.believed, child._sparse = child._instants[-1].found, True
        return child

    def _take_as_own(self, members: Members, foreign: Members, *, anew: bool) -> None:
        reference = self.reference
        assert self.placed is not None
        weight = self.placed.fit.weights * reference.agree
        mixed = float(weight[members].sum()) < UNMIXED * float(weight.sum())
        if anew or mixed or self.placed.fit.sigma * self._long > LOOSE_SIGMA_PX:
            traced = self._traced(members)
            self.rows = self._rows_along(traced, self._trust_along(members, traced))
            reference.h, reference.h_before = traced[-1], traced[-2]
        reference.agree[members] = np.maximum(reference.agree[members], OWN_AGREEMENT)
        reference.agree[foreign] = np.minimum(reference.agree[foreign], 0.5 * STRAY)
        reference.usual = float(reference.agree.sum())


def _halves(
    which: NDArray[np.intp], alone: Members | None, linear: Float32s
) -> list[tuple[Members, Float32s]]:
    """Of some points (k,), those of the common motion and those that go their own way, with how
    each are turned; neither is empty."""
    if alone is None:
        return [(np.ones(len(which), np.bool_), linear)]
    own = alone[which]
    parts = ((~own, linear), (own, np.eye(2, dtype=np.float32)))
    return [(chosen, turned) for chosen, turned in parts if chosen.any()]


def _linear_at_centre(h: Floats) -> Floats:
    """(2, 2) derivative of a homography at the origin."""
    shift = h[:2, 2:] / h[2, 2]
    out: Floats = (h[:2, :2] - shift @ h[2:, :2]) / h[2, 2]
    return out
