"""Hazards of real films in a small size; `make truth` films all of them and keeps the table."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ridgewind.films.measuring import measure_film
from ridgewind.standin.camera import film
from ridgewind.standin.hazards import ALL
from ridgewind.standin.truth import compare

BY_NAME = {hazard.name: hazard for hazard in ALL}
LOW_TRUST = 0.65


def filmed(name, folder, **change):
    hazard = BY_NAME[name]
    script = replace(hazard.script, **change)
    truth = film(script, folder / "take.mp4", spoil=hazard.spoil)
    measured = measure_film(folder / "take.mp4")
    return hazard, compare(truth, measured.motion), measured


@pytest.mark.parametrize("name", ["leaves in the wind", "frozen for half a second"])
def test_a_spoilt_clip_reads_within_its_tolerance(name, tmp_path):
    hazard, found, _ = filmed(name, tmp_path, seconds=2.0)
    assert found.off == pytest.approx(0, abs=hazard.gust)
    assert found.trusted > 0.7


def test_something_over_half_the_picture_crosses_and_the_background_is_kept(tmp_path):
    _, found, measured = filmed("lorry crosses, steady", tmp_path, fps=24.0)
    assert found.off == pytest.approx(0, abs=0.3)
    assert found.path_pct < 0.15
    assert found.trusted > 0.7
    assert measured.motion.outlier_share > 0.05


def test_a_starved_file_shakes_less_than_its_camera_and_trust_says_so(tmp_path):
    _, found, measured = filmed("heavy compression, steady", tmp_path, seconds=2.0, crf=42)
    assert found.off < -0.3
    assert found.trust < LOW_TRUST
    assert measured.bits_per_pixel < 0.01


def test_frames_that_are_trusted_are_right_and_others_are_left_out(tmp_path):
    _, found, measured = filmed("lorry crosses", tmp_path, fps=24.0)
    trust, error = measured.motion.trust[1:], found.frame_pct[1:]
    sure = trust > 0.9
    assert sure.sum() > 20
    assert np.nanmedian(error[sure]) < 0.01
    assert np.nanpercentile(error[sure], 95) < 0.05
    assert not measured.motion.trusted[1:][trust < 0.3].any()
