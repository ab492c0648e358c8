"""A server that is asked ten thousand odd things stays as small as it was."""

from __future__ import annotations

import urllib.error
import urllib.request

import pytest

from tests.e2e.conftest import HEADERS, Server
from tests.web.test_bad_requests import ADDRESSES, NUMBERS, filled, queries_of

MOST_MB, ROUNDS = 150, 10_000


def resident_mb(pid: int) -> float:
    with open(f"/proc/{pid}/status", encoding="ascii") as told:
        line = next(one for one in told if one.startswith("VmRSS"))
    return int(line.split()[1]) / 1024


@pytest.mark.soak
def test_memory_stays_after_ten_thousand_requests(tmp_path, short_film):
    server = Server("serve", tmp_path / "library", tmp_path / "log", cold=True)
    try:
        server.send(short_film)
        server.wait_until(lambda: server.get("/api/takes")["busy"] == 0)
        asked = [
            (method.upper(), f"{filled(path, number)}{query}")
            for number in ("1", *NUMBERS)
            for method, path in ADDRESSES
            for query in ("", *(f"?{one['name']}=1" for one in queries_of(path, method)))
            if "archive" not in path and number.isascii() and "%" not in number
        ]
        for method, address in asked[: len(asked) // 3]:
            ask(server, method, address)
        before = resident_mb(server.pid)
        for k in range(ROUNDS):
            ask(server, *asked[k % len(asked)])
        assert resident_mb(server.pid) - before < MOST_MB
    finally:
        server.stop()


def ask(server: Server, method: str, address: str) -> None:
    headers = HEADERS | {"Content-Type": "application/json"}
    body = None if method == "GET" else b"{}"
    request = urllib.request.Request(server.address + address, body, headers, method=method)
    status = 200
    try:
        with urllib.request.urlopen(request, timeout=30) as reply:
            reply.read(1 << 20)
    except urllib.error.HTTPError as error:
        status = error.code
    assert status < 500 or status in (503, 507), (method, address)
