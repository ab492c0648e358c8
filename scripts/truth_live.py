"""Feed large things that move by themselves to the live meter, and keep how often it is wrong in
docs/truth-live.md: part of `make truth`, some five minutes.

Every figure that is told is set beside the true gust of the same second, of the whole true path.
"""

from __future__ import annotations

import math
import sys
import tempfile
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np

from ridgewind.core.motion import Motion
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.gust import WINDOW_S, to_gust
from ridgewind.core.shake.live import PictureMeter
from ridgewind.media.decode import Film
from ridgewind.standin.camera import film
from ridgewind.standin.hazards import SUBJECTS, Hazard

OUT = Path(__file__).parent.parent / "docs/truth-live.md"
SECONDS, EVERY = 8.0, 8
"""Of each clip; a figure is read every so many pictures, as the page does."""

SCREEN_DEG, WRONG = 30.0, 0.5
HAZARDS: tuple[Hazard, ...] = tuple(one for one in SUBJECTS if ", 30 %" not in one.name)
HEADER = (
    "| clip | true gust | figures told | in doubt | off by half or more | furthest off |\n"
    "| --- | --- | --- | --- | --- | --- |"
)
INTRODUCTION = """# The live meter against the truth

Written by `make truth`: something large moves by itself before a camera that stands still or is
held, for {seconds:.0f} s. Every figure that the live meter told is set beside the true gust of the
same second; before three seconds it tells none.

**Of {told} figures told, {wrong} were off by {off} or more** ({share:.1f} %). In doubt, with the
reason on the page: {doubtful}.
"""


@dataclass(frozen=True)
class Watched:
    """A clip that was watched live. off: of every figure told, against the truth."""

    name: str
    true: float
    off: tuple[float, ...]
    doubtful: int

    @property
    def wrong(self) -> int:
        return sum(abs(one) >= WRONG for one in self.off)

    @property
    def line(self) -> str:
        most = f"{max(self.off, key=abs):+.2f}" if self.off else "–"
        counts = f"{len(self.off)} | {self.doubtful} | {self.wrong}"
        return f"| {self.name} | {self.true:.2f} | {counts} | {most} |"


def watch(number: int) -> Watched:
    """Film a hazard of HAZARDS, and feed its pictures to a meter."""
    hazard = HAZARDS[number]
    with tempfile.TemporaryDirectory() as name:
        path = Path(name) / "take.mp4"
        truth = film(replace(hazard.script, seconds=SECONDS), path, spoil=hazard.spoil)
        meter: PictureMeter | None = None
        off, doubtful = [], 0
        with Film(path) as opened:
            for index, picture in enumerate(opened.pictures(lambda plane: plane)):
                meter = meter or PictureMeter(picture.size)
                meter.feed(picture.t_s, picture.luma)
                if index % EVERY:
                    continue
                told = meter.read(screen_deg=SCREEN_DEG)
                if told.gust is not None:
                    off.append(told.gust - _gust_until(truth, told.t_s))
                doubtful += told.gust is None and told.reason != "short"
    return Watched(hazard.name, read_motion(truth).gust() or 0.0, tuple(off), doubtful)


def _gust_until(truth: Motion, now_s: float) -> float:
    """True gust of the second before a time."""
    (shot,) = read_motion(truth).shots
    last = (shot.t_s > now_s - WINDOW_S) & (shot.t_s <= now_s)
    return to_gust(math.sqrt(float(np.mean(shot.power[last]))), screen_deg=SCREEN_DEG)


def main() -> int:
    with ProcessPoolExecutor() as pool:
        found = []
        for one in pool.map(watch, range(len(HAZARDS))):
            print(one.line, flush=True)
            found.append(one)
    told, wrong = sum(len(one.off) for one in found), sum(one.wrong for one in found)
    head = INTRODUCTION.format(
        seconds=SECONDS, told=told, wrong=wrong, off=WRONG, share=100 * wrong / max(told, 1),
        doubtful=sum(one.doubtful for one in found),
    )  # fmt: skip
    OUT.write_text("\n".join([head, HEADER, *(one.line for one in found), ""]))
    return 0


if __name__ == "__main__":
    sys.exit(main())
