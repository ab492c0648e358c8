"""Made takes with known causes: one that rules, or two, among a little of everything else."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from ridgewind.core.motion.path import Motion
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.bands import band_powers
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, plan, true_path
from ridgewind.standin.pose import facing

DISTANCE_M = 8.0
NOISE_PCT = 0.003
"""Error that a measurement adds to each frame of a path (the accuracy that is held)."""

RULING_SHARE, SECOND_SHARE = 0.5, 0.2
"""Of S², what a cause that rules must make, and what each of two must make at least."""

CALM = Technique(contacts=4, sway=0.35, breath=0.3, mass_kg=1.2, landing=0.4)

SINGLE: dict[str, Callable[[np.random.Generator], Technique]] = {
    "footfalls": lambda rng: replace(
        CALM, cadence_hz=rng.uniform(1.5, 2.4), landing=rng.uniform(0.5, 2.0), waddle=0.25
    ),
    "weight_shift": lambda rng: replace(
        CALM, cadence_hz=rng.uniform(1.5, 2.2), bounce=0.12, landing=0.1,
        waddle=rng.uniform(1.5, 2.5),
    ),
    "tremor": lambda rng: replace(
        CALM, contacts=int(rng.integers(1, 3)), elbows_in=bool(rng.integers(0, 2)),
        mass_kg=0.3, fatigue=rng.uniform(0, 1),
    ),
    "buzz": lambda rng: replace(
        CALM, buzz_deg=rng.uniform(0.06, 0.2), buzz_hz=rng.uniform(16, 24)
    ),
    "breath": lambda rng: replace(
        CALM, tremor=0.1, sway=0.1, breath=rng.uniform(25, 50)
    ),
    "swing": lambda rng: replace(
        CALM, swing_deg=rng.uniform(1.2, 2.5), swing_hz=rng.uniform(0.55, 1.1),
        swing_from_s=rng.uniform(0, 1.5),
    ),
    "wander": lambda rng: replace(
        CALM, contacts=2, stance="narrow", sway=rng.uniform(1.5, 3.0), mass_kg=3.0
    ),
    "jerk": lambda rng: replace(
        CALM, jolt_deg=rng.uniform(0.8, 2.0), jolt_at_s=-1.0 if rng.integers(0, 2) else 0.15
    ),
}  # fmt: skip
"""Causes, and a technique in which each rules. jolt_at_s under 0 counts from the end."""

WITHOUT: dict[str, dict[str, float]] = {
    "footfalls": {"bounce": 0.0, "landing": 0.0}, "weight_shift": {"waddle": 0.0},
    "tremor": {"tremor": 0.0}, "buzz": {"buzz_deg": 0.0}, "breath": {"breath": 0.0},
    "swing": {"swing_deg": 0.0}, "wander": {"sway": 0.0}, "jerk": {"jolt_deg": 0.0},
}  # fmt: skip
"""What takes a cause out of a technique."""

LEAST_PCT_S = 0.25
"""Weighted speed of a made take, at least: under gust 1 nothing is named."""

PAIRS = (
    ("footfalls", "weight_shift"), ("footfalls", "tremor"), ("weight_shift", "tremor"),
    ("tremor", "wander"), ("tremor", "buzz"), ("buzz", "wander"), ("footfalls", "buzz"),
    ("swing", "tremor"), ("jerk", "tremor"), ("jerk", "wander"),
)  # fmt: skip


@dataclass(frozen=True)
class MadeTake:
    """causes: the true ones, strongest first. motion: its path, as measured."""

    causes: tuple[str, ...]
    script: Script
    motion: Motion


def single_takes(count: int, *, seed: int) -> Iterator[MadeTake]:
    """So many takes of each cause, in each of which it makes at least half of S²."""
    for cause, technique in SINGLE.items():
        rng = np.random.default_rng([seed, len(cause)])
        made = 0
        while made < count:
            script = _script(technique(rng), rng)
            if share_of(cause, script) >= RULING_SHARE and _speed(script) >= LEAST_PCT_S:
                made += 1
                yield MadeTake((cause,), script, path_of(script))


def paired_takes(count: int, *, seed: int) -> Iterator[MadeTake]:
    """So many takes of each pair of causes, each of which makes at least a fifth of S²."""
    for pair in PAIRS:
        rng = np.random.default_rng([seed, len(pair[0]), len(pair[1])])
        made = 0
        while made < count:
            script = _script(_both(*pair, rng), rng)
            shares = {cause: share_of(cause, script) for cause in pair}
            if min(shares.values()) >= SECOND_SHARE and sum(shares.values()) > 0.7:
                made += 1
                order = tuple(sorted(pair, key=lambda cause: -shares[cause]))
                yield MadeTake(order, script, path_of(script))


def share_of(cause: str, script: Script) -> float:
    """What a cause makes of S², by leaving it out."""
    without = replace(script, technique=replace(script.technique, **WITHOUT[cause]))  # type: ignore[arg-type]
    return 1.0 - (_speed(without) / _speed(script)) ** 2


def path_of(script: Script) -> Motion:
    """The path of a take as a good measurement gives it; nothing is rendered."""
    truth = true_path(plan(script), facing(DISTANCE_M))
    rng = np.random.default_rng([script.seed, 17])
    error = rng.normal(0, NOISE_PCT, (len(truth.t_s), 4)) * [1.0, 1.0, 0.3, 1.0]
    return replace(
        truth,
        pan_pct=truth.pan_pct + error[:, 0],
        tilt_pct=truth.tilt_pct + error[:, 1],
        roll_deg=truth.roll_deg + error[:, 2],
        zoom_pct=truth.zoom_pct + error[:, 3],
        error=rng.permutation(error),
    )


def _script(technique: Technique, rng: np.random.Generator) -> Script:
    seconds = float(rng.uniform(6, 12))
    if technique.jolt_at_s < 0:
        technique = replace(technique, jolt_at_s=seconds - 0.15)
    return Script(
        technique=technique,
        focal_eq_mm=float(rng.choice([24.0, 26.0, 35.0, 50.0])),
        fps=float(rng.choice([50.0, 60.0])),
        seconds=seconds,
        seed=int(rng.integers(1, 10_000)),
    )


def _both(first: str, second: str, rng: np.random.Generator) -> Technique:
    """What either technique changes of a calm one, weakened or not, together."""
    out = CALM
    for cause in (first, second):
        own = SINGLE[cause](rng)
        changed = {
            name: getattr(own, name)
            for name in Technique.__dataclass_fields__
            if getattr(own, name) != getattr(CALM, name)
        }
        out = replace(out, **changed)
    if {first, second} == {"footfalls", "weight_shift"}:
        out = replace(out, bounce=rng.uniform(0.3, 0.8), waddle=rng.uniform(0.8, 2.0))
    if "buzz" in (first, second):
        out = replace(out, buzz_deg=out.buzz_deg * rng.uniform(0.3, 1.5))
    return out


@lru_cache(maxsize=16)
def _speed(script: Script) -> float:
    """Root mean square of the weighted speed; ends mirrored, so that nothing leaks there."""
    (shot,) = read_motion(true_path(plan(script), facing(DISTANCE_M))).shots
    return float(band_powers(shot.speeds, rate_hz=shot.rate_hz).sum(axis=1).mean()) ** 0.5
