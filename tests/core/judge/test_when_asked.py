"""Values that are worked out when they are asked for."""

from __future__ import annotations

import pytest

from ridgewind.core.judge.when_asked import WhenAsked


def test_each_value_is_worked_out_once_and_only_when_it_is_asked_for():
    made = []

    def square(place: int) -> int:
        made.append(place)
        return place * place

    row = WhenAsked(5, square)
    assert len(row) == 5
    assert made == []
    assert row[2] == row[2] == row[-3] == 4
    assert made == [2]
    assert next(iter(row)) == 0
    assert made == [2, 0]
    assert row[1:4] == [1, 4, 9]
    assert list(row) == [0, 1, 4, 9, 16]
    assert sorted(made) == [0, 1, 2, 3, 4]
    with pytest.raises(IndexError):
        row[5]
