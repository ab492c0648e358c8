"""Bands tell kinds of shake apart; the lee is the calm stretch."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.shake.bands import shown_at
from ridgewind.core.shake.reading import band_shares, read_motion
from ridgewind.core.shake.stretch import calmest, longest_passing
from ridgewind.core.shake.trace import trace
from tests.conftest import make_motion, sine


def bands_of(**parts):
    found, _ = band_shares(read_motion(make_motion(rate_hz=60, seconds=10, **parts)))
    return {band.name: band for band in found}


@pytest.mark.parametrize(
    ("hz", "name"), [(0.2, "drift"), (0.7, "sway"), (2.0, "step"), (9.0, "jitter"), (20.0, "buzz")]
)
def test_a_pure_tone_lands_in_its_band(hz, name):
    bands = bands_of(tilt=sine(1.0, hz))
    assert max(bands.values(), key=lambda band: band.share).name == name
    assert bands[name].share > 0.75
    assert bands[name].strongest_hz == pytest.approx(hz, abs=0.11)


def test_shares_add_up_and_excursions_are_root_mean_squares():
    bands = bands_of(pan=sine(1.0, 2.0), roll=sine(0.5, 8.0))
    assert sum(band.share for band in bands.values()) == pytest.approx(1.0)
    assert bands["step"].excursion[0] == pytest.approx(1 / np.sqrt(2), rel=0.03)
    assert bands["jitter"].excursion[2] == pytest.approx(0.5 / np.sqrt(2), rel=0.03)


@pytest.mark.parametrize(("hz", "name"), [(0.21, "drift"), (0.83, "sway"), (2.7, "step")])
def test_slow_bands_of_a_long_shot_are_told_from_fewer_samples(hz, name):
    bands, _ = band_shares(
        read_motion(make_motion(rate_hz=60, seconds=150, pan=sine(1.0, hz), tilt=sine(0.4, 7.0)))
    )
    found = {band.name: band.excursion for band in bands}
    assert found[name][0] == pytest.approx(1 / np.sqrt(2), rel=0.005)
    assert found["jitter"][1] == pytest.approx(0.4 / np.sqrt(2), rel=0.005)


def test_a_slow_rate_does_not_claim_to_see_buzz():
    assert "buzz" not in shown_at(25)
    assert "buzz" in shown_at(60)
    found, _ = band_shares(read_motion(make_motion(rate_hz=25, seconds=6, pan=sine(1, 2))))
    assert found[-1].name == "buzz"
    assert found[-1].share is None


def test_the_lee_is_the_calm_middle():
    def rough_ends(t):
        return np.where((t > 3) & (t < 8), 0.05, 1.5) * np.sin(2 * np.pi * 3 * t)

    shot = read_motion(make_motion(rate_hz=30, seconds=10, pan=rough_ends)).shots[0]
    stretch = shot.lee(target=4.0, screen_deg=30)
    start_s, end_s = shot.times(stretch)
    assert start_s == pytest.approx(3.4, abs=0.3)
    assert end_s == pytest.approx(7.6, abs=0.3)
    assert shot.gust(stretch, screen_deg=30) <= 4.0


def test_a_calm_shot_is_all_lee_and_a_rough_one_has_none():
    calm = read_motion(make_motion(rate_hz=30, seconds=6, pan=sine(0.05, 2))).shots[0]
    stretch = calm.lee(target=4.0, screen_deg=30)
    assert calm.times(stretch) == pytest.approx((0.0, 179 / 30), abs=1e-9)
    rough = read_motion(make_motion(rate_hz=30, seconds=6, pan=sine(1.0, 2))).shots[0]
    assert rough.lee(target=4.0, screen_deg=30) is None


@settings(max_examples=30, deadline=None)
@given(seed=st.integers(0, 1000), count=st.integers(40, 400))
def test_whatever_the_lee_is_it_passes(seed, count):
    rng = np.random.default_rng(seed)
    power = (
        rng.exponential(1.0, count) * np.repeat(rng.choice([0.2, 3.0], count // 10 + 1), 10)[:count]
    )
    counted = rng.random(count) > 0.03
    found = longest_passing(power, power, counted, rate_hz=30.0, target_power=1.0, peak_power=4.0)
    if found is None:
        return
    inside = slice(found.start, found.stop)
    kept = power[inside][counted[inside]]
    assert kept.mean() <= 1.0 + 1e-6
    assert (kept > 4.0).sum() <= 0.05 * found.stop - 0.05 * found.start + 1e-6
    assert counted[inside].mean() >= 0.9 - 1e-9


@settings(max_examples=40, deadline=None)
@given(seed=st.integers(0, 1000), count=st.integers(32, 90), target=st.floats(0.2, 3.0))
def test_no_longer_stretch_passes(seed, count, target):
    rng = np.random.default_rng(seed)
    power, counted = rng.exponential(1.0, count), rng.random(count) > 0.05
    found = longest_passing(
        power, power, counted, rate_hz=20.0, target_power=target, peak_power=2 * target
    )
    calm = counted & (power <= target)
    passing = [
        (start - stop, power[inside][counted[inside]].sum() - target * counted[inside].sum())
        for start in range(count)
        for stop in range(start + 20, count + 1)
        for inside in [slice(start, stop)]
        if calm[start] and calm[stop - 1]
        and power[inside][counted[inside]].mean() <= target
        and (power[inside][counted[inside]] > 2 * target).sum() <= 0.05 * counted[inside].sum()
        and (~counted[inside]).sum() <= 0.1 * (stop - start)
    ]  # fmt: skip
    if found is None:
        assert not passing
    else:
        assert (found.start - found.stop) == min(passing)[0]


def test_the_calmest_stretch_of_a_wanted_length():
    power = np.r_[np.full(60, 5.0), np.full(60, 1.0), np.full(60, 5.0)]
    found = calmest(power, np.ones(180, bool), rate_hz=30, length_s=2.0)
    assert (found.start, found.stop) == (60, 120)
    assert calmest(power, np.ones(180, bool), rate_hz=30, length_s=99) is None


def test_a_long_trace_is_thinned_without_losing_its_peak():
    motion = make_motion(
        rate_hz=60,
        seconds=300,
        pan=lambda t: 0.02 * np.sin(20 * t) + 2 * np.sin(18 * t) * (abs(t - 150) < 1),
    )
    reading = read_motion(motion)
    _, powers = band_shares(reading)
    line = trace(reading, powers, screen_deg=30, most_points=1000)
    assert len(line.t_s) <= 1001
    assert line.gust.max() == pytest.approx(9.8, abs=0.2)
    assert np.allclose(line.shares.sum(axis=1), 1.0)
