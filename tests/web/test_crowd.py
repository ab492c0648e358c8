"""Long work never takes all threads, and is let in again once some of it has ended."""

from __future__ import annotations

import threading

import pytest

from ridgewind.services import trials
from ridgewind.web import crowd
from tests.web.conftest import HERE


@pytest.fixture
def held(monkeypatch):
    """Lets the findings stand still until they are let go; counts those that are in."""
    inside, let_go = threading.Semaphore(0), threading.Event()
    lines = trials.lines

    def slow(db):
        inside.release()
        assert let_go.wait(30)
        return lines(db)

    monkeypatch.setattr(trials, "lines", slow)
    return inside, let_go


def test_what_is_one_too_many_is_asked_to_come_again(client, held):
    inside, let_go = held
    app, codes = client.application, []

    def ask():
        codes.append(app.test_client().get("/api/trials", headers=HERE).status_code)

    asking = [threading.Thread(target=ask) for _ in range(crowd.MOST_AT_ONCE)]
    for one in asking:
        one.start()
    for _ in asking:
        assert inside.acquire(timeout=30)
    refused = client.get("/api/trials", headers=HERE)
    assert (refused.status_code, refused.json["error"]["code"]) == (503, "crowded")
    assert client.get("/api/takes", headers=HERE).status_code == 200
    # What somebody asks to be changed is never refused for it.
    assert client.post("/api/hand/films", json={}, headers=HERE).status_code == 400
    let_go.set()
    for one in asking:
        one.join(30)
    assert codes == [200] * crowd.MOST_AT_ONCE
    # Whoever has left makes room, also where an error ended it.
    for _ in range(2 * crowd.MOST_AT_ONCE):
        assert client.get("/api/compare", headers=HERE).status_code == 400
    assert client.get("/api/trials", headers=HERE).status_code == 200
