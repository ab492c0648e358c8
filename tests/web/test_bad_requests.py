"""Whatever is asked, no address answers with a fault that was not foreseen."""

from __future__ import annotations

import json
import re
import time
from pathlib import Path
from urllib.parse import urlencode

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


def filled(path: str, value: str) -> str:
    """An address with one value in each of its places."""
    return re.sub(r"\{[^}]+\}", value, path)


def resolved(schema):
    while "$ref" in schema:
        schema = DOCUMENT["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]]
    return schema


def sample(schema, depth=0):
    """Something that fits a schema."""
    schema = resolved(schema)
    for key in ("anyOf", "oneOf", "allOf"):
        if key in schema:
            return sample(schema[key][0], depth)
    if "const" in schema or "enum" in schema:
        return schema.get("const", (schema.get("enum") or [None])[0])
    kind = schema.get("type")
    if kind == "object":
        wanted = schema.get("required", ())
        parts = schema.get("properties", {})
        return {name: sample(parts[name], depth + 1) for name in wanted if name in parts}
    if kind == "array":
        return [sample(schema.get("items", {}), depth + 1)] * schema.get("minItems", 0)
    if kind in ("integer", "number"):
        return schema.get("minimum", schema.get("exclusiveMinimum", 0) + 1)
    return {"boolean": True, "string": "a" * max(1, schema.get("minLength", 1))}.get(kind)


def queries_of(path, method):
    named = DOCUMENT["paths"][path][method].get("parameters", [])
    return [one for one in named if one["in"] == "query"]


@pytest.mark.parametrize("number", NUMBERS)
def test_numbers_that_nothing_has(client, number):
    """In the address, and then one value of a query at a time, beside others that fit."""
    for method, path in ADDRESSES:
        ask(client, method, filled(path, number), "{}")
        for one in queries_of(path, method):
            ask(client, method, f"{filled(path, '1')}?{one['name']}={number}", "{}")
            fit = {
                other["name"]: sample(other["schema"])
                for other in queries_of(path, method)
                if other is not one and other.get("required")
            }
            told = urlencode(fit | {one["name"]: "MARK"}).replace("MARK", number)
            ask(client, method, f"{filled(path, '1')}?{told}", "{}")


def schema_of(operation):
    return resolved(next(iter(operation["requestBody"]["content"].values()))["schema"])


WITH_BODY = [one for one in ADDRESSES if "requestBody" in DOCUMENT["paths"][one[1]][one[0]]]
FEW = (-1, 0, 10**18, 10**19, "\x00", [10**19])


@pytest.mark.parametrize("values", [FEW, pytest.param(VALUES, marks=pytest.mark.soak)])
def test_bodies_that_make_no_sense(client, measured, values):
    """One value at a time, alone and in a body that fits otherwise."""
    for method, path in WITH_BODY:
        schema, address = schema_of(DOCUMENT["paths"][path][method]), filled(path, "1")
        for body in (DEEP, "[]", '"x"', "{", "\ufffe{", '{"a": 1}'):
            ask(client, method, address, body)
        fit = sample(schema)
        for name in schema.get("properties", {}):
            for value in values:
                ask(client, method, address, json.dumps({name: value}))
                if isinstance(fit, dict):
                    ask(client, method, address, json.dumps(fit | {name: value}))


@pytest.mark.parametrize("number", [0, -1, 10**18, 2**63, 10**30])
def test_numbers_out_of_range_are_told_with_their_field(client, measured, number):
    for ask_with, address, body in (
        (client.patch, f"/api/takes/{measured}", {"setup_id": number}),
        (client.patch, f"/api/takes/{measured}", {"brief_id": number}),
        (client.post, "/api/takes/many", {"ids": [number], "choice": "keep"}),
    ):
        reply = ask_with(address, headers=HERE, json=body)
        assert (reply.status_code, reply.json["error"]["field"] is None) == (400, False), body


def test_each_take_is_named_once_and_at_once(client, measured):
    begun_s = time.monotonic()
    reply = client.post(
        "/api/takes/many", headers=HERE, json={"ids": [measured] * 5000, "choice": "keep"}
    )
    assert (reply.status_code, reply.json["error"]["field"]) == (400, "ids")
    assert time.monotonic() - begun_s < 2.0
    for told in ("²", "1,²", f"{10**30}", "0", "-1", ",".join("1" * 5000)):
        reply = client.get("/api/compare", query_string={"takes": told}, headers=HERE)
        assert reply.status_code in (400, 404), told
