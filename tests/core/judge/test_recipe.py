"""Recipes: windows that never leave the frame, moves that are kept, and honest predictions."""

from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.polish import enlargements
from ridgewind.core.judge.recipe import (
    WindowMaker,
    Windows,
    at_strength,
    predicted,
    recipe_of,
    roughest,
    with_drift,
)
from ridgewind.core.shake import read_motion
from tests.conftest import make_motion, sine

RATE_HZ, SIZE = 30.0, (1920, 1080)
BRIEF = replace(usual_brief(), keep_sound=True, most_crop_pct=40.0)
EDGE = 1e-4


def case(motion, *, size_px=SIZE, brief=BRIEF, fps=RATE_HZ):
    clip = Clip(fps, len(motion.t_s) / fps, False, size_px, 26.0)
    analysis = Analysis(motion)
    return analysis, clip, assess(analysis, clip, brief).decision


SHAKEN = make_motion(
    rate_hz=RATE_HZ, seconds=10, pan=sine(0.9, 1.9), tilt=sine(0.6, 2.7), roll=sine(0.8, 1.1),
    zoom=sine(0.7, 0.9),
)  # fmt: skip


@settings(max_examples=15, deadline=None)
@given(st.integers(0, 11), st.booleans(), st.integers(0, 10_000))
def test_no_window_leaves_the_frame_at_any_strength_either_way_up(strength, upright, seed):
    rng = np.random.default_rng(seed)
    shake = {
        name: sine(rng.uniform(0.1, 1.2), rng.uniform(0.4, 5))
        for name in ("pan", "tilt", "roll", "zoom")
    }
    size = SIZE[::-1] if upright else SIZE
    analysis, clip, decision = case(make_motion(rate_hz=RATE_HZ, seconds=6, **shake), size_px=size)
    curve = analysis.polish(upright=upright)
    plain = recipe_of(replace(decision.of("polish"), start_s=0.0, end_s=6.0))
    recipe = at_strength(plain, curve, curve.points[strength], BRIEF)
    t_s = analysis.motion.t_s
    corners = WindowMaker(recipe, analysis, upright=upright).at(t_s).corners(size)
    assert corners.min() >= -2e-3  # a window and the pixels at its edge differ by a half pixel
    assert corners.max() <= 1 + 2e-3
    if recipe.crop_pct > 1.0:  # and it is not smaller than it must be
        tight = replace(recipe, crop_pct=recipe.crop_pct - 0.3)
        tighter = WindowMaker(tight, analysis, upright=upright).at(t_s).corners(size)
        assert tighter.min() < 0 or tighter.max() > 1


@given(st.floats(-5, 5), st.floats(-5, 5), st.floats(-4, 4), st.floats(-5, 5), st.booleans())
def test_corners_say_the_same_as_the_matrices(x, y, turn, grown, upright):
    size = SIZE[::-1] if upright else SIZE
    off = np.array([[x, y, turn, grown]])
    enlarge = enlargements(off, aspect=9 / 16, upright=upright)[0]
    windows = Windows(-off[:, 0], off[:, 1], -off[:, 2], (1 + off[:, 3] / 100) / enlarge)
    corners = windows.corners(size)[0] * (np.array(size) - 1)
    inverse = cv2.invertAffineTransform(windows.matrices(size)[0])
    back = corners @ inverse[:, :2].T + inverse[:, 2]
    width, height = np.array(size) - 1
    expected = [[0, 0], [width, 0], [width, height], [0, height]]
    assert back == pytest.approx(np.array(expected, float), abs=1e-3 * width)


def test_what_is_predicted_is_what_the_smoothed_path_reads():
    analysis, clip, decision = case(SHAKEN)
    recipe = recipe_of(decision.of("polish"))
    found = predicted(recipe, analysis, clip, BRIEF)
    assert found.gust == pytest.approx(decision.of("polish").gust, abs=0.02)
    assert found.peak == pytest.approx(decision.of("polish").peak, abs=0.05)


def test_a_pan_is_kept_and_only_its_shake_is_taken():
    motion = make_motion(
        rate_hz=RATE_HZ, seconds=10, pan=lambda t: 4.0 * t + 0.5 * np.sin(2 * np.pi * 2 * t)
    )
    analysis, _, decision = case(motion)
    windows = WindowMaker(recipe_of(decision.of("polish")), analysis, upright=False).at(motion.t_s)
    seen = motion.pan_pct + windows.x_pct  # where the window looks
    assert seen[-1] - seen[0] == pytest.approx(40.0, abs=1.0)
    assert np.std(np.diff(seen)) < 0.2 * np.std(np.diff(motion.pan_pct))


@pytest.mark.parametrize(("drift", "axis", "sign"), [
    ("right", 0, 1), ("left", 0, -1), ("down", 1, 1), ("up", 1, -1),
])  # fmt: skip
def test_a_desk_made_move_travels_through_its_room_and_eases(drift, axis, sign):
    analysis, clip, decision = case(make_motion(rate_hz=RATE_HZ, seconds=8, pan=sine(0.02, 2)))
    recipe = with_drift(recipe_of(decision.of("keep")), drift, crop_pct=6.0)
    t_s = analysis.motion.t_s
    windows = WindowMaker(recipe, analysis, upright=False).at(t_s)
    way = sign * (windows.x_pct, windows.y_pct)[axis]
    side = 1.0 if axis == 0 else 9 / 16
    assert way[-1] - way[0] == pytest.approx(6.0 * side, rel=0.02)
    speeds = np.diff(way)
    assert speeds.min() >= -1e-9
    assert speeds[0] < 0.1 * speeds.max()
    assert speeds[-1] < 0.1 * speeds.max()
    corners = windows.corners(SIZE)
    assert corners.min() >= -EDGE
    assert corners.max() <= 1 + EDGE
    assert predicted(recipe, analysis, clip, BRIEF).gust < 2.5


def test_a_polish_keeps_the_crop_for_itself():
    _, _, decision = case(SHAKEN)
    with pytest.raises(InvalidArgumentError, match="a polish needs the crop for itself"):
        with_drift(recipe_of(decision.of("polish")), "up", crop_pct=5.0)
    with pytest.raises(InvalidArgumentError, match="it uses no part of the file"):
        recipe_of(decision.of("retake"))


def test_a_preview_shows_the_roughest_seconds():
    motion = make_motion(
        rate_hz=RATE_HZ, seconds=60,
        pan=lambda t: np.where((t > 30) & (t < 36), 0.6, 0.1) * np.sin(2 * np.pi * 2 * t),
    )  # fmt: skip
    analysis, clip, decision = case(motion)
    whole = recipe_of(decision.of("polish"))
    part = roughest(whole, analysis.reading())
    assert part.end_s - part.start_s == pytest.approx(8.0)
    assert part.start_s < 30.5
    assert part.end_s > 35.5
    assert predicted(part, analysis, clip, BRIEF).gust > whole.gust
    assert roughest(part, analysis.reading()) == part


def test_the_polish_of_slowed_and_thinned_frames_is_predicted_at_their_rate():
    motion = make_motion(rate_hz=120, seconds=6, tilt=sine(0.5, 2.2))
    brief = replace(usual_brief(), most_crop_pct=20.0)
    analysis, clip, decision = case(motion, brief=brief, fps=120.0)
    slow = decision.of("slow_polish")
    recipe = predicted(recipe_of(slow), analysis, clip, brief)
    assert recipe.step * 24 / 120 == pytest.approx(recipe.rate)
    windows = WindowMaker(recipe, analysis, upright=False).at(motion.t_s[:: recipe.step])
    left = motion.tilt_pct[:: recipe.step] - windows.y_pct
    polished = make_motion(rate_hz=24.0, seconds=len(left) / 24.0, tilt=lambda _: left)
    expected = read_motion(polished).gust()
    # The enlargement adds its doublings.
    assert recipe.gust == pytest.approx(expected + 1.25 * np.log2(recipe.enlarge), abs=0.1)
