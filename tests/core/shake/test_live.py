"""Live steadiness against the whole measurement, and in bounded memory."""

from __future__ import annotations

import math

import numpy as np
import pytest

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.turn_rates import TurnRates, path_of_rates
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.gust import to_gust
from ridgewind.core.shake.live import SETTLED_S, TURN_S, CalmRun, PictureMeter, RateMeter
from tests.conftest import shaken, texture, track, view

RATE_HZ, SIZE = 30.0, (320, 180)


def fed(frames, *, every=4):
    """What a meter says of frames, a few together."""
    meter, told = PictureMeter(SIZE), []
    for index, frame in enumerate(frames):
        meter.feed(index / RATE_HZ, frame)
        if index % every == every - 1:
            told.append(meter.read(screen_deg=30))
    return told


def growing(count=360):
    """A texture shaken at 2 Hz, more and more."""
    image = texture(SIZE[0] * 2, SIZE[1] * 2)
    for k in range(count):
        reach = 1.0 + 5.0 * k / count
        yield view(image, SIZE, x=reach * np.sin(2 * np.pi * 2 * k / RATE_HZ))


def test_live_and_whole_agree_and_so_does_every_second():
    frames = list(growing())
    whole = read_motion(track(frames)).shots[0]
    told = [one for one in fed(frames) if one.gust is not None]
    power = float(np.mean([one.power for one in told]))
    since = whole.t_s > told[0].t_s - 1
    same = to_gust(math.sqrt(float(whole.power[since].mean())))
    assert to_gust(math.sqrt(power)) == pytest.approx(same, abs=0.1)
    for one in told:
        middle = int(np.argmin(np.abs(whole.t_s - (one.t_s - 0.5))))
        assert one.gust == pytest.approx(to_gust(whole.second_power[middle] ** 0.5), abs=0.3)
        assert sum(one.shares) == pytest.approx(1.0)


def test_nothing_is_said_before_it_is_seen_what_moves():
    told = fed(list(shaken(105)), every=1)
    early = [one for one in told if one.t_s < SETTLED_S - 0.05]
    assert told[-1].gust is not None
    assert {(one.gust, one.reason) for one in early} == {(None, "short")}


def test_a_picture_that_cannot_be_followed_is_no_figure():
    dark = fed(np.full(SIZE[::-1], 17, np.uint8) for _ in range(105))
    assert (dark[-1].gust, dark[-1].reason) == (None, "too dark")


def test_two_trackers_at_most_and_none_older_than_two_turns():
    meter = PictureMeter(SIZE)
    image = texture(*SIZE)
    for k in range(round(4.2 * TURN_S * 10)):
        meter.feed(k / 10, np.roll(image, k % 3, axis=1))
        begun = [since for since, _ in meter._trackers]
        assert len(begun) <= 2
        assert k / 10 - begun[0] <= 2 * TURN_S


def test_a_gap_begins_anew_and_a_time_that_does_not_grow_is_refused():
    meter = PictureMeter(SIZE)
    for k, frame in enumerate(shaken(105)):
        meter.feed(k / RATE_HZ, frame)
    assert meter.read(screen_deg=30).gust is not None
    with pytest.raises(InvalidArgumentError, match="after"):
        meter.feed(1.0, frame)
    meter.feed(9.0, frame)
    assert meter.read(screen_deg=30).reason == "short"


def rates_of(seconds=8.0, hz=70.0, amplitude_deg=0.5, f_hz=2.0):
    t_s = np.arange(round(seconds * hz)) / hz
    speed = amplitude_deg * 2 * np.pi * f_hz * np.cos(2 * np.pi * f_hz * t_s)
    return t_s, np.column_stack([speed, 0 * t_s, 0 * t_s])


def test_turning_rates_tell_what_their_whole_log_tells_at_the_lens_that_is_set():
    t_s, deg_s = rates_of()
    told = {}
    for focal in (26.0, 52.0):
        meter = RateMeter(focal_eq_mm=focal, aspect=9 / 16)
        for k in range(0, len(t_s), 7):
            meter.feed(t_s[k : k + 7], deg_s[k : k + 7])
        told[focal] = meter.read(screen_deg=30)
        whole = path_of_rates(TurnRates(t_s, deg_s, (), 70.0), focal_eq_mm=focal, aspect=9 / 16)
        assert told[focal].gust == pytest.approx(read_motion(whole).gust(), abs=0.15)
    assert told[52.0].gust - told[26.0].gust == pytest.approx(1.25, abs=0.02)


def test_rates_keep_ten_seconds_and_no_more():
    meter = RateMeter(focal_eq_mm=26, aspect=9 / 16)
    t_s, deg_s = rates_of(seconds=60)
    meter.feed(t_s, deg_s)
    assert meter._samples[-1][0] - meter._samples[0][0] <= 2 * TURN_S
    with pytest.raises(InvalidArgumentError, match="grow"):
        meter.feed(t_s[:3], deg_s[:3])


def test_a_calm_stretch_outlives_a_slip_of_less_than_half_a_second():
    run = CalmRun(target=4.0)
    for k in range(100):
        t_s = k / 10
        over = 30 <= k < 34 or 60 <= k < 70
        run.add(t_s, 5.0 if over else 3.0)
        if k == 59:
            assert run.calm_s == pytest.approx(5.9)
        if k == 66:
            assert run.calm_s == 0
    assert run.best_s == pytest.approx(6.0)
    assert run.calm_s == pytest.approx(2.9)


def test_a_time_without_figures_is_not_calm():
    run = CalmRun(target=4.0)
    for t_s in (0.0, 0.5, 1.0, 6.0, 6.5):
        run.add(t_s, 3.0)
    assert (run.calm_s, run.best_s) == (pytest.approx(0.5), pytest.approx(1.0))


def test_a_sensor_that_skips_or_is_slow_is_not_believed():
    t_s, deg_s = rates_of(seconds=6)
    meter = RateMeter(focal_eq_mm=26, aspect=9 / 16)
    here = (t_s < 5.1) | (t_s > 5.9)
    meter.feed(t_s[here], deg_s[here])
    assert meter.read(screen_deg=30).gust is None
    slow = RateMeter(focal_eq_mm=26, aspect=9 / 16)
    slow.feed(t_s[::6], deg_s[::6])
    assert slow.read(screen_deg=30).reason == "slow"


def test_what_cannot_be_told_is_not_calm():
    run = CalmRun(target=4.0)
    for k in range(20):
        run.add(k / 10, 3.0 if k < 10 else None)
    assert (run.calm_s, run.best_s) == (0, pytest.approx(1.0))
