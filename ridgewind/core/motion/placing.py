"""Where a motion has taken its points in a frame: patches aligned coarse to fine, and a fit."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion import patches, pyramid
from ridgewind.core.motion.fit import (
    Fit,
    apply,
    build_equations,
    inverse_of,
    robust_fit,
    rough_similarity,
)
from ridgewind.core.motion.reference import MIN_POINTS, Reference
from ridgewind.core.motion.sighting import Region

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

OWN_START_PX = 1.5
"""Distance from the common motion, px at the working size, from which a point that was found by the
coarse search is sought on from there."""

FINE_ITERATIONS = 2
EYE = np.eye(2, dtype=np.float32)
MIN_SCORE = 0.6
"""Correlation with its template from which a patch is believed."""

STRAY = 0.2
"""Memory of agreement under which a point is followed by its own last step."""

ERROR_SCALE_PX = 0.25
"""Standard error of the centre at which trust falls to a half, px at the working size."""

NARROWEST = 0.12
"""Root mean square extent of the agreeing points, in sides of the picture, under which trust
falls."""

HOLD_NARROWEST = 0.05
"""The same for whether a motion goes on there at all, beside another one, which may leave little
to be seen of it for a while."""

TURNED = 0.02
"""Turn (rad) or growth of a motion from which it matters that other things do not share it."""


@dataclass(frozen=True)
class Frame:
    """A picture to be measured. luma: (height, width) at the working size. levels: pyramid."""

    t_s: float
    luma: pyramid.Image
    levels: list[Float32s]


@dataclass(frozen=True)
class Placed:
    """Where a motion has taken its points. fit: reference to frame. seen: (n,) points that were
    found. found: (n, 2) where, long sides from the centre. score: (n,) how alike each patch still
    looks, -1 to 1. trust: 0 to 1. hold: how sure it is that the motion goes on there, which may
    be when its figures are not to be trusted."""

    fit: Fit
    seen: Members
    found: Floats
    score: Float32s
    gain: Float32s | None
    trust: float
    hold: float


class Placer:
    """Finds motions in frames. size: (width, height) px of the working pictures. region: part of
    the picture in which alone points are chosen, as the shooter says; None for all of it."""

    def __init__(self, size: tuple[int, int], region: Region | None = None) -> None:
        self.size, self.region = size, region
        self.narrowest = NARROWEST if region is None else HOLD_NARROWEST
        self.long_px = float(max(size))
        self._centre = np.array([(size[0] - 1) / 2.0, (size[1] - 1) / 2.0])

    def to_px(self, points: Floats) -> Floats:
        """Points (n, 2), long sides from the centre, to px."""
        out: Floats = points * self.long_px + self._centre
        return out

    def place(
        self,
        reference: Reference,
        levels: list[Float32s],
        taken: Floats | None,
        jump: Floats | None,
        *,
        alone: bool,
    ) -> Placed | None:
        """Align every patch, coarse to fine, and fit the motion; None where too few are found.

        levels: of the frame. taken: (m, 2) where points of other motions were last, long sides
        from the centre. jump: (2,) a shift of the picture since the last frame, long sides, to
        begin from; otherwise the motion of the last frame is taken to go on. alone: every point
        is followed by its own last step, as nothing is known yet of what moves as one.
        """
        h = predicted(reference, jump)
        strays = None if jump is not None else _strays(reference, alone=alone)
        plan = [(reference.quarter, 2), (reference.fine, FINE_ITERATIONS)]
        if jump is not None:
            plan = [(reference.eighth, 3), (reference.quarter, 3), (reference.fine, 4)]
        elif reference.surprise * self.long_px < SURE_PX:
            plan = [(reference.fine, FINE_ITERATIONS + 1)]
        gain = reference.gain
        starts: Floats | None = None
        if strays is not None:
            strays, starts = self._with_fresh(reference, levels, h, strays)
        for templates, iterations in plan:
            guess = apply(h, reference.points)
            if strays is not None and starts is not None:
                guess[strays] = starts
            found, seen, gain, score = self._align(
                reference, templates, levels, guess, h, iterations, gain, strays
            )
            if seen.sum() < MIN_POINTS:
                return None
            if templates.level:
                noise = COARSE_NOISE_PX * 2**templates.level / self.long_px
                h = rough_similarity(
                    apply(h, reference.points)[seen], found[seen], reference.agree[seen],
                    noise=noise,
                ) @ h  # fmt: skip
                if strays is not None:
                    # What has just gone another way would be lost if it were sought with the rest.
                    apart = np.hypot(*(found - apply(h, reference.points)).T) * self.long_px
                    strays = strays | (seen & (apart > OWN_START_PX))
                    starts = found[strays]
        equations = build_equations(
            reference.points[seen], found[seen], noise=NOISE_PX / self.long_px
        )
        spread = None if reference.spread[seen].max() <= 1.0 else reference.spread[seen]
        fit = robust_fit(
            equations, _counted(reference)[seen], start=h, rounds=FIT_ROUNDS, spread=spread
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
            narrowest = self.narrowest
        agree = reference.agree * ~hidden
        trust, hold = self.trust(reference, fit, agree, self.narrowest, narrowest)
        return Placed(fit, seen, found, score, gain, trust, hold)

    def _with_fresh(
        self, reference: Reference, levels: list[Float32s], h: Floats, strays: Members
    ) -> tuple[Members, Floats]:
        """Points that go their own way, and where each begins: just after the reference was made,
        those without a memory are sought from coarse to fine, as nothing tells where they go."""
        start = reference.at + reference.way
        fresh = (reference.agree < STRAY) & (reference.age == 0) & (reference.missed == 0)
        if not fresh.any():
            return strays, start[strays]
        place, linear = apply(h, reference.points[fresh]), _linear_at_centre(h).astype(np.float32)
        for templates in (reference.eighth, reference.quarter):
            guess = pyramid.to_level(place * self.long_px + self._centre, templates.level)
            aligned = patches.align(
                templates.only(fresh),
                levels[PLACE_OF_LEVEL[templates.level]],
                start_px=guess.astype(np.float32),
                linear=linear,
                iterations=3,
            )
            fine_px = (aligned.position_px.astype(np.float64) + 0.5) * 2**templates.level - 0.5
            place = (fine_px - self._centre) / self.long_px
        start[fresh] = place
        either = strays | fresh
        return either, start[either]

    def _align(
        self,
        reference: Reference,
        templates: patches.Templates,
        levels: list[Float32s],
        guess: Floats,
        h: Floats,
        iterations: int,
        gain: Float32s | None,
        strays: Members | None,
    ) -> tuple[Floats, Members, Float32s, Float32s]:
        """From a guess (n, 2): where points are found (n, 2), which are, gains (n, 1), scores (n,).

        What goes its own way is not turned with the others.
        """
        linear = _linear_at_centre(h).astype(np.float32)
        alone = None
        if strays is not None and np.abs(linear - EYE).max() > TURNED and strays.any():
            alone = strays
        fine_px, score = np.empty_like(guess), np.empty(len(guess), np.float32)
        gains = np.ones((len(guess), 1), np.float32)
        for part, turns, which in _parts(reference, templates, iterations):
            for chosen, turned in _halves(which, alone, linear):
                at = which if chosen is None else np.flatnonzero(chosen) + which.start
                start_px = pyramid.to_level(guess[at] * self.long_px + self._centre, part.level)
                aligned = patches.align(
                    part if chosen is None else part.only(chosen),
                    levels[PLACE_OF_LEVEL[part.level]],
                    start_px=start_px.astype(np.float32),
                    linear=turned,
                    iterations=turns,
                    gain=None if gain is None else gain[at],
                )
                fine_px[at] = (aligned.position_px.astype(np.float64) + 0.5) * 2**part.level - 0.5
                score[at], gains[at] = aligned.score, aligned.gain
        seen = (score > MIN_SCORE) & self.inside(fine_px)
        return (fine_px - self._centre) / self.long_px, seen, gains, score

    def inside(self, at_px: Floats) -> Members:
        """Which places (n, 2), px, are in the picture."""
        width, height = self.size
        edge = 4.0
        x, y = at_px[:, 0], at_px[:, 1]
        # Two comparisons instead of four: within so far of the middle.
        inside: Members = np.abs(x - (width - 1) / 2) < (width - 1) / 2 - edge
        inside &= np.abs(y - (height - 1) / 2) < (height - 1) / 2 - edge
        return inside

    def trust(
        self, reference: Reference, fit: Fit, agree: Floats, *narrowest: float
    ) -> tuple[float, ...]:
        """How far the fit can be believed: agreement, spread over the picture, sharpness. One
        value for each extent that is asked of the points, in sides of the picture."""
        in_frame = self.inside(apply(fit.h, reference.points) * self.long_px + self._centre)
        weight = fit.weights * agree
        total, possible = float(weight.sum()), float(agree @ in_frame)
        if np.count_nonzero(fit.weights > 0.1) < MIN_POINTS or min(possible, total) <= 0:
            return (0.0,) * len(narrowest)
        middle = weight @ reference.points / total
        variance = weight @ (reference.points**2) / total - middle**2
        # Root mean square distance along either side, 0.29 of it where the picture is full.
        spread = float((np.sqrt(np.maximum(variance, 0.0)) * self.long_px / self.size).min())
        sharp = 1.0 / (1.0 + (fit.centre_se * self.long_px / ERROR_SCALE_PX) ** 2)
        sure = min(1.0, total / possible / 0.5) * sharp
        return tuple(sure * min(1.0, spread / least) for least in narrowest)


def _strays(reference: Reference, *, alone: bool) -> Members:
    """Points that are followed by their own last step."""
    if alone:
        return reference.followed.copy()
    out: Members = reference.followed & (reference.agree < STRAY)
    return out


def _counted(reference: Reference) -> Floats:
    """(n,) how far each point counts in a fit, apart from its scatter. Where the points that
    have proven themselves are faint, a sharp newcomer counts no more than they do: it may be
    of what stands in front."""
    proven, sharpness = reference.proven, 1.0 / reference.spread**2
    if not proven.any() or proven.all():
        return reference.agree
    usual = float(sharpness[proven].mean())
    fair = np.minimum(1.0, usual / sharpness)
    return np.where(proven, 1.0, fair) * reference.agree


def _parts(
    reference: Reference, templates: patches.Templates, iterations: int
) -> list[tuple[patches.Templates, int, slice]]:
    """Templates, iterations and which points: soft ones stay at the quarter size."""
    count, sharp = len(reference.points), reference.sharp
    if templates.level != pyramid.FULL or sharp == count:
        return [(templates, iterations, slice(0, count))]
    return [
        (templates, iterations, slice(0, sharp)),
        (reference.soft, iterations, slice(sharp, count)),
    ]


def predicted(reference: Reference, jump: Floats | None) -> Floats:
    """The motion (3, 3) that a reference's points will have in the next frame."""
    if jump is None:
        h = reference.h @ inverse_of(reference.h_before) @ reference.h
        steady: Floats = h / h[2, 2]
        return steady
    move = np.eye(3)
    move[:2, 2] = jump
    return move @ reference.h


def _halves(
    which: slice, alone: Members | None, linear: Float32s
) -> list[tuple[Members | None, Float32s]]:
    """Of some points, those of the common motion and those that go their own way, with how each
    are turned; neither is empty. None stands for all of them."""
    if alone is None:
        return [(None, linear)]
    own = alone[which]
    parts = ((~own, linear), (own, EYE))
    return [(chosen, turned) for chosen, turned in parts if chosen.any()]


def _linear_at_centre(h: Floats) -> Floats:
    """(2, 2) derivative of a homography at the origin."""
    shift = h[:2, 2:] / h[2, 2]
    out: Floats = (h[:2, :2] - shift @ h[2:, :2]) / h[2, 2]
    return out
