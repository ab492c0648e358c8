"""Planned moves against hand-worked figures, and the drawing against the formulas."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit import moving
from ridgewind.core.kit.moving import Plan, move

PLAN = Plan(
    kind="slide", focal_eq_mm=36.0, aspect=9 / 16, subject_m=2.0, foreground_m=1.0,
    background_m=10.0, amount=0.5, seconds=5.0, delivery_fps=24.0, playback=1.0,
    crossing_s=7.0, leg_m=0.9, cadence_hz=2.0, pole_m=1.5, level=False,
)  # fmt: skip


def plan(kind, amount, **changes) -> Plan:
    return replace(PLAN, kind=kind, amount=amount, **changes)


def test_a_slide_by_hand():
    found = move(PLAN)
    assert (found.foreground_pct, found.subject_pct, found.background_pct) == pytest.approx(
        (50.0, 25.0, 5.0)
    )
    assert found.counter_turn_deg == pytest.approx(math.degrees(math.atan(0.25)))
    assert found.extent_pct == pytest.approx(25.0)
    assert found.speed_pct_s == pytest.approx(5.0)
    assert found.needed_s == pytest.approx(0.25 * 7)
    assert not found.hurried


def test_a_pan_by_hand():
    # 10 degrees at 36 mm are 0.17453 of the long side.
    found = move(plan("pan", 10.0, seconds=1.0))
    assert found.extent_pct == pytest.approx(17.453, abs=0.001)
    assert found.needed_s == pytest.approx(1.2217, abs=0.001)
    assert found.hurried
    assert found.speed_deg_s == pytest.approx(10.0)
    assert found.crosses_s == pytest.approx(5.73, abs=0.01)


def test_an_orbit_by_hand():
    found = move(plan("orbit", 0.8))
    assert found.counter_turn_deg == pytest.approx(2 * math.degrees(math.atan(0.2)))
    # Foreground 100 (0.8/1 - 0.8/2) and background 100 (0.8/10 - 0.8/2) percent.
    assert (found.foreground_pct, found.background_pct) == pytest.approx((40.0, -32.0))
    assert all(abs(seen.x_pct) < 1e-9 for seen in found.subject_seen)


def test_a_push_in_dips_like_stiff_legs():
    found = move(plan("push_in", 0.6))
    assert found.dip_m == pytest.approx(0.9 - math.sqrt(0.81 - 0.09))
    assert found.subject_scale == pytest.approx(2.0 / 1.4)
    assert min(station.y_m for station in found.stations) == pytest.approx(-found.dip_m, abs=1e-3)


def test_a_walk_has_steps():
    found = move(plan("walk", 1.5))
    assert found.step_m == pytest.approx(0.15)
    assert found.speed_m_s == pytest.approx(0.3)


def test_a_zoom_against_a_step_keeps_the_subject_and_not_the_background():
    found = move(plan("zoom_step", 1.0))
    assert found.focal_to_mm == pytest.approx(18.0)
    assert found.subject_scale == pytest.approx(1.0)
    assert found.background_scale == pytest.approx(0.5 * 10 / 9)
    assert found.subject_seen[-1].scale == pytest.approx(1.0)
    assert found.background_seen[-1].scale == pytest.approx(found.background_scale)


def test_a_leaning_monopod_tips_the_horizon_unless_levelled():
    found = move(plan("monopod_lean", 10.0))
    assert found.travel_m == pytest.approx(1.5 * math.sin(math.radians(10)))
    assert found.dip_m == pytest.approx(1.5 * (1 - math.cos(math.radians(10))))
    assert found.horizon_deg == 10.0
    assert found.stations[-1].roll_deg == pytest.approx(10.0)
    level = move(plan("monopod_lean", 10.0, level=True))
    assert (level.horizon_deg, level.stations[-1].roll_deg) == (0.0, 0.0)


def test_a_rise_keeps_the_subject_in_the_middle():
    found = move(plan("rise", 0.5))
    assert all(abs(seen.y_pct) < 1e-9 for seen in found.subject_seen)
    assert found.extent_deg == pytest.approx(math.degrees(math.atan(0.25)))


@given(st.floats(0.01, 1.0), st.floats(0.5, 20), st.floats(10, 200))
def test_the_drawing_agrees_with_the_formula_for_slides(amount, near_m, focal_mm):
    asked = plan("slide", amount, focal_eq_mm=focal_mm, foreground_m=near_m, subject_m=near_m + 1,
                 background_m=near_m + 30)  # fmt: skip
    found = move(asked)
    for seen, shift in (
        (found.foreground_seen, found.foreground_pct),
        (found.subject_seen, found.subject_pct),
        (found.background_seen, found.background_pct),
    ):
        assert seen[0].x_pct - seen[-1].x_pct == pytest.approx(shift, rel=1e-9)


@given(
    st.sampled_from(["pan", "tilt", "slide", "orbit", "rise", "monopod_lean"]),
    st.floats(0.01, 0.9),
)
def test_moves_to_either_side_mirror_each_other(kind, amount):
    right, left = move(plan(kind, amount)), move(plan(kind, -amount))
    assert right.extent_pct == pytest.approx(-left.extent_pct)
    assert right.needed_s == pytest.approx(left.needed_s)


@given(st.floats(0.1, 1.0), st.floats(12, 120))
def test_slowing_down_or_a_higher_delivery_rate_need_less_time(playback, delivery_fps):
    asked = {"delivery_fps": delivery_fps, "crossing_s": 7.0}
    full = moving.needed_seconds(50, playback=1.0, **asked)
    assert moving.needed_seconds(50, playback=playback, **asked) == pytest.approx(playback * full)
    assert full == pytest.approx(3.5 * 24 / delivery_fps)


@given(st.floats(0.01, 0.5), st.floats(0.5, 50), st.floats(0.1, 10))
def test_a_scene_of_another_size_looks_the_same(amount, distance_m, factor):
    one = moving.travel_pct(amount, distance_m=distance_m, focal_eq_mm=30)
    two = moving.travel_pct(factor * amount, distance_m=factor * distance_m, focal_eq_mm=30)
    assert one == pytest.approx(two)
    assert moving.counter_turn_deg(amount, distance_m=distance_m) == pytest.approx(
        moving.counter_turn_deg(factor * amount, distance_m=factor * distance_m)
    )


@given(st.floats(0, 1.2), st.floats(0, 1.2))
def test_a_longer_stride_dips_more(one, other):
    low, high = sorted((one, other))
    assert moving.stride_dip_m(low, leg_m=0.8) <= moving.stride_dip_m(high, leg_m=0.8)


@pytest.mark.parametrize(
    ("changes", "name", "rule"),
    [
        ({"subject_m": 0.0}, "subject_m", "between 0.05"),
        ({"foreground_m": 3.0}, "foreground_m", "no farther than the subject"),
        ({"background_m": 1.0}, "background_m", "no nearer than the subject"),
        ({"kind": "push_in", "amount": 2.0}, "amount", "run into it"),
        ({"kind": "push_in", "amount": 1.9}, "amount", "reaches at most 1.8 m"),
        ({"kind": "pan", "amount": 500.0}, "amount", "between -180 and 180"),
        ({"seconds": 0.0}, "seconds", "between 0.1"),
        ({"kind": "moonwalk"}, "kind", "one of pan, tilt"),
        ({"playback": 0.0}, "playback", "between 0.001"),
    ],
)
def test_nonsense_moves_are_refused(changes, name, rule):
    with pytest.raises(InvalidArgumentError, match=rule) as refused:
        move(replace(PLAN, **changes))
    assert refused.value.name == name
