"""How do I get this shot, over the API: own takes before typical ones, and a set-up in one step."""

from __future__ import annotations

import pytest

from ridgewind.core.trials.survival import LEVELS, Lasting
from ridgewind.store import database, summaries
from tests.core.judge.test_options import hand
from tests.web.conftest import HERE


@pytest.fixture
def filmed(library, season):
    """The takes of `season`, with how the hand turned in each."""
    with database.opened(library.database) as db, database.atomic(db):
        for take_id in season:
            summaries.put(
                db, take_id, gust=3.0, peak_gust=3.0, remedy="keep", ridge=b"", speed_pct_s=0.5,
                top_band="sway", cause=None, trusted_share=1.0, figures={"gust": 3.0},
                turning=hand(0.3, takes=1).mean_square[0], staleness=0,
                lasting=Lasting(8.0, (5.0 if take_id % 2 else None,) * len(LEVELS)),
            )  # fmt: skip
    return season


def shot(client, query=""):
    return client.get(f"/api/shot{query}", headers=HERE).json


def test_own_takes_and_typical_figures_stand_apart(client, filmed):
    found = shot(client, "?focal_eq_mm=26")
    own = {one["key"]: one["takes"] for one in found["options"] if one["takes"]}
    assert own == {"hands/one": 12, "hands/two": 12}
    assert found["recorded"] == 24
    families = [one["drill_key"] for one in found["options"] if one["takes"] == 0]
    assert "lean-wall" in families
    assert found["options"][0]["works"]
    assert found["options"][0]["seconds"] == found["wanted_s"]


def test_what_is_asked_goes_over_the_brief(client, filmed):
    asked = "?focal_eq_mm=300&feel=locked&keep_sound=true&wanted_s=9"
    found = shot(client, asked)
    assert (found["feel"], found["target"]) == ("locked", 1.5)
    assert (found["wanted_s"], found["keep_sound"]) == (9.0, True)
    assert not any(one["remedy"].startswith("slow") for one in found["options"])
    walks = shot(client, "?move=walk")
    assert {one["drill_key"] for one in walks["options"]} == {"walk-forward"}


def test_seconds_and_delivery_change_the_answer(client, filmed):
    def best(query):
        found = shot(client, f"?focal_eq_mm=26&keep_sound=true{query}")
        return next(one for one in found["options"] if one["takes"])

    short, long = best("&wanted_s=3"), best("&wanted_s=7")
    assert (short["lasts"], short["longest_s"]) == (1.0, 8.0)
    assert long["lasts"] < 0.7
    assert long["chance"] < short["chance"]
    found = shot(client, "?focal_eq_mm=26&delivery_fps=50&delivery_width_px=1280&screen=phone")
    assert (found["delivery_fps"], found["delivery_width_px"]) == (50.0, 1280)
    assert found["screen"] == "phone"
    assert all(one["fps"] >= 50.0 for one in found["options"])


def test_a_clip_is_matched(client, library, measured):
    take = client.get(f"/api/takes/{measured}", headers=HERE).json
    like = client.get(f"/api/shot/like/{measured}", headers=HERE).json
    assert like["target"] == pytest.approx(take["judgement"]["gust"], abs=0.11)
    assert like["target"] >= take["judgement"]["gust"]
    assert (like["name"], like["focal_eq_mm"]) == (take["take"]["name"], take["focal_eq_mm"])
    assert like["wanted_s"] == pytest.approx(take["clip"]["duration_s"], abs=0.1)
    query = "&".join(f"{key}={value}" for key, value in like.items() if key != "name")
    assert shot(client, f"?{query}")["target"] == like["target"]
    assert client.get("/api/shot/like/999", headers=HERE).status_code == 404


def test_a_set_up_is_taken_in_one_step(client, filmed):
    before = shot(client)
    setups = {one["name"]: one["id"] for one in before["setups"]}
    wanted = next(
        id for name, id in setups.items() if shot(client, f"?setup_id={id}&focal_eq_mm=35")
        ["options"][0]["lens"] is not None
    )  # fmt: skip
    (option, *_) = shot(client, f"?setup_id={wanted}&focal_eq_mm=35")["options"]
    body = {"setup_id": wanted, "focal_eq_mm": option["focal_eq_mm"], "fps": option["fps"]}
    made = client.post("/api/shot/setup", json=body, headers=HERE)
    assert made.status_code == 201
    after = shot(client)
    assert after["setup"]["id"] == made.json["setup_id"]
    assert made.json["before_id"] == before["setup"]["id"]
    too_long = client.post("/api/shot/setup", json=body | {"focal_eq_mm": 999}, headers=HERE)
    assert too_long.status_code == 400
    assert client.post("/api/shot/setup", json=body | {"fps": 7}, headers=HERE).status_code == 400
