"""Tell a motion apart from another among the points of one reference.

Points that do not agree with a motion, or agree loosely, are searched for groups that move as one.
Each such group becomes a rival of its own, with the path that it has had for as long as the tracks
are remembered; before that it moved with the others.
"""

from __future__ import annotations

from collections import deque
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.evidence import Evidence, gather
from ridgewind.core.motion.fit import (
    apply,
    build_equations,
    fit_members,
    inverse_of,
    read_at_centre,
    robust_fit,
)
from ridgewind.core.motion.placing import FIT_ROUNDS, NOISE_PX, STRAY, Placed
from ridgewind.core.motion.reference import MIN_POINTS
from ridgewind.core.motion.rigid import explains, rigid_groups
from ridgewind.core.motion.rival import FEW_BELIEVED, OUTLIER_WEIGHT, REMEMBERED, Rival
from ridgewind.core.motion.rows import Row

Floats = NDArray[np.float64]
Members = NDArray[np.bool_]

LEAST_REMEMBERED = 5
"""Frames of tracks that a search needs."""

LEAST_TOLD = 0.6
"""Share of the points that must move as one in groups for a shot to be young no more, and of what
agrees with a motion for a search among its points to have succeeded."""

SEARCH_EVERY, SEARCH_AT_MOST_EVERY = 3, 24
"""Frames between two searches; twice as many after each that finds nothing."""

LOOSE_SIGMA_PX, MANY_STRAYS = 0.15, 0.15
"""Spread of the agreeing points, and share of the others, from which a search is worth it."""

LOOSENED, SIGMA_MEMORY = 2.5, 0.05
"""Multiple of the usual spread from which points have suddenly come to agree loosely, and how much
of the usual one each frame makes."""

SAME_MOTION = 0.6
"""Share of a group that another motion must explain for the two to be one."""

APART_PX = 0.6
"""Median distance, px at the working size, from which a group has plainly gone another way: the
points of a poor picture scatter by half of it."""

AGREED = 0.5
"""Memory of agreement from which a point was one of the motion's own."""

OWN_AGREEMENT = 0.85
"""Memory of agreement that the members of a new motion begin with."""

MANY_PROVEN = 0.3
"""Share of a group that must once have agreed for the two to have been one so far."""

SOME_PROVEN, HELD = 0.1, 0.5
"""The same where the motion holds less than this share of the edges without the group as it did
with it: what it held was the group's. Somebody who stands nearly still is followed with the wall,
and closer than it."""

UNMIXED = 0.85
"""Share of the agreeing points that a motion's own group must make for its path to stand."""

RETRACE_SIGMAS = (20.0, 8.0, 4.0, 3.0)
"""Multiples of the noise, one for each round of a fit to a group."""


def part(rival: Rival, others: list[Rival]) -> list[Rival]:
    """Motions that are found among a rival's points, as rivals of their own. The rival's own path
    is told anew where two motions had been blended."""
    if rival.placed is None or not _is_worth_a_search(rival, rival.placed):
        return []
    first = rival.young
    groups = _groups(rival)
    told = bool(np.sum(groups) > LEAST_TOLD * np.count_nonzero(rival.instants[-1].seen))
    rival.young &= not told and len(rival.instants) < REMEMBERED
    if not first and not _explain(rival.placed, rival.reference.agree, groups):
        groups = []
    own = _own_of(rival.placed, rival.reference.agree, groups, first)
    fresh = [
        group
        for group in groups
        if group is not own
        and own is not None
        and _is_apart(rival, own, group)
        and _is_new(rival, group, others)
    ]
    if own is None or not (fresh or first) or rival.young:
        rival.search_every = min(2 * max(rival.search_every, 1), SEARCH_AT_MOST_EVERY)
        rival.search_in = rival.search_every
        return []
    rival.search_in = rival.search_every = SEARCH_EVERY
    children = [_child(rival, group) for group in fresh]
    shared = [_share_evidence(rival, *one) for one in zip(children, fresh, strict=True)]
    foreign = ~own if first else np.any([g for g in groups if g is not own], axis=0)
    _take_as_own(rival, rival.placed, own, foreign, anew=first or bool(fresh))
    gone = np.any(fresh, axis=0) if fresh else np.zeros(len(own), np.bool_)
    if gone.any():
        if any(shared):
            rival.evidence = Evidence(born=rival.evidence.born, one_before=True)
        rival.sparse = not first or own.sum() < FEW_BELIEVED
        rival.reference = rival.reference.only(~gone)
        rival.instants = deque((one.only(~gone) for one in rival.instants), maxlen=REMEMBERED)
    rival.believe(rival.reference.at, own[~gone])
    return children


def _is_worth_a_search(rival: Rival, placed: Placed) -> bool:
    if len(rival.instants) < LEAST_REMEMBERED:
        return False
    if rival.young:
        return True
    usual, sigma = rival.usual_sigma or placed.fit.sigma, placed.fit.sigma
    rival.usual_sigma = usual + SIGMA_MEMORY * (sigma - usual)
    if sigma > max(LOOSENED * usual, LOOSE_SIGMA_PX / rival.placer.long_px):
        return True  # one fit blends two motions, one of which has just begun
    rival.search_in -= 1
    if _is_torn(rival, placed):
        rival.search_in, rival.search_every = min(rival.search_in, SEARCH_EVERY), SEARCH_EVERY
    if rival.search_in > 0:
        return False
    strays = np.count_nonzero(placed.fit.weights[placed.seen] < OUTLIER_WEIGHT)
    return bool(
        strays > max(MIN_POINTS - 1, MANY_STRAYS * placed.seen.sum())
        or placed.fit.sigma * rival.placer.long_px > LOOSE_SIGMA_PX
    )


def _groups(rival: Rival) -> list[Members]:
    """Rigid groups among all points that were found lately."""
    last = len(rival.instants) - 1
    chosen = [rival.instants[k] for k in sorted({last // 3, 2 * last // 3, last})]
    usable = np.all([instant.seen for instant in chosen], axis=0)
    if usable.sum() < 2 * MIN_POINTS:
        return []
    found = rigid_groups(
        rival.reference.points[usable],
        np.stack([instant.found[usable] for instant in chosen]),
        rival.reference.spread[usable],
        noise=NOISE_PX / rival.placer.long_px,
        least=MIN_POINTS,
    )
    groups = []
    for members in found:
        group = np.zeros(len(usable), np.bool_)
        group[np.flatnonzero(usable)[members]] = True
        groups.append(group)
    return groups


def _is_torn(rival: Rival, placed: Placed) -> bool:
    """Whether many points that agreed so far do not any more, all at once: a search must not wait
    for long then."""
    agreed = placed.seen & (rival.reference.agree > AGREED)
    left = agreed & (placed.fit.weights < OUTLIER_WEIGHT)
    return bool(np.count_nonzero(left) > max(MIN_POINTS - 1, MANY_STRAYS * placed.seen.sum()))


def _explain(placed: Placed, agree: Floats, groups: list[Members]) -> bool:
    """Whether groups hold most of what agrees with a motion. Where they do not, it is the search
    that has failed, and nothing is known against the motion."""
    weight = placed.fit.weights * agree
    within = sum(float(weight[group].sum()) for group in groups)
    return within > LEAST_TOLD * float(weight.sum())


def _own_of(placed: Placed, agree: Floats, groups: list[Members], first: bool) -> Members | None:
    """Which group is the motion itself; None where there is none."""
    if not groups:
        return None
    if first:
        return groups[0]
    weight = placed.fit.weights * agree
    return max(groups, key=lambda group: float(weight[group].sum()))


def _is_apart(rival: Rival, own: Members, group: Members) -> bool:
    """Whether a group is plainly elsewhere than the rival's own motion would have taken it."""
    last, reference, long_px = rival.instants[-1], rival.reference, rival.placer.long_px
    seen = own & last.seen
    noise = NOISE_PX / long_px
    points, found = reference.points[seen], last.found[seen]
    shift = np.eye(3)
    shift[:2, 2] = np.median(found - points, axis=0)
    h, _ = fit_members(
        build_equations(points, found, noise=noise),
        np.ones(len(points)),
        reference.spread[seen],
        start=shift,
        sigmas=(1.0, *(sigma * noise for sigma in RETRACE_SIGMAS)),
    )
    away = apply(h, reference.points[group]) - last.found[group]
    return float(np.median(np.hypot(*away.T))) * long_px > APART_PX


def _is_new(rival: Rival, group: Members, others: list[Rival]) -> bool:
    """Whether no other rival has moved in this way in the last frame."""
    spread, here = rival.reference.spread[group], rival.reference.at[group]
    before, noise = here - rival.reference.way[group], NOISE_PX / rival.placer.long_px
    return not any(
        explains(other.last_step(), before, here, spread, noise=noise) > SAME_MOTION
        for other in others
        if other is not rival and other.placed is not None and len(other.instants) > 1
    )


def _share_evidence(rival: Rival, child: Rival, members: Members) -> bool:
    """Whether a new motion's points have agreed with this one so far: then what was gathered
    says nothing of either. Points that never did came into the picture later, and before
    that this motion had it for itself."""
    gathered = rival.evidence.frames
    proven = float(rival.reference.proven[members].mean())
    blended = proven > SOME_PROVEN and _edge_without(rival, members) < HELD * rival.evidence.edge
    if not gathered or proven > MANY_PROVEN or blended:
        child.evidence.one_before = True
        return True
    child.evidence.frames = gathered
    child.evidence.known = rival.evidence.known.copy()
    return False


def _edge_without(rival: Rival, members: Members) -> float:
    """Share of the picture's edges that a motion's points hold without some of them, 0 to 1."""
    size = np.array(rival.placer.size)
    places, now = rival.reference.at, [Evidence(), Evidence()]
    gather(now, [places[~members], places[members]], size / (2.0 * size.max()))
    return now[0].edge


def _traced(rival: Rival, members: Members) -> list[Floats]:
    """The motion (3, 3) of some points at every remembered instant."""
    noise, h, out = NOISE_PX / rival.placer.long_px, np.eye(3), []
    for instant in rival.instants:
        seen = members & instant.seen
        if seen.sum() >= 4:
            points, found = rival.reference.points[seen], instant.found[seen]
            shift = np.eye(3)
            shift[:2, 2] = np.median(found - apply(h, points), axis=0)
            h, _ = fit_members(
                build_equations(points, found, noise=noise),
                np.ones(len(points)),
                rival.reference.spread[seen],
                start=shift @ h,
                sigmas=tuple(sigma * noise for sigma in RETRACE_SIGMAS),
            )
        out.append(h)
    return out


def _rows_along(rival: Rival, traced: list[Floats], trust: float) -> list[Row]:
    """A rival's rows, the last ones told anew along traced motions."""
    rows, first = list(rival.rows), rival.instants[0].first
    before = np.eye(3) if first else traced[0]
    for instant, h in zip(rival.instants, traced, strict=True):
        if first or instant is not rival.instants[0]:
            step = read_at_centre(h @ inverse_of(before))
            rows[instant.row] = replace(
                rows[instant.row], step=step, error=rival.error_before.copy(), trust=trust
            )
        before = h
    return rows


def _trust_along(rival: Rival, members: Members, traced: list[Floats]) -> float:
    """Trust of the last frame for the motion of some points alone."""
    reference, last = rival.reference, rival.instants[-1]
    seen = members & last.seen
    spread = reference.spread[seen]
    equations = build_equations(
        reference.points[seen], last.found[seen], noise=NOISE_PX / rival.placer.long_px
    )
    fit = robust_fit(
        equations, np.ones(len(spread)), start=traced[-1], rounds=FIT_ROUNDS, spread=spread
    )
    weights = np.zeros(len(seen))
    weights[seen] = fit.weights
    fit = replace(fit, weights=weights)
    placer, share = rival.placer, members.astype(np.float64)
    return placer.trust(reference, fit, share, placer.narrowest)[0]


def _child(rival: Rival, members: Members) -> Rival:
    traced = _traced(rival, members)
    trust = _trust_along(rival, members, traced)
    reference = rival.reference.only(members)
    reference.agree[:] = OWN_AGREEMENT
    reference.usual = float(reference.agree.sum())
    reference.h, reference.h_before = traced[-1], traced[-2]
    child = Rival(
        rival.placer,
        reference,
        _rows_along(rival, traced, trust),
        error=rival.error_before.copy(),
    )
    child.evidence.born = rival.instants[0].row
    child.instants.extend(one.only(members) for one in rival.instants)
    child.believe(child.instants[-1].found, np.ones(int(members.sum()), np.bool_))
    child.sparse = True
    return child


def _take_as_own(
    rival: Rival, placed: Placed, members: Members, foreign: Members, *, anew: bool
) -> None:
    """The members are what the rival follows, and foreign points are not."""
    reference = rival.reference
    weight = placed.fit.weights * reference.agree
    mixed = float(weight[members].sum()) < UNMIXED * float(weight.sum())
    if anew or mixed or placed.fit.sigma * rival.placer.long_px > LOOSE_SIGMA_PX:
        traced = _traced(rival, members)
        rival.rows = _rows_along(rival, traced, _trust_along(rival, members, traced))
        reference.h, reference.h_before = traced[-1], traced[-2]
    reference.agree[members] = np.maximum(reference.agree[members], OWN_AGREEMENT)
    reference.agree[foreign] = np.minimum(reference.agree[foreign], 0.5 * STRAY)
    reference.usual = float(reference.agree.sum())
