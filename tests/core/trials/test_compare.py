"""Takes side by side: the best with its reason, and ties that are said to be ties."""

from __future__ import annotations

from itertools import permutations

import pytest

from ridgewind.core.trials.compare import Candidate, best_of, missing_words


def take(number, *, gust=4.0, peak=4.6, evenness=None, lee_s=2.0, passes=True):
    return Candidate(number, passes, gust, peak, evenness, lee_s)


@pytest.mark.parametrize(
    ("takes", "best", "words"),
    [
        ([take(1, gust=3.0), take(2, gust=4.1)], (1,), "Steadiest: gust 3.0, 1.1 less"),
        ([take(1), take(2, peak=5.9)], (1,), "worst second reads 1.3 less"),
        ([take(1, evenness=0.9), take(2, evenness=0.6)], (1,), "the evenest move (90 %)"),
        ([take(1, lee_s=6.0), take(2)], (1,), "the longest lee (6.0 s)"),
        ([take(1), take(2)], (1, 2), "Two cannot be told apart"),
        ([take(1), take(2), take(3)], (1, 2, 3), "3 cannot be told apart"),
        ([take(1, gust=5.0), take(2, gust=4.9, passes=False)], (1,), "only one that can be made"),
        ([take(1)], (1,), "No other to choose from"),
        ([take(1, gust=None), take(2)], (2,), "No other to choose from"),
    ],
)
def test_the_best_whatever_the_order(takes, best, words):
    for order in permutations(takes):
        found = best_of(order)
        assert sorted(found.ids) == sorted(best)
        assert words in found.reason


def test_nothing_measured_has_no_best():
    assert best_of([]) is None
    assert best_of([take(1, gust=None)]) is None


def test_what_is_missing_is_said_in_words():
    assert missing_words(0) == ""
    assert missing_words(2) == "Planned, no film yet: two more."
    assert missing_words(11) == "Planned, no film yet: 11 more."
