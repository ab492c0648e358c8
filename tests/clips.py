"""Clips of the stand-in camera that several tests look at: each is filmed and measured once a run,
whichever process asks first."""

from __future__ import annotations

import fcntl
import hashlib
import pickle
from dataclasses import dataclass
from pathlib import Path

from ridgewind.core.motion import Motion
from ridgewind.films.measuring import Measured, measure_film
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film

SMALL = (640, 360)
"""Where the tolerances hold in a smaller picture too, less is filmed."""

CLIPS = {
    "ridge, hold": Script("ridge", "hold", Technique(), 26, size=SMALL, seconds=3),
    "ridge, pan": Script("ridge", "pan", Technique(), 35, size=SMALL, seconds=2.5, seed=3),
    "ridge, tilt": Script("ridge", "tilt", Technique(), 35, size=SMALL, fps=25, seconds=2, seed=8),
    "ridge, locked off": Script(
        "ridge", "hold", Technique(support="table"), 26, size=SMALL, seconds=2, seed=9
    ),
    "door, one hand": Script(
        "door", "hold", Technique(contacts=1), 35, size=SMALL, fps=60, seconds=2, seed=4
    ),
    "door, walk-in": Script("door", "walk", Technique(cadence_hz=1.8), 26, seconds=3, seed=5),
    "door, slide": Script("door", "slide", Technique(), 26, fps=50, seconds=2, seed=11),
    "stones, hold": Script(
        "stones", "hold", Technique(), 35, size=SMALL, fps=24, seconds=3, seed=7
    ),
    # Half a metre sideways, with two fifths of the picture nearer than the background.
    "stones, slide": Script(
        "stones", "slide", Technique(), 35, size=SMALL, fps=24, seconds=3, seed=7
    ),
}


@dataclass(frozen=True)
class Filmed:
    """A made clip, the path that its camera truly took, and what is measured of it."""

    path: Path
    truth: Motion
    measured: Measured


class FilmStore:
    """Made clips in a folder that all test processes share."""

    def __init__(self, folder: Path) -> None:
        folder.mkdir(exist_ok=True)
        self._folder = folder

    def get(self, name: str) -> Filmed:
        """A clip of CLIPS, filmed and measured at first use."""
        script = CLIPS[name]
        key = hashlib.sha256(repr(script).encode()).hexdigest()[:16]
        kept = self._folder / f"{key}.pickle"
        with (self._folder / f"{key}.lock").open("w") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX)
            if not kept.exists():
                path = self._folder / f"{key}.mp4"
                truth = film(script, path)
                kept.write_bytes(pickle.dumps(Filmed(path, truth, measure_film(path))))
            filmed: Filmed = pickle.loads(kept.read_bytes())
        return filmed
