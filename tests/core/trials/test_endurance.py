"""How many takes a technique bears, and how long a rest it wants: on seasons of known slopes."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.effects import Seen, effects_of
from ridgewind.core.trials.endurance import Line, lines_of
from ridgewind.core.trials.trial import Estimate

SLOPES = {"slack": 0.02, "firm": 0.1, "hard": 0.25}


def season(rng, *, sessions=6, takes=12, spread=0.15, slopes=SLOPES):
    """Sessions in which techniques take turns, each tiring at a pace of its own."""
    names = list(slopes)
    seen, places = [], []
    for session in range(sessions):
        day = rng.normal(0, 0.5)
        for place in range(1, takes + 1):
            name = names[int(rng.integers(len(names)))]
            gust = 3.0 + day + slopes[name] * place + rng.normal(0, spread)
            seen.append(Seen(str(session), name, gust))
            places.append(float(place))
    return seen, places


def found_of(seen, places):
    return lines_of(seen, places, whole=effects_of(seen, {"it": places})["it"])


def test_each_technique_has_a_slope_of_its_own():
    found = found_of(*season(np.random.default_rng(2), sessions=30))
    for name, slope in SLOPES.items():
        assert found[name].slope.value == pytest.approx(slope, abs=0.02)


def test_intervals_hold_the_truth_of_techniques_that_are_alike():
    """Where all tire alike a technique's lean is right, and its interval a little wide."""
    rng, inside, tried = np.random.default_rng(4), 0, 0
    for _ in range(120):
        alike = dict.fromkeys(SLOPES, 0.1)
        for line in found_of(*season(rng, sessions=3, slopes=alike)).values():
            inside += line.slope.low <= 0.1 <= line.slope.high
            tried += 1
    assert 0.88 <= inside / tried <= 0.98


def test_few_takes_lean_on_the_whole():
    rng = np.random.default_rng(6)
    seen, places = season(rng, sessions=8, slopes={"usual": 0.1})
    seen += [Seen("0", "new", 3.0), Seen("0", "new", 2.0)]
    places += [4.0, 5.0]
    found = found_of(seen, places)["new"]
    assert found.takes == 2
    assert 0.0 < found.slope.value < 0.12, "two takes that fall by a gust turn nothing round"
    single = found_of([*seen, Seen("1", "once", 3.0)], [*places, 2.0])["once"]
    assert single.slope.value == pytest.approx(0.1, abs=0.03)


def test_where_four_in_five_stop_passing():
    line = Line(Estimate(0.1, 0.05, 0.15), middle=6.0, gust=3.4, margin=0.2, takes=10)
    assert line.crossing(target=4.0) == pytest.approx(10.0)
    assert line.passes_at(9.9, target=4.0)
    assert not line.passes_at(10.1, target=4.0)
    unsure = Line(Estimate(0.1, -0.05, 0.25), middle=6.0, gust=3.4, margin=0.2, takes=10)
    assert unsure.crossing(target=4.0) is None
    rest = Line(Estimate(-0.3, -0.4, -0.2), middle=5.0, gust=3.95, margin=0.2, takes=10)
    assert rest.crossing(target=4.0) == pytest.approx(5.5)


def test_the_margin_holds_four_takes_in_five():
    rng = np.random.default_rng(8)
    inside = []
    for _ in range(60):
        seen, places = season(rng, sessions=5)
        found = found_of(seen, places)["firm"]
        fresh = [3.0 + rng.normal(0, 0.5) + 0.1 * 7 + rng.normal(0, 0.15) for _ in range(40)]
        inside.append(np.mean([one <= found.at(7.0) + found.margin for one in fresh]))
    assert 0.75 <= np.mean(inside) <= 0.92


def test_nothing_is_told_of_takes_that_cannot_tell():
    one = Estimate(0.1, 0.0, 0.2)
    assert lines_of([], [], whole=one) == {}
    apart = [Seen(str(k), "a", 3.0 + k) for k in range(5)]
    assert lines_of(apart, [1.0] * 5, whole=one) == {}
    with pytest.raises(InvalidArgumentError, match="5 values"):
        lines_of(apart, [1.0], whole=one)
    with pytest.raises(InvalidArgumentError, match="number"):
        lines_of(apart, [1.0, 2.0, 3.0, 4.0, float("nan")], whole=one)
