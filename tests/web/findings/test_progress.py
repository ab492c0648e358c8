"""A season and what was noted, over the API: of the takes that trials count."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest

from ridgewind.core.practice.session import Ask, Block, Session
from ridgewind.store import database, sessions, summaries
from tests.web.conftest import HERE
from tests.web.findings.test_trials import measured_take

BEGUN = datetime(2026, 5, 4, 9, 0, tzinfo=UTC)
TIRED = (1, 1, 2, 3, 4, 5)


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


def progress(client, query=""):
    return client.get(f"/api/progress{query}", headers=HERE).json


def test_weeks_stand_one_behind_another(client, season):
    found = progress(client, "?drill=hands")
    assert [week["takes"] for week in found["weeks"]] == [6, 6, 6, 6]
    assert found["weeks"][0]["begins"] == "2026-05-04"
    assert found["chosen"]["trend"]["slope"] == pytest.approx(-0.3, abs=0.05)
    assert found["chosen"]["trend"]["high"] < 0.0
    assert sum(len(week["values"]) for week in found["weeks"]) == 24
    middles = [sum(week["values"]) for week in found["weeks"]]
    assert middles == sorted(middles, reverse=True)


def test_all_drills_are_told_against_their_own_middle(client, season):
    found = progress(client)
    values = [value for week in found["weeks"] for value in week["values"]]
    assert sum(values) / len(values) == pytest.approx(0.0, abs=0.2)
    assert found["trend"]["slope"] == pytest.approx(-0.3, abs=0.05)
    assert client.get("/api/progress?drill=none", headers=HERE).status_code == 404


def test_a_record_is_held_by_a_take_that_is_fully_trusted(client, library, season):
    before = progress(client)["drills"][0]["record"]
    with database.opened(library.database) as db, database.atomic(db):
        db.execute("update summary set trusted_share = 0.9 where take_id = ?", (before["take_id"],))
    after = progress(client)["drills"][0]["record"]
    assert after["take_id"] != before["take_id"]
    assert after["value"] > before["value"]


def test_what_is_over_its_mark_is_worked_on_next(client, season):
    (work,) = progress(client)["work"]
    assert work["drill_key"] == "hands"
    assert work["over"] > 0.0
    made = client.post("/api/drills/hands/session", json={"variation": "two"}, headers=HERE)
    assert made.status_code == 201
    kept = client.get(f"/api/sessions/{made.json['session_id']}", headers=HERE).json["session"]
    assert {take["variation_key"] for take in kept["takes"]} == {"one", "two"}
    assert client.post("/api/drills/nothing/session", json={}, headers=HERE).status_code == 404
    wrong = client.post("/api/drills/hands/session", json={"variation": "x"}, headers=HERE)
    assert wrong.status_code == 404


def test_a_feeling_that_is_right_is_trusted_and_tiredness_is_told(client, season):
    found = client.get("/api/noted", headers=HERE).json
    assert found["feeling"]["right"] > 0.5
    assert (found["felt"], found["tired"]) == (24, 24)
    assert {one["key"] for one in found["techniques"]} == {"hands/one", "hands/two"}
    assert found["tiredness"]["stop_from"] in (3, 4)
    assert found["tiring"]["low"] > 0.0
    assert found["stop_after"] == pytest.approx(0.5 / found["tiring"]["value"])


def test_rests_that_are_all_alike_tell_nothing(client, library, season):
    assert client.get("/api/noted", headers=HERE).json["rests_alike"] is False
    with database.opened(library.database) as db, database.atomic(db):
        for session in sessions.recent(db, limit=10):
            for take in sessions.by_id(db, session.id).takes:
                at = BEGUN + timedelta(days=session.id, minutes=2 * take.position)
                sessions.set_state(db, session.id, take.position, "filmed", filmed_at=at)
    found = client.get("/api/noted", headers=HERE).json
    assert found["rest"] is None
    assert found["rests_alike"] is True


def test_nothing_is_told_of_nothing(client):
    assert progress(client) == {
        "weeks": [],
        "drills": [],
        "chosen": None,
        "trend": None,
        "work": [],
    }
    found = client.get("/api/noted", headers=HERE).json
    assert (found["feeling"], found["tiredness"], found["tiring"], found["rest"]) == (None,) * 4


def test_the_first_look_is_planned_in_one_step(client):
    made = client.post("/api/sessions/first-look", headers=HERE)
    assert made.status_code == 201
    kept = client.get(f"/api/sessions/{made.json['session_id']}", headers=HERE).json["session"]
    assert len(kept["takes"]) == 12
    assert len({take["drill_key"] for take in kept["takes"]}) == 6
    assert kept["plan"]["total_s"] <= 12 * 60
