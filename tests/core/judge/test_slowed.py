"""Slow motion that is stretched in the file: judged as it plays, explained as it was filmed."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip, stretch_of
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.shake import read_motion
from tests.conftest import make_motion, sine

BRIEF = usual_brief()


def both(pan, *, seconds=2.0, stretch=8.0):
    """The same film at 240 a second, played as filmed, and stretched in its file to 30."""
    filmed = make_motion(rate_hz=240, seconds=seconds, pan=pan)
    played = replace(filmed, t_s=5.0 + filmed.t_s * stretch)
    plain = Clip(240.0, seconds, False, (1920, 1080), 26.0)
    slowed = Clip(240.0 / stretch, seconds * stretch, False, (1920, 1080), 26.0, capture_fps=240.0)
    return (
        assess(Analysis(filmed), plain, BRIEF),
        assess(Analysis(played, stretch=slowed.stretch), slowed, BRIEF),
        read_motion(played),
    )


def test_gust_is_of_what_plays_and_all_else_of_what_was_filmed():
    as_filmed, slowed, played = both(sine(0.1, 8))
    assert slowed.gust == pytest.approx(played.gust(), abs=1e-9)
    assert slowed.gust < as_filmed.gust - 2
    assert slowed.body_deg_s == pytest.approx(as_filmed.body_deg_s)
    assert [band.share for band in slowed.bands] == pytest.approx(
        [band.share for band in as_filmed.bands]
    )
    top = max(slowed.bands, key=lambda band: band.share or 0)
    assert top.name == "jitter"
    assert top.strongest_hz == pytest.approx(8, abs=0.3)


def test_a_move_keeps_its_times_in_the_film_and_its_joins_as_they_play():
    def pan(t):
        return 20 * np.clip((t - 1) / 2, 0, 1)

    as_filmed, slowed, _ = both(pan, seconds=4.0)
    a, b = as_filmed.move.move, slowed.move.move
    assert b.extent == pytest.approx(a.extent)
    assert b.start_s == pytest.approx(5.0 + 8 * a.start_s)
    assert b.end_s == pytest.approx(5.0 + 8 * a.end_s)
    assert slowed.move.exit.speed_pct_s == pytest.approx(as_filmed.move.exit.speed_pct_s / 8)


def test_rates_that_only_waver_are_one():
    assert stretch_of(29.97, 30.0) == stretch_of(30.0, None) == 1.0
    assert stretch_of(30.0, 240.0) == 8.0
    with pytest.raises(InvalidArgumentError, match="stretch is 0"):
        Analysis(make_motion(rate_hz=30, seconds=2), stretch=0)
