"""Fill a library with the demo's kit, briefs and clips; the worker measures them like any."""

from __future__ import annotations

import hashlib
import io
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, time, timedelta
from pathlib import Path

from ridgewind.core.brief import Brief, usual_brief
from ridgewind.core.kit.bench import usual_bench
from ridgewind.core.kit.items import Mode, Optics, Place
from ridgewind.core.kit.typical import CAMERAS as CAMERA_SHELF
from ridgewind.core.practice.session import Ask
from ridgewind.core.sequence.plain_words import read_line
from ridgewind.demo import mark
from ridgewind.demo.dating import dated, moment_of
from ridgewind.demo.story import CLIPS, DEMO_TAKES
from ridgewind.library.library import Library
from ridgewind.services import practising
from ridgewind.standin.camera import plan
from ridgewind.standin.turning import turning_log
from ridgewind.store import briefs, database, kit, outings, sessions, takes
from ridgewind.store.database import Connection
from ridgewind.store.outings import OutingFacts


@dataclass(frozen=True)
class DemoClip:
    """A made clip, when it was filmed as the story tells it, and the brief and set-up that its
    shooter would give it, by name."""

    file: Path
    name: str
    recorded_at: str
    brief: str
    setup: str
    focal_eq_mm: float


SIMULATED_CAMERA = CLIPS / "millstone-grip-slips.mp4"
"""What the simulated camera sees, for those who have none connected."""

SIMULATED_SENSOR_S = 20.0


def simulated_sensor() -> str:
    """The turning rates of the hand that films what the simulated camera sees, as a phone's motion
    sensor writes them, CSV."""
    script = next(one.script for one in DEMO_TAKES if one.file == SIMULATED_CAMERA)
    return turning_log(plan(replace(script, seconds=SIMULATED_SENSOR_S)))


RENDERED = Mode("Rendered", 960, 540, (24.0, 25.0, 30.0, 60.0, 120.0), 0.0, 8.0)
"""How the stand-in camera films the demo's clips."""

OWN = replace(usual_brief(), delivery_width_px=RENDERED.width_px,
              delivery_height_px=RENDERED.height_px)  # fmt: skip

BRIEFS: dict[str, Brief] = {
    "Restoration film, smooth": OWN,
    "Opening pan": replace(OWN, delivery_fps=25.0),
    "Door insert, locked": replace(OWN, feel="locked"),
    "Sacks and hoist, alive": replace(
        OWN, feel="alive", why="The lifting is hard work; the picture may feel it."
    ),
}
"""Briefs of the restoration of Harrow Top; the first is the usual one."""

CAMERAS = {"Stand-in phone": "phone", "Stand-in mirrorless": "full_mirrorless"}
"""Simulated cameras by name: typical ones that can also film as the stand-in camera does."""


@dataclass(frozen=True)
class DemoSetup:
    """camera: a name of CAMERAS. lens, supports: keys of typical kit."""

    camera: str
    lens: str
    optics: Optics
    supports: tuple[str, ...]
    handle: Place | None


SETUPS: dict[str, DemoSetup] = {
    "Gallery rig, top handle": DemoSetup(
        "Stand-in mirrorless", "long_zoom", Optics(1, 25.0, 70.0, True, True, False, 50.0),
        ("top_handle", "neck_strap"), Place(0, 150, 0),
    ),
    "Mirrorless on the monopod": DemoSetup(
        "Stand-in mirrorless", "standard_zoom", Optics(0, 30.0, 50.0, False, False, False, 60.0),
        ("monopod",), None,
    ),
    "Mirrorless, 24–70, strap taut": DemoSetup(
        "Stand-in mirrorless", "standard_zoom", Optics(0, 60.0, 35.0, False, True, False, 125.0),
        ("neck_strap",), None,
    ),
    "Phone, bare hands": DemoSetup(
        "Stand-in phone", "phone_main", Optics(0, 30.0, 6.5, True, False, False, None), (), None
    ),
}  # fmt: skip
"""The volunteer's set-ups; the last one is the one in use."""

SAME_MM = 0.05

SESSION = "Track, hoist and gate"
PRACTISED: dict[str, dict[str, str]] = {
    "walk-camera": {
        "pressed": "Mill door, walk-in, heels down",
        "off": "Mill door, walk-in, off the body",
    },
    "hands": {"one": "Sails, one hand, tired", "two": "Sack hoist, bare hands"},
    "lean-wall": {"shoulder": "Mill from the track, against the gate"},
}
"""The drills that the volunteer practised, and which clip shows which variation of each."""

PRACTISED_AT = time(9, 40, tzinfo=UTC)
"""Of the day before the demo is started; a take every MINUTES_APART."""

MINUTES_APART = 2
PRACTICE = Ask(30.0, tuple(PRACTISED), "path", ("lean",), (), 5, ())


OUTING = OutingFacts("The mill, brought back", place="the yard", light="low sun")
SHOTS: dict[str, str | None] = {
    "wide of the mill from the track, gate in front, 5 s": "Mill from the track, against the gate",
    "wide of the ridge, pan left 4 s": "Ridge, pan from the hips",
    "close on the mill door, low, walk in 3 s": "Mill door, walk-in, off the body",
    "detail of the sill of the mill door, low, 3 s": "Mill door, camera on the sill",
    "medium of the miller, walks into the frame, ask the miller, 4 s": None,
    "close on the millstones, low, 4 s": "Millstone, grip slips",
    "close on the sacks, slide right 3 s": "Sacks, slide by weight shift",
    "detail of the sack hoist, from below, inside, 3 s, twice": "Sack hoist, bare hands",
    "close on the sails of the mill, evening, 4 s": "Sails, one hand, tired",
    "medium of the cap and the sails, evening, 4 s": "Cap and sails, monopod",
    "wide of the mill, pull out 5 s, leaving": None,
}
"""Shots of the volunteer's outing in plain words, each with the clip that was filmed for it; two
are missing, and the pan was filmed the wrong way round."""


def fill(library: Library, clips: list[DemoClip], *, today: date) -> None:
    """Bring kit, briefs and every clip in, in order, and file some under a practised session."""
    with database.opened(library.database) as db:
        with database.atomic(db):
            ids = kit.typical_ids(db) | _add_cameras(db)
            setup_ids = {name: _add_setup(db, name, setup, ids) for name, setup in SETUPS.items()}
            brief_ids = {name: briefs.add(db, brief, name=name) for name, brief in BRIEFS.items()}
            kit.mark_setup_used(db, setup_ids[next(reversed(SETUPS))])
            briefs.mark_used(db, brief_ids[next(iter(BRIEFS))])
        filed: dict[str, int] = {}
        for clip in clips:
            setup_id = setup_ids[clip.setup]
            film = dated(clip.file.read_bytes(), moment_of(clip.recorded_at, today=today))
            mark.note(library, hashlib.sha256(film).hexdigest())
            imported = library.add(
                db,
                io.BytesIO(film),
                file_name=clip.file.name,
                size_bytes=len(film),
                name=clip.name,
                brief_id=brief_ids[clip.brief],
                setup_id=setup_id,
            )
            if abs(kit.setup_by_id(db, setup_id).focal_eq_mm - clip.focal_eq_mm) > SAME_MM:
                with database.atomic(db):
                    takes.set_own_focal(db, imported.take.id, clip.focal_eq_mm)
            filed[clip.name] = imported.take.id
        with database.atomic(db):
            _add_session(db, filed, setup_ids[next(reversed(SETUPS))], today=today)
            _add_outing(db, filed, brief_ids[next(iter(BRIEFS))], today=today)


def _add_cameras(db: Connection) -> dict[str, int]:
    ids = {}
    for name, key in CAMERAS.items():
        camera = CAMERA_SHELF[key][1]
        # The stand-in camera reads all lines at once here, as its films show.
        spec = replace(camera, modes=(RENDERED, *camera.modes), read_out_ms=None)
        ids[name] = kit.add_item(db, spec, name=name)
    return ids


def _add_setup(db: Connection, name: str, setup: DemoSetup, ids: dict[str, int]) -> int:
    bench = usual_bench()
    if setup.handle is not None:
        bench = replace(bench, rig=replace(bench.rig, handle=setup.handle))
    supports = tuple(ids[key] for key in setup.supports)
    ask = kit.SetupAsk(name, ids[setup.camera], ids[setup.lens], supports, setup.optics, bench)
    return kit.add_setup(db, ask)


def _add_session(db: Connection, filed: dict[str, int], setup_id: int, *, today: date) -> None:
    """A session as the planner builds it, of which the takes with a clip were filmed. filed: takes
    by the name of their clip."""
    begun = datetime.combine(today - timedelta(days=1), PRACTISED_AT)
    plan = practising.plan(db, PRACTICE)
    number = sessions.add(db, name=SESSION, ask=PRACTICE, plan=plan, setup_id=setup_id)
    left = {key: dict(variations) for key, variations in PRACTISED.items()}
    for row in sessions.by_id(db, number).takes:
        clip = left.get(row.drill_key, {}).pop(row.variation_key, None)
        if clip in filed:
            moment = begun + timedelta(minutes=MINUTES_APART * row.position)
            sessions.set_state(db, number, row.position, "filmed", filmed_at=moment)
            sessions.file_take(db, number, row.position, filed[clip])
    sessions.accept(db, number)
    sessions.end(db, number, ended=True)


def _add_outing(db: Connection, filed: dict[str, int], brief_id: int, *, today: date) -> None:
    """The volunteer's outing, with the takes that meet its shots. filed: as for the session."""
    day = (today - timedelta(days=2)).isoformat()
    number = outings.add(db, replace(OUTING, day=day, brief_id=brief_id))
    ids = outings.add_shots(db, number, [read_line(line).shot for line in SHOTS])
    for shot_id, clip in zip(ids, SHOTS.values(), strict=True):
        if clip in filed:
            outings.meet(db, filed[clip], shot_id, how="hand")
