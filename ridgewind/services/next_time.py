"""What could help the next take: drills, the kit's own lenses and rates, what is on record."""

from __future__ import annotations

import math
from collections import defaultdict

from ridgewind.core.judge.next_time import Hint, LensRange, Record
from ridgewind.core.kit.items import Camera, Lens
from ridgewind.core.practice.drill import Drill
from ridgewind.services import limits
from ridgewind.store import drills, kit, summaries
from ridgewind.store.database import Connection
from ridgewind.store.takes import TakeRow

RECORDS_OF = 400
"""Newest takes that are looked at for what is on record."""


def drill_for(db: Connection, cause: str, filed: str | None) -> Drill | None:
    """A drill whose faults name a cause: the easier neighbour of the one it was filmed for where
    that does, else the first of the library that needs nothing in the bag."""
    library = drills.library(db)
    fits = [drill for drill in library.values() if any(f.cause == cause for f in drill.faults)]
    if not fits:
        return None
    own = library.get(filed) if filed is not None else None
    near = [] if own is None else [own.easier, own.key, own.harder]
    by_key = {drill.key: drill for drill in fits}
    for key in near:
        if key in by_key:
            return by_key[key]
    return min(fits, key=lambda drill: (len(drill.needs), _rank(drill, cause)))


def _rank(drill: Drill, cause: str) -> int:
    """Where among a drill's faults a cause stands: the first is what the drill is about."""
    return next(index for index, fault in enumerate(drill.faults) if fault.cause == cause)


def beyond_limit(db: Connection, take: TakeRow, focal_eq_mm: float) -> Hint | None:
    """That a take was filmed through a longer lens than its technique bears under its brief; None
    where it was not, or too few takes tell it."""
    if take.drill_key is None or take.variation_key is None:
        return None
    found = limits.longest_lens(db, take.brief, take.drill_key, take.variation_key)
    if found is None or focal_eq_mm <= found.longest_mm:
        return None
    text = (
        f"“{found.name}” bears {math.floor(found.longest_mm)} mm at this feel, over {found.takes}"
        f" takes of yours; this was {focal_eq_mm:.0f} mm."
    )
    return Hint("limit", text)


def lenses(db: Connection, take: TakeRow) -> list[LensRange]:
    """The kit's own lenses that fit the camera of a take, with its equivalent focal lengths."""
    if take.setup_id is None:
        return []
    setup = kit.setup_by_id(db, take.setup_id)
    parts = kit.parts_of(db, setup.ask)
    factor = setup.focal_eq_mm / setup.ask.optics.focal_mm
    return [
        LensRange(item.name, item.spec.focal_min_mm * factor, item.spec.focal_max_mm * factor)
        for item in kit.items(db)
        if isinstance(item.spec, Lens)
        and item.spec.mount == parts.camera.mount
        and not item.archived
        and (not item.typical or item.setups)
    ]


def rates_hz(db: Connection, take: TakeRow) -> list[float]:
    """Frame rates that the camera of a take has."""
    if take.setup_id is None:
        return []
    camera: Camera = kit.parts_of(db, kit.setup_by_id(db, take.setup_id).ask).camera
    return sorted({rate for mode in camera.modes for rate in mode.rates_hz})


def records(db: Connection) -> list[Record]:
    """What is on record, by set-up; a take whose set-up is not known tells nothing of one."""
    names = {setup.id: setup.ask.name for setup in kit.setups(db)}
    found: dict[str, list[tuple[float, float]]] = defaultdict(list)
    for one in summaries.body_speeds(db, limit=RECORDS_OF):
        if one.setup_id in names:
            found[names[one.setup_id]].append((one.speed_pct_s, one.focal_eq_mm))
    return [
        Record(name, tuple(one[0] for one in rows), tuple(one[1] for one in rows))
        for name, rows in found.items()
    ]
