"""Films full of what moves by itself, as a newcomer's first clip is: each is judged, or refused
with its reason; none ends in an error of ours."""

from __future__ import annotations

from collections import Counter

import cv2
import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.films.measuring import measure_film
from ridgewind.media.errors import MediaError
from ridgewind.standin import movers
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, plan, render_frame, renderer_of
from ridgewind.standin.hazards import crossing, water_over
from tests.conftest import write_film
from tests.core.judge.test_any_motion import answers

SPOILERS = {
    "traffic": lambda share: movers.in_front(movers.vehicle, share),
    "crowd": lambda share: movers.in_front(movers.crowd, share),
    "walker": lambda share: movers.in_front(movers.walker, share, carried=False),
    "water": water_over,
    "crossing": lambda _share: crossing,
}
SIZES = ((270, 480), (480, 270))
RATES = (24, 30, 50, 60)
QUIET = {"preset": "ultrafast", "x265-params": "log-level=none"}
CODECS = (
    ("libx265", QUIET | {"crf": "42"}),
    ("libx264", {"crf": "40", "preset": "veryfast", "threads": "1"}),
    ("libx265", QUIET | {"crf": "24"}),
)
COUNT = 60


def filmed(folder, number: int):
    """The film of a number: every mix of what moves, how it is held, and how it is written."""
    rng = np.random.default_rng([number, 5])
    kind = list(SPOILERS)[number % len(SPOILERS)]
    held = Technique(support="table") if number % 3 == 0 else Technique(contacts=1)
    scene = ("ridge", "door", "stones")[number % 3]
    script = Script(
        scene, "hold", held, 26, size=SIZES[number % 2], fps=RATES[number % 4],
        seconds=2.0, seed=100 + number,
    )  # fmt: skip
    take = plan(script)
    renderer = renderer_of(take)
    spoil = SPOILERS[kind](float(rng.uniform(0.3, 0.85)))(take, renderer)
    frames = (
        cv2.cvtColor(
            spoil(render_frame(take, renderer, float(t_s), k), k, float(t_s)), cv2.COLOR_BGR2GRAY
        )
        for k, t_s in enumerate(take.frame_times_s)
    )
    codec, options = CODECS[number % len(CODECS)]
    return write_film(
        folder / f"{kind}-{number}.mp4", frames, rate=RATES[number % 4], codec=codec,
        options=options, sound=number % 2 == 0,
    )  # fmt: skip


def outcome(path) -> str:
    """In one word, what became of a film."""
    try:
        found = measure_film(path)
    except MediaError:
        return "refused"
    clip = Clip(
        fps=found.fps, duration_s=found.duration_s, has_sound=found.has_sound,
        size_px=(found.width, found.height), focal_eq_mm=26.0,
    )  # fmt: skip
    answers(found.motion, clip, usual_brief())
    assert any(shot.measurable for shot in found.motion.shots)
    for shot in found.motion.shots:
        trusted = found.motion.trusted[shot.start : shot.stop]
        assert trusted.any() or not shot.measurable
    return "in doubt" if any(shot.doubt for shot in found.motion.shots) else "judged"


@pytest.mark.parametrize("number", [0, 1, 5, 12])
def test_some_films_of_crowds_are_judged_or_refused(tmp_path, number):
    assert outcome(filmed(tmp_path, number)) in ("judged", "in doubt", "refused")


@pytest.mark.soak
def test_all_films_of_crowds_are_judged_or_refused(tmp_path):
    found = Counter(outcome(filmed(tmp_path, number)) for number in range(COUNT))
    assert found.total() == COUNT
    assert found["judged"] > COUNT / 4, found  # most of what is refused would be a fault, too
