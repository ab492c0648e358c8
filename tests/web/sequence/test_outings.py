"""Outings over the API: written in words, ordered, noted on the spot, never overwritten unseen."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.practice.slate import outing_of, outing_slate_text, read_slate
from tests.conftest import texture, view, write_film
from tests.web.conftest import HERE, bring_in, measure


def ask(client, method: str, path: str, body=None, status: int = 200):
    reply = client.open(f"/api{path}", method=method, json=body, headers=HERE)
    assert reply.status_code == status, reply.text
    return reply.json


@pytest.fixture
def outing(client):
    made = ask(client, "POST", "/outings", {"name": "Harrow Top", "place": "the mill"}, 201)
    for line in ("wide of the mill, push in 6 s", "close on the cap of the mill, low, pan left",
                 "the miller, medium, slide right, twice"):  # fmt: skip
        made = ask(client, "POST", f"/outings/{made['id']}/lines", {"line": line}, 201)
    return made


def test_lines_become_shots_in_order(client, outing):
    assert [one["shot"]["subject"] for one in outing["shots"]] == [
        "the mill", "the cap of the mill", "the miller",
    ]  # fmt: skip
    assert [one["move_words"] for one in outing["shots"]] == [
        "push in", "pan left", "slide right",
    ]  # fmt: skip
    assert (outing["total_s"], outing["filmed_s"]) == (16, 21)
    (line,) = ask(client, "GET", "/outings")["outings"]
    assert (line["shots"], line["open"], line["facts"]["place"]) == (3, 3, "the mill")
    assert [one["shot"] for one in line["frames"]] == [one["shot"] for one in outing["shots"]]


def test_what_is_missing_is_said_and_waved_away(client, outing):
    said = {gap["rule"]: gap for gap in outing["gaps"]}
    assert {"direction_flips", "nothing_near", "no_title"} == set(said)
    ids = [one["id"] for one in outing["shots"]]
    assert said["direction_flips"]["shots"] == ids[1:]
    path, key = f"/outings/{outing['id']}/waved", said["no_title"]["key"]
    waved = ask(client, "PUT", path, {"key": key, "waved": True})
    assert [gap["rule"] for gap in waved["gaps"] if gap["waved"]] == ["no_title"]
    back = ask(client, "PUT", path, {"key": key, "waved": False})
    assert not any(gap["waved"] for gap in back["gaps"])


def test_a_shot_is_moved_taken_out_and_put_back(client, outing):
    first, second, third = (one["id"] for one in outing["shots"])
    path = f"/outings/{outing['id']}/order"
    base = [first, second, third]
    moved = ask(client, "PUT", path, {"ids": [third, first], "base": base})
    assert [one["id"] for one in moved["shots"]] == [third, first]
    refused = ask(client, "PUT", path, {"ids": base, "base": base}, 409)
    assert refused["error"]["code"] == "changed_elsewhere"
    back = ask(client, "PUT", path, {"ids": base, "base": [third, first]})
    assert [one["id"] for one in back["shots"]] == base
    twice = ask(client, "PUT", path, {"ids": [first, first], "base": base}, 400)
    assert "A shot stands in one place" in twice["error"]["message"]
    other = ask(client, "POST", "/outings", {"name": "Other", "start": "five"}, 201)
    foreign = {"ids": [first, other["shots"][0]["id"]], "base": base}
    assert ask(client, "PUT", path, foreign, 400)["error"]["field"] == "ids"


def test_a_shot_is_planned_otherwise_once(client, outing):
    one = outing["shots"][0]
    shot = {**one["shot"], "height": "low", "seconds": 9}
    path = f"/shots/{one['id']}"
    changed = ask(client, "PUT", path, {"shot": shot, "base": one["shot"]})
    assert changed["shots"][0]["shot"] == shot
    late = {"shot": {**one["shot"], "size": "close"}, "base": one["shot"]}
    assert ask(client, "PUT", path, late, 409)["error"]["code"] == "changed_elsewhere"
    wrong = {"shot": {**shot, "move": "pan", "heading": "up"}}
    assert ask(client, "PUT", path, wrong, 400)["error"]["field"] == "heading"
    assert ask(client, "PUT", "/shots/999", {"shot": shot}, 404)["error"]["code"] == "missing"


def test_what_became_of_a_shot_is_kept(client, outing):
    third = outing["shots"][2]["id"]
    noted = ask(client, "PUT", f"/shots/{third}/note", {"state": "got", "got": 1, "note": "wind"})
    assert (noted["shots"][2]["state"], noted["shots"][2]["note"]) == ("got", "wind")
    assert "wanted_again" in {gap["rule"] for gap in noted["gaps"]}
    again = ask(client, "PUT", f"/shots/{third}/note", {"got": 2})
    assert again["shots"][2]["note"] == "wind"
    assert "wanted_again" not in {gap["rule"] for gap in again["gaps"]}
    (line,) = ask(client, "GET", "/outings")["outings"]
    assert line["open"] == 2
    assert [one["state"] for one in line["frames"]] == ["open", "open", "got"]


def test_every_shot_has_a_slate_of_its_own(client, outing):
    drawn = {
        client.get(f"/api/shots/{one['id']}/slate.svg", headers=HERE).data
        for one in outing["shots"]
    }
    assert len(drawn) == 3
    assert outing_of(read_slate(outing_slate_text(outing["id"], 2))) == (outing["id"], 2)
    assert outing_of((12, 51)) is None


def test_an_outing_is_put_away_and_brought_back(client, outing):
    ask(client, "POST", f"/outings/{outing['id']}/archive")
    assert ask(client, "GET", "/outings")["outings"] == []
    ask(client, "POST", f"/outings/{outing['id']}/restore")
    facts = {"name": "Evening", "day": "2026-05-30", "light": "low sun"}
    changed = ask(client, "PUT", f"/outings/{outing['id']}", facts)
    assert changed["facts"]["day"] == "2026-05-30"


@pytest.mark.parametrize(
    ("body", "field"),
    [({"name": " "}, "name"), ({"name": "x", "start": "party"}, "start"),
     ({"name": "x", "day": "tomorrow"}, "day")],
)  # fmt: skip
def test_what_cannot_be_is_refused(client, body, field):
    assert ask(client, "POST", "/outings", body, 400)["error"]["field"].endswith(field)
    assert ask(client, "GET", "/outings")["outings"] == []


def test_a_line_that_shows_nothing_is_refused(client, outing):
    path = f"/outings/{outing['id']}/lines"
    refused = ask(client, "POST", path, {"line": "wide, 5 s"}, 400)
    assert "what is shown" in refused["error"]["message"]


@pytest.fixture
def filmed(client, library, tmp_path):
    """A pan to the left and a hold, brought in and measured."""
    wall = texture(1400, 540)
    slow = np.clip((np.arange(90) - 20) / 50, 0, 1)
    ids = {}
    for name, xs in {"pan.mp4": 160 * slow, "hold.mp4": 0.4 * np.sin(np.arange(90))}.items():
        frames = [view(wall, (480, 270), x=float(x)) for x in xs]
        ids[name] = bring_in(client, write_film(tmp_path / name, frames))["id"]
        measure(library, ids[name])
    return ids


def test_takes_meet_shots_and_what_was_filmed_otherwise_is_told(client, filmed):
    made = ask(client, "POST", "/outings", {"name": "Yard"}, 201)
    for line in ("the mill, pan right 3 s", "the cap, still 3 s"):
        made = ask(client, "POST", f"/outings/{made['id']}/lines", {"line": line}, 201)
    pan, still = (one["id"] for one in made["shots"])
    path = f"/outings/{made['id']}/takes"
    found = ask(client, "GET", path)
    told = {one["name"]: one for one in found["proposed"]}
    assert {told["pan"]["shot_id"], told["hold"]["shot_id"]} == {pan, still}
    filed = {"take_id": filmed["pan.mp4"], "shot_id": pan, "how": "hand"}
    met = ask(client, "PUT", path, {"takes": [filed]})
    (one,) = met["met"]
    assert one["take"]["id"] == filmed["pan.mp4"]
    assert one["otherwise"] == (
        "Planned as a pan right; filmed left. Reverse it, or film it again."
    )
    detail = ask(client, "GET", f"/outings/{made['id']}")
    assert (detail["shots"][0]["state"], detail["shots"][0]["got"]) == ("got", 1)
    undone = ask(client, "PUT", path, {"takes": [{**filed, "shot_id": None}]})
    assert undone["met"] == []
    detail = ask(client, "GET", f"/outings/{made['id']}")
    assert (detail["shots"][0]["state"], detail["shots"][0]["got"]) == ("open", 0)
    other = ask(client, "POST", "/outings", {"name": "Other", "start": "five"}, 201)
    foreign = {**filed, "shot_id": other["shots"][0]["id"]}
    assert ask(client, "PUT", path, {"takes": [foreign]}, 400)["error"]["field"] == "shot_id"
