"""Pieces in whole frames."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.pace import Knot, film_seconds, screen_seconds
from ridgewind.core.sequence.piece import (
    Framing,
    Piece,
    at_share,
    check_piece,
    film_times,
    lasting,
    piece_from,
)
from ridgewind.core.sequence.timeline import placed, times_of

some_piece = st.builds(
    lambda start, length, speed, backwards: Piece(1, None, start, start + length, speed, backwards),
    st.floats(0, 100), st.floats(0.2, 60), st.sampled_from([0.25, 0.4, 1.0, 2.0]), st.booleans(),
)  # fmt: skip

some_ramp = st.lists(
    st.tuples(st.floats(0.05, 3.0), st.floats(0.05, 4.0)), min_size=2, max_size=6
).map(
    lambda steps: tuple(
        Knot(float(at), speed)
        for at, speed in zip(
            np.cumsum([gap for gap, _ in steps]), (s for _, s in steps), strict=True
        )
    )
)


@given(st.lists(some_piece, max_size=60), st.sampled_from([23.976, 24.0, 25.0, 30.0, 59.94]))
def test_pieces_follow_each_other_without_a_gap_and_each_is_right_to_a_frame(pieces, rate_hz):
    found = placed(pieces, rate_hz=rate_hz)
    assert len(found) == len(pieces)
    at = 0
    for piece, place in zip(pieces, found, strict=True):
        assert place.start == at
        assert abs(place.frames - piece.seconds * rate_hz) <= 0.5 + 1e-6 or place.frames == 1
        at += place.frames


@given(some_ramp, st.floats(-5, 25))
def test_a_ramp_is_found_back_at_any_moment(knots, at_s):
    screen = screen_seconds(knots, np.array([at_s]))
    assert film_seconds(knots, screen)[0] == pytest.approx(at_s, abs=1e-6)


@given(some_ramp, st.floats(0, 4), st.floats(0.3, 8), st.booleans())
def test_a_ramp_keeps_its_time_and_shows_no_frame_out_of_order(knots, start, length, backwards):
    piece = Piece(1, None, start, start + length, backwards=backwards, ramp=knots)
    rate_hz = 50.0
    frames = placed([piece], rate_hz=rate_hz)[0].frames
    times = times_of(piece, frames, rate_hz=rate_hz)
    steps = np.diff(times) * (-1 if backwards else 1)
    assert (steps >= -1e-9).all()
    # At no moment faster or slower than the knots say.
    speeds = [knot.speed for knot in knots]
    inside = steps[:-1] * rate_hz
    assert (inside <= max(speeds) + 1e-6).all()
    assert (inside >= min(speeds) - 1e-6).all()
    ends = film_times(piece, np.array([0.0, piece.seconds]))
    assert ends == pytest.approx([start + length, start] if backwards else [start, start + length])


def test_a_ramp_between_two_speeds_takes_as_long_as_their_mean_slowness():
    # Four seconds of film from double speed to half: 4 * (1/2 + 2) / 2 = 5 s.
    piece = Piece(1, None, 0.0, 4.0, ramp=(Knot(0.0, 2.0), Knot(4.0, 0.5)))
    assert piece.seconds == pytest.approx(5.0)
    held = replace(piece, out_s=6.0)  # beyond the last knot its speed stays
    assert held.seconds == pytest.approx(5.0 + 2.0 / 0.5)
    assert at_share(piece, 0.5).seconds == pytest.approx(10.0)


@given(some_piece, st.floats(0.3, 80))
def test_a_piece_lasts_as_long_as_is_asked_where_its_film_allows(piece, seconds):
    length_s = piece.out_s + 20.0
    found = lasting(piece, seconds, length_s=length_s)
    assert 0.0 <= found.in_s < found.out_s <= length_s + 1e-6
    whole_s = replace(piece, in_s=0.0, out_s=length_s).seconds
    assert found.seconds == pytest.approx(min(seconds, whole_s), abs=1e-6)


def test_a_piece_is_found_back_from_its_values():
    piece = Piece(
        3, 4, 1.0, 2.0, backwards=True, ramp=(Knot(1.0, 2.0), Knot(2.0, 1.0)),
        framing=Framing(0.5, -0.25, True),
    )  # fmt: skip
    told = {
        "take_id": 3, "shot_id": 4, "in_s": 1.0, "out_s": 2.0, "speed": 1.0, "backwards": True,
        "ramp": [{"at_s": 1.0, "speed": 2.0}, {"at_s": 2.0, "speed": 1.0}],
        "framing": {"right": 0.5, "down": -0.25, "follows": True},
    }  # fmt: skip
    assert piece_from(told) == piece
    assert piece_from({"take_id": 1, "shot_id": None, "in_s": 0.0, "out_s": 1.0}) == Piece(
        1, None, 0.0, 1.0
    )


@pytest.mark.parametrize(
    ("change", "rule"),
    [({"speed": 0.0}, "speed is"), ({"in_s": -0.1}, "in_s is"), ({"out_s": 0.1}, "out_s is"),
     ({"out_s": float("inf")}, "out_s is"), ({"in_s": float("nan")}, "in_s is"),
     ({"ramp": (Knot(0, 1.0),)}, "two to 8 knots"), ({"framing": Framing(1.2)}, "right is"),
     ({"ramp": (Knot(0, 1.0), Knot(0.01, 2.0))}, "after the one before"),
     ({"ramp": (Knot(0, 1.0), Knot(1.0, 9.0))}, "speed is")],
)  # fmt: skip
def test_what_cannot_be_is_refused(change, rule):
    with pytest.raises(InvalidArgumentError, match=rule):
        check_piece(replace(Piece(1, None, 0.0, 2.0), **change))
