"""What a new library holds: typical kit, two set-ups, and a brief for each feel.

Run at every start, so that shipped entries are brought up to date; the shooter's own, and
what they have archived, stay as they are.
"""

from __future__ import annotations

import sqlite3

from ridgewind.core.brief import FEELS, USUAL_FEEL, usual_brief
from ridgewind.core.kit import typical
from ridgewind.core.kit.bench import usual_bench
from ridgewind.store import briefs, database, kit

BRIEF_NAMES = {
    "smooth": "Smooth, for a laptop",
    "locked": "Locked, for a laptop",
    "alive": "Alive, for a laptop",
    "raw": "Raw, for a laptop",
}


def seed(db: sqlite3.Connection) -> None:
    """Put in what is missing; safe to repeat."""
    with database.atomic(db):
        ids = _items(db)
        for key, (name, camera, lens, optics, supports) in typical.SET_UPS.items():
            if kit.setup_by_key(db, key) is not None:
                continue
            ask = kit.SetupAsk(
                name=name,
                camera_id=ids[camera],
                lens_id=ids[lens],
                support_ids=tuple(ids[support] for support in supports),
                optics=optics,
                bench=usual_bench(),
            )
            setup_id = kit.add_setup(db, ask, key=key)
            if key == typical.USUAL_SET_UP:
                kit.mark_setup_used(db, setup_id)
        for feel in FEELS:
            if briefs.by_key(db, feel) is None:
                brief_id = briefs.add(db, usual_brief(feel), name=BRIEF_NAMES[feel], key=feel)
                if feel == USUAL_FEEL:
                    briefs.mark_used(db, brief_id)


def _items(db: sqlite3.Connection) -> dict[str, int]:
    ids = {}
    for shelf in (typical.CAMERAS, typical.LENSES, typical.SUPPORTS):
        for key, (name, spec) in shelf.items():
            ids[key] = kit.put_typical(db, spec, name=name, key=key)
    return ids
