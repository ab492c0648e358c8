"""A season and what was noted, over the API: of the takes that trials count."""

from __future__ import annotations

from datetime import timedelta

import pytest

from ridgewind.store import database, sessions, takes
from tests.web.conftest import HERE
from tests.web.seasons import BEGUN


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


def test_a_drill_that_goes_through_lenses_has_no_mark_to_be_over(client, library, season):
    with database.opened(library.database) as db, database.atomic(db):
        for take_id in season[::2]:
            takes.set_own_focal(db, take_id, 85.0)
    assert progress(client)["work"] == []


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
