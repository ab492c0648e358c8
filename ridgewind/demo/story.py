"""The demo's takes: five weeks of one invented volunteer filming Harrow Top.

`python -m ridgewind.demo.story` renders them again into ridgewind/demo/clips. Only the
pictures ship; every figure on screen is measured from them when the demo starts.
"""

from __future__ import annotations

import sys
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film

CLIPS = Path(__file__).parent / "clips"


@dataclass(frozen=True)
class DemoTake:
    """name: as the shooter would call it. brief, setup: names of what it was filmed for and
    with, see work.demo."""

    name: str
    recorded_at: str
    script: Script
    brief: str = "Restoration film, smooth"
    setup: str = "Phone, bare hands"

    @property
    def file(self) -> Path:
        return CLIPS / (self.name.lower().replace(", ", "-").replace(" ", "-") + ".mp4")


DEMO_TAKES = (
    DemoTake(
        "Mill door, walk-in, heels down",
        "2026-09-07T09:12:00Z",
        Script(
            "door",
            "walk",
            Technique(cadence_hz=1.87, landing=1.8),
            26,
            fps=30,
            seconds=6,
            seed=21,
            crf=21,
        ),
    ),
    DemoTake(
        "Sails, one hand, tired",
        "2026-09-09T16:40:00Z",
        Script(
            "ridge",
            "hold",
            Technique(contacts=1, elbows_in=False, fatigue=1.0),
            70,
            fps=25,
            seconds=7,
            seed=22,
            crf=22,
        ),
        setup="Mirrorless, 24–70, strap taut",
    ),
    DemoTake(
        "Sack hoist, bare hands",
        "2026-09-16T10:05:00Z",
        Script(
            "stones", "hold", Technique(stabiliser=0.25), 35, fps=60, seconds=5, seed=23, crf=24
        ),
        setup="Mirrorless, 24–70, strap taut",
    ),
    DemoTake(
        "Millstone, grip slips",
        "2026-09-18T11:30:00Z",
        Script(
            "stones",
            "hold",
            Technique(contacts=3, stance="leaning", rough=7.0, rough_from_s=5.8, rough_until_s=9.0),
            26,
            fps=30,
            seconds=8,
            seed=24,
            crf=22,
        ),
    ),
    DemoTake(
        "Mill door, walk-in, off the body",
        "2026-09-24T09:20:00Z",
        Script(
            "door",
            "walk",
            Technique(cadence_hz=1.75, landing=0.6, hold="off_body", stabiliser=0.5),
            26,
            fps=120,
            seconds=3,
            seed=25,
            crf=25,
        ),
    ),
    DemoTake(
        "Ridge, pan from the hips",
        "2026-09-25T17:55:00Z",
        Script(
            "ridge",
            "pan",
            Technique(contacts=3, strap_tension=0.6, stabiliser=0.5),
            28,
            fps=25,
            seconds=7,
            seed=26,
            crf=22,
        ),
        brief="Opening pan",
        setup="Mirrorless, 24–70, strap taut",
    ),
    DemoTake(
        "Mill from the track, against the gate",
        "2026-10-01T08:45:00Z",
        Script(
            "ridge",
            "hold",
            Technique(contacts=3, stance="leaning", strap_tension=0.6, stabiliser=0.4),
            26,
            fps=24,
            seconds=7,
            seed=27,
            crf=22,
        ),
    ),
    DemoTake(
        "Cap and sails, monopod",
        "2026-10-02T15:10:00Z",
        Script(
            "ridge",
            "hold",
            Technique(support="monopod", mass_kg=1.1, stabiliser=0.3),
            50,
            fps=30,
            seconds=6,
            seed=28,
            crf=22,
        ),
        setup="Mirrorless on the monopod",
    ),
    DemoTake(
        "Mill door, camera on the sill",
        "2026-10-06T12:25:00Z",
        Script("door", "hold", Technique(support="table"), 35, fps=25, seconds=6, seed=29, crf=23),
        brief="Door insert, locked",
        setup="Mirrorless, 24–70, strap taut",
    ),
    DemoTake(
        "Sacks, slide by weight shift",
        "2026-10-08T10:50:00Z",
        Script(
            "stones",
            "slide",
            Technique(contacts=3, strap_tension=0.5),
            30,
            fps=60,
            seconds=4,
            seed=30,
            crf=25,
        ),
        brief="Sacks and hoist, alive",
        setup="Mirrorless, 24–70, strap taut",
    ),
)


def render(take: DemoTake) -> str:
    """Film one demo take into CLIPS."""
    CLIPS.mkdir(exist_ok=True)
    film(take.script, take.file, metadata={"title": take.name, "creation_time": take.recorded_at})
    return f"{take.file.name}  {take.file.stat().st_size / 1e6:.2f} MB"


def main() -> int:
    with ProcessPoolExecutor() as pool:
        for line in pool.map(render, DEMO_TAKES):
            print(line, flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
