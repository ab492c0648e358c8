"""Limits of each technique by brief: of the takes that trials count, by what the brief allows."""

from __future__ import annotations

import math

import pytest

from ridgewind.core.practice.session import Ask, Block, Session
from ridgewind.core.trials.survival import LEVELS, Lasting
from ridgewind.store import database, sessions, summaries, takes
from tests.core.judge.test_options import hand
from tests.web.conftest import HERE
from tests.web.seasons import measured_take

HELD_S = 10.0


@pytest.fixture
def pulled(library):
    """Two sessions of the strap: slack, firm and hard, whose tension was noted; gives their ids."""
    ids = []
    with database.opened(library.database) as db, database.atomic(db):
        for day in range(2):
            order = ("slack", "firm", "hard") * 3
            plan = Session(0.0, (Block("strap-tension", order, 8.0, 20.0, ("x",)),), 1.0, 0.0, ())
            ask = Ask(30.0, (), "path", (), (), 1, ())
            session_id = sessions.add(db, name=f"Day {day}", ask=ask, plan=plan, setup_id=None)
            for position, key in enumerate(order):
                tension = {"slack": 1, "firm": 3, "hard": 5}[key]
                gust = 3.0 + 0.3 * (tension - 3) ** 2 + 0.1 * (position % 3) + day
                take_id = measured_take(db, f"{day}-{position}", gust)
                summaries.put(
                    db, take_id, gust=gust, peak_gust=gust, remedy="keep", ridge=b"",
                    speed_pct_s=0.1 * 2 ** (gust / 1.25), top_band="sway", cause=None,
                    trusted_share=1.0, figures={"gust": gust}, turning=None, staleness=0,
                    lasting=Lasting(
                        HELD_S, tuple(None if level >= gust else 2.0 for level in LEVELS)
                    ),
                )  # fmt: skip
                sessions.set_state(db, session_id, position, "filmed")
                sessions.set_notes(db, session_id, position, {"tension": tension})
                sessions.file_take(db, session_id, position, take_id)
                ids.append(take_id)
    return ids


def limits(client, query=""):
    found = client.get(f"/api/limits{query}", headers=HERE).json
    return found | {"of": {one["key"]: one for one in found["techniques"]}}


def test_each_technique_has_its_longest_lens_and_hold(client, pulled):
    found = limits(client)
    assert found["target"] == 4.0
    firm, hard = found["of"]["strap-tension/firm"], found["of"]["strap-tension/hard"]
    assert firm["longest_mm"] > hard["longest_mm"]
    assert (firm["takes"], firm["hint"]) == (6, False)
    chances = firm["curve"]["chance"]
    assert chances == sorted(chances, reverse=True)
    # Firm reads 3 on the first day and 4 on the second; hard never holds.
    assert firm["hold"]["held"] > hard["hold"]["held"] == 0
    assert hard["hold"]["eighty"] == 2.0
    assert firm["hold"]["held_s"] == HELD_S


@pytest.fixture
def zoomed(library):
    """One hold, of the same speed at each of three lengths of a lens, each filmed twice."""
    order = ("wide", "middle", "long", "long", "middle", "wide")
    with database.opened(library.database) as db, database.atomic(db):
        plan = Session(0.0, (Block("lens-tremor-limit", order, 8.0, 30.0, ("x",)),), 1.0, 0.0, ())
        ask = Ask(30.0, (), "path", (), (), 1, ())
        session_id = sessions.add(db, name="Zoom", ask=ask, plan=plan, setup_id=None)
        for position, key in enumerate(order):
            times = {"wide": 1, "middle": 2, "long": 4}[key]
            gust = 2.5 + 1.25 * math.log2(times) + 0.1 * (position % 3)
            take_id = measured_take(db, f"zoom-{position}", gust)
            takes.set_own_focal(db, take_id, 26.0 * times)
            summaries.put(
                db, take_id, gust=gust, peak_gust=gust, remedy="keep", ridge=b"",
                speed_pct_s=0.1 * 2 ** (gust / 1.25), top_band="sway", cause=None,
                trusted_share=1.0, figures={"gust": gust, "body": 2.5}, staleness=0,
                turning=hand(0.3, takes=1).mean_square[0],
                lasting=Lasting(HELD_S, (None,) * len(LEVELS)),
            )  # fmt: skip
            sessions.set_state(db, session_id, position, "filmed")
            sessions.set_notes(db, session_id, position, {"felt": "good"})
            sessions.file_take(db, session_id, position, take_id)


def test_ways_that_differ_by_the_lens_alone_are_one_hold(client, zoomed):
    found = limits(client)
    (own,) = found["techniques"]
    assert (own["name"], own["takes"], own["hint"]) == ("Best hold", 6, False)
    assert own["longest_mm"] == pytest.approx(50, rel=0.2)  # gust 2.6 at 26 mm, target 4
    assert own["hold"] is None, "that the longest lens is over soonest says nothing of the hold"
    hands = client.get("/api/hand", headers=HERE).json["techniques"]
    assert [(one["name"], one["takes"]) for one in hands] == [("Best hold", 6)]
    ways = client.get("/api/shot?focal_eq_mm=26", headers=HERE).json["options"]
    own_ways = [one for one in ways if one["takes"]]
    assert {(one["name"], one["takes"]) for one in own_ways} == {("Best hold", 6)}
    assert all(one["needs"] == [] for one in own_ways), "the lens that it takes stands by itself"
    felt = client.get("/api/noted", headers=HERE).json["techniques"]
    assert [(one["name"], len(one["good"])) for one in felt] == [("Best hold", 6)]


def test_another_brief_allows_more(client, pulled):
    named = {one["name"]: one["id"] for one in limits(client)["briefs"]}
    answers = [limits(client, f"?brief_id={one}") for one in named.values()]
    by_target = sorted(answers, key=lambda one: one["target"])
    assert by_target[0]["target"] < by_target[-1]["target"]
    longest = [one["of"]["strap-tension/firm"]["longest_mm"] for one in by_target]
    assert longest == sorted(longest)
    assert client.get("/api/limits?brief_id=999", headers=HERE).status_code == 404


def test_the_best_tension_is_told_from_what_was_noted(client, pulled):
    strap = limits(client)["strap"]
    assert strap["lowest"] == pytest.approx(3.0, abs=0.2)
    assert strap["low"] <= strap["lowest"] <= strap["high"]
    assert len(strap["tensions"]) == 18


def test_a_calmer_drill_of_the_same_day_moves_no_best_tension(client, library, pulled):
    """Another drill whose takes were all pulled hard and read little says nothing by being calm."""
    before = limits(client)["strap"]["lowest"]
    with database.opened(library.database) as db, database.atomic(db):
        order = ("shoulder",) * 4
        plan = Session(0.0, (Block("lean-wall", order, 8.0, 20.0, ("x",)),), 1.0, 0.0, ())
        ask = Ask(30.0, (), "path", (), (), 1, ())
        session_id = sessions.add(db, name="Wall", ask=ask, plan=plan, setup_id=None)
        for position in range(len(order)):
            take_id = measured_take(db, f"wall-{position}", 1.0 + 0.01 * position)
            sessions.set_state(db, session_id, position, "filmed")
            sessions.set_notes(db, session_id, position, {"tension": 5})
            sessions.file_take(db, session_id, position, take_id)
        db.execute("update session_take set session_id = 1, position = position + 100"
                   " where session_id = ?", (session_id,))  # fmt: skip
    found = limits(client)["strap"]
    assert len(found["tensions"]) == 22
    assert found["lowest"] == pytest.approx(before, abs=0.02)


def test_what_stays_out_of_trials_stays_out_of_limits(client, pulled):
    client.put(f"/api/takes/{pulled[0]}/counts", json={"counts": False}, headers=HERE)
    found = limits(client)
    assert found["of"]["strap-tension/slack"]["takes"] == 5
    assert len(found["strap"]["tensions"]) == 17


def test_an_empty_library_has_no_limits(client):
    found = limits(client)
    assert (found["techniques"], found["strap"]) == ([], None)


def endurance(client, query=""):
    found = client.get(f"/api/limits/endurance{query}", headers=HERE).json
    return found | {"of": {one["key"]: one for one in found["techniques"]}}


def test_takes_before_tiring_are_told_by_technique_and_brief(client, season):
    """`season` is rougher by up to 1.2 within six takes of a session."""
    found = endurance(client)
    two = found["of"]["hands/two"]
    assert two["takes"] == 12
    assert two["tiring"]["a_take"] == pytest.approx(0.25, abs=0.1)
    assert two["tiring"]["low"] > 0.0
    places = {}
    for feel in ("locked", "smooth", "alive", "raw"):
        brief = client.get("/api/briefs", headers=HERE).json["briefs"][0]
        body = {"name": feel, "brief": brief["brief"] | {"feel": feel, "own_target": None}}
        made = client.post("/api/briefs", json=body, headers=HERE).json
        told = endurance(client, f"?brief_id={made['id']}")["of"]["hands/two"]
        places[feel] = told["tiring"]["until"]
    assert places["locked"] == 0
    assert 0 <= places["smooth"] < places["alive"] < places["raw"]


def test_a_rest_is_told_where_rests_differ(client, season):
    found = endurance(client)
    assert found["shortest_s"] < found["longest_s"]
    resting = found["of"]["hands/two"]["resting"]
    assert resting["low"] < resting["doubled"] < resting["high"]
    steps = math.log2(found["longest_s"] / found["shortest_s"])
    fall = resting["gust_long"] - resting["gust_short"]
    assert fall == pytest.approx(steps * resting["doubled"])


def test_nothing_filmed_has_no_endurance(client):
    found = endurance(client)
    assert (found["techniques"], found["shortest_s"], found["rests_alike"]) == ([], None, False)
