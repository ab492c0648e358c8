"""Playback rates: even cadences, the fastest that passes, and the worked values of slowing."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.brief import usual_brief
from ridgewind.core.judge import Analysis
from ridgewind.core.judge.analysis import thinned
from ridgewind.core.judge.slow import chosen_rate, even_rates, rate_readings
from ridgewind.core.shake import read_motion
from tests.conftest import make_motion, sine

BRIEF = usual_brief()


def test_the_worked_value_of_slowing_comes_out():
    motion = make_motion(rate_hz=60, seconds=10, pan=sine(0.1, 8))
    reading = Analysis(motion).reading(0.4)
    assert reading.speed_pct_s == pytest.approx(1.2978, abs=0.002)
    assert reading.gust() == pytest.approx(4.62, abs=0.01)


def test_even_rates_show_every_so_manieth_frame():
    assert even_rates(BRIEF, fps=60) == ((pytest.approx(0.4), 1), (pytest.approx(0.8), 2))
    assert [step for _, step in even_rates(BRIEF, fps=120)] == [1, 2, 3, 4]
    assert even_rates(BRIEF, fps=25) == ()
    assert even_rates(replace(BRIEF, keep_sound=True), fps=120) == ()


@given(st.floats(10, 240), st.floats(12, 60))
def test_even_rates_are_whole_cadences_and_slow(fps, delivery):
    for rate, step in even_rates(replace(BRIEF, delivery_fps=delivery), fps=fps):
        assert rate * fps / delivery == pytest.approx(step)
        assert rate <= 0.9


def test_the_fastest_rate_that_passes_and_lasts_is_chosen():
    gentle = Analysis(make_motion(rate_hz=120, seconds=8, pan=sine(0.1, 2.5)))
    assert chosen_rate(gentle, BRIEF, fps=120, duration_s=8)[1] == 4
    rougher = Analysis(make_motion(rate_hz=120, seconds=8, pan=sine(0.5, 2)))
    rate, step = chosen_rate(rougher, BRIEF, fps=120, duration_s=8)
    slower = rougher.reading(rate, step=step).gust()
    faster = rougher.reading((step + 1) * 0.2, step=step + 1).gust()
    assert slower <= BRIEF.target < faster
    wanting = replace(BRIEF, wanted_s=20.0)
    assert chosen_rate(gentle, wanting, fps=120, duration_s=8)[1] == 2
    hopeless = Analysis(make_motion(rate_hz=120, seconds=8, pan=sine(3.0, 4)))
    assert chosen_rate(hopeless, BRIEF, fps=120, duration_s=8)[1] == 1


def test_every_second_frame_is_a_film_of_its_own():
    motion = make_motion(rate_hz=60, seconds=6, pan=sine(0.3, 3), tilt=sine(0.2, 5))
    half = thinned(motion, 2)
    assert half.t_s == pytest.approx(motion.t_s[::2])
    assert half.shots[0].stop == len(half.t_s)
    # First differences at half the rate are a little blunter.
    assert read_motion(half).gust() == pytest.approx(read_motion(motion).gust(), abs=0.1)


def test_all_useful_rates_are_shown_with_what_is_uneven():
    analysis = Analysis(make_motion(rate_hz=60, seconds=8, pan=sine(0.3, 3)))
    found = rate_readings(analysis, BRIEF, fps=60, duration_s=8)
    by_rate = {round(one.rate, 2): one for one in found}
    assert by_rate[0.4].step == 1
    assert by_rate[0.8].step == 2
    assert by_rate[0.5].step is None
    assert by_rate[2.0].gust > by_rate[0.5].gust
    assert by_rate[0.4].plays_s == pytest.approx(20)
    assert all(np.diff([one.rate for one in found]) > 0)
