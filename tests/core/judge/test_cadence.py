"""A fast film that is delivered at full speed is read at the frames that an editor keeps."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.analysis import thinned
from ridgewind.core.judge.cadence import delivered_step, shown_frames
from ridgewind.core.judge.recipe import predicted, recipe_of
from ridgewind.core.shake.reading import read_motion
from tests.conftest import make_motion, sine

BRIEF = usual_brief()


def clip(fps: float, seconds: float) -> Clip:
    return Clip(fps, seconds, False, (1920, 1080), 26.0)


@pytest.mark.parametrize(
    ("fps", "delivery", "step"),
    [(60, 24, 2.5), (59.94, 23.976, 2.5), (50, 25, 2), (59.94, 30, 2), (120, 24, 5), (30, 24, 1),
     (24, 30, 1)],
)  # fmt: skip
def test_frames_filmed_for_each_one_shown(fps, delivery, step):
    assert delivered_step(fps, delivery) == pytest.approx(step, abs=1e-6)


def test_of_five_frames_two_are_shown_three_and_two_apart():
    index, at_s = shown_frames(np.arange(21) / 60, 2.5)
    assert index.tolist() == [0, 2, 5, 7, 10, 12, 15, 17, 20]
    assert at_s == pytest.approx(np.arange(9) / 24)


@given(st.floats(1.5, 6.0), st.integers(30, 200), st.integers(0, 5))
def test_the_latest_frame_filmed_by_then_is_shown(step, count, seed):
    jitter = np.random.default_rng(seed).uniform(-2e-4, 2e-4, count)
    t_s = 3.0 + np.arange(count) / 60 + jitter
    index, at_s = shown_frames(t_s, step)
    assert (np.diff(index) >= 1).all()
    assert (t_s[index] <= at_s + 1e-3).all()
    later = np.minimum(index + 1, count - 1)
    assert ((t_s[later] > at_s - 1e-3) | (later == index)).all()


def test_a_steady_pan_stutters_where_frames_are_left_out_unevenly():
    motion = make_motion(rate_hz=60, seconds=6, pan=lambda t: 12 * t)
    even = assess(Analysis(motion), clip(60, 6), replace(BRIEF, delivery_fps=30.0))
    uneven = assess(Analysis(motion), clip(60, 6), BRIEF)
    every = assess(Analysis(motion), clip(60, 6), BRIEF, as_filmed=True)
    assert even.gust == every.gust == 0
    assert (even.step, uneven.step, every.step) == (2.0, 2.5, 1.0)
    # The same, written out: frames 0, 2, 5, 7 ... shown a twenty-fourth of a second apart.
    index = np.floor(2.5 * np.arange(144) + 1e-9).astype(int)
    shown = make_motion(rate_hz=24, seconds=6, pan=lambda t: 12 * index[: len(t)] / 60)
    assert uneven.gust == pytest.approx(read_motion(shown).gust(), abs=0.02)
    assert uneven.gust > 3.5


def test_a_polish_takes_the_stutter_away_with_the_shake():
    motion = make_motion(
        rate_hz=60, seconds=6, pan=lambda t: 10 * t + sine(0.3, 5.0)(t), tilt=sine(0.3, 3.0)
    )
    analysis = Analysis(motion)
    found = assess(analysis, clip(60, 6), BRIEF)
    polish = found.decision.of("polish")
    assert found.gust > 5
    assert polish.gust < 4
    assert polish.step == 2.5
    as_film = predicted(recipe_of(polish), analysis, clip(60, 6), BRIEF)
    assert as_film.gust == pytest.approx(polish.gust, abs=0.3)


def test_what_is_left_out_smears_no_more_for_it():
    motion = make_motion(rate_hz=60, seconds=6, tilt=sine(1.0, 2.0))
    analysis = Analysis(motion)
    every, second = analysis.polish(), analysis.polish(step=2.0)
    assert second.blur_pct == pytest.approx(every.blur_pct, rel=0.03)


def test_shots_keep_their_frames():
    motion = make_motion(rate_hz=60, seconds=2)
    two = (replace(motion.shots[0], stop=51), replace(motion.shots[0], start=51))
    found = thinned(replace(motion, shots=two), 2.5)
    assert [(shot.start, shot.stop) for shot in found.shots] == [(0, 21), (21, 48)]


def test_of_pictures_that_are_shown_twice_the_one_that_is_seen_counts():
    """Every other frame of sixty repeats the one before it; 24 of them are shown."""
    motion = make_motion(rate_hz=60, seconds=2, pan=sine(2.0, 1.0))
    held = np.arange(120) % 2 == 1
    shown = thinned(replace(motion, held=held), 2.5)
    index, _ = shown_frames(motion.t_s, 2.5)
    assert (index % 2 == 1).any()
    assert shown.held is None
    assert shown.pan_pct == pytest.approx(motion.pan_pct[index - index % 2])
    plain = thinned(motion, 2.5)
    assert plain.pan_pct == pytest.approx(motion.pan_pct[index])
