"""A part of a path reads as that part alone would."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion import Shot
from ridgewind.core.motion.path import clipped
from ridgewind.core.motion.readout import Readout
from ridgewind.core.shake import read_motion
from tests.conftest import make_motion, sine


def test_a_part_keeps_its_times_and_reads_as_itself():
    whole = make_motion(
        rate_hz=30, seconds=12, pan=lambda t: np.where(t < 6, 2.0, 0.2) * np.sin(12 * t)
    )
    part = clipped(whole, from_s=6.5, to_s=11.5)
    assert part.t_s[0] == pytest.approx(6.5)
    assert part.t_s[-1] == pytest.approx(11.5)
    alone = make_motion(rate_hz=30, seconds=5, pan=sine(0.2, 12 / (2 * np.pi)))
    assert read_motion(part).gust() == pytest.approx(read_motion(alone).gust(), abs=0.05)
    assert read_motion(whole).gust() > read_motion(part).gust() + 2


@settings(max_examples=40, deadline=None)
@given(st.floats(0, 9), st.floats(0.1, 9))
def test_shots_are_cut_with_the_path(from_s, length_s):
    motion = make_motion(rate_hz=30, seconds=10, pan=sine(0.5, 2))
    shots = (Shot(0, 100, None), Shot(100, 210, "dark"), Shot(210, 300, None))
    whole = type(motion)(**{**motion.__dict__, "shots": shots})
    part = clipped(whole, from_s=from_s, to_s=from_s + length_s)
    assert sum(shot.stop - shot.start for shot in part.shots) == len(part.t_s)
    assert all(0 <= shot.start < shot.stop <= len(part.t_s) for shot in part.shots)
    if len(part.t_s):
        assert from_s - 1e-3 <= part.t_s[0]
        assert part.t_s[-1] <= from_s + length_s + 1e-3


def test_a_part_that_ends_before_it_begins_is_refused():
    with pytest.raises(InvalidArgumentError, match="it must be after 4 s"):
        clipped(make_motion(rate_hz=30, seconds=6), from_s=4, to_s=3)


def test_a_part_keeps_what_is_known_of_the_sensor():
    whole = replace(make_motion(rate_hz=30, seconds=10), readout=Readout(0.012, 0.001))
    assert clipped(whole, from_s=2, to_s=6).readout == Readout(0.012, 0.001)
