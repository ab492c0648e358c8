"""Interlaced films: recognised by their flag or by their look, and measured by one field."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.motion.compression import ENOUGH_BITS_PER_PIXEL, compression_trust
from ridgewind.films.measuring import measure_film
from ridgewind.media.decode import is_combed, one_field
from tests.conftest import texture, view, write_film

SIZE, RATE, SWAY_PX = (640, 480), 25.0, 25.0
PICTURE = texture(1280, 960)


def moment(t_s: float) -> np.ndarray:
    return view(PICTURE, SIZE, x=SWAY_PX * np.sin(2 * np.pi * t_s))


def woven(index: int) -> np.ndarray:
    """Upper field now, lower field half a frame later."""
    frame = moment(index / RATE).copy()
    frame[1::2] = moment((index + 0.5) / RATE)[1::2]
    return frame


@pytest.mark.parametrize("codec", ["libx264", "mpeg2video"])
def test_lines_of_two_moments_are_recognised_and_one_is_measured(codec, tmp_path):
    name = "woven.mp4" if codec == "libx264" else "woven.mpg"
    options = {"crf": "14"} if codec == "libx264" else {"b": "8000000"}
    path = write_film(tmp_path / name, [woven(k) for k in range(50)], rate=25, codec=codec,
                      options=options)  # fmt: skip
    measured = measure_film(path)
    assert measured.interlaced
    assert (measured.width, measured.height) == SIZE
    pan = -SWAY_PX * np.sin(2 * np.pi * np.arange(50) / RATE) / 640 * 100
    assert measured.motion.pan_pct == pytest.approx(pan, abs=0.1)


def test_whole_pictures_are_not_taken_for_woven_ones(tmp_path):
    path = write_film(tmp_path / "whole.mp4", [moment(k / RATE) for k in range(30)], rate=25)
    assert not measure_film(path).interlaced
    rng = np.random.default_rng(4)
    assert not is_combed(rng.integers(0, 255, (480, 640)).astype(np.uint8))
    assert not is_combed(np.full((480, 640), 90, np.uint8))
    assert not is_combed(woven(3)[:100])  # too small to tell


def test_a_field_keeps_the_shape_of_the_picture():
    assert one_field(woven(3)).shape == (240, 320)


def test_starved_pictures_are_believed_less():
    assert compression_trust(0.2, fps=30) == 1.0
    assert compression_trust(ENOUGH_BITS_PER_PIXEL, fps=30) == 1.0
    assert compression_trust(ENOUGH_BITS_PER_PIXEL / 2, fps=120) == 1.0
    assert compression_trust(0.008, fps=30) == pytest.approx(0.63, abs=0.01)
    assert compression_trust(0.0, fps=30) > 0.5
