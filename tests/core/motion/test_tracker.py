"""Tracking: signs, accuracy, lenses, crossings, cuts, and pictures that cannot be followed."""

from __future__ import annotations

import cv2
import numpy as np
import pytest

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.fit import read_at_centre
from ridgewind.core.motion.pyramid import to_working, working_size
from ridgewind.core.motion.tracker import Tracker
from tests.conftest import texture, track, view

SIZE = (480, 270)
PICTURE = texture(960, 540)


def frames(count=40, **functions):
    for k in range(count):
        yield view(PICTURE, SIZE, **{name: f(k) for name, f in functions.items()})


@pytest.mark.parametrize(
    ("functions", "column", "per_frame"),
    [
        ({"x": lambda k: -0.7 * k}, "pan_pct", 0.7 / 480 * 100),
        ({"y": lambda k: 0.6 * k}, "tilt_pct", 0.6 / 480 * 100),
        ({"turn_deg": lambda k: -0.1 * k}, "roll_deg", 0.1),
    ],
)
def test_signs_and_sizes(functions, column, per_frame):
    motion = track(frames(**functions))
    assert getattr(motion, column) == pytest.approx(per_frame * np.arange(40), abs=0.02)
    for other in {"pan_pct", "tilt_pct", "roll_deg", "zoom_pct"} - {column}:
        assert np.abs(getattr(motion, other)).max() < 0.03


def test_a_growing_picture_is_positive_zoom():
    motion = track(frames(scale=lambda k: 1.004**k))
    assert motion.zoom_pct == pytest.approx(100 * (1.004 ** np.arange(40) - 1), abs=0.1)


def test_a_shaken_path_is_right_to_a_hundredth_of_a_percent():
    def across(k):
        return 6 * np.sin(0.4 * k) + 2 * np.sin(1.9 * k)

    def down(k):
        return 4 * np.sin(0.7 * k + 1)

    motion = track(frames(120, x=across, y=down))
    k = np.arange(120)
    pan = -(across(k) - across(0)) / 480 * 100
    tilt = (down(k) - down(0)) / 480 * 100
    assert np.sqrt(np.mean((motion.pan_pct - pan) ** 2)) < 0.01
    assert np.sqrt(np.mean((motion.tilt_pct - tilt) ** 2)) < 0.01
    assert motion.trust.min() > 0.9


def test_a_turn_of_a_wide_lens_is_read_at_the_centre():
    # A 20 mm equivalent lens turned by 4°: the edges slide much further than the centre.
    focal = 20 / 36 * 480
    middle = np.array([[1, 0, 239.5], [0, 1, 134.5], [0, 0, 1.0]])
    lens = middle @ np.diag([focal, focal, 1.0])

    def turned(degrees):
        c, s = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
        turn = np.array([[c, 0, -s], [0, 1, 0], [s, 0, c]])
        shift = np.array([[1, 0, -240.0], [0, 1, -135.0], [0, 0, 1]])
        return cv2.warpPerspective(PICTURE, lens @ turn @ np.linalg.inv(lens) @ shift, SIZE)

    angles = 4 * np.sin(np.linspace(0, np.pi, 60))
    motion = track([turned(angle) for angle in angles])
    steps = np.diff(np.radians(angles))
    truth = np.r_[0, np.cumsum(focal * np.tan(steps) / 480 * 100)]
    assert motion.pan_pct == pytest.approx(truth, abs=0.03)
    assert np.abs(motion.roll_deg).max() < 0.03


def test_something_crossing_half_the_frame_is_not_camera_motion():
    intruder = texture(960, 540, seed=9)

    def crossed(k):
        frame = view(PICTURE, SIZE, x=3 * np.sin(0.5 * k)).copy()
        left = -260 + 9 * k
        low, high = max(0, left), max(0, min(480, left + 240))
        frame[:, low:high] = intruder[100:370, 200 : 200 + high - low]
        return frame

    motion = track([crossed(k) for k in range(80)])
    k = np.arange(80)
    pan = -3 * np.sin(0.5 * k) / 480 * 100
    good = motion.trusted
    assert good.mean() > 0.8
    assert np.abs(motion.pan_pct - pan)[good].max() < 0.12


def test_a_hard_cut_begins_a_new_shot_from_zero():
    other = texture(960, 540, seed=5)
    first = [view(PICTURE, SIZE, x=2 * np.sin(0.5 * k)) for k in range(30)]
    second = [view(other, SIZE, y=1.5 * np.sin(0.3 * k)) for k in range(30)]
    motion = track(first + second)
    assert [(shot.start, shot.stop, shot.reason) for shot in motion.shots] == [
        (0, 30, None),
        (30, 60, None),
    ]
    assert motion.pan_pct[30] == 0
    assert np.abs(motion.pan_pct[30:]).max() < 0.05


@pytest.mark.parametrize(
    ("frame", "reason"),
    [
        (np.full((270, 480), 128, np.uint8), "detail"),
        (np.full((270, 480), 3, np.uint8), "dark"),
    ],
)
def test_a_blank_picture_is_refused_with_its_reason(frame, reason):
    motion = track([frame] * 30)
    assert [shot.reason for shot in motion.shots] == [reason]
    assert np.isnan(motion.pan_pct).all()
    assert not motion.trusted.any()


def test_noise_alone_is_not_followed():
    rng = np.random.default_rng(1)
    motion = track([rng.integers(0, 255, (270, 480)).astype(np.uint8) for _ in range(30)])
    assert motion.trusted.mean() < 0.5
    assert not any(shot.measurable for shot in motion.shots)


def test_an_exposure_jump_is_not_motion():
    def exposed(k):
        frame = view(PICTURE, SIZE, x=2 * np.sin(0.5 * k))
        return cv2.convertScaleAbs(frame, alpha=1.0 if k < 20 else 0.7, beta=0 if k < 20 else 12)

    motion = track([exposed(k) for k in range(40)])
    pan = -2 * np.sin(0.5 * np.arange(40)) / 480 * 100
    assert motion.pan_pct == pytest.approx(pan, abs=0.02)


def test_a_few_lost_frames_are_bridged_without_losing_the_place():
    shown = list(frames(60, x=lambda k: 0.5 * k))
    for k in range(25, 29):
        shown[k] = cv2.GaussianBlur(shown[k], (0, 0), 40)
    motion = track(shown)
    assert len(motion.shots) == 1
    assert np.isnan(motion.pan_pct[25:29]).all()
    assert motion.pan_pct[-1] == pytest.approx(-0.5 * 59 / 480 * 100, abs=0.02)


def test_reading_at_the_centre_of_a_similarity_is_that_similarity():
    angle, scale = 0.02, 1.01
    c, s = scale * np.cos(angle), scale * np.sin(angle)
    read = read_at_centre(np.array([[c, -s, 0.03], [s, c, -0.01], [0, 0, 1.0]]))
    assert (read.dx, read.dy) == pytest.approx((0.03, -0.01))
    assert (read.turn, read.log_scale) == pytest.approx((angle, np.log(scale)))


def test_the_working_size_is_as_long_as_it_may_be():
    assert working_size(3840, 2160) == (480, 270)
    assert working_size(1280, 720) == working_size(2704, 1521) == (480, 270)
    assert working_size(320, 240) == (320, 240)
    assert to_working(np.zeros((720, 1280), np.uint16)).shape == (270, 480)
    assert to_working(np.zeros((1080, 1920), np.uint8)).shape == (270, 480)


def test_wrong_sizes_are_refused_with_their_rule():
    with pytest.raises(InvalidArgumentError, match="both sides must be at least 32 px"):
        Tracker((480, 20))
    tracker = Tracker((480, 270))
    with pytest.raises(InvalidArgumentError, match=r"luma is \(100, 100\)"):
        tracker.feed(0.0, np.zeros((100, 100), np.uint8))


def sway_px(k):
    """Across at 1 Hz and steadily on, 30 frames a second, so that no two frames are alike."""
    return 4 * np.sin(2 * np.pi * np.asarray(k) / 30) + 1.1 * np.asarray(k)


def sway_pct(k):
    return -sway_px(k) / 480 * 100


def swayed(count, *, repeat):
    """Frames of a swayed picture; repeat: which moment each of them shows."""
    return [view(PICTURE, SIZE, x=sway_px(repeat(k))) for k in range(count)]


@pytest.mark.parametrize("every", [2, 3, 5])
def test_frames_that_repeat_one_before_are_put_between_their_neighbours(every):
    motion = track(swayed(90, repeat=lambda k: k - (k % every == every - 1)))
    assert motion.repeated == pytest.approx(1 / every, abs=0.02)
    assert motion.trusted.all()
    inner = slice(2, 88)
    assert motion.pan_pct[inner] == pytest.approx(sway_pct(np.arange(90))[inner], abs=0.03)


def test_a_picture_that_freezes_is_not_read_as_calm():
    motion = track(swayed(90, repeat=lambda k: 40 if 40 <= k < 60 else k))
    assert not motion.trusted[41:60].any()
    assert motion.trusted[:41].all()
    assert motion.trusted[60:].all()
    assert motion.pan_pct[60:] == pytest.approx(sway_pct(np.arange(60, 90)), abs=0.03)
    still = track(swayed(30, repeat=lambda k: min(k, 4)))
    assert [shot.reason for shot in still.shots] == ["frozen"]


def test_a_camera_that_stands_still_may_show_the_same_picture_for_ever():
    motion = track([view(PICTURE, SIZE)] * 40)
    assert motion.repeated > 0.9
    assert motion.trusted.all()
    assert np.abs(motion.pan_pct).max() == 0
    assert motion.shots[0].measurable


def test_a_long_dissolve_is_a_cut_like_any():
    other = texture(960, 540, seed=5)
    frames_ = []
    for k in range(90):
        share = np.clip((k - 30) / 30, 0, 1)
        one = view(PICTURE, SIZE, x=2 * np.sin(0.5 * k)).astype(np.float32)
        two = view(other, SIZE, y=1.5 * np.sin(0.3 * k)).astype(np.float32)
        frames_.append(((1 - share) * one + share * two).astype(np.uint8))
    motion = track(frames_)
    assert len(motion.shots) == 2
    assert 35 <= motion.shots[1].start <= 66
    assert [shot.doubt for shot in motion.shots] == [None, None]
    assert all(shot.measurable for shot in motion.shots)
    assert np.ptp(motion.pan_pct[67:]) < 0.1
    assert np.ptp(motion.tilt_pct[67:]) > 0.4


def test_near_things_that_move_otherwise_are_counted():
    near = texture(960, 540, seed=9)

    def both(k):
        frame = view(PICTURE, SIZE, x=2 * np.sin(0.5 * k)).copy()
        frame[160:] = view(near, SIZE, x=9 * np.sin(0.5 * k))[160:]
        return frame

    two, one = track([both(k) for k in range(40)]), track(frames(40, x=lambda k: np.sin(0.5 * k)))
    assert two.outlier_share == pytest.approx(110 / 270, abs=0.12)
    assert one.outlier_share < 0.03
    pan = -2 * np.sin(0.5 * np.arange(40)) / 480 * 100
    assert np.sqrt(np.mean((two.pan_pct - pan) ** 2)) < 0.03


def test_a_texture_that_repeats_is_followed_without_slipping():
    tile = texture(48, 27, seed=3)
    tiled = np.tile(tile, (20, 20))
    shift = [3.0 * np.sin(0.4 * k) for k in range(60)]
    motion = track([view(tiled, SIZE, x=x) for x in shift])
    pan = -(np.array(shift) - shift[0]) / 480 * 100
    assert motion.trusted.all()
    assert np.abs(motion.pan_pct - pan).max() < 0.03


def test_a_picture_of_soft_texture_alone_is_followed_or_refused():
    """Not one point of it is sharp."""
    soft = cv2.GaussianBlur(texture(640, 360), (0, 0), 14)
    frames = [view(soft, (320, 180), x=3 * np.sin(k / 3)) for k in range(45)]
    assert len(track(frames).t_s) == 45
