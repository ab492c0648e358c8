"""The shooter's own hand: worked values, the measured gust of its own takes, and films made through
lenses and at rates that it has not seen."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.gust import USUAL_SCREEN_DEG
from ridgewind.core.trials.own_hand import (
    BINS,
    MIDDLES_HZ,
    Hand,
    left_out_error,
    predict,
    through_lenses,
    turning_of,
)
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, plan
from tests.conftest import make_motion

HZ = np.concatenate([[8.0], 0.3 + 0.7 * (np.arange(2000) + 0.5) / 2000])


def worked() -> Hand:
    """0.02° rms in a line at 8 Hz and 0.2° rms evenly from 0.3 to 1.0 Hz, pan only."""
    power_deg2 = np.concatenate([[0.02**2], np.full(2000, 0.2**2 / 2000)])
    mean_square = np.zeros((1, len(HZ), 4))
    mean_square[0, :, 0] = (2 * np.pi * HZ) ** 2 * power_deg2
    return Hand(HZ, mean_square, np.array([26.0]))


@pytest.mark.parametrize(
    ("focal", "rate", "gust"),
    [(26, 1.0, 4.44), (50, 1.0, 5.61), (85, 1.0, 6.57), (85, 0.4, 4.96)],
)
def test_the_worked_predictions(focal, rate, gust):
    found = predict(worked(), focal_eq_mm=focal, rate=rate)
    assert found.gust == pytest.approx(gust, abs=0.006)
    assert found.low < found.gust < found.high
    assert left_out_error(worked()) is None


def filmed(technique: Technique, focal: float, *, fps=60.0, seconds=12.0, seed=1):
    """The reading of a hand's true path through a lens."""
    take = plan(
        Script(
            "door", "hold", technique, focal, size=(320, 180), fps=fps, seconds=seconds, seed=seed
        )
    )

    def turned(column):
        """Percent of the long side for pan and tilt, degrees for roll."""
        scale = 100.0 * np.radians(1.0) * focal / 36.0 if column < 2 else 1.0
        return lambda t_s: scale * take.poses(t_s)[:, column]

    motion = make_motion(
        rate_hz=fps, seconds=seconds, pan=turned(0), tilt=turned(1), roll=turned(2)
    )
    return read_motion(motion)


def hand_of(readings, focal) -> Hand:
    found = [
        turning_of(
            one.shots[0].speeds,
            rate_hz=one.shots[0].rate_hz,
            focal_eq_mm=focal,
            counted=one.shots[0].counted,
        )
        for one in readings
    ]
    return Hand(MIDDLES_HZ, np.array(found), np.full(len(found), float(focal)))


TWO = Technique(contacts=2)


def test_a_take_is_predicted_as_it_was_measured():
    for seed in range(4):
        reading = filmed(TWO, 26, seed=seed)
        found = predict(hand_of([reading], 26), focal_eq_mm=26)
        assert found.gust == pytest.approx(reading.gust(), abs=0.15)


def test_an_unseen_lens_is_predicted_against_takes_made_there():
    hand = hand_of([filmed(TWO, 26, seed=seed) for seed in range(8)], 26)
    for focal in (13, 50, 85):
        told = predict(hand, focal_eq_mm=focal)
        made = [filmed(TWO, focal, seed=100 + seed).gust() for seed in range(8)]
        assert np.median(np.abs(np.array(made) - told.gust)) < 0.4
        assert np.mean([told.low <= one <= told.high for one in made]) >= 0.6
    assert left_out_error(hand) < 0.4


def test_slowing_and_a_phone_read_less():
    hand = hand_of([filmed(TWO, 26, seed=seed) for seed in range(3)], 26)
    full = predict(hand, focal_eq_mm=26)
    assert predict(hand, focal_eq_mm=26, rate=0.4).gust < full.gust - 0.5
    phone = predict(hand, focal_eq_mm=26, screen_deg=12.0)
    assert phone.gust == pytest.approx(full.gust + 1.25 * np.log2(12 / USUAL_SCREEN_DEG), abs=1e-6)


@given(st.floats(10, 300), st.floats(1.05, 3.0))
def test_a_longer_lens_never_reads_less(focal, longer):
    hand = worked()
    assert predict(hand, focal_eq_mm=focal * longer).gust >= predict(hand, focal_eq_mm=focal).gust


def test_what_does_not_fit_is_refused():
    with pytest.raises(InvalidArgumentError, match="of one take at least"):
        Hand(MIDDLES_HZ, np.zeros((0, BINS, 4)), np.zeros(0))
    few = np.ones(3, bool)
    assert turning_of(np.zeros((3, 4)), rate_hz=30.0, focal_eq_mm=26.0, counted=few) is None


def test_what_cannot_be_trusted_makes_no_hand_steadier():
    shot = filmed(TWO, 26, seconds=24.0).shots[0]
    patchy = (np.arange(len(shot.speeds)) // 60) % 3 > 0  # a third of the seconds are lost
    told = [
        turning_of(shot.speeds, rate_hz=shot.rate_hz, focal_eq_mm=26.0, counted=counted)
        for counted in (shot.counted, patchy)
    ]
    whole, part = (
        predict(Hand(MIDDLES_HZ, one[None], np.array([26.0])), focal_eq_mm=26).gust for one in told
    )
    assert part == pytest.approx(whole, abs=0.2)


def test_a_lens_enlarges_turns_and_leaves_rolls():
    """All the reach of a hand that only turns is in proportion; one that only rolls has none."""
    turns, rolls = np.zeros((4, BINS, 4)), np.zeros((4, BINS, 4))
    at = int(np.argmin(np.abs(MIDDLES_HZ - 4.0)))
    turns[:, at, 0] = [0.2, 0.25, 0.3, 0.35]
    rolls[:, at, 2] = 1.0
    lenses = np.geomspace(10, 200, 30).tolist()
    found = through_lenses(
        Hand(MIDDLES_HZ, turns, np.full(4, 26.0)), lenses, target=4.0, screen_deg=30.0
    )
    assert found.gust[-1] - found.gust[0] == pytest.approx(1.25 * np.log2(20.0), abs=0.01)
    assert found.safe_mm < found.longest_mm
    at_longest = through_lenses(
        Hand(MIDDLES_HZ, turns, np.full(4, 26.0)), [found.longest_mm], target=4.0, screen_deg=30.0
    )
    assert at_longest.gust[0] == pytest.approx(4.0, abs=0.01)
    rolled = through_lenses(
        Hand(MIDDLES_HZ, rolls, np.full(4, 26.0)), lenses, target=10.0, screen_deg=30.0
    )
    assert np.ptp(rolled.gust) == pytest.approx(0.0, abs=1e-9)
    assert rolled.longest_mm is None
