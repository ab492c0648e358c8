"""Limits against the worked values, other people's functions, and simulated shooters."""

from __future__ import annotations

import numpy as np
import pytest
import scipy
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.curves import fastest_walk, progress_of, strap_curve
from ridgewind.core.trials.lens_limit import Overall, lens_limit, overall_of
from ridgewind.core.trials.survival import Hold, lasting, survival_of

SIX = (-0.32, 0.11, 0.05, -0.2, 0.4, -0.05)
HELD = [Hold(s, True) for s in (3.2, 4.1, 5.5, 6.2, 7.3)] + [Hold(8.0, False)] * 3


@pytest.mark.parametrize(("speeds", "longest"), [(SIX, 14.62), ((-0.2,), 12.75)])
def test_the_worked_longest_lenses(speeds, longest):
    found = lens_limit(speeds, overall=Overall(0.1, 0.5)).longest_mm(target=4.0)
    assert found == pytest.approx(longest, abs=0.005)


def test_four_takes_in_five_pass_at_the_longest_lens():
    found = lens_limit(SIX, overall=Overall(0.1, 0.5))
    assert found.chance(found.longest_mm(target=4.0), target=4.0) == pytest.approx(0.8)
    assert found.chance(8.0, target=4.0) > 0.9
    assert found.chance(60.0, target=4.0) < 0.2


@given(st.lists(st.floats(-2, 2), max_size=12), st.floats(-1, 1), st.floats(0.05, 1))
def test_a_technique_leans_on_the_whole_and_a_phone_bears_a_longer_lens(speeds, mean, spread):
    found = lens_limit(speeds, overall=Overall(mean, spread))
    own = np.mean(speeds) if speeds else mean
    assert min(own, mean) - 1e-9 <= found.mean <= max(own, mean) + 1e-9
    assert found.longest_mm(target=4, screen_deg=12) > found.longest_mm(target=4, screen_deg=30)


def test_a_limit_at_twenty_takes_is_within_a_tenth_of_the_truth_on_average():
    rng = np.random.default_rng(5)
    mean, spread, target = 0.2, 0.3, 4.0
    exact = 0.1 * 20.626480624709635 * 2 ** (target / 1.25) / 2 ** (mean + 0.8416 * spread)
    off = [
        abs(lens_limit(found, overall=overall_of(found)).longest_mm(target=target) / exact - 1)
        for found in rng.normal(mean, spread, (200, 20)).tolist()
    ]
    assert np.median(off) < 0.10


def test_the_worked_holds():
    found = survival_of(HELD)
    assert found.share == pytest.approx((0.875, 0.75, 0.625, 0.5, 0.375))
    assert found.outlasting(0.8).seconds == 3.2
    assert found.outlasting(0.5).seconds == 6.2
    assert (found.takes, found.held) == (8, 3)


def test_holds_agree_with_another_survival_function():
    rng = np.random.default_rng(2)
    seconds, over = rng.uniform(1, 9, 40).round(1), rng.random(40) < 0.7
    found = survival_of([Hold(s, bool(o)) for s, o in zip(seconds, over, strict=True)])
    data = scipy.stats.CensoredData(uncensored=seconds[over], right=seconds[~over])
    other = scipy.stats.ecdf(data).sf
    told = dict(zip(other.quantiles.tolist(), other.probabilities.tolist(), strict=True))
    assert found.share == pytest.approx([told[s] for s in found.seconds])
    for low, share, high in zip(found.low, found.share, found.high, strict=True):
        assert low <= share <= high


def test_holds_that_never_end_have_no_limit():
    found = survival_of([Hold(6.0, False)] * 4)
    assert found.outlasting(0.8).seconds is None
    assert survival_of([Hold(2.0, True), Hold(9.0, False)]).outlasting(0.8).seconds == 2.0


def test_a_hold_is_over_once_its_gust_has_been_over_target_for_half_a_second():
    gust = np.full(100, 3.0)
    gust[20:24] = 9.0  # four tenths: not long enough
    gust[50:] = 9.0
    counted = np.ones(100, bool)
    whole = lasting(gust, counted, rate_hz=10.0)
    assert whole.hold(4.0) == Hold(5.5, True)
    assert whole.hold(9.5) == Hold(10.0, False)
    assert whole.hold(2.0) == Hold(0.5, True)
    assert lasting(gust[:50], counted[:50], rate_hz=10.0).hold(4.0) == Hold(5.0, False)
    counted[52] = False
    assert lasting(gust, counted, rate_hz=10.0).hold(4.0) == Hold(5.8, True)
    assert lasting(gust, ~np.ones(100, bool), rate_hz=10.0) is None
    assert lasting(gust[:3], counted[:3], rate_hz=10.0).hold(1.0) == Hold(0.3, False)
    with pytest.raises(InvalidArgumentError, match="counted too"):
        lasting(gust, counted[:50], rate_hz=10.0)


def test_the_worked_strap():
    found = strap_curve([0, 1, 2, 3, 4, 5], [5.1, 4.5, 4.1, 4.0, 4.2, 4.7])
    assert (found.a, found.b, found.c) == pytest.approx((5.118, -0.7911, 0.1411), abs=5e-4)
    assert found.lowest == pytest.approx(2.80, abs=0.005)
    assert found.low < found.lowest < found.high


def test_a_strap_without_a_lowest_point_in_range_shows_none():
    falling = strap_curve([0, 1, 2, 3, 4, 5], [6.0, 5.2, 4.5, 3.9, 3.4, 3.0])
    assert falling.lowest is None
    assert strap_curve([0, 1, 2], [5.0, 4.0, 5.0]) is None
    assert strap_curve([0, 5, 0, 5, 0, 5], [5.0, 4.0, 5.0, 4.1, 5.2, 4.2]) is None


def test_a_good_day_favours_no_tension():
    tension, gust = [0, 2, 4, 1, 3, 5] * 2, [5.1, 4.1, 4.2, 4.5, 4.0, 4.7]
    days = ["a"] * 6 + ["b"] * 6
    shifted = strap_curve(tension, gust + [one + 3.0 for one in gust], days)
    plain = strap_curve(tension, gust * 2, days)
    assert shifted.lowest == pytest.approx(plain.lowest)


def test_the_interval_of_the_best_tension_holds_it():
    rng = np.random.default_rng(9)
    tension = np.tile(np.arange(6.0), 4)
    held = 0
    for _ in range(200):
        gust = 4.0 + 0.15 * (tension - 2.6) ** 2 + rng.normal(0, 0.25, len(tension))
        found = strap_curve(tension.tolist(), gust.tolist())
        held += found.lowest is not None and found.low <= 2.6 <= found.high
    assert 0.85 <= held / 200 <= 0.96


def test_the_fastest_walk_is_where_four_in_five_still_pass():
    rng = np.random.default_rng(4)
    cadence = rng.uniform(80, 130, 60)
    gust = 3.0 + 0.04 * (cadence - 80) + rng.normal(0, 0.3, 60)
    found = fastest_walk(cadence.tolist(), gust.tolist(), target=4.0)
    truth = 80 + (1.0 - 0.8416 * 0.3) / 0.04
    assert found.cadence == pytest.approx(truth, abs=4)
    assert not found.at_most_walked
    assert fastest_walk([90, 90, 90, 90], [4, 4, 4, 4], target=5) is None
    assert fastest_walk([90, 100, 110, 120], [6, 7, 8, 9], target=4).cadence is None


def test_progress_is_the_middle_of_all_slopes_a_week():
    days, gust = [0, 3, 7, 14, 20, 28], [6.0, 5.7, 5.6, 5.0, 9.9, 4.1]
    found = progress_of(days, gust)
    other = scipy.stats.theilslopes(gust, days, alpha=0.9)
    assert (found.slope, found.low, found.high) == pytest.approx(
        (7 * other.slope, 7 * other.low_slope, 7 * other.high_slope)
    )
    assert progress_of([1, 1, 1, 1], [4, 5, 6, 7]) is None
    assert progress_of([1, 2, 3, 6], [4, 5, 6, 7]) is None, "less than a week"
    assert progress_of([1, 1, 30, 30], [4, 5, 6, 7]) is None, "two days"


@pytest.mark.parametrize("gust", [[float("nan")] * 5, [1.0, 2.0]])
def test_columns_that_do_not_fit_are_refused(gust):
    with pytest.raises(InvalidArgumentError):
        strap_curve([0, 1, 2, 3, 4], gust)


def test_eight_of_ten_are_four_in_five_however_the_product_ends():
    """And one take more changes the answer by as much as it says, not from one end to the other."""
    for count in range(5, 40, 5):
        over = count // 5
        holds = [Hold(float(k + 1), True) for k in range(over)]
        holds += [Hold(30.0, True)] * (count - over)
        assert survival_of(holds).outlasting(0.8).seconds == float(over), count
    two = [Hold(1.0, True), Hold(30.0, True)]
    ten, eleven = (
        survival_of([*two, *[Hold(40.0, True)] * more]).outlasting(0.8).seconds for more in (8, 9)
    )
    assert (ten, eleven) == (30.0, 30.0)
