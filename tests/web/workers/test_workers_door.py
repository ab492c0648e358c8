"""A worker's key opens a worker's addresses and nothing else; nobody else's opens those."""

from __future__ import annotations

import json

import pytest

from ridgewind.jobs.remote.leases import VERSION
from ridgewind.web.app import Config, create_app

LIBRARY_KEY = "the-library's-own"


@pytest.fixture
def client(library):
    app = create_app(Config(library.root, key=LIBRARY_KEY))
    return app.test_client()


@pytest.fixture
def key(client):
    told = client.post("/api/workers", json={"name": "Desk"}, headers=own()).get_json()
    return json.loads(told["file"])["ridgewind_worker"]["key"]


def own():
    return {"Authorization": f"Bearer {LIBRARY_KEY}"}


def held(key):
    return {"Authorization": f"Bearer {key}"}


HELLO = {"version": VERSION, "cores": 4}


def test_the_key_is_kept_as_a_digest_alone_and_told_once(client, key, library):
    assert key.encode() not in library.database.read_bytes()
    assert key not in client.get("/api/workers", headers=own()).get_data(as_text=True)


def test_a_workers_key_opens_its_own_addresses_alone(client, key):
    assert client.post("/api/worker/seats", json=HELLO, headers=held(key)).status_code == 200
    for address in ("/api/takes", "/api/workers", "/api/archive.zip", "/api/settings/weights"):
        assert client.get(address, headers=held(key)).status_code == 401


@pytest.mark.parametrize("wrong", ["", "guess", LIBRARY_KEY])
def test_no_other_key_opens_them(client, key, wrong):
    answer = client.post("/api/worker/seats", json=HELLO, headers=held(wrong))
    assert answer.status_code == 401
    assert "Other computers" in answer.get_json()["error"]["hint"]


def test_a_removed_key_opens_nothing(client, key):
    number = client.get("/api/workers", headers=own()).get_json()["workers"][0]["id"]
    client.delete(f"/api/workers/{number}", headers=own())
    answer = client.post("/api/worker/seats", json=HELLO, headers=held(key))
    assert answer.status_code == 401


def test_another_version_is_refused_with_a_word(client, key):
    body = HELLO | {"version": "0.0.1 other"}
    answer = client.post("/api/worker/seats", json=body, headers=held(key))
    assert answer.status_code == 400
    assert "same version" in answer.get_json()["error"]["hint"]


def test_a_seat_of_before_and_an_unknown_lease_are_said(client, key):
    for address, body, code in (
        ("/api/worker/seats/99/claim", {"kind": "measure"}, "no_seat"),
        ("/api/worker/leases/none/parts/copy", None, "lease_lost"),
        ("/api/worker/leases/none/film", None, "lease_lost"),
    ):
        ask = client.get if body is None else client.post
        answer = ask(address, headers=held(key), **({} if body is None else {"json": body}))
        assert answer.get_json()["error"]["code"] == code


def test_other_kinds_of_work_are_not_lent(client, key):
    seat = client.post("/api/worker/seats", json=HELLO, headers=held(key)).get_json()["seat"]
    for kind in ("copy", "film", "assemble"):
        answer = client.post(
            f"/api/worker/seats/{seat}/claim", json={"kind": kind}, headers=held(key)
        )
        assert answer.status_code == 400
