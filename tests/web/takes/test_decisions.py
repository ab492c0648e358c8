"""The API of the decision: details, recipes, renders, marks, choices, comparisons and settings."""

from __future__ import annotations

import csv
import io

import pytest

from ridgewind.core.practice.session import Ask
from ridgewind.jobs import render
from ridgewind.services import practising
from ridgewind.store import database, sessions, summaries, takes
from tests.conftest import shaken, write_film
from tests.web.conftest import HERE, bring_in, measure


@pytest.fixture
def several(client, library, tmp_path):
    """Takes of three sizes of shake."""
    found = []
    for index, size in enumerate((0.15, 1.0, 4.0)):
        film = write_film(tmp_path / f"{index}.mp4", shaken(60, amplitude_px=size))
        take = bring_in(client, film, name=f"take-{index}.mp4")
        measure(library, take["id"])
        found.append(take["id"])
    return found


def ok(reply, status=200):
    assert reply.status_code == status, reply.json
    return reply.json


def get(client, address):
    return ok(client.get(address, headers=HERE))


def put(client, address, body):
    return ok(client.put(address, json=body, headers=HERE))


def test_what_lies_behind_the_remedies(client, measured):
    found = get(client, f"/api/takes/{measured}/remedy-details")
    assert found["rates"][0]["rate"] == pytest.approx(0.8)
    (polish, *_) = [c for c in found["curves"] if c["remedy"] == "polish"]
    crops = [one["crop_pct"] for one in polish["strengths"]]
    assert crops == sorted(crops)
    assert found["drill"]["name"]
    remedies = get(client, f"/api/takes/{measured}")["judgement"]["remedies"]
    points = [one["points"] for one in remedies]
    assert points[1:] == sorted(points[1:])


def test_a_verdict_names_the_limit_that_a_take_was_beyond(client, library, measured, season):
    """Three rough takes of one hand bear a short lens; a fourth was filmed through a longer one."""
    with database.opened(library.database) as db, database.atomic(db):
        session_id = sessions.recent(db, limit=1)[0].id
        sessions.set_state(db, session_id, 0, "filmed")
        sessions.file_take(db, session_id, 0, measured)
        takes.set_own_focal(db, measured, 135.0)
        for take_id in season:
            db.execute("update summary set speed_pct_s = 4.0 where take_id = ?", (take_id,))
    hints = get(client, f"/api/takes/{measured}/remedy-details")["hints"]
    assert hints[0]["kind"] == "limit"
    assert "“One hand” bears" in hints[0]["text"]
    assert "this was 135 mm" in hints[0]["text"]


def test_a_slow_reframe_stays_within_the_briefs_crop(client, measured):
    assert get(client, f"/api/takes/{measured}/remedy-details")["drift_crop_pct"] == 6
    address = f"/api/takes/{measured}/recipe.json?remedy=keep&drift=up"
    assert get(client, address)["crop_pct"] == 6
    brief = get(client, f"/api/takes/{measured}")["brief"] | {"most_crop_pct": 0.5}
    put(client, f"/api/takes/{measured}/brief", brief)
    assert get(client, f"/api/takes/{measured}/remedy-details")["drift_crop_pct"] == 0
    refused = client.get(address, headers=HERE)
    assert refused.json["error"]["message"] == "The brief leaves no crop for it."


def test_windows_of_a_remedy_are_drawn_over_the_picture(client, measured):
    found = get(client, f"/api/takes/{measured}/windows?remedy=polish")
    assert len(found["t_s"]) == len(found["corners"]) == 44
    assert all(-0.01 <= value <= 1.01 for row in found["corners"] for value in row)


def test_the_numbers_of_a_remedy_travel(client, measured):
    body = get(client, f"/api/takes/{measured}/recipe.json?remedy=polish&corner_hz=0.5")
    assert body["remedy"] == "polish"
    assert body["corner_hz"] == 0.5
    assert len(body["windows"]["t_s"]) == len(body["windows"]["size"]) == 45
    reply = client.get(f"/api/takes/{measured}/recipe.csv?remedy=slow", headers=HERE)
    (row,) = csv.DictReader(io.StringIO(reply.text))
    assert float(row["rate"]) == pytest.approx(0.8)
    assert "attachment" in reply.headers["Content-Disposition"]
    refused = client.get(f"/api/takes/{measured}/recipe.csv?remedy=retake", headers=HERE)
    assert refused.status_code == 400
    odd = client.get(f"/api/takes/{measured}/recipe.csv?remedy=slow&rate=0.33", headers=HERE)
    assert odd.json["error"]["field"].endswith("rate")


def test_a_preview_is_asked_for_made_looked_at_and_marked(client, library, measured, long_film):
    address = f"/api/takes/{measured}/renders"
    body = {"remedy": "polish", "purpose": "preview"}
    made = ok(client.post(address, json=body, headers=HERE), 201)
    assert client.get(f"/api/renders/{made['id']}/film.mp4", headers=HERE).status_code == 404
    render.render_one(library, made["id"])
    (line,) = get(client, address)["renders"]
    assert line["state"] == "done"
    assert abs(line["off"]) < 0.4
    with client.get(f"/api/renders/{made['id']}/film.mp4", headers=HERE) as film:
        assert film.mimetype == "video/mp4"
    mark = {"smooth": True, "render_id": made["id"]}
    other = bring_in(client, long_film)["id"]
    assert client.put(f"/api/takes/{other}/mark", json=mark, headers=HERE).status_code == 404
    put(client, f"/api/takes/{measured}/mark", mark)
    assert get(client, address)["renders"][0]["worked"] is True
    eye = get(client, "/api/eye")
    assert eye["polish"]["marks"] == 1
    assert ok(client.delete(f"/api/renders/{made['id']}", headers=HERE))["renders"] == []
    assert not library.render_of(made["id"]).exists()


def test_marks_make_a_threshold_that_can_be_used_and_undone(client, several):
    before = get(client, f"/api/takes/{several[0]}")["brief"]
    for number, smooth in zip(several, (True, True, False), strict=True):
        put(client, f"/api/takes/{number}/mark", {"smooth": smooth, "blind": True})
    feel = next(one for one in get(client, "/api/eye")["feels"] if one["feel"] == "smooth")
    assert feel["threshold"]["marks"] == 3
    assert not feel["threshold"]["offered"]
    assert feel["threshold"]["low"] < feel["threshold"]["value"] < feel["threshold"]["high"]
    used = ok(client.post("/api/eye/smooth/use", headers=HERE))
    after = get(client, f"/api/takes/{several[0]}")["brief"]
    assert after["own_target"] == pytest.approx(feel["threshold"]["value"], abs=0.06)
    ok(client.post("/api/eye/undo", json=used, headers=HERE))
    assert get(client, f"/api/takes/{several[0]}")["brief"] == before
    put(client, f"/api/takes/{several[0]}/mark", {"smooth": None})
    assert get(client, f"/api/takes/{several[0]}")["marked"] is None


def test_a_mark_on_a_film_of_the_stand_in_camera_teaches_the_eye_nothing(client, library, several):
    for number in several:
        put(client, f"/api/takes/{number}/mark", {"smooth": True, "blind": True})
    with database.opened(library.database) as db, database.atomic(db):
        takes.set_origin(db, several[0], "simulated")
    smooth = next(one for one in get(client, "/api/eye")["feels"] if one["feel"] == "smooth")
    assert {one["take_id"] for one in smooth["marks"]} == set(several[1:])


def blind(client, seed):
    return [one["take_id"] for one in get(client, f"/api/eye/blind?seed={seed}")["takes"]]


def test_blind_takes_come_without_marks_in_an_order_of_their_own(client, several):
    orders = {tuple(blind(client, seed)) for seed in range(12)}
    assert len(orders) > 1
    assert all(sorted(order) == several for order in orders)
    put(client, f"/api/takes/{several[0]}/mark", {"smooth": True})
    assert several[0] not in blind(client, 1)


def test_only_the_judged_part_of_a_film_is_looked_at(client, library, several):
    with database.opened(library.database) as db, database.atomic(db):
        takes.set_part(db, several[1], (0.4, 1.6))
    (group,) = get(client, f"/api/compare?takes={several[0]},{several[1]}")["groups"]
    whole, part = (side["part"] for side in group["sides"])
    assert (whole["from_s"], whole["to_s"]) == (0, None)
    assert (part["from_s"], part["to_s"]) == (0.4, 1.6)
    found = get(client, "/api/eye/blind?seed=1")["takes"]
    assert next(one for one in found if one["take_id"] == several[1])["to_s"] == 1.6


def test_takes_side_by_side_the_best_and_what_is_missing(client, several):
    address = f"/api/compare?takes={','.join(str(one) for one in several)}"
    (group,) = get(client, address)["groups"]
    assert group["best"] == [several[0]]
    assert group["reason"].startswith("Steadiest: gust")
    assert len(group["sides"][0]["trace"]["t_s"]) > 10
    assert group["missing"] == 0
    put(client, f"/api/takes/{several[0]}/choice", {"choice": "reject"})
    put(client, f"/api/takes/{several[2]}/choice", {"choice": "retake"})
    (group,) = get(client, address)["groups"]
    assert group["best"] == [several[1]]
    assert group["missing_words"] == "Planned, no film yet: one more."
    nothing = client.get("/api/compare", headers=HERE)
    assert nothing.json["error"]["hint"] == "Name a session, a drill or takes."


def test_the_takes_of_a_session_stand_under_their_drills(client, library, several):
    ask = Ask(20.0, (), "path", (), (), 1, ())
    with database.opened(library.database) as db, database.atomic(db):
        plan = practising.plan(db, ask)
        number = sessions.add(db, name="Gallery", ask=ask, plan=plan, setup_id=None)
        for position, take in enumerate(several):
            sessions.set_state(db, number, position, "filmed")
            sessions.file_take(db, number, position, take)
        drill = sessions.by_id(db, number).takes[0].drill_key
    found = get(client, f"/api/compare?session={number}")
    assert found["title"] == "Gallery"
    assert found["groups"][0]["sides"][0]["variation"]
    assert sum(group["missing"] for group in found["groups"]) > 0
    by_drill = get(client, f"/api/compare?drill={drill}")
    assert by_drill["groups"][0]["sides"][0]["session"] == "Gallery"
    with database.opened(library.database) as db, database.atomic(db):
        for row in sessions.by_id(db, number).takes:
            if row.position:  # the first is filmed; the next two hold films as well
                sessions.set_state(db, number, row.position, "skipped")
    skipped = get(client, f"/api/compare?session={number}")["groups"]
    assert sum(len(group["sides"]) for group in skipped) == 3
    assert sum(group["missing"] for group in skipped) == 0


def test_rejected_originals_are_cleared_and_brought_back(client, several):
    put(client, f"/api/takes/{several[2]}/choice", {"choice": "reject"})
    before = get(client, "/api/cleared")
    assert (before["rejected"], before["aside"]) == (1, [])
    assert before["rejected_bytes"] > 0
    after = ok(client.post("/api/cleared", headers=HERE))
    (aside,) = after["aside"]
    assert after["rejected"] == 0
    assert aside["gone_on"] is not None
    assert get(client, f"/api/takes/{several[2]}")["cleared"]
    with client.get(f"/api/takes/{several[2]}/film", headers=HERE) as film:
        assert film.status_code == 200
    back = ok(client.post(f"/api/cleared/{aside['clip_id']}/restore", headers=HERE))
    assert back["aside"] == []
    ok(client.post("/api/cleared", headers=HERE))
    gone = ok(client.delete("/api/cleared", headers=HERE))
    assert gone["aside"][0]["gone_on"] is None
    late = client.post(f"/api/cleared/{aside['clip_id']}/restore", headers=HERE)
    assert late.json["error"]["hint"] == "Bring the clip in again."


def test_weights_judge_every_take_again(client, library, several):
    found = get(client, "/api/settings/weights")
    assert found["weights"] == found["usual"]
    heavy = found["weights"] | {"desk": 5.0, "seconds": 0.0}
    answer = put(client, "/api/settings/weights", heavy)
    assert answer["weights"]["desk"] == 5.0
    with database.opened(library.database) as db:
        assert summaries.stale_count(db) == answer["left"]
    remedies = get(client, f"/api/takes/{several[1]}")["judgement"]["remedies"]
    polish = next(one for one in remedies if one["remedy"] == "polish")
    assert polish["points"] > 10
    wrong = client.put("/api/settings/weights", json=heavy | {"desk": 9}, headers=HERE)
    assert wrong.json["error"]["field"] == "desk"


def test_a_take_that_is_not_measured_has_no_ways(client, short_film):
    take = bring_in(client, short_film)
    reply = client.get(f"/api/takes/{take['id']}/remedy-details", headers=HERE)
    assert reply.status_code == 409
    mark = client.put(f"/api/takes/{take['id']}/mark", json={"smooth": True}, headers=HERE)
    assert mark.json["error"]["hint"] == "Measure it first."
