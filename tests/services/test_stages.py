"""Runners in step: one holder, each wish once."""

from __future__ import annotations

from ridgewind.services.stages import HELD_S, MOST_WISHES, Place, Stages

PLACE = Place(3, True, 1.5, 0.0, 1.0, False, True)


class Clock:
    now = 50.0

    def __call__(self) -> float:
        return self.now


def test_one_screen_runs_a_session_and_others_see_where_it_is():
    clock = Clock()
    stages = Stages(clock)
    assert stages.stage(1) is None
    assert stages.tell(1, "computer", "the computer", PLACE) == []
    clock.now += 0.3
    seen = stages.stage(1)
    assert (seen.name, seen.place.at, round(seen.age_s, 3)) == ("the computer", 3, 0.3)
    assert stages.stage(2) is None


def test_another_screen_is_refused_until_it_takes_over():
    stages = Stages(Clock())
    stages.tell(1, "computer", "the computer", PLACE)
    assert stages.tell(1, "phone", "Pocket", PLACE) is None
    stages.wish(1, "pause")
    assert stages.tell(1, "phone", "Pocket", PLACE, take_over=True) == []
    assert stages.tell(1, "computer", "the computer", PLACE) is None
    assert stages.stage(1).name == "Pocket"


def test_each_wish_is_told_once_in_order_and_not_too_many():
    stages = Stages(Clock())
    assert stages.wish(1, "go") is False
    stages.tell(1, "computer", "the computer", PLACE)
    assert stages.wish(1, "pause")
    assert stages.wish(1, "skip")
    assert stages.tell(1, "computer", "the computer", PLACE) == ["pause", "skip"]
    assert stages.tell(1, "computer", "the computer", PLACE) == []
    assert [stages.wish(1, "go") for _ in range(MOST_WISHES + 1)][-1] is False


def test_a_holder_that_says_nothing_has_let_go_and_one_that_leaves_at_once():
    clock = Clock()
    stages = Stages(clock)
    stages.tell(1, "computer", "the computer", PLACE)
    clock.now += HELD_S + 0.1
    assert stages.stage(1) is None
    assert stages.tell(1, "phone", "Pocket", PLACE) == []
    stages.leave(1, "computer")
    assert stages.stage(1).name == "Pocket"
    stages.leave(1, "phone")
    assert stages.stage(1) is None
