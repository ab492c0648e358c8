"""Which take meets which shot, and what was filmed otherwise."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ridgewind.core.moves import MeasuredMove
from ridgewind.core.sequence.meeting import (
    FilmedTake,
    WantedShot,
    filmed_otherwise,
    is_reversed,
    meet,
)
from ridgewind.core.sequence.shot import PlannedShot


def move(kind, direction) -> MeasuredMove:
    return MeasuredMove(
        kind=kind, direction=direction, start_s=0.5, end_s=3.5, extent=12.0, extent_deg=9.0,
        evenness=0.9, reversals=0, cross_pct=0.2, dip_pct=0.0, ease_in_s=0.3, ease_out_s=0.3,
        line=((0.0, 0.0), (12.0, 0.0)),
    )  # fmt: skip


PAN = PlannedShot("the mill", move="pan", heading="left")
STILL = PlannedShot("the cap")
PUSH = PlannedShot("the door", move="push_in", heading="in")


def wanted(*shots, got=None) -> list[WantedShot]:
    got = got or [None] * len(shots)
    return [WantedShot(10 + k, k, shot, got[k]) for k, shot in enumerate(shots)]


def take(number, moved=None, *, slate=None, begun=None) -> FilmedTake:
    return FilmedTake(number, slate, begun, 6.0, moved)


def told(takes, shots) -> dict[int, tuple[int, str]]:
    return {one.take_id: (one.shot_id, one.how) for one in meet(takes, shots, outing_id=3)}


def test_a_slate_is_believed_also_for_two_takes_of_a_shot():
    takes = [take(1, slate=(3, 1)), take(2, slate=(3, 1)), take(3, slate=(4, 0))]
    assert told(takes, wanted(PAN, STILL)) == {1: (11, "slate"), 2: (11, "slate")}


def test_the_clock_follows_what_slates_told_of_it():
    takes = [take(1, slate=(3, 0), begun=3600.0 + 94), take(2, begun=3600.0 + 300)]
    shots = wanted(STILL, PUSH, STILL, got=[100.0, None, 312.0])
    assert told(takes, shots) == {1: (10, "slate"), 2: (12, "clock")}
    alone = [take(2, begun=300.0)]
    assert told(alone, shots) == {2: (12, "clock")}
    assert told([take(2, begun=9000.0)], shots) == {}


def test_the_only_pan_left_is_the_shot_that_pans_left():
    takes = [take(1, move("pan", "left")), take(2)]
    assert told(takes, wanted(STILL, PAN, PUSH))[1] == (11, "motion")
    twice = [take(1, move("pan", "left")), take(2, move("pan", "left"))]
    assert told(twice, wanted(STILL, PAN, PUSH)) == {}


def test_as_many_takes_as_shots_meet_in_their_order():
    takes = [take(1, begun=9000.0), take(2, begun=8000.0)]
    assert told(takes, wanted(STILL, PUSH)) == {1: (11, "order"), 2: (10, "order")}


def test_a_move_that_contradicts_makes_it_less_sure_but_for_a_slate():
    right = move("pan", "right")
    (by_order,) = meet([take(1, right)], wanted(PAN), outing_id=3)
    (by_slate,) = meet([take(1, right, slate=(3, 0))], wanted(PAN), outing_id=3)
    assert by_order.certainty < 0.5 < by_slate.certainty
    assert "Reverse it" in by_order.otherwise
    assert by_slate.otherwise == by_order.otherwise


@pytest.mark.parametrize(
    ("shot", "moved", "words"),
    [
        (PAN, move("pan", "left"), None),
        (PAN, move("pan", "right"), "Planned as a pan left; filmed right. Reverse it"),
        (PAN, None, "the camera was held still. Film it again"),
        (PAN, move("tilt", "up"), "it goes up. Film it again"),
        (STILL, None, None),
        (STILL, move("push", "in"), "Planned still; it goes in."),
        (PUSH, move("push", "out"), "Reverse it, or film it again."),
        (PlannedShot("x", move="walk", heading="out"), move("push", "out"), None),
        (PlannedShot("x", move="orbit", heading="left"), move("pan", "right"), None),
    ],
)
def test_what_was_filmed_otherwise_is_told(shot, moved, words):
    found = filmed_otherwise(shot, moved)
    assert found is None if words is None else words in found
    assert is_reversed(shot, moved) == (found is not None and "Reverse it" in found)


def lasting(seconds) -> MeasuredMove:
    return replace(move("pan", "left"), end_s=0.5 + seconds)


def test_two_moves_alike_are_told_apart_by_how_long_they_go():
    short, long = replace(PAN, seconds=3.0), replace(PAN, seconds=8.0)
    takes = [take(1, lasting(7.2)), take(2, lasting(3.4))]
    found = meet(takes, wanted(short, long), outing_id=3)
    assert {one.take_id: one.shot_id for one in found} == {1: 11, 2: 10}
    assert found[0].reason == "its pan left of 7.2 s is nearest to the time planned"
    # About as long, nothing is said by it: the order decides.
    alike = meet([take(1, lasting(3.6)), take(2, lasting(3.4))], wanted(short, long), outing_id=3)
    assert {one.how for one in alike} == {"order"}
