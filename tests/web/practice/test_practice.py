"""Drills, sessions and what is due through the API."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime

import av
import cv2
import icalendar
import pytest

from ridgewind.core.practice.slate import slate_text
from ridgewind.media.formats import in_format
from ridgewind.services import practising, trials
from ridgewind.store import database, drills, kit, sessions, takes
from tests.conftest import shaken, write_film
from tests.core.practice.test_slate import code_image
from tests.web.conftest import HERE, bring_in, measure
from tests.web.kit.test_kit import get, send
from tests.web.seasons import measured_take

ASK = {"minutes": 20, "goals": [], "space": "path", "needs": ["strap", "lean"], "limits": [],
       "seed": 3, "locked": []}  # fmt: skip


@pytest.fixture
def session(client):
    plan = send(client, "POST", "/api/sessions/plan", {"ask": ASK})["plan"]
    body = {"name": "Today", "ask": ASK, "plan": plan, "setup_id": None}
    return send(client, "POST", "/api/sessions", body, 201)["session"]


def note(client, session, position, **part):
    path = f"/api/sessions/{session['id']}/takes/{position}"
    return send(client, "PATCH", path, part)["session"]["takes"][position]


def test_a_session_is_planned_kept_and_accepted(client, session):
    assert session["plan"]["blocks"]
    takes = [key for block in session["plan"]["blocks"] for key in block["order"]]
    assert [take["variation_key"] for take in session["takes"]] == takes
    assert session["accepted_at"] is None
    detail = send(client, "POST", f"/api/sessions/{session['id']}/accept")
    assert detail["session"]["accepted_at"]
    assert set(detail["drills"]) == {block["drill_key"] for block in session["plan"]["blocks"]}
    assert all(len(checks) >= 4 for checks in detail["checks"].values())
    assert detail["cadence_hz"] == 1.8
    assert get(client, "/api/sessions")["sessions"][0]["id"] == session["id"]


def test_notes_are_kept_one_by_one_and_nothing_is_lost_by_stopping(client, session):
    note(client, session, 0, state="filmed")
    note(client, session, 0, felt="bad")
    found = note(client, session, 0, fatigue=4, wind=1)
    assert (found["state"], found["felt"], found["fatigue"], found["wind"]) == (
        "filmed", "bad", 4, 1,
    )  # fmt: skip
    ended = send(client, "POST", f"/api/sessions/{session['id']}/end", {"ended": True})
    assert ended["session"]["ended_at"]
    assert ended["session"]["takes"][0]["fatigue"] == 4
    again = send(client, "POST", f"/api/sessions/{session['id']}/end", {"ended": False})
    assert again["session"]["ended_at"] is None


def test_a_note_that_had_to_wait_keeps_the_time_of_its_take(client, session):
    told = "2026-10-09T10:00:05+02:00"
    assert note(client, session, 0, state="filmed", filmed_at=told)["filmed_at"] == (
        "2026-10-09T08:00:05.000Z"
    )
    ahead = note(client, session, 1, state="filmed", filmed_at="2999-01-01T00:00:00Z")
    assert ahead["filmed_at"] < "2999"
    reply = client.patch(
        f"/api/sessions/{session['id']}/takes/0", headers=HERE,
        json={"state": "filmed", "filmed_at": "2026-10-09T08:00:00"},
    )  # fmt: skip
    assert reply.status_code == 400  # a time without its zone could be any


def test_a_film_filed_under_a_take_decides_what_is_due(client, library, session, short_film):
    take = bring_in(client, short_film)
    measure(library, take["id"])
    filed = note(client, session, 1, take_id=take["id"])
    assert (filed["state"], filed["take_id"]) == ("filmed", take["id"])
    assert filed["gust"] > 4
    moved = note(client, session, 2, take_id=take["id"])
    assert moved["take_id"] == take["id"]
    detail = get(client, f"/api/sessions/{session['id']}")
    assert detail["session"]["takes"][1]["take_id"] is None
    [listed] = get(client, "/api/takes")["takes"]
    drawn = [listed["ridge"] if k == 2 else "" for k in range(len(session["takes"]))]
    assert [one["ridge"] for one in detail["outcomes"]] == drawn
    assert {one["why_out"] for one in detail["outcomes"]} == {""}
    client.put(f"/api/takes/{take['id']}/counts", json={"counts": False}, headers=HERE)
    detail = get(client, f"/api/sessions/{session['id']}")
    told = {k: one["why_out"] for k, one in enumerate(detail["outcomes"]) if one["why_out"]}
    assert told == {2: "left out by you"}
    drills = {item["drill"]["key"]: item for item in get(client, "/api/drills")["drills"]}
    item = drills[session["takes"][2]["drill_key"]]
    assert (item["passes"], item["takes"]) == (0, 1)
    assert item["due_on"]
    with database.opened(library.database) as db:
        assert sessions.weakest_band(db, limit=5) in (None, "step", "jitter")


def by_part(session, shelf):
    """Positions of a plain control and of a variation of the same drill."""
    parts = {}
    for take in session["takes"]:
        drill = shelf[take["drill_key"]]
        control = next(one["key"] for one in drill["variations"] if one["control"])
        kind = "control" if take["variation_key"] == control else "varied"
        parts.setdefault(take["drill_key"], {}).setdefault(kind, take["position"])
    both = next(found for found in parts.values() if len(found) == 2)
    return both["control"], both["varied"]


def test_a_deleted_film_counts_for_nothing_until_it_is_brought_back(
    client, library, session, short_film
):
    take = bring_in(client, short_film)
    measure(library, take["id"])
    shelf = {item["drill"]["key"]: item["drill"] for item in get(client, "/api/drills")["drills"]}
    control, varied = by_part(session, shelf)
    key = session["takes"][varied]["drill_key"]
    note(client, session, varied, take_id=take["id"], felt="good")
    note(client, session, control, state="filmed", felt="good")  # passes nothing

    def seen():
        one = get(client, f"/api/sessions/{session['id']}")["session"]["takes"][varied]
        drills = {item["drill"]["key"]: item for item in get(client, "/api/drills")["drills"]}
        return one["take_id"], one["gust"] is None, drills[key]["passes"]

    assert seen() == (take["id"], False, 0)
    with database.opened(library.database) as db:
        takes.set_deleted(db, take["id"], deleted=True)
    assert seen() == (None, True, 1)  # how it felt is all that is left
    with database.opened(library.database) as db:
        takes.set_deleted(db, take["id"], deleted=False)
    assert seen() == (take["id"], False, 0)


def test_the_weeks_ahead_are_a_calendar_that_others_read(client, session):
    for position in range(3):
        note(client, session, position, state="filmed", felt="good")
    reply = client.get("/api/practice.ics", headers=HERE)
    assert reply.mimetype == "text/calendar"
    events = icalendar.Calendar.from_ical(reply.data).walk("VEVENT")
    assert events
    for event in events:
        assert str(event["summary"]).startswith("Practice: ")
        assert event["dtend"].dt > event["dtstart"].dt


def test_a_slate_is_drawn_for_each_take(client, session):
    reply = client.get(f"/api/sessions/{session['id']}/slates/0.svg", headers=HERE)
    assert reply.mimetype == "image/svg+xml"
    assert reply.data.startswith(b"<svg")
    missing = client.get(f"/api/sessions/{session['id']}/slates/999.svg", headers=HERE)
    assert missing.status_code == 404


def test_own_drills_stand_beside_shipped_ones(client):
    drill = get(client, "/api/drills")["drills"][0]["drill"]
    error = send(client, "PUT", f"/api/drills/{drill['key']}", {"drill": drill}, 409)["error"]
    assert error["code"] == "typical"
    own = drill | {"key": "mine-1", "name": "Mine"}
    send(client, "PUT", "/api/drills/mine-1", {"drill": own})
    first = get(client, "/api/drills")["drills"][0]
    assert (first["drill"]["name"], first["shipped"]) == ("Mine", False)
    bad = send(client, "PUT", "/api/drills/mine-1", {"drill": own | {"take_s": 0}}, 400)["error"]
    assert bad["field"] == "drill.take_s"
    send(client, "POST", "/api/drills/mine-1/archive")
    assert get(client, "/api/drills")["drills"][0]["archived"]
    send(client, "POST", "/api/drills/mine-1/restore")
    assert not get(client, "/api/drills")["drills"][0]["archived"]


def test_a_plan_with_unknown_drills_or_none_is_refused(client, session):
    plan = session["plan"] | {"blocks": [session["plan"]["blocks"][0] | {"drill_key": "nope"}]}
    body = {"name": "Odd", "ask": ASK, "plan": plan, "setup_id": None}
    assert send(client, "POST", "/api/sessions", body, 400)["error"]["field"] == "plan"
    body["plan"] = plan | {"blocks": []}
    assert "more minutes" in send(client, "POST", "/api/sessions", body, 400)["error"]["message"]
    send(client, "POST", "/api/sessions/plan", {"ask": ASK | {"minutes": 1}}, 400)


def slate_film(path, session_id, take_index, *, clock_s):
    """A shaken film that begins with a slate, dated by a camera whose clock is wrong."""
    text = slate_text(session_id, take_index)
    code = cv2.resize(code_image(text, 8), (180, 180), interpolation=cv2.INTER_AREA)
    with av.open(str(path), "w") as out:
        out.metadata["creation_time"] = datetime.fromtimestamp(clock_s, UTC).isoformat()
        stream = out.add_stream("libx264", rate=30)
        stream.width, stream.height, stream.pix_fmt = 480, 270, "yuv420p"
        for index, frame in enumerate(shaken(300, size=(480, 270))):
            if index < 45:
                frame[40:220, 150:330] = code
            picture = in_format(av.VideoFrame.from_ndarray(frame, format="gray"), "yuv420p")
            out.mux(stream.encode(picture))
        out.mux(stream.encode(None))
    return path


def test_films_are_proposed_by_slate_and_clock(client, library, session, tmp_path):
    for position in range(3):
        note(client, session, position, state="filmed")
    now = get(client, f"/api/sessions/{session['id']}")["session"]["takes"][0]["filmed_at"]
    rolled = datetime.fromisoformat(now).timestamp()
    one = bring_in(client, slate_film(tmp_path / "a.mp4", session["id"], 1,
                                      clock_s=rolled + 47 * 60 - 10))  # fmt: skip
    measure(library, one["id"])
    found = get(client, f"/api/sessions/{session['id']}/matches")
    assert [(m["film_id"], m["position"], m["how"]) for m in found["matches"]] == [
        (one["id"], 1, "slate")
    ]
    assert found["offset_s"] == pytest.approx(47 * 60, abs=2)
    assert found["films"][0]["has_slate"]
    note(client, session, 1, take_id=one["id"])
    assert get(client, f"/api/sessions/{session['id']}/matches")["films"] == []
    detail = get(client, f"/api/takes/{one['id']}")
    seconds = session["plan"]["blocks"][0]["take_s"]
    # The slate is seen for 1.5 s, and the count-in takes 5 s.
    assert detail["part"]["from_s"] == pytest.approx(6.5, abs=0.5)
    left = min(seconds, 10.0 - detail["part"]["from_s"])
    assert detail["part"]["to_s"] - detail["part"]["from_s"] == pytest.approx(left, abs=0.1)
    times = detail["judgement"]["trace"]["t_s"]
    assert detail["part"]["from_s"] <= times[0] <= times[-1] <= detail["part"]["to_s"]
    keep = detail["judgement"]["remedies"][0]
    assert keep["start_s"] == pytest.approx(detail["part"]["from_s"], abs=0.05)
    whole = send(client, "PATCH", f"/api/takes/{one['id']}", {"whole": True})
    assert whole["part"] is None
    assert whole["judgement"]["trace"]["t_s"][0] < 0.5


def test_every_drill_is_drawn(client):
    small = client.get("/api/figures", headers=HERE).json
    keys = {one["drill"]["key"] for one in client.get("/api/drills", headers=HERE).json["drills"]}
    assert {one["drill_key"] for one in small["figures"]} == keys
    assert all(len(one["frame"]["joints"]) == len(small["joints"]) for one in small["figures"])
    walk = client.get("/api/drills/walk-forward/figure", headers=HERE).json
    control, *others = walk["figures"]
    assert (control["control"], control["differs"]) == (True, [])
    assert all("gait" in one["differs"] for one in others)
    assert control["cycle"] is True
    assert len(control["frames"]) > 10
    assert "Walking forward" in control["words"]
    assert client.get("/api/drills/none/figure", headers=HERE).status_code == 404


def test_the_body_has_the_shooters_own_lengths(client, library):
    def tallest():
        found = client.get("/api/drills/hands/figure", headers=HERE).json
        head = found["joints"].index("head")
        return found["figures"][0]["frames"][0]["joints"][head][1]

    usual = tallest()
    with database.opened(library.database) as db, database.atomic(db):
        row = kit.setup_by_id(db, kit.usual_setup_id(db))
        strap = replace(row.ask.bench.strap, forearm_mm=280.0)
        own = replace(row.ask, name="Mine", bench=replace(row.ask.bench, strap=strap))
        kit.mark_setup_used(db, kit.add_setup(db, own))
    assert tallest() == pytest.approx(usual * 280 / 350, rel=0.02)


def result(client, session, position):
    return get(client, f"/api/sessions/{session['id']}/takes/{position}/result")


def test_what_came_of_a_take_is_told_for_the_rest_after_it(client, library, session, tmp_path):
    assert result(client, session, 0)["state"] == "none"
    shakes = (2.0, 0.6)
    for position, size in enumerate(shakes):
        path = write_film(tmp_path / f"{position}.mp4", shaken(40, amplitude_px=size))
        taken = bring_in(client, path)["id"]
        note(client, session, position, state="filmed", take_id=taken)
        assert result(client, session, position)["state"] == "measuring"
        measure(library, taken)
    first, second = (result(client, session, position) for position in (0, 1))
    assert (first["state"], first["better_by"]) == ("told", None)
    assert f"Gust {first['gust']:.1f}, " in first["figure"]
    assert second["better_by"] == pytest.approx(first["gust"] - second["gust"])
    assert f"Better than the last by {second['better_by']:.1f}." in second["figure"]
    assert not first["passed"]
    assert first["advice"] == f"{first['cause']}. {first['change']}"
    assert (
        client.get(f"/api/sessions/{session['id']}/takes/99/result", headers=HERE).status_code
        == 404
    )


def test_a_take_that_is_not_trusted_is_told_as_unsure(
    client, library, session, tmp_path, monkeypatch
):
    taken = bring_in(client, write_film(tmp_path / "a.mp4", shaken(40)))["id"]
    note(client, session, 0, state="filmed", take_id=taken)
    measure(library, taken)
    assert "Unsure" not in result(client, session, 0)["figure"]
    monkeypatch.setattr(trials, "LEAST_TRUST", 1.01)
    assert result(client, session, 0)["figure"].endswith("Unsure: 100% is trusted.")


def test_a_film_that_cannot_be_measured_says_so(client, library, session, tmp_path):
    path = tmp_path / "bad.mp4"
    path.write_bytes(b"no film at all")
    taken = bring_in(client, path)["id"]
    note(client, session, 0, state="filmed", take_id=taken)
    measure(library, taken)
    found = result(client, session, 0)
    assert (found["state"], found["gust"]) == ("failed", None)
    assert found["figure"].startswith("It could not be measured: ")


def test_more_than_a_hundred_loose_films_can_be_filed(client, db, session):
    with database.atomic(db):
        ids = [measured_take(db, f"C{k:04d}", 4.0) for k in range(120)]
        db.execute("update clip set duration_s = 5.0")
    found = get(client, f"/api/sessions/{session['id']}/matches")
    assert sorted(film["take_id"] for film in found["films"]) == ids
    assert note(client, session, 0, take_id=ids[0])["take_id"] == ids[0]


def test_a_strap_has_a_mark_only_where_the_set_up_holds_one(client, db):
    bare, taut = (
        next(one for one in kit.setups(db) if kit.parts_of(db, one.ask).strapped == strapped)
        for strapped in (False, True)
    )
    drill = replace(drills.library(db)["hands"], needs=("strap",))
    words = [
        next(one.words for one in practising.checks(db, setup.id, drill) if one.key == "strap")
        for setup in (bare, taut)
    ]
    assert words[0] == "Strap taut at its mark."
    assert words[1].startswith("Strap taut at its mark at ")
