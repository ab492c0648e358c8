"""Films that arrive in pieces: each once, in order, whole; nothing is written that is refused."""

from __future__ import annotations

import os
import shutil
import time

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from ridgewind.library import uploads
from ridgewind.library.library import Library
from ridgewind.library.tidying import tidy
from ridgewind.library.uploads import OffsetError, Uploads
from ridgewind.media.errors import DISK_FULL, MediaError
from ridgewind.store import database
from ridgewind.store.errors import NotFoundError
from ridgewind.web.app import MOST_BODY_BYTES, Config, create_app
from tests.sending import TUS, announcing, at_offset, with_sum
from tests.web.conftest import HERE, send_film


def begin(client, size, name="a.mp4"):
    return client.post("/api/uploads", headers=HERE | announcing(name, size))


def begun(client, size):
    return begin(client, size).headers["Location"]


def put(client, address, offset, piece, **more):
    return client.patch(address, data=piece, headers=HERE | at_offset(offset) | more)


def received(client, address):
    reply = client.head(address, headers=HERE | TUS)
    return reply.status_code, reply.headers.get("Upload-Offset")


def finish(client, address):
    return client.post(f"{address}/take", headers=HERE)


def files(library):
    return sorted(path.name for path in library.uploads.iterdir() if not path.suffix)


def test_a_film_in_pieces_is_the_film(client, library, short_film):
    content = short_film.read_bytes()
    reply = send_film(client, "short.mp4", content, piece=1000)
    assert reply.status_code == 201
    assert reply.json["take"]["state"] == "queued"
    (original,) = library.originals.iterdir()
    assert original.read_bytes() == content
    assert files(library) == []


def test_what_is_understood_is_told_and_another_version_refused(client):
    told = client.options("/api/uploads", headers=HERE)
    assert told.headers["Tus-Version"] == "1.0.0"
    assert set(told.headers["Tus-Extension"].split(",")) == {"creation", "checksum", "termination"}
    other = client.post("/api/uploads", headers=HERE | announcing("a", 3) | {"Tus-Resumable": "2"})
    assert (other.status_code, other.headers["Tus-Version"]) == (412, "1.0.0")
    assert client.post("/api/uploads", headers=HERE).status_code == 412


def test_a_piece_goes_on_where_the_last_ended_and_nowhere_else(client):
    address = begun(client, 6)
    assert put(client, address, 0, b"abc").headers["Upload-Offset"] == "3"
    assert put(client, address, 0, b"abc").status_code == 409  # its answer was lost: ask
    assert received(client, address) == (200, "3")
    assert put(client, address, 5, b"f").status_code == 409
    assert put(client, address, 3, b"too long").status_code == 400
    early = finish(client, address)
    assert "3 bytes are still to come" in early.json["error"]["message"]
    assert put(client, address, 3, b"def").headers["Upload-Offset"] == "6"
    assert finish(client, address).status_code == 201


def test_a_piece_that_was_damaged_on_its_way_is_not_taken(client):
    address = begun(client, 6)
    assert put(client, address, 0, b"abX", **with_sum(b"abc")).status_code == 460
    assert received(client, address) == (200, "0")
    assert put(client, address, 0, b"abc", **with_sum(b"abc")).status_code == 204
    assert put(client, address, 3, b"d", **{"Upload-Checksum": "md5 eA=="}).status_code == 400


def test_whoever_missed_the_answer_gets_the_same_take_again(client, short_film):
    content = short_film.read_bytes()
    address = begun(client, len(content))
    put(client, address, 0, content)
    first, again = finish(client, address), finish(client, address)
    assert first.json["take"]["id"] == again.json["take"]["id"]
    assert (again.json["duplicate"], received(client, address)) == (False, (200, str(len(content))))
    assert len(client.get("/api/takes", headers=HERE).json["takes"]) == 1


def test_what_has_arrived_outlives_a_restart(client, library, short_film):
    content = short_film.read_bytes()
    address = begun(client, len(content))
    put(client, address, 0, content[:5000])
    tidy(library)
    later = create_app(Config(library.root)).test_client()
    assert received(later, address) == (200, "5000")
    put(later, address, 5000, content[5000:])
    assert finish(later, address).status_code == 201
    (original,) = library.originals.iterdir()
    assert original.read_bytes() == content


def test_a_film_that_is_given_up_leaves_nothing(client, library):
    address = begun(client, 6)
    put(client, address, 0, b"abc")
    assert client.delete(address, headers=HERE | TUS).status_code == 204
    assert list(library.uploads.iterdir()) == []
    assert put(client, address, 3, b"def").status_code == 404
    assert received(client, address)[0] == 404


def test_what_nobody_goes_on_with_is_given_up(client, library):
    old = begun(client, 6).rsplit("/")[-1]
    for path in library.uploads.iterdir():
        os.utime(path, (0, time.time() - uploads.FORGOTTEN_S - 60))
    new = begun(client, 6).rsplit("/")[-1]
    assert (files(library), old == new) == ([new], False)


def test_an_empty_film_and_one_without_room_are_refused_before_a_byte(client, library, monkeypatch):
    assert begin(client, 0).json["error"]["code"] == "empty"
    usage = shutil.disk_usage(library.root)._replace(free=uploads.SPARE_BYTES + 99)
    monkeypatch.setattr(uploads.shutil, "disk_usage", lambda _: usage)
    full = begin(client, 100)
    assert (full.status_code, full.json["error"]["code"]) == (507, "disk_full")
    assert files(library) == []


def test_a_disk_that_fills_meanwhile_is_said_and_gone_on_from(client, library, monkeypatch):
    address = begun(client, 6)
    put(client, address, 0, b"abc")

    def full(*_args, **_more):
        raise MediaError(*DISK_FULL)

    monkeypatch.setattr(uploads.Uploads, "put", full)
    assert put(client, address, 3, b"def").status_code == 507
    monkeypatch.undo()
    assert put(client, address, 3, b"def").headers["Upload-Offset"] == "6"


@pytest.mark.parametrize(
    "headers",
    [
        {"Upload-Length": "-1"},
        {"Upload-Length": "many"},
        {"Upload-Length": "9" * 30},
        {"Upload-Metadata": ""},
        {"Upload-Metadata": "filename &&&"},
    ],
)
def test_an_announcement_that_makes_no_sense_is_refused(client, headers):
    reply = client.post("/api/uploads", headers=HERE | announcing("a.mp4", 3) | headers)
    assert reply.status_code == 400
    assert reply.json["error"]["hint"]


def test_a_film_that_is_too_large_is_refused_at_once(client):
    assert begin(client, 1 << 50).status_code == 413


def test_a_body_that_is_too_large_is_not_read(client):
    assert client.application.config["MAX_CONTENT_LENGTH"] == MOST_BODY_BYTES
    address = begun(client, 6)
    client.application.config["MAX_CONTENT_LENGTH"] = 2
    reply = put(client, address, 0, b"abc")
    assert reply.status_code == 413
    assert reply.json["error"]["hint"]


@pytest.mark.parametrize("key", ["../../etc/passwd", "0" * 31, "z" * 32])
def test_a_key_is_no_path(client, key):
    assert put(client, f"/api/uploads/{key}", 0, b"abc").status_code in (400, 404, 405)


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(content=st.binary(min_size=1, max_size=400), data=st.data())
def test_however_it_is_cut_and_started_again_it_arrives_whole_and_once(tmp_path, content, data):
    """Pieces of any size, some sent again, the server restarted between any two of them."""
    library = Library(tmp_path / str(abs(hash(content))))
    library.prepare()
    sender = Uploads(library)
    key = sender.begin("a.mp4", len(content))
    while (here := sender.received(key)[0]) < len(content):
        size = data.draw(st.integers(1, 150))
        sender.put(key, here, content[here : here + size])
        if data.draw(st.booleans()):
            with pytest.raises(OffsetError):
                sender.put(key, here, content[here : here + size])
        if data.draw(st.booleans()):
            sender = Uploads(library)
    with database.opened(library.database) as db:
        first, again = sender.finish(db, key), sender.finish(db, key)
    assert first.take.id == again.take.id
    (original,) = library.originals.iterdir()
    assert original.read_bytes() == content
    sender.drop(key)
    with pytest.raises(NotFoundError):
        sender.received(key)
