"""A motion log says which of the picture's motions is the camera's."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.motion.log_match import match_log
from ridgewind.core.motion.path import Motion, with_rival
from tests.core.motion.test_rivals import HZ, somebody, track

LOG_HZ, BEGINS_S = 100.0, 1.3
STEPS = np.convolve(np.random.default_rng(5).normal(0, 1.6, 400), np.hanning(9), "same")


def hand(k):
    """Px; never twice the same, as a hand is."""
    return np.interp(k, np.arange(400) - 150, STEPS)


def log_of(path) -> Motion:
    """A log whose pan goes as path does (of frames), begun before the film."""
    t_s = np.arange(0.0, 5.0, 1.0 / LOG_HZ)
    none = np.zeros(len(t_s))
    return Motion(
        t_s, path(HZ * (t_s - BEGINS_S)), none, none, none, none + 1.0,
        np.zeros((len(t_s), 4)), 9 / 16,
    )  # fmt: skip


@pytest.fixture(scope="module")
def coat():
    return track([somebody(k, camera=1, hand=hand) for k in range(60)])


def turned(k):
    return -hand(k) / 480 * 100


def test_a_log_that_agrees_changes_nothing(coat):
    match = match_log(coat, log_of(turned))
    assert match.settled == ()
    assert match.offset.seconds == pytest.approx(-BEGINS_S, abs=0.02)


def test_a_log_puts_a_wrong_choice_and_a_doubt_right(coat):
    wrong = with_rival(coat, 0, 1)
    for doubt in (None, "rivals"):
        asked = replace(wrong, shots=(replace(wrong.shots[0], doubt=doubt),))
        match = match_log(asked, log_of(turned))
        assert [shot for shot, _ in match.settled] == [0]
        assert match.motion.shots[0].doubt is None
        assert np.allclose(match.motion.pan_pct, coat.pan_pct, equal_nan=True)
        assert match.offset.seconds == pytest.approx(-BEGINS_S, abs=0.02)


def test_a_log_of_another_hand_settles_nothing(coat):
    shot = replace(coat.shots[0], doubt="rivals")
    rng = np.random.default_rng(3)
    steps = np.cumsum(rng.normal(0, 0.05, 1000))
    match = match_log(
        replace(coat, shots=(shot,)), log_of(lambda k: np.interp(k, np.arange(1000) - 200, steps))
    )
    assert match.settled == ()
    assert match.motion.shots[0].doubt == "rivals"
