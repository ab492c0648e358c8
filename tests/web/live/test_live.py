"""Live meters as the page uses them."""

from __future__ import annotations

import numpy as np
import pytest

from ridgewind.services.errors import NotReadyError
from ridgewind.services.live import FORGOTTEN_S, MOST_METERS, LiveMeters
from ridgewind.store.errors import NotFoundError
from tests.conftest import shaken
from tests.web.conftest import HERE

BASE = {"target": 4.0, "screen": "laptop"}


def begin(client, **asked):
    reply = client.post("/api/live", json=BASE | asked, headers=HERE)
    assert reply.status_code == 201, reply.json
    return reply.json["key"]


def feed(client, key, frames, first=0):
    times = ",".join(f"{(first + k) / 30:.4f}" for k in range(len(frames)))
    body = b"".join(frame.tobytes() for frame in frames)
    return client.put(f"/api/live/{key}/pictures?times={times}", data=body, headers=HERE)


def test_pictures_come_back_as_gust_of_the_last_second(client):
    key = begin(client, width=320, height=180)
    frames = list(shaken(120))
    told = [feed(client, key, frames[k : k + 3], k).json for k in range(0, 120, 3)]
    assert (told[0]["gust"], told[0]["reason"]) == (None, "short")
    assert told[-1]["gust"] == pytest.approx(8.23, abs=0.3)
    assert told[-1]["whole"] == pytest.approx(8.23, abs=0.3)
    assert told[-1]["calm_s"] == 0
    assert client.delete(f"/api/live/{key}", headers=HERE).status_code == 204
    gone = feed(client, key, frames[:1], 130)
    assert (gone.status_code, gone.json["error"]["message"]) == (
        404,
        "There is no live meter here.",
    )


def test_rates_are_told_for_the_lens_that_is_set(client):
    t_s = (np.arange(140) / 70).tolist()
    rates = {"t_s": t_s, "tilt_deg_s": [0] * 140, "roll_deg_s": [0] * 140}
    rates["pan_deg_s"] = (3 * np.cos(2 * np.pi * 2 * np.array(t_s))).tolist()
    gusts = [
        client.put(f"/api/live/{begin(client, focal_eq_mm=mm)}/rates", json=rates, headers=HERE)
        .json["gust"]
        for mm in (26, 52)
    ]  # fmt: skip
    assert gusts[1] - gusts[0] == pytest.approx(1.25, abs=0.05)


@pytest.mark.parametrize(
    ("asked", "field"),
    [({}, "width"), ({"width": 320}, "width"), ({"width": 20, "height": 20}, "width"),
     ({"width": 4000, "height": 320}, "width"), ({"focal_eq_mm": 0}, "focal_eq_mm")],
)  # fmt: skip
def test_a_meter_that_cannot_be_is_refused(client, asked, field):
    refused = client.post("/api/live", json=BASE | asked, headers=HERE)
    assert (refused.status_code, refused.json["error"]["field"]) == (400, field)


@pytest.mark.parametrize(
    ("times", "body"), [("0.1,0.2", b"x"), ("", b""), ("nan", b""), ("0.1", b"x" * 57_600 * 2)]
)
def test_a_body_that_is_not_those_pictures_is_refused(client, times, body):
    key = begin(client, width=320, height=180)
    reply = client.put(f"/api/live/{key}/pictures?times={times}", data=body, headers=HERE)
    assert reply.status_code == 400


def test_columns_of_unequal_length_and_the_other_kind_are_refused(client):
    pictures, rates = begin(client, width=320, height=180), begin(client, focal_eq_mm=26)
    uneven = {"t_s": [0, 1], "pan_deg_s": [0], "tilt_deg_s": [0], "roll_deg_s": [0]}
    assert client.put(f"/api/live/{rates}/rates", json=uneven, headers=HERE).status_code == 400
    even = {name: [0.0] for name in uneven}
    assert client.put(f"/api/live/{pictures}/rates", json=even, headers=HERE).status_code == 400
    assert feed(client, rates, list(shaken(1))).status_code == 400


def test_meters_are_few_and_those_that_nobody_feeds_are_forgotten():
    now = [0.0]
    meters = LiveMeters(lambda: now[0])
    ask = {"focal_eq_mm": 26.0, "aspect": 9 / 16, "target": 4.0, "screen_deg": 30.0}
    first = meters.begin_rates(**ask)
    for _ in range(MOST_METERS - 1):
        meters.begin_rates(**ask)
    with pytest.raises(NotReadyError, match="Too many"):
        meters.begin_rates(**ask)
    now[0] += FORGOTTEN_S + 1
    meters.begin_rates(**ask)
    with pytest.raises(NotFoundError):
        meters.rates(first, np.zeros(0), np.zeros((0, 3)))


def test_a_meter_begins_with_the_brief_and_lens_of_new_takes(client):
    told = client.get("/api/live/setting", headers=HERE).json
    assert (told["feel"], told["target"]) == ("smooth", 4.0)
    assert told["focal_eq_mm"] > 0


def test_the_simulated_phone_writes_a_log_that_can_be_read(client):
    reply = client.get("/api/live/simulated.csv", headers=HERE)
    assert reply.text.startswith("timestamp_ns,")
    assert len(reply.text.splitlines()) > 3000
