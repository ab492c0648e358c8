"""Many takes at once: narrowed, counted, changed with one undo, and taken out as tables."""

import csv
import io
import json

import pytest

from ridgewind.core.practice.session import Ask
from ridgewind.services import filing, practising
from ridgewind.store import database, sessions
from tests.web.conftest import HERE, bring_in, measure


@pytest.fixture
def evening(client, library, short_film, tmp_path):
    """A measured take filed under a session, and three more that wait."""
    ids = [bring_in(client, short_film)["id"]]
    measure(library, ids[0])
    for number in range(3):
        film = tmp_path / f"other-{number}.mp4"
        film.write_bytes(short_film.read_bytes() + bytes(number + 1))
        ids.append(bring_in(client, film)["id"])
    with database.opened(library.database) as db:
        ask = Ask(30.0, ("hands",), "path", (), (), 5, ())
        plan = practising.plan(db, ask)
        with database.atomic(db):
            session_id = sessions.add(db, name="Gate", ask=ask, plan=plan, setup_id=None)
        filing.file_film(db, session_id, 0, ids[0])
    return ids


def change(client, **body):
    return client.post("/api/takes/many", json=body, headers=HERE)


def undo(client, reply):
    address = f"/api/takes/many/{reply.json['change_id']}/undo"
    return client.post(address, headers=HERE)


def lines(client, **query):
    found = client.get("/api/takes", query_string=query, headers=HERE).json
    return {take["id"]: take for take in found["takes"]}


def detail(client, take_id):
    return client.get(f"/api/takes/{take_id}", headers=HERE).json


def test_many_are_changed_at_once_and_one_undo_takes_all_of_it_back(client, evening):
    briefs = client.get("/api/briefs", headers=HERE).json["briefs"]
    brief = dict(detail(client, evening[0])["brief"], most_crop_pct=7.25)
    client.put(f"/api/takes/{evening[0]}/brief", json=brief, headers=HERE)
    client.put(f"/api/takes/{evening[1]}/choice", json={"choice": "retake"}, headers=HERE)
    before = lines(client)
    reply = change(
        client, ids=evening, name="Gallery", choice="keep", brief_id=briefs[1]["id"],
        own_capture_fps=60.0,
    )  # fmt: skip
    assert reply.json["takes"] == 4
    after = lines(client)
    assert [after[one]["name"] for one in evening] == [f"Gallery {n}" for n in (1, 2, 3, 4)]
    assert {one["choice"] for one in after.values()} == {"keep"}
    assert detail(client, evening[3])["brief_link"]["id"] == briefs[1]["id"]
    assert undo(client, reply).json["takes"] == 4
    assert lines(client) == before
    assert detail(client, evening[0])["brief"]["most_crop_pct"] == 7.25
    assert detail(client, evening[0])["own_capture_fps"] is None
    assert undo(client, reply).status_code == 404


def test_an_undo_leaves_alone_what_the_change_did_not_touch(client, evening):
    reply = change(client, ids=evening[:2], choice="reject")
    client.patch(f"/api/takes/{evening[0]}", json={"own_name": "Cap at noon"}, headers=HERE)
    undo(client, reply)
    line = lines(client)[evening[0]]
    assert (line["name"], line["choice"], line["named"]) == ("Cap at noon", None, True)


def test_deleted_takes_come_back_and_wait_to_be_measured(client, evening):
    reply = change(client, ids=evening[1:], deleted=True)
    assert set(lines(client)) == {evening[0]}
    undo(client, reply)
    assert {take["state"] for take in lines(client).values()} == {"done", "queued"}


def test_all_or_none_is_changed(client, evening):
    reply = change(client, ids=[*evening, 999], choice="keep")
    assert reply.status_code == 404
    assert {take["choice"] for take in lines(client).values()} == {None}


@pytest.mark.parametrize(
    "body",
    [{}, {"ids": []}, {"ids": [1]}, {"ids": [1], "name": " "}, {"ids": [1], "choice": "maybe"},
     {"ids": [1], "deleted": False}, {"ids": [1], "own_capture_fps": 0}],
)  # fmt: skip
def test_a_change_that_says_nothing_or_too_much_is_refused(client, evening, body):
    assert change(client, **body).status_code == 400


def test_a_filed_take_carries_variation_and_drill_until_it_is_renamed(client, evening):
    [first, *_] = evening
    assert lines(client)[first]["name"] == "Two hands 1 · One hand or two"
    client.patch(f"/api/takes/{first}", json={"own_name": "  The hoist  "}, headers=HERE)
    assert lines(client)[first]["name"] == "The hoist"
    client.patch(f"/api/takes/{first}", json={"own_name": None}, headers=HERE)
    assert lines(client)[first]["name"] == "Two hands 1 · One hand or two"


def test_the_list_is_narrowed_and_says_by_what_it_could_be(client, evening):
    client.put(f"/api/takes/{evening[2]}/choice", json={"choice": "keep"}, headers=HERE)
    found = client.get("/api/takes/narrowings", headers=HERE).json
    assert [(one["words"], one["takes"]) for one in found["session_id"]] == [("Gate", 1)]
    assert [(one["words"], one["takes"]) for one in found["choice"]] == [("Open", 3), ("Kept", 1)]
    assert found["variation_key"] == []
    [drill] = found["drill_key"]
    assert drill == {"value": "hands", "words": "One hand or two", "takes": 1}
    within = client.get("/api/takes/narrowings?drill_key=hands", headers=HERE).json
    assert [one["words"] for one in within["variation_key"]] == ["Two hands"]
    assert set(lines(client, drill_key="hands")) == {evening[0]}
    assert set(lines(client, choice="open", drill_key="hands", variation_key="one")) == set()
    assert set(lines(client, choice="keep")) == {evening[2]}
    [day] = found["day"]
    assert len(lines(client, day=day["value"])) == day["takes"] == 4
    assert lines(client, day="1999-01-01") == {}


def test_what_is_worth_opening_stands_first(client, evening):
    client.put(f"/api/takes/{evening[3]}/choice", json={"choice": "reject"}, headers=HERE)
    address = "/api/takes/ids?sort=worth&descending=false"
    assert client.get(address, headers=HERE).json["ids"] == [
        evening[0], evening[2], evening[1], evening[3],
    ]  # fmt: skip


def test_takes_leave_as_tables_with_in_and_out(client, evening):
    ask = {"ids": evening[:2], "form": "csv"}
    reply = client.post("/api/takes/export", json=ask, headers=HERE)
    rows = list(csv.DictReader(io.StringIO(reply.text)))
    assert [row["session"] for row in rows] == ["Gate", ""]
    shown = detail(client, evening[0])
    assert float(rows[0]["gust"]) == pytest.approx(shown["judgement"]["gust"], abs=1e-3)
    assert rows[0]["verdict"] == shown["judgement"]["verdict"]
    assert rows[1]["gust"] == ""
    told = client.post("/api/takes/export", json=ask | {"form": "json"}, headers=HERE)
    first, second = json.loads(told.text)
    assert list(first) == list(second) == list(rows[0])
    assert [one["name"] for one in first["causes"]] == [
        one["name"] for one in shown["judgement"]["causes"]
    ]


def test_a_name_is_never_run_by_a_table(client, evening):
    body = {"own_name": "=1+1"}
    client.patch(f"/api/takes/{evening[0]}", json=body, headers=HERE)
    ask = {"ids": evening[:1], "form": "csv"}
    reply = client.post("/api/takes/export", json=ask, headers=HERE)
    [row] = csv.DictReader(io.StringIO(reply.text))
    assert row["name"] == "'=1+1"
    assert json.loads(
        client.post("/api/takes/export", json=ask | {"form": "json"}, headers=HERE).text
    )[0]["name"] == "=1+1"  # fmt: skip


def test_films_of_verdicts_are_asked_for_where_there_is_something_to_make(client, evening):
    reply = client.post("/api/takes/many/renders", json={"ids": evening}, headers=HERE)
    verdict = detail(client, evening[0])["judgement"]["verdict"]
    made = 0 if verdict in ("keep", "retake") else 1
    assert len(reply.json["render_ids"]) == made
    assert reply.json["passed_over"] == 4 - made
