"""Whole clips, filmed, encoded, decoded and measured, against their true paths."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.shake import read_motion
from ridgewind.films.measuring import measure_film
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film

PATH_TOLERANCE_PCT = 0.01
GUST_TOLERANCE = 0.1

CLIPS = {
    "ridge, hold": Script("ridge", "hold", Technique(), 26, seconds=2),
    "ridge, pan": Script("ridge", "pan", Technique(), 35, seconds=2, seed=3),
    "ridge, tilt": Script("ridge", "tilt", Technique(), 35, fps=25, seconds=2, seed=8),
    "ridge, locked off": Script("ridge", "hold", Technique(support="table"), 26, seconds=2, seed=9),
    "door, one hand": Script("door", "hold", Technique(contacts=1), 35, fps=60, seconds=2, seed=4),
    "door, walk-in": Script("door", "walk", Technique(cadence_hz=1.8), 26, seconds=3, seed=5),
    "door, slide": Script("door", "slide", Technique(), 26, fps=50, seconds=2, seed=11),
    "stones, hold": Script("stones", "hold", Technique(), 35, fps=24, seconds=3, seed=7),
}


@pytest.mark.parametrize("name", CLIPS)
def test_path_and_gust_agree_with_truth(name, tmp_path):
    truth = film(CLIPS[name], tmp_path / "take.mp4")
    measured = measure_film(tmp_path / "take.mp4").motion
    assert measured.t_s == pytest.approx(truth.t_s, abs=1e-4)
    assert measured.trusted.all()
    for column in ("pan_pct", "tilt_pct"):
        error = getattr(measured, column) - getattr(truth, column)
        assert np.sqrt(np.mean(error**2)) <= PATH_TOLERANCE_PCT, column
    assert np.sqrt(np.mean((measured.roll_deg - truth.roll_deg) ** 2)) < 0.03
    found, true = read_motion(measured).gust(), read_motion(truth).gust()
    assert found == pytest.approx(true, abs=GUST_TOLERANCE)


def test_strong_parallax_costs_little(tmp_path):
    # Half a metre sideways, with two fifths of the picture nearer than the background.
    script = Script("stones", "slide", Technique(), 35, fps=24, seconds=3, seed=7)
    truth = film(script, tmp_path / "take.mp4")
    measured = measure_film(tmp_path / "take.mp4").motion
    assert np.sqrt(np.mean((measured.pan_pct - truth.pan_pct) ** 2)) < 0.03
    assert read_motion(measured).gust() == pytest.approx(read_motion(truth).gust(), abs=0.1)


def test_the_floor_of_a_locked_off_clip_covers_what_is_read(tmp_path):
    film(CLIPS["ridge, locked off"], tmp_path / "take.mp4")
    reading = read_motion(measure_film(tmp_path / "take.mp4").motion)
    assert reading.gust() <= reading.floor() + 0.5
