"""However many hold the listener for phones, a paired phone and the local page are answered."""

from __future__ import annotations

import http.client
import socket
import ssl
import threading
import time
from contextlib import ExitStack, closing, suppress

import pytest
import waitress

from ridgewind.web import slow_clients
from ridgewind.web.app import Config, create_app
from tests.conftest import wait_for
from tests.web.phones.test_network import ADDRESS, network, paired, phone

__all__ = ["network", "paired", "phone"]

ATTACKERS = ("127.0.0.1", "127.0.0.3", "127.0.0.4", "127.0.0.5", "127.0.0.6")
LONGEST_S = 2.0


@pytest.fixture
def local(library):
    """The port of the page on the computer itself, as it is served."""
    server = waitress.create_server(create_app(Config(library.root)), host="127.0.0.1", port=0)
    running = threading.Thread(target=server.run, daemon=True)
    running.start()
    yield int(server.effective_port)
    server.close()
    running.join(5)


def attack(network, number: int, stack: ExitStack):
    """One of the ways of holding a connection; returns what goes on sending, or None."""
    port = int(network.host.rsplit(":")[-1])
    source = (ATTACKERS[number % len(ATTACKERS)], 0)
    line = stack.enter_context(
        closing(socket.create_connection((ADDRESS, port), 5, source_address=source))
    )
    kind = number % 6
    if kind == 0:
        return None  # says nothing
    if kind == 1:
        line.sendall(b"\x16\x03\x01")  # begins a handshake
        return None
    trust = ssl.create_default_context()
    trust.check_hostname, trust.verify_mode = False, ssl.CERT_NONE
    safe = stack.enter_context(closing(trust.wrap_socket(line)))
    if kind == 2:
        return None  # idle behind TLS
    head = f"Host: {network.host}\r\n"
    if kind == 3:
        safe.sendall(b"GET /pair HTTP/1.1\r\nX-")  # a head that never ends
        return safe, b"a"
    cookie = "Cookie: __Host-ridgewind-1=made-up\r\n" if kind == 5 else ""
    form = "Content-Type: application/x-www-form-urlencoded\r\nContent-Length: 1500\r\n\r\n"
    safe.sendall(f"POST /pair HTTP/1.1\r\n{head}{cookie}{form}code=".encode())
    return safe, b"1"


@pytest.mark.parametrize("count", [60, pytest.param(300, marks=pytest.mark.soak)])
def test_many_that_hold_the_line_keep_nobody_waiting(network, paired, local, count):
    with ExitStack() as stack:
        slow = [one for k in range(count) if (one := suppressed(network, k, stack)) is not None]
        end = time.monotonic() + 3.0
        answers = 0
        while time.monotonic() < end:
            for line, piece in slow:
                with suppress(OSError):
                    line.sendall(piece)
            begun = time.monotonic()
            assert paired.ask("GET", "/api/takes")[0] == 200
            assert time.monotonic() - begun < LONGEST_S
            begun = time.monotonic()
            with closing(http.client.HTTPConnection("127.0.0.1", local, timeout=5)) as page:
                page.request("GET", "/api/takes", None, {"Host": f"localhost:{local}"})
                assert page.getresponse().status == 200
            assert time.monotonic() - begun < LONGEST_S
            answers += 1
            time.sleep(0.3)
        assert answers >= 3


def suppressed(network, number: int, stack: ExitStack):
    with suppress(OSError):  # it was thrown out already
        return attack(network, number, stack)
    return None


@pytest.mark.parametrize("kind", range(6))
def test_patience_with_each_ends(network, phone, monkeypatch, kind):
    for name in ("HANDSHAKE_S", "HEAD_S", "STRANGERS_BODY_S"):
        monkeypatch.setattr(slow_clients, name, 0.5)
    network.open(ADDRESS)  # with less patience
    with ExitStack() as stack:
        attack(network, kind, stack)
        port = int(network.host.rsplit(":")[-1])
        wait_for(lambda: not held(port), 10)


def held(port: int) -> list[str]:
    """Connections of this process to a port that are open at its end too."""
    with open("/proc/self/net/tcp", encoding="ascii") as table:
        rows = [line.split() for line in table][1:]
    return [row[1] for row in rows if row[1].endswith(f":{port:04X}") and row[3] == "01"]


def test_a_stranger_who_sends_much_is_refused(phone):
    status, _, text = phone.ask("POST", "/api/uploads", "x" * 100_000)
    assert (status, text) == (413, "This request is too large.")
