"""A marked subject is followed both ways, and its distance from the middle is right."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.follow import Follower
from ridgewind.core.motion.subject import Mark, SubjectPath, centring_of
from ridgewind.films import following as work
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film, plan, renderer_of
from tests.conftest import texture, view

CENTRING_TOLERANCE_PCT = 0.5
SCRIPT = Script("stones", "slide", Technique(contacts=1), 26.0, size=(640, 360), fps=25.0,
                seconds=4.0, seed=6)  # fmt: skip


def hub_path():
    """Where the millstone's eye is seen in each frame, percent of the long side."""
    take = plan(SCRIPT)
    renderer = renderer_of(take)
    layer = next(one for one in renderer.scene.layers if one.name == "millstone")
    times = take.frame_times_s
    covered = np.argwhere(layer.image[..., 3] > 128)
    middle = np.append((covered.min(axis=0) + covered.max(axis=0))[::-1] / 2, 1.0)
    seen = np.array([renderer.homography(layer, pose, 0.0) @ middle for pose in take.poses(times)])
    px = seen[:, :2] / seen[:, 2:]
    return times, 100 * (px - [319.5, 179.5]) / 640


@pytest.fixture(scope="module")
def slide(tmp_path_factory):
    path = tmp_path_factory.mktemp("slide") / "take.mp4"
    film(SCRIPT, path)
    return path


def followed(path, mark, **known):
    return work.followed(path, mark, **{"rate_hz": 25.0, "length_s": 4.0} | known)


def test_a_subject_is_followed_both_ways_through_a_slide(slide):
    times, true = hub_path()
    marked = 50
    x, y = true[marked] / 100 * 640
    mark = Mark(float(times[marked]), (x + 319.5) / 639, (y + 179.5) / 359)
    told = []
    path = followed(slide, mark, on_progress=told.append)
    assert told == sorted(told)
    assert 0 < told[0] < 0.1
    assert told[-1] == pytest.approx(1, abs=0.05)
    assert path.t_s == pytest.approx(times, abs=0.01)
    assert np.isfinite(path.x_pct).mean() > 0.95
    off = np.hypot(path.x_pct - true[:, 0], path.y_pct - true[:, 1])
    assert np.nanmax(off) < CENTRING_TOLERANCE_PCT
    found = centring_of(path, from_s=0.0, to_s=4.0)
    away = np.hypot(*true.T)
    assert found.rms_pct == pytest.approx(np.sqrt(np.mean(away**2)), abs=CENTRING_TOLERANCE_PCT)
    assert found.worst_pct == pytest.approx(away.max(), abs=CENTRING_TOLERANCE_PCT)


def test_it_goes_back_in_strides_as_in_one(slide, monkeypatch):
    mark = Mark(3.0, 0.5, 0.6)
    at_once = followed(slide, mark)
    monkeypatch.setattr(work, "HELD_PICTURES", 12)
    in_strides = followed(slide, mark, rate_hz=None, length_s=None)
    assert np.array_equal(at_once.t_s, in_strides.t_s)
    assert np.array_equal(at_once.x_pct, in_strides.x_pct, equal_nan=True)
    assert len(at_once.t_s) == 100


def test_only_what_is_looked_at_is_decoded(long_film, monkeypatch):
    monkeypatch.setattr(work, "LONGEST_BACK_S", 1.0)
    monkeypatch.setattr(work, "LONGEST_ON_S", 0.5)
    seen = []
    shrink = work.pyramid.to_working
    monkeypatch.setattr(work.pyramid, "to_working", lambda luma: seen.append(1) or shrink(luma))
    path = work.followed(long_film, Mark(25.0, 0.5, 0.5), rate_hz=30.0, length_s=30.0)
    assert path.t_s[[0, -1]] == pytest.approx([24.0, 25.5], abs=0.05)
    assert np.isfinite(path.x_pct).all()
    # Of 900 pictures: 45 followed, and those since a picture that can be decoded by itself.
    assert len(seen) < 45 + 2 * 250 + 10


def test_what_is_hidden_is_lost_and_found_again_near_by():
    picture = texture(960, 540)
    frames = [view(picture, (480, 270), x=0.8 * k) for k in range(40)]
    for k in range(15, 21):
        frames[k] = texture(480, 270, seed=9)
    follower = Follower(frames[0], (200.0, 120.0))
    seen = [follower.next(frame) for frame in frames[1:]]
    assert all(at is None for at in seen[14:20])
    assert seen[-1] == pytest.approx((200 + 0.8 * 39, 120), abs=0.5)


def test_what_is_gone_is_given_up():
    follower = Follower(texture(480, 270), (240.0, 135.0))
    rng = np.random.default_rng(3)
    other = [rng.integers(0, 255, (270, 480)).astype(np.uint8) for _ in range(25)]
    assert all(follower.next(frame) is None for frame in other)


def test_centring_by_hand():
    path = SubjectPath(np.arange(4.0), np.array([3.0, np.nan, 0.0, 9.0]), np.array([4.0, 0, 0, 0]))
    found = centring_of(path, from_s=0, to_s=2)
    assert (found.worst_pct, found.worst_s) == (5.0, 0.0)
    assert found.rms_pct == pytest.approx((25 / 2) ** 0.5)
    assert found.followed == pytest.approx(2 / 3)
    assert centring_of(path, from_s=1, to_s=1.5) is None


def test_a_mark_outside_the_picture_or_the_film_is_refused(short_film):
    with pytest.raises(InvalidArgumentError, match="between 0 and 1"):
        followed(short_film, Mark(0.5, 1.2, 0.5))
    with pytest.raises(InvalidArgumentError, match="within the film"):
        followed(short_film, Mark(99.0, 0.5, 0.5), length_s=None)
