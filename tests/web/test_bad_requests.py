"""Whatever is asked, no address answers with a fault that was not foreseen."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from tests.web.conftest import HERE

DOCUMENT = json.loads(
    (Path(__file__).parent.parent.parent / "frontend/openapi.json").read_text(encoding="utf-8")
)
ADDRESSES = [(method, path) for path, methods in DOCUMENT["paths"].items() for method in methods]
NUMBERS = (
    "0", "-1", "999", "9223372036854775808", "99999999999999999999999", "²", "%00", "1.5",
    "a" * 300, "..%2f",
)  # fmt: skip
DEEP = "[" * 100_000 + "]" * 100_000
VALUES = (
    None, -1, 10**19, 1e308, "0001-01-01", "9999-12-31T23:59:59Z", "0001-01-01T00:00:00+14:00",
    "\x00", "\ud800", [], {}, [10**19], "~nouser/x", "/" + "a" * 5000,
)  # fmt: skip


def ask(client, method, address, body=None):
    headers = HERE | {"Content-Type": "application/json"}
    reply = getattr(client, method)(address, headers=headers, data=body)
    assert reply.status_code < 500, (method, address[:100], (body or "")[:80])
    if reply.status_code >= 400:
        error = reply.json["error"]
        assert error["message"]
        assert error["hint"]
    reply.close()


@pytest.mark.parametrize("number", NUMBERS)
def test_numbers_that_nothing_has(client, number):
    for method, path in ADDRESSES:
        named = DOCUMENT["paths"][path][method].get("parameters", [])
        address = path
        for one in named:
            if one["in"] == "path":
                address = address.replace(f"{{{one['name']}}}", number)
        queries = [f"{one['name']}={number}" for one in named if one["in"] == "query"]
        ask(client, method, address, "{}")
        if queries:
            ask(client, method, f"{address}?{'&'.join(queries)}", "{}")


def schema_of(operation):
    schema = next(iter(operation["requestBody"]["content"].values()))["schema"]
    while "$ref" in schema:
        schema = DOCUMENT["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]]
    return schema


WITH_BODY = [one for one in ADDRESSES if "requestBody" in DOCUMENT["paths"][one[1]][one[0]]]


@pytest.mark.parametrize(("method", "path"), WITH_BODY)
def test_bodies_that_make_no_sense(client, method, path):
    schema = schema_of(DOCUMENT["paths"][path][method])
    address = path.replace("{", "").replace("}", "")
    for name in ("take_id", "session_id", "position", "setup_id", "brief_id", "item_id", "clip_id"):
        address = address.replace(name, "1")
    for body in (DEEP, "[]", '"x"', "{", "\ufffe{", '{"a": 1}'):
        ask(client, method, address, body)
    for name in schema.get("properties", {}):
        for value in VALUES:
            ask(client, method, address, json.dumps({name: value}))
