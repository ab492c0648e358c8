"""Trials of filed takes: what counts, what it tells, and the session that would settle it."""

from __future__ import annotations

import pytest

from ridgewind.core.practice.session import Ask, Block, Session
from ridgewind.store import database, sessions, summaries, takes
from tests.web.conftest import HERE
from tests.web.seasons import measured_take

GUSTS = {"one": (5.2, 5.0, 5.3), "two": (4.1, 4.3, 4.0), "light": (4.6, 4.4, 4.5)}


@pytest.fixture
def filed(library):
    """Two sessions of a drill with three takes a side; gives ids by variation."""
    found = {}
    with database.opened(library.database) as db, database.atomic(db):
        for day in range(2):
            order = tuple(key for key in GUSTS for _ in range(3))
            plan = Session(0.0, (Block("hands", order, 8.0, 20.0, ("x",)),), 300.0, 0.0, ())
            ask = Ask(30.0, (), "path", (), (), 1, ())
            session_id = sessions.add(db, name=f"Day {day}", ask=ask, plan=plan, setup_id=None)
            for position, key in enumerate(order):
                gust = GUSTS[key][position % 3] + 0.5 * day
                take_id = measured_take(db, f"{day}-{position}", gust)
                sessions.set_state(db, session_id, position, "filmed")
                sessions.file_take(db, session_id, position, take_id)
                found.setdefault(key, []).append(take_id)
    return found


def trial(client, query=""):
    return client.get(f"/api/trials/hands{query}", headers=HERE).json


def sides(found):
    return {side["key"]: side for side in found["sides"]}


def test_a_drill_is_compared_over_its_sessions(client, filed):
    found = trial(client)
    assert [side["control"] for side in found["sides"]] == [True, False, False]
    two = sides(found)["two"]
    assert two["difference"] == pytest.approx(-1.03, abs=0.2)
    assert two["low"] < two["difference"] < two["high"] < 0
    assert (two["takes"], found["sessions"], found["why_not"]) == (6, 2, "")
    assert sum(side["best"] for side in found["sides"]) == pytest.approx(1.0)
    [line] = client.get("/api/trials", headers=HERE).json["trials"]
    assert (line["drill_key"], line["takes"], line["best"]) == ("hands", 18, "Two hands")


def test_another_figure_is_compared_and_an_unknown_one_refused(client, filed):
    found = trial(client, "?by=sway")
    assert found["figure"]["key"] == "sway"
    assert {take["value"] for take in found["takes"]} == {
        take["value"] - 1.0 for take in trial(client)["takes"]
    }
    assert [one["key"] for one in found["figures"]] == ["gust", "sway"]
    reply = client.get("/api/trials/hands?by=charm", headers=HERE)
    assert (reply.status_code, reply.json["error"]["field"]) == (400, "by")
    assert client.get("/api/trials/nothing", headers=HERE).status_code == 404


def test_rejected_and_unsure_takes_stay_out_until_they_are_let_in(client, library, filed):
    rejected, unsure, let_out = filed["two"][0], filed["one"][1], filed["light"][2]
    client.put(f"/api/takes/{rejected}/choice", json={"choice": "reject"}, headers=HERE)
    with database.opened(library.database) as db, database.atomic(db):
        summaries.put(
            db, unsure, gust=5.0, peak_gust=5.0, remedy="keep", ridge=b"", speed_pct_s=1.0,
            top_band="sway", cause=None, trusted_share=0.5, figures={"gust": 5.0}, lasting=None,
            turning=None, staleness=0,
        )  # fmt: skip
    put_counts(client, let_out, counts=False)

    def why():
        return {take["take_id"]: take["why_out"] for take in trial(client)["takes"]}

    told = why()
    assert (told[rejected], told[unsure], told[let_out]) == (
        "rejected",
        "unsure",
        "left out by you",
    )
    assert sides(trial(client))["two"]["takes"] == 5
    for one in (rejected, unsure):
        put_counts(client, one, counts=True)
    put_counts(client, let_out, counts=None)
    assert set(why().values()) == {""}


def put_counts(client, take_id, *, counts):
    body = {"counts": counts}
    assert client.put(f"/api/takes/{take_id}/counts", json=body, headers=HERE).status_code == 200


def test_a_drill_without_comparable_takes_says_why(client, filed):
    for one in filed["one"]:
        client.delete(f"/api/takes/{one}", headers=HERE)
    found = trial(client)
    assert "“One hand”" in found["why_not"]
    assert all(side["difference"] is None for side in found["sides"])


def test_the_next_takes_are_handed_to_the_planner_in_a_fair_order(client, filed):
    for key in ("two", "light"):
        for one in filed[key][1:]:
            client.delete(f"/api/takes/{one}", headers=HERE)
    found = trial(client)
    assert found["next_round"] == ["one", "two", "light"]
    reply = client.post("/api/trials/hands/session", headers=HERE)
    assert reply.status_code == 201
    session = client.get(f"/api/sessions/{reply.json['session_id']}", headers=HERE).json["session"]
    order = [take["variation_key"] for take in session["takes"]]
    assert len(order) == 3 * found["rounds"]
    places = {key: [k for k, one in enumerate(order) if one == key] for key in set(order)}
    assert len({sum(found) / len(found) for found in places.values()}) == 1


def test_nothing_is_planned_where_all_is_told(client, filed):
    assert trial(client)["next_round"] == []
    reply = client.post("/api/trials/hands/session", headers=HERE)
    assert reply.status_code == 400
    assert "told well enough" in reply.json["error"]["message"]


def picked(client, ids, query=""):
    takes = ",".join(str(one) for one in ids)
    return client.get(f"/api/trials/picked?takes={takes}{query}", headers=HERE)


def test_any_takes_are_compared_by_hand(client, season):
    """Grouped by variation they tell what the drill's own trial does, and by the other side too."""
    found = picked(client, season, "&control=One hand").json
    drill = client.get("/api/trials/hands", headers=HERE).json
    by_name = {side["name"]: side for side in found["sides"]}
    two = next(side for side in drill["sides"] if side["key"] == "two")
    assert by_name["Two hands"]["difference"] == pytest.approx(two["difference"])
    assert (found["sessions"], found["drill_key"]) == (4, "")
    turned = picked(client, season, "&control=Two hands").json
    against = {side["name"]: side["difference"] for side in turned["sides"]}
    assert against["One hand"] == pytest.approx(-two["difference"])


def test_what_tells_no_groups_apart_is_refused(client, season):
    assert picked(client, season, "&grouping=lens").status_code == 400
    assert picked(client, season[:1]).status_code == 400
    assert picked(client, season, "&by=charm").status_code == 400
    assert client.get("/api/trials/picked?takes=x", headers=HERE).status_code == 400


def test_takes_of_no_session_count_as_one_each_day(client, library, season):
    with database.opened(library.database) as db, database.atomic(db):
        loose = [measured_take(db, f"loose-{k}", 4.0 + k) for k in range(4)]
        for take_id, mm in zip(loose, (26.0, 26.0, 50.0, 50.0), strict=True):
            takes.set_own_focal(db, take_id, mm)
            summaries.put(
                db, take_id, gust=4.0, peak_gust=4.0, remedy="keep", ridge=b"", speed_pct_s=0.9,
                top_band="sway", cause=None, trusted_share=1.0, turning=None, staleness=0,
                figures={"gust": 4.0 + mm / 26.0, "body": 3.0 + take_id / 100.0}, lasting=None,
            )  # fmt: skip
    found = picked(client, loose, "&grouping=lens").json
    assert {side["name"] for side in found["sides"]} == {"26 mm", "50 mm"}
    assert found["sessions"] == 1
    assert [take["place"] for take in found["takes"]] == [1, 2, 3, 4]


def test_what_is_no_take_of_the_shooters_own_counts_nowhere(client, library, season):
    """An example, or a film in one's own hand, that was a take of a session before."""
    before = client.get("/api/trials/hands", headers=HERE).json
    with database.opened(library.database) as db, database.atomic(db):
        takes.set_origin(db, season[0], "example")
        takes.set_origin(db, season[1], "simulated")
    after = client.get("/api/trials/hands", headers=HERE).json
    assert len(after["takes"]) == len(before["takes"]) - 2
    assert len(picked(client, season).json["takes"]) == len(season) - 2
