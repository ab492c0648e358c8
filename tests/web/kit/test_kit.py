"""Briefs, kit and bench through the API: what is kept, what is refused, and what follows."""

from __future__ import annotations

from dataclasses import replace

import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.jobs.refresher import Refresher
from ridgewind.services import assessing
from ridgewind.store import briefs, database, kit, summaries, takes
from ridgewind.web.app import Config, create_app
from tests.conftest import shaken, write_film
from tests.web.conftest import HERE, bring_in, measure
from tests.web.seasons import measured_take


@pytest.fixture
def woken():
    return []


@pytest.fixture
def client(library, woken):
    config = Config(library.root, on_stale=lambda: woken.append(True))
    return create_app(config).test_client()


def get(client, path):
    reply = client.get(path, headers=HERE)
    assert reply.status_code == 200, reply.json
    return reply.json


def send(client, method, path, body=None, status=200):
    reply = client.open(path, method=method, json=body, headers=HERE)
    assert reply.status_code == status, reply.json
    return reply.json


def first_setup(client) -> dict:
    """A set-up of one's own, copied from the typical mirrorless."""
    found = next(s for s in get(client, "/api/kit")["setups"] if "mirrorless" in s["name"])
    fields = ("camera_id", "lens_id", "support_ids", "optics", "bench")
    return {"name": "Mine", **{field: found[field] for field in fields}}


def bench_of(client, setup, **more):
    body = {"setup_id": 0, "brief_id": None, "setup": setup} | more
    return send(client, "POST", "/api/bench", body)


@pytest.fixture
def measured(client, library, tmp_path):
    """Two takes of unlike shake, under the usual brief."""
    ids = []
    for number, amplitude_px in enumerate((0.4, 3.0)):
        film = write_film(tmp_path / f"{number}.mp4", shaken(amplitude_px=amplitude_px))
        take = bring_in(client, film)
        measure(library, take["id"])
        ids.append(take["id"])
    return ids


def test_a_named_brief_judges_every_take_that_points_at_it(client, measured):
    brief = get(client, "/api/briefs")["briefs"][0]["brief"]
    made = send(client, "POST", "/api/briefs", {"name": "Door", "brief": brief}, 201)
    for take_id in measured:
        detail = send(client, "PATCH", f"/api/takes/{take_id}", {"brief_id": made["id"]})
        assert detail["brief_link"] == {"id": made["id"], "name": "Door"}
    before = [line["remedy"] for line in get(client, "/api/takes")["takes"]]
    raw = {"name": "Door", "brief": brief | {"feel": "raw"}}
    changed = send(client, "PUT", f"/api/briefs/{made['id']}", raw)
    assert (changed["judged"], changed["left"], changed["item"]["takes"]) == (2, 0, 2)
    after = get(client, "/api/takes")
    assert [line["remedy"] for line in after["takes"]] == ["keep", "keep"] != before
    assert after["stale"] == 0


def test_a_change_in_place_departs_from_the_named_brief(client, measured):
    one, other = measured
    detail = get(client, f"/api/takes/{one}")
    own = send(client, "PUT", f"/api/takes/{one}/brief", detail["brief"] | {"feel": "raw"})
    assert own["brief_link"] is None
    assert own["brief_parent"] == detail["brief_link"]
    assert get(client, f"/api/takes/{other}")["brief"]["feel"] == "smooth"
    back = send(client, "PATCH", f"/api/takes/{one}", {"brief_id": detail["brief_link"]["id"]})
    assert back["brief_link"] == detail["brief_link"]


def test_many_takes_are_judged_again_in_the_background(client, library, measured, woken):
    with database.opened(library.database) as db:
        brief_id = briefs.add(db, usual_brief(), name="Many")
        for take_id in measured:
            takes.point(db, take_id, brief_id=brief_id)
        briefs.change(db, brief_id, replace(usual_brief(), feel="raw"), name="Many")
        summaries.mark_brief_stale(db, brief_id)
        assert assessing.refresh(db, budget_s=0.0) == 1
        with Refresher(library):
            while summaries.stale_count(db):
                pass
        assert [takes.by_id(db, take_id).remedy for take_id in measured] == ["keep", "keep"]
    assert woken == []


@pytest.mark.parametrize(
    ("change", "field", "rule"),
    [
        ({"delivery_fps": 0}, "delivery_fps", "between 1 and 1000 frames a second"),
        ({"wanted_s": -3}, "wanted_s", "between 0.1 and 36000 s"),
        ({"most_crop_pct": 95}, "most_crop_pct", "between 0 and 90 %"),
        ({"own_target": 11}, "own_target", "between 0 and 10"),
        ({"delivery_width_px": "wide"}, "brief.delivery_width_px", "valid integer"),
    ],
)
def test_a_nonsense_brief_is_refused_beside_its_field(client, change, field, rule):
    brief = get(client, "/api/briefs")["briefs"][0]["brief"] | change
    before = len(get(client, "/api/briefs")["briefs"])
    error = send(client, "POST", "/api/briefs", {"name": "Odd", "brief": brief}, 400)["error"]
    assert error["field"] == field
    assert rule in error["message"]
    assert len(get(client, "/api/briefs")["briefs"]) == before


def test_typical_briefs_stay_and_say_so(client):
    first = get(client, "/api/briefs")["briefs"][0]
    body = {"name": "Mine now", "brief": first["brief"]}
    error = send(client, "PUT", f"/api/briefs/{first['id']}", body, 409)["error"]
    assert (error["code"], error["hint"]) == ("typical", "Copy it, and change the copy.")


def test_archiving_and_using_briefs(client):
    ids = [item["id"] for item in get(client, "/api/briefs")["briefs"]]
    send(client, "POST", f"/api/briefs/{ids[0]}/archive")
    assert get(client, "/api/briefs")["briefs"][-1]["id"] == ids[0]
    assert send(client, "POST", f"/api/briefs/{ids[2]}/use")["usual"]
    assert get(client, "/api/briefs")["briefs"][0]["id"] == ids[2]
    assert not send(client, "POST", f"/api/briefs/{ids[0]}/restore")["archived"]


def test_a_camera_lens_and_set_up_from_nothing_to_a_takes_body_speed(client, measured):
    whole = get(client, "/api/kit")
    camera = whole["cameras"][0]["spec"] | {"sensor_long_mm": 18.0, "sensor_short_mm": 12.0}
    lens = {"mount": "m", "focal_min_mm": 20, "focal_max_mm": 20, "stabiliser": False,
            "mass_g": 200, "length_mm": 50, "diameter_mm": 60, "balance_mm": 25}  # fmt: skip
    camera_id = send(client, "POST", "/api/kit/cameras", {"name": "C", "spec": camera}, 201)["id"]
    lens_id = send(client, "POST", "/api/kit/lenses", {"name": "L", "spec": lens}, 201)["id"]
    setup = first_setup(client)
    optics = {"mode": 0, "rate_hz": 25, "focal_mm": 20, "lens_stabiliser": False,
              "body_stabiliser": False, "digital_stabiliser": False, "shutter": None}  # fmt: skip
    body = setup | {"camera_id": camera_id, "lens_id": lens_id, "optics": optics}
    made = send(client, "POST", "/api/kit/setups", body, 201)
    assert made["focal_eq_mm"] == pytest.approx(40.0)
    assert made["usual"]
    before = get(client, f"/api/takes/{measured[1]}")
    after = send(client, "PATCH", f"/api/takes/{measured[1]}", {"setup_id": made["id"]})
    ratio = before["judgement"]["body_deg_s"] / after["judgement"]["body_deg_s"]
    assert ratio == pytest.approx(40 / 26)
    fixed = send(client, "PUT", f"/api/kit/lenses/{lens_id}", {"name": "L", "spec": lens | {
        "focal_min_mm": 10}})  # fmt: skip
    assert fixed["setups"] == 1
    own = send(client, "PATCH", f"/api/takes/{measured[1]}", {"own_focal_eq_mm": 26})
    assert own["judgement"]["body_deg_s"] == pytest.approx(before["judgement"]["body_deg_s"])
    assert send(client, "PATCH", f"/api/takes/{measured[1]}", {"own_focal_eq_mm": None})[
        "focal_eq_mm"
    ] == pytest.approx(40.0)


@pytest.mark.parametrize(
    ("change", "field", "rule"),
    [
        ({"mass_g": -5}, "spec.mass_g", "It must be between 1 and 50000 g."),
        ({"sensor_long_mm": "big"}, "spec.sensor_long_mm", "valid number"),
        ({"shutters": []}, "spec.shutters", "At least one speed is needed."),
    ],
)
def test_a_nonsense_camera_is_refused_beside_its_field(client, change, field, rule):
    whole = get(client, "/api/kit")
    spec = whole["cameras"][0]["spec"] | change
    error = send(client, "POST", "/api/kit/cameras", {"name": "Odd", "spec": spec}, 400)["error"]
    assert error["field"] == field
    assert rule in error["message"]
    assert len(get(client, "/api/kit")["cameras"]) == len(whole["cameras"])


def test_a_rule_inside_a_mode_names_the_mode(client):
    spec = get(client, "/api/kit")["cameras"][0]["spec"]
    spec["modes"][1]["mbit_s"] = 0
    error = send(client, "POST", "/api/kit/cameras", {"name": "Odd", "spec": spec}, 400)["error"]
    assert error["field"] == "spec.modes.1.mbit_s"


def test_the_bench_computes_every_panel(client):
    found = bench_of(client, first_setup(client))
    assert found["problems"] == []
    assert found["picture"]["focal_eq_mm"] == pytest.approx(35.0)
    assert found["source"] == "typical"
    assert found["shake"]["hand"]["takes"] == 0
    assert found["time"]["nearest"] == 50.0
    assert found["move"]["kind"] == "slide"
    assert found["rig"]["hang"] is None
    assert found["strap"]["route"] == "neck"
    assert {"Fixed 35", "Standard zoom 24–70"} <= {reach["name"] for reach in found["reaches"]}


def test_one_wrong_entry_darkens_only_its_panel(client):
    setup = first_setup(client)
    setup["bench"]["move"]["subject_m"] = 0
    found = bench_of(client, setup)
    assert found["move"] is None
    assert found["picture"] is not None
    assert found["problems"] == [
        {"panel": "move", "field": "subject_m",
         "message": "it must be between 0.05 and 100000 m"}
    ]  # fmt: skip
    error = send(client, "POST", "/api/kit/setups", setup, 400)["error"]
    assert error["field"] == "move.subject_m"
    setup["optics"]["rate_hz"] = 17
    found = bench_of(client, setup)
    assert [problem["field"] for problem in found["problems"]] == ["rate_hz"]
    assert found["rig"] is not None


def test_the_curve_of_shake_comes_from_the_shooters_own_takes(client, measured):
    found = bench_of(client, first_setup(client))
    assert found["source"] == "all"
    assert found["shake"]["hand"]["takes"] == len(found["dots"]) == 2
    assert {round(dot["focal_mm"]) for dot in found["dots"]} == {26}


def test_walks_and_standing_takes_are_never_one_curve(client, library, measured):
    setup = first_setup(client)
    standing = bench_of(client, setup)["shake"]["hand"]["takes"]
    setup["bench"]["shake"]["typical"] = "walking"
    assert bench_of(client, setup)["source"] == "typical"
    with database.opened(library.database) as db, database.atomic(db):
        [first, *_] = [row["take_id"] for row in db.execute("select take_id from summary")]
        db.execute(
            "update summary set figures = json_set(figures, '$.cadence', 108.0) where take_id = ?",
            (first,),
        )
    walking = bench_of(client, setup)
    assert (walking["source"], walking["shake"]["hand"]["takes"]) == ("all", 1)
    setup["bench"]["shake"]["typical"] = "standing"
    assert bench_of(client, setup)["shake"]["hand"]["takes"] == standing - 1


def test_takes_without_a_set_up_tell_nothing_of_one(client, db):
    body = first_setup(client)
    kept = send(client, "POST", "/api/kit/setups", body, 201)["id"]
    with database.atomic(db):
        ids = [measured_take(db, f"C{k}", 4.0) for k in range(4)]
        db.execute("update take set setup_id = null")
    assert bench_of(client, body, setup_id=kept)["source"] == "all"
    with database.atomic(db):
        for one in ids[:3]:
            takes.point(db, one, setup_id=kept)
    found = bench_of(client, body, setup_id=kept)
    assert (found["source"], found["shake"]["hand"]["takes"]) == ("setup", 3)


def test_a_rig_that_tips_forward_gets_its_counterweight(client):
    setup = first_setup(client)
    setup["bench"]["rig"] |= {"handle": {"x_mm": 0, "y_mm": 160, "z_mm": 0}}
    hang = bench_of(client, setup)["rig"]["hang"]
    assert hang["forward_deg"] > 5
    assert hang["counterweight_g"] > 0


def test_a_planned_move_is_filmed_once_and_served(client, library):
    setup = first_setup(client)
    setup["bench"]["move"] |= {"kind": "orbit", "seconds": 1.0}
    body = {"setup_id": 0, "brief_id": None, "setup": setup}
    first = send(client, "POST", "/api/bench/preview", body)
    assert send(client, "POST", "/api/bench/preview", body) == first
    assert len(list(library.previews.iterdir())) == 1
    with client.get(f"/api/bench/previews/{first['name']}", headers=HERE) as film:
        assert film.mimetype == "video/mp4"
        assert len(film.data) > 5000
    setup["bench"]["move"]["subject_m"] = -1
    error = send(client, "POST", "/api/bench/preview", body, 400)["error"]
    assert error["field"] == "subject_m"
    missing = client.get(f"/api/bench/previews/{'0' * 24}", headers=HERE)
    assert missing.status_code == 404
    assert client.get("/api/bench/previews/..%2Flibrary.db", headers=HERE).status_code >= 400


def staleness(library, take_id):
    with database.opened(library.database) as db:
        return summaries.staleness(db, take_id)


def test_what_a_take_was_filmed_with_changes_and_the_take_is_judged_again(
    client, library, measured, monkeypatch
):
    lens = {"mount": "m", "focal_min_mm": 20, "focal_max_mm": 60, "stabiliser": False,
            "mass_g": 200, "length_mm": 50, "diameter_mm": 60, "balance_mm": 25}  # fmt: skip
    lens_id = send(client, "POST", "/api/kit/lenses", {"name": "L", "spec": lens}, 201)["id"]
    body = first_setup(client) | {"lens_id": lens_id}
    body["optics"] = body["optics"] | {"focal_mm": 30, "lens_stabiliser": False}
    made = send(client, "POST", "/api/kit/setups", body, 201)
    send(client, "PATCH", f"/api/takes/{measured[1]}", {"setup_id": made["id"]})
    monkeypatch.setattr("ridgewind.services.assessing.refresh", lambda *_args, **_more: 0)
    assert staleness(library, measured[1]) == 0
    body["optics"] = body["optics"] | {"focal_mm": 40}
    send(client, "PUT", f"/api/kit/setups/{made['id']}", body)
    assert staleness(library, measured[1]) == 1
    send(client, "PUT", f"/api/kit/lenses/{lens_id}", {"name": "L", "spec": lens | {"mass_g": 5}})
    assert staleness(library, measured[1]) == 2


def test_an_upgrade_of_a_typical_camera_takes_its_set_ups_along(db, library, measured):
    setup = kit.setups(db)[-1]
    camera = kit.item(db, setup.ask.camera_id)
    key = next(key for key, number in kit.typical_ids(db).items() if number == camera.id)
    with database.atomic(db):
        takes.point(db, measured[1], setup_id=setup.id)
        kit.put_typical(db, camera.spec, name=camera.name, key=key)
        assert summaries.staleness(db, measured[1]) == 0  # nothing has changed
        wider = replace(camera.spec, sensor_long_mm=2 * camera.spec.sensor_long_mm)
        kit.put_typical(db, wider, name=camera.name, key=key)
    assert summaries.staleness(db, measured[1]) == 1
    after = kit.setup_by_id(db, setup.id)
    assert after.focal_eq_mm == pytest.approx(setup.focal_eq_mm / 2)


def test_a_set_up_that_was_changed_elsewhere_is_not_overwritten(client):
    body = first_setup(client)
    made = send(client, "POST", "/api/kit/setups", body, 201)
    path = f"/api/kit/setups/{made['id']}"
    send(client, "PUT", path, body | {"name": "First", "base": body})
    refused = client.put(path, json=body | {"name": "Second", "base": body}, headers=HERE)
    assert (refused.status_code, refused.json["error"]["code"]) == (409, "changed_elsewhere")
    kept = {field: send(client, "PUT", path, body | {"name": "First"})[field] for field in body}
    assert send(client, "PUT", path, body | {"name": "Second", "base": kept})["name"] == "Second"


def test_set_ups_are_changed_archived_and_used(client):
    made = send(client, "POST", "/api/kit/setups", first_setup(client), 201)
    path = f"/api/kit/setups/{made['id']}"
    changed = send(client, "PUT", path, first_setup(client) | {"name": "Renamed"})
    assert changed["name"] == "Renamed"
    assert send(client, "POST", f"{path}/archive")["archived"]
    assert not send(client, "POST", f"{path}/restore")["archived"]
    assert send(client, "POST", f"{path}/use")["usual"]
    item = get(client, "/api/kit")["lenses"][0]["id"]
    send(client, "POST", f"/api/kit/items/{item}/archive")
    assert get(client, "/api/kit")["lenses"][-1]["id"] == item
    send(client, "POST", f"/api/kit/items/{item}/restore")
