"""A sequence is assembled by a task, measured again, and agrees with what was predicted."""

from __future__ import annotations

import cv2
import numpy as np
import pytest

from ridgewind.jobs.assemble import assemble_one
from ridgewind.jobs.follow import follow_one
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


def put(client, path, pieces):
    return ask(client, "PUT", f"{path}/joined", {"pieces": pieces})["pieces"]


def rendered(client, library, path, **ask_for):
    asked = ask(client, "POST", f"{path}/film{ask_for.get('query', '')}", status=201)
    assemble_one(library, asked["id"])
    return library.sequence_film_of(asked["id"])


def test_ramps_and_windows_measure_as_predicted(client, library, joined_outing):
    """In an upright film, which shakes more: along a ramp, aside of the middle, backwards."""
    path = f"/outings/{joined_outing}"
    before = ask(client, "GET", f"{path}/joined")["pieces"]
    look = {"shape": "9:16", "beats_per_min": None}
    after = ask(client, "PUT", f"{path}/joined/look", look)
    assert after["delivered"] == [1080, 1920]
    assert all(
        narrow["gust"] > wide["gust"] + 0.5
        for narrow, wide in zip(after["pieces"][:2], before[:2], strict=True)
    )
    assert after["pieces"][0]["window"] == pytest.approx([0.3164, 1.0], abs=1e-3)
    assert after["pieces"][0]["left"] == pytest.approx(480 * 0.3164 / 1080, abs=0.01)
    whole = {**before[0]["piece"], "in_s": 0.3, "out_s": 3.7, "speed": 1.0}
    ramp = [{"at_s": 1.5, "speed": 1.0}, {"at_s": 2.5, "speed": 2.0}]
    aside = {"right": 0.8, "down": 0.0, "follows": False}
    found = put(client, path, [
        {**whole, "ramp": ramp}, {**whole, "ramp": ramp, "backwards": True, "framing": aside},
    ])  # fmt: skip
    assert found[0]["frames"] == round((1.2 + 0.75 + 0.6) * 24)
    with Film(rendered(client, library, path)) as film:
        sizes = [one.size for one in film.pictures(lambda luma: luma[::16, ::16])]
    assert len(sizes) == sum(one["frames"] for one in found)
    assert set(sizes) == {(360, 640)}
    gusts = ask(client, "GET", f"{path}/film")["gusts"]
    assert gusts == pytest.approx([one["gust"] for one in found], abs=0.4)


def test_a_window_that_follows_the_subject_measures_as_predicted(client, library, tmp_path):
    wall = texture(900, 540)
    patch = texture(90, 90, seed=5)
    frames = []
    for k in range(120):
        frame = view(wall, (640, 360), x=0.4 * np.sin(k)).copy()
        left = 60 + round(3.6 * k)
        frame[140:230, left : left + 90] = patch
        frames.append(frame)
    take = bring_in(client, write_film(tmp_path / "cart.mp4", frames))["id"]
    measure(library, take)
    mark = {"at_s": 0.0, "x": 105 / 640, "y": 185 / 360}
    reply = client.post(f"/api/takes/{take}/subject", json=mark, headers=HERE)
    assert reply.status_code == 200, reply.text
    follow_one(library, take)
    made = ask(client, "POST", "/outings", {"name": "Yard"}, 201)
    made = ask(client, "POST", f"/outings/{made['id']}/lines", {"line": "the cart, 3 s"}, 201)
    path = f"/outings/{made['id']}"
    filed = {"take_id": take, "shot_id": made["shots"][0]["id"], "how": "hand"}
    ask(client, "PUT", f"{path}/takes", {"takes": [filed]})
    look = {"shape": "9:16", "beats_per_min": None}
    (piece,) = ask(client, "PUT", f"{path}/joined/look", look)["pieces"]
    assert piece["marked"]
    follows = {"right": 0.0, "down": 0.0, "follows": True}
    whole = {**piece["piece"], "in_s": 0.5, "out_s": 3.5, "framing": follows}
    (found,) = put(client, path, [whole])
    with Film(rendered(client, library, path)) as film:
        pictures = [one.luma.copy() for one in film.pictures(lambda luma: luma)]
    # The cart stays in the middle of the window, 16/9 times as large.
    middle, large = pictures[len(pictures) // 2], cv2.resize(patch, (160, 160))
    assert middle.shape == (640, 360)
    _, _, _, (left, _) = cv2.minMaxLoc(cv2.matchTemplate(middle, large, cv2.TM_CCOEFF_NORMED))
    assert left + 80 == pytest.approx(180, abs=20)
    (gust,) = ask(client, "GET", f"{path}/film")["gusts"]
    assert gust == pytest.approx(found["gust"], abs=0.4)


def test_a_whole_film_is_kept_beside_the_small_one(client, library, joined_outing):
    path = f"/outings/{joined_outing}"
    small = rendered(client, library, path)
    whole = rendered(client, library, path, query="?whole=true")
    assert small.is_file()
    with Film(whole) as film:
        sizes = {one.size for one in film.pictures(lambda luma: luma[::16, ::16])}
    assert sizes == {(480, 270)}  # as large as what was filmed, not blown up
    assert not ask(client, "GET", f"{path}/film")["stale"]
    ask(client, "PUT", f"{path}/joined/look", {"shape": "1:1", "beats_per_min": None})
    assert ask(client, "GET", f"{path}/film")["stale"]  # it has another shape now
    told = ask(client, "GET", f"{path}/film?whole=true")
    assert told["state"] == "done"
    ask(client, "PUT", f"{path}/joined/look", {"shape": None, "beats_per_min": None})
    assert not ask(client, "GET", f"{path}/film")["stale"]
    with database.opened(library.database) as db, database.atomic(db):
        db.execute("update brief set delivery_fps = 30")
    assert ask(client, "GET", f"{path}/film")["stale"]  # it is delivered at another rate now
    assert told["bytes"] == whole.stat().st_size
    reply = client.get(f"/api{path}/film.mp4?whole=true", headers=HERE)
    assert "Harrow-Top.mp4" in reply.headers["Content-Disposition"]
    reply.close()


def test_cuts_fall_on_the_beat_in_the_film_too(client, library, joined_outing):
    path = f"/outings/{joined_outing}"
    look = {"shape": None, "beats_per_min": 100}
    before = ask(client, "PUT", f"{path}/joined/look", look)
    assert not all(one["beat"] for one in before["cuts"])
    after = ask(client, "POST", f"{path}/joined/snap")
    assert all(one["beat"] for one in after["cuts"])
    beats = [one["start"] / 24 * 100 / 60 for one in after["pieces"]]
    assert beats == pytest.approx([round(one) for one in beats], abs=0.04)
    refused = ask(client, "PUT", f"{path}/joined/look", {**look, "beats_per_min": 900}, 400)
    assert refused["error"]["field"] == "beats_per_min"
