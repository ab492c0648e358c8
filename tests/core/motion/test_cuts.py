"""Cuts between shots of alike things are found; what passes in front of a shot is none."""

from __future__ import annotations

import cv2
import numpy as np
import pytest

from ridgewind.core.motion.tracker import Tracker
from ridgewind.standin.camera import plan, render_frame, renderer_of
from ridgewind.standin.hazards import SUBJECTS
from tests.conftest import texture, view

SIZE, RATE_HZ = (480, 270), 30


def street(seed: int, count: int, *, covered: float, first: int = 0, comes: bool = False):
    """A street, dark below and bright above, before which a vehicle's side drives by, from a hand
    that sways. comes: the vehicle is not there from the first frame on, but drives in."""
    wall = texture(900, 560, seed=seed).astype(np.float32)
    light = np.linspace(230, 40, 560)[:, None]
    wall = np.clip(0.3 * wall + 0.7 * light, 0, 255).astype(np.uint8)
    side = texture(2400, 270, seed=90 + seed)
    top = round(270 * (1 - covered))
    for k in range(first, first + count):
        picture = view(wall, SIZE, x=4 * np.sin(0.2 * k), y=2 * np.sin(0.13 * k))
        there = min(480, 60 * (k - first)) if comes else 480
        picture[top:, 480 - there :] = side[top:, 9 * k % 1900 :][:, :there]
        yield picture


def shots_of(frames) -> list[tuple[int, int]]:
    tracker = None
    for index, frame in enumerate(frames):
        tracker = tracker or Tracker(frame.shape[::-1])
        tracker.feed(index / RATE_HZ, frame)
    return [(shot.start, shot.stop) for shot in tracker.finish().shots]


@pytest.mark.parametrize("covered", [0.3, 0.45, 0.6])
def test_a_cut_between_two_shots_of_alike_traffic_is_found(covered):
    frames = [*street(1, 40, covered=covered), *street(2, 40, covered=covered, first=40)]
    assert shots_of(frames) == [(0, 40), (40, 80)]


def test_a_cut_to_the_same_from_the_other_side_is_found():
    """A door behind water and its mirror image, which is as bright in the same places."""
    (hazard,) = (one for one in SUBJECTS if one.name == "water, 30 %, in the hand")
    take = plan(hazard.script)
    renderer = renderer_of(take)
    spoil = hazard.spoil(take, renderer)
    frames = []
    for k, t_s in enumerate(take.frame_times_s[:11]):
        picture = spoil(render_frame(take, renderer, t_s, k), k, t_s)
        grey = cv2.cvtColor(picture, cv2.COLOR_BGR2GRAY)
        frames.append(cv2.resize(grey, (640, 360), interpolation=cv2.INTER_AREA))
    mirrored = [frame[:, ::-1].copy() for frame in frames]
    assert shots_of([*frames, *mirrored]) == [(0, 11), (11, 22)]


@pytest.mark.parametrize("covered", [0.3, 0.45, 0.6])
def test_traffic_is_no_cut(covered):
    assert shots_of(street(1, 70, covered=covered)) == [(0, 70)]


def test_something_large_right_after_a_cut_does_not_hide_it():
    frames = [
        *street(1, 40, covered=0.0),
        *street(2, 40, covered=0.6, first=40, comes=True),
    ]
    assert shots_of(frames) == [(0, 40), (40, 80)]


def test_something_large_that_drives_in_is_no_cut():
    frames = [
        *street(1, 30, covered=0.0),
        *street(1, 20, covered=0.6, first=30, comes=True),
        *street(1, 30, covered=0.0, first=50),
    ]
    assert shots_of(frames) == [(0, 80)]
