"""Joins: worked values, and the laws of mirror, reversal and time."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.joins import (
    backwards,
    best_cut,
    edge_velocity,
    joined,
    jumps,
    matching_rates,
    mismatch,
)

speed = st.floats(-40, 40)
velocity = st.builds(lambda *parts: np.array(parts), speed, speed, speed)


@pytest.mark.parametrize(
    ("leaving", "entering", "value", "word"),
    [
        ([0, 0, 0], [0, 0, 0], 0.0, "matches"),
        ([10, 0, 0], [8, 0, 0], 0.2, "matches"),
        ([10, 0, 0], [0, 0, 0], 1.0, "passes"),
        ([10, 0, 0], [-10, 0, 0], 2.0, "fights"),
        ([3, 4, 0], [0, 0, 5], 2**0.5, "fights"),
        ([1, 0, 0], [-0.5, 0, 0], 0.75, "passes"),  # slow either way: divided by two
    ],
)
def test_worked_values(leaving, entering, value, word):
    found = mismatch(np.array(leaving, float), np.array(entering, float))
    assert found == pytest.approx(value, abs=1e-12)
    assert joined(found) == word


@given(velocity, velocity)
def test_order_mirror_and_reversal_change_nothing(leaving, entering):
    value = mismatch(leaving, entering)
    mirror = np.array([-1.0, 1.0, 1.0])
    assert mismatch(entering, leaving) == pytest.approx(value)
    assert mismatch(leaving * mirror, entering * mirror) == pytest.approx(value)
    # Both shots backwards, and in the other order: each end swaps and turns round.
    assert mismatch(backwards(entering), backwards(leaving)) == pytest.approx(value)
    assert 0 <= value <= 2 + 1e-9


@given(velocity, velocity, st.floats(1, 4))
def test_both_sides_quicker_by_as_much_match_as_well(leaving, entering, by):
    assume(max(np.linalg.norm(leaving), np.linalg.norm(entering)) >= 2)
    assert mismatch(by * leaving, by * entering) == pytest.approx(mismatch(leaving, entering))


@given(velocity, velocity, st.floats(0.2, 1))
def test_matching_rates_never_join_worse_and_stay_in_range(leaving, entering, slowest):
    found = matching_rates(leaving, entering, slowest=slowest)
    assert slowest <= found.before <= 1
    assert slowest <= found.after <= 1
    assert found.mismatch <= mismatch(leaving, entering) + 1e-9
    assert mismatch(found.before * leaving, found.after * entering) == pytest.approx(found.mismatch)


def test_a_pan_twice_as_fast_is_slowed_to_half():
    found = matching_rates(np.array([12.0, 0, 0]), np.array([6.0, 0, 0]), slowest=0.4)
    assert (found.before, found.after, found.mismatch) == (0.5, 1.0, 0.0)
    held = matching_rates(np.array([12.0, 0, 0]), np.array([6.0, 0, 0]), slowest=0.8)
    assert held.before == 0.8
    assert held.mismatch == pytest.approx((9.6 - 6) / 9.6)


def test_the_best_cut_is_where_the_motion_agrees_and_keeps_most():
    before_s = np.array([1.0, 2.0, 3.0])
    after_s = np.array([0.5, 1.0, 1.5])
    before = np.array([[0.0, 0, 0], [6, 0, 0], [9, 0, 0]])
    after = np.array([[3.0, 0, 0], [6, 0, 0], [6, 0, 0]])
    found = best_cut(before_s, before, after_s, after)
    assert (found.out_s, found.in_s, found.mismatch) == (2.0, 1.0, 0.0)
    with pytest.raises(InvalidArgumentError, match="a velocity"):
        best_cut(before_s, before[:2], after_s, after)


@given(st.floats(-30, 30), st.sampled_from([24.0, 30.0, 59.94]))
def test_the_edge_of_a_steady_pan_is_its_speed(pan, rate_hz):
    t_s = np.arange(0, 3, 1 / rate_hz)
    path = np.column_stack([pan * t_s, 0 * t_s, 0 * t_s])
    for at_end in (False, True):
        found = edge_velocity(path, rate_hz=rate_hz, at_end=at_end)
        assert found == pytest.approx([pan, 0, 0], abs=1e-6)
        turned = edge_velocity(path[::-1], rate_hz=rate_hz, at_end=not at_end)
        assert turned == pytest.approx(backwards(found), abs=1e-6)


def test_a_jump_of_gust_is_told_from_one_and_a_half():
    assert not jumps(2.0, 3.5)
    assert jumps(2.0, 3.6)
    assert jumps(5.2, 3.0)


def test_what_is_no_velocity_is_refused():
    with pytest.raises(InvalidArgumentError, match="three finite numbers"):
        mismatch(np.zeros(2), np.zeros(3))
    with pytest.raises(InvalidArgumentError, match=r"\(n, 3\)"):
        edge_velocity(np.zeros((1, 3)), rate_hz=30, at_end=True)
