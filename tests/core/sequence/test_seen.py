"""How a piece moves as it is seen."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.motion.path import Shot
from ridgewind.core.motion.subject import Mark, Subject, SubjectPath
from ridgewind.core.sequence.pace import Knot
from ridgewind.core.sequence.piece import Framing, Piece, beginning_at, ending_at
from ridgewind.core.sequence.seen import Look, Seen, footage_of, motion_of, sweep_at, trims
from ridgewind.core.sequence.shapes import SHAPES, cutout, delivered_px, middles
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.gust import weight
from tests.conftest import make_motion, sine

RATE_HZ = 30.0
WIDE = Look(RATE_HZ, 16 / 9, 30.0)
TALL = replace(WIDE, shape=9 / 16)
STEADY = make_motion(
    rate_hz=RATE_HZ, seconds=6, pan=lambda t_s: 5.0 * t_s + 0.3 * np.sin(4 * np.pi * t_s)
)
SHAKE = make_motion(rate_hz=RATE_HZ, seconds=8, pan=sine(0.3, 2), roll=sine(0.4, 3))


def shown(piece: Piece, motion=STEADY, look=WIDE, subject=None):
    return motion_of(Seen(piece, footage_of(motion, upright=False, subject=subject), look))


def test_a_steady_pan_enters_and_leaves_at_its_speed():
    motion = shown(Piece(1, None, 1.5, 4.5))
    assert motion.entry == pytest.approx([5, 0, 0], abs=0.3)
    assert motion.exit == pytest.approx([5, 0, 0], abs=0.3)
    slowed = shown(Piece(1, None, 1.5, 4.5, speed=0.4))
    assert slowed.exit == pytest.approx([2, 0, 0], abs=0.15)
    assert slowed.gust < motion.gust
    back = shown(Piece(1, None, 1.5, 4.5, backwards=True))
    assert back.entry == pytest.approx(-motion.exit)
    assert back.exit == pytest.approx(-motion.entry)
    assert back.gust == pytest.approx(motion.gust, abs=0.01)


def test_a_ramp_enters_at_its_first_speed_and_leaves_at_its_last():
    piece = Piece(1, None, 1.0, 5.0, ramp=(Knot(2.0, 2.0), Knot(4.0, 0.5)))
    motion = shown(piece)
    assert motion.entry[0] == pytest.approx(10, abs=0.6)
    assert motion.exit[0] == pytest.approx(2.5, abs=0.3)


def test_as_filmed_it_reads_as_the_whole_take_does():
    whole = read_motion(SHAKE).gust()
    assert shown(Piece(1, None, 0.0, 8.0), SHAKE).gust == pytest.approx(whole, abs=0.03)


@pytest.mark.parametrize("speed", [0.5, 0.8])
def test_slowed_it_reads_as_the_take_does_at_that_rate(speed):
    fast = make_motion(rate_hz=RATE_HZ / speed, seconds=8, pan=sine(0.3, 2))
    whole = read_motion(fast, playback=speed).gust()
    assert shown(Piece(1, None, 0, 8, speed=speed), fast).gust == pytest.approx(whole, abs=0.05)


def test_what_shakes_is_larger_in_a_narrower_window():
    """1.25 log2 of how much longer the picture's long side is than the window's."""
    pan = make_motion(rate_hz=RATE_HZ, seconds=8, pan=sine(0.3, 2))
    piece = Piece(1, None, 1, 7)
    more = shown(piece, pan, TALL).gust - shown(piece, pan).gust
    assert more == pytest.approx(1.25 * np.log2(16 / 9), abs=0.01)
    entering = shown(Piece(1, None, 1.5, 4.5), look=TALL).entry
    assert entering[0] == pytest.approx(5 * 16 / 9, abs=0.6)


def test_a_roll_looks_the_same_in_any_window_about_the_middle():
    roll = make_motion(rate_hz=RATE_HZ, seconds=8, roll=sine(0.4, 3))
    piece, square = Piece(1, None, 1, 7), replace(WIDE, shape=1.0)
    # Of a square points lie further from the middle, in its own long sides.
    rho = [np.sqrt((1 + a * a) / 12) for a in (1.0, 9 / 16)]
    more = shown(piece, roll, square).gust - shown(piece, roll).gust
    assert more == pytest.approx(1.25 * np.log2(rho[0] / rho[1]), abs=0.01)


def test_beside_the_middle_a_roll_moves_the_window_too():
    roll = make_motion(rate_hz=RATE_HZ, seconds=8, roll=sine(0.4, 3))
    piece = Piece(1, None, 1, 7)
    aside = replace(piece, framing=Framing(right=1.0))
    assert shown(aside, roll, TALL).gust > shown(piece, roll, TALL).gust + 0.3
    # To the left as much as to the right.
    other = replace(piece, framing=Framing(right=-1.0))
    assert shown(other, roll, TALL).gust == pytest.approx(shown(aside, roll, TALL).gust, abs=0.02)


def marked(x, seconds=8.0):
    t_s = np.arange(round(seconds * RATE_HZ)) / RATE_HZ
    return Subject((Mark(0, 0.5, 0.5),), (SubjectPath(t_s, x(t_s), np.zeros(len(t_s))),))


def test_a_window_goes_with_the_subject_on_a_smooth_path_and_stays_inside():
    still = make_motion(rate_hz=RATE_HZ, seconds=8)
    subject = marked(lambda t_s: 10 * t_s - 40 + np.sin(2 * np.pi * 3 * t_s))
    piece = Piece(1, None, 0.0, 8.0, framing=Framing(follows=True))
    seen = Seen(piece, footage_of(still, upright=False, subject=subject), TALL)
    assert seen.follows
    room = seen.window.room_pct[0]
    assert np.abs(seen.middles[:, 0]).max() <= room + 1e-9
    # It is kept inside at both ends, and follows in between.
    assert seen.middles[120, 0] == pytest.approx(0.0, abs=1.0)
    assert seen.middles[0, 0] == pytest.approx(-room, abs=1.5)
    assert motion_of(seen).gust < 2.0  # the tremble of the subject is not carried along
    # It goes at the subject's 10 % a second, and sets out gently at a cut; the picture slides left.
    assert np.diff(seen.middles[100:140, 0]).mean() * RATE_HZ == pytest.approx(10, abs=0.5)
    middle = replace(piece, in_s=3.0, out_s=5.0)
    entry = motion_of(Seen(middle, footage_of(still, upright=False, subject=subject), TALL)).entry
    assert 5 < entry[0] < 10 * 16 / 9


def test_without_a_subject_a_window_that_follows_stands():
    piece = Piece(1, None, 1.0, 3.0, framing=Framing(right=0.5, follows=True))
    seen = Seen(piece, footage_of(STEADY, upright=False), TALL)
    assert not seen.follows
    assert np.ptp(seen.middles, axis=0) == pytest.approx([0, 0])


def test_frames_left_out_unevenly_make_a_move_stutter():
    pan = make_motion(rate_hz=30.0, seconds=6, pan=lambda t_s: 30.0 * t_s)
    even = shown(Piece(1, None, 0, 5), pan, replace(WIDE, rate_hz=30.0)).gust
    uneven = shown(Piece(1, None, 0, 5), pan, replace(WIDE, rate_hz=24.0)).gust
    assert even < 0.5
    assert uneven > even + 2


def test_a_picture_that_is_shown_again_stutters():
    pan = make_motion(rate_hz=30.0, seconds=6, pan=lambda t_s: 10.0 * t_s)
    once, twice = (shown(Piece(1, None, 0, 5, speed=speed), pan).gust for speed in (1.0, 0.5))
    assert once < 0.5
    # 5 % a second, and at 15 Hz as much on top: 1.25 log2(5 * W(15) / 0.1).
    assert twice == pytest.approx(1.25 * np.log2(5 * weight(np.array([15.0]))[0] / 0.1), abs=0.25)


def test_a_piece_over_a_cut_reads_both_shots():
    one = make_motion(rate_hz=RATE_HZ, seconds=4, pan=sine(0.3, 2))
    half = len(one.t_s) // 2
    calm = np.concatenate([one.pan_pct[:half], np.zeros(half)])
    cut = replace(one, pan_pct=calm, shots=(Shot(0, half, None), Shot(half, 2 * half, None)))
    whole = shown(Piece(1, None, 0, 4), cut).gust
    assert whole == pytest.approx(shown(Piece(1, None, 0, 1.9), cut).gust - 0.625, abs=0.3)


def test_a_piece_outside_of_its_film_has_no_motion():
    assert shown(Piece(1, None, 40.0, 42.0)) is None


@pytest.mark.parametrize("backwards", [False, True])
@pytest.mark.parametrize("at_end", [False, True])
def test_trims_go_inwards_from_the_end_that_is_meant(backwards, at_end):
    piece = Piece(1, None, 1.0, 5.0, backwards=backwards)
    footage = footage_of(STEADY, upright=False)
    points, speeds = trims(piece, footage, WIDE, at_end=at_end, most_s=1.0)
    assert speeds.shape == (len(points), 3)
    assert (np.diff(points) > 0).all()
    move = ending_at if at_end else beginning_at
    trimmed = [move(piece, float(point)).seconds for point in points]
    assert max(trimmed) == pytest.approx(piece.seconds, abs=1e-6)
    assert min(trimmed) >= 3.0
    assert (np.sign(speeds[:, 0]) == (-1 if backwards else 1)).all()


def test_a_sweep_beyond_an_end_is_found_where_it_is_quickest():
    # Still for four seconds, then 60 % in a second.
    def pan(t_s):
        share = np.clip(t_s - 4.0, 0.0, 1.0)
        return 60.0 * share**2 * (3.0 - 2.0 * share)

    footage = footage_of(make_motion(rate_hz=RATE_HZ, seconds=6, pan=pan), upright=False)
    piece = Piece(1, None, 1.0, 3.5)
    at_s = sweep_at(piece, footage, WIDE, at_end=True)
    # The half second before it is the quickest that there is.
    assert at_s == pytest.approx(4.75, abs=0.15)
    assert sweep_at(piece, footage, WIDE, at_end=False) is None


@given(st.sampled_from(sorted(SHAPES)), st.floats(0.4, 2.6))
def test_a_window_is_the_largest_of_its_shape(key, picture):
    window = cutout(SHAPES[key], picture)
    assert max(window.width, window.height) == pytest.approx(1.0)
    assert window.width * picture / window.height == pytest.approx(SHAPES[key])
    assert 0 < window.long_share <= 1 + 1e-9


@given(st.floats(-1, 1), st.floats(-1, 1), st.sampled_from(sorted(SHAPES)))
def test_a_window_that_stands_is_inside(right, down, key):
    window = cutout(SHAPES[key], 16 / 9)
    found = middles(Framing(right, down), window, None, 3, rate_hz=25.0)
    sides = np.array([1.0, 9 / 16]) * 100.0
    half = sides * np.array([window.width, window.height]) / 2
    assert (np.abs(found) + half <= sides / 2 + 1e-6).all()


@pytest.mark.parametrize(
    ("key", "size"),
    [("16:9", (1920, 1080)), ("9:16", (1080, 1920)), ("1:1", (1080, 1080)), ("4:5", (1080, 1350)),
     ("2.39:1", (1920, 804))],
)  # fmt: skip
def test_a_shape_is_delivered_in_its_size(key, size):
    assert delivered_px(SHAPES[key], (1920, 1080)) == size
