"""The eye's threshold: found from simulated observers, with an interval that is honest."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.eye import Mark, surprise, threshold_of

OBSERVERS, MARKS = 120, 20


def marks_of(threshold, width, *, seed, count=MARKS, spread=1.5):
    """A made observer looks at takes around what they can bear."""
    rng = np.random.default_rng(seed)
    gusts = np.clip(rng.normal(threshold, spread, count), 0, 10)
    chance = 1 / (1 + np.exp((gusts - threshold) / width))
    return [Mark(float(g), bool(s)) for g, s in zip(gusts, rng.random(count) < chance, strict=True)]


def test_a_simulated_observers_threshold_is_recovered_and_covered():
    rng = np.random.default_rng(4)
    off, covered = [], 0
    for seed in range(OBSERVERS):
        true = 4.0 + rng.normal(0, 1.2)
        found = threshold_of(marks_of(true, 0.35, seed=seed), default=4.0)
        off.append(abs(found.value - true))
        covered += found.low <= true <= found.high
    assert np.mean(off) < 0.5
    assert np.percentile(off, 80) < 0.5
    assert covered >= 0.87 * OBSERVERS  # nine in ten, less what 120 observers scatter


def test_no_marks_leave_the_default_and_few_are_not_offered():
    none = threshold_of([], default=4.0)
    assert none.value == pytest.approx(4.0, abs=0.1)
    assert none.high - none.low > 4
    assert not none.offered
    assert not threshold_of(marks_of(5, 0.3, seed=1, count=7), default=4.0).offered
    assert threshold_of(marks_of(5, 0.3, seed=1, count=8), default=4.0).offered


def test_one_slip_of_the_finger_moves_it_little():
    marks = marks_of(5.0, 0.3, seed=3)
    slipped = [*marks, Mark(9.0, True)]
    before, after = (threshold_of(m, default=4.0).value for m in (marks, slipped))
    assert abs(after - before) < 0.5


@settings(max_examples=25, deadline=None)
@given(st.lists(st.tuples(st.floats(0, 10), st.booleans()), max_size=15))
def test_more_praise_never_lowers_it_and_it_lies_within_its_interval(pairs):
    marks = [Mark(value, smooth) for value, smooth in pairs]
    found = threshold_of(marks, default=4.0)
    assert found.low <= found.value <= found.high
    kinder = threshold_of([*marks, Mark(6.0, True)], default=4.0)
    assert kinder.value >= found.value - 1e-6


def test_the_crop_that_works_is_found_on_its_own_scale():
    marks = [Mark(float(crop), crop < 7) for crop in range(1, 15)]
    found = threshold_of(marks, default=10.0, step=3.0)
    assert found.value == pytest.approx(6.5, abs=1.5)


def test_surprise_is_how_far_eye_and_number_disagree():
    found = threshold_of(marks_of(5.0, 0.3, seed=3), default=4.0)
    assert surprise(Mark(found.value + 2, smooth=True), found) == pytest.approx(2)
    assert surprise(Mark(found.value + 2, smooth=False), found) == 0


def test_a_value_that_is_no_number_is_refused():
    with pytest.raises(InvalidArgumentError, match="it must be a number"):
        threshold_of([Mark(float("nan"), smooth=True)], default=4.0)
