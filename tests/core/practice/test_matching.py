"""Films matched to planned takes: by slate, by a wrong clock, by order."""

from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.practice.matching import Film, Planned, match

SESSION = 7
ROLLED_S = (1000.0, 1060.0, 1120.0, 1235.0, 1295.0, 1420.0)
TAKES = [Planned(k, rolled, 8.0) for k, rolled in enumerate(ROLLED_S)]
AHEAD_S = 47 * 60.0


def film(number, position, *, slate=False, ahead=AHEAD_S, length=12.0, jitter=0.0):
    begun = ROLLED_S[position] - length + ahead + jitter
    return Film(number, (SESSION, position) if slate else None, begun, length)


def positions(found):
    return {one.film_id: one.position for one in found.matches}


def test_slates_settle_and_teach_the_clock():
    films = [film(1, 0, slate=True), film(2, 3, jitter=2.0), film(3, 4, slate=True)]
    found = match(films, TAKES, session_id=SESSION)
    assert positions(found) == {1: 0, 2: 3, 3: 4}
    assert found.offset_s == pytest.approx(AHEAD_S)
    by_id = {one.film_id: one for one in found.matches}
    assert by_id[1].how == "slate"
    assert by_id[2].how == "clock"
    assert by_id[2].certainty < by_id[1].certainty
    assert by_id[2].reason == "its clock, 2 s from the take"


def test_a_clock_that_is_off_is_learnt_without_any_slate():
    films = [film(k + 1, k, jitter=k % 2) for k in (0, 1, 2, 4)]
    found = match(films, TAKES, session_id=SESSION)
    assert found.offset_s == pytest.approx(AHEAD_S, abs=2)
    assert positions(found) == {1: 0, 2: 1, 3: 2, 5: 4}


def test_evenly_spaced_takes_look_alike_and_teach_nothing():
    even = [Planned(k, 1000.0 + 60.0 * k, 8.0) for k in range(6)]
    films = [Film(k, None, 1000.0 + 60.0 * k + AHEAD_S, 12.0) for k in (0, 1, 2)]
    assert match(films, even, session_id=SESSION).offset_s is None


def test_a_missing_take_and_an_extra_film_stay_loose():
    films = [film(1, 0, slate=True), film(2, 2), Film(9, None, 50.0, 300.0)]
    found = match(films, TAKES, session_id=SESSION)
    assert positions(found) == {1: 0, 2: 2}
    assert found.loose == (9,)


def test_a_slate_of_another_session_is_not_ours():
    other = Film(1, (SESSION + 1, 0), 1000.0, 12.0)
    assert match([other], TAKES, session_id=SESSION).matches == ()


def test_without_clocks_order_and_length_decide_and_say_so():
    films = [Film(k + 1, None, None, 11.0) for k in range(6)]
    found = match(films, TAKES, session_id=SESSION)
    assert positions(found) == {k + 1: k for k in range(6)}
    assert {one.how for one in found.matches} == {"order"}
    assert max(one.certainty for one in found.matches) <= 0.5
    too_many = [*films, Film(9, None, None, 11.0)]
    assert match(too_many, TAKES, session_id=SESSION).matches == ()
    too_short = [Film(k + 1, None, None, 1.0) for k in range(6)]
    assert match(too_short, TAKES, session_id=SESSION).matches == ()


def test_the_same_slate_twice_leaves_the_second_film_loose():
    films = [film(1, 2, slate=True), film(2, 2, slate=True)]
    found = match(films, TAKES, session_id=SESSION)
    assert positions(found) == {1: 2}
    assert found.loose == (2,)


@given(st.integers(0, 10_000), st.floats(-90_000, 90_000), st.data())
def test_nothing_is_matched_twice_and_slates_are_never_overruled(seed, ahead, data):
    rng = random.Random(seed)
    filmed = data.draw(st.lists(st.sampled_from(range(6)), unique=True))
    films = [
        film(k + 1, position, slate=rng.random() < 0.5, ahead=ahead, jitter=rng.uniform(-2, 2))
        for k, position in enumerate(filmed)
    ]
    found = match(films, TAKES, session_id=SESSION)
    places = [one.position for one in found.matches]
    assert len(set(places)) == len(places)
    assert {one.film_id for one in found.matches} | set(found.loose) == {one.id for one in films}
    for one in films:
        if one.slate is not None:
            assert positions(found)[one.id] == one.slate[1]


@given(st.integers(0, 10_000), st.floats(-90_000, 90_000))
def test_one_slate_is_enough_for_a_whole_card(seed, ahead):
    rng = random.Random(seed)
    films = [film(k + 1, k, slate=k == 3, ahead=ahead, jitter=rng.uniform(-3, 3)) for k in range(6)]
    assert positions(match(films, TAKES, session_id=SESSION)) == {k + 1: k for k in range(6)}
