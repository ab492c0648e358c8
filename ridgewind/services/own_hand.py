"""The shooter's own hand by technique, asked about lenses, rates and screens it has not seen."""

from __future__ import annotations

import zlib
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.practice.drill import HoldTechnique
from ridgewind.core.trials.own_hand import (
    EDGES_HZ,
    MIDDLES_HZ,
    Hand,
    Prediction,
    left_out_error,
    predict,
)
from ridgewind.services import trials
from ridgewind.services.errors import NO_HAND, NotReadyError
from ridgewind.services.figures import FIGURES
from ridgewind.store import database, drills, findings, hand_films
from ridgewind.store.database import Connection
from ridgewind.store.findings import FiledTake
from ridgewind.store.hand_films import HandFilmAsk

Floats = NDArray[np.float64]

CURVE_MM: Floats = np.geomspace(10.0, 320.0, 41)
"""Equivalent focal lengths at which a hand is drawn."""


FILM_FPS, DELIVERED_FPS, FASTEST_FPS = 30.0, 24.0, 120.0
"""Of films in one's own hand: as filmed, delivered slowed, and at most."""


@dataclass(frozen=True)
class TechniqueHand(HoldTechnique):
    """What the takes of a technique tell of the hand. filed: those takes, in the hand's order."""

    hand: Hand
    filed: tuple[FiledTake, ...]

    @property
    def density(self) -> Floats:
        """Mean power density (bins,) of pan and tilt together, deg²/Hz."""
        power = self.hand.mean_square[:, :, :2].sum(axis=2).mean(axis=0)
        width = np.diff(EDGES_HZ)
        out: Floats = power / (2.0 * np.pi * self.hand.hz) ** 2 / width
        return out


@dataclass(frozen=True)
class Asked:
    """focal_eq_mm: of the lens. rate: of playback, 1 as filmed."""

    focal_eq_mm: float
    rate: float
    screen_deg: float


@dataclass(frozen=True)
class Answer:
    """here: at the lens that was asked. curve: at CURVE_MM. error: how far each take is from what
    the others predict for it."""

    technique: TechniqueHand
    here: Prediction
    curve: tuple[Prediction, ...]
    error: float | None


def hands(db: Connection, filed: list[FiledTake] | None = None) -> list[TechniqueHand]:
    """Every technique that was filmed, the most filmed first; the takes that count in trials.
    filed: all filed takes, read where they are not given."""
    library = drills.library(db, archived=True)
    by_technique: dict[tuple[str, str], list[FiledTake]] = {}
    for one in findings.filed_takes(db) if filed is None else filed:
        if one.drill_key in library and not trials.take_of(one, FIGURES["gust"]).why_out:
            hold = library[one.drill_key].hold_of(one.variation_key)
            by_technique.setdefault((one.drill_key, hold), []).append(one)
    turned = findings.turning(db, [one.take_id for own in by_technique.values() for one in own])
    found = []
    for (drill_key, variation), own in by_technique.items():
        known = [one for one in own if one.take_id in turned]
        if known:
            hand = Hand(
                MIDDLES_HZ,
                np.array([turned[one.take_id] for one in known]),
                np.array([one.focal_eq_mm for one in known]),
            )
            found.append(TechniqueHand(library[drill_key], variation, hand, tuple(known)))
    return sorted(found, key=lambda one: (-len(one.hand.focal_eq_mm), one.key))


def technique(found: list[TechniqueHand], key: str) -> TechniqueHand:
    """The hand of one technique. Raises NotReadyError where it has no take."""
    named = next((one for one in found if one.key == key), None)
    if named is None:
        raise NotReadyError(*NO_HAND)
    return named


def ask(found: list[TechniqueHand], key: str, asked: Asked) -> Answer:
    """What a technique would read. Raises NotReadyError where it has no take."""
    asked_for = technique(found, key)

    def at(focal_eq_mm: float) -> Prediction:
        return predict(
            asked_for.hand, focal_eq_mm=focal_eq_mm, rate=asked.rate, screen_deg=asked.screen_deg
        )

    curve = tuple(at(float(mm)) for mm in CURVE_MM)
    return Answer(asked_for, at(asked.focal_eq_mm), curve, left_out_error(asked_for.hand))


def ask_for_film(db: Connection, key: str, *, focal_eq_mm: float, rate: float) -> int:
    """Ask for a film in the hand of a technique, through a lens, to be played at a rate; returns
    its id. Raises NotReadyError where the technique has no take."""
    named = technique(hands(db), key)
    fps = film_rate(rate)
    wanted = HandFilmAsk(
        named.key,
        film_name(named, focal_eq_mm, fps),
        focal_eq_mm,
        fps,
        predict(named.hand, focal_eq_mm=focal_eq_mm),
    )
    with database.atomic(db):
        return hand_films.add(db, wanted)


def film_rate(rate: float) -> float:
    """Frames a second to film at for a film that is played at a rate of its speed, delivered at
    FILM_FPS; at most what the stand-in camera films."""
    return FILM_FPS if rate >= 1.0 else min(FASTEST_FPS, round(DELIVERED_FPS / rate))


def film_name(technique: TechniqueHand, focal_eq_mm: float, fps: float) -> str:
    """What a film in one's own hand is called."""
    return f"Simulated: {technique.name}, {focal_eq_mm:.0f} mm, {fps:g}/s"


def film_seed(name: str) -> int:
    """The same film each time that the same is asked for."""
    return zlib.crc32(name.encode())
