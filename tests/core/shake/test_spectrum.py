"""The spectrum: power is kept, lines stand where they are, long shots are looked at in pieces."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.shake.gust import weight
from ridgewind.core.shake.spectrum import background_of, peaks_of, spectrum_of

RATE_HZ = 60.0


def tones(seconds, *parts):
    """Speeds of sines: (part, Hz, amplitude)."""
    t = np.arange(round(seconds * RATE_HZ)) / RATE_HZ
    out = np.zeros((len(t), 4))
    for part, hz, size in parts:
        out[:, part] += size * np.sin(2 * np.pi * hz * t)
    return out


@pytest.mark.parametrize("seconds", [6.0, 30.0, 90.0, 600.0])
@pytest.mark.parametrize("hz", [1.0, 5.3, 12.0])
def test_power_of_a_tone_is_its_weighted_mean_square_at_any_length(seconds, hz):
    found = spectrum_of(tones(seconds, (1, hz, 2.0)), rate_hz=RATE_HZ)
    expected = 0.5 * (2.0 * float(weight(np.array([hz]))[0])) ** 2
    assert found.power.sum() == pytest.approx(expected, rel=0.05)
    assert found.hz[found.power[:, 1].argmax()] == pytest.approx(hz, abs=0.02)


def test_lines_are_named_strongest_first_with_their_part():
    speeds = tones(20, (1, 1.8, 3.0), (0, 0.9, 2.5), (2, 9.0, 1.0))
    speeds += np.random.default_rng(1).normal(0, 0.1, speeds.shape)
    found = peaks_of(spectrum_of(speeds, rate_hz=RATE_HZ), most=3)
    assert [peak.part for peak in found] == ["tilt", "pan", "roll"]
    assert [peak.hz for peak in found] == pytest.approx([1.8, 0.9, 9.0], abs=0.05)
    assert sum(peak.share for peak in found) == pytest.approx(1, abs=0.25)


def test_noise_alone_has_no_lines():
    rng = np.random.default_rng(2)
    found = spectrum_of(rng.normal(0, 1, (2000, 4)), rate_hz=RATE_HZ)
    assert peaks_of(found, most=5) == ()
    assert peaks_of(spectrum_of(np.zeros((100, 4)), rate_hz=RATE_HZ), most=5) == ()


def test_the_ground_passes_under_a_line():
    power = np.ones((200, 1))
    power[100] = 50.0
    assert background_of(power, width=21) == pytest.approx(1.0)


def test_too_little_is_refused():
    with pytest.raises(InvalidArgumentError, match="n at least 8"):
        spectrum_of(np.zeros((4, 4)), rate_hz=RATE_HZ)


def test_no_part_of_a_long_shot_is_left_out():
    """Half loud, half still: whichever half it is, its power is half of the loud one's alone."""
    rng = np.random.default_rng(4)
    for seconds in range(30, 101, 5):
        count = round(seconds * RATE_HZ)
        loud = rng.normal(0, 1, (count, 4))
        whole = spectrum_of(loud, rate_hz=RATE_HZ).power.sum()
        late, early = loud.copy(), loud.copy()
        late[: count // 2] = 0.0
        early[count // 2 :] = 0.0
        for half in (late, early):
            share = spectrum_of(half, rate_hz=RATE_HZ).power.sum() / whole
            # One Hann window sees its middle best; several overlap, but for the outer quarters.
            assert 0.3 < share < 0.7, (seconds, share)
