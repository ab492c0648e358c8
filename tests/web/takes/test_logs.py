"""Motion logs that are sent: looked at, kept, and never read in the server when they are large."""

from __future__ import annotations

import os
import signal

import numpy as np
import pytest

from ridgewind.core.motion.turn_rates import LogError
from ridgewind.media.errors import EMPTY, UnreadableError
from ridgewind.services import aside, logs
from ridgewind.store import database
from tests.sending import announcing
from tests.web.conftest import HERE, send_log

HZ = 200.0


def log_text(seconds=4.0):
    t = np.arange(0, seconds, 1 / HZ)
    rates = np.column_stack([t, *(8 * np.sin(2 * np.pi * hz * t) for hz in (1.0, 1.7, 2.3))])
    return "\n".join(["time_s,pan,tilt,roll", *(",".join(f"{x:.5f}" for x in r) for r in rates)])


def preview(client, key):
    ask = {"upload": key, "mapping": None, "focal_eq_mm": 26.0}
    return client.post("/api/logs/preview", json=ask, headers=HERE)


def keep(client, key, mapping, take_id=None):
    body = {"upload": key, "name": "Phone", "mapping": mapping, "take_id": take_id}
    return client.post("/api/logs", json=body, headers=HERE)


def test_a_log_is_looked_at_and_kept_and_its_upload_is_gone(client, library):
    key = send_log(client, log_text())
    found = preview(client, key).json
    assert (found["seconds"], found["gaps"]) == (pytest.approx(4.0, abs=0.02), 0)
    kept = keep(client, key, found["mapping"])
    assert kept.status_code == 201
    assert kept.json["gust"] == pytest.approx(found["gust"], abs=0.01)
    assert list(library.uploads.iterdir()) == []
    assert preview(client, key).status_code == 404
    (original,) = library.originals.iterdir()
    assert original.read_text() == log_text()


def test_a_log_that_has_not_arrived_whole_is_waited_for(client):
    begun = client.post("/api/uploads", headers=HERE | announcing("log.csv", 10))
    early = preview(client, begun.headers["Location"].rsplit("/", 1)[-1])
    assert early.status_code == 400
    assert "10 bytes are still to come" in early.json["error"]["message"]
    assert preview(client, "0" * 32).status_code == 404


def test_a_large_log_says_the_same_from_a_process_of_its_own(client, monkeypatch):
    here = preview(client, send_log(client, log_text())).json
    monkeypatch.setattr(aside, "LARGE_BYTES", 0)
    monkeypatch.setattr(logs, "read_table", None)  # would fail here
    key = send_log(client, log_text())
    assert preview(client, key).json == here
    wrong = keep(client, key, here["mapping"] | {"pan": "warp"})
    assert wrong.status_code == 422
    assert "There is no column “warp”" in wrong.json["error"]["message"]
    assert keep(client, key, here["mapping"]).status_code == 201


def fails(_library, _db, _log):
    raise UnreadableError(*EMPTY)


def dies(_library, _db, _log):
    os.kill(os.getpid(), signal.SIGKILL)


def test_a_fault_in_that_process_arrives_as_it_was_and_its_death_is_one(
    library, tmp_path, monkeypatch
):
    monkeypatch.setattr(aside, "LARGE_BYTES", 0)
    log = tmp_path / "log.csv"
    log.write_text(log_text())
    with database.opened(library.database) as db:
        with pytest.raises(UnreadableError) as caught:
            aside.work_on(library, db, fails, log)
        assert (caught.value.code, caught.value.next_step) == (EMPTY[0], EMPTY[2])
        with pytest.raises(LogError, match="not enough memory") as died:
            aside.work_on(library, db, dies, log)
        assert died.value.next_step.startswith("cut it")
