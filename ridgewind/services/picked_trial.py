"""A trial by hand: any picked takes compared, grouped by what tells them apart."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Literal

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.services import trials
from ridgewind.services.figures import FIGURES
from ridgewind.services.trials import Comparison, Side
from ridgewind.store import drills, findings
from ridgewind.store.database import Connection
from ridgewind.store.findings import PickedTake

Grouping = Literal["variation", "setup", "lens", "brief"]

MOST_TAKES, MOST_GROUPS = 500, 24


def of_picked(
    db: Connection,
    take_ids: Sequence[int],
    *,
    grouping: Grouping,
    control: str | None,
    by: str | None,
) -> Comparison:
    """Compare takes in groups. control: key of the group that the others are compared with; None is
    the one with the most takes. by: key of a figure; None is the usual one. Takes of no session
    count as of one each day. Raises InvalidArgumentError."""
    if by is not None and by not in FIGURES:
        raise InvalidArgumentError("by", by, f"it must be one of {', '.join(FIGURES)}")
    if len(take_ids) > MOST_TAKES:
        raise InvalidArgumentError("takes", len(take_ids), f"at most {MOST_TAKES} are compared")
    name_of = _naming(db, grouping)
    picked = [
        replace(one.filed, variation_key=name)
        for one in findings.picked_takes(db, list(take_ids))
        if (name := name_of(one)) is not None
    ]
    names = list(dict.fromkeys(one.variation_key for one in picked))
    if len(names) < 2 or len(names) > MOST_GROUPS:
        rule = (
            f"it must tell 2 to {MOST_GROUPS} groups apart, and here it tells {len(names)};"
            " group them otherwise, or pick other takes"
        )
        raise InvalidArgumentError("grouping", grouping, rule)
    counts = {name: sum(one.variation_key == name for one in picked) for name in names}
    usual = max(names, key=lambda name: counts[name])
    chosen = control if control in counts else usual
    sides = tuple(Side(name, name, name == chosen) for name in names)
    figure = FIGURES[by] if by else trials.usual_figure(picked)
    return trials.compare(sides, picked, figure)


def _naming(db: Connection, grouping: Grouping) -> Callable[[PickedTake], str | None]:
    """How a take's group is called; None where it belongs to none."""
    if grouping == "setup":
        return lambda one: one.setup_name
    if grouping == "brief":
        return lambda one: one.brief_name
    if grouping == "lens":
        return lambda one: f"{one.filed.focal_eq_mm:.0f} mm"
    library = drills.library(db, archived=True)

    def variation(one: PickedTake) -> str | None:
        drill = library.get(one.filed.drill_key)
        names = {} if drill is None else {each.key: each.name for each in drill.variations}
        return names.get(one.filed.variation_key)

    return variation
