"""Who may ask: this computer's own pages, with the key."""

from __future__ import annotations

import pytest

from ridgewind.web.app import Config, create_app
from tests.web.conftest import HERE

KEY = "the-key"


@pytest.fixture
def locked(library):
    return create_app(Config(library.root, key=KEY)).test_client()


def test_without_the_key_nothing_is_answered(locked):
    refused = locked.get("/api/takes", headers=HERE)
    assert (refused.status_code, refused.json["error"]["code"]) == (401, "locked")
    assert locked.post("/api/uploads", json={}, headers=HERE).status_code == 401
    assert locked.get("/", headers=HERE).status_code == 401


def test_the_key_in_the_address_becomes_a_cookie_and_leaves_the_address(locked):
    reply = locked.get(f"/takes?key={KEY}&sort=gust", headers=HERE)
    assert (reply.status_code, reply.headers["Location"]) == (303, "/takes?sort=gust")
    assert "ridgewind-8421" in reply.headers["Set-Cookie"]
    cookie = reply.headers["Set-Cookie"].split(";")[0]
    assert locked.get("/api/takes", headers=HERE | {"Cookie": cookie}).status_code == 200
    elsewhere = {"Host": "127.0.0.1:9000", "Cookie": cookie}
    assert locked.get("/api/takes", headers=elsewhere).status_code == 401


@pytest.mark.parametrize("path", ["//evil.example/x", "/\\evil.example"])
def test_the_way_on_never_leads_elsewhere(locked, path):
    reply = locked.get(f"{path}?key={KEY}", headers=HERE)
    assert reply.status_code in (303, 308, 404)
    assert not reply.headers.get("Location", "/").startswith("//")


def test_a_key_that_is_told_beats_a_cookie(locked):
    locked.get(f"/?key={KEY}", headers=HERE)
    right, wrong = ({"Authorization": f"Bearer {key}"} for key in (KEY, "guessed"))
    assert locked.get("/api/takes", headers=HERE | right).status_code == 200
    assert locked.get("/api/takes", headers=HERE | wrong).status_code == 401


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
def test_another_site_cannot_even_read(client, site):
    told = HERE | {"Sec-Fetch-Site": site}
    assert client.get("/api/takes", headers=told | {"Sec-Fetch-Mode": "no-cors"}).status_code == 403
    page = client.get("/takes", headers=told | {"Sec-Fetch-Mode": "navigate"})
    assert page.status_code != 403
    page.close()


def test_the_key_is_kept_for_its_owner_alone(library):
    key = library.key()
    assert len(key) >= 32
    assert library.key() == key
    assert (library.root / "key").stat().st_mode & 0o077 == 0
