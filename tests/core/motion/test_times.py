"""The clock of a film may leap, or make no sense: no path is drawn across it, and nothing grows."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.motion.path import REASONS, split_shots, typical_interval
from ridgewind.core.motion.tracker import Tracker
from ridgewind.core.shake import read_motion
from ridgewind.films.measuring import NEXT_STEPS
from tests.conftest import shaken

RATE_HZ = 30.0


def measured(times):
    tracker = Tracker((320, 180))
    for t_s, frame in zip(times, shaken(len(times)), strict=True):
        tracker.feed(t_s, frame)
    return tracker.finish()


@pytest.mark.parametrize("hours", [0.001, 10.0, 100.0])
def test_a_leap_of_the_clock_parts_two_shots(hours):
    times = np.arange(90) / RATE_HZ
    times[45:] += hours * 3600.0
    motion = measured(times)
    assert [(shot.start, shot.stop) for shot in motion.shots] == [(0, 45), (45, 90)]
    reading = read_motion(motion)
    whole = read_motion(measured(np.arange(90) / RATE_HZ))
    assert reading.gust() == pytest.approx(whole.gust(), abs=0.3)
    assert sum(len(shot.power) for shot in reading.shots) == 88
    clip = Clip(RATE_HZ, float(times[-1]), False, (320, 180), 26.0)
    assert assess(Analysis(motion), clip, usual_brief()).gust is not None


def test_a_leap_within_a_shaken_cut_still_parts_them():
    times = np.arange(60) / RATE_HZ
    times[2:] += 3600.0
    times[4:] += 3600.0
    motion = measured(times)
    assert {2, 4} <= {shot.start for shot in motion.shots}
    assert motion.shots[0].reason is not None


def test_lost_frames_and_slow_rates_are_no_leaps():
    times = np.arange(90) / RATE_HZ
    times[45:] += 1.0
    assert len(measured(times).shots) == 1
    every_five_seconds = measured(5.0 * np.arange(40))
    assert [shot.start for shot in every_five_seconds.shots] == [0]


@given(st.lists(st.floats(1e-3, 1e6), min_size=12, max_size=60))
def test_no_grid_is_much_longer_than_its_frames(gaps):
    t_s = np.cumsum([0.0, *gaps])
    (shot,) = split_shots(np.ones(len(t_s), bool), t_s, [], [""] * len(t_s))
    if shot.measurable:
        from ridgewind.core.shake.resample import resample

        even, _ = resample(t_s, np.ones(len(t_s), bool), np.zeros((len(t_s), 4)), curves=4)
        assert len(even) < 25 * len(t_s)


def test_every_reason_says_what_to_do():
    assert set(NEXT_STEPS) == set(REASONS)


def test_where_two_intervals_are_as_frequent_the_shorter_is_the_usual_one():
    t_s = np.cumsum([0.0] + 6 * [1 / 30, 1 / 15])
    assert typical_interval(t_s) == pytest.approx(1 / 30)
