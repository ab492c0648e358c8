"""A strap's length for one body, where it is taut, and how hard to pull.

Body proportions are round figures chosen here from the chest girth C, after common tables of
clothing sizes: neck girth 0.38 C, chest depth 0.25 C, half breadth 0.17 C, drop from nape to
breastbone 0.2 C. They give a first length to mark; a length measured once on the body replaces
them.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ridgewind.core.errors import InvalidArgumentError, require_between, require_choice
from ridgewind.core.kit.items import MOST_SIZE_MM, Route
from ridgewind.core.units import STANDARD_GRAVITY_M_S2, told_length

HALF_NECK, CHEST_DEPTH, HALF_BREADTH, DROP = 0.19, 0.25, 0.17, 0.20
"""Shares of the chest girth (chosen here, see above)."""

WEDGE_MM = 40.0
"""A camera wedged against the chest stands off it by about half its depth (chosen here)."""

FELT_N = (0.0, 6.0, 15.0, 30.0, 50.0)
"""Pull at each felt level 1 to 5: slack, light, firm, hard, as hard as it goes (chosen here)."""

BEST_N = (8.0, 22.0)
"""Pull that helps: under it nothing happens, over it the arms begin to tremble (chosen here)."""

LIMIT_AT_BEST_MIN, NECK_SHARE = 20.0, 0.5
"""Minutes of pull in a session at the middle of the best range, and what the neck takes of it."""


@dataclass(frozen=True)
class Body:
    """forearm_mm: elbow to knuckles. chest_mm: girth. measured_mm: taut length measured on this
    body for the chosen route, None until it has been."""

    forearm_mm: float
    chest_mm: float
    measured_mm: float | None

    def __post_init__(self) -> None:
        require_between("forearm_mm", self.forearm_mm, 200, 600, "mm")
        require_between("chest_mm", self.chest_mm, 500, 1800, "mm")
        if self.measured_mm is not None:
            require_between("measured_mm", self.measured_mm, 50, MOST_SIZE_MM, "mm")


@dataclass(frozen=True)
class StrapPlan:
    """taut_mm: length at which the strap is taut on the chosen route; by_route_mm: on each.
    mark_mm: where to mark the strap from its end, None where it is too short (reason). pull_n:
    from the scale or the felt level. scale_kg: what a luggage scale shows at the best pull, low
    and high. verdict: slack, helps or too hard. limit_min: minutes of pull in one session."""

    route: Route
    taut_mm: float
    by_route_mm: dict[Route, float]
    take_up_mm: float
    mark_mm: float | None
    reason: str | None
    pull_n: float
    scale_low_kg: float
    scale_high_kg: float
    verdict: str
    limit_min: float
    on_neck: bool


def taut_length_mm(route: Route, *, forearm_mm: float, chest_mm: float) -> float:
    """Length of a strap that is taut on a route.

    neck: round the nape and down to a camera a forearm ahead of the breastbone.
    under_arm: slanting round the back, over one shoulder and under the other arm.
    chest: round the nape, the camera wedged against the breastbone.

    >>> round(taut_length_mm("neck", forearm_mm=350, chest_mm=1000))
    1221
    """
    nape = HALF_NECK * chest_mm
    drop, half_depth = DROP * chest_mm, 0.5 * CHEST_DEPTH * chest_mm
    if route == "neck":
        return nape + 2.0 * math.hypot(half_depth + forearm_mm, drop)
    if route == "chest":
        return nape + 2.0 * math.hypot(half_depth + WEDGE_MM, drop)
    require_choice("route", route, ("neck", "under_arm", "chest"))
    back = math.hypot(0.5 * chest_mm, drop)
    return back + 2.0 * math.hypot(forearm_mm, HALF_BREADTH * chest_mm)


def kg_to_newton(scale_kg: float) -> float:
    """Reading of a luggage scale as a force."""
    return scale_kg * STANDARD_GRAVITY_M_S2


def newton_to_kg(pull_n: float) -> float:
    """A force as a luggage scale shows it."""
    return pull_n / STANDARD_GRAVITY_M_S2


def session_limit_min(pull_n: float) -> float:
    """Minutes of pull in one session: as the pull grows, they shrink in proportion."""
    middle = sum(BEST_N) / 2.0
    return min(60.0, LIMIT_AT_BEST_MIN * middle / max(pull_n, 1.0))


def plan_strap(
    body: Body,
    *,
    route: Route,
    length_mm: float,
    scale_kg: float | None,
    felt: int | None,
) -> StrapPlan:
    """Length, mark and pull for one body.

    length_mm: the strap fully let out. scale_kg: a luggage scale hooked to the strap in the
    hold; felt: level 1 to 5 where there is no scale. One of them is needed.
    """
    require_between("length_mm", length_mm, 50, MOST_SIZE_MM, "mm")
    if scale_kg is None and felt is None:
        raise InvalidArgumentError("felt", None, "give a reading of the scale or a felt level")
    if scale_kg is not None:
        require_between("scale_kg", scale_kg, 0, 20, "kg")
    if felt is not None and felt not in range(1, len(FELT_N) + 1):
        raise InvalidArgumentError("felt", felt, f"it goes from 1 to {len(FELT_N)}")
    routes: tuple[Route, ...] = ("neck", "under_arm", "chest")
    require_choice("route", route, routes)
    by_route = {
        one: taut_length_mm(one, forearm_mm=body.forearm_mm, chest_mm=body.chest_mm)
        for one in routes
    }
    taut = by_route[route] if body.measured_mm is None else body.measured_mm
    pull = kg_to_newton(scale_kg) if scale_kg is not None else FELT_N[(felt or 1) - 1]
    take_up = length_mm - taut
    too_short = take_up < 0
    return StrapPlan(
        route=route,
        taut_mm=taut,
        by_route_mm=by_route,
        take_up_mm=take_up,
        mark_mm=None if too_short else taut,
        reason=_too_short(-take_up) if too_short else None,
        pull_n=pull,
        scale_low_kg=newton_to_kg(BEST_N[0]),
        scale_high_kg=newton_to_kg(BEST_N[1]),
        verdict=_verdict(pull),
        limit_min=session_limit_min(pull),
        on_neck=route != "under_arm",
    )


def _verdict(pull_n: float) -> str:
    if pull_n < BEST_N[0]:
        return "slack"
    return "helps" if pull_n <= BEST_N[1] else "too hard"


def _too_short(lacks_mm: float) -> str:
    return f"the strap is {told_length(lacks_mm)} too short for this route"
