"""A held subject stays where it was, whatever the hand did, and its windows stay in the picture."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.easing import progress
from ridgewind.core.judge.hold import followed_stretch, hold_frames, subject_gust
from ridgewind.core.judge.recipe import WindowMaker, predicted, recipe_of, subject_place
from ridgewind.core.motion.subject import Mark, Subject, SubjectPath
from tests.conftest import ASPECT, make_motion, sine

RATE_HZ, SECONDS = 30.0, 6.0
T_S = np.arange(round(RATE_HZ * SECONDS)) / RATE_HZ
SIZE = (1920, 1080)
HALF_PX = 0.5 / 1080
BRIEF = replace(usual_brief(), delivery_fps=30.0)
CLIP = Clip(
    fps=RATE_HZ, duration_s=SECONDS, has_sound=False, size_px=SIZE, focal_eq_mm=26.0,
    move_expected=False,
)  # fmt: skip


def point(x, y) -> SubjectPath:
    return SubjectPath(
        T_S, np.broadcast_to(x, T_S.shape) * 1.0, np.broadcast_to(y, T_S.shape) * 1.0
    )


def subject(*paths: SubjectPath) -> Subject:
    return Subject(tuple(Mark(0.0, 0.5 + 0.1 * k, 0.5) for k in range(len(paths))), paths)


def shaken(hz: float = 1.5, pct: float = 1.5):
    """A camera whose hand pans, and a thing in its picture that does not move by itself."""
    motion = make_motion(
        rate_hz=RATE_HZ, seconds=SECONDS, pan=sine(pct, hz), tilt=sine(pct / 2, hz)
    )
    return Analysis(motion), subject(point(10 - motion.pan_pct, 5 + motion.tilt_pct))


def finished(windows, place):
    """Where a recorded place (n, 2) is in the finished frames, percent of the long side."""
    matrices = windows.matrices(SIZE)
    px = place / 100 * SIZE[0] + (np.array(SIZE) - 1) / 2
    inverse = np.linalg.inv(matrices[:, :, :2])
    seen = np.einsum("nij,nj->ni", inverse, px - matrices[:, :, 2])
    return 100 * (seen - (np.array(SIZE) - 1) / 2) / SIZE[0]


def test_what_stands_still_in_the_scene_is_held_and_so_is_what_is_behind_it():
    analysis, marked = shaken()
    found = assess(analysis, CLIP, BRIEF, subject=marked)
    hold = found.decision.of("hold")
    assert found.gust > 6
    assert hold.passes
    assert hold.gust == pytest.approx(0, abs=0.1)
    assert hold.subject_gust == pytest.approx(0, abs=0.1)
    assert hold.crop_pct == pytest.approx(3.0, abs=0.05)
    recipe = recipe_of(hold)
    windows = WindowMaker(recipe, analysis, upright=False, subject=marked).at(T_S)
    corners = windows.corners(SIZE)
    assert corners.min() > -HALF_PX
    assert corners.max() < 1 + HALF_PX
    path = marked.paths[0]
    seen = finished(windows, np.column_stack([path.x_pct, path.y_pct]))
    assert np.ptp(seen, axis=0).max() < 1e-6
    assert subject_place(recipe, analysis, CLIP, marked) == pytest.approx(seen[0], abs=1e-6)


def test_a_subject_that_moves_by_itself_sets_what_is_behind_it_moving():
    motion = make_motion(rate_hz=RATE_HZ, seconds=SECONDS)
    marked = subject(point(sine(2.0, 1.0)(T_S), 0.0))
    hold = assess(Analysis(motion), CLIP, BRIEF, subject=marked).decision.of("hold")
    shaken_so = make_motion(rate_hz=RATE_HZ, seconds=SECONDS, pan=sine(2.0, 1.0))
    enlarged = 1.25 * np.log2(1 / (1 - hold.crop_pct / 100))
    assert hold.gust == pytest.approx(Analysis(shaken_so).reading().gust() + enlarged, abs=0.05)
    assert not hold.passes
    assert "over target" in hold.reason


def test_two_points_turn_and_scale_the_frame_with_the_subject():
    turn, growth = np.radians(2.0) * np.sin(T_S), 1.0 + 0.04 * np.sin(2 * T_S)
    x = 3 * np.sin(3 * T_S)

    def seen(dx, dy):
        return point(
            x + growth * (np.cos(turn) * dx - np.sin(turn) * dy),
            growth * (np.sin(turn) * dx + np.cos(turn) * dy),
        )

    marked = subject(seen(-12, 2), seen(15, -3))
    motion = make_motion(rate_hz=RATE_HZ, seconds=SECONDS)
    brief = replace(BRIEF, most_crop_pct=40.0)
    recipe = recipe_of(assess(Analysis(motion), CLIP, brief, subject=marked).decision.of("hold"))
    windows = WindowMaker(recipe, Analysis(motion), upright=False, subject=marked).at(T_S)
    assert windows.corners(SIZE).min() > -HALF_PX
    assert windows.corners(SIZE).max() < 1 + HALF_PX
    for path in marked.paths:
        at = finished(windows, np.column_stack([path.x_pct, path.y_pct]))
        assert np.ptp(at, axis=0).max() < 1e-6
    assert windows.size.min() == pytest.approx(1 - recipe.crop_pct / 100)


def test_what_travels_glides_along_a_straight_eased_line():
    way = progress(T_S, start_s=0.0, end_s=float(T_S[-1]), ease_s=1.0)
    wobble = sine(0.8, 2.0)(T_S)
    marked = subject(point(-15 + 30 * way + wobble, 4 - 8 * way))
    motion = make_motion(rate_hz=RATE_HZ, seconds=SECONDS, pan=lambda t: -sine(0.8, 2.0)(t))
    found = assess(Analysis(motion), CLIP, BRIEF, subject=marked).decision.of("hold")
    assert found.hold.glide
    assert found.crop_pct == pytest.approx(1.6, abs=0.1)
    assert found.passes
    windows = WindowMaker(recipe_of(found), Analysis(motion), upright=False, subject=marked).at(T_S)
    path = marked.paths[0]
    seen = finished(windows, np.column_stack([path.x_pct, path.y_pct]))
    speed = np.hypot(*np.diff(seen, axis=0).T) * RATE_HZ
    middle = speed[40:-40]
    assert np.ptp(middle) < 0.02 * middle.mean()
    assert speed[0] < 0.1 * middle.mean()


def test_held_still_where_the_subject_leaves_it_is_refused_with_both_crops():
    marked = subject(point(np.where(T_S < 3, -25.0, 25.0) + 0.0 * T_S, 0.0))
    motion = make_motion(rate_hz=RATE_HZ, seconds=SECONDS)
    hold = assess(Analysis(motion), CLIP, BRIEF, subject=marked).decision.of("hold")
    assert not hold.passes
    assert hold.start_s is None
    assert "held still it takes 50.0 % crop" in hold.reason


def lost(from_s: float, to_s: float) -> Subject:
    gone = (from_s <= T_S) & (to_s > T_S)
    return subject(point(np.where(gone, np.nan, 4.0), np.where(gone, np.nan, 1.0)))


def test_a_lost_subject_is_refused_with_where_it_was_followed():
    motion = make_motion(rate_hz=RATE_HZ, seconds=SECONDS)
    hold = assess(Analysis(motion), CLIP, BRIEF, subject=lost(2.0, 3.5)).decision.of("hold")
    assert hold.start_s is None
    assert "the subject is lost" in hold.reason
    assert "2.5 s, from 3.5 s" in hold.reason


def test_a_subject_that_is_lost_late_is_held_until_then_and_missed_frames_are_bridged():
    analysis = Analysis(make_motion(rate_hz=RATE_HZ, seconds=SECONDS))
    hold = assess(analysis, CLIP, BRIEF, subject=lost(4.5, 9.0)).decision.of("hold")
    assert hold.passes
    assert (hold.start_s, hold.end_s) == (0.0, pytest.approx(4.5 - 1 / RATE_HZ))
    assert hold.points > 1
    whole = followed_stretch(lost(2.0, 2.09), analysis.reading())
    assert whole == (0.0, pytest.approx(SECONDS - 1 / RATE_HZ))


def test_nothing_marked_says_what_to_do():
    analysis = Analysis(make_motion(rate_hz=RATE_HZ, seconds=SECONDS))
    hold = assess(analysis, CLIP, BRIEF).decision.of("hold")
    assert hold.gust is None
    assert "mark what to hold" in hold.reason


def test_two_points_too_near_are_refused():
    analysis = Analysis(make_motion(rate_hz=RATE_HZ, seconds=SECONDS))
    near = subject(point(0.0, 0.0), point(1.0, 0.0))
    assert "5 % of the picture apart" in (
        assess(analysis, CLIP, BRIEF, subject=near).decision.of("hold").reason
    )


def test_the_follower_s_own_error_is_what_is_expected_of_the_subject():
    rng = np.random.default_rng(4)
    analysis, marked = shaken()
    path = marked.paths[0]
    error = 0.02
    rough = subject(
        point(
            path.x_pct + rng.normal(0, error, len(T_S)), path.y_pct + rng.normal(0, error, len(T_S))
        )
    )
    hold = assess(analysis, CLIP, BRIEF, subject=rough).decision.of("hold")
    windows = WindowMaker(recipe_of(hold), analysis, upright=False, subject=rough).at(T_S)
    true = finished(windows, np.column_stack([path.x_pct, path.y_pct]))
    seen = subject_gust(SubjectPath(T_S, *true.T), aspect=ASPECT, screen_deg=30.0)
    assert hold.subject_gust == pytest.approx(seen, abs=0.25)


def test_a_recipe_holds_what_was_marked_and_nothing_else():
    analysis, marked = shaken()
    recipe = recipe_of(assess(analysis, CLIP, BRIEF, subject=marked).decision.of("hold"))
    other = replace(marked, marks=(Mark(1.0, 0.2, 0.2),))
    for wrong in (None, other):
        with pytest.raises(InvalidArgumentError, match="marked as the recipe has it"):
            predicted(recipe, analysis, CLIP, BRIEF, subject=wrong)


def test_what_is_not_seen_in_a_stretch_cannot_be_held_there():
    with pytest.raises(InvalidArgumentError, match="seen in that stretch"):
        hold_frames(
            lost(0.0, 9.0), start_s=0.0, end_s=5.0, glide=False, aspect=ASPECT, upright=False
        )
