"""Ridgewind's tracker beside the plain one, on every made hazard: `python bench/beside.py`.

Clips are filmed once into bench/.cache. Both trackers read each of them in turn, in one run.
"""

from __future__ import annotations

import os
import pickle
import statistics
import time
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from pathlib import Path

from plain import measure_plainly

from ridgewind.core.motion import Motion
from ridgewind.films.measuring import measure_film
from ridgewind.media.errors import UnfitError
from ridgewind.standin.camera import film
from ridgewind.standin.hazards import HARD, ORDINARY, SUBJECTS, Hazard
from ridgewind.standin.truth import Compared, compare, folder_for

CACHE = Path(__file__).parent / ".cache/hazards"
WRONG, LOW_TRUST = 0.5, 0.65
SUITES = {"ordinary": ORDINARY, "spoilt": HARD, "something large moves by itself": SUBJECTS}


@dataclass
class Score:
    """What one tracker made of a suite."""

    seconds: float = 0.0
    gust_off: list[float] = field(default_factory=list)
    path_pct: list[float] = field(default_factory=list)
    wrong: int = 0
    refused: int = 0

    def add(self, found: Compared | None, seconds: float) -> None:
        """Count a clip; None where it was refused."""
        self.seconds += seconds
        doubtful = found is None or found.off is None or found.trust < LOW_TRUST
        self.refused += doubtful
        if found is None or found.off is None or found.path_pct is None:
            return
        self.wrong += not doubtful and abs(found.off) >= WRONG
        if not doubtful:
            self.gust_off.append(abs(found.off))
            self.path_pct.append(found.path_pct)

    def line(self, name: str) -> str:
        """A row of the table."""
        return (
            f"  {name:10s} {self.seconds:6.1f} s   gust off: middle "
            f"{statistics.median(self.gust_off):.3f}, worst {max(self.gust_off):.2f}   path: middle"
            f" {statistics.median(self.path_pct):.4f} %, worst {max(self.path_pct):.3f} %   wrong "
            f"with trust: {self.wrong}, refused: {self.refused}"
        )


def filmed(hazard: Hazard) -> tuple[Path, Motion]:
    """A hazard's clip and its true path, kept from an earlier run where there is one."""
    path = folder_for(CACHE, hazard.name)
    kept = path.with_suffix(".pickle")
    if not kept.exists():
        CACHE.mkdir(parents=True, exist_ok=True)
        kept.write_bytes(pickle.dumps(film(hazard.script, path, spoil=hazard.spoil)))
    truth: Motion = pickle.loads(kept.read_bytes())
    return path, truth


HAZARDS: tuple[Hazard, ...] = (*ORDINARY, *HARD, *SUBJECTS)


def film_one(number: int) -> None:
    """Film a hazard of HAZARDS, in a process of its own."""
    filmed(HAZARDS[number])


def _ours(path: Path) -> Motion | None:
    try:
        return measure_film(path).motion
    except UnfitError:
        return None


def beside(name: str, hazards: tuple[Hazard, ...]) -> None:
    """Measure a suite with both, clip by clip."""
    scores = {"ridgewind": Score(), "plain": Score()}
    for hazard in hazards:
        path, truth = filmed(hazard)
        for tracker, measure in (("ridgewind", _ours), ("plain", measure_plainly)):
            begun = time.perf_counter()
            motion = measure(path)
            wall = time.perf_counter() - begun
            scores[tracker].add(None if motion is None else compare(truth, motion), wall)
    print(f"{name}: {len(hazards)} clips")
    for tracker, score in scores.items():
        print(score.line(tracker))


if __name__ == "__main__":
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        list(pool.map(film_one, range(len(HAZARDS))))
    for suite, hazards in SUITES.items():
        beside(suite, hazards)
