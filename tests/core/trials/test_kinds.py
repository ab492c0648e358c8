"""Kinds of shake in a hand: breath is told from sway by what only tilt has."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from ridgewind.core.trials.kinds import BREATH, KINDS, kind_shares
from ridgewind.core.trials.own_hand import BINS, MIDDLES_HZ, Hand, turning_of


def hand(*parts):
    """parts: (low, high, pan, tilt) speeds, degrees a second, spread evenly over frequencies."""
    power = np.zeros((1, BINS, 4))
    for low, high, pan, tilt in parts:
        inside = (low <= MIDDLES_HZ) & (high >= MIDDLES_HZ)
        power[:, inside, 0] += pan**2 / inside.sum()
        power[:, inside, 1] += tilt**2 / inside.sum()
    return Hand(MIDDLES_HZ, power, np.array([26.0]))


def test_what_tilt_alone_has_at_the_pace_of_breath_is_breath():
    found = kind_shares(hand((0.2, 0.4, 0.1, 1.0)))
    assert found[BREATH] == pytest.approx(0.99 / 1.01, abs=1e-6)
    assert sum(found.values()) == pytest.approx(1.0)


@pytest.mark.parametrize(("pan", "tilt"), [(1.0, 1.0), (1.0, 1.6), (1.0, 0.2)])
def test_sway_that_goes_both_ways_is_no_breath(pan, tilt):
    found = kind_shares(hand((0.2, 0.4, pan, tilt)))
    assert found[BREATH] == 0.0
    assert found["drift"] + found["sway"] == pytest.approx(1.0)


def test_faster_tilt_is_no_breath():
    assert kind_shares(hand((0.6, 1.0, 0.0, 1.0)))[BREATH] == 0.0
    assert kind_shares(hand((7.0, 11.0, 0.0, 1.0)))["jitter"] == pytest.approx(1.0)


def test_a_made_take_of_breath_and_tremor_is_told_apart():
    """Twelve seconds of a rise and fall at 0.25 Hz with a tremor at 9 Hz, as a take is kept."""
    t_s = np.arange(360) / 30.0
    speeds = np.zeros((360, 4))
    speeds[:, 1] = 3.0 * np.sin(2 * np.pi * 0.25 * t_s)
    speeds[:, 0] = 0.5 * np.sin(2 * np.pi * 9.0 * t_s)
    kept = turning_of(speeds, rate_hz=30.0, focal_eq_mm=26.0, counted=np.ones(360, bool))
    found = kind_shares(Hand(MIDDLES_HZ, kept[None], np.array([26.0])))
    assert found[BREATH] > 10 * found["sway"]
    assert found["jitter"] > 10 * found["step"]
    assert found[BREATH] + found["jitter"] > 0.85


@given(arrays(np.float64, (2, BINS, 4), elements=st.floats(0.0, 100.0)))
def test_shares_are_whole_whatever_the_hand(power):
    found = kind_shares(Hand(MIDDLES_HZ, power, np.array([26.0, 50.0])))
    assert tuple(found) == KINDS
    assert all(share >= 0.0 for share in found.values())
    assert sum(found.values()) <= 1.0 + 1e-9


def test_a_still_hand_has_no_kind():
    assert set(kind_shares(hand()).values()) == {0.0}
