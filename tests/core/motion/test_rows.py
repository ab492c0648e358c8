"""Frames that are shown twice are put where the path went meanwhile."""

from __future__ import annotations

import time

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.motion.rows import _put_between


@given(st.sets(st.integers(2, 57)), st.lists(st.floats(-3, 3), min_size=4, max_size=4))
def test_any_cubic_is_restored_and_nothing_else_is_touched(repeated, factors):
    t_s = np.arange(60) / 30 + 0.002 * np.sin(np.arange(60))
    true = np.column_stack([np.polyval(factors, t_s)] * 4)
    path = true.copy()
    for k in repeated:
        path[k] = 99.0
    _put_between(path, t_s, [(k, k + 1) for k in sorted(repeated)], [])
    assert np.allclose(path, true, atol=1e-6)


def test_what_has_nothing_on_one_side_stays_and_a_cut_is_an_end():
    t_s = np.arange(12) / 30
    path = np.column_stack([t_s] * 4)
    path[[0, 5, 6, 11]] = 7.0
    before = path.copy()
    _put_between(path, t_s, [(0, 1), (5, 6), (6, 7), (11, 12)], [6])
    assert np.array_equal(path, before)


def test_an_hour_of_film_with_every_fifth_picture_shown_twice_takes_no_time():
    t_s = np.arange(108_000) / 30
    true = np.column_stack([np.sin(t_s)] * 4)
    path, repeated = true.copy(), range(4, 107_990, 5)
    path[list(repeated)] = 99.0
    begun = time.process_time()
    _put_between(path, t_s, [(k, k + 1) for k in repeated], [])
    assert time.process_time() - begun < 3.0  # each run looked for in the whole film took minutes
    assert np.allclose(path, true, atol=1e-4)
