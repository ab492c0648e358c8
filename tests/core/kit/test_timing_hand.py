"""Timing of a rate against delivery, and the same hand at every lens."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit import hand, timing, typical
from ridgewind.core.shake.gust import to_gust

CAMERA, LENS = typical.CAMERAS["full_mirrorless"][1], typical.LENSES["normal"][1]
RATES = st.floats(12, 480)


def times(rate_hz: float, mode: int, **changes) -> timing.Timing:
    chosen = replace(typical.MIRRORLESS_OPTICS, mode=mode, rate_hz=rate_hz)
    asked = {"delivery_fps": 24.0, "wanted_s": 4.0, "takes": 10, "spare_s": 4.0} | changes
    return timing.timing(CAMERA, LENS, chosen, **asked)


def test_sixty_for_twenty_four_by_hand():
    found = times(60.0, mode=2)
    assert found.playback == pytest.approx(0.4)
    assert found.hold_s == pytest.approx(1.6)
    assert found.light_lost_stops == pytest.approx(1.3219, abs=1e-4)
    assert (found.half, found.nearest) == (120.0, 120.0)
    assert (found.nearest_safe_50, found.nearest_safe_60) == (100.0, 120.0)
    assert found.lost == ("sound",)
    # 70 Mbit/s for 10 takes of 1.6 + 4 s.
    assert found.storage_gb == pytest.approx(70 / 8 * 56 / 1000)


def test_a_high_rate_switches_off_what_the_camera_says():
    assert times(120.0, mode=3).lost == ("sound", "body stabiliser", "digital stabiliser")


def test_a_rate_under_delivery_repeats_frames_and_loses_nothing():
    found = times(24.0, mode=0, delivery_fps=30.0)
    assert found.repeats
    assert (found.playback, found.light_lost_stops, found.lost) == (1.0, 0.0, ())


def test_no_speed_longer_than_the_interval_is_offered():
    found = times(60.0, mode=2)
    assert all(1 / speed.denominator <= 1 / 60 + 1e-9 for speed in found.speeds if speed.usable)


@pytest.mark.parametrize(
    ("denominator", "safe_50", "safe_60"),
    [(24, False, True), (25, True, False), (50, True, False), (60, False, True),
     (100, True, False), (120, False, True), (125, False, False), (200, False, False)],
)  # fmt: skip
def test_flicker_safe_speeds_by_hand(denominator, safe_50, safe_60):
    assert timing.flicker_safe(denominator, mains_hz=50) is safe_50
    assert timing.flicker_safe(denominator, mains_hz=60) is safe_60


@given(RATES, RATES)
def test_slowing_never_speeds_up_and_the_clock_adds_up(rate_hz, delivery_fps):
    share = timing.playback_share(rate_hz, delivery_fps)
    assert 0 < share <= 1
    assert share * max(rate_hz, delivery_fps) == pytest.approx(delivery_fps)


@given(st.floats(1, 500), st.floats(0.1, 1e4), st.floats(0.1, 10))
def test_storage_is_proportional_to_rate_and_time(mbit_s, seconds, factor):
    once = timing.storage_gb(mbit_s, seconds)
    assert timing.storage_gb(factor * mbit_s, seconds) == pytest.approx(factor * once)
    assert timing.storage_gb(mbit_s, factor * seconds) == pytest.approx(factor * once)


@pytest.mark.parametrize(
    ("changes", "rule"),
    [
        ({"takes": 0}, "whole number"),
        ({"takes": 1.5}, "whole number"),
        ({"wanted_s": -1.0}, "between 0.1 and 36000 s"),
        ({"delivery_fps": 0.0}, "frames a second"),
        ({"spare_s": float("inf")}, "between 0 and 3600 s"),
    ],
)
def test_nonsense_timing_is_refused(changes, rule):
    with pytest.raises(InvalidArgumentError, match=rule):
        times(25.0, mode=0, **changes)


def test_the_longest_lens_by_hand():
    # Gust 4 is 0.1 * 2^3.2 = 0.9190 % a second; at 1 degree a second that is f = 18.96 mm.
    found = hand.longest_focal_mm(1.0, target=4.0, screen_deg=30.0)
    assert found == pytest.approx(18.96, abs=0.01)


@given(st.floats(0.05, 10), st.floats(0.5, 9))
def test_the_longest_lens_just_reaches_the_target(body_deg_s, target):
    found = hand.longest_focal_mm(body_deg_s, target=target, screen_deg=30.0)
    gust = hand.gust_at(body_deg_s, focal_eq_mm=found, screen_deg=30.0)
    assert gust == pytest.approx(target, abs=1e-9)


@given(st.floats(0.2, 4), st.floats(10, 100))
def test_twice_the_lens_is_one_and_a_quarter_gusts_more(body_deg_s, focal_mm):
    once = hand.gust_at(body_deg_s, focal_eq_mm=focal_mm, screen_deg=30.0)
    twice = hand.gust_at(body_deg_s, focal_eq_mm=2 * focal_mm, screen_deg=30.0)
    if once > 0 and twice < 10:
        assert twice - once == pytest.approx(1.25)


def test_the_curve_of_past_takes():
    own = hand.hand_of([1.0, 2.0, 4.0], typical_deg_s=9.0)
    assert (own.body_deg_s, own.spread_log2, own.takes) == pytest.approx((2.0, 1.0, 3))
    curve = hand.lens_curve(own, low_mm=12, high_mm=200, target=4.0, screen_deg=30.0)
    assert list(curve.gust) == sorted(curve.gust)
    assert all(low <= mid <= high for low, mid, high in
               zip(curve.low, curve.gust, curve.high, strict=True))  # fmt: skip
    assert curve.longest_mm == pytest.approx(9.48, abs=0.01)
    assert curve.safe_mm == pytest.approx(9.48 / 2**0.8416, abs=0.01)


def test_no_takes_lean_on_typical_figures_and_say_so():
    found = hand.hand_of([], typical_deg_s=hand.TYPICAL_STANDING_DEG_S)
    assert found.takes == 0
    assert hand.gust_at(found.body_deg_s, focal_eq_mm=26, screen_deg=30) == pytest.approx(
        to_gust(26 / 20.6265), abs=0.01
    )


def test_a_hand_that_never_moves_has_no_longest_lens():
    with pytest.raises(InvalidArgumentError, match="above zero"):
        hand.longest_focal_mm(0.0, target=4.0, screen_deg=30.0)
