"""The body of a pose: limbs keep their length, feet stand, hands hold, the weight is carried; over
all drills, in every frame of their moves, and over random poses."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.practice.figure import JOINTS, TIPS_FROM_M, solve
from ridgewind.core.practice.playing import play
from ridgewind.core.practice.pose import RANGES, Pose, differences, pose_from
from ridgewind.core.practice.pose_words import describe
from ridgewind.core.practice.skeleton import Lengths, centre_of_mass, outside_by, two_bones
from ridgewind.store.drills import shipped

WAYS = [
    pytest.param(one.pose, id=f"{drill.key}/{one.key}")
    for drill in shipped().values()
    for one in drill.variations
]
BONES = [
    ("shoulder", "elbow", "upper_arm"),
    ("elbow", "hand", "forearm"),
    ("hip", "knee", "thigh"),
    ("knee", "ankle", "shank"),
]
MOST_BEND_DEG = 155.0

POSES = st.builds(
    Pose,
    feet=st.floats(0.3, 1.6),
    ahead=st.floats(-0.5, 0.5),
    knees_deg=st.floats(0, 90),
    turn_deg=st.floats(-40, 40),
    shift=st.floats(-0.9, 0.9),
    lean_deg=st.floats(-5, 20),
    elbows=st.floats(0, 1),
    reach=st.floats(0, 0.7),
    height=st.sampled_from(["eye", "chest", "navel"]),
)


def bend_deg(a, b, c):
    """Of the joint at b, 0 where it is straight."""
    one, other = (b - a) / np.linalg.norm(b - a), (c - b) / np.linalg.norm(c - b)
    return float(np.degrees(np.arccos(np.clip(one @ other, -1, 1))))


def check_limbs(figure, lengths):
    joints = figure.joints
    assert set(joints) == set(JOINTS)
    for side in "rl":
        for start, end, bone in BONES:
            found = np.linalg.norm(joints[f"{start}_{side}"] - joints[f"{end}_{side}"])
            assert found == pytest.approx(getattr(lengths, bone), rel=0.06), f"{bone}_{side}"
        arm = [joints[f"{name}_{side}"] for name in ("shoulder", "elbow", "hand")]
        leg = [joints[f"{name}_{side}"] for name in ("hip", "knee", "ankle")]
        assert bend_deg(*arm) < MOST_BEND_DEG
        assert bend_deg(*leg) < MOST_BEND_DEG


@pytest.mark.parametrize("pose", WAYS)
def test_every_way_of_every_drill_can_be_done(pose):
    """Nothing out of reach, nothing that tips, no joint past its range, from start to end."""
    lengths = Lengths()
    for figure in play(pose, lengths, frames=8).figures:
        assert figure.faults == ()
        check_limbs(figure, lengths)
        lowest = min(place[1] for name, place in figure.joints.items() if "hand" not in name)
        assert lowest > -0.06


@pytest.mark.parametrize("pose", WAYS)
def test_every_way_is_told_in_words(pose):
    told = describe(pose)
    assert told.endswith(".")
    assert 40 < len(told) < 420


@pytest.mark.parametrize("height_m", [1.5, 1.9])
def test_shorter_and_taller_shooters_can_do_it_too(height_m):
    for drill in shipped().values():
        for one in drill.variations:
            figure = solve(one.pose, Lengths(height_m))
            assert figure.tips_m < TIPS_FROM_M, f"{drill.key}/{one.key}"


@settings(deadline=None, max_examples=150)
@given(POSES)
def test_limbs_keep_their_length_whatever_the_pose(pose):
    figure, lengths = solve(pose), Lengths()
    check_limbs(figure, lengths)
    for side in "rl":
        if not any("foot" in fault for fault in figure.faults):
            assert figure.joints[f"ankle_{side}"][1] == pytest.approx(lengths.ankle, abs=1e-6)
        if not any("hand" in fault for fault in figure.faults):
            gap = np.linalg.norm(figure.joints[f"hand_{side}"] - figure.camera)
            assert gap < 0.16, "hands stay on the camera"


@settings(deadline=None, max_examples=60)
@given(POSES)
def test_the_other_way_round_is_the_mirror(pose):
    """Legs and trunk of the mirrored pose are those of the other side."""
    one = solve(pose)
    other = solve(replace(pose, turn_deg=-pose.turn_deg, shift=-pose.shift, ahead=-pose.ahead))
    flip = np.array([-1.0, 1.0, 1.0])
    for name in ("hip", "knee", "ankle", "shoulder"):
        for side, opposite in (("r", "l"), ("l", "r")):
            assert one.joints[f"{name}_{side}"] == pytest.approx(
                flip * other.joints[f"{name}_{opposite}"], abs=1e-6
            )


def test_who_would_tip_or_reach_too_far_is_told():
    figure = solve(Pose(raised=True, shift=1.0, height="thigh", contacts=("thigh",)))
    assert figure.tips_m > TIPS_FROM_M, "over the foot that only rests on a step"
    assert any("tip" in fault for fault in figure.faults)
    out = solve(Pose(reach=1.0, height="over"))
    assert any("out of reach" in fault for fault in out.faults)


def test_weight_outside_of_a_base_is_measured():
    square = [np.array([x, 0.0, z]) for x in (-1.0, 1.0) for z in (-1.0, 1.0)]
    assert outside_by(np.array([0.3, 1.0, 0.2]), square) == 0.0
    assert outside_by(np.array([1.5, 1.0, 0.0]), square) == pytest.approx(0.5)


def test_the_weight_of_a_plain_stance_is_above_the_feet():
    figure = solve(Pose())
    at = centre_of_mass(figure.joints)
    assert abs(at[0]) < 0.03
    assert 0.85 < at[1] < 1.1
    assert -0.1 < at[2] < 0.15


def test_two_bones_reach_or_point():
    near = two_bones(np.zeros(3), np.array([0.3, 0, 0]), 0.3, 0.3, np.array([0.0, 1.0, 0.0]))
    assert near.reached
    assert near.middle[1] > 0
    far = two_bones(np.zeros(3), np.array([2.0, 0, 0]), 0.3, 0.3, np.array([0.0, 1.0, 0.0]))
    assert not far.reached
    assert np.linalg.norm(far.end) == pytest.approx(0.6, rel=0.01)


def test_moves_go_where_they_say():
    push = play(Pose(move="push", ahead=0.45, feet=0.8, knees_deg=26)).figures
    assert push[-1].camera[2] - push[0].camera[2] > 0.2
    slide = play(Pose(move="slide", feet=1.8, knees_deg=34)).figures
    assert abs(slide[-1].camera[0] - slide[0].camera[0]) > 0.3
    assert slide[-1].camera[2] == pytest.approx(slide[0].camera[2], abs=0.02)
    rise = play(Pose(move="rise", contacts=("ribs",))).figures
    assert rise[-1].camera[1] - rise[0].camera[1] > 0.4
    pan = play(Pose(move="pan")).figures
    assert pan[-1].yaw_deg - pan[0].yaw_deg > 60
    lean = play(Pose(move="stick_lean", support="monopod", left="head", feet=1.6)).figures
    assert lean[0].roll_deg * lean[-1].roll_deg < 0, "a stick that leans tips the horizon"


def test_a_long_stance_dips_more_than_a_short_one():
    def dip(ahead):
        heights = [
            one.camera[1] for one in play(Pose(move="push", ahead=ahead, knees_deg=12)).figures
        ]
        return max(heights) - min(heights)

    assert dip(0.7) > dip(0.4)


@pytest.mark.parametrize("gait", ["heel", "ball", "flat", "line"])
def test_schools_of_walking_differ_where_they_say(gait):
    figures = play(Pose(move="walk", ahead=0.5, feet=0.6, gait=gait)).figures
    landing = figures[0].joints
    toe_over_heel = landing["toe_r"][1] - landing["ankle_r"][1]
    if gait == "heel":
        assert toe_over_heel > 0.03
    if gait == "ball":
        assert toe_over_heel < -0.05
    lowest = [min(f.joints["ankle_r"][1], f.joints["ankle_l"][1]) for f in figures]
    assert max(lowest) < 0.25, "one foot is always down in a walk"
    tops = [f.joints["ankle_r"][1] for f in figures]
    swing = max(tops) - min(tops)
    assert swing < 0.06 if gait == "flat" else swing > 0.06


def test_a_pose_is_read_over_another_and_refused_where_it_cannot_be():
    base = pose_from({"feet": 0.5, "contacts": ["ribs"]})
    own = pose_from({"feet": 1.5}, base)
    assert (own.feet, own.contacts) == (1.5, ("ribs",))
    assert differences(base, own) == ("feet",)
    with pytest.raises(InvalidArgumentError, match="no pose has"):
        pose_from({"wings": 2})
    with pytest.raises(InvalidArgumentError):
        pose_from({"feet": RANGES["feet"][1] + 1})
    with pytest.raises(InvalidArgumentError):
        pose_from({"left": "tentacle"})
