"""A client of the application on a library of its own, and films in it."""

from __future__ import annotations

import pytest

from ridgewind.jobs.measure import measure_clip
from ridgewind.store import database, takes
from ridgewind.web.app import Config, create_app
from tests.sending import announcing, at_offset
from tests.web.seasons import season

__all__ = ["season"]

HERE = {"Host": "127.0.0.1:8421"}


@pytest.fixture
def client(library):
    return create_app(Config(library.root)).test_client()


@pytest.fixture
def measured(client, library, short_film):
    take = bring_in(client, short_film)
    measure(library, take["id"])
    return take["id"]


def measure(library, take_id):
    """Measure the film of a take, as the worker does."""
    with database.opened(library.database) as db:
        clip_id = takes.by_id(db, take_id).clip_id
    measure_clip(library, clip_id)


def send_pieces(client, name, content, *, piece=1 << 22):
    """Send a file as the page does, in pieces; gives the last answer, and its address."""
    begun = client.post("/api/uploads", headers=HERE | announcing(name, len(content)))
    if begun.status_code != 201:
        return begun, None
    address = begun.headers["Location"]
    for offset in range(0, len(content), piece):
        part = content[offset : offset + piece]
        reply = client.patch(address, data=part, headers=HERE | at_offset(offset))
        if reply.status_code != 204:
            break
    return reply, address


def send_film(client, name, content, *, piece=1 << 22):
    """Bring a film in; gives the last answer."""
    reply, address = send_pieces(client, name, content, piece=piece)
    return reply if reply.status_code != 204 else client.post(f"{address}/take", headers=HERE)


def send_log(client, text):
    """Send a motion log; gives the key under which it is here."""
    reply, address = send_pieces(client, "log.csv", text.encode())
    assert reply.status_code == 204, reply.json
    return address.rsplit("/", 1)[-1]


def bring_in(client, path, name=None):
    reply = send_film(client, name or path.name, path.read_bytes())
    assert reply.status_code == 201, reply.json
    return reply.json["take"]
