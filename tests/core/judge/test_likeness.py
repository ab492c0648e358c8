"""How like its example a take shakes: bands and move, told apart from how much."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.brief import Likeness, usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.likeness import compare
from ridgewind.core.shake.bands import NAMES, Band
from tests.conftest import make_motion, sine

CLIP = Clip(30.0, 8.0, False, (1920, 1080), 26.0)


def bands(**shares):
    return [Band(name, shares.get(name), None, None) for name in NAMES]


def like(move=None, **shares):
    return Likeness("the old film", shares, move, None if move is None else 3.0)


def test_the_same_kinds_are_alike_and_the_rest_is_named():
    near = compare(like(sway=0.8, jitter=0.2), bands(sway=0.7, jitter=0.3), None)
    assert (near.alike, near.more, near.same_move) == (True, "", True)
    assert near.apart == pytest.approx(0.1)
    far = compare(like(sway=0.8, jitter=0.2), bands(sway=0.1, step=0.2, jitter=0.7), None)
    assert not far.alike
    assert (far.more, far.less) == ("jitter", "sway")


def test_bands_that_a_frame_rate_cannot_show_count_on_neither_side():
    found = compare(like(sway=0.4, jitter=0.1, buzz=0.5), bands(sway=0.8, jitter=0.2), None)
    assert found.apart == pytest.approx(0.0, abs=1e-9)
    assert set(found.example) == {"sway", "jitter"}
    assert compare(like(buzz=1.0), bands(sway=1.0), None) is None
    assert compare(like(sway=1.0), bands(sway=0.0), None) is None


shares = st.fixed_dictionaries({name: st.floats(0.01, 1.0) for name in NAMES})


@given(shares, shares)
def test_apart_is_a_share_and_the_same_either_way(one, other):
    there = compare(like(**one), bands(**other), None).apart
    back = compare(like(**other), bands(**one), None).apart
    assert 0.0 <= there <= 1.0
    assert there == pytest.approx(back)
    assert compare(like(**one), bands(**one), None).apart == pytest.approx(0.0, abs=1e-9)


def test_a_verdict_tells_of_it_and_passes_by_gust_all_the_same():
    rng = np.random.default_rng(1)
    sway = make_motion(rate_hz=30, seconds=8, pan=sine(0.6, 0.7), tilt=sine(0.3, 0.9))
    tremor = make_motion(
        rate_hz=30, seconds=8, pan=sine(0.02, 8.0), tilt=lambda t: rng.normal(0, 0.002, len(t))
    )
    brief = replace(usual_brief(), likeness=like(sway=0.95, jitter=0.05))
    found = {
        name: assess(Analysis(one), CLIP, brief)
        for name, one in (("sway", sway), ("tremor", tremor))
    }
    assert found["sway"].likeness.alike
    assert found["tremor"].likeness.more == "jitter"
    plain = assess(Analysis(tremor), CLIP, usual_brief())
    assert plain.likeness is None
    assert found["tremor"].decision.remedy == plain.decision.remedy


def test_another_move_than_the_examples_is_told():
    def turn(t):
        return 20.0 * np.clip((t - 2.0) / 4.0, 0.0, 1.0)

    pan = make_motion(rate_hz=30, seconds=8, pan=turn)
    for move, same in (("pan", True), ("push", False), (None, False)):
        brief = replace(
            usual_brief(), likeness=like(move, drift=0.2, sway=0.5, step=0.2, jitter=0.1)
        )
        found = assess(Analysis(pan), CLIP, brief)
        assert found.move.move.kind == "pan"
        assert (found.likeness.move, found.likeness.same_move) == ("pan", same)


def test_a_share_is_a_share():
    with pytest.raises(InvalidArgumentError, match="share of sway"):
        like(sway=1.2)


def test_a_picture_that_hardly_moves_is_like_nothing():
    still = make_motion(rate_hz=30, seconds=8, pan=sine(0.002, 8.0))
    brief = replace(usual_brief(), likeness=like(sway=0.8, jitter=0.2))
    assert assess(Analysis(still), CLIP, brief).likeness is None
