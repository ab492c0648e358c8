"""A client of the application on a library of its own, and films in it."""

from __future__ import annotations

import pytest

from ridgewind.jobs.measure import measure_clip
from ridgewind.store import database, takes
from ridgewind.web.app import Config, create_app

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


def bring_in(client, path, name=None):
    reply = client.post(
        f"/api/takes?name={name or path.name}", data=path.read_bytes(), headers=HERE
    )
    assert reply.status_code == 201, reply.json
    return reply.json["take"]
