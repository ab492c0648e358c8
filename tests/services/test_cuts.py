"""What would make a cut match better: from what changes least, and never for nothing."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import pytest

from ridgewind.core.sequence.joins import mismatch
from ridgewind.core.sequence.piece import Piece
from ridgewind.core.sequence.seen import Footage, Look, Seen, footage_of
from ridgewind.services.cuts import Side, better_cuts
from tests.conftest import make_motion

LOOK = Look(24.0, 16 / 9, 30.0)


@dataclass
class Take:
    """What a cut asks of a measured take."""

    footage: Footage

    def windows_of(self, piece):
        return None

    def seen(self, piece, look):
        return Seen(piece, self.footage, look)


def side(pan, piece=None, *, free=True, slowest=0.4, seconds=8.0) -> Side:
    motion = make_motion(rate_hz=60.0, seconds=seconds, pan=pan)
    take = Take(footage_of(motion, upright=False))
    return Side(piece or Piece(1, None, 2.0, 6.0), take, free, slowest)


def steady(speed):
    return lambda t_s: speed * t_s


def found(before, after) -> dict[str, float]:
    offers = better_cuts(before, after, LOOK)
    for one in offers:
        # What is told is what comes of it.
        leaving = before.take.seen(one.pieces[0], LOOK).velocity(at_end=True)
        entering = after.take.seen(one.pieces[1], LOOK).velocity(at_end=False)
        assert mismatch(leaving, entering) == pytest.approx(one.mismatch, abs=1e-6)
    return {one.words: one.mismatch for one in offers}


def test_two_speeds_are_made_one_by_slowing_the_quicker():
    offers = found(side(steady(8.0)), side(steady(4.0)))
    assert offers == {"Slow the earlier one to 50 %.": pytest.approx(0.0, abs=0.02)}


def test_no_further_than_every_frame_is_shown_once():
    offers = found(side(steady(8.0), slowest=0.8), side(steady(4.0)))
    assert list(offers) == ["Slow the earlier one to 80 %."]
    assert not found(side(steady(8.0), slowest=1.0), side(steady(4.0)))


def test_a_pan_against_a_pan_is_turned_round_unless_its_sound_is_wanted():
    offers = found(side(steady(6.0)), side(steady(-6.0)))
    assert offers == {"Play the later one the other way round.": pytest.approx(0.0, abs=0.02)}
    assert not found(side(steady(6.0)), side(steady(-6.0), free=False, slowest=1.0))


def test_a_cut_that_matches_is_left_alone():
    assert not found(side(steady(6.0)), side(steady(6.2)))


def test_a_move_that_comes_to_rest_is_trimmed_to_where_it_goes_on():
    def comes_to_rest(t_s):
        return np.minimum(6.0 * t_s, 28.8)

    offers = found(side(comes_to_rest), side(steady(6.0), slowest=1.0))
    (words,) = [words for words in offers if words.startswith("Trim")]
    assert offers[words] < 0.25


def test_sweeps_at_both_ends_are_cut_inside():
    def sweeps_away(t_s):
        share = np.clip(t_s - 6.2, 0.0, 1.0)
        return 80.0 * share**2 * (3 - 2 * share)

    def sweeps_in(t_s):
        share = np.clip(t_s - 0.6, 0.0, 1.0)
        return 80.0 * share**2 * (3 - 2 * share)

    # Both stand still where they are cut now; one of them drifts, so that the cut is no match.
    def drifts(t_s):
        return sweeps_in(t_s) - 2.0 * np.clip(t_s - 1.6, 0.0, None)

    offers = found(side(sweeps_away, slowest=1.0), side(drifts, slowest=1.0))
    (words,) = [words for words in offers if "sweeps" in words]
    assert offers[words] < 0.3
