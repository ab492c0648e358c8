"""A sensor's read-out time is told from how the picture leans while it moves, or not at all."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.motion.readout import read_out
from ridgewind.films.measuring import measure_film
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film

ASPECT, RATE_HZ = 9 / 16, 30.0
WITHIN_S = 0.004


def made(seconds: float, *, frames: int = 120, noise: float = 2e-4, upright: bool = False):
    """A hand's path, and the shear of each frame that a sensor so slow gives it, with what depth
    adds and a level of its own for each of three references."""
    rng = np.random.default_rng(1)
    t_s = np.arange(frames) / RATE_HZ
    path = np.zeros((frames, 4))
    for column, hz in ((0, 1.1), (0, 4.0), (1, 0.9), (1, 3.1), (2, 2.0)):
        path[:, column] += 0.6 / hz * np.sin(2 * np.pi * hz * t_s + column)
    speed = np.gradient(path[:, 1] if upright else -path[:, 0], t_s) / 100
    reference = np.arange(frames) // 40
    shear = seconds * speed / ASPECT + 0.002 * path[:, 0] + 0.01 * reference
    return t_s, path, shear + rng.normal(0, noise, frames), reference.astype(float)


@pytest.mark.parametrize("upright", [False, True])
@pytest.mark.parametrize("seconds", [0.0, 0.008, 0.02])
def test_what_goes_with_the_speed_is_the_sensor(seconds, upright):
    found = read_out(*made(seconds, upright=upright), aspect=ASPECT, upright=upright)
    assert found.seconds == pytest.approx(seconds, abs=max(0.0012, 4 * found.error_s))


def test_a_film_that_shows_too_little_says_nothing():
    t_s, path, shear, reference = made(0.02)
    assert read_out(t_s, 0 * path, shear, reference, aspect=ASPECT, upright=False) is None
    noisy = made(0.02, noise=0.02)
    assert read_out(*noisy, aspect=ASPECT, upright=False) is None
    short = (column[:20] for column in made(0.02))
    assert read_out(*short, aspect=ASPECT, upright=False) is None


def test_frames_that_were_not_followed_do_not_count():
    t_s, path, shear, reference = made(0.02)
    path[30:40] = np.nan
    shear[60:70] = np.nan
    found = read_out(t_s, path, shear, reference, aspect=ASPECT, upright=False)
    assert found.seconds == pytest.approx(0.02, abs=0.002)


def test_a_made_film_shows_its_sensor(tmp_path):
    script = Script("stones", "hold", Technique(contacts=1), 50, size=(480, 270), seconds=2,
                    seed=4, crf=14, read_out_s=0.02)  # fmt: skip
    film(script, tmp_path / "hand.mp4")
    found = measure_film(tmp_path / "hand.mp4").motion.readout
    assert found.seconds == pytest.approx(0.02, abs=WITHIN_S)


def test_a_film_of_a_sensor_that_reads_at_once_shows_none(films):
    found = films.get("door, walk-in").measured.motion.readout
    assert found is None or found.seconds < WITHIN_S
