"""How to get a shot: hands of known speed, with every remedy, in the order of their cost."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.brief import usual_brief
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge.options import SURE, options_for, three_legs
from ridgewind.core.judge.shot_chances import Chances
from ridgewind.core.judge.shot_ways import SAME_MM, WantedShot, WayOfHolding
from ridgewind.core.trials.outlast import Lastings
from ridgewind.core.trials.own_hand import BINS, MIDDLES_HZ, Hand
from ridgewind.core.trials.survival import LEVELS, Lasting

RATES = {24.0: 3840, 60.0: 3840, 120.0: 1920}


def hand(deg_s, *, at_hz=(2.0, 12.0), takes=8, spread=0.1, lens=26.0):
    """A hand that turns at one speed, spread evenly over some frequencies."""
    inside = (at_hz[0] <= MIDDLES_HZ) & (at_hz[1] >= MIDDLES_HZ)
    sizes = np.exp2(np.random.default_rng(4).normal(0.0, spread, takes))
    power = np.zeros((takes, BINS, 4))
    power[:, inside, :2] = ((deg_s * sizes) ** 2)[:, None, None] / (2.0 * inside.sum())
    return Hand(MIDDLES_HZ, power, np.full(takes, lens))


def way(deg_s, key="a/b", needs=0, lastings=None, **how):
    return WayOfHolding(key, hand(deg_s, **how), 0.0, needs, lastings)


def crumbling(*seconds, length_s=8.0):
    """Takes that go over every gust at a second, or last (None)."""
    return Lastings.of([Lasting(length_s, (one,) * len(LEVELS)) for one in seconds])


def wanted(feel="smooth", mm=50.0, *, sound=False, crop=10.0, reaches=(), rates=RATES, **brief):
    brief = replace(usual_brief(feel), keep_sound=sound, most_crop_pct=crop, **brief)
    return WantedShot(brief, mm, rates, 9 / 16, reaches)


def best(deg_s, shot):
    return options_for([way(deg_s)], shot)[0]


def test_a_calm_hand_keeps_it_as_shot():
    found = best(0.2, wanted())
    assert (found.remedy, found.rate, found.cost) == ("keep", 1.0, 0.0)
    assert found.chance > 0.95
    assert found.takes == 8


def test_a_rougher_one_slows_it_at_the_mildest_rate_that_works():
    found = best(0.6, wanted())
    assert (found.remedy, found.fps) == ("slow", 60.0)
    assert best(1.3, wanted()).fps == 120.0


def test_sound_forbids_slowing_and_a_polish_does_it():
    found = best(0.7, wanted(sound=True, reaches=((50.0, 50.0),)))
    assert found.remedy == "polish"
    assert 0.0 < found.crop_pct <= 10.0
    assert found.chance >= SURE


def test_without_crop_and_slowing_one_goes_nearer():
    found = best(0.7, wanted(sound=True, crop=0.0))
    assert found.remedy == "nearer"
    assert found.focal_eq_mm == pytest.approx(50.0 * found.distance)
    there = best(0.7, wanted(sound=True, crop=0.0, mm=found.focal_eq_mm))
    assert there.remedy == "keep"
    assert there.chance == pytest.approx(SURE, abs=0.05)


def test_a_shot_that_no_hand_holds_wants_three_legs():
    found = options_for([way(1.5)], wanted("locked", 300.0, sound=True, crop=0.0))
    assert three_legs(found)
    assert found[0].chance < 0.1
    assert not three_legs(options_for([way(0.2)], wanted()))


def test_a_lens_that_the_kit_lacks_sends_one_nearer_with_one_that_it_has():
    found = best(0.2, wanted(mm=50.0, reaches=((24.0, 28.0),)))
    assert found.remedy == "nearer"
    assert found.focal_eq_mm == pytest.approx(28.0)


@settings(deadline=None, max_examples=40)
@given(st.floats(0.4, 1.2), st.floats(18.0, 45.0))
def test_one_goes_nearer_with_a_lens_as_it_is(deg_s, lens_mm):
    shot = wanted(mm=50.0, sound=True, crop=0.0, reaches=((lens_mm, lens_mm),))
    for one in options_for([way(deg_s)], shot):
        if one.remedy == "nearer":
            off_mm = abs(one.focal_eq_mm - lens_mm)
            assert off_mm == pytest.approx(0.0) or off_mm > SAME_MM


def test_what_works_comes_first_and_cheapest_first():
    ways = [way(3.0, "rough"), way(0.2, "bag", needs=1), way(0.2, "calm"), way(0.5, "slow")]
    found = options_for(ways, wanted(crop=0.0))
    works = [one for one in found if one.chance >= SURE]
    assert works == list(found[: len(works)])
    assert [one.cost for one in works] == sorted(one.cost for one in works)
    assert found[0].way.key == "calm"
    assert {one.way.key for one in works} == {"calm", "slow", "bag"}
    left = [one.chance for one in found[len(works) :]]
    assert left == sorted(left, reverse=True)


def test_what_was_never_filmed_is_typical_and_says_so():
    typical = WayOfHolding("lean/shoulder", None, 0.45, 1)
    found = {one.way.key: one for one in options_for([way(0.5), typical], wanted(mm=26.0))}
    assert found["lean/shoulder"].takes == 0
    assert found["lean/shoulder"].cost >= 1.0


def test_few_takes_are_less_sure_than_many():
    one, many = hand(0.3, takes=1, spread=0.0), hand(0.3, takes=30, spread=0.0)
    ways = [WayOfHolding("one", one, 0.0, 0), WayOfHolding("many", many, 0.0, 0), way(0.5, "x")]
    shot = wanted(mm=35.0, sound=True, crop=0.0)
    found = {one.way.key: one.chance for one in options_for(ways, shot) if one.remedy == "keep"}
    assert found["many"] > found["one"]


@settings(deadline=None, max_examples=20)
@given(st.floats(0.05, 5.0), st.floats(12.0, 200.0), st.sampled_from(["locked", "smooth", "raw"]))
def test_a_longer_lens_never_makes_it_likelier(deg_s, mm, feel):
    shots = [
        wanted(feel, lens, sound=True, crop=0.0, rates={24.0: 1920}) for lens in (mm, 1.5 * mm)
    ]
    short, long = (options_for([way(deg_s)], shot)[0] for shot in shots)
    assert long.chance <= short.chance + 1e-9 or long.remedy == "nearer"
    assert 0.0 <= long.chance <= 1.0


def test_a_camera_without_a_rate_is_refused():
    with pytest.raises(InvalidArgumentError, match="rate"):
        wanted(rates={})


def test_the_seconds_that_are_wanted_enter_the_chance():
    lastings = crumbling(3.0, 5.0, 5.0, 6.0, None, None, None, None)
    chances = {}
    for seconds in (2.0, 4.0, 7.0, 30.0):
        shot = wanted(mm=26.0, sound=True, crop=0.0, wanted_s=seconds)
        found = options_for([way(0.2, lastings=lastings)], shot)[0]
        chances[seconds] = found.chance
        assert found.longest_s == 8.0
    assert chances[2.0] > 0.95
    assert chances[4.0] == pytest.approx(7 / 8 * chances[2.0], rel=1e-6)
    assert chances[7.0] == pytest.approx(1 / 2 * chances[2.0], rel=1e-6)
    assert chances[30.0] < 0.2


def test_what_is_slowed_need_only_last_the_real_seconds():
    lastings = crumbling(*(4.0,) * 4, *(None,) * 4)
    shot = wanted(crop=0.0, mm=26.0, wanted_s=6.0)
    found = options_for([way(0.2, lastings=lastings)], shot)[0]
    assert found.remedy == "slow"
    assert found.lasts == 1.0
    assert shot.brief.wanted_s * found.rate < 4.0


def test_a_lens_moves_the_gust_at_which_a_take_is_over():
    """Filmed at 26 mm it goes over gust 4 after 3 s: at twice the focal length that is 5.25."""
    over = tuple(3.0 if level <= 4.0 else None for level in LEVELS)
    lastings = Lastings.of([Lasting(8.0, over)] * 8)
    one = way(0.2, lastings=lastings, lens=26.0)
    chances = Chances([one], wanted(own_target=4.0, wanted_s=6.0))
    assert chances.of(one, focal_eq_mm=26.0, rate=1.0).lasts == 1.0
    assert chances.of(one, focal_eq_mm=52.0, rate=1.0).lasts == 0.0
    assert chances.of(one, focal_eq_mm=52.0, rate=1.0, eased=1.5).lasts == 1.0


def test_a_polish_that_leaves_too_few_pixels_costs_more():
    narrow, wide = ({24.0: 1920}, {24.0: 3840})
    found = [
        best(0.7, wanted(sound=True, rates=one, reaches=((50, 50),))) for one in (narrow, wide)
    ]
    assert {one.remedy for one in found} == {"polish"}
    assert found[0].left_px < 1920 < found[1].left_px
    assert found[0].cost > found[1].cost


def test_how_long_takes_lasted_must_be_of_the_hands_own():
    with pytest.raises(InvalidArgumentError, match="8 takes"):
        way(0.2, lastings=crumbling(3.0))
