"""The demo's weeks of practice: dated up to today, alike at every start, and with something true to
find in them."""

from __future__ import annotations

import threading
from dataclasses import replace
from datetime import date

import pytest

from ridgewind.demo import folder, weeks
from ridgewind.library.library import Library
from ridgewind.services import trials
from ridgewind.store import database, drills, listing, sessions

TODAY = date(2026, 5, 30)


def test_sessions_lie_in_the_five_weeks_before_today_and_are_the_same_each_time():
    shelf = drills.shipped()
    days = [weeks.takes_of(day, shelf, today=TODAY) for day in weeks.DAYS]
    assert days == [weeks.takes_of(day, shelf, today=TODAY) for day in weeks.DAYS]
    takes = [one for _, filmed in days for one in filmed]
    assert 12 <= len(days) <= 16
    assert 110 <= len(takes) <= 130
    ages = [(TODAY - one.filmed_at.date()).days for one in takes]
    assert (min(ages), max(ages)) == (2, 34)
    for (plan, filmed), day in zip(days, weeks.DAYS, strict=True):
        assert {block.drill_key for block in plan.blocks} == set(day.drills)
        assert len(filmed) == sum(len(block.order) for block in plan.blocks)


TELLING = {"hands", "elbows", "breath", "strap-tension", "lens-tremor-limit"}
"""Drills in which something true is to be found."""


@pytest.fixture(scope="module")
def practised(tmp_path_factory):
    """A library with what those drills were practised in the weeks, measured."""
    library = Library(tmp_path_factory.mktemp("weeks") / "demo")
    library.root.mkdir()
    folder.begin(library)
    library.prepare()
    telling = [
        replace(day, drills=tuple(key for key in day.drills if key in TELLING))
        for day in weeks.DAYS
        if TELLING & set(day.drills)
    ]
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(weeks, "DAYS", telling)
        weeks.fill_weeks(library, threading.Event(), today=TODAY)
    return library


def test_what_is_true_of_the_modelled_hand_is_found(practised):
    with database.opened(practised.database) as db:
        assert listing.count(db, only=listing.Filter()) == 94
        found = {one.drill.key: trials.of_drill(db, one.drill.key) for one in trials.lines(db)}
    hands = found["hands"].trial.against_control
    assert hands["two"].high < -0.5
    assert found["hands"].trial.place.low > 0.0  # takes get rougher
    assert found["elbows"].trial.hint
    level = found["breath"].trial.against_control["out"]
    assert level.low < 0.0 < level.high
    assert found["strap-tension"].trial.best["firm"] > 0.9
    assert found["lens-tremor-limit"].figure.key == "body"


def test_the_demo_knows_its_own_logs_and_is_made_anew(practised):
    assert folder.begin(practised) is True


def test_a_demo_that_is_stopped_leaves_whole_takes(tmp_path):
    library = Library(tmp_path / "demo")
    library.root.mkdir()
    folder.begin(library)
    library.prepare()
    stopping = threading.Event()
    stopping.set()
    weeks.fill_weeks(library, stopping, today=TODAY)
    with database.opened(library.database) as db:
        assert sessions.recent(db, limit=5) == []
