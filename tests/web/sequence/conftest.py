"""An outing with takes that meet three of its four shots."""

from __future__ import annotations

import numpy as np
import pytest

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


@pytest.fixture(scope="module")
def films(tmp_path_factory):
    folder, wall = tmp_path_factory.mktemp("films"), texture(1500, 540)
    return [
        write_film(folder / f"{name}.mp4", [view(wall, (480, 270), x=float(x)) for x in xs])
        for name, xs in PATHS.items()
    ]


@pytest.fixture
def joined_outing(client, library, films):
    made = ask(client, "POST", "/outings", {"name": "Harrow Top"}, 201)
    for line in LINES:
        made = ask(client, "POST", f"/outings/{made['id']}/lines", {"line": line}, 201)
    filed = []
    for film, shot in zip(films, made["shots"], strict=False):
        take = bring_in(client, film)["id"]
        measure(library, take)
        filed.append({"take_id": take, "shot_id": shot["id"], "how": "hand"})
    ask(client, "PUT", f"/outings/{made['id']}/takes", {"takes": filed})
    return made["id"]
