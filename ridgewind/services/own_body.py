"""The shooter's own body, as far as the strap panel knows it."""

from __future__ import annotations

from ridgewind.core.kit.bench import usual_bench
from ridgewind.core.practice.skeleton import HEIGHT_RANGE_M, Lengths
from ridgewind.store import kit
from ridgewind.store.database import Connection

MM_PER_M = 1000.0


def own_lengths(db: Connection) -> Lengths:
    """By the forearm that was given for the strap of the set-up in use, in usual proportions;
    usual lengths where none was given."""
    setup_id = kit.usual_setup_id(db)
    if setup_id is None:
        return Lengths()
    forearm_mm = kit.setup_by_id(db, setup_id).ask.bench.strap.forearm_mm
    if forearm_mm == usual_bench().strap.forearm_mm:
        return Lengths()
    shortest_m, tallest_m = HEIGHT_RANGE_M
    height_m = Lengths().height_m * forearm_mm / (MM_PER_M * Lengths().forearm)
    return Lengths(min(tallest_m, max(shortest_m, height_m)))
