"""The demo's clips are dated from the day on which it is started, and stay the same films."""

from __future__ import annotations

from datetime import UTC, date, datetime

import pytest

from ridgewind.demo.dating import dated, moment_of
from ridgewind.demo.story import DEMO_TAKES
from ridgewind.media.probe import facts_in, open_film

TODAY = date(2031, 3, 1)


def test_the_last_clip_is_of_yesterday_and_the_first_of_five_weeks_ago():
    moments = [moment_of(one.recorded_at, today=TODAY) for one in DEMO_TAKES]
    assert max(moments).date() == date(2031, 2, 28)
    assert (TODAY - min(moments).date()).days <= 35


def test_a_film_tells_its_new_moment_and_nothing_else_of_it_changes(tmp_path):
    film = DEMO_TAKES[0].file.read_bytes()
    moment = datetime(2031, 2, 27, 9, 5, tzinfo=UTC)
    (tmp_path / "clip.mp4").write_bytes(dated(film, moment))
    with open_film(tmp_path / "clip.mp4") as opened:
        told = facts_in(opened)
    assert datetime.fromisoformat(told.recorded_at) == moment
    assert len(dated(film, moment)) == len(film)
    assert sum(a != b for a, b in zip(film, dated(film, moment), strict=True)) <= 8


def test_a_file_without_such_a_header_is_refused():
    with pytest.raises(ValueError, match="not found"):
        dated(b"no film", datetime(2031, 1, 1, tzinfo=UTC))
