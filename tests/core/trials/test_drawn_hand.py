"""A hand drawn from its spectrum reads, measured like any take, what it is predicted to read."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.shake.reading import read_motion
from ridgewind.core.trials.drawn_hand import draw_hand
from ridgewind.core.trials.own_hand import BINS, MIDDLES_HZ, Hand, predict, turning_of

ASPECT = 9 / 16


def hand_of_sway_and_tremor(roll=0.0):
    power = np.zeros((1, BINS, 4))
    power[0, (MIDDLES_HZ >= 0.3) & (MIDDLES_HZ <= 1.0), :2] = 0.01
    power[0, np.argmin(np.abs(MIDDLES_HZ - 8.0)), :2] = 0.4
    power[0, (MIDDLES_HZ >= 1.0) & (MIDDLES_HZ <= 5.0), 2:] = roll
    return Hand(MIDDLES_HZ, power, np.array([26.0]))


@pytest.mark.parametrize("focal", [26.0, 85.0])
@pytest.mark.parametrize("rate", [1.0, 0.4])
@pytest.mark.parametrize("roll", [0.0, 0.05])
def test_it_reads_what_is_predicted_through_any_lens_at_any_rate(focal, rate, roll):
    hand = hand_of_sway_and_tremor(roll)
    read = []
    for seed in range(6):
        drawn = draw_hand(hand, seed=seed, up_to_hz=30.0)
        motion = drawn.motion(fps=60.0, seconds=12.0, focal_eq_mm=focal, aspect=ASPECT)
        read.append(read_motion(motion, playback=rate).gust())
    expected = predict(hand, focal_eq_mm=focal, rate=rate).gust
    assert np.mean(read) == pytest.approx(expected, abs=0.2)
    assert np.ptp(read) > 0.01, "random phases make takes that differ"


def test_measured_again_it_is_the_same_hand():
    hand = hand_of_sway_and_tremor()
    motion = draw_hand(hand, seed=3, up_to_hz=30.0).motion(
        fps=60.0, seconds=60.0, focal_eq_mm=26.0, aspect=ASPECT
    )
    (shot,) = read_motion(motion).shots
    found = turning_of(shot.speeds, rate_hz=60.0, focal_eq_mm=26.0, counted=shot.counted)
    for low, high in ((0.3, 1.0), (7.0, 9.0)):
        inside = (low <= MIDDLES_HZ) & (high >= MIDDLES_HZ)
        truth = hand.mean_square[0][inside].sum()
        assert found[inside].sum() == pytest.approx(truth, rel=0.25)


def test_what_is_faster_than_the_film_shows_is_left_out():
    drawn = draw_hand(hand_of_sway_and_tremor(), seed=1, up_to_hz=5.0)
    assert drawn.hz.max() < 5.0
    assert (drawn.path(np.zeros(2), focal_eq_mm=26.0, aspect=ASPECT) == 0.0).all()
