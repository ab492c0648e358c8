"""What a list of shots lacks: a table of cases, and each rule's opposite."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.coverage import missing
from ridgewind.core.sequence.shot import HEADINGS, HEIGHTS, SIZES, check_shot
from ridgewind.core.sequence.shot import PlannedShot as Shot
from ridgewind.core.sequence.starts import STARTS, shots_of

MILL = Shot("the mill", size="wide", move="push_in", heading="in", part="where", foreground="gate")
WHOLE = (
    MILL,
    Shot("the miller at the mill", size="medium", height="low", enters=True),
    Shot("the mill", size="close", move="pan", heading="left"),
    Shot("the brake of the mill", size="detail"),
    replace(MILL, move="pull_out", heading="out", part="leaving", foreground=""),
)
"""A list that lacks nothing."""


def rules(shots, filmed=None) -> list[str]:
    return [gap.rule for gap in missing(shots, filmed=filmed)]


def changed(position: int, **parts) -> tuple[Shot, ...]:
    return tuple(replace(s, **parts) if k == position else s for k, s in enumerate(WHOLE))


def all_changed(**parts) -> tuple[Shot, ...]:
    return tuple(replace(shot, **parts) for shot in WHOLE)


def test_a_list_that_lacks_nothing():
    assert rules(WHOLE) == []


@pytest.mark.parametrize(
    ("shots", "rule", "positions"),
    [
        ((*WHOLE[:4], Shot("the ridge", size="wide", move="pull_out", heading="out")),
         "no_close", (4,)),
        (changed(3, subject="a cat", place="loft"), "no_wide", (3,)),
        (all_changed(height="low"), "one_height", (0, 1, 2, 3, 4)),
        (tuple(replace(s, move="pan", heading="left") if 0 < k < 4 else s
               for k, s in enumerate(WHOLE)), "same_move", (1, 2, 3)),
        ((*WHOLE[:3], Shot("the mill", move="slide", heading="right"), *WHOLE[3:]),
         "direction_flips", (2, 3)),
        (changed(0, move="still", heading=None), "no_way_in", (0,)),
        (changed(4, move="still", heading=None), "no_way_out", (4,)),
        (all_changed(foreground=""), "nothing_near", ()),
        (all_changed(playback=0.5), "all_slowed", (0, 1, 2, 3, 4)),
        (changed(3, seconds=2.0), "no_title", ()),
    ],
)  # fmt: skip
def test_each_rule_is_said_once_with_its_shots(shots, rule, positions):
    (gap,) = [gap for gap in missing(shots) if gap.rule == rule]
    assert gap.positions == positions
    assert gap.text.endswith(".")
    assert gap.why.endswith(".")
    if rule not in ("same_move", "no_way_in", "no_way_out"):
        assert rules(shots) == [rule]


def test_what_answers_may_turn_round_and_what_is_still_lets_the_eye_turn():
    flips = (*WHOLE[:3], Shot("the mill", move="slide", heading="right"), *WHOLE[3:])
    answer = (*flips[:3], replace(flips[3], joins="answer"), *flips[4:])
    assert "direction_flips" not in rules(answer)
    between = (*flips[:3], Shot("the mill"), *flips[3:])
    assert "direction_flips" not in rules(between)


def test_wanted_twice_and_filmed_once_is_said_after_filming_alone():
    shots = changed(2, takes=2)
    assert rules(shots) == []
    assert rules(shots, [1, 1, 0, 1, 1]) == []  # not filmed is not yet missing
    (gap,) = missing(shots, filmed=[1, 1, 1, 1, 1])
    assert gap.rule == "wanted_again"
    assert "wanted twice and filmed once" in gap.text
    assert rules(shots, [1, 1, 2, 1, 1]) == []
    with pytest.raises(InvalidArgumentError, match="filmed is 1, but there are 5 shots"):
        missing(shots, filmed=[1])


def test_what_a_wider_shot_at_the_same_place_led_to_needs_none_of_its_own():
    assert rules(changed(3, subject="a cat")) == []
    assert rules([Shot("a cat", size="close", place="loft"), *WHOLE[1:]])[:1] == ["no_wide"]


def test_a_short_list_is_not_told_of_variety():
    assert rules(WHOLE[:1]) == ["no_close"]
    assert rules(()) == []


@pytest.mark.parametrize("start", STARTS, ids=lambda start: start.key)
def test_starting_points_can_be_and_lack_little(start):
    shots = shots_of(start.key, "the old mill")
    assert all(check_shot(shot) == shot for shot in shots)
    assert all("{" not in shot.subject for shot in shots)
    assert len(missing(shots)) <= 3
    assert shots_of(start.key, " ") == shots_of(start.key, start.usual)


def test_an_unknown_start_is_refused():
    with pytest.raises(InvalidArgumentError, match="start is 'party'"):
        shots_of("party", "")


@st.composite
def any_shot(draw) -> Shot:
    move = draw(st.sampled_from(list(HEADINGS)))
    ways = HEADINGS[move]
    return Shot(
        draw(st.sampled_from(["the mill", "the miller", "stones", "the sails of the mill"])),
        size=draw(st.sampled_from(SIZES)), height=draw(st.sampled_from(HEIGHTS)), move=move,
        heading=draw(st.sampled_from(ways)) if ways else None, enters=draw(st.booleans()),
        foreground=draw(st.sampled_from(["", "grass"])), seconds=draw(st.sampled_from([2.0, 5.0])),
        playback=draw(st.sampled_from([0.4, 1.0])), takes=draw(st.integers(1, 3)),
    )  # fmt: skip


@given(st.lists(any_shot(), max_size=12))
def test_nothing_is_said_twice_and_every_shot_is_there(shots):
    gaps = missing(shots, filmed=[1] * len(shots))
    assert len({gap.key for gap in gaps}) == len(gaps)
    assert all(0 <= k < len(shots) for gap in gaps for k in gap.positions)


@given(st.lists(any_shot(), min_size=1, max_size=12))
def test_a_mirrored_list_lacks_the_same(shots):
    mirror = {"left": "right", "right": "left"}
    turned = [replace(shot, heading=mirror.get(shot.heading, shot.heading)) for shot in shots]
    assert rules(turned) == rules(shots)
