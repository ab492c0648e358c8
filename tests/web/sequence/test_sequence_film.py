"""A sequence is assembled by a task, measured again, and agrees with what was predicted."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.jobs.assemble import assemble_one
from ridgewind.media.decode import Film
from ridgewind.store import database, jobs, outings, sequence_films
from tests.conftest import texture, view, write_film
from tests.web.conftest import HERE, bring_in, measure
from tests.web.sequence.test_outings import ask


def test_a_sequence_is_seen_and_measures_as_its_pieces_predict(client, library, joined_outing):
    path = f"/outings/{joined_outing}/film"
    assert ask(client, "GET", path)["state"] == "none"
    assert client.get(f"/api{path}.mp4", headers=HERE).status_code == 404
    asked = ask(client, "POST", path, status=201)
    assert (asked["state"], asked["stale"]) == ("queued", False)
    assemble_one(library, asked["id"])
    done = ask(client, "GET", path)
    assert done["state"] == "done", done
    joined = ask(client, "GET", f"/outings/{joined_outing}/joined")
    with Film(library.sequence_film_of(asked["id"])) as film:
        times = [one.t_s for one in film.pictures(lambda luma: luma[::16, ::16])]
    assert len(times) == joined["frames"]
    for piece, gust in zip(joined["pieces"][:3], done["gusts"][:3], strict=True):
        assert gust == pytest.approx(piece["gust"], abs=0.4)
    reply = client.get(f"/api{path}.mp4", headers=HERE)
    assert reply.mimetype == "video/mp4"
    reply.close()
    pieces = [one["piece"] for one in joined["pieces"]]
    ask(client, "PUT", f"/outings/{joined_outing}/joined", {"pieces": pieces[:2], "base": pieces})
    assert ask(client, "GET", path)["stale"]
    again = ask(client, "POST", path, status=201)
    parts = set(library.sequences.glob("part-*.mp4"))
    assemble_one(library, again["id"])
    assert set(library.sequences.glob("part-*.mp4")) == parts  # nothing was rendered anew
    assert not library.sequence_film_of(asked["id"]).exists()


def test_an_outing_without_takes_is_not_assembled(client):
    made = ask(client, "POST", "/outings", {"name": "Empty", "start": "five"}, 201)
    refused = ask(client, "POST", f"/outings/{made['id']}/film", status=409)
    assert "no take that is measured" in refused["error"]["message"]


def test_one_that_is_stopped_leaves_nothing_half(client, library, joined_outing):
    asked = ask(client, "POST", f"/outings/{joined_outing}/film", status=201)
    ask(client, "DELETE", f"/outings/{joined_outing}/film")
    assemble_one(library, asked["id"])
    assert ask(client, "GET", f"/outings/{joined_outing}/film")["state"] == "cancelled"
    assert not library.sequence_film_of(asked["id"]).exists()
    with database.opened(library.database) as db:
        assert jobs.one(db, "assemble", asked["id"]).state == "cancelled"
        assert sequence_films.by_id(db, asked["id"]).gusts == ()
        assert outings.pieces(db, joined_outing) is None


def test_a_polished_take_is_shown_and_predicted_polished(client, library, tmp_path):
    t_s = np.arange(120) / 30
    shake = 2.0 * np.sin(2 * np.pi * 2.1 * t_s) + 1.2 * np.sin(2 * np.pi * 3.7 * t_s)
    wall = texture(1400, 540)
    film = write_film(tmp_path / "hand.mp4", [view(wall, (480, 270), x=float(x)) for x in shake])
    take = bring_in(client, film)["id"]
    measure(library, take)
    made = ask(client, "POST", "/outings", {"name": "Yard"}, 201)
    made = ask(client, "POST", f"/outings/{made['id']}/lines", {"line": "the mill, 3 s"}, 201)
    filed = {"take_id": take, "shot_id": made["shots"][0]["id"], "how": "hand"}
    path = f"/outings/{made['id']}"
    met = ask(client, "PUT", f"{path}/takes", {"takes": [filed]})["met"][0]["take"]
    assert "polish" in met["remedy"]
    (piece,) = ask(client, "GET", f"{path}/joined")["pieces"]
    assert piece["gust"] < met["gust"] - 1
    asked = ask(client, "POST", f"{path}/film", status=201)
    assemble_one(library, asked["id"])
    (gust,) = ask(client, "GET", f"{path}/film")["gusts"]
    assert gust == pytest.approx(piece["gust"], abs=0.4)


def test_a_piece_that_is_quickened_is_predicted_quickened(client, library, joined_outing):
    path = f"/outings/{joined_outing}"
    pieces = [one["piece"] for one in ask(client, "GET", f"{path}/joined")["pieces"]]
    quick = {**pieces[2], "in_s": 0.5, "out_s": 3.5, "speed": 2.0}
    found = ask(client, "PUT", f"{path}/joined", {"pieces": [{**quick, "speed": 1.0}, quick]})
    predicted = [one["gust"] for one in found["pieces"]]
    assert predicted[0] != pytest.approx(predicted[1], abs=0.2)
    asked = ask(client, "POST", f"{path}/film", status=201)
    assemble_one(library, asked["id"])
    assert ask(client, "GET", f"{path}/film")["gusts"] == pytest.approx(predicted, abs=0.4)
