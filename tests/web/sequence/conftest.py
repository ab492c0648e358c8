"""An outing with takes that meet three of its four shots."""

from __future__ import annotations

import shutil
import sqlite3
from contextlib import closing

import numpy as np
import pytest

from ridgewind.library.library import Library
from ridgewind.web.app import Config, create_app
from tests.conftest import texture, view, write_film
from tests.web.conftest import bring_in, measure
from tests.web.sequence.test_outings import ask

LINES = ("the mill, pan right 3 s", "the cap, pan left 2 s", "the door, still 2 s", "the loft, 4 s")
EASE = np.clip((np.arange(120) - 25) / 70, 0, 1)
PATHS = {
    "right": -220 * EASE,
    "wrong way": -200 * EASE,  # planned to the left
    "still": 0.3 * np.sin(np.arange(120)),
}


OUTING = 1
"""The only one of the library that is made below."""


@pytest.fixture(scope="session")
def films(tmp_path_factory):
    folder, wall = tmp_path_factory.mktemp("films"), texture(1500, 540)
    return [
        write_film(folder / f"{name}.mp4", [view(wall, (480, 270), x=float(x)) for x in xs])
        for name, xs in PATHS.items()
    ]


@pytest.fixture(scope="session")
def joined_library(tmp_path_factory, films):
    """A library with an outing whose first shots are met; measured once and copied."""
    library = Library(tmp_path_factory.mktemp("joined") / "library")
    library.prepare()
    client = create_app(Config(library.root)).test_client()
    made = ask(client, "POST", "/outings", {"name": "Harrow Top"}, 201)
    assert made["id"] == OUTING
    for line in LINES:
        made = ask(client, "POST", f"/outings/{OUTING}/lines", {"line": line}, 201)
    filed = []
    for film, shot in zip(films, made["shots"], strict=False):
        take = bring_in(client, film)["id"]
        measure(library, take)
        filed.append({"take_id": take, "shot_id": shot["id"], "how": "hand"})
    ask(client, "PUT", f"/outings/{OUTING}/takes", {"takes": filed})
    with closing(sqlite3.connect(library.database)) as db:
        db.execute("pragma wal_checkpoint(truncate)")
    return library


@pytest.fixture
def library(request, tmp_path):
    shelf = Library(tmp_path / "library")
    if "joined_outing" in request.fixturenames:
        made = request.getfixturevalue("joined_library")
        shutil.copytree(made.root, shelf.root)
    shelf.prepare()
    return shelf


@pytest.fixture
def joined_outing(client):
    return OUTING
