"""Polish on made paths: crop and shake left by hand, no empty corner by pixels, and the verdict."""

from __future__ import annotations

import re
from dataclasses import replace

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess, polish
from ridgewind.core.judge.polish import CORNERS_HZ, USUAL_READOUT_S, Polisher, enlargements
from ridgewind.core.judge.polish_warnings import wobbles
from ridgewind.core.judge.shutter import KnownReadout
from ridgewind.core.motion.readout import Readout
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.gust import weight
from ridgewind.core.shake.stretch import Stretch
from tests.conftest import ASPECT, make_motion, sine

RATE_HZ, LONG_PX = 30.0, 1280
TOO_LARGE_PCT = 0.3


def curve_of(**parts):
    return Analysis(make_motion(rate_hz=RATE_HZ, seconds=12, **parts)).polish()


@pytest.mark.parametrize(("hz", "size_pct"), [(2.0, 1.0), (1.4, 0.6), (4.0, 0.3)])
def test_crop_and_what_is_left_of_a_sine_by_hand(hz, size_pct):
    speed = read_motion(
        make_motion(rate_hz=RATE_HZ, seconds=12, pan=sine(size_pct, hz))
    ).speed_pct_s
    for point in curve_of(pan=sine(size_pct, hz)).points[:4]:
        kept = 2.0 ** -((hz / point.corner_hz) ** 2)
        enlarge = 1.0 / (1.0 - 2.0 * size_pct / 100.0 * (1.0 - kept))
        assert point.crop_pct == pytest.approx(100 * (1 - 1 / enlarge), abs=0.15)
        assert point.speed_pct_s == pytest.approx(speed * kept * enlarge, rel=0.06, abs=0.08)


def test_crop_grows_and_shake_shrinks_with_strength():
    points = curve_of(pan=sine(0.8, 1.9), tilt=sine(0.5, 3.1), roll=sine(0.4, 0.9)).points
    crops = [point.crop_pct for point in points]
    assert crops == sorted(crops)
    assert points[-1].speed_pct_s < 0.2 * points[0].speed_pct_s


def test_of_a_long_take_fewer_samples_tell_the_same(monkeypatch):
    parts = {"pan": sine(0.8, 1.3), "tilt": sine(0.5, 3.1), "roll": sine(0.4, 0.4)}
    motion = make_motion(rate_hz=60, seconds=40, **parts)
    all_of_it = {point.corner_hz: point for point in Analysis(motion).polish().points}
    monkeypatch.setattr(polish, "LONG_SAMPLES", 1000)
    curve = Analysis(motion).polish()
    assert [one.every for one in curve.shots[0].left] == [3, 5, 7, 7, 7, 7]
    for point in curve.points:
        same = all_of_it[point.corner_hz]
        assert point.crop_pct == pytest.approx(same.crop_pct)
        assert point.speed_pct_s == pytest.approx(same.speed_pct_s, rel=0.01)
        assert point.peak_pct_s == pytest.approx(same.peak_pct_s, rel=0.02)
    part = curve.part(0, Stretch(600, 1800))
    assert part.points[0].speed_pct_s == pytest.approx(curve.points[0].speed_pct_s, rel=0.03)


def test_a_move_is_kept_and_only_its_shake_is_taken():
    def moving(t):
        return 5.0 * t + 0.4 * np.sin(2 * np.pi * 3 * t)

    (shot,) = read_motion(make_motion(rate_hz=RATE_HZ, seconds=12, pan=moving)).shots
    off = Polisher(shot, aspect=ASPECT).off(1.0)
    assert np.abs(off[:, 0]).max() == pytest.approx(0.4, abs=0.06)


def empty_px(off_row, enlarge):
    """Pixels of a corrected and enlarged frame that no recorded pixel covers."""
    height = round(LONG_PX * ASPECT)
    recorded = np.full((height, LONG_PX), 255, np.uint8)
    pan, tilt, roll, zoom = off_row
    size = (1.0 + zoom / 100.0) / enlarge
    angle = np.radians(roll)
    linear = size * np.array([[np.cos(angle), -np.sin(angle)], [np.sin(angle), np.cos(angle)]])
    middle = np.array([(LONG_PX - 1) / 2, (height - 1) / 2])
    shift = np.array([-pan, tilt]) / 100.0 * LONG_PX
    matrix = np.column_stack([linear, middle + shift - linear @ middle])
    seen = cv2.warpAffine(
        recorded, matrix, (LONG_PX, height), flags=cv2.INTER_NEAREST | cv2.WARP_INVERSE_MAP
    )
    return int((seen == 0).sum())


@settings(max_examples=25, deadline=None)
@given(st.floats(-4, 4), st.floats(-3, 3), st.floats(-3, 3), st.floats(-4, 4))
def test_no_corner_is_empty_and_the_crop_is_hardly_too_large(pan, tilt, roll, zoom):
    off = np.array([[pan, tilt, roll, zoom]])
    enlarge = enlargements(off, aspect=ASPECT).max()
    assert empty_px(off[0], enlarge * 1.001) == 0  # a pixel's half at either edge
    if enlarge > 1.01:
        crop_pct = 100 * (1 - 1 / enlarge)
        tighter = 1 / (1 - (crop_pct - TOO_LARGE_PCT) / 100)
        assert empty_px(off[0], tighter) > 0


def judged(motion, *, fps=30.0, **brief):
    clip = Clip(fps, len(motion.t_s) / fps, False, (1920, 1080), 26.0)
    brief = replace(usual_brief(), keep_sound=True, **brief)
    found = assess(Analysis(motion), clip, brief)
    return found, {remedy.kind: remedy for remedy in found.decision.remedies}


def test_polish_is_the_verdict_where_little_crop_is_enough():
    found, remedies = judged(make_motion(rate_hz=30, seconds=8, pan=sine(0.5, 3)))
    assert found.decision.remedy == "polish"
    polish = remedies["polish"]
    assert polish.passes
    assert polish.gust <= 4.0
    assert polish.reason.startswith("Light: ")
    assert "Polish it: gust" in found.decision.text
    assert "px are left for 1920" not in polish.reason or "crop" in polish.reason


def test_polish_is_not_open_beyond_the_briefs_crop():
    motion = make_motion(rate_hz=60, seconds=8, pan=sine(2.0, 0.9))
    _, none = judged(motion, fps=60.0, delivery_fps=60.0, most_crop_pct=0)
    assert not none["polish"].passes
    assert "Not open: the lightest takes" in none["polish"].reason
    _, little = judged(motion, fps=60.0, delivery_fps=60.0, most_crop_pct=1)
    assert not little["polish"].passes
    assert "Still over target with" in little["polish"].reason
    _, asked = judged(motion, fps=60.0, delivery_fps=60.0, most_crop_pct=30)
    assert asked["polish"].passes
    assert asked["polish"].reason.startswith("Light: 4.0 % crop")


def test_what_polish_cannot_take_away_is_said():
    motion = make_motion(rate_hz=24, seconds=8, pan=sine(0.9, 4))
    _, remedies = judged(replace(motion, outlier_share=0.5), fps=24.0)
    assert "but it smears. Motion blur stays" in remedies["polish"].reason
    assert not remedies["polish"].passes
    assert "will bend" in remedies["polish"].reason


def test_slow_and_polish_needs_less_than_polish_alone():
    motion = make_motion(rate_hz=60, seconds=8, tilt=sine(0.9, 2))
    clip = Clip(60.0, 8.0, False, (1920, 1080), 26.0)
    found = assess(Analysis(motion), clip, usual_brief())
    remedies = {remedy.kind: remedy for remedy in found.decision.remedies}
    assert remedies["slow_polish"].rate == pytest.approx(0.4)
    assert remedies["slow_polish"].plays_s == pytest.approx(20.0)
    kinds = [remedy.kind for remedy in found.decision.remedies]
    assert kinds == ["keep", "lee", "slow", "polish", "polish_lee", "slow_polish", "hold", "retake"]


def test_the_lean_is_that_of_the_sensor_that_is_known():
    motion = make_motion(rate_hz=24, seconds=8, pan=sine(1.6, 4))
    slow = replace(motion, readout=Readout(0.03, 0.001))
    clip = Clip(24.0, 8.0, False, (1920, 1080), 26.0)
    brief = replace(usual_brief(), most_crop_pct=30.0)
    by = {
        "assumed": assess(Analysis(motion), clip, brief),
        "film": assess(Analysis(slow), clip, brief),
        "setup": assess(Analysis(slow), replace(clip, readout_s=0.01), brief),
    }
    assert {name: found.readout.source for name, found in by.items()} == {n: n for n in by}
    lean = {
        name: float(re.search(r"([\d.]+) % lean", found.decision.of("polish").reason)[1])
        for name, found in by.items()
    }
    assert lean["film"] == pytest.approx(1.5 * lean["assumed"], abs=0.15)
    assert lean["setup"] == pytest.approx(0.5 * lean["assumed"], abs=0.15)
    assert by["film"].readout.seconds == pytest.approx(0.03)
    stretched = assess(Analysis(slow), replace(clip, capture_fps=240.0), brief)
    assert stretched.readout.seconds == pytest.approx(0.003)


def test_lines_that_move_more_than_the_polished_picture_are_told():
    motion = make_motion(rate_hz=30, seconds=8, pan=sine(0.18, 6))
    curve = Analysis(motion).polish()
    steps_pct = 0.18 * (2 * np.pi * 6) ** 2 / np.sqrt(2)  # root mean square change of speed
    differences = np.sinc(6.0 / 30.0) ** 2  # two in a row, of samples
    by_hand = steps_pct * differences * USUAL_READOUT_S / np.sqrt(12) * weight(np.array([6.0]))[0]
    assert curve.wobble_pct_s == pytest.approx(by_hand, rel=0.1)
    strong, assumed = curve.points[-1], KnownReadout(USUAL_READOUT_S, "assumed")
    assert strong.speed_pct_s < curve.wobble_pct_s
    assert wobbles(curve, strong, assumed)
    assert not wobbles(curve, replace(strong, speed_pct_s=2.0), assumed)
    assert not wobbles(curve, strong, KnownReadout(0.008, "film"))


def test_no_more_strengths_are_worked_out_than_a_verdict_needs(monkeypatch):
    tried = []

    def off(self, corner_hz: float):
        tried.append(corner_hz)
        return fast(self, corner_hz)

    fast = Polisher.off
    monkeypatch.setattr(Polisher, "off", off)
    motion = make_motion(rate_hz=60, seconds=8, tilt=sine(0.3, 5))
    analysis, clip = Analysis(motion), Clip(60.0, 8.0, False, (1920, 1080), 26.0)
    remedies = assess(analysis, clip, usual_brief()).decision.remedies
    strongest = min(one.corner_hz for one in remedies if one.passes and one.corner_hz)
    assert CORNERS_HZ[-1] < strongest == min(tried)
    curve = analysis.polish(step=2.5)
    assert [point.corner_hz for point in curve.points] == list(CORNERS_HZ)
    assert set(tried) == set(CORNERS_HZ)
