"""A library with weeks of practice in it, whose figures are known."""

from __future__ import annotations

import hashlib
from datetime import UTC, datetime, timedelta

import pytest

from ridgewind.core.practice.session import Ask, Block, Session
from ridgewind.store import briefs, clips, database, jobs, sessions, summaries, takes

BEGUN = datetime(2026, 5, 4, 9, 0, tzinfo=UTC)
TIRED = (1, 1, 2, 3, 4, 5)


def measured_take(db, name, gust, *, trust=1.0):
    sha256 = hashlib.sha256(name.encode()).hexdigest()
    clip_id = clips.add(db, sha256=sha256, file=f"{sha256}.mp4", size_bytes=1)
    take_id = takes.add(db, clip_id=clip_id, name=name, brief_id=briefs.usual(db).id, setup_id=None)
    jobs.enqueue(db, "measure", clip_id)
    jobs.finish(db, "measure", clip_id)
    summaries.put(
        db, take_id, gust=gust, peak_gust=gust, remedy="keep", ridge=b"", speed_pct_s=1.0,
        top_band="sway", cause=None, trusted_share=trust,
        figures={"gust": gust, "sway": gust - 1.0}, lasting=None, turning=None, staleness=0,
    )  # fmt: skip
    return take_id


@pytest.fixture
def season(library):
    """Four weeks of hands, a session each: calmer by 0.3 a week, rougher when tired; the gust of
    each take is felt rightly. Gives the ids of its takes."""
    ids = []
    with database.opened(library.database) as db, database.atomic(db):
        for week in range(4):
            order = ("one", "two", "two", "one", "one", "two")
            plan = Session(0.0, (Block("hands", order, 8.0, 25.0, ("x",)),), 1.0, 0.0, ())
            ask = Ask(30.0, (), "path", (), (), 1, ())
            session_id = sessions.add(db, name=f"Week {week}", ask=ask, plan=plan, setup_id=None)
            for position, key in enumerate(order):
                extra = (0.05, -0.05, 0.1, -0.1, 0.0, 0.02)[position] * (1 if week % 2 else -1)
                tired = TIRED[position]
                gust = 5.6 - 0.3 * week - 0.8 * (key == "two") + 0.3 * (tired - 1) + extra
                ids.append(_put(db, session_id, week, position, gust, tired, extra < 0))
    return ids


def _put(db, session_id, week, position, gust, tired, good):
    take_id = measured_take(db, f"{week}-{position}", gust)
    summaries.put(
        db, take_id, gust=gust, peak_gust=gust, remedy="keep", ridge=b"",
        speed_pct_s=0.1 * 2 ** (gust / 1.25), top_band="sway", cause=None, trusted_share=1.0,
        figures={"gust": gust, "body": gust - 0.5}, turning=None, staleness=0, lasting=None,
    )  # fmt: skip
    at = BEGUN + timedelta(weeks=week, minutes=position * (1 + position % 3))
    sessions.set_state(db, session_id, position, "filmed", filmed_at=at)
    notes = {"fatigue": tired, "felt": "good" if good else "bad"}
    sessions.set_notes(db, session_id, position, notes)
    sessions.file_take(db, session_id, position, take_id)
    return take_id
