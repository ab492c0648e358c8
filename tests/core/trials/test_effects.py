"""What a circumstance adds: against the statistics library, and where nothing can be told."""

from __future__ import annotations

import numpy as np
import pytest
import scipy

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.effects import Seen, effects_of, takes_until, tiredness_of


def season(rng, *, a_take=0.1, tired=(0.0, 0.1, 0.3, 0.9), spread=0.15, sessions=8):
    """Sessions of twelve takes of three techniques; tiredness 1 to 4 grows through each."""
    takes, places, noted = [], [], []
    for session in range(sessions):
        day = rng.normal(0, 0.4)
        for place in range(12):
            level = min(3, place // 3)
            technique = int(rng.integers(3))
            gust = 4.0 + day + 0.8 * technique + a_take * place + tired[level]
            takes.append(Seen(str(session), str(technique), gust + rng.normal(0, spread)))
            places.append(float(place))
            noted.append(level + 1)
    return takes, places, noted


def test_an_effect_agrees_with_a_regression_of_the_same_columns():
    """One session, one technique: nothing but a straight line is left."""
    rng = np.random.default_rng(3)
    x = rng.normal(0, 1, 20)
    y = 4 + 0.3 * x + rng.normal(0, 0.2, 20)
    found = effects_of([Seen("a", "b", one) for one in y], {"x": x.tolist()})["x"]
    line = scipy.stats.linregress(x, y)
    half = scipy.stats.t.ppf(0.95, 18) * line.stderr
    assert found.value == pytest.approx(line.slope)
    assert (found.low, found.high) == pytest.approx((line.slope - half, line.slope + half))


def test_the_interval_holds_the_truth_nine_times_in_ten():
    rng, inside = np.random.default_rng(11), 0
    for _ in range(200):
        takes, places, _ = season(rng, tired=(0.0,) * 4, sessions=3)
        found = effects_of(takes, {"place": places})["place"]
        inside += found.low <= 0.1 <= found.high
    assert 172 <= inside <= 188


def test_what_cannot_be_told_apart_is_left_out():
    takes, places, _ = season(np.random.default_rng(1), sessions=2)
    of_session = [float(one.session) for one in takes]
    found = effects_of(takes, {"place": places, "session": of_session, "twice": of_session})
    assert set(found) == {"place"}
    assert effects_of(takes[:2], {"place": places[:2]}) == {}
    assert effects_of([], {}) == {}


def test_tiredness_says_from_where_on_it_is_worth_stopping():
    takes, _, noted = season(np.random.default_rng(5), a_take=0.0)
    found = tiredness_of(takes, noted)
    assert (found.base, found.base_takes) == (1, 24)
    assert [one.level for one in found.levels] == [2, 3, 4]
    assert found.stop_from == 4
    assert found.levels[-1].value == pytest.approx(0.9, abs=0.15)
    level, _, alike = season(np.random.default_rng(5), a_take=0.0, tired=(0.0,) * 4)
    assert tiredness_of(level, alike).stop_from is None
    assert tiredness_of(takes, [2] * len(takes)) is None


def test_takes_until_it_is_worth_stopping():
    takes, places, _ = season(np.random.default_rng(7), tired=(0.0,) * 4)
    assert takes_until(effects_of(takes, {"place": places})["place"]) == pytest.approx(
        5.0, rel=0.15
    )
    level, places, _ = season(np.random.default_rng(7), a_take=0.0, tired=(0.0,) * 4)
    assert takes_until(effects_of(level, {"place": places})["place"]) is None


@pytest.mark.parametrize("column", [[1.0], [1.0, float("nan")]])
def test_columns_that_do_not_fit_are_refused(column):
    with pytest.raises(InvalidArgumentError):
        effects_of([Seen("a", "b", 1.0), Seen("a", "b", 2.0)], {"x": column})
