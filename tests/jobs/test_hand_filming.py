"""A film in the shooter's own hand, measured like any, reads what was predicted."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.trials.own_hand import BINS, MIDDLES_HZ, Hand, predict
from ridgewind.films import hand_filming
from ridgewind.films.hand_filming import film_with_hand
from ridgewind.jobs.measure import measure_clip
from ridgewind.library.library import Library
from ridgewind.services import assessing
from ridgewind.store import database, listing, summaries, takes
from tests.clips import SMALL


def hand():
    """Sway, steps and tremor, some of it roll and steps towards the subject."""
    power = np.zeros((2, BINS, 4))
    for low, high, speed in ((0.3, 1.0, 0.3), (1.5, 3.0, 0.25), (7.0, 11.0, 0.35)):
        inside = (low <= MIDDLES_HZ) & (high >= MIDDLES_HZ)
        power[:, inside, :2] = speed**2 / (2.0 * inside.sum())
        power[:, inside, 2:] = (0.2 * speed) ** 2 / (2.0 * inside.sum())
    return Hand(MIDDLES_HZ, power, np.array([26.0, 26.0]))


@pytest.mark.parametrize(("focal", "fps"), [(26.0, 30.0), (85.0, 48.0)])
def test_it_reads_what_was_predicted(tmp_path, monkeypatch, focal, fps):
    monkeypatch.setattr(hand_filming, "SECONDS", 3.0)
    monkeypatch.setattr(hand_filming, "SIZE", SMALL)
    library = Library(tmp_path / "library")
    library.prepare()
    with database.opened(library.database) as db:
        take = film_with_hand(
            library, db, hand(), name="Simulated", focal_eq_mm=focal, fps=fps, seed=5
        )
        with database.atomic(db):
            takes.set_own_focal(db, take.id, focal)
        measure_clip(library, take.clip_id)
        found = assessing.judge(db, take.id).assessment
        taught = summaries.body_speeds(db, limit=10)
        line = listing.page(
            db, only=listing.Filter(), sort="imported", descending=True, offset=0, limit=5
        )
    expected = predict(hand(), focal_eq_mm=focal).gust
    assert found.reading.trusted_share > 0.95
    assert found.body_deg_s is not None
    assert found.gust == pytest.approx(expected, abs=0.4)
    assert line[0].origin == "simulated"
    assert taught == [], "it teaches the bench nothing"
