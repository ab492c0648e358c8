"""Compute every panel of the bench for a set-up, each by itself, so that one wrong entry does
not darken the others."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal, TypeVar

import numpy as np

from ridgewind.core.brief import Brief
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit import bench, moving, optics
from ridgewind.core.kit.balance import Balance, RigPart
from ridgewind.core.kit.bench import Parts, Shake
from ridgewind.core.kit.hand import gust_at
from ridgewind.core.kit.items import Lens, check_optics
from ridgewind.core.kit.moving import PlannedMove
from ridgewind.core.kit.optics import Picture
from ridgewind.core.kit.strap import StrapPlan
from ridgewind.core.kit.timing import Timing
from ridgewind.core.trials.own_hand import MIDDLES_HZ, Hand, through_lenses
from ridgewind.core.units import pct_to_deg
from ridgewind.store import briefs, findings, kit, summaries
from ridgewind.store.database import Connection
from ridgewind.store.kit import SetupAsk
from ridgewind.store.summaries import BodySpeed

PanelName = Literal["optics", "picture", "shake", "time", "move", "rig", "strap"]
Source = Literal["setup", "all", "typical"]
Figures = TypeVar("Figures")

MOST_TAKES = 300
ENOUGH_TAKES = 3
"""Takes of a set-up from which its own figures are used instead of those of all takes."""


@dataclass(frozen=True)
class PanelProblem:
    """Why a panel could not be computed: the entry that broke its rule."""

    panel: PanelName
    field: str
    message: str


@dataclass(frozen=True)
class Reach:
    """Equivalent focal lengths of a lens with the set-up's camera and mode."""

    name: str
    low_mm: float
    high_mm: float


@dataclass(frozen=True)
class TakeDot:
    """A measured take: the lens it was filmed with, and the gust that it reads on the screen."""

    focal_mm: float
    gust: float


@dataclass(frozen=True)
class BenchFigures:
    """One entry a panel, None where a problem says why not. source: whose takes the curve of
    shake is from. strapped: the set-up holds a strap."""

    picture: Picture | None
    shake: Shake | None
    source: Source
    dots: tuple[TakeDot, ...]
    reaches: tuple[Reach, ...]
    time: Timing | None
    move: PlannedMove | None
    rig: Balance | None
    rig_parts: tuple[RigPart, ...]
    strap: StrapPlan | None
    strapped: bool
    problems: tuple[PanelProblem, ...]


def figures(db: Connection, ask: SetupAsk, brief: Brief, setup_id: int) -> BenchFigures:
    """All panels of a set-up under a brief. setup_id: 0 while it has not been stored."""
    parts = kit.parts_of(db, ask)
    problems: list[PanelProblem] = []
    try:
        check_optics(parts.camera, parts.lens, parts.optics)
    except InvalidArgumentError as error:
        problems.append(PanelProblem("optics", error.name, error.rule))
    open_panels = not problems

    def panel(name: PanelName, work: Callable[[], Figures]) -> Figures | None:
        try:
            return work()
        except InvalidArgumentError as error:
            problems.append(PanelProblem(name, error.name, error.rule))
            return None

    def through_lens(name: PanelName, work: Callable[[], Figures]) -> Figures | None:
        return panel(name, work) if open_panels else None

    told, source = _told(db, setup_id, walking=ask.bench.shake.typical == "walking")
    speeds = [(one.speed_pct_s, one.focal_eq_mm) for one in told]
    reaches = _reaches(db, parts) if open_panels else ()
    kit_mm = [end for reach in reaches for end in (reach.low_mm, reach.high_mm)]
    body = [pct_to_deg(speed, focal_eq_mm=focal) for speed, focal in speeds]
    asked = ask.bench
    return BenchFigures(
        picture=through_lens("picture", lambda: bench.picture(parts, brief)),
        shake=through_lens(
            "shake",
            lambda: _by_spectrum(
                db,
                told,
                brief,
                bench.shake(parts, brief, asked.shake, body_deg_s=body, kit_mm=kit_mm),
            ),
        ),
        source=source,
        dots=tuple(
            TakeDot(focal, gust_at(one, focal_eq_mm=focal, screen_deg=brief.screen_deg))
            for one, (_, focal) in zip(body, speeds, strict=True)
        ),
        reaches=reaches,
        time=through_lens("time", lambda: bench.time(parts, brief, asked.time)),
        move=through_lens("move", lambda: moving.move(bench.move_plan(parts, brief, asked.move))),
        rig=panel("rig", lambda: bench.rig(parts, asked.rig)),
        rig_parts=bench.rig_parts(parts, asked.rig),
        strapped=parts.strapped,
        strap=panel("strap", lambda: bench.strap_plan(parts, asked.strap)),
        problems=tuple(problems),
    )


def brief_for(db: Connection, brief_id: int | None) -> Brief:
    """The brief asked for, or the one in use."""
    return (briefs.usual(db) if brief_id is None else briefs.by_id(db, brief_id)).brief


def _told(db: Connection, setup_id: int, *, walking: bool) -> tuple[list[BodySpeed], Source]:
    """Past takes, walks or all others, that tell of a set-up: its own if enough, else all. A take
    whose set-up is not known tells nothing of one."""
    rows = [one for one in summaries.body_speeds(db, limit=MOST_TAKES) if one.walks == walking]
    own = [one for one in rows if setup_id and one.setup_id == setup_id]
    told = own if len(own) >= ENOUGH_TAKES else rows
    return told, "typical" if not told else "setup" if told is own else "all"


def _by_spectrum(db: Connection, told: list[BodySpeed], brief: Brief, shake: Shake) -> Shake:
    """The curve from how the hand turned at each frequency, which tells turns, that a lens
    enlarges, from rolls and steps, that it does not; as it was where no take says so."""
    turned = findings.turning(db, [one.take_id for one in told])
    known = [one for one in told if one.take_id in turned]
    if not known:
        return shake
    hand = Hand(
        MIDDLES_HZ,
        np.array([turned[one.take_id] for one in known]),
        np.array([one.focal_eq_mm for one in known]),
    )
    curve = through_lenses(
        hand, shake.curve.focal_mm, target=brief.target, screen_deg=brief.screen_deg
    )
    (gust,) = through_lenses(
        hand, (shake.focal_eq_mm,), target=brief.target, screen_deg=brief.screen_deg
    ).gust
    return replace(
        shake,
        gust=gust,
        curve=replace(
            shake.curve, gust=curve.gust, low=curve.low, high=curve.high,
            longest_mm=curve.longest_mm, safe_mm=curve.safe_mm,
        ),
    )  # fmt: skip


def _reaches(db: Connection, parts: Parts) -> tuple[Reach, ...]:
    crop = optics.set_up_crop(parts.camera, parts.optics)
    out = []
    for row in kit.items(db):
        if row.archived or not isinstance(row.spec, Lens):
            continue
        if row.spec.mount.casefold() != parts.camera.mount.casefold():
            continue
        ends = [
            optics.equivalent_focal_mm(focal, sensor_long_mm=parts.camera.sensor_long_mm, crop=crop)
            for focal in (row.spec.focal_min_mm, row.spec.focal_max_mm)
        ]
        out.append(Reach(row.name, *ends))
    return tuple(out)
