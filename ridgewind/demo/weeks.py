"""The demo's five weeks of practice: sessions of the volunteer of Harrow Top up to yesterday, each
take the motion log of the stand-in phone in a hand that is modelled, measured like any log.

What is true of this hand, so that there is something to find: two hands are clearly steadier than
one; ways of breathing are level; elbows in only seem better, for too few takes; a firm strap is
best, a hard one trembles; a lens beyond about 40 mm is too long; takes get rougher through a
session; the walk softens from week to week.
"""

from __future__ import annotations

import hashlib
import math
import random
import tempfile
import threading
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta
from pathlib import Path

from ridgewind.core.motion.turn_rates import LogMapping, guess_mapping, read_table
from ridgewind.core.practice.drill import Drill
from ridgewind.core.practice.session import (
    Ask,
    Block,
    Session,
    balanced_order,
    take_seconds,
)
from ridgewind.demo import mark
from ridgewind.library.library import Library
from ridgewind.services import assessing, filing, logs
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, plan
from ridgewind.standin.turning import HEADER, turning_log
from ridgewind.store import database, drills, kit, sessions, takes
from ridgewind.store.database import Connection

BEGINS = time(9, 20)
LOG_S, LENS_MM = 12.0, 26.0
STABILISER = 0.7
"""Of the phone: what it takes away of all turning."""

CADENCES_HZ = (1.45, 2.1)
"""Between which the volunteer walks; a faster step lands harder."""

DAY_SPREAD, TAKE_SPREAD = 0.12, 0.10
"""Of the natural logarithm of all sizes, from day to day and from take to take (chosen here)."""

TIRING, RECOVERS_S = 0.11, 600.0
"""Fatigue that each take adds, and the rest after which a third of it is left."""

TIREDNESS_STEP = 0.2
FURTHER_RESTS_S = (0.0, 0.0, 0.0, 60.0, 240.0)
"""What a rest lasts beyond what the drill asks for, as it happens."""

SOFTENS = 0.6
"""How much softer the walk has become at the end."""

FELT_BAD = 1.08
"""Size of a take, against the usual one, from which it felt bad; feelings are not always right."""

FIRST_DAY = 34


@dataclass(frozen=True)
class Day:
    """A session: days before today, its name, its drills."""

    ago: int
    name: str
    drills: tuple[str, ...]


DAYS = (
    Day(34, "Gallery, first morning", ("hands", "walk-camera")),
    Day(32, "Strap at the sack hoist", ("strap-tension",)),
    Day(29, "Cap room", ("hands", "breath")),
    Day(27, "Up the track", ("walk-camera",)),
    Day(25, "Stone floor", ("strap-tension", "lens-tremor-limit")),
    Day(22, "Track after rain", ("breath", "walk-camera")),
    Day(20, "Gallery, low sun", ("hands",)),
    Day(18, "Hoist again", ("strap-tension",)),
    Day(15, "Sails from the gate", ("lens-tremor-limit", "walk-camera")),
    Day(12, "Cap room, quiet", ("breath",)),
    Day(9, "Sack floor", ("strap-tension", "elbows")),
    Day(6, "Track and gallery", ("walk-camera", "hands")),
    Day(4, "Sails from the track", ("lens-tremor-limit",)),
    Day(2, "Strap, last week", ("strap-tension",)),
)
"""Fourteen sessions, 124 takes."""

HELD: dict[tuple[str, str], Technique] = {
    ("hands", "one"): Technique(contacts=1, elbows_in=False),
    ("hands", "two"): Technique(contacts=2),
    ("hands", "light"): Technique(contacts=2, tremor=0.9),
    ("breath", "normal"): Technique(breath=1.0),
    ("breath", "held"): Technique(breath=0.5, tremor=1.1),
    ("breath", "out"): Technique(breath=0.8),
    ("elbows", "out"): Technique(elbows_in=False),
    ("elbows", "in"): Technique(elbows_in=True, sway=1.15),
    ("strap-tension", "slack"): Technique(strap_tension=0.0),
    ("strap-tension", "firm"): Technique(strap_tension=0.6, sway=0.75),
    ("strap-tension", "hard"): Technique(strap_tension=1.0, sway=0.75),
    ("walk-camera", "pressed"): Technique(cadence_hz=1.8, landing=1.5, hold="body"),
    ("walk-camera", "off"): Technique(cadence_hz=1.8, landing=1.5, hold="off_body"),
    ("walk-camera", "hung"): Technique(cadence_hz=1.8, landing=1.5, hold="off_body", mass_kg=1.2),
    ("lens-tremor-limit", "wide"): Technique(),
    ("lens-tremor-limit", "middle"): Technique(),
    ("lens-tremor-limit", "long"): Technique(),
}
"""What is done in each variation."""

LENSES_MM = {"wide": 26.0, "middle": 52.0, "long": 104.0}
TENSION = {"slack": (1, 1, 2), "firm": (2, 3, 3, 4), "hard": (4, 5, 5)}
"""As the volunteer notes it, 1 to 5; a firm pull is not always the same."""


@dataclass(frozen=True)
class DemoPractice:
    """A take of these weeks. size: of its shake against the usual. tiredness: as it is noted."""

    position: int
    drill_key: str
    variation_key: str
    filmed_at: datetime
    script: Script
    size: float
    tension: int | None
    tiredness: int


def fill_weeks(library: Library, stopping: threading.Event, *, today: date) -> None:
    """Bring the weeks in, session by session, until stopping is set."""
    with database.opened(library.database) as db:
        mapping = _mapping()
        for day in DAYS:
            if stopping.is_set():
                return
            _fill_day(library, db, day, mapping, stopping, today=today)


def takes_of(
    day: Day, library: dict[str, Drill], *, today: date
) -> tuple[Session, list[DemoPractice]]:
    """The plan of a session, and what came of it; the same for every start."""
    rng = random.Random(f"{day.ago} {day.name}")
    blocks = tuple(
        Block(drill.key, balanced_order([one.key for one in drill.variations], 2, rng),
              drill.take_s, drill.rest_s, ("as planned",))
        for drill in (library[key] for key in day.drills)
    )  # fmt: skip
    cautions = tuple(dict.fromkeys(one for key in day.drills for one in library[key].cautions))
    session = Session(60.0, blocks, 60.0 + sum(one.seconds for one in blocks), 0.0, cautions)
    return session, list(_takes(day, blocks, rng, today=today))


def _takes(
    day: Day, blocks: tuple[Block, ...], rng: random.Random, *, today: date
) -> Iterator[DemoPractice]:
    moment = datetime.combine(today - timedelta(days=day.ago), BEGINS).astimezone()
    good_day = rng.lognormvariate(0.0, DAY_SPREAD)
    softer = 1.0 - SOFTENS * (FIRST_DAY - day.ago) / FIRST_DAY
    position, tired = 0, 0.0
    for block in blocks:
        for key in block.order:
            rest_s = block.rest_s + rng.choice(FURTHER_RESTS_S)
            moment += timedelta(seconds=take_seconds(block.take_s, rest_s))
            tired *= math.exp(-rest_s / RECOVERS_S)
            own = rng.lognormvariate(0.0, TAKE_SPREAD)
            size = good_day * own
            held = HELD[block.drill_key, key]
            cadence_hz = rng.uniform(*CADENCES_HZ) if held.cadence_hz else 0.0
            hurry = (cadence_hz / held.cadence_hz) ** 2 if held.cadence_hz else 1.0
            technique = replace(
                held,
                stabiliser=STABILISER,
                cadence_hz=cadence_hz,
                tremor=held.tremor * size,
                sway=held.sway * size,
                landing=held.landing * softer * hurry,
                bounce=held.bounce * softer * size * hurry,
                fatigue=tired,
            )
            script = Script(
                "door", "hold", technique, LENSES_MM.get(key, LENS_MM), size=(320, 180), fps=30,
                seconds=LOG_S, seed=rng.randrange(1 << 30),
            )  # fmt: skip
            noted = rng.choice(TENSION[key]) if block.drill_key == "strap-tension" else None
            if noted is not None:
                pulled = replace(technique, strap_tension=(noted - 1) / 4.0)
                script = replace(script, technique=pulled)
            yield DemoPractice(
                position, block.drill_key, key, moment, script, own, noted, _tiredness(tired)
            )
            position, tired = position + 1, tired + TIRING


def _tiredness(fatigue: float) -> int:
    """1 fresh to 5 spent, as the volunteer notes it."""
    return min(5, 1 + round(fatigue / TIREDNESS_STEP))


def _fill_day(
    library: Library,
    db: Connection,
    day: Day,
    mapping: LogMapping,
    stopping: threading.Event,
    *,
    today: date,
) -> None:
    plan_of_day, filmed = takes_of(day, drills.library(db), today=today)
    ask = Ask(round(plan_of_day.total_s / 60.0, 1), (), "path", ("strap", "lean"), (), 1, ())
    with database.atomic(db):
        session_id = sessions.add(
            db, name=day.name, ask=ask, plan=plan_of_day, setup_id=kit.usual_setup_id(db),
            made_at=filmed[0].filmed_at - timedelta(minutes=10),
        )  # fmt: skip
        sessions.accept(db, session_id)
    for one in filmed:
        if stopping.is_set():
            return
        _fill_take(library, db, session_id, one, mapping)
    with database.atomic(db):
        sessions.end(db, session_id, ended=True)


def _fill_take(
    library: Library, db: Connection, session_id: int, one: DemoPractice, mapping: LogMapping
) -> None:
    text = turning_log(plan(one.script))
    mark.note(library, hashlib.sha256(text.encode()).hexdigest())
    name = f"{one.filmed_at:%Y-%m-%d} take {one.position + 1}"
    with tempfile.TemporaryDirectory() as place:
        log = Path(place) / "log.csv"
        log.write_bytes(text.encode())
        take_id = logs.add_alone(
            library, db, log, name=name, mapping=mapping, filmed_at=one.filmed_at
        )
    with database.atomic(db):
        if one.script.focal_eq_mm != LENS_MM:
            takes.set_own_focal(db, take_id, one.script.focal_eq_mm)
        sessions.set_state(db, session_id, one.position, "filmed", filmed_at=one.filmed_at)
        sessions.file_take(db, session_id, one.position, take_id)
        takes.set_imported(db, take_id, one.filmed_at)
        named = filing.filed_name(db, sessions.by_id(db, session_id), one.position)
        takes.set_filed_name(db, take_id, named)
        notes: dict[str, str | int | None] = {
            "felt": "bad" if one.size > FELT_BAD else "good",
            "fatigue": one.tiredness,
            "tension": one.tension,
        }
        sessions.set_notes(db, session_id, one.position, notes)
    assessing.summarise(db, take_id)


def _mapping() -> LogMapping:
    """How the stand-in phone's columns are read."""
    return guess_mapping(read_table([HEADER, *(f"{k},0,0,0" for k in range(1, 40))]))
