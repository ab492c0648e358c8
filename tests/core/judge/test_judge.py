"""Remedies in their order, and verdicts that say why."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.analysis import MOST_READINGS
from ridgewind.services.assessing import side_by_side
from tests.conftest import make_motion, sine


def judged(motion, *, fps=30.0, has_sound=False, size_px=(1920, 1080), focal_eq_mm=26.0, **brief):
    clip = Clip(fps, len(motion.t_s) / fps, has_sound, size_px, focal_eq_mm)
    # Polish has tests of its own; here nothing may be cropped.
    return assess(Analysis(motion), clip, replace(usual_brief(), **{"most_crop_pct": 0.0} | brief))


def remedies(assessment):
    return {remedy.kind: remedy for remedy in assessment.decision.remedies}


CALM = make_motion(rate_hz=30, seconds=8, pan=sine(0.05, 2))
ROUGH = make_motion(rate_hz=30, seconds=8, pan=sine(1.0, 2))
CALM_THEN_ROUGH = make_motion(
    rate_hz=30, seconds=10, pan=lambda t: np.where(t < 6, 0.03, 2.0) * np.sin(12 * t)
)
TREMBLING = make_motion(rate_hz=60, seconds=6, tilt=sine(0.08, 7))


def test_a_calm_take_is_kept_as_shot():
    found = judged(CALM)
    assert found.decision.remedy == "keep"
    assert found.decision.text.startswith("Keep it as shot: gust")


def test_what_stands_still_is_told_to_change_nothing():
    still = judged(make_motion(rate_hz=30, seconds=6))
    assert remedies(still)["retake"].reason.startswith("There is nothing to change")
    assert remedies(judged(CALM))["retake"].reason.startswith("First cause")


def test_a_calm_but_short_take_is_kept_and_says_so():
    short = make_motion(rate_hz=30, seconds=3, pan=sine(0.05, 2))
    found = judged(short, wanted_s=5)
    assert found.decision.remedy == "keep"
    assert "3.0 s where you want 5 s" in found.decision.text


def test_the_lee_is_kept_when_it_is_long_enough():
    assert judged(CALM_THEN_ROUGH, wanted_s=4).decision.remedy == "lee"
    longer = judged(CALM_THEN_ROUGH, wanted_s=9, keep_sound=True)
    assert longer.decision.remedy == "retake"
    assert "You want 9 s" in remedies(longer)["lee"].reason


def test_slowing_is_the_remedy_for_fast_shake_at_a_high_rate():
    found = judged(TREMBLING, fps=60)
    assert found.decision.remedy == "slow"
    slow = remedies(found)["slow"]
    assert slow.rate == pytest.approx(0.4)
    assert slow.plays_s == pytest.approx(15.0)
    assert slow.gust < found.gust


def test_slowing_is_not_open_with_sound_to_keep_or_without_frames_to_spare():
    assert "keeps the sound" in remedies(judged(TREMBLING, fps=60, keep_sound=True))["slow"].reason
    assert "no room at 24" in remedies(judged(ROUGH, fps=25))["slow"].reason


def test_sound_is_named_as_the_cost_of_slowing():
    assert remedies(judged(TREMBLING, fps=60, has_sound=True))["slow"].cost == "sound lost"


def test_a_hopeless_take_is_done_again_with_one_thing_to_change():
    found = judged(ROUGH, keep_sound=True)
    assert found.decision.remedy == "retake"
    assert "First cause: unsteady hold (100 %)" in found.decision.text
    assert "near 2.0 Hz in pan" in found.causes.causes[0].evidence
    assert found.causes.causes[0].change in remedies(found)["retake"].reason
    assert "Its calmest 4 s, from" in remedies(found)["lee"].reason


def test_the_feel_and_the_screen_move_the_verdict():
    middling = make_motion(rate_hz=25, seconds=8, pan=sine(0.3, 1.6))
    assert judged(middling, fps=25).decision.remedy == "retake"
    assert judged(middling, fps=25, feel="raw").decision.remedy == "keep"
    on_phone = judged(middling, fps=25, screen="phone")
    assert on_phone.gust == pytest.approx(judged(middling, fps=25).gust - 1.65, abs=0.01)


def test_body_speed_compares_lenses():
    wide, long = (judged(ROUGH, focal_eq_mm=f).body_deg_s for f in (26, 52))
    assert wide == pytest.approx(2 * long)
    assert wide == pytest.approx(7.69 * 20.63 / 26, rel=0.01)


def test_a_brief_refuses_what_it_does_not_know():
    with pytest.raises(InvalidArgumentError, match="feel is 'wobbly', but it must be one of"):
        replace(usual_brief(), feel="wobbly")
    with pytest.raises(InvalidArgumentError, match="own_target is 11"):
        replace(usual_brief(), own_target=11)


def test_a_wider_lens_is_suggested_where_the_same_hand_would_pass():
    middling = make_motion(rate_hz=25, seconds=8, pan=sine(0.2, 1.6))
    found = judged(middling, fps=25, focal_eq_mm=85)
    said = remedies(found)["retake"].reason
    focal = float(said.split("At ")[1].split(" mm")[0])
    same_hand = make_motion(rate_hz=25, seconds=8, pan=sine(0.2 * focal / 85, 1.6))
    wider = judged(same_hand, fps=25, focal_eq_mm=focal)
    assert found.decision.remedy == "retake"
    assert wider.decision.remedy == "keep"
    assert "same hand" not in remedies(judged(ROUGH, focal_eq_mm=20))["retake"].reason


def test_a_picture_smaller_than_its_delivery_says_so():
    small = judged(CALM, size_px=(1280, 720), delivery_width_px=3840, delivery_height_px=2160)
    assert "Enlarged 3.0 times for 3840 px." in remedies(small)["keep"].reason
    assert "nlarged" not in remedies(judged(CALM))["keep"].reason


def test_an_analysis_is_safe_between_threads_and_keeps_what_was_asked_for_last():
    analysis = Analysis(make_motion(rate_hz=30, seconds=4, pan=sine(1.0, 1.3)))
    rates = [1.0 / k for k in range(1, 20)]
    with ThreadPoolExecutor(6) as pool:
        found = list(pool.map(analysis.reading, rates * 6))
    alone = [Analysis(analysis.motion).reading(rate).gust() for rate in rates]
    assert [reading.gust() for reading in found] == alone * 6
    first = analysis.reading(1.0)
    for rate in rates[1:MOST_READINGS]:
        analysis.reading(rate)
        assert analysis.reading(1.0) is first


def test_worked_out_side_by_side_it_is_the_same_judgement():
    motion = make_motion(rate_hz=60, seconds=20, pan=sine(0.6, 2.3), tilt=sine(0.3, 6.1))
    clip = Clip(60.0, 20.0, True, (1920, 1080), 26.0)
    for fps in (24.0, 30.0, 60.0):
        brief = replace(usual_brief(), delivery_fps=fps)
        one = assess(Analysis(motion), clip, brief)
        other = assess(Analysis(motion), clip, brief, side_by_side=side_by_side)
        assert other.decision == one.decision
        assert (other.causes, other.bands, other.lee) == (one.causes, one.bands, one.lee)


def test_what_fails_side_by_side_is_raised():
    def fails():
        raise ValueError("in one of the parts")

    with pytest.raises(ValueError, match="one of the parts"):
        side_by_side([lambda: None, fails])
