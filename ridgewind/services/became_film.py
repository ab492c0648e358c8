"""What becomes film: of the takes of each technique, or of each planned move, how many a time line
from the desk uses, for how long, and how calm what was used is."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from statistics import median

from ridgewind.core.practice.drill import Drill, HoldTechnique
from ridgewind.core.sequence.shot import move_name
from ridgewind.core.shake.gust import to_gust, to_speed
from ridgewind.services import sequencing
from ridgewind.store import drills, outings, used_takes
from ridgewind.store.clips import LOG_CODEC
from ridgewind.store.database import Connection
from ridgewind.store.used_takes import HeldTake, UsedPart

PLANNED = "Planned shots"
"""Under which moves stand whose takes are filed under no drill."""


@dataclass(frozen=True)
class BecameFilm:
    """A technique, or a planned move where its takes are filed under none. drill_key: of the
    technique, None for a move. takes: on record; used: of them, in a film; seconds: on screen.
    gust: of what was used, None where that cannot be told. usual: middle gust of all its takes."""

    name: str
    drill: str
    drill_key: str | None
    takes: int
    used: int
    seconds: float
    gust: float | None
    usual: float


def became_film(db: Connection) -> tuple[BecameFilm, ...]:
    """What was used most comes first; those of which nothing was used are told too."""
    parts: dict[int, list[UsedPart]] = defaultdict(list)
    for part in used_takes.everywhere(db):
        parts[part.take_id].append(part)
    if not parts:
        return ()
    library = drills.library(db, archived=True)
    groups: dict[tuple[str, str], list[HeldTake]] = defaultdict(list)
    for take in used_takes.held_takes(db, pictureless=LOG_CODEC):
        groups[_technique(db, take, library)].append(take)
    out = []
    for (drill_key, variation), takes in groups.items():
        drill = library.get(drill_key)
        if drill is None:
            name, named = move_name(variation).capitalize(), PLANNED
        else:
            name, named = HoldTechnique(drill, variation).name, drill.name
        used = [part for take in takes for part in parts.get(take.take_id, [])]
        out.append(
            BecameFilm(
                name=name,
                drill=named,
                drill_key=None if drill is None else drill_key,
                takes=len(takes),
                used=len({part.take_id for part in used}),
                seconds=sum(part.seconds for part in used),
                gust=_gust(db, used),
                usual=median(take.gust for take in takes),
            )
        )
    return tuple(sorted(out, key=lambda one: (-one.seconds, -one.used / one.takes, one.name)))


def _technique(db: Connection, take: HeldTake, library: dict[str, Drill]) -> tuple[str, str]:
    """Drill and hold; "" and the move of a shot that was only planned."""
    if take.drill_key is not None:
        drill, variation = library.get(take.drill_key), take.variation_key or ""
        return take.drill_key, variation if drill is None else drill.hold_of(variation)
    assert take.shot_id is not None
    return "", outings.shot_by_id(db, take.shot_id).shot.move


def _gust(db: Connection, used: list[UsedPart]) -> float | None:
    """Of all parts together: mean power over their time."""
    power = seconds = 0.0
    for part in used:
        gust = sequencing.gust_of(db, part.take_id, part.in_s, part.out_s)
        if gust is not None:
            power += part.seconds * to_speed(gust) ** 2
            seconds += part.seconds
    return None if seconds == 0 else to_gust((power / seconds) ** 0.5)
