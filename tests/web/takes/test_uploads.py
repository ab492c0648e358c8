"""Films that arrive in pieces: each piece once, in order, and nothing written that is refused."""

from __future__ import annotations

import shutil

import pytest

from ridgewind.library import uploads
from ridgewind.media.errors import DISK_FULL, MediaError
from ridgewind.web.app import MOST_BODY_BYTES
from tests.web.conftest import HERE, send_film


def begin(client, size, name="a.mp4"):
    ask = {"name": name, "size_bytes": size}
    return client.post("/api/uploads", json=ask, headers=HERE)


def put(client, key, offset, piece):
    return client.put(f"/api/uploads/{key}?offset={offset}", data=piece, headers=HERE)


def files(library):
    return sorted(path.name for path in library.incoming.iterdir())


def test_a_film_in_pieces_is_the_film(client, library, short_film):
    content = short_film.read_bytes()
    reply = send_film(client, "short.mp4", content, piece=1000)
    assert reply.status_code == 201
    assert reply.json["take"]["state"] == "queued"
    (original,) = library.originals.iterdir()
    assert original.read_bytes() == content
    assert files(library) == []


def test_a_piece_may_come_twice_but_none_may_be_missing(client):
    key = begin(client, 6).json["key"]
    assert put(client, key, 0, b"abc").json["received"] == 3
    assert put(client, key, 0, b"abc").json["received"] == 3  # its answer was lost
    gap = put(client, key, 5, b"f")
    assert (gap.status_code, gap.json["error"]["message"]) == (400, "The next piece begins at 3.")
    assert put(client, key, 3, b"too long").status_code == 400
    early = client.post(f"/api/uploads/{key}/take", headers=HERE)
    assert "3 bytes are still to come" in early.json["error"]["message"]
    assert put(client, key, 3, b"def").json["received"] == 6
    assert client.post(f"/api/uploads/{key}/take", headers=HERE).status_code == 201


def test_a_film_that_is_given_up_leaves_nothing(client, library):
    key = begin(client, 6).json["key"]
    put(client, key, 0, b"abc")
    assert client.delete(f"/api/uploads/{key}", headers=HERE).status_code == 204
    assert files(library) == []
    assert put(client, key, 3, b"def").status_code == 404


def test_what_nobody_goes_on_with_is_given_up(client, library, monkeypatch):
    begin(client, 6)
    monkeypatch.setattr(uploads, "FORGOTTEN_S", -1.0)
    key = begin(client, 6).json["key"]
    assert files(library) == [key]


def test_an_empty_film_and_one_without_room_are_refused_before_a_byte(client, library, monkeypatch):
    assert begin(client, 0).json["error"]["code"] == "empty"
    usage = shutil.disk_usage(library.root)._replace(free=uploads.SPARE_BYTES + 99)
    monkeypatch.setattr(uploads.shutil, "disk_usage", lambda _: usage)
    full = begin(client, 100)
    assert (full.status_code, full.json["error"]["code"]) == (507, "disk_full")
    assert files(library) == []


def test_a_disk_that_fills_meanwhile_is_said_and_gone_on_from(client, library, monkeypatch):
    key = begin(client, 6).json["key"]
    put(client, key, 0, b"abc")

    def full(*_args):
        raise MediaError(*DISK_FULL)

    monkeypatch.setattr(uploads.Uploads, "put", full)
    assert put(client, key, 3, b"def").status_code == 507
    monkeypatch.undo()
    assert put(client, key, 3, b"def").json["received"] == 6


def test_a_body_that_is_too_large_is_not_read(client):
    assert client.application.config["MAX_CONTENT_LENGTH"] == MOST_BODY_BYTES
    client.application.config["MAX_CONTENT_LENGTH"] = 2
    key = "0" * 32
    reply = put(client, key, 0, b"abc")
    assert reply.status_code == 413
    assert reply.json["error"]["hint"]


@pytest.mark.parametrize("key", ["../../etc/passwd", "0" * 31, "z" * 32])
def test_a_key_is_no_path(client, key):
    assert put(client, key, 0, b"abc").status_code in (400, 404, 405)
