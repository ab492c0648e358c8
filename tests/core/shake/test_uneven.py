"""Uneven timestamps: what phones write reads as the even film would have."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.motion.path import typical_interval
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.resample import resample
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


def trembling(seed: int, strength: float):
    """A hand of many frequencies, the tremor up to 11 Hz as strong as asked."""
    rng = np.random.default_rng(seed)
    hz = np.concatenate([rng.uniform(0.2, 1.2, 6), rng.uniform(1.2, 4, 4), rng.uniform(6, 11, 8)])
    size = np.concatenate(
        [
            rng.uniform(0.2, 0.6, 6),
            rng.uniform(0.05, 0.15, 4),
            strength * rng.uniform(0.02, 0.05, 8),
        ]
    )
    phase = rng.uniform(0, 2 * np.pi, len(hz))
    return lambda t_s: np.sin(2 * np.pi * np.outer(t_s, hz) + phase) @ size


@pytest.mark.parametrize("name", CASES)
@given(seed=st.integers(0, 10_000), strength=st.floats(0, 4))
@settings(max_examples=25)
def test_a_strong_tremor_is_not_smoothed_away(name, seed, strength):
    pan, tilt = trembling(seed, strength), trembling(seed + 1, strength)
    rng = np.random.default_rng(seed)

    def measured(t_s):
        error = rng.normal(0, 0.003, (2, len(t_s)))
        return make_motion(
            rate_hz=30, seconds=10, t_s=t_s,
            pan=lambda t: pan(t) + error[0], tilt=lambda t: tilt(t) + error[1],
        )  # fmt: skip

    whole = make_motion(rate_hz=30, seconds=10, pan=pan, tilt=tilt, t_s=EVEN_S)
    found = read_motion(measured(CASES[name])).gust()
    # Of 1,500 tried of each kind one was off by over 0.1, by 0.12, where every fifth is lost.
    assert found == pytest.approx(read_motion(whole).gust(), abs=0.15)


@given(seed=st.integers(0, 1000), level=st.floats(-50, 50))
def test_a_level_is_kept_and_samples_stand_where_they_are(seed, level):
    rng = np.random.default_rng(seed)
    t_s = np.sort(rng.choice(120, 100, replace=False)) / 30
    known = np.ones(100, np.bool_)
    _, flat = resample(t_s, known, np.full((100, 1), level), curves=1)
    assert flat == pytest.approx(level, abs=1e-6 * max(1.0, abs(level)))
    values = rng.normal(size=(100, 1))
    even_s, found = resample(t_s, known, values, curves=1)
    index = np.round((t_s - even_s[0]) * 30).astype(int)
    assert found[index] == pytest.approx(values)


@pytest.mark.parametrize("name", CASES)
def test_its_usual_rate_is_that_of_its_even_stretches(name):
    assert 1 / typical_interval(CASES[name]) == pytest.approx(30, rel=0.01)


def test_rounded_timestamps_do_not_change_the_rate():
    assert 1 / typical_interval(np.round(EVEN_S, 3)) == pytest.approx(30, rel=0.001)
