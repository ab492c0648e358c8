"""Cuts on the beat."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.pace import Knot
from ridgewind.core.sequence.piece import Piece
from ridgewind.core.sequence.tempo import beat_frame, is_on_beat, on_beats
from ridgewind.core.sequence.timeline import placed

some_piece = st.builds(
    lambda start, length, speed, back: Piece(1, None, start, start + length, speed, back),
    st.floats(0, 5), st.floats(0.5, 8), st.sampled_from([0.4, 1.0, 1.5]), st.booleans(),
)  # fmt: skip


@given(
    st.lists(some_piece, min_size=1, max_size=12), st.floats(40, 200),
    st.sampled_from([24.0, 25.0, 29.97, 60.0]),
)  # fmt: skip
def test_every_cut_falls_on_a_beat_where_films_are_long_enough(pieces, tempo, rate_hz):
    found = on_beats(pieces, [60.0] * len(pieces), beats_per_min=tempo, rate_hz=rate_hz)
    ends = [one.start + one.frames for one in placed(found, rate_hz=rate_hz)]
    assert all(is_on_beat(end, beats_per_min=tempo, rate_hz=rate_hz) for end in ends)
    beat_s = 60.0 / tempo
    for before, after in zip(pieces, found, strict=True):
        assert (after.speed, after.backwards) == (before.speed, before.backwards)
        assert abs(after.seconds - before.seconds) <= 1.5 * beat_s + 0.1 or before.seconds < beat_s


def test_a_film_that_is_too_short_is_cut_a_beat_earlier():
    found = on_beats([Piece(1, None, 0.0, 1.9)], [1.95], beats_per_min=60, rate_hz=25)
    assert found[0].seconds == pytest.approx(1.0, abs=0.02)
    tiny = Piece(1, None, 0.0, 0.4)
    assert on_beats([tiny], [0.4], beats_per_min=60, rate_hz=25) == (tiny,)


def test_a_ramp_is_cut_on_the_beat_too():
    ramp = (Knot(0.0, 2.0), Knot(3.0, 0.5))
    found = on_beats([Piece(1, None, 0.0, 3.0, ramp=ramp)], [9.0], beats_per_min=120, rate_hz=24)
    assert placed(found, rate_hz=24)[0].frames == 96  # 3.75 s, to the eighth beat: 4 s
    assert found[0].ramp == ramp


def test_a_gap_lasts_whole_beats_too():
    gap = Piece(None, 7, 0.0, 2.2)
    found = on_beats([gap], [None], beats_per_min=60, rate_hz=25)
    assert placed(found, rate_hz=25)[0].frames == 50


@given(st.integers(0, 400), st.floats(20, 300), st.sampled_from([24.0, 25.0, 59.94]))
def test_beats_are_nearest_to_their_time_and_never_drift(beat, tempo, rate_hz):
    frame = beat_frame(beat, beats_per_min=tempo, rate_hz=rate_hz)
    assert abs(frame / rate_hz - beat * 60 / tempo) <= 0.5 / rate_hz + 1e-9
    assert is_on_beat(frame, beats_per_min=tempo, rate_hz=rate_hz)


def test_a_tempo_that_cannot_be_is_refused():
    with pytest.raises(InvalidArgumentError, match="beats_per_min is"):
        beat_frame(1, beats_per_min=5, rate_hz=25)
