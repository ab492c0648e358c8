"""The words of every drill, for who reads them for the first time, outdoors."""

from __future__ import annotations

import re

import pytest

from ridgewind.store.drills import shipped

DRILLS = [pytest.param(drill, id=drill.key) for drill in shipped().values()]
RIDDLES = re.compile(r"won before|at its mark|on the bench|as above|see the|the other page", re.I)
"""What says nothing to who has read no other page."""


@pytest.mark.parametrize("drill", DRILLS)
def test_every_part_is_there_within_its_length(drill):
    assert 3 <= len(drill.set_up) <= 6
    for step in drill.set_up:
        assert 12 <= len(step) <= 130, step
        assert step[0].isupper()
        assert step.endswith("."), step
    assert 20 <= len(drill.move) <= 130
    assert 20 <= len(drill.feels) <= 150
    assert 12 <= len(drill.purpose) <= 90
    assert drill.use
    assert drill.avoid
    assert drill.faults
    assert drill.cautions


@pytest.mark.parametrize("drill", DRILLS)
def test_no_step_leans_on_what_another_page_said(drill):
    for text in (*drill.set_up, drill.move, drill.feels):
        assert not RIDDLES.search(text), text


@pytest.mark.parametrize("drill", DRILLS)
def test_each_way_says_how_and_why(drill):
    for one in drill.variations:
        assert one.how
        assert one.reason


def test_what_is_read_aloud_fits_into_setting_up():
    """At an easy pace of fifteen letters a second, in the 45 seconds that a block has."""
    for drill in shipped().values():
        assert len(" ".join(drill.set_up)) / 15.0 < 40.0, drill.key
