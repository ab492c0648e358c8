"""The order in which to film."""

from __future__ import annotations

import itertools

from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.sequence.order import HOURS, filming_order
from ridgewind.core.sequence.shot import HEIGHTS, LIGHTS, SIZES
from ridgewind.core.sequence.shot import PlannedShot as Shot


def test_light_first_then_place_then_set_up():
    shots = [
        Shot("a", place="yard"), Shot("b", place="hill", light="evening"), Shot("c", place="loft"),
        Shot("d", place="yard", light="morning"), Shot("e", place="loft", size="close"),
        Shot("f", place="hill"), Shot("g", place="loft"),
    ]  # fmt: skip
    order = filming_order(shots)
    # The yard in the morning, with what any light allows there; the hill in the evening.
    assert "".join(shots[k].subject for k in order.positions) == "adcgebf"
    assert order.walks == 2
    assert order.set_ups == 4


def test_shots_without_a_place_are_where_the_outing_is():
    shots = [
        Shot("a"),
        Shot("b", place="Loft"),
        Shot("c", place="mill"),
        Shot("d", place="loft "),
    ]
    assert filming_order(shots, here="Mill").positions == (0, 2, 1, 3)


some_shot = st.builds(
    Shot,
    st.just("thing"),
    size=st.sampled_from(SIZES),
    height=st.sampled_from(HEIGHTS),
    place=st.sampled_from(["", "yard", "loft"]),
    light=st.sampled_from(LIGHTS),
)


@given(st.lists(some_shot, max_size=20))
def test_every_shot_is_filmed_once_in_the_order_of_its_light(shots):
    order = filming_order(shots)
    assert sorted(order.positions) == list(range(len(shots)))
    bound = [shots[k].light for k in order.positions if shots[k].light not in ("any", "inside")]
    assert [HOURS[light] for light in bound] == sorted(HOURS[light] for light in bound)


@given(st.lists(some_shot, max_size=20))
def test_it_walks_no_more_than_as_listed(shots):
    def walks(order):
        places = [shots[k].place for k in order]
        return sum(a != b for a, b in itertools.pairwise(places))

    alike = [Shot("thing", size=s.size, place=s.place) for s in shots]
    found = filming_order(alike)
    assert found.walks <= max(walks(range(len(shots))), 0)
    assert found.walks == max(0, len({s.place for s in alike}) - 1)
