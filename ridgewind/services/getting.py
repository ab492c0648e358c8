"""How do I get this shot: every technique on record, through the lenses of the kit, at the frame
rates of the camera, with the remedies that the brief allows."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from ridgewind.core.brief import Brief
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge.options import options_for, three_legs
from ridgewind.core.judge.shot_ways import Option, WantedShot, WayOfHolding, reaches_to
from ridgewind.core.kit.bench import Parts
from ridgewind.core.kit.hand import TYPICAL_STANDING_DEG_S, TYPICAL_WALKING_DEG_S
from ridgewind.core.kit.items import Lens, Mode
from ridgewind.core.kit.optics import set_up_crop, true_focal_mm
from ridgewind.core.practice.drill import Drill, Family, HoldTechnique, Need, Tempo
from ridgewind.core.trials.outlast import Lastings
from ridgewind.services import examples, limits, own_hand
from ridgewind.services.errors import NO_SETUP, NotReadyError
from ridgewind.store import database, drills, findings, kit
from ridgewind.store.database import Connection
from ridgewind.store.kit import SetupRow

Move = Literal["still", "move", "walk"]

TEMPOS: dict[Move, tuple[Tempo, ...]] = {
    "still": ("none", "breath"),
    "move": ("move",),
    "walk": ("walk",),
}
"""By what a drill sounds one knows what it films."""

TYPICAL_DEG_S: dict[Family, float] = {
    "standing": TYPICAL_STANDING_DEG_S,
    "strap": 0.8,
    "weight": 0.9,
    "planted": 1.2,
    "leaning": 0.45,
    "monopod": 0.35,
    "walking": TYPICAL_WALKING_DEG_S,
}
"""Body speed of a family while the shooter has never filmed it (chosen here, in proportion to the
typical hand: supports that are still take away more than half)."""

SUPPORTS: Mapping[str, Need] = {
    "strap": "strap",
    "monopod": "monopod",
    "pole": "pole",
    "top_handle": "top_handle",
    "weight": "weight",
    "cloth": "cloth",
}
"""What a support of the set-up spares a drill."""

OF_THE_LENS: frozenset[Need] = frozenset({"long_lens", "zoom"})

NEAR = 0.02
"""Share of a lens's ends within which it counts as reaching."""

LONGEST_NAME = 120
LEAST_WANTED_S = 0.5


@dataclass(frozen=True)
class TechniqueOption(HoldTechnique):
    """An option with the technique that it is of, and the lens of the kit that it wants, None where
    none reaches."""

    option: Option
    lens: str | None

    @property
    def needs(self) -> tuple[Need, ...]:
        """What its drill takes beside a lens, which stands by itself."""
        return tuple(one for one in self.drill.needs if one not in OF_THE_LENS)


@dataclass(frozen=True)
class NamedSetup:
    id: int
    name: str


@dataclass(frozen=True)
class Answer:
    """three_legs: no way passes more often than not. recorded: takes that the options are from.
    setup: whose camera and lenses these are."""

    options: tuple[TechniqueOption, ...]
    three_legs: bool
    recorded: int
    setup: NamedSetup
    lenses: tuple[limits.LensReach, ...]


def get_shot(
    db: Connection, brief: Brief, *, focal_eq_mm: float, move: Move, setup_id: int | None
) -> Answer:
    """The ways to get a shot, the cheapest that work first. setup_id: whose camera and lenses; the
    one in use where none is named. Raises NotReadyError without a set-up, NotFoundError,
    InvalidArgumentError."""
    row = _setup(db, setup_id)
    parts = kit.parts_of(db, row.ask)
    reaches = limits.lenses_of_kit(db, row)
    ways = _ways(db, parts, move)
    mode = parts.camera.modes[parts.optics.mode]
    rates = {rate for one in parts.camera.modes for rate in one.rates_hz}
    wanted = WantedShot(
        brief=brief,
        focal_eq_mm=focal_eq_mm,
        widths_px={rate: _long_side_px(parts.camera.modes[_mode(parts, rate)]) for rate in rates},
        aspect=min(mode.width_px, mode.height_px) / max(mode.width_px, mode.height_px),
        reaches=tuple((one.low_mm, one.high_mm) for one in reaches),
    )
    options = options_for([way for way, _ in ways.values()], wanted)
    found = tuple(
        TechniqueOption(
            ways[one.way.key][1].drill,
            ways[one.way.key][1].variation,
            option=one,
            lens=_lens(reaches, one.focal_eq_mm),
        )
        for one in options
    )
    recorded = sum(one.takes for one in options)
    return Answer(found, three_legs(options), recorded, NamedSetup(row.id, row.ask.name), reaches)


@dataclass(frozen=True)
class ShotLike:
    """What a clip shows, as it can be asked for. target: gust on the screen of its brief. wanted_s:
    its length, as it plays."""

    name: str
    feel: str
    target: float
    screen: str
    focal_eq_mm: float
    move: Move
    wanted_s: float


def shot_like(db: Connection, take_id: int) -> ShotLike:
    """Ask for a shot like a clip: as smooth, through its lens, of its kind and length. Raises
    NotFoundError, NotReadyError where nothing can be told of it."""
    judged, found = examples.settled(db, take_id)
    brief = examples.like(judged.take.brief, judged.take.name, found)
    shots = [shot for shot in found.reading.shots if shot.counted.any()]
    longest = max(shots, key=lambda one: len(one.counted))
    moves = found.move is not None and found.move.move is not None
    return ShotLike(
        name=judged.take.name,
        feel=brief.feel,
        target=brief.target,
        screen=brief.screen,
        focal_eq_mm=judged.take.focal_eq_mm,
        move="walk" if found.causes.steps is not None else "move" if moves else "still",
        wanted_s=max(LEAST_WANTED_S, longest.end_s - longest.start_s),
    )


def take_setup(db: Connection, setup_id: int, *, focal_eq_mm: float, fps: float) -> int:
    """Make a set-up of another with the lens and the rate that a shot wants, and use it; returns
    its id. Raises NotFoundError, InvalidArgumentError where the kit cannot be set so."""
    row = kit.setup_by_id(db, setup_id)
    parts = kit.parts_of(db, row.ask)
    optics = replace(parts.optics, mode=_mode(parts, fps), rate_hz=fps, shutter=None)
    focal_mm = true_focal_mm(
        focal_eq_mm,
        sensor_long_mm=parts.camera.sensor_long_mm,
        crop=set_up_crop(parts.camera, optics),
    )
    lens_id, lens = _reaching(db, row.ask.lens_id, parts, focal_mm)
    optics = replace(
        optics,
        focal_mm=min(lens.focal_max_mm, max(lens.focal_min_mm, round(focal_mm, 1))),
        lens_stabiliser=optics.lens_stabiliser and lens.stabiliser,
    )
    name = f"{row.ask.name}, {focal_eq_mm:.0f} mm at {fps:g}/s"[:LONGEST_NAME]
    with database.atomic(db):
        made = kit.add_setup(db, replace(row.ask, name=name, lens_id=lens_id, optics=optics))
        kit.mark_setup_used(db, made)
    return made


def _mode(parts: Parts, fps: float) -> int:
    """In which of its camera's modes a set-up films at a rate: its own where that can, else the
    largest picture. Raises InvalidArgumentError."""
    modes = parts.camera.modes
    able = [index for index, one in enumerate(modes) if fps in one.rates_hz]
    if not able:
        raise InvalidArgumentError("fps", fps, "the camera of this set-up has no such rate")
    if parts.optics.mode in able:
        return parts.optics.mode
    return max(able, key=lambda index: _long_side_px(modes[index]))


def _long_side_px(mode: Mode) -> int:
    return max(mode.width_px, mode.height_px)


def _setup(db: Connection, setup_id: int | None) -> SetupRow:
    wanted = kit.usual_setup_id(db) if setup_id is None else setup_id
    if wanted is None:
        raise NotReadyError(*NO_SETUP)
    return kit.setup_by_id(db, wanted)


def _reaching(db: Connection, own_id: int, parts: Parts, focal_mm: float) -> tuple[int, Lens]:
    """The lens for a focal length: the set-up's own where it reaches, else another that fits."""
    fitting = [(own_id, parts.lens)] + [
        (row.id, row.spec)
        for row in kit.items(db)
        if isinstance(row.spec, Lens)
        and row.spec.mount.casefold() == parts.camera.mount.casefold()
        and not row.archived
    ]
    for lens_id, lens in fitting:
        if lens.focal_min_mm * (1 - NEAR) <= focal_mm <= lens.focal_max_mm * (1 + NEAR):
            return lens_id, lens
    rule = "no lens of the kit that fits the camera reaches it"
    raise InvalidArgumentError("focal_eq_mm", round(focal_mm), rule)


def _ways(
    db: Connection, parts: Parts, move: Move
) -> dict[str, tuple[WayOfHolding, HoldTechnique]]:
    """Techniques on record that film such a move, and one of each family that was never filmed."""
    carried = {SUPPORTS.get(support.kind) for _, _, support in parts.supports}
    library = drills.library(db, archived=True)
    filed = findings.filed_takes(
        db, drill_keys=[key for key, one in library.items() if one.tempo in TEMPOS[move]]
    )
    recorded = own_hand.hands(db, filed)
    held = findings.lastings(db, [one.take_id for one in filed])
    out: dict[str, tuple[WayOfHolding, HoldTechnique]] = {}
    for one in recorded:
        lastings = Lastings.of([held.get(take.take_id) for take in one.filed])
        way = WayOfHolding(one.key, one.hand, 0.0, _needs(one.drill, carried), lastings)
        out[one.key] = (way, one)
    known = {one.drill.family for one in recorded}
    for drill in drills.library(db).values():
        typical = TYPICAL_DEG_S.get(drill.family)
        if drill.tempo in TEMPOS[move] and typical is not None and drill.family not in known:
            known.add(drill.family)
            variation = next(one.key for one in drill.variations if not one.control)
            technique = HoldTechnique(drill, drill.hold_of(variation))
            way = WayOfHolding(technique.key, None, typical, _needs(drill, carried))
            out[technique.key] = (way, technique)
    return out


def _needs(drill: Drill, carried: set[Need | None]) -> int:
    """Things that a drill takes beside what the set-up holds; what lens it takes is asked apart."""
    return len(set(drill.needs) - carried - OF_THE_LENS)


def _lens(reaches: tuple[limits.LensReach, ...], focal_eq_mm: float) -> str | None:
    """The lens of the kit that reaches, the shortest reach first: it is the one made for it."""
    able = [one for one in reaches if reaches_to(one.low_mm, one.high_mm, focal_eq_mm)]
    return min(able, key=lambda one: one.high_mm / one.low_mm).name if able else None
