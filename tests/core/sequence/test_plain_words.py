"""Lines of plain words, read into shots."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.plain_words import read_line
from ridgewind.core.sequence.shot import PlannedShot as Shot
from ridgewind.core.sequence.shot import check_shot

LINES = [
    ("wide of the mill, low, pan left 6 s, gate in front, twice",
     Shot("the mill", "wide", "low", "pan", "left", foreground="gate", seconds=6, part="where",
          takes=2)),
    ("close on the millstones, push in 4 s, slow",
     Shot("the millstones", "close", move="push_in", heading="in", seconds=4, playback=0.5)),
    ("the miller walks into the frame, medium, eye level, with sound, ask the miller",
     Shot("the miller", enters=True, sound=True, part="who", ask="the miller")),
    ("Detail of the sack hoist rope from below at evening 3.5s",
     Shot("the sack hoist rope", "detail", "low", seconds=3.5, part="detail", light="evening")),
    ("slide from left to right past the fence, wide of the ridge",
     Shot("the ridge", "wide", move="slide", heading="right", foreground="the fence",
          part="where")),
    ("slide from the right past the fence, wide of the ridge",
     Shot("the ridge", "wide", move="slide", heading="left", foreground="the fence",
          part="where")),
    ("wide of the mill, gate in front",
     Shot("the mill", "wide", foreground="gate", part="where")),
    ("hands on the brake wheel", Shot("hands on the brake wheel", part="who")),
    ("still of the whole mill with grass in front, ground level, three takes",
     Shot("the whole mill", height="ground", foreground="grass", part="who", takes=3)),
    ("wide, the track up the hill, arriving, walking in 8 seconds",
     Shot("the track up the hill", "wide", move="walk", heading="in", seconds=8, part="where")),
    ("orbit left round the stones, close, match the motion",
     Shot("the stones", "close", move="orbit", heading="left", joins="motion")),
    ("pull back from the cap, wide, leaving",
     Shot("the cap", "wide", move="pull_out", heading="out", part="leaving")),
]  # fmt: skip


@pytest.mark.parametrize(("line", "shot"), LINES)
def test_a_line_is_read(line, shot):
    assert read_line(line).shot == shot


def test_what_was_understood_is_told():
    told = dict(read_line("close on the cap, tilt up, 7 s").understood)
    assert told == {"tilt up": "move", "7 s": "seconds", "close": "size"}


@pytest.mark.parametrize("line", ["", "  ", "wide, pan left, 5 s"])
def test_a_line_that_shows_nothing_is_refused(line):
    with pytest.raises(InvalidArgumentError, match="it must say what is shown"):
        read_line(line)


@given(st.text(max_size=100))
def test_any_line_is_a_shot_that_can_be_or_is_refused(line):
    try:
        shot = read_line(line).shot
    except InvalidArgumentError:
        return
    assert check_shot(shot) == shot
