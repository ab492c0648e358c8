"""The move itself, on made paths of which every figure is known."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.moves import read_move
from ridgewind.core.shake import read_motion
from ridgewind.core.units import aspect_to_rho
from tests.conftest import ASPECT, make_motion, sine

RHO = aspect_to_rho(ASPECT)
FOCAL = 35.0


def way(extent, *, start=2.0, seconds=4.0, ripple=0.0, waves=1.0):
    """A move of so much from start on, at one speed but for a ripple of so many waves."""

    def at(t):
        x = np.clip((t - start) / seconds, 0, 1)
        wave = ripple / (2 * np.pi * waves) * (1 - np.cos(2 * np.pi * waves * x))
        return extent * (x + wave)

    return at


def read(*, seconds=8.0, rate_hz=50.0, expected=False, **parts):
    motion = make_motion(rate_hz=rate_hz, seconds=seconds, **parts)
    return read_move(read_motion(motion), aspect=ASPECT, focal_eq_mm=FOCAL, expected=expected)


@pytest.mark.parametrize(
    ("part", "extent", "kind", "direction"),
    [
        ("pan", 30, "pan", "right"),
        ("pan", -30, "pan", "left"),
        ("tilt", 12, "tilt", "up"),
        ("tilt", -12, "tilt", "down"),
        ("roll", 20, "roll", "clockwise"),
        ("zoom", 35, "push", "in"),
        ("zoom", -25, "push", "out"),
    ],
)
def test_which_move_it_was_and_how_far(part, extent, kind, direction):
    move = read(**{part: way(extent)}).move
    assert (move.kind, move.direction) == (kind, direction)
    size = extent if kind == "push" else abs(extent)
    assert move.extent == pytest.approx(size, rel=0.02)
    assert move.seconds == pytest.approx(4.0, abs=0.6)
    assert move.reversals == 0
    assert move.cross_pct < 0.1


def test_a_pan_is_also_given_as_a_turn_of_the_camera():
    move = read(pan=way(30)).move
    assert move.extent_deg == pytest.approx(30 * 20.63 / FOCAL, rel=0.02)
    assert read(zoom=way(35)).move.extent_deg is None


@pytest.mark.parametrize(("ripple", "waves"), [(0.0, 1), (0.2, 1), (0.4, 2), (0.6, 1)])
def test_evenness_of_speed_is_right_to_five_percent(ripple, waves):
    # Over a whole take, so that only the ripple is uneven: 1 - ripple / sqrt(2).
    move = read(seconds=12.0, pan=way(60, start=-1, seconds=14.0, ripple=ripple, waves=waves)).move
    t = np.linspace(0.1, 0.9, 2000) * 12 + 1
    speed = 1 + ripple * np.sin(2 * np.pi * waves * t / 14)
    assert move.evenness == pytest.approx(1 - speed.std() / speed.mean(), abs=0.05)


def test_shake_does_not_make_a_move_uneven():
    shaken = read(
        pan=lambda t: way(30)(t) + 0.4 * np.sin(2 * np.pi * 2 * t), tilt=sine(0.3, 3.0)
    ).move
    assert shaken.evenness > 0.85
    assert shaken.extent == pytest.approx(30, rel=0.02)


def test_a_move_that_goes_back_is_counted():
    def there_and_back(t):
        return (
            way(20, start=0, seconds=4)(t)
            - way(6, start=4, seconds=2)(t)
            + (way(16, start=6, seconds=4)(t))
        )

    move = read(seconds=10.0, pan=there_and_back, expected=True).move
    assert move.reversals == 1
    assert move.direction == "right"


def test_drift_across_and_the_dip_of_a_push():
    bowed = read(pan=way(30), tilt=lambda t: 2 * np.sin(np.pi * np.clip((t - 2) / 4, 0, 1))).move
    assert bowed.cross_pct == pytest.approx(2, abs=0.25)
    dipped = read(
        zoom=way(40), tilt=lambda t: -1.5 * np.sin(np.pi * np.clip((t - 2) / 4, 0, 1))
    ).move
    assert dipped.dip_pct == pytest.approx(1.5, abs=0.2)
    assert read(zoom=way(40), tilt=lambda t: 0.25 * t).move.dip_pct < 0.1


def test_a_soft_start_takes_longer_than_a_hard_one():
    def soft(t):
        x = np.clip((t - 2) / 4, 0, 1)
        return 30 * (x - np.sin(2 * np.pi * x) / (2 * np.pi))

    hard, eased = read(pan=way(30)).move, read(pan=soft).move
    assert eased.ease_in_s > hard.ease_in_s + 0.2
    assert eased.ease_out_s > hard.ease_out_s + 0.2


def test_joins_say_how_a_shot_begins_and_ends():
    found = read(seconds=6.0, pan=lambda t: 5 * t)
    assert (found.entry.direction, found.exit.direction) == ("right", "right")
    assert found.entry.speed_pct_s == pytest.approx(5, rel=0.05)
    held = read(seconds=6.0, pan=way(20, start=1, seconds=3))
    assert held.entry.direction is held.exit.direction is None


def test_a_hold_is_no_move_and_says_how_far_the_frame_wandered():
    found = read(pan=sine(1.0, 0.2), tilt=sine(0.4, 0.3))
    assert found.move is None
    assert found.wander_pct == pytest.approx(2.0, rel=0.1)


def test_a_small_move_counts_only_where_one_was_meant():
    assert read(pan=way(2.5)).move is None
    assert read(pan=way(2.5), expected=True).move.extent == pytest.approx(2.5, rel=0.05)


def test_what_is_too_short_to_read_is_none():
    assert read(seconds=1.0, pan=way(30, start=0, seconds=1)) is None


@settings(max_examples=30, deadline=None)
@given(st.floats(6, 60), st.floats(2, 6), st.sampled_from([24.0, 30.0, 60.0, 120.0]))
def test_the_same_move_reads_the_same_at_any_rate_and_the_other_way(extent, seconds, rate_hz):
    there = read(rate_hz=rate_hz, seconds=8.0, pan=way(extent, start=1, seconds=seconds)).move
    back = read(rate_hz=rate_hz, seconds=8.0, pan=way(-extent, start=1, seconds=seconds)).move
    assert there.extent == pytest.approx(extent, rel=0.02)
    assert back.extent == pytest.approx(there.extent, rel=1e-6)
    assert back.evenness == pytest.approx(there.evenness, abs=1e-6)


@pytest.mark.parametrize("seconds", [0.8, 2.0])
@pytest.mark.parametrize("wander", [0.0, 0.1])
def test_a_short_pan_in_a_minutes_hold_is_the_pan_alone(seconds, wander):
    pan = way(15, start=30.0, seconds=seconds)
    move = read(seconds=60.0, pan=lambda t: pan(t) + wander * sine(3.0, 0.2)(t)).move
    assert (move.kind, move.direction) == ("pan", "right")
    assert move.start_s == pytest.approx(30.0, abs=0.6)
    assert move.end_s == pytest.approx(30.0 + seconds, abs=0.6)
    assert move.extent == pytest.approx(15, rel=0.05)


def test_a_hold_that_wanders_as_far_without_standing_out_is_no_move():
    assert read(seconds=60.0, pan=sine(8.0, 0.05)).move is None
