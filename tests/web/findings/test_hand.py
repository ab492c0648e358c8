"""The shooter's own hand over the API: of filed takes, asked about other lenses and rates."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.practice.session import Ask, Block, Session
from ridgewind.core.trials.own_hand import BINS, MIDDLES_HZ
from ridgewind.films import hand_filming
from ridgewind.jobs import running
from ridgewind.jobs.film import film_one
from ridgewind.standin import camera
from ridgewind.store import database, sessions, summaries, takes
from tests.web.conftest import HERE
from tests.web.seasons import measured_take


@pytest.fixture
def turned(library):
    """Four takes of one technique that turn evenly at a few hertz, and one of another."""
    with database.opened(library.database) as db, database.atomic(db):
        order = ("two",) * 4 + ("one",)
        plan = Session(0.0, (Block("hands", order, 8.0, 20.0, ("x",)),), 1.0, 0.0, ())
        ask = Ask(30.0, (), "path", (), (), 1, ())
        session_id = sessions.add(db, name="Day", ask=ask, plan=plan, setup_id=None)
        for position in range(len(order)):
            take_id = measured_take(db, f"t{position}", 4.0)
            turning = np.zeros((BINS, 4))
            turning[np.argmin(np.abs(MIDDLES_HZ - 3.0)), 0] = 1.0 + 0.2 * position
            summaries.put(
                db, take_id, gust=4.0, peak_gust=4.0, remedy="keep", ridge=b"", speed_pct_s=1.0,
                top_band="sway", cause=None, trusted_share=1.0, figures={"gust": 4.0},
                lasting=None, turning=turning, staleness=0,
            )  # fmt: skip
            sessions.set_state(db, session_id, position, "filmed")
            sessions.file_take(db, session_id, position, take_id)


def hand(client, query=""):
    return client.get(f"/api/hand{query}", headers=HERE).json


def test_the_most_filmed_technique_answers_first(client, turned):
    found = hand(client)
    assert [(one["key"], one["takes"]) for one in found["techniques"]] == [
        ("hands/two", 4), ("hands/one", 1),
    ]  # fmt: skip
    assert (found["chosen"], found["takes"]) == ("hands/two", 4)
    assert found["here"]["low"] < found["here"]["gust"] < found["here"]["high"]
    assert found["error"] < 0.5
    gusts = [one["gust"] for one in found["curve"]]
    assert gusts == sorted(gusts)
    assert np.argmax(found["techniques"][0]["density"]) == np.argmin(np.abs(MIDDLES_HZ - 3.0))


def test_lens_rate_and_screen_change_what_it_reads(client, turned):
    usual = hand(client)["here"]["gust"]
    assert hand(client, "?focal_eq_mm=100")["here"]["gust"] == pytest.approx(usual + 1.25)
    assert hand(client, "?rate=0.4")["here"]["gust"] < usual
    assert hand(client, "?screen=phone")["here"]["gust"] == pytest.approx(
        usual + 1.25 * np.log2(12 / 30)
    )
    one = hand(client, "?technique=hands/one")
    assert (one["chosen"], one["takes"], one["error"]) == ("hands/one", 1, None)


@pytest.mark.parametrize(
    ("query", "status"),
    [("?technique=no/such", 409), ("?focal_eq_mm=1", 400), ("?rate=9", 400), ("?screen=wall", 400)],
)
def test_what_cannot_be_asked_is_refused(client, turned, query, status):
    assert client.get(f"/api/hand{query}", headers=HERE).status_code == status


def test_without_takes_there_is_no_hand(client):
    found = hand(client)
    assert (found["techniques"], found["here"], found["curve"]) == ([], None, [])


@pytest.fixture
def quick(monkeypatch):
    """Films of half a second and few pixels."""
    monkeypatch.setattr(hand_filming, "SECONDS", 0.5)
    monkeypatch.setattr(hand_filming, "SIZE", (320, 180))


def ask_for_film(client, **what):
    body = {"technique": "hands/two", "focal_eq_mm": 85, "rate": 1.0} | what
    return client.post("/api/hand/films", json=body, headers=HERE)


def film(client, film_id):
    return client.get(f"/api/hand/films/{film_id}", headers=HERE).json


def test_a_film_in_ones_own_hand_is_asked_for_and_becomes_a_simulated_take(
    client, library, turned, quick
):
    begun = ask_for_film(client)
    assert begun.status_code == 201
    assert (begun.json["state"], begun.json["take_id"]) == ("queued", None)
    assert begun.json["predicted"]["gust"] == pytest.approx(
        hand(client, "?focal_eq_mm=85")["here"]["gust"]
    )
    film_one(library, begun.json["id"])
    done = film(client, begun.json["id"])
    assert done["state"] == "done"
    detail = client.get(f"/api/takes/{done['take_id']}", headers=HERE).json
    assert (detail["take"]["origin"], detail["focal_eq_mm"]) == ("simulated", 85.0)
    assert hand(client)["takes"] == 4, "it teaches nothing of the shooter"
    with database.opened(library.database) as db, database.atomic(db):
        takes.remove(db, done["take_id"])
    assert film(client, done["id"])["take_id"] is None


def test_filming_is_stopped_and_nothing_of_it_is_kept(client, library, turned, quick, monkeypatch):
    monkeypatch.setattr(running, "REPORT_EVERY_S", 0.0)
    known = len(client.get("/api/takes", headers=HERE).json["takes"])
    begun = ask_for_film(client).json
    assert client.delete(f"/api/hand/films/{begun['id']}", headers=HERE).json["state"] == (
        "cancelled"
    )
    film_one(library, begun["id"])
    assert film(client, begun["id"])["state"] == "cancelled", "what was stopped does not begin"

    midway = ask_for_film(client).json
    frames = []

    def stop_it(take, renderer, t_s, index):
        frames.append(index)
        if index == 3:
            client.delete(f"/api/hand/films/{midway['id']}", headers=HERE)
        return rendered(take, renderer, t_s, index)

    rendered = camera.render_frame
    monkeypatch.setattr(camera, "render_frame", stop_it)
    film_one(library, midway["id"])
    assert film(client, midway["id"])["state"] == "cancelled"
    assert max(frames) == 3
    assert len(client.get("/api/takes", headers=HERE).json["takes"]) == known
    assert list(library.incoming.iterdir()) == []


def test_what_cannot_be_filmed_says_why(client, library, turned):
    unknown = ask_for_film(client, technique="hands/three")
    assert unknown.status_code == 409
    assert client.get("/api/hand/films/99", headers=HERE).status_code == 404
