"""Whether a shooter's feeling can be trusted: against the statistics library, and by law."""

from __future__ import annotations

import math

import numpy as np
import pytest
import scipy
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.feeling import FeltTake, feeling_of
from ridgewind.core.trials.next_work import Standing, next_work

GUSTS = st.lists(st.floats(0, 10), min_size=2, max_size=12)


def felt(good, bad, technique="a"):
    return [FeltTake(technique, True, one) for one in good] + [
        FeltTake(technique, False, one) for one in bad
    ]


@given(GUSTS, GUSTS)
def test_the_chance_is_the_statistic_of_mann_and_whitney(good, bad):
    found = feeling_of(felt(good, bad))
    counted = scipy.stats.mannwhitneyu(bad, good).statistic / (len(good) * len(bad))
    assert found.right == pytest.approx(counted)
    assert 0.0 <= found.low <= found.right <= found.high <= 1.0


@given(GUSTS, GUSTS)
def test_the_other_way_round_is_the_mirror(good, bad):
    one, other = feeling_of(felt(good, bad)), feeling_of(felt(bad, good))
    assert (one.low, one.high) == pytest.approx((1 - other.high, 1 - other.low), abs=1e-6)


def test_the_interval_is_newcombes():
    """His variance at both bounds: four of each, half of all pairs the right way round."""
    found = feeling_of(felt([1, 2, 5, 6], [1, 2, 5, 6]))
    for bound in (found.low, found.high):
        rises = (1 - bound) / (2 - bound) + bound / (1 + bound)
        error = math.sqrt(bound * (1 - bound) * (1 + 3 * rises) / 16)
        assert abs(found.right - bound) == pytest.approx(1.6449 * error, abs=1e-6)


def test_only_takes_of_one_technique_are_held_against_each_other():
    """A steady technique that always feels good is no proof of a good feeling."""
    steady, rough = felt([2.0] * 5, [], "steady"), felt([], [6.0] * 5, "rough")
    assert feeling_of(steady + rough) is None
    within = felt([2.0, 3.0, 2.5], [2.0, 3.0, 2.5], "steady") + felt([6, 7], [6, 7], "rough")
    assert feeling_of(within).right == pytest.approx(0.5)


@pytest.mark.parametrize(
    ("shift", "takes", "word"),
    [(1.0, 40, "trust"), (-1.0, 40, "against"), (0.0, 120, "nothing"), (0.3, 3, "open")],
)
def test_what_it_comes_to(shift, takes, word):
    rng = np.random.default_rng(2)
    good, bad = rng.normal(4, 0.8, takes), rng.normal(4 + shift, 0.8, takes)
    assert feeling_of(felt(good, bad)).word == word


def test_the_interval_holds_the_truth_nine_times_in_ten():
    rng, truth, inside = np.random.default_rng(9), scipy.stats.norm.cdf(0.8 / math.sqrt(2)), 0
    for _ in range(300):
        takes = [
            one
            for technique in "abc"
            for one in felt(rng.normal(0, 1, 5), rng.normal(0.8, 1, 4), technique)
        ]
        found = feeling_of(takes)
        inside += found.low <= truth <= found.high
    assert 258 <= inside <= 291


def test_a_gust_that_is_no_number_is_refused():
    with pytest.raises(InvalidArgumentError):
        feeling_of(felt([float("nan")], [1.0]))


def test_the_most_to_gain_comes_first_and_what_passes_is_left_out():
    found = next_work(
        [
            Standing("near", 4.3, 4.0, None, 6),
            Standing("far", 6.0, 4.0, None, 6),
            Standing("passes", 3.9, 4.0, None, 6),
            Standing("once", 9.0, 4.0, None, 1),
        ]
    )
    assert [one.drill_key for one in found] == ["far", "near"]
    assert found[0].over == pytest.approx(2.0)
    assert found[0].weeks is None
