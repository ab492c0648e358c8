"""The drill library, spacing, and sessions, as pure functions with laws."""

from __future__ import annotations

import random
from dataclasses import replace
from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.kit import typical
from ridgewind.core.practice import drill as drill_module
from ridgewind.core.practice.checks import checks_before
from ridgewind.core.practice.drill import LOADS, SPACES, library_of, parse_drills
from ridgewind.core.practice.due import Due, Result, days_ahead, due, interval_after
from ridgewind.core.practice.priority import drills_for_shot
from ridgewind.core.practice.session import Ask, Locked, balanced_order, build_session
from ridgewind.store.drills import shipped

LIBRARY = shipped()
NEEDS = get_args(drill_module.Need)
ASK = Ask(30, (), "path", NEEDS, (), 1, ())

asks = st.builds(
    Ask,
    st.floats(3, 120),
    st.lists(st.sampled_from(["step", "jitter", "orbit", "walking"]), max_size=2).map(tuple),
    st.sampled_from(SPACES),
    st.lists(st.sampled_from(NEEDS), unique=True).map(tuple),
    st.lists(st.sampled_from(LOADS), unique=True, max_size=3).map(tuple),
    st.integers(0, 10_000),
    st.just(()),
)


def build(ask=ASK, *, known=None, weakest=None, today=100):
    return build_session(LIBRARY, ask, due=known or {}, weakest=weakest, today=today)


# The library


def test_the_library_covers_the_craft():
    assert len(LIBRARY) >= 36
    assert {drill.family for drill in LIBRARY.values()} == set(get_args(drill_module.Family))
    assert {drill.tempo for drill in LIBRARY.values()} == set(get_args(drill_module.Tempo))
    used = {need for drill in LIBRARY.values() for need in drill.needs}
    assert used == set(NEEDS)
    causes = {fault.cause for drill in LIBRARY.values() for fault in drill.faults}
    assert causes == set(get_args(drill_module.Cause))


@pytest.mark.parametrize("drill", LIBRARY.values(), ids=lambda drill: drill.key)
def test_every_drill_is_whole(drill):
    assert drill.cautions
    assert drill.faults
    assert drill.set_up
    assert drill.cues
    assert drill.variations[0].control
    assert all(one.how and one.reason for one in drill.variations)
    for neighbour in (drill.easier, drill.harder):
        assert neighbour is None or neighbour in LIBRARY
    assert all(len(cue) <= 40 for cue in drill.cues)


def test_the_schools_of_walking_stand_side_by_side():
    keys = {"walk-forward": 4, "walk-camera": 3, "walk-speed": 3}
    for key, count in keys.items():
        assert len(LIBRARY[key].variations) == count


@pytest.mark.parametrize(
    ("change", "rule"),
    [
        ({"family": "swimming"}, "one of standing"),
        ({"take_s": 0.0}, "between 1 and 120 s"),
        ({"target": 11.0}, "between 0 and 10"),
        ({"loads": ("toe",)}, "one of neck"),
        ({"variations": ()}, "two variations or more"),
        ({"name": " "}, "must say something"),
    ],
)
def test_a_drill_that_makes_no_sense_is_refused(change, rule):
    with pytest.raises(InvalidArgumentError, match=rule):
        replace(LIBRARY["pan"], **change)


def test_exactly_one_variation_is_the_control():
    both = tuple(replace(one, control=True) for one in LIBRARY["pan"].variations)
    with pytest.raises(InvalidArgumentError, match="exactly one"):
        replace(LIBRARY["pan"], variations=both)


def test_a_file_with_a_missing_field_names_it():
    with pytest.raises(InvalidArgumentError, match="check its fields"):
        parse_drills('[[drill]]\nkey = "x"\n')
    with pytest.raises(InvalidArgumentError, match="two drills have it"):
        library_of([LIBRARY["pan"], LIBRARY["pan"]])


# Spacing


@pytest.mark.parametrize(
    ("results", "days"),
    [([], 2), ([True], 4), ([True, True], 8), ([True] * 9, 60), ([False], 1), ([False] * 3, 1),
     ([True, True, False], 4)],
)  # fmt: skip
def test_intervals_by_hand(results, days):
    assert interval_after(results) == days


@given(st.lists(st.booleans(), max_size=12))
def test_a_pass_never_shortens_and_a_fail_never_widens(results):
    now = interval_after(results)
    assert interval_after([*results, True]) >= now
    assert interval_after([*results, False]) <= now
    assert 1 <= now <= 60


def test_takes_of_one_day_count_once():
    day = [Result(10, True), Result(10, True), Result(10, False)]
    found = due(day, today=12)
    assert (found.interval_days, found.due_day, found.last_passed) == (4, 14, True)
    assert found.overdue == pytest.approx(-0.5)
    mostly = due([Result(10, True), Result(10, False), Result(10, False)], today=12)
    assert (mostly.interval_days, mostly.due_day, mostly.last_passed) == (1, 11, False)


def test_the_days_ahead_widen():
    assert days_ahead([Result(10, True)], today=12, horizon=42) == (14, 22, 38)
    assert days_ahead([], today=5, horizon=0) == ()
    with pytest.raises(InvalidArgumentError, match="no result may be later"):
        due([Result(20, True)], today=12)


# Sessions


@settings(max_examples=60, deadline=None)
@given(asks)
def test_a_session_fits_its_minutes_place_bag_and_body(ask):
    found = build(ask)
    assert found.total_s <= ask.minutes * 60 + 1e-6
    assert found.total_s == pytest.approx(
        found.warm_up_s + sum(block.seconds for block in found.blocks)
    )
    for block in found.blocks:
        drill = LIBRARY[block.drill_key]
        assert set(drill.needs) <= set(ask.needs)
        assert not set(drill.loads) & set(ask.limits)
        assert SPACES.index(drill.space) <= SPACES.index(ask.space)
        assert set(drill.cautions) <= set(found.cautions)
    keys = [block.drill_key for block in found.blocks]
    assert len(set(keys)) == len(keys)


@settings(max_examples=60, deadline=None)
@given(asks)
def test_no_variation_is_favoured_by_what_grows_or_fades(ask):
    for block in build(ask).blocks:
        keys = set(block.order)
        assert LIBRARY[block.drill_key].control.key in keys
        assert len(keys) >= 2
        counts = {key: block.order.count(key) for key in keys}
        assert len(set(counts.values())) == 1
        places = {
            key: sum(k for k, one in enumerate(block.order) if one == key) / counts[key]
            for key in keys
        }
        assert max(places.values()) - min(places.values()) < 1e-9


@given(st.integers(0, 1000), st.integers(1, 4), st.integers(2, 8))
def test_orders_are_balanced_for_any_count(seed, count, rounds):
    keys = [str(k) for k in range(count)]
    order = balanced_order(keys, rounds, random.Random(seed))
    assert order == order[::-1] or rounds >= 4
    assert {order.count(key) for key in keys} == {2 * max(1, rounds // 2)}


def test_the_same_seed_gives_the_same_session_and_another_one_another():
    assert build() == build()
    assert build(replace(ASK, seed=2)) != build()


def test_what_is_wanted_comes_first_and_says_why():
    known = {("pan", "start"): Due(90, 4, 88, True, 2.5)}
    found = build(replace(ASK, goals=("orbit",)), known=known, weakest="step")
    reasons = {block.drill_key: block.reasons for block in found.blocks}
    assert reasons["orbit"][0] == "your goal"
    assert reasons["pan"][0] == "due again: last passed 12 days ago"
    assert any("weakest: step band" in one for one in reasons.values())


@pytest.mark.parametrize(
    ("shot", "serves", "others"),
    [
        ("walking in to the mill door", {"walk-forward", "walk-line"}, {"pan", "lean-wall"}),
        ("a pan across the ridge", {"pan"}, {"tilt", "orbit", "walk-forward"}),
        ("push in on the millstone", {"push-pull"}, {"pan", "slide"}),
        ("rise with an orbit round the cap", {"rise-orbit"}, {"orbit", "rise", "tilt"}),
        ("go down on the blanket", {"blanket-pull"}, {"lying", "top-to-bottom"}),
    ],
)
def test_a_shot_in_words_finds_its_drills(shot, serves, others):
    found = drills_for_shot(shot, LIBRARY.values())
    assert serves <= set(found)
    assert not others & set(found)


@pytest.mark.parametrize("shot", ["", "the and with", "qwertz 123 !?", "日の出"])
def test_a_shot_of_which_nothing_is_known_asks_for_nothing(shot):
    assert drills_for_shot(shot, LIBRARY.values()) == {}


@given(st.text(max_size=200))
def test_any_words_find_drills_of_the_library_and_say_which_words(shot):
    for key, words in drills_for_shot(shot, LIBRARY.values()).items():
        assert key in LIBRARY
        assert words
        assert all(word in shot.lower() for word in words)


def test_the_shot_comes_into_the_session_first_and_says_its_words():
    found = build(replace(ASK, minutes=12, shot="orbit round the sails"))
    reasons = {block.drill_key: block.reasons for block in found.blocks}
    assert reasons["orbit"][0] == "for your shot: orbit"
    assert "orbit" not in {block.drill_key for block in build(replace(ASK, minutes=12)).blocks}


def test_a_lens_brings_drills_for_what_it_shows():
    def families(focal_eq_mm):
        blocks = build(replace(ASK, minutes=40, focal_eq_mm=focal_eq_mm)).blocks
        because = [b for b in blocks if any(f"{focal_eq_mm:.0f} mm" in why for why in b.reasons)]
        return {LIBRARY[block.drill_key].family for block in because}

    assert families(135.0) <= {"leaning", "monopod", "strap", "weight", "standing"}
    assert len(families(135.0)) >= 3
    assert families(24.0) == {"walking", "planted"}
    assert families(50.0) == set()
    with pytest.raises(InvalidArgumentError, match="focal_eq_mm is 0"):
        replace(ASK, focal_eq_mm=0)


def test_a_drill_that_is_not_due_waits():
    known = {
        (drill.key, one.key): Due(140, 40, 99, True, -1.0)
        for drill in LIBRARY.values()
        for one in drill.variations
        if drill.key != "stance-width"
    }
    first = max(build(known=known).blocks, key=lambda block: "new to you" in block.reasons)
    assert first.drill_key == "stance-width"


def test_easier_drills_come_before_harder_ones_for_a_newcomer():
    keys = {block.drill_key for block in build(weakest="step").blocks}
    assert "walk-forward" in keys
    assert "run" not in keys


def test_locked_blocks_stay_where_they_are():
    first = build()
    locked = tuple(Locked(k, first.blocks[k]) for k in (0, 2))
    again = build(replace(ASK, seed=99, locked=locked))
    assert again.blocks[0] == first.blocks[0]
    assert again.blocks[2] == first.blocks[2]
    assert again.blocks != first.blocks


def test_neighbours_load_different_parts():
    found = build(replace(ASK, minutes=60))
    shared = [
        len(set(LIBRARY[a.drill_key].loads) & set(LIBRARY[b.drill_key].loads))
        for a, b in zip(found.blocks, found.blocks[1:], strict=False)
    ]
    assert sum(shared) <= 0.6 * len(shared)


def test_too_few_minutes_are_refused():
    with pytest.raises(InvalidArgumentError, match="between 3 and 240 min"):
        replace(ASK, minutes=1)


# The check before rolling


def check_words(drill_key, supports=(), **optics):
    found = checks_before(
        LIBRARY[drill_key],
        typical.CAMERAS["full_mirrorless"][1],
        typical.LENSES["normal"][1],
        replace(typical.MIRRORLESS_OPTICS, **optics),
        [typical.SUPPORTS[key][1] for key in supports],
        strap_mark="122 cm",
    )
    return {check.key: check.words for check in found}


def test_checks_follow_from_set_up_and_drill():
    hand = check_words("pan", ["neck_strap"])
    assert "stabiliser on; it is on" in hand["stabiliser"]
    assert hand["rate"] == "25 frames a second, shutter 1/50."
    assert "122 cm" in hand["strap"]
    assert "end" in hand
    assert not {"ground", "locks"} & set(hand)
    stick = check_words("monopod-lean", ["monopod"], body_stabiliser=False)
    assert "On a support" in stick["stabiliser"]
    assert "it is off" in stick["stabiliser"]
    assert "locks" in stick
    assert "ground" in check_words("walk-forward")
