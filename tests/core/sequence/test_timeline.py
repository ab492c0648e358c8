"""Pieces in whole frames, and their motion as shown."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.timeline import (
    Piece,
    beginning_at,
    check_piece,
    ending_at,
    motion_of,
    placed,
    trims,
)
from ridgewind.core.shake import read_motion
from tests.conftest import make_motion

RATE_HZ, ASPECT = 30.0, 9 / 16
STEADY = make_motion(
    rate_hz=RATE_HZ, seconds=6, pan=lambda t_s: 5.0 * t_s + 0.3 * np.sin(4 * np.pi * t_s)
)

some_piece = st.builds(
    lambda start, length, speed, backwards: Piece(1, None, start, start + length, speed, backwards),
    st.floats(0, 100), st.floats(0.2, 60), st.sampled_from([0.25, 0.4, 1.0, 2.0]), st.booleans(),
)  # fmt: skip


@given(st.lists(some_piece, max_size=60), st.sampled_from([23.976, 24.0, 25.0, 30.0, 59.94]))
def test_pieces_follow_each_other_without_a_gap_and_each_is_right_to_a_frame(pieces, rate_hz):
    found = placed(pieces, rate_hz=rate_hz)
    assert len(found) == len(pieces)
    at = 0
    for piece, place in zip(pieces, found, strict=True):
        assert place.start == at
        assert abs(place.frames - piece.seconds * rate_hz) <= 0.5 + 1e-6 or place.frames == 1
        at += place.frames


def shown(piece: Piece):
    shot = read_motion(STEADY, playback=piece.speed).shots[0]
    return motion_of(piece, shot, first_s=0.0, aspect=ASPECT, screen_deg=30.0)


def test_a_steady_pan_enters_and_leaves_at_its_speed():
    motion = shown(Piece(1, None, 1.5, 4.5))
    assert motion.entry == pytest.approx([5, 0, 0], abs=0.3)
    assert motion.exit == pytest.approx([5, 0, 0], abs=0.3)
    slowed = shown(Piece(1, None, 1.5, 4.5, speed=0.4))
    assert slowed.exit == pytest.approx(0.4 * motion.exit, abs=1e-6)
    assert slowed.gust < motion.gust
    back = shown(Piece(1, None, 1.5, 4.5, backwards=True))
    assert back.entry == pytest.approx(-motion.exit)
    assert back.exit == pytest.approx(-motion.entry)
    assert back.gust == motion.gust


def test_a_piece_outside_of_its_film_has_no_motion():
    assert shown(Piece(1, None, 40.0, 42.0)) is None


@pytest.mark.parametrize("backwards", [False, True])
@pytest.mark.parametrize("at_end", [False, True])
def test_trims_go_inwards_from_the_end_that_is_meant(backwards, at_end):
    piece = Piece(1, None, 1.0, 5.0, backwards=backwards)
    shot = read_motion(STEADY).shots[0]
    points, speeds = trims(piece, shot, first_s=0.0, aspect=ASPECT, at_end=at_end, most_s=1.0)
    assert speeds.shape == (len(points), 3)
    assert (np.diff(points) > 0).all()
    move = ending_at if at_end else beginning_at
    trimmed = [move(piece, float(point)).seconds for point in points]
    assert max(trimmed) == pytest.approx(piece.seconds, abs=1e-6)
    assert min(trimmed) >= 3.0
    assert (np.sign(speeds[:, 0]) == (-1 if backwards else 1)).all()


@pytest.mark.parametrize(
    ("change", "rule"),
    [({"speed": 0.0}, "speed is"), ({"in_s": -0.1}, "in_s is"), ({"out_s": 0.1}, "out_s is"),
     ({"out_s": float("inf")}, "out_s is"), ({"in_s": float("nan")}, "in_s is")],
)  # fmt: skip
def test_what_cannot_be_is_refused(change, rule):
    with pytest.raises(InvalidArgumentError, match=rule):
        check_piece(replace(Piece(1, None, 0.0, 2.0), **change))
