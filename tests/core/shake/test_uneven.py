"""Uneven timestamps: what phones write reads as the even film would have."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.motion.path import typical_interval
from ridgewind.core.shake import read_motion
from tests.conftest import make_motion

EVEN_S = np.arange(300) / 30


def hand(t_s):
    """Sway, steps and tremor together, percent."""
    parts = ((0.5, 0.7, 0.1), (0.12, 2.6, 1.0), (0.05, 6.5, 2.0), (0.03, 8.5, 0.4))
    return sum(size * np.sin(2 * np.pi * hz * t_s + phase) for size, hz, phase in parts)


def jittered():
    rng = np.random.default_rng(5)
    t_s = EVEN_S + rng.uniform(-0.004, 0.004, 300)
    return np.delete(t_s, rng.integers(5, 295, 12))


CASES = {
    "every fifth frame dropped": EVEN_S[np.arange(300) % 5 != 4],
    "jitter of 4 ms and lost frames": jittered(),
    "from 30 to 24 in low light": np.concatenate([np.arange(150) / 30, 5 + np.arange(120) / 24]),
}


@pytest.mark.parametrize("name", CASES)
def test_an_uneven_film_reads_as_the_even_one(name):
    whole = make_motion(rate_hz=30, seconds=10, pan=hand, t_s=EVEN_S)
    uneven = make_motion(rate_hz=30, seconds=10, pan=hand, t_s=CASES[name])
    assert read_motion(uneven).gust() == pytest.approx(read_motion(whole).gust(), abs=0.1)


@pytest.mark.parametrize("name", CASES)
def test_its_usual_rate_is_that_of_its_even_stretches(name):
    assert 1 / typical_interval(CASES[name]) == pytest.approx(30, rel=0.01)


def test_rounded_timestamps_do_not_change_the_rate():
    assert 1 / typical_interval(np.round(EVEN_S, 3)) == pytest.approx(30, rel=0.001)
