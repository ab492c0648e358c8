"""What became film is told by ways of holding."""

from __future__ import annotations

from ridgewind.services import became_film, sequencing
from ridgewind.store import used_takes
from ridgewind.store.used_takes import HeldTake, UsedPart


def test_takes_that_differ_by_the_lens_alone_are_one_way_of_holding(db, monkeypatch):
    held = [
        HeldTake(1, 3.0, "lens-tremor-limit", "wide", None),
        HeldTake(2, 4.0, "lens-tremor-limit", "twice", None),
        HeldTake(3, 2.5, "hands", "two", None),
    ]
    parts = [UsedPart(2, 0.0, 1.5, 1.5), UsedPart(1, 0.0, 1.0, 1.0)]
    monkeypatch.setattr(used_takes, "held_takes", lambda _db, *, pictureless: held)
    monkeypatch.setattr(used_takes, "everywhere", lambda _db: parts)
    monkeypatch.setattr(sequencing, "gust_of", lambda _db, take_id, _in_s, _out_s: 2.0 * take_id)
    hold, hands = became_film.became_film(db)
    assert (hold.name, hold.takes, hold.used, hold.seconds) == ("Best hold", 2, 2, 2.5)
    assert hold.usual == 3.5
    assert 2.0 < (hold.gust or 0.0) < 4.0
    assert (hands.name, hands.takes, hands.used, hands.gust) == ("Two hands", 1, 0, None)
