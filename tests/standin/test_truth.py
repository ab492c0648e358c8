"""Whole clips, filmed, encoded, decoded and measured, against their true paths."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.shake import read_motion
from tests.clips import CLIPS

PATH_TOLERANCE_PCT = 0.01
SKY_TOLERANCE_PCT = 0.03
"""Where the sky comes to fill the picture: it stands further away than the hill of the truth."""

GUST_TOLERANCE = 0.1
PARALLAX = "stones, slide"


@pytest.mark.parametrize("name", sorted(set(CLIPS) - {PARALLAX}))
def test_path_and_gust_agree_with_truth(name, films):
    clip = films.get(name)
    truth, measured = clip.truth, clip.measured.motion
    assert measured.t_s == pytest.approx(truth.t_s, abs=1e-4)
    assert measured.trusted.all()
    for column in ("pan_pct", "tilt_pct"):
        error = getattr(measured, column) - getattr(truth, column)
        most = SKY_TOLERANCE_PCT if name == "ridge, tilt" else PATH_TOLERANCE_PCT
        assert np.sqrt(np.mean(error**2)) <= most, column
    assert np.sqrt(np.mean((measured.roll_deg - truth.roll_deg) ** 2)) < 0.03
    found, true = read_motion(measured).gust(), read_motion(truth).gust()
    assert found == pytest.approx(true, abs=GUST_TOLERANCE)


def test_strong_parallax_costs_little(films):
    clip = films.get(PARALLAX)
    truth, measured = clip.truth, clip.measured.motion
    assert np.sqrt(np.mean((measured.pan_pct - truth.pan_pct) ** 2)) < 0.03
    assert read_motion(measured).gust() == pytest.approx(read_motion(truth).gust(), abs=0.1)


def test_the_floor_of_a_locked_off_clip_covers_what_is_read(films):
    reading = read_motion(films.get("ridge, locked off").measured.motion)
    assert reading.gust() <= reading.floor() + 0.5
