"""A take of which it is not settled whose motion it shows, and the shooter's word on it."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.motion.path import RivalPath
from ridgewind.services.whose import where_of
from ridgewind.store import database, takes, whose_motion
from tests.conftest import texture, view, write_film
from tests.core.motion.test_rivals import somebody
from tests.web.conftest import HERE, bring_in, measure


@pytest.fixture(scope="module")
def two_motions(tmp_path_factory):
    """A coat that sways before a wall that stands still."""
    path = tmp_path_factory.mktemp("whose") / "coat.mp4"
    return write_film(path, [somebody(k, camera=0) for k in range(60)])


@pytest.fixture(scope="module")
def one_motion(tmp_path_factory):
    """A thing that turns in the middle of nothing."""
    thing, path = texture(960, 540, seed=4), tmp_path_factory.mktemp("whose") / "thing.mp4"

    def frame(k):
        out = np.full((270, 480), 170, np.uint8)
        out[70:210, 150:330] = view(thing, (480, 270), turn_deg=6 * np.sin(0.2 * k))[
            70:210, 150:330
        ]
        return out

    return write_film(path, [frame(k) for k in range(60)])


def taken_in(client, library, path):
    take = bring_in(client, path)["id"]
    measure(library, take)
    return take


def test_the_other_motion_can_be_said_and_taken_back(client, library, two_motions):
    take = taken_in(client, library, two_motions)
    detail = client.get(f"/api/takes/{take}", headers=HERE).json
    (asked,) = detail["doubts"]
    assert (asked["doubt"], asked["said"]) == (None, False)
    edges, coat = asked["rivals"][:2]
    assert edges["where"] == "around the edges"
    assert edges["gust"] < 0.5
    assert coat["gust"] > 4
    assert detail["judgement"]["gust"] == edges["gust"]

    said = client.put(
        f"/api/takes/{take}/whose-motion", json={"shot": 0, "rival": 1}, headers=HERE
    ).json
    assert said["judgement"]["gust"] == pytest.approx(coat["gust"])
    assert said["doubts"][0]["said"]
    assert client.get("/api/takes", headers=HERE).json["takes"][0]["gust"] == pytest.approx(
        coat["gust"]
    )
    back = client.delete(f"/api/takes/{take}/whose-motion", headers=HERE).json
    assert back["judgement"]["gust"] == edges["gust"]
    assert not back["doubts"][0]["said"]


def test_nothing_is_drawn_from_a_doubt_until_it_is_settled(client, library, one_motion):
    take = taken_in(client, library, one_motion)
    detail = client.get(f"/api/takes/{take}", headers=HERE).json
    judgement = detail["judgement"]
    assert detail["doubts"][0]["doubt"] == "alone"
    assert (judgement["verdict"], judgement["remedies"], judgement["causes"]) == (None, [], [])
    assert judgement["trust"] < 0.65
    with database.opened(library.database) as db:
        row = takes.by_id(db, take)
        assert (row.gust, row.remedy, row.state) == (None, None, "done")
    refused = client.get(f"/api/takes/{take}/remedy-details", headers=HERE)
    assert refused.status_code == 409
    assert "not settled" in refused.json["error"]["message"]
    said = client.put(
        f"/api/takes/{take}/whose-motion", json={"shot": 0, "rival": 0}, headers=HERE
    ).json
    assert said["judgement"]["verdict"] is not None
    assert said["judgement"]["gust"] > 3


def test_a_motion_that_is_not_there_is_refused(client, library, two_motions):
    take = taken_in(client, library, two_motions)
    reply = client.put(
        f"/api/takes/{take}/whose-motion", json={"shot": 0, "rival": 8}, headers=HERE
    )
    assert reply.status_code == 400
    assert reply.json["error"]["field"] == "rival"
    with database.opened(library.database) as db:
        assert whose_motion.of_clip(db, takes.by_id(db, take).clip_id) == ()


@pytest.mark.parametrize(
    ("x", "y", "reach", "words"),
    [
        (0.0, 0.0, 0.8, "around the edges"),
        (-0.5, 0.2, 0.1, "on the left"),
        (0.5, 0.2, 0.1, "on the right"),
        (0.0, 0.1, 0.1, "in the middle"),
        (0.1, -0.5, 0.1, "along the top"),
        (0.1, 0.5, 0.1, "in the lower middle"),
    ],
)
def test_a_motion_is_named_by_its_place(x, y, reach, words):
    rival = RivalPath(np.zeros((2, 4)), np.ones(2), x, y, 20.0, reach, False)
    assert where_of(rival) == words
