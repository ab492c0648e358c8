"""A take of which it is not settled whose motion it shows, and the shooter's word on it."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.core.motion.path import RivalPath
from ridgewind.jobs.follow import follow_one
from ridgewind.services.whose import where_of
from ridgewind.store import database, takes, whose_motion
from tests.conftest import texture, view, write_film
from tests.core.motion.test_rivals import somebody
from tests.web.conftest import HERE, bring_in, measure, send_log


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
        swing = np.sin(0.15 * k + 0.004 * k * k)  # never twice the same
        turned = view(thing, (480, 270), x=9 * swing, turn_deg=6 * swing)
        out[70:210, 150:330] = turned[70:210, 150:330]
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


def test_a_log_of_the_camera_settles_a_doubt_until_it_is_taken_away(client, library, one_motion):
    take = taken_in(client, library, one_motion)
    detail = client.get(f"/api/takes/{take}", headers=HERE).json
    assert detail["doubts"][0]["doubt"] == "alone"
    path = client.get(f"/api/takes/{take}/path", headers=HERE).json
    # The phone turned as the picture shows, so it was the camera that turned.
    t_s = np.array(path["t_s"])
    pan = np.gradient(np.array(path["pan_pct"]), t_s)
    rows = ["t,pan,tilt,roll", *(f"{t:.4f},{p:.5f},0,0" for t, p in zip(t_s, pan, strict=True))]
    mapping = {
        "time": "t", "pan": "pan", "tilt": "tilt", "roll": "roll", "time_unit": "s",
        "rate_unit": "deg_s", "pan_sign": 1, "tilt_sign": 1, "roll_sign": 1,
    }  # fmt: skip
    sent = send_log(client, "\n".join(rows))
    log = {"take_id": take, "name": "Phone", "upload": sent, "mapping": mapping}
    assert client.post("/api/logs", json=log, headers=HERE).status_code == 201
    settled = client.get(f"/api/takes/{take}", headers=HERE).json
    assert settled["doubts"][0]["by_log"]
    assert settled["judgement"]["verdict"] is not None
    both = client.get(f"/api/takes/{take}/log", headers=HERE).json
    assert both["of_picture"]["gust"] > 0
    assert both["of_log"]["body_deg_s"] > 0
    client.delete(f"/api/takes/{take}/log", headers=HERE)
    again = client.get(f"/api/takes/{take}", headers=HERE).json
    assert again["doubts"][0]["doubt"] == "alone"
    assert again["judgement"]["verdict"] is None
    restore = f"/api/takes/{take}/log/restore"
    assert client.post(restore, headers=HERE).status_code == 200
    back = client.get(f"/api/takes/{take}", headers=HERE).json
    assert back["doubts"][0]["by_log"]
    assert back["judgement"]["gust"] == settled["judgement"]["gust"]
    assert client.get(f"/api/takes/{take}/log", headers=HERE).json == both
    # Nothing is away any more.
    assert client.post(restore, headers=HERE).status_code == 404


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


def test_a_part_of_the_picture_named_as_background_settles_it(client, library, two_motions):
    """At once where one of the motions that were followed lies there; else by measuring again."""
    take = taken_in(client, library, two_motions)
    at = f"/api/takes/{take}"
    lower = [9, 14, 15, 20, 21]
    said = client.put(f"{at}/background", json={"cells": lower}, headers=HERE).json
    assert said["take"]["state"] == "done"
    assert said["doubts"][0]["said"]
    assert said["judgement"]["gust"] > 3
    corner = client.put(f"{at}/background", json={"cells": [0]}, headers=HERE).json
    assert corner["take"]["state"] == "queued"
    assert corner["background"] == [0]
    measure(library, take)
    again = client.get(at, headers=HERE).json
    assert again["judgement"]["gust"] < 1
    back = client.delete(f"{at}/whose-motion", headers=HERE).json
    assert back["background"] == []
    assert back["take"]["state"] == "queued"
    wrong = client.put(f"{at}/background", json={"cells": [24]}, headers=HERE)
    assert wrong.status_code == 400


def mark_subject(client, library, take, **at):
    mark = {"at_s": 1.0, **at}
    asked = client.post(f"/api/takes/{take}/subject", json=mark, headers=HERE).json
    assert asked["following"] == {"progress": None}
    follow_one(library, take)
    found = client.get(f"/api/takes/{take}/subject", headers=HERE).json
    assert (found["following"], found["fault"]) == (None, None)
    assert found["t_s"]


def test_the_marked_subject_can_be_left_out(client, library, two_motions, one_motion):
    take = taken_in(client, library, two_motions)
    at = f"/api/takes/{take}"
    refused = client.put(f"{at}/without-subject", headers=HERE)
    assert refused.status_code == 409
    client.put(f"{at}/background", json={"cells": [9, 14, 15, 20, 21]}, headers=HERE)
    assert client.get(at, headers=HERE).json["judgement"]["gust"] > 3
    mark_subject(client, library, take, x=0.5, y=0.8)
    without = client.put(f"{at}/without-subject", headers=HERE).json
    assert without["judgement"]["gust"] < 1
    alone = taken_in(client, library, one_motion)
    mark_subject(client, library, alone, x=0.5, y=0.5)
    refused = client.put(f"/api/takes/{alone}/without-subject", headers=HERE)
    assert refused.status_code == 409
    assert "Show in the picture" in refused.json["error"]["hint"]


def test_the_page_can_show_which_points_were_believed(client, library, two_motions):
    take = taken_in(client, library, two_motions)
    found = client.get(f"/api/takes/{take}/points?from_s=0.5", headers=HERE).json
    assert found["believed"]
    assert found["others"]
    assert 0.5 <= found["believed"][0]["t_s"] <= 2
    heights = [np.mean(one["places"][1::2]) for one in (found["believed"][0], found["others"][0])]
    assert heights[0] < heights[1]  # the coat stands low
    assert client.get(f"/api/takes/{take}/points?from_s=5", headers=HERE).json["believed"] == []
