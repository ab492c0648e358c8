"""One moment is one moment, in whatever zone it is told and read."""

from __future__ import annotations

import io
import time
from datetime import UTC, datetime

import pytest

from ridgewind.moments import moment_of, normalised, utc_text
from ridgewind.services import filing
from ridgewind.store import clips, database, listing
from tests.store.test_store import DIGEST, library_before

ZONES = ("UTC", "America/New_York", "Australia/Lord_Howe")


@pytest.fixture(params=ZONES)
def zone(request, monkeypatch):
    monkeypatch.setenv("TZ", request.param)
    time.tzset()
    yield request.param
    monkeypatch.undo()
    time.tzset()


@pytest.mark.parametrize(
    ("told", "kept"),
    [("2026-05-03T12:00:00.000000Z", "2026-05-03T12:00:00.000Z"),
     ("2026-05-03T14:00:00+0200", "2026-05-03T12:00:00.000Z"),
     ("2026-05-03 08:00:00-04:00", "2026-05-03T12:00:00.000Z"), ("Mon May  3", None),
     ("", None), ("0000-00-00T00:00:00", None), ("0001-01-01T00:00:00+14:00", None),
     ("9999-12-31T23:59:59-12:00", None), ("1970-01-01T00:00:00Z", None), (None, None)],
)  # fmt: skip
def test_what_files_say_is_kept_in_utc_or_not_at_all(zone, told, kept):
    assert normalised(told) == kept


@pytest.mark.parametrize(
    "day", ["2026-01-15", "2026-03-08", "2026-03-09", "2026-07-01", "2026-11-01", "2026-10-04"]
)
def test_a_moment_without_a_zone_is_this_machines_own(zone, day):
    """Also on the days on which the clocks change."""
    for hour in range(24):
        told = f"{day}T{hour:02d}:30:00"
        seconds = time.mktime(time.strptime(told, "%Y-%m-%dT%H:%M:%S"))
        kept = normalised(told)
        assert moment_of(told).timestamp() == moment_of(kept).timestamp()
        gap = {"America/New_York": ("2026-03-08", 2), "Australia/Lord_Howe": ("2026-10-04", 2)}
        if gap.get(zone) != (day, hour):  # an hour that is on no clock
            assert moment_of(kept).timestamp() == pytest.approx(seconds, abs=3600 * (hour == 1))


def test_a_film_is_at_one_moment_for_all_who_ask(zone, library, db):
    """Filing, meeting, the list and what is measured later read the same."""
    take = library.add(db, io.BytesIO(b"x"), file_name="a.mp4", size_bytes=None).take
    with database.atomic(db):
        db.execute(
            "update clip set recorded_at = ?, duration_s = 3", (normalised("2026-07-01T08:30:00"),)
        )
    moment = datetime(2026, 7, 1, 8, 30).astimezone()
    row = db.execute("select recorded_at from clip").fetchone()
    assert row["recorded_at"] == utc_text(moment)
    assert filing._seconds(row["recorded_at"]) == moment.timestamp()
    found = db.execute(f"select {listing.DAY} as day from take join clip on clip.id = clip_id")
    assert found.fetchone()["day"] == "2026-07-01"
    assert take.id


def test_moments_of_an_older_library_become_this_machines(zone, tmp_path):
    with library_before("0041", tmp_path) as db:
        told = ["2026-07-01T08:30:00", "2026-07-01T08:30:00.000000Z", "2026-07-01T08:30:00+02:00",
                "nonsense", None]  # fmt: skip
        for k, moment in enumerate(told):
            digest = f"{k}{DIGEST[1:]}"
            db.execute(
                "insert into clip (sha256, file, size_bytes, recorded_at) values (?, ?, 1, ?)",
                (digest, f"{digest}.mp4", moment),
            )
        database.migrate(db)
        kept = [clips.by_id(db, number).recorded_at for number in clips.numbers(db)]
    own = datetime(2026, 7, 1, 8, 30)
    assert kept == [
        utc_text(own.astimezone()), utc_text(own.replace(tzinfo=UTC)), "2026-07-01T06:30:00.000Z",
        None, None,
    ]  # fmt: skip
