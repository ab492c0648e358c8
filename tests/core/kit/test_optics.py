"""Field of view, equivalent focal length and crop, against hand-worked values and laws."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit import items, optics, typical

FOCALS = st.floats(2, 2000)
SENSORS = st.floats(4, 60)
CROPS = st.floats(0, 0.8)
PHONE, MIRRORLESS = typical.CAMERAS["phone"][1], typical.CAMERAS["full_mirrorless"][1]
FIXED = typical.LENSES["normal"][1]


def set_so(**changes) -> items.Optics:
    return replace(typical.MIRRORLESS_OPTICS, **changes)


@pytest.mark.parametrize(
    ("focal_mm", "sensor_mm", "crop", "equivalent_mm"),
    [(50, 36, 0, 50), (50, 24, 0, 75), (6.5, 9, 0, 26), (24, 36, 0.1, 26.667), (35, 24, 0.3, 75)],
)
def test_equivalent_focal_length_by_hand(focal_mm, sensor_mm, crop, equivalent_mm):
    found = optics.equivalent_focal_mm(focal_mm, sensor_long_mm=sensor_mm, crop=crop)
    assert found == pytest.approx(equivalent_mm, rel=1e-4)


@pytest.mark.parametrize(
    ("focal_mm", "side", "angle_deg"),
    [(18, 1, 90.0), (26, 1, 69.39), (50, 1, 39.60), (50, 9 / 16, 22.90), (200, 1, 10.29)],
)
def test_field_of_view_by_hand(focal_mm, side, angle_deg):
    found = optics.field_of_view_deg(focal_mm, side=side)
    assert found == pytest.approx(angle_deg, abs=0.01)


@given(FOCALS, SENSORS, CROPS)
def test_the_way_to_equivalent_and_back(focal_mm, sensor_mm, crop):
    there = optics.equivalent_focal_mm(focal_mm, sensor_long_mm=sensor_mm, crop=crop)
    back = optics.true_focal_mm(there, sensor_long_mm=sensor_mm, crop=crop)
    assert back == pytest.approx(focal_mm)


@given(FOCALS, FOCALS)
def test_a_longer_lens_never_sees_more(one, other):
    low, high = sorted((one, other))
    assert optics.field_of_view_deg(high) <= optics.field_of_view_deg(low)


@given(st.lists(CROPS, max_size=4))
def test_crops_combine_in_any_order_to_no_less_than_the_largest(crops):
    whole = optics.combined_crop(crops)
    assert whole == pytest.approx(optics.combined_crop(reversed(crops)))
    assert max(crops, default=0) - 1e-12 <= whole <= 1


@given(st.floats(0.1, 10), FOCALS, SENSORS)
def test_scaling_lens_and_sensor_together_changes_nothing(scale, focal_mm, sensor_mm):
    one = optics.equivalent_focal_mm(focal_mm, sensor_long_mm=sensor_mm)
    two = optics.equivalent_focal_mm(scale * focal_mm, sensor_long_mm=scale * sensor_mm)
    assert two == pytest.approx(one)


def test_stabiliser_crop_counts_only_while_it_works():
    on = set_so(digital_stabiliser=True)
    assert optics.set_up_focal_eq_mm(MIRRORLESS, FIXED, on) == pytest.approx(35 / 0.9)
    fast = set_so(digital_stabiliser=True, mode=3, rate_hz=120.0)
    assert optics.set_up_focal_eq_mm(MIRRORLESS, FIXED, fast) == pytest.approx(35 / 0.67)


def test_frames_nest_down_to_the_delivered_picture():
    found = optics.picture(
        MIRRORLESS, FIXED, set_so(digital_stabiliser=True), delivery_px=(1920, 1080),
        most_crop_pct=10,
    )  # fmt: skip
    widths = [frame.width for frame in found.frames]
    assert widths == pytest.approx([1.0, 1.0, 0.9, 0.81, 0.45])
    assert found.frames[2].width_px == 3840
    assert (found.budget_pct, found.polish_pct) == pytest.approx((50, 10))
    # 1920 of 3456 px are needed after polish: 44.4 % are left.
    assert found.reframe_pct == pytest.approx(44.44, abs=0.01)
    assert found.enlarged == 1.0


def test_an_upright_delivery_is_cut_from_the_middle():
    found = optics.picture(
        MIRRORLESS, FIXED, set_so(), delivery_px=(1080, 1920), most_crop_pct=5
    )  # fmt: skip
    delivered = found.frames[-1]
    assert delivered.height / delivered.width == pytest.approx(16 / 9)
    assert found.budget_pct == pytest.approx(100 * (1 - 1080 / 1215))


def test_a_small_recording_is_enlarged_and_leaves_no_budget():
    hd = set_so(mode=2)
    found = optics.picture(MIRRORLESS, FIXED, hd, delivery_px=(3840, 2160), most_crop_pct=10)
    assert found.enlarged == 2.0
    assert found.budget_pct == pytest.approx(-100)
    assert (found.polish_pct, found.reframe_pct) == (0, 0)


@given(st.integers(640, 7680), st.floats(0, 50))
def test_polish_and_reframing_never_exceed_the_budget(width_px, most_crop_pct):
    found = optics.picture(
        MIRRORLESS, FIXED, set_so(), delivery_px=(width_px, width_px * 9 // 16),
        most_crop_pct=most_crop_pct,
    )  # fmt: skip
    both = optics.combined_crop([found.polish_pct / 100, found.reframe_pct / 100])
    assert 100 * both == pytest.approx(max(0.0, found.budget_pct), abs=1e-6)
    widths = [frame.width for frame in found.frames]
    assert all(inner <= outer + 1e-9 for outer, inner in pairwise(widths))


@pytest.mark.parametrize(
    ("change", "name", "rule"),
    [
        ({"mode": 9}, "mode", "no such mode"),
        ({"rate_hz": 240.0}, "rate_hz", "records at 24, 25, 30"),
        ({"focal_mm": 50.0}, "focal_mm", "the lens is 35 mm"),
        ({"lens_stabiliser": True}, "lens_stabiliser", "no stabiliser"),
        ({"shutter": 77.0}, "shutter", "no such speed"),
    ],
)
def test_a_set_up_that_cannot_be_is_refused(change, name, rule):
    with pytest.raises(InvalidArgumentError, match=rule) as refused:
        items.check_optics(MIRRORLESS, FIXED, set_so(**change))
    assert refused.value.name == name


def test_a_camera_without_the_stabiliser_is_refused():
    on = replace(typical.PHONE_OPTICS, body_stabiliser=True)
    with pytest.raises(InvalidArgumentError, match="no body stabiliser"):
        items.check_optics(PHONE, typical.LENSES["phone_main"][1], on)


@pytest.mark.parametrize(
    ("thing", "change", "rule"),
    [
        (MIRRORLESS, {"mass_g": -1.0}, "mass_g is -1.0, but it must be between 1 and 50000 g"),
        (MIRRORLESS, {"sensor_short_mm": 40.0}, "between 1 and 36 mm"),
        (MIRRORLESS, {"modes": ()}, "at least one mode"),
        (MIRRORLESS, {"shutters": ()}, "at least one speed"),
        (FIXED, {"focal_max_mm": 20.0}, "between 35 and 3000 mm"),
        (FIXED, {"balance_mm": 400.0}, "between 0 and 65 mm"),
        (typical.SUPPORTS["neck_strap"][1], {"route": None}, "length and its route"),
        (MIRRORLESS.modes[0], {"rates_hz": ()}, "at least one rate"),
        (MIRRORLESS.modes[0], {"name": " "}, "needs a name"),
        (MIRRORLESS.stabilisers[0], {"crop": float("nan")}, "between 0 and 0.9"),
    ],
)
def test_nonsense_kit_is_refused(thing, change, rule):
    with pytest.raises(InvalidArgumentError, match=rule):
        replace(thing, **change)


def test_every_typical_set_up_works():
    for _, camera, lens, chosen, supports in typical.SET_UPS.values():
        found = optics.set_up_focal_eq_mm(
            typical.CAMERAS[camera][1], typical.LENSES[lens][1], chosen
        )
        assert 10 < found < 300
        assert set(supports) <= set(typical.SUPPORTS)
    usual = typical.SET_UPS[typical.USUAL_SET_UP]
    assert optics.set_up_focal_eq_mm(
        typical.CAMERAS[usual[1]][1], typical.LENSES[usual[2]][1], usual[3]
    ) == pytest.approx(26.0)
