"""Limits of each technique, by brief: longest lens, longest hold, fastest walk, best strap tension;
the same rules for what counts as in trials."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from ridgewind.core.brief import Brief
from ridgewind.core.kit.items import Lens
from ridgewind.core.practice.drill import Drill, HoldTechnique
from ridgewind.core.shake.gust import screen_offset
from ridgewind.core.trials.curves import Fastest, Parabola, fastest_walk, strap_curve
from ridgewind.core.trials.lens_limit import LensLimit, Overall, lens_limit, overall_of
from ridgewind.core.trials.survival import Hold, Lasting, Survival, survival_of
from ridgewind.core.units import pct_to_deg
from ridgewind.services import trials
from ridgewind.services.figures import CADENCE, FIGURES
from ridgewind.store import drills, findings, kit
from ridgewind.store.database import Connection
from ridgewind.store.findings import FiledTake
from ridgewind.store.kit import SetupRow

LEAST_TAKES = 3
"""Takes of a technique under which its limits are a hint (chosen here: as of a trial's side)."""

LEAST_CADENCES = 4


@dataclass(frozen=True)
class LensReach:
    """A lens of the kit in equivalent focal lengths, through the camera in use."""

    name: str
    low_mm: float
    high_mm: float


@dataclass(frozen=True)
class WalkPoint:
    take_id: int
    cadence: float
    gust: float


@dataclass(frozen=True)
class TechniqueLimits(HoldTechnique):
    """takes: that count. lens: its hand, leant on the whole. hold, walk: None where nothing can be
    told. walked: takes that the walk is from."""

    takes: int
    lens: LensLimit
    longest_mm: float
    holds: tuple[Hold, ...]
    hold: Survival | None
    walk: Fastest | None
    walked: tuple[WalkPoint, ...]

    @property
    def hint(self) -> bool:
        return self.takes < LEAST_TAKES


@dataclass(frozen=True)
class StrapPoint:
    """gust: less what its drill, in its session, was off the mean of all."""

    take_id: int
    tension: float
    gust: float


@dataclass(frozen=True)
class Limits:
    """target: gust on the usual screen that the brief allows on its own. overall: the shooter's own
    whole. strap: None for too few takes with a tension. lenses: of the kit. focal_eq_mm: of the
    set-up in use, None without one."""

    target: float
    overall: Overall
    techniques: tuple[TechniqueLimits, ...]
    strap: Parabola | None
    pulled: tuple[StrapPoint, ...]
    lenses: tuple[LensReach, ...]
    focal_eq_mm: float | None


def limits_of(db: Connection, brief: Brief) -> Limits:
    """What each technique bears under a brief, the longest lens first."""
    target = brief.target - screen_offset(brief.screen_deg)
    library = drills.library(db, archived=True)
    counted = [
        one for one in findings.filed_takes(db) if not trials.take_of(one, FIGURES["gust"]).why_out
    ]
    speeds = {one.take_id: _log2_body(one) for one in counted}
    overall = overall_of([speed for speed in speeds.values() if speed is not None])
    held = findings.lastings(
        db, [one.take_id for one in counted if _holds_still(library.get(one.drill_key))]
    )
    by_technique: dict[tuple[str, str], list[FiledTake]] = {}
    for one in counted:
        if one.drill_key in library:
            by_technique.setdefault(_hold(library, one), []).append(one)
    found = [
        _technique(library[drill_key], variation, filed, speeds, overall, held, target)
        for (drill_key, variation), filed in by_technique.items()
    ]
    pulled = [one for one in counted if one.tension is not None]
    in_use = _in_use(db)
    strap = strap_curve(
        [float(one.tension or 0) for one in pulled],
        [one.figures["gust"] for one in pulled],
        [_held_together(one) for one in pulled],
    )
    return Limits(
        target=target,
        overall=overall,
        techniques=tuple(sorted(found, key=lambda one: -one.longest_mm)),
        strap=strap,
        pulled=_level(pulled),
        lenses=lenses_of_kit(db, in_use),
        focal_eq_mm=None if in_use is None else in_use.focal_eq_mm,
    )


@dataclass(frozen=True)
class TechniqueLens(HoldTechnique):
    """How long a lens a technique bears under a brief, from so many takes."""

    longest_mm: float
    takes: int


def longest_lens(
    db: Connection, brief: Brief, drill_key: str, variation: str
) -> TechniqueLens | None:
    """The longest lens of one technique; None where too few of its takes count."""
    library = drills.library(db, archived=True)
    drill = library.get(drill_key)
    if drill is None:
        return None
    variation = drill.hold_of(variation)
    found = lens_limits(findings.filed_takes(db), library).get((drill_key, variation))
    if found is None or found.takes < LEAST_TAKES:
        return None
    target = brief.target - screen_offset(brief.screen_deg)
    longest_mm = found.longest_mm(target=target)
    return TechniqueLens(drill, variation, longest_mm=longest_mm, takes=found.takes)


def lens_limits(
    filed: list[FiledTake], library: Mapping[str, Drill]
) -> dict[tuple[str, str], LensLimit]:
    """The hand of each technique, by drill and variation, of the takes that count."""
    speeds: dict[tuple[str, str], list[float]] = {}
    for one in filed:
        speed = _log2_body(one)
        if speed is not None and not trials.take_of(one, FIGURES["gust"]).why_out:
            speeds.setdefault(_hold(library, one), []).append(speed)
    overall = overall_of([speed for own in speeds.values() for speed in own])
    return {key: lens_limit(own, overall=overall) for key, own in speeds.items()}


def _hold(library: Mapping[str, Drill], one: FiledTake) -> tuple[str, str]:
    drill = library.get(one.drill_key)
    return one.drill_key, one.variation_key if drill is None else drill.hold_of(one.variation_key)


def _log2_body(one: FiledTake) -> float | None:
    if not one.speed_pct_s:
        return None
    return math.log2(pct_to_deg(one.speed_pct_s, focal_eq_mm=one.focal_eq_mm))


def _technique(
    drill: Drill,
    variation: str,
    filed: list[FiledTake],
    speeds: dict[int, float | None],
    overall: Overall,
    held: dict[int, Lasting],
    target: float,
) -> TechniqueLimits:
    known = [speed for one in filed if (speed := speeds[one.take_id]) is not None]
    lens = lens_limit(known, overall=overall)
    holds = tuple(held[one.take_id].hold(target) for one in filed if one.take_id in held)
    walked = tuple(
        WalkPoint(one.take_id, one.figures[CADENCE], one.figures["gust"])
        for one in filed
        if CADENCE in one.figures
    )
    walk = None
    if len(walked) >= LEAST_CADENCES:
        walk = fastest_walk(
            [one.cadence for one in walked], [one.gust for one in walked], target=target
        )
    return TechniqueLimits(
        drill=drill,
        variation=variation,
        takes=len(filed),
        lens=lens,
        longest_mm=lens.longest_mm(target=target),
        holds=holds,
        hold=survival_of(holds) if holds else None,
        walk=walk,
        walked=walked,
    )


def _holds_still(drill: Drill | None) -> bool:
    """Whether a drill is a hold, and no move or walk; and not one that is over sooner by intent,
    the longer the lens."""
    return drill is not None and drill.tempo in ("none", "breath") and not drill.one_hold


def _held_together(one: FiledTake) -> str:
    """Takes that only their tension tells apart: of one drill in one session."""
    return f"{one.session_id} {one.drill_key}"


def _level(pulled: list[FiledTake]) -> tuple[StrapPoint, ...]:
    """Gusts with the day taken out, around the mean of all."""
    if not pulled:
        return ()
    gusts = [one.figures["gust"] for one in pulled]
    mean = sum(gusts) / len(gusts)
    of_session: dict[str, list[float]] = {}
    for one in pulled:
        of_session.setdefault(_held_together(one), []).append(one.figures["gust"])
    off = {key: sum(values) / len(values) - mean for key, values in of_session.items()}
    return tuple(
        StrapPoint(
            one.take_id, float(one.tension or 0), one.figures["gust"] - off[_held_together(one)]
        )
        for one in pulled
    )


def lenses_of_kit(db: Connection, setup: SetupRow | None) -> tuple[LensReach, ...]:
    """The lens of a set-up, and others of the kit that fit its camera; none without a set-up."""
    if setup is None:
        return ()
    factor = setup.focal_eq_mm / setup.ask.optics.focal_mm
    mount = kit.parts_of(db, setup.ask).camera.mount.casefold()
    return tuple(
        LensReach(row.name, row.spec.focal_min_mm * factor, row.spec.focal_max_mm * factor)
        for row in kit.items(db)
        if isinstance(row.spec, Lens) and row.spec.mount.casefold() == mount and not row.archived
    )


def _in_use(db: Connection) -> SetupRow | None:
    setup_id = kit.usual_setup_id(db)
    return None if setup_id is None else kit.setup_by_id(db, setup_id)
