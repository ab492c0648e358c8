"""A sequence is assembled by a task, measured again, and agrees with what was predicted."""

from __future__ import annotations

import pytest

from ridgewind.jobs.assemble import assemble_one
from ridgewind.media.decode import Film
from ridgewind.store import database, jobs, outings, sequence_films
from tests.web.conftest import HERE
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
