"""How often a take goes on for the seconds that are wanted."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.outlast import Holds, Lastings, Whole, outlast_chance
from ridgewind.core.trials.survival import LEVELS, Hold, Lasting, survival_of

WORKED = [(3.2, 1), (4.1, 1), (5.5, 1), (6.2, 1), (7.3, 1), (8.0, 0), (8.0, 0), (8.0, 0)]


NOBODY = Whole.of(Holds.none())


def holds(pairs):
    return Holds(
        np.array([s for s, _ in pairs], float), np.array([bool(over) for _, over in pairs])
    )


@pytest.mark.parametrize(("seconds", "share"), [(3.0, 1.0), (3.2, 0.875), (6.2, 0.5), (8.0, 0.375)])
def test_the_worked_survival_is_told_where_the_whole_is_the_techniques_own(seconds, share):
    own = holds(WORKED)
    assert outlast_chance(own, Whole.of(own), seconds=seconds) == pytest.approx(share)


pairs = st.lists(st.tuples(st.floats(0.5, 30.0), st.booleans()), min_size=1, max_size=12)


@given(pairs, st.floats(0.1, 60.0))
def test_it_agrees_with_the_survival_of_limits_inside_what_was_filmed(some, seconds):
    own = holds(some)
    if seconds <= own.seconds.max():
        found = survival_of([Hold(s, over) for s, over in some])
        before = [
            share for s, share in zip(found.seconds, found.share, strict=True) if s <= seconds
        ]
        told = outlast_chance(own, NOBODY, seconds=seconds)
        assert told == pytest.approx(before[-1] if before else 1.0, abs=1e-9)


@given(pairs, pairs, st.floats(0.1, 100.0), st.floats(1.01, 4.0))
def test_a_longer_hold_is_never_likelier(own, whole, seconds, times):
    own, whole = holds(own), Whole.of(holds(own + whole))
    short, long = (outlast_chance(own, whole, seconds=one) for one in (seconds, times * seconds))
    assert 0.0 <= long <= short + 1e-12 <= 1.0 + 1e-12


def test_few_takes_lean_on_the_whole_and_many_do_not():
    good, whole = [(8.0, 0)], Whole.of(holds([(2.0, 1)] * 20 + [(8.0, 0)]))
    one = outlast_chance(holds(good), whole, seconds=5.0)
    many = outlast_chance(holds(good * 60), whole, seconds=5.0)
    assert one < 0.5
    assert many > 0.95
    none = outlast_chance(Holds.none(), whole, seconds=5.0)
    assert none == pytest.approx(1 / 21)
    assert outlast_chance(Holds.none(), NOBODY, seconds=5.0) is None


def test_past_what_was_filmed_it_is_the_rate_until_then():
    """Takes that are over at random, at one in 20 s, filmed for 10 s each."""
    rng = np.random.default_rng(7)
    errors = []
    for _ in range(200):
        ends = rng.exponential(20.0, 40)
        own = Holds(np.minimum(ends, 10.0), ends < 10.0)
        errors.append(outlast_chance(own, Whole.of(own), seconds=25.0) - np.exp(-25.0 / 20.0))
    assert abs(np.mean(errors)) < 0.03
    assert np.std(errors) < 0.12


def test_never_over_is_not_for_ever():
    own = holds([(6.0, 0)] * 12)
    near, far = (outlast_chance(own, Whole.of(own), seconds=one) for one in (8.0, 600.0))
    assert near > 0.95
    assert far < 0.5


def test_each_take_is_held_against_a_target_of_its_own():
    over = tuple(2.0 if level <= 3.0 else None for level in LEVELS)
    takes = Lastings.of([Lasting(8.0, over), None, Lasting(6.0, over)])
    found = takes.holds(np.array([2.5, 2.5, 4.0]))
    assert found.seconds.tolist() == [2.0, 6.0]
    assert found.over.tolist() == [True, False]
    assert takes.longest_s == 8.0
    assert takes.of_those(np.array([False, True, False])).longest_s is None


def test_what_makes_no_sense_is_refused():
    own = holds(WORKED)
    with pytest.raises(InvalidArgumentError, match="seconds"):
        outlast_chance(own, Whole.of(own), seconds=0.0)
    with pytest.raises(InvalidArgumentError, match="over 0 s"):
        holds([(0.0, 1)])
    with pytest.raises(InvalidArgumentError, match="must be"):
        Holds(np.ones(3), np.ones(2, bool))
