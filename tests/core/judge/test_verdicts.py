"""A table of cases: which remedy is the verdict, in which order they stand, and why not."""

from __future__ import annotations

import re
from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge import Analysis, Weights, assess
from ridgewind.core.judge.cost import Price
from ridgewind.core.judge.next_time import LensRange, Record, hints_for
from tests.conftest import make_motion, sine


def rough_ends(t):
    return np.where((t > 3) & (t < 8), 0.02, 1.2) * np.sin(9 * t)


CALM = {"pan": sine(0.05, 2)}
TREMBLE = {"tilt": sine(0.08, 7)}
BOUNCE = {"tilt": sine(0.5, 2)}
WILD = {"pan": sine(3.0, 3)}
ENDS = {"pan": rough_ends}
BRISK = {"pan": sine(0.45, 4)}
HALF = {"pan": lambda t: np.where(t < 5, 0.12, 1.5) * np.sin(2 * np.pi * 2 * t)}

CASES = [
    # name, motion, frames a second, sound, brief, verdict, words of a remedy that is not open
    ("calm", CALM, 30, True, {}, "keep", {}),
    ("calm in the middle", ENDS, 30, True, {"wanted_s": 3.0}, "lee", {"keep": "Over target"}),
    ("tremble, frames to spare", TREMBLE, 60, False, {}, "slow", {"lee": "No full second"}),
    ("tremble, sound kept", TREMBLE, 60, True, {"keep_sound": True}, "polish",
     {"slow": "keeps the sound", "slow_polish": "cannot be slowed"}),
    ("bounce, no frames to spare", BOUNCE, 25, False, {}, "polish",
     {"slow": "leave no room at 24"}),
    ("bounce, no crop allowed", BOUNCE, 25, False, {"most_crop_pct": 0.0}, "retake",
     {"polish": "Not open: the lightest takes"}),
    ("bounce, too little crop allowed", BOUNCE, 25, False, {"most_crop_pct": 0.55}, "retake",
     {"polish": "Still over target with"}),
    ("wild", WILD, 30, False, {}, "retake", {"polish": "smears"}),
    ("calm, but not for long enough", ENDS, 30, True, {"wanted_s": 4.5, "keep_sound": True},
     "polish_lee", {"lee": "Calm, but 3.9 s"}),
    ("tremble that slowing does not cure", {"tilt": sine(0.3, 4)}, 48, False,
     {"most_crop_pct": 0.0}, "retake", {"slow": "Still over target when slowed"}),
    ("calm again, slowed, but too briefly", {"pan": lambda t: np.where(t < 2, 0.05, 2.0)
     * np.sin(9 * t)}, 30, False, {"wanted_s": 8.0, "most_crop_pct": 0.0}, "retake",
     {"slow": "You want 8 s"}),
    ("short bounce", BOUNCE, 30, False, {"wanted_s": 20.0}, "polish",
     {"polish_lee": "no longer than what you want"}),
    ("alive allows it", BOUNCE, 30, False, {"feel": "raw"}, "keep", {}),
]  # fmt: skip


def judged(motion, *, fps, sound=False, weights=None, size_px=(1920, 1080), **brief):
    clip = Clip(fps, len(motion.t_s) / fps, sound, size_px, 26.0)
    analysis = Analysis(motion)
    return assess(analysis, clip, replace(usual_brief(), **brief), weights=weights).decision


@pytest.mark.parametrize(
    ("parts", "fps", "sound", "brief", "verdict", "closed"),
    [case[1:] for case in CASES],
    ids=[case[0] for case in CASES],
)
def test_the_verdict_of_every_case(parts, fps, sound, brief, verdict, closed):
    found = judged(make_motion(rate_hz=fps, seconds=11, **parts), fps=fps, sound=sound, **brief)
    assert found.remedy == verdict
    for kind, words in closed.items():
        assert not found.of(kind).passes
        assert words in found.of(kind).reason


def test_remedies_stand_from_cheap_to_dear_with_as_shot_first_and_again_last():
    found = judged(make_motion(rate_hz=60, seconds=11, **TREMBLE), fps=60, sound=True)
    points = [one.points for one in found.remedies]
    assert found.remedies[0].kind == "keep"
    assert found.remedies[-1].kind == "retake"
    assert points[1:] == sorted(points[1:])
    passing = [one for one in found.remedies if one.passes]
    assert found.remedy == min(passing, key=lambda one: one.points).kind


def test_weights_change_which_remedy_is_cheapest():
    motion = make_motion(rate_hz=60, seconds=11, **TREMBLE)
    assert judged(motion, fps=60, sound=True).remedy == "slow"
    loves_sound = Weights(sound=5.0, desk=0.25)
    assert judged(motion, fps=60, sound=True, weights=loves_sound).remedy == "polish"


def test_the_lee_polished_where_polish_of_all_would_need_too_much():
    motion = make_motion(rate_hz=30, seconds=11, **HALF)
    found = judged(motion, fps=30, most_crop_pct=0.6, wanted_s=4.0, feel="locked")
    lee = found.of("polish_lee")
    assert lee.passes
    assert not found.of("polish").passes
    assert found.remedy == "polish_lee"
    assert lee.end_s < 5.1
    assert "Polish the lee: gust" in found.text


def test_the_lee_says_where_its_best_part_lies_and_the_room_at_its_ends():
    found = judged(make_motion(rate_hz=30, seconds=11, **ENDS), fps=30, wanted_s=3.0).of("lee")
    assert "Best 3 s from" in found.reason
    assert re.search(r"room of \d\.\d s before and \d\.\d s after", found.reason)


def test_a_shorter_shutter_smears_less():
    motion = make_motion(rate_hz=30, seconds=11, **WILD)
    clip = Clip(30, 11.0, False, (1920, 1080), 26.0)
    brief = replace(usual_brief(), most_crop_pct=40.0)
    half, eighth = (
        assess(Analysis(motion), replace(clip, shutter_share=share), brief).decision.of("polish")
        for share in (0.5, 0.05)
    )
    assert "smears" in half.reason
    assert "smears" not in eighth.reason
    assert eighth.points < half.points


def test_prices_add_up_and_refuse_odd_weights():
    assert Price().points(Weights()) == 0
    assert Price(crop_pct=10).points(Weights()) == pytest.approx(2)
    assert Price(rate=0.5).points(Weights(seconds=2)) == pytest.approx(2)
    assert Price(enlarge=2.0).points(Weights(sharpness=0)) == 0
    with pytest.raises(InvalidArgumentError, match="desk is 6"):
        Weights(desk=6)


def hints(motion, *, fps=25.0, focal=85.0, reached=False, records=(), lenses=(), rates=(), **brief):
    return {
        hint.kind: hint.text
        for hint in hints_for(
            Analysis(motion), replace(usual_brief(), **brief), focal_eq_mm=focal, fps=fps,
            lenses=lenses, rates_hz=rates, records=records, reached=reached,
        )
    }  # fmt: skip


def test_next_time_a_wider_lens_a_faster_rate_or_a_steadier_way():
    motion = make_motion(rate_hz=25, seconds=8, pan=sine(0.2, 1.6))
    steady = Record("Monopod", (0.4, 0.5, 0.3), (85.0, 85.0, 85.0))
    found = hints(
        motion,
        lenses=[LensRange("Standard zoom", 24.0, 70.0), LensRange("Long", 100.0, 300.0)],
        rates=[25.0, 50.0, 100.0],
        records=[steady],
    )
    assert found["lens"].startswith("Standard zoom at ")
    focal = int(found["lens"].split(" at ")[1].split(" mm")[0])
    assert 40 < focal < 70
    assert found["rate"].startswith("50 frames a second, played at 48 %")
    assert found["support"].startswith("Monopod: usually 2.5 at this lens, over 3 takes.")
    assert "which your kit lacks" in hints(motion)["lens"]
    assert "a hint, no more" in hints(motion, records=[Record("Wall", (0.4,), (85.0,))])["support"]


def test_nothing_is_suggested_for_a_take_that_passes():
    assert hints(make_motion(rate_hz=25, seconds=8, pan=sine(0.03, 1.6))) == {}


def test_three_legs_are_wanted_only_when_nothing_on_record_reaches_the_target():
    motion = make_motion(rate_hz=25, seconds=8, pan=sine(2.0, 2))
    poor = Record("Bare hands", (9.0, 8.0, 10.0), (24.0, 24.0, 24.0))
    found = hints(motion, focal=24.0, feel="locked", records=[poor], rates=[25.0])
    assert list(found) == ["three_legs"]
    assert "three legs or a stabilising machine" in found["three_legs"]
    few = Record("Bare hands", (9.0,), (24.0,))
    assert hints(motion, focal=24.0, feel="locked", records=[few]) == {}
    assert hints(motion, focal=24.0, feel="locked", records=[poor], reached=True) == {}
