"""Balance of a rig and length of a strap, against hand-worked values and laws."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit import balance, strap, typical
from ridgewind.core.kit.balance import RigPart
from ridgewind.core.kit.items import Box, Place

CUBE = Box(100, 100, 100)
MASSES = st.floats(10, 3000)
PLACES = st.builds(Place, st.floats(-300, 300), st.floats(-300, 300), st.floats(-300, 300))
PARTS = st.lists(st.builds(RigPart, st.just("part"), MASSES, PLACES, st.just(CUBE), st.just(True)),
                 min_size=1, max_size=6)  # fmt: skip


def two(front_g: float, back_g: float) -> list[RigPart]:
    return [
        RigPart("front", front_g, Place(0, 0, 100), CUBE, True),
        RigPart("back", back_g, Place(0, 0, -100), CUBE, True),
    ]


def test_centre_of_mass_by_hand():
    assert balance.centre_of_mass(two(300, 100)) == Place(0, 0, 50)


def test_inertia_of_a_cube_by_hand():
    # 1 kg, side 0.1 m: m a² / 6.
    found = balance.inertia([RigPart("cube", 1000, Place(5, 6, 7), CUBE, True)])
    assert (found.pitch, found.yaw, found.roll) == pytest.approx((1 / 600,) * 3)


def test_inertia_of_two_cubes_by_hand():
    found = balance.inertia(two(1000, 1000))
    assert found.pitch == pytest.approx(2 * (1 / 600 + 0.01))
    assert found.roll == pytest.approx(2 / 600)


def test_a_rig_that_tips_forward_is_levelled_by_its_counterweight():
    handle, weight_at = Place(0, 200, 0), Place(0, 0, -150)
    parts = two(300, 100)
    hang = balance.balance(parts, handle=handle, weight_at=weight_at).hang
    assert hang.forward_deg == pytest.approx(math.degrees(math.atan2(50, 200)))
    assert hang.counterweight_g == pytest.approx(400 * 50 / 150)
    assert hang.shift_mm == pytest.approx(50)
    weight = RigPart("weight", hang.counterweight_g, weight_at, Box(1, 1, 1), False)
    after = balance.balance([*parts, weight], handle=handle, weight_at=weight_at).hang
    assert after.forward_deg == pytest.approx(0, abs=1e-9)
    assert after.level


def test_a_counterweight_on_the_wrong_side_is_refused_with_its_reason():
    hang = balance.balance(two(300, 100), handle=Place(0, 200, 0), weight_at=Place(0, 0, 80)).hang
    assert hang.counterweight_g is None
    assert "behind the handle" in hang.reason
    near = balance.balance(two(300, 100), handle=Place(0, 200, 0), weight_at=Place(0, 0, -11)).hang
    assert near.counterweight_g == pytest.approx(400 * 50 / 11) or "farther out" in near.reason


def test_a_handle_under_the_rig_cannot_hang():
    found = balance.balance(two(1, 1), handle=Place(0, -50, 0), weight_at=Place(0, 0, -100))
    assert found.hang is None
    assert "tip over" in found.hang_reason


def test_swing_and_torque_by_hand():
    # A point mass 0.25 m under its pivot: sqrt(g / d) / 2 pi.
    assert balance.swing_hz(500, below_mm=250, inertia_kgm2=1e-12) == pytest.approx(
        math.sqrt(9.80665 / 0.25) / (2 * math.pi)
    )
    assert balance.torque_nm(2000, reach_m=0.6) == pytest.approx(11.768, abs=0.001)


@given(PARTS, PLACES)
def test_moving_the_whole_rig_moves_its_centre_and_not_its_inertia(parts, by):
    moved = [
        replace(
            part,
            place=Place(
                part.place.x_mm + by.x_mm, part.place.y_mm + by.y_mm, part.place.z_mm + by.z_mm
            ),
        )
        for part in parts
    ]
    before, after = balance.centre_of_mass(parts), balance.centre_of_mass(moved)
    assert after.x_mm - before.x_mm == pytest.approx(by.x_mm, abs=1e-6)
    one, other = balance.inertia(parts), balance.inertia(moved)
    assert other.pitch == pytest.approx(one.pitch, rel=1e-6, abs=1e-9)
    assert other.roll == pytest.approx(one.roll, rel=1e-6, abs=1e-9)


@given(PARTS, PARTS)
def test_adding_mass_never_predicts_more_jitter(parts, more):
    added = [replace(part, bare=False) for part in more]
    found = balance.balance([*parts, *added], handle=None, weight_at=Place(0, 0, 0))
    assert 0 < found.jitter_ratio <= 1 + 1e-9
    assert found.hang is None


@given(PARTS, st.floats(0.1, 10))
def test_inertia_is_proportional_to_mass(parts, factor):
    heavier = [replace(part, mass_g=factor * part.mass_g) for part in parts]
    assert balance.inertia(heavier).yaw == pytest.approx(factor * balance.inertia(parts).yaw)


@given(MASSES, st.floats(-200, 200), st.floats(20, 300))
def test_a_counterweight_always_levels(mass_g, ahead_mm, lever_mm):
    at = -math.copysign(lever_mm, ahead_mm)
    found = balance.counterweight_g(mass_g, ahead_mm=ahead_mm, weight_ahead_mm=at)
    assert mass_g * ahead_mm + found * at == pytest.approx(0, abs=1e-3)  # g mm: a hair


def test_a_typical_camera_is_put_together():
    camera, lens = typical.CAMERAS["full_mirrorless"][1], typical.LENSES["long_zoom"][1]
    body, barrel = balance.camera_parts(camera, lens)
    assert barrel.place.z_mm == camera.size.depth_mm / 2 + lens.balance_mm
    assert body.bare
    assert barrel.bare


def test_a_rig_without_mass_is_refused():
    with pytest.raises(InvalidArgumentError, match="must weigh something"):
        balance.centre_of_mass([RigPart("air", 0, Place(0, 0, 0), CUBE, True)])
    with pytest.raises(InvalidArgumentError, match="mass_g is -5"):
        RigPart("odd", -5, Place(0, 0, 0), CUBE, True)


BODY = strap.Body(forearm_mm=350, chest_mm=1000, measured_mm=None)


def test_taut_lengths_by_hand():
    # Round the nape 190 mm, and twice the way from there to 475 mm ahead and 200 mm down.
    neck = 190 + 2 * math.hypot(475, 200)
    under = math.hypot(500, 200) + 2 * math.hypot(350, 170)
    chest = 190 + 2 * math.hypot(165, 200)
    found = strap.plan_strap(BODY, route="neck", length_mm=1500, scale_kg=1.5, felt=None)
    assert found.by_route_mm == pytest.approx({"neck": neck, "under_arm": under, "chest": chest})
    assert found.take_up_mm == pytest.approx(1500 - neck)
    assert found.pull_n == pytest.approx(14.71, abs=0.01)
    assert (found.verdict, found.on_neck) == ("helps", True)


def test_a_measured_length_replaces_the_estimate():
    body = replace(BODY, measured_mm=1234.0)
    found = strap.plan_strap(body, route="neck", length_mm=1500, scale_kg=None, felt=1)
    assert (found.taut_mm, found.mark_mm, found.verdict) == (1234.0, 1234.0, "slack")


def test_a_strap_that_is_too_short_says_by_how_much():
    found = strap.plan_strap(BODY, route="under_arm", length_mm=1000, scale_kg=None, felt=5)
    assert found.mark_mm is None
    assert "32 cm (12 in) too short" in found.reason
    assert found.verdict == "too hard"


@given(st.floats(250, 450), st.floats(250, 450), st.floats(700, 1300))
def test_a_longer_arm_never_wants_a_shorter_strap(one, other, chest_mm):
    low, high = sorted((one, other))
    for route in ("neck", "under_arm", "chest"):
        short = strap.taut_length_mm(route, forearm_mm=low, chest_mm=chest_mm)
        assert short <= strap.taut_length_mm(route, forearm_mm=high, chest_mm=chest_mm)


@given(st.floats(0.1, 20), st.floats(0.1, 20))
def test_a_harder_pull_never_allows_more_minutes(one, other):
    low, high = sorted((one, other))
    assert strap.session_limit_min(high) <= strap.session_limit_min(low)
    assert strap.newton_to_kg(strap.kg_to_newton(one)) == pytest.approx(one)


@pytest.mark.parametrize(
    ("changes", "rule"),
    [
        ({"scale_kg": None, "felt": None}, "scale or a felt level"),
        ({"felt": 9}, "goes from 1 to 5"),
        ({"scale_kg": -1.0}, "between 0 and 20 kg"),
        ({"length_mm": 3.0}, "between 50"),
        ({"route": "waist"}, "one of neck"),
    ],
)
def test_nonsense_straps_are_refused(changes, rule):
    asked = {"route": "neck", "length_mm": 1500, "scale_kg": 1.0, "felt": None} | changes
    with pytest.raises(InvalidArgumentError, match=rule):
        strap.plan_strap(BODY, **asked)


def test_nonsense_bodies_are_refused():
    with pytest.raises(InvalidArgumentError, match="forearm_mm is 20"):
        strap.Body(forearm_mm=20, chest_mm=1000, measured_mm=None)
