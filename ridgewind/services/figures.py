"""What many takes are compared by: figures that are kept with each take's line, less being
better."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.judge.assessment import Assessment
from ridgewind.core.motion.subject import Subject, centring_of
from ridgewind.core.shake.gust import to_gust, to_gusts
from ridgewind.core.shake.reading import ShotReading
from ridgewind.core.trials.own_hand import turning_of
from ridgewind.core.trials.survival import Lasting, lasting

Floats = NDArray[np.float64]

CADENCE = "cadence"
"""Steps a minute: kept, but nothing that is better for being less."""

BANDS = ("sway", "step", "jitter", "buzz")


@dataclass(frozen=True)
class Figure:
    """words: as it is called. gust: it is on the scale of gust; else in percent."""

    key: str
    words: str
    gust: bool


FIGURES: dict[str, Figure] = {
    one.key: one
    for one in (
        Figure("gust", "Gust", True),
        Figure("body", "Body gust: across lenses", True),
        Figure("jitter", "Jitter alone", True),
        Figure("step", "Footfalls alone", True),
        Figure("sway", "Sway alone", True),
        Figure("buzz", "Buzz alone", True),
        Figure("evenness", "Unevenness of the move", False),
        Figure("dip", "Dip of the push", False),
        Figure("centring", "Distance from the middle", False),
        Figure("wander", "Wander of the frame", False),
    )
}
"""In the order in which they are offered."""


def _longest(found: Assessment) -> ShotReading | None:
    shots = [shot for shot in found.reading.shots if shot.counted.any()]
    return max(shots, key=lambda one: len(one.counted), default=None)


def lasting_of(found: Assessment) -> Lasting | None:
    """Until when a judged take lasted at each target: of its longest shot, on the usual screen."""
    shot = _longest(found)
    if shot is None:
        return None
    gust = to_gusts(shot.second_power)
    return lasting(gust, shot.counted, rate_hz=shot.rate_hz * shot.playback)


def hand_of(found: Assessment, focal_eq_mm: float) -> Floats | None:
    """How fast the hand turned in a judged take's longest shot, by frequency and part."""
    shot = _longest(found)
    if shot is None:
        return None
    return turning_of(
        shot.speeds, rate_hz=shot.rate_hz, focal_eq_mm=focal_eq_mm, counted=shot.counted
    )


def figures_of(found: Assessment, subject: Subject | None) -> dict[str, float]:
    """Figures of a judged take by key; those that it does not have are left out. Gusts are of the
    picture as filmed on the usual screen, so that no brief changes a comparison; a band's is of its
    own part of S², body gust of the camera's turn."""
    told: dict[str, float | None] = {}
    if found.causes.steps is not None:
        told[CADENCE] = 60.0 * found.causes.steps.cadence_hz
    speed, body = found.speed_pct_s, found.body_deg_s
    if speed:
        told["gust"] = to_gust(speed)
        for band in found.bands:
            if band.name in BANDS and band.share:
                told[band.name] = to_gust(speed * math.sqrt(band.share))
    if body:
        told["body"] = to_gust(body)
    if found.move is not None:
        move = found.move.move
        if move is None:
            told["wander"] = found.move.wander_pct
        else:
            told["evenness"] = 100.0 * (1.0 - move.evenness)
            told["dip"] = move.dip_pct if move.kind == "push" else None
            if subject is not None:
                centring = centring_of(subject.paths[0], from_s=move.start_s, to_s=move.end_s)
                told["centring"] = None if centring is None else centring.rms_pct
    return {key: round(one, 4) for key, one in told.items() if one is not None}
