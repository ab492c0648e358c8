"""The API: what it answers, whom it answers, and how it explains."""

from __future__ import annotations

import json
import pkgutil
import subprocess
import sys
from importlib import import_module
from pathlib import Path

import av
import pytest
from pydantic import BaseModel

from ridgewind import web
from ridgewind.store import listing
from tests.conftest import shaken
from tests.sending import announcing
from tests.web.conftest import HERE, bring_in, measure, send_film

ROOT = Path(__file__).parent.parent.parent.parent


def test_a_film_is_taken_in_measured_and_judged(client, measured):
    detail = client.get(f"/api/takes/{measured}", headers=HERE).json
    judgement = detail["judgement"]
    assert detail["take"]["state"] == "done"
    assert detail["clip"]["frames"] == 45
    assert judgement["gust"] > 4
    assert judgement["verdict"] in {remedy["remedy"] for remedy in judgement["remedies"]}
    columns = judgement["trace"]
    assert len(columns["t_s"]) == len(columns["gust"]) == len(columns["shares"][0])
    assert [band["name"] for band in judgement["bands"]] == [
        "drift", "sway", "step", "jitter", "buzz",
    ]  # fmt: skip


def test_changing_the_brief_changes_verdict_list_and_nothing_measured(client, measured):
    before = client.get(f"/api/takes/{measured}", headers=HERE).json
    brief = before["brief"] | {"feel": "raw", "keep_sound": True}
    after = client.put(f"/api/takes/{measured}/brief", json=brief, headers=HERE).json
    assert before["judgement"]["verdict"] != "keep"
    assert after["judgement"]["verdict"] == "keep"
    assert after["judgement"]["gust"] == before["judgement"]["gust"]
    line = client.get("/api/takes", headers=HERE).json["takes"][0]
    assert (line["remedy"], line["feel"]) == ("keep", "raw")


def test_a_duplicate_is_answered_with_the_take_that_holds_it(client, measured, short_film):
    reply = send_film(client, "again.mp4", short_film.read_bytes())
    assert reply.json["duplicate"]
    assert reply.json["take"]["id"] == measured


def test_delete_hides_and_restore_brings_back(client, measured):
    assert client.delete(f"/api/takes/{measured}", headers=HERE).status_code == 200
    assert client.get("/api/takes", headers=HERE).json["all"] == 0
    client.post(f"/api/takes/{measured}/restore", headers=HERE)
    assert client.get("/api/takes", headers=HERE).json["all"] == 1


def test_a_waiting_take_can_be_cancelled_and_measured_again(client, short_film):
    take = bring_in(client, short_film)
    assert client.post(f"/api/takes/{take['id']}/cancel", headers=HERE).json["state"] == "cancelled"
    assert client.post(f"/api/takes/{take['id']}/measure", headers=HERE).json["state"] == "queued"
    detail = client.get(f"/api/takes/{take['id']}", headers=HERE).json
    assert detail["judgement"] is None
    reply = client.get(f"/api/takes/{take['id']}/path", headers=HERE)
    assert (reply.status_code, reply.json["error"]["code"]) == (409, "not_ready")


def test_path_film_and_still_are_served(client, measured):
    text = client.get(f"/api/takes/{measured}/path.csv", headers=HERE).text
    assert text.startswith("t_s,pan_pct,tilt_pct,roll_deg,zoom_pct,trust\n0.000000,0.00000,")
    part_of = HERE | {"Range": "bytes=0-99"}
    with client.get(f"/api/takes/{measured}/film", headers=part_of) as part:
        assert (part.status_code, len(part.data)) == (206, 100)
    with client.get(f"/api/takes/{measured}/still", headers=HERE) as still:
        assert still.mimetype == "image/jpeg"
    assert len(client.get(f"/api/takes/{measured}/path", headers=HERE).json["t_s"]) == 45


@pytest.mark.parametrize(
    ("method", "address", "status", "code"),
    [
        ("get", "/api/takes/999", 404, "missing"),
        ("get", "/api/takes?sort=size", 400, "invalid"),
        ("get", "/api/takes?limit=100000", 400, "invalid"),
        ("get", "/api/nothing", 404, "missing"),
        ("delete", "/api/takes", 405, "http"),
        ("post", "/api/takes", 405, "http"),
        ("get", "/api/takes/1/film/../../../../etc/passwd", 404, "missing"),
    ],
)
def test_errors_say_what_happened_and_what_next(client, method, address, status, code):
    reply = getattr(client, method)(address, headers=HERE)
    error = reply.json["error"]
    assert (reply.status_code, error["code"]) == (status, code)
    assert error["message"]
    assert error["hint"]


def test_a_wrong_brief_names_its_field(client, measured):
    brief = client.get(f"/api/takes/{measured}", headers=HERE).json["brief"]
    reply = client.put(f"/api/takes/{measured}/brief", json=brief | {"wanted_s": -1}, headers=HERE)
    assert reply.status_code == 400
    assert reply.json["error"]["field"] == "wanted_s"


def test_an_unforeseen_error_is_logged_whole_and_answered_with_a_number(
    client, monkeypatch, caplog
):
    monkeypatch.setattr(listing, "count", lambda *_, **__: 1 / 0)
    reply = client.get("/api/takes", headers=HERE)
    assert reply.status_code == 500
    number = reply.json["error"]["message"].split("number ")[1][:8]
    assert number in caplog.text
    assert "ZeroDivisionError" in caplog.text


@pytest.mark.parametrize(
    "headers",
    [
        {"Host": "evil.example"},
        {"Host": "127.0.0.1.evil.example:8421"},
        {"Host": "127.0.0.1:8421", "Origin": "http://evil.example"},
        {"Host": "127.0.0.1:8421", "Origin": "null"},
        {"Host": "127.0.0.1:8421", "Origin": "http://127.0.0.1:9999"},
    ],
)
def test_other_names_and_other_sites_are_turned_away(client, headers):
    reply = client.get("/api/takes", headers=headers)
    assert (reply.status_code, reply.json["error"]["code"]) == (403, "forbidden")


def test_a_form_on_another_site_cannot_bring_films_in(client):
    headers = HERE | announcing("a.mp4", 1) | {"Sec-Fetch-Site": "cross-site"}
    assert client.post("/api/uploads", headers=headers).status_code == 403


def test_our_own_pages_are_answered_with_hardening(client):
    reply = client.get("/api/status", headers=HERE | {"Origin": "http://127.0.0.1:8421"})
    assert reply.status_code == 200
    assert "default-src 'self'" in reply.headers["Content-Security-Policy"]
    assert reply.headers["X-Content-Type-Options"] == "nosniff"


def test_a_list_tells_of_which_state_it_is(client, measured, db, monkeypatch):
    db.execute("select 1 from take")  # as a server does, which holds the store open

    def stamps():
        asked = (client.get(f"/api/{what}", headers=HERE) for what in ("takes", "pulse"))
        return tuple(reply.json["stamp"] for reply in asked)

    before, now = stamps()
    assert before == now
    client.delete(f"/api/takes/{measured}", headers=HERE)
    after, now = stamps()
    assert before != after == now
    page = listing.page

    def page_before_a_change(*args, **options):
        found = page(*args, **options)
        client.post(f"/api/takes/{measured}/restore", headers=HERE)
        return found

    monkeypatch.setattr(listing, "page", page_before_a_change)
    behind, now = stamps()
    assert behind != now


def test_five_thousand_takes_are_listed_by_pages(client, db):
    from tests.store.test_store import add_take, summary

    db.execute("begin")
    for number in range(5000):
        summary(db, add_take(db, number), number % 90 / 10)
    db.execute("commit")
    page = client.get("/api/takes?sort=gust&limit=200&offset=4900", headers=HERE).json
    assert (page["total"], len(page["takes"])) == (5000, 100)


def test_document_and_types_are_made_from_the_models(tmp_path):
    files = [str(tmp_path / name) for name in ("openapi.json", "addresses.json")]
    command = [sys.executable, "-m", "ridgewind.web.document", *files]
    subprocess.run(command, check=True, cwd=ROOT)
    kept = json.loads((ROOT / "frontend/openapi.json").read_text())
    made = json.loads((tmp_path / "openapi.json").read_text())
    assert len(made["paths"]) > 50
    assert kept == made, "run `make api` and commit what it writes"


def _model_modules():
    for found in pkgutil.walk_packages(web.__path__, "ridgewind.web."):
        if found.name.endswith("models"):
            yield import_module(found.name)


def test_no_two_schemas_share_a_name():
    known, modules = {}, list(_model_modules())
    assert len(modules) >= 10
    for module in modules:
        for name, thing in vars(module).items():
            if (
                not isinstance(thing, type)
                or not issubclass(thing, BaseModel)
                or thing is BaseModel
            ):
                continue
            schema = thing.model_json_schema(mode="serialization")
            parts = {**schema.pop("$defs", {}), name: schema}
            for part, meaning in parts.items():
                fields = sorted(meaning.get("properties", {}))
                assert known.setdefault(part, fields) == fields, part


def test_slow_motion_stretched_in_its_file_is_explained_as_it_was_filmed(client, library, tmp_path):
    """What the file says counts, unless the shooter says otherwise."""
    path = tmp_path / "slowed.mp4"
    options = {"movflags": "use_metadata_tags"}
    with av.open(str(path), "w", options=options) as film:
        film.metadata["com.android.capture.fps"] = "240.000000"
        stream = film.add_stream("libx264", rate=30)
        stream.width, stream.height, stream.pix_fmt = 320, 180, "yuv420p"
        for frame in shaken(60, amplitude_px=2.0):
            film.mux(stream.encode(av.VideoFrame.from_ndarray(frame, format="gray")))
        film.mux(stream.encode(None))
    take = bring_in(client, path)["id"]
    measure(library, take)
    at = f"/api/takes/{take}"
    slowed = client.get(at, headers=HERE).json
    assert slowed["capture_fps"] == 240
    said = client.patch(at, json={"own_capture_fps": 30}, headers=HERE).json
    assert said["capture_fps"] is None
    assert said["judgement"]["gust"] == slowed["judgement"]["gust"]
    assert slowed["judgement"]["body_deg_s"] > 3 * said["judgement"]["body_deg_s"]
    back = client.patch(at, json={"own_capture_fps": None}, headers=HERE).json
    assert back["judgement"] == slowed["judgement"]


def test_a_phone_that_fell_from_its_rate_was_not_slowed(client, library, tmp_path):
    """30 was asked for, and stands in the file, but the light allowed 24."""
    path = tmp_path / "dusk.mp4"
    with av.open(str(path), "w", options={"movflags": "use_metadata_tags"}) as film:
        film.metadata["com.android.capture.fps"] = "30.000000"
        stream = film.add_stream("libx264", rate=24)
        stream.width, stream.height, stream.pix_fmt = 320, 180, "yuv420p"
        for frame in shaken(40, amplitude_px=2.0):
            film.mux(stream.encode(av.VideoFrame.from_ndarray(frame, format="gray")))
        film.mux(stream.encode(None))
    take = bring_in(client, path)["id"]
    measure(library, take)
    assert client.get(f"/api/takes/{take}", headers=HERE).json["capture_fps"] is None
