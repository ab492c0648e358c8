"""Where points were seen, and the background named by the shooter."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.path import with_rival
from ridgewind.core.motion.sighting import Region, mean_inside, sighting
from ridgewind.core.motion.tracker import Tracker
from ridgewind.core.shake import read_motion
from ridgewind.store.clips import pack, unpack
from tests.core.motion.test_rivals import HZ, SIZE, hand, somebody

HALF = np.array([0.5, 270 / 480 / 2])
TOP_ROW = frozenset(range(6))


@given(st.floats(-0.5, 0.5), st.floats(-0.28, 0.28), st.booleans())
def test_every_place_lies_in_just_one_cell(x, y, upright):
    point = np.array([[y, x] if upright else [x, y]])
    half = HALF[::-1] if upright else HALF
    cells = [Region(frozenset({k}), upright).holds(point, half)[0] for k in range(24)]
    assert sum(cells) == 1


def test_cells_are_counted_from_the_upper_left_row_after_row():
    corner = np.array([[-0.49, -0.27], [0.49, 0.27]])
    assert Region(frozenset({0}), False).holds(corner, HALF).tolist() == [True, False]
    assert Region(frozenset({23}), False).holds(corner, HALF).tolist() == [False, True]
    assert Region(frozenset({3}), True).holds(np.array([[0.27, -0.49]]), HALF[::-1])[0]
    for cells in (set(), {24}, {-1}):
        with pytest.raises(InvalidArgumentError, match="some of 0 to 23"):
            Region(frozenset(cells), False)


def test_sightings_tell_which_points_were_believed_and_survive_the_store():
    tracker = Tracker(SIZE)
    for k in range(60):
        tracker.feed(k / HZ, somebody(k, camera=1))
    motion = tracker.finish()
    (shot,) = unpack(pack(motion)).shots
    assert len(shot.seen) == len(motion.shots[0].seen) == 10
    for kept, found in zip(shot.seen, motion.shots[0].seen, strict=True):
        assert kept.t_s == found.t_s
        assert np.array_equal(kept.places, found.places)
    top = Region(TOP_ROW, upright=False)
    assert mean_inside(shot.seen, top, HALF) > 10 > mean_inside(shot.rivals[1].seen, top, HALF)
    other = with_rival(motion, 0, 1).shots[0]
    assert other.seen == motion.shots[0].rivals[1].seen
    # Kept to a fifth of a pixel or better.
    place = np.array([[0.1234567, -0.2]])
    assert sighting(0.0, place).points == pytest.approx(place, abs=2e-5)


def test_a_named_background_is_measured_alone_and_leaves_no_doubt():
    """A coat that covers half of the picture, all but its upper row and its sides."""
    region = Region(TOP_ROW, upright=False)
    tracker = Tracker(SIZE, region=region)
    for k in range(60):
        tracker.feed(k / HZ, somebody(k, camera=1))
    motion = tracker.finish()
    true = -hand(np.arange(60)) / 480 * 100
    off = motion.pan_pct - true
    assert np.sqrt(np.mean((off - off.mean()) ** 2)) < 0.03
    assert motion.shots[0].doubt is None
    assert read_motion(motion).gust() > 3
    assert region.holds(motion.shots[0].seen[0].points, HALF).mean() > 0.9  # a hand moves them
