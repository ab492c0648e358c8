"""Gust against its worked values, and the laws that it obeys."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion import Motion, Shot
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.gust import (
    SpeedSpectrum,
    part_speeds,
    percentile,
    power_at_playback,
    rolling_mean,
    to_gust,
    to_speed,
    weight,
)
from tests.conftest import make_motion, sine

WORKED = [
    ("pan", 1.0, 0.25, 30, 1.0, 0.0931, 0.0),
    ("pan", 1.0, 1.0, 30, 1.0, 2.6831, 5.93),
    ("pan", 1.0, 2.0, 30, 1.0, 7.6905, 7.83),
    ("pan", 0.1, 8.0, 60, 1.0, 2.8970, 6.07),
    ("pan", 0.1, 8.0, 60, 0.4, 1.2978, 4.62),
    ("roll", 1.0, 2.0, 30, 1.0, 4.4457, 6.84),
    ("zoom", 1.0, 2.0, 30, 1.0, 2.5475, 5.84),
]


@pytest.mark.parametrize(("part", "amplitude", "hz", "rate", "playback", "speed", "gust"), WORKED)
def test_worked_values(part, amplitude, hz, rate, playback, speed, gust):
    motion = make_motion(rate_hz=rate, seconds=10, **{part: sine(amplitude, hz)})
    reading = read_motion(motion, playback=playback)
    assert reading.speed_pct_s == pytest.approx(speed, rel=0.005)
    assert reading.gust() == pytest.approx(gust, abs=0.006)


def test_a_steady_pan_weighs_nothing():
    reading = read_motion(make_motion(rate_hz=30, seconds=10, pan=lambda t: 3.0 * t))
    assert reading.speed_pct_s == pytest.approx(0, abs=1e-9)
    assert reading.gust() == 0


@settings(max_examples=25, deadline=None)
@given(hz=st.floats(0.5, 10), factor=st.floats(1.5, 4), part=st.sampled_from(["pan", "tilt"]))
def test_every_doubling_adds_one_and_a_quarter(hz, factor, part):
    small = read_motion(make_motion(rate_hz=60, seconds=8, **{part: sine(0.2, hz)}))
    large = read_motion(make_motion(rate_hz=60, seconds=8, **{part: sine(0.2 * factor, hz)}))
    assert large.speed_pct_s == pytest.approx(factor * small.speed_pct_s, rel=1e-6)
    assert large.gust() - small.gust() == pytest.approx(1.25 * np.log2(factor), abs=1e-5)


@settings(max_examples=20, deadline=None)
@given(angle=st.floats(0, 2 * np.pi))
def test_the_direction_of_shake_does_not_matter(angle):
    motion = make_motion(
        rate_hz=30,
        seconds=6,
        pan=sine(np.cos(angle), 2.0),
        tilt=sine(np.sin(angle), 2.0),
    )
    along = read_motion(make_motion(rate_hz=30, seconds=6, pan=sine(1.0, 2.0)))
    assert read_motion(motion).speed_pct_s == pytest.approx(along.speed_pct_s, rel=1e-6)


def test_uneven_timestamps_read_like_even_ones():
    rng = np.random.default_rng(3)
    times = np.cumsum(np.r_[0, (1 / 60) * rng.uniform(0.6, 1.4, 599)])
    uneven = read_motion(make_motion(rate_hz=60, seconds=10, t_s=times, pan=sine(1, 1.5)))
    even = read_motion(make_motion(rate_hz=60, seconds=10, pan=sine(1, 1.5)))
    assert uneven.gust() == pytest.approx(even.gust(), abs=0.05)


def test_untrusted_frames_are_left_out():
    motion = make_motion(rate_hz=30, seconds=10, pan=sine(0.3, 2.0))
    pan, trust = motion.pan_pct.copy(), motion.trust.copy()
    pan[100:110], trust[100:110] = np.nan, 0.0
    broken = Motion(
        motion.t_s, pan, motion.tilt_pct, motion.roll_deg, motion.zoom_pct, trust,
        motion.error, motion.aspect, motion.shots,
    )  # fmt: skip
    reading = read_motion(broken)
    assert reading.trusted_share == pytest.approx(290 / 300)
    assert reading.gust() == pytest.approx(read_motion(motion).gust(), abs=0.1)


def test_shots_are_measured_apart_and_the_top_figure_is_over_all():
    shaky = make_motion(rate_hz=30, seconds=10, pan=sine(1, 2))
    pan = shaky.pan_pct.copy()
    pan[150:] = 50.0  # a jump at the cut must not count as motion
    cut = Motion(
        shaky.t_s, pan, shaky.tilt_pct, shaky.roll_deg, shaky.zoom_pct, shaky.trust,
        shaky.error, shaky.aspect, (Shot(0, 150, None), Shot(150, 300, None)),
    )  # fmt: skip
    reading = read_motion(cut)
    assert reading.shots[1].gust(screen_deg=30) == 0
    expected = (7.69**2 / 2) ** 0.5
    assert reading.speed_pct_s == pytest.approx(expected, rel=0.02)


def test_an_unmeasurable_shot_is_a_value_with_a_reason():
    motion = make_motion(rate_hz=30, seconds=2)
    blank = Motion(
        motion.t_s, *[np.full(60, np.nan)] * 4, np.zeros(60), motion.error, motion.aspect,
        (Shot(0, 60, "dark"),),
    )  # fmt: skip
    reading = read_motion(blank)
    assert reading.gust() is None
    assert reading.peak() is None
    assert reading.reason == "too dark"


def test_a_smaller_screen_takes_off_and_a_larger_one_adds():
    assert to_gust(1.0, screen_deg=45) - to_gust(1.0) == pytest.approx(0.731, abs=1e-3)
    assert to_gust(1.0, screen_deg=12) - to_gust(1.0) == pytest.approx(-1.652, abs=1e-3)


@given(gust=st.floats(0.01, 9.99), screen=st.floats(5, 90))
def test_speed_and_gust_round_trip(gust, screen):
    assert to_gust(to_speed(gust, screen_deg=screen), screen_deg=screen) == pytest.approx(gust)


def test_gust_stays_within_its_scale():
    assert to_gust(0.0) == 0
    assert to_gust(1e9) == 10


def test_the_weight_forgives_slow_motion_and_the_fastest():
    heard = weight(np.array([0.0, 0.8, 3.0, 12.0, 60.0]))
    assert heard[0] == 0
    assert heard[1] == pytest.approx(0.5, abs=0.001)
    assert heard[2] > 0.9
    assert heard[3] == pytest.approx(0.5, abs=0.01)
    assert heard[4] < 0.01


def test_rolling_mean_skips_what_does_not_count():
    values = np.array([1.0, 100.0, 3.0, 5.0])
    counted = np.array([True, False, True, True])
    assert rolling_mean(values, counted, window=3).tolist() == [1.0, 2.0, 4.0, 4.0]
    assert np.isnan(rolling_mean(values, np.zeros(4, bool), window=3)).all()


@given(st.integers(3, 400), st.integers(1, 500))
def test_rolling_mean_where_all_counts_is_that_of_its_windows(count, window):
    values = np.random.default_rng(count).uniform(0, 5, count)
    half = window // 2
    by_hand = [values[max(0, k - half) : k + half + 1].mean() for k in range(count)]
    assert rolling_mean(values, np.ones(count, bool), window=window) == pytest.approx(by_hand)


@settings(max_examples=30)
@given(st.floats(0.1, 2.0), st.floats(24, 120), st.integers(3, 30), st.integers(0, 99))
def test_transformed_once_speeds_weigh_what_they_weigh_at_each_rate(playback, rate_hz, seconds, k):
    white = np.random.default_rng(k).normal(0, 1, (round(seconds * rate_hz), 4))
    speeds = np.cumsum(white, axis=0) * 0.2 + white
    once = SpeedSpectrum(speeds, rate_hz=rate_hz).power(playback)
    each = power_at_playback(speeds, rate_hz=rate_hz, playback=playback)
    assert to_gust(once.mean() ** 0.5) == pytest.approx(to_gust(each.mean() ** 0.5), abs=0.002)
    if playback >= 1.0:
        assert once == pytest.approx(each, rel=1e-9, abs=1e-9)


def test_single_precision_loses_nothing_beside_a_fast_pan():
    t = np.arange(0, 60, 1 / 60)
    trembling = 1e-3 * np.sin(2 * np.pi * 6.0 * t)
    speeds = np.stack([300.0 + trembling, *(np.zeros((3, len(t))))], axis=1)
    found = power_at_playback(speeds, rate_hz=60.0, playback=1.0)[120:-120].mean()
    assert found == pytest.approx((1e-3 * weight(np.array([6.0]))[0]) ** 2 / 2, rel=1e-3)


@given(st.lists(st.floats(0, 1e6), min_size=1, max_size=80), st.floats(0, 100))
def test_a_percentile_is_that_of_numpy(values, percent):
    found = percentile(np.array(values), percent)
    assert found == pytest.approx(np.percentile(values, percent), rel=1e-9, abs=1e-6)


def test_a_wrong_call_names_value_and_rule():
    with pytest.raises(InvalidArgumentError, match=r"rate_hz is -1, but it must be a finite"):
        part_speeds(np.zeros((3, 4)), rate_hz=-1, aspect=0.5)
    with pytest.raises(InvalidArgumentError, match=r"path is \(3, 2\), but"):
        part_speeds(np.zeros((3, 2)), rate_hz=30, aspect=0.5)
