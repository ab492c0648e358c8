"""Causes, steps and fatigue, against takes whose cause is known because it was put there."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.shake import read_motion
from ridgewind.core.shake.causes import LEAST_SHARE, MOST_CAUSES, find_causes
from ridgewind.core.shake.reading import band_shares
from ridgewind.standin.body import Body, Technique
from ridgewind.standin.camera import Script
from ridgewind.standin.faults import PAIRS, SINGLE, paired_takes, path_of, single_takes

FIRST_RIGHT, PAIR_RIGHT = 0.9, 0.8


def causes_of(motion, *, moves=False):
    reading = read_motion(motion)
    return find_causes(reading, band_shares(reading)[1], moves=moves)


@pytest.fixture(scope="module")
def singles():
    return [(take, causes_of(take.motion)) for take in single_takes(8, seed=2)]


def test_the_one_cause_that_rules_is_named_first(singles):
    assert len(singles) == 8 * len(SINGLE) >= 60
    right = [found.causes and found.causes[0].key == take.causes[0] for take, found in singles]
    assert np.mean([bool(one) for one in right]) >= FIRST_RIGHT


def test_of_two_causes_both_are_named():
    takes = list(paired_takes(2, seed=5))
    assert len(takes) == 2 * len(PAIRS) >= 20
    right = [
        {cause.key for cause in causes_of(take.motion).causes[:2]} == set(take.causes)
        for take in takes
    ]
    assert np.mean(right) >= PAIR_RIGHT


def test_what_is_said_of_a_cause_is_whole(singles):
    for _, found in singles:
        assert len(found.causes) <= MOST_CAUSES
        shares = [cause.share for cause in found.causes]
        assert shares == sorted(shares, reverse=True)
        assert sum(shares) <= 1 + 1e-6
        for cause in found.causes:
            assert cause.share >= LEAST_SHARE
            assert 0 < cause.certainty <= 1
            assert cause.evidence.endswith(".")
            assert cause.change.endswith(".")


def test_the_cadence_is_right_to_two_percent(singles):
    walks = [(take, found) for take, found in singles if take.causes[0] == "footfalls"]
    for take, found in walks:
        true_hz = take.script.technique.cadence_hz
        assert found.steps.cadence_hz == pytest.approx(true_hz, rel=0.02)
        assert f"{60 * found.steps.cadence_hz:.0f} steps a minute" in found.causes[0].evidence


def test_nobody_walks_in_a_take_that_stands(singles):
    standing = [found for take, found in singles if take.script.technique.cadence_hz == 0]
    assert np.mean([found.steps is None for found in standing]) >= 0.95


def walk(**technique):
    how = Technique(contacts=4, sway=0.3, breath=0.3, cadence_hz=1.8, **technique)
    return causes_of(path_of(Script(technique=how, fps=60.0, seconds=12.0, seed=3))).steps


def test_a_hard_heel_and_an_uneven_gait_are_read():
    soft, hard = walk(landing=0.1), walk(landing=2.0)
    assert hard.hardness > 1.15 * soft.hardness
    body = Body(Technique(unevenness=1.0), seed=3)
    even, lame = walk(landing=2.0), walk(landing=2.0, unevenness=1.0)
    assert even.evenness > 0.85
    assert lame.evenness < even.evenness - 0.1
    assert lame.evenness == pytest.approx(body.evenness, abs=0.3)


@pytest.mark.parametrize("seed", range(6))
def test_no_cause_is_claimed_where_the_camera_stood_locked_off(seed):
    locked = Technique(support="table", contacts=4, mass_kg=2.0)
    found = causes_of(path_of(Script(technique=locked, seconds=8.0, fps=30.0, seed=seed + 1)))
    assert found.causes == ()
    assert found.steps is None


def test_growing_tremor_says_when_it_matters():
    tired = Technique(contacts=1, elbows_in=False, fatigue=2.0, sway=0.3)
    found = causes_of(path_of(Script(technique=tired, seconds=14.0, fps=50.0, seed=5)))
    # Tremor grows as 1 + t / 6: its first third is 1.39 at the mean, so 1.5 times that at 6.5 s.
    assert found.fatigue.growth == pytest.approx((1 + 11.67 / 6) / (1 + 2.33 / 6), rel=0.2)
    assert found.fatigue.passes_at_s == pytest.approx(6.5, abs=1.5)
    assert found.causes[0].name == "Tremor, growing"
    assert "Keep takes under" in found.causes[0].change
    fresh = causes_of(
        path_of(Script(technique=replace(tired, fatigue=0.0), seconds=14.0, fps=50.0))
    )
    assert fresh.fatigue.passes_at_s is None
    assert fresh.causes[0].name == "Tremor"


def test_a_meant_move_is_not_body_sway():
    pan = Script("ridge", "pan", Technique(contacts=4, sway=0.2, breath=0.2), seconds=6.0, fps=50.0)
    names = [cause.key for cause in causes_of(path_of(pan), moves=True).causes]
    assert "wander" not in names
    assert "breath" not in names
