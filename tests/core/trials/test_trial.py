"""Trials: the worked tables, a least-squares fit by other means, and simulated shooters."""

from __future__ import annotations

import numpy as np
import pytest
import scipy
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.trial import Filmed, compare_variations

WORKED = {
    "d1": {"slack": (4.9, 5.2), "firm": (4.1, 4.3), "hard": (4.6, 4.9)},
    "d2": {"slack": (5.8, 5.5), "firm": (5.1, 4.8), "hard": (5.0, 5.6)},
    "d3": {"slack": (4.8, 4.7), "firm": (4.0, 4.4), "hard": (4.2, 4.5)},
}


def taken(table) -> list[Filmed]:
    out = []
    for session, variations in table.items():
        in_order = [(name, value) for name, values in variations.items() for value in values]
        out += [
            Filmed(session, name, float(place), value)
            for place, (name, value) in enumerate(in_order, start=1)
        ]
    return out


STRAP = taken(WORKED)


def test_the_worked_table():
    found = compare_variations(STRAP, control="slack", with_place=False)
    firm, hard = found.against_control["firm"], found.against_control["hard"]
    assert found.dof == 13
    assert found.spread == pytest.approx(0.2142, abs=5e-5)
    assert (firm.value, firm.low, firm.high) == pytest.approx((-0.700, -0.919, -0.481), abs=5e-4)
    assert (hard.value, hard.low, hard.high) == pytest.approx((-0.350, -0.569, -0.131), abs=5e-4)
    assert (firm.p, hard.p) == pytest.approx((2 / 216, 0.037), abs=1e-4)
    assert found.best["firm"] == pytest.approx(0.99, abs=0.006)
    assert found.best["hard"] == pytest.approx(0.01, abs=0.006)
    assert found.best["slack"] < 0.001
    assert not found.hint
    assert found.left_out == ()


def test_two_sessions_with_one_take_a_side_are_a_hint_that_looks_like_nothing():
    table = {"a": {"slack": (5.0,), "firm": (4.2,)}, "b": {"slack": (4.6,), "firm": (4.9,)}}
    found = compare_variations(taken(table), control="slack")
    firm = found.against_control["firm"]
    assert (firm.value, firm.low, firm.high) == pytest.approx((-0.25, -3.72, 3.22), abs=0.005)
    assert firm.p == 1.0
    assert firm.hint
    assert found.hint
    assert max(found.best.values()) < 0.7


def test_one_session_with_one_take_a_side_tells_no_spread():
    found = compare_variations(taken({"a": {"slack": (5.0,), "firm": (4.0,)}}), control="slack")
    firm = found.against_control["firm"]
    assert (firm.value, firm.low, firm.high, firm.more_takes) == (-1.0, None, None, None)
    assert (found.dof, found.spread, found.best) == (0, None, {})


def test_sessions_and_variations_that_say_nothing_are_left_out():
    alone = [Filmed("d4", "firm", 1.0, 9.0), Filmed("d5", "flat", 1.0, 1.0)]
    elsewhere = [Filmed("d6", "a", 1.0, 1.0), Filmed("d6", "b", 2.0, 2.0)]
    found = compare_variations([*alone, *STRAP, *elsewhere], control="slack", with_place=False)
    assert found.left_out == (0, 1, 20, 21)
    known = compare_variations(STRAP, control="slack", with_place=False)
    assert found.against_control == known.against_control


def test_a_variation_is_compared_through_others_that_it_was_filmed_beside():
    table = {
        "d1": {"slack": (5.0, 5.1), "firm": (4.0, 4.1)},
        "d2": {"firm": (3.0, 3.1), "hard": (3.5, 3.6)},
    }
    found = compare_variations(taken(table), control="slack", with_place=False)
    assert found.against_control["hard"].value == pytest.approx(-0.5, abs=1e-9)


def test_fatigue_is_told_by_itself_from_twelve_takes_on():
    rng = np.random.default_rng(1)
    takes = [
        Filmed(f"d{day}", name, place, 4.0 + day + 0.2 * place - 0.6 * (name == "firm"))
        for day in range(3)
        for place, name in enumerate(rng.permuted(["slack", "slack", "firm", "firm"]), start=1)
    ]
    found = compare_variations(takes, control="slack")
    assert found.place is not None
    assert found.place.value == pytest.approx(0.2)
    assert found.against_control["firm"].value == pytest.approx(-0.6)
    assert compare_variations(takes[:8], control="slack").place is None


def test_a_place_that_cannot_be_told_from_the_variation_is_left_out():
    takes = [
        Filmed(f"d{day}", name, place, 4.0 + 0.1 * day + 0.5 * place)
        for day in range(6)
        for place, name in enumerate(["slack", "firm"], start=1)
    ]
    found = compare_variations(takes, control="slack", with_place=True)
    assert found.place is None
    assert found.against_control["firm"].value == pytest.approx(0.5)


def test_more_takes_are_as_many_as_bring_the_interval_down():
    rng = np.random.default_rng(3)

    def filmed(day, each):
        return [
            Filmed(f"d{day}", name, k, rng.normal(4.0, 1.0))
            for k, name in enumerate(["slack", "firm"] * each)
        ]

    takes = filmed(1, 3) + filmed(2, 3)
    first = compare_variations(takes, control="slack", with_place=False)
    firm = first.against_control["firm"]
    assert firm.more_takes > 0
    # With spread as it is, one further session of so many a side is what it takes.
    n = 6 + firm.more_takes
    for each, enough in ((n, True), (n - 1, False)):
        dof = 12 + 2 * (each - 6) - 3 - 1
        half = scipy.stats.t.ppf(0.95, dof) * first.spread * np.sqrt(2 / each)
        assert bool(half <= 0.5) is enough


@settings(max_examples=25)
@given(
    st.lists(
        st.tuples(
            st.integers(0, 3), st.sampled_from(["plain", "a", "b"]), st.floats(0.0, 10.0)
        ),
        min_size=6, max_size=24,
    ),
    st.booleans(),
)  # fmt: skip
def test_the_fit_is_that_of_a_full_design(rows, with_place):
    takes = [
        Filmed(str(session), name, float(place), value)
        for place, (session, name, value) in enumerate(rows)
    ]
    try:
        found = compare_variations(takes, control="plain", with_place=with_place)
    except InvalidArgumentError:
        return
    kept = [one for k, one in enumerate(takes) if k not in found.left_out]
    sessions = sorted({one.session for one in kept})
    others = list(found.against_control)
    design = np.array(
        [
            [one.session == s for s in sessions]
            + [one.variation == v for v in others]
            + ([one.place] if found.place else [])
            for one in kept
        ],
        float,
    )
    values = np.array([one.value for one in kept])
    wanted, *_ = np.linalg.lstsq(design, values, rcond=None)
    got = [one.value for one in found.against_control.values()]
    assert got == pytest.approx(wanted[len(sessions) :][: len(others)], abs=1e-6)
    assert found.dof == len(kept) - design.shape[1]
    assert sum(found.best.values()) == pytest.approx(1.0 if found.spread is not None else 0.0)


def test_intervals_and_verdicts_hold_for_simulated_shooters():
    """The truth lies in the interval in 86 to 94 of 100; a difference that is none is called
    settled, its interval clear of 0 and p small, in under 1 of 20."""
    rng = np.random.default_rng(7)
    covered, wrong, rounds = 0, 0, 400
    for _ in range(rounds):
        truth = rng.choice([0.0, -0.5])
        takes = [
            Filmed(
                f"d{day}", name, float(place),
                4.5 + day_off + truth * (name == "firm") + rng.normal(0.0, 0.5),
            )
            for day, day_off in enumerate(rng.normal(0.0, 0.6, 3))
            for place, name in enumerate(rng.permuted(["slack"] * 3 + ["firm"] * 3))
        ]  # fmt: skip
        firm = compare_variations(takes, control="slack").against_control["firm"]
        covered += firm.low <= truth <= firm.high
        wrong += truth == 0.0 and (firm.low > 0.0 or firm.high < 0.0) and firm.p < 0.05
    assert 0.86 <= covered / rounds <= 0.94
    assert wrong / rounds < 0.05


@pytest.mark.parametrize("value", [float("nan"), float("inf")])
def test_what_is_no_number_is_refused(value):
    with pytest.raises(InvalidArgumentError, match="must be a number"):
        compare_variations([Filmed("d", "a", 1.0, value)], control="a")


def test_a_control_that_stands_alone_is_refused():
    with pytest.raises(InvalidArgumentError, match="beside another variation"):
        compare_variations([Filmed("d", "a", 1.0, 4.0)], control="a")
