"""The listener for phones, on a second address of this computer: who gets in, and what they may."""

from __future__ import annotations

import http.client
import os
import re
import shutil
import socket
import ssl
import subprocess
import sys
from contextlib import closing
from urllib.parse import urlencode

import pytest

from ridgewind.library.library import Library
from ridgewind.web.app import Config, create_app
from ridgewind.web.network import MARK, Network
from ridgewind.web.phones import door
from tests.conftest import wait_for
from tests.web.conftest import HERE

ADDRESS = "127.0.0.2"
FORM = {"Content-Type": "application/x-www-form-urlencoded"}


@pytest.fixture
def network(library):
    with Network(library) as made:
        made.serve(create_app(Config(library.root, network=made)))
        yield made


@pytest.fixture
def computer(library, network):
    """The application as the computer itself sees it."""
    return create_app(Config(library.root, network=network)).test_client()


class Phone:
    """Asks over the network, with a cookie jar of one cookie; trusts the library's authority."""

    def __init__(self, library: Library, network: Network) -> None:
        self._network, self._authority = network, library.network / "authority.pem"
        self.cookie: str | None = None

    def ask(self, method: str, path: str, body: str | None = None, **headers: str):
        """Returns status, headers and text."""
        host = self._network.host
        trust = ssl.create_default_context(cafile=self._authority)
        given = {"Host": host, **headers} | ({"Cookie": self.cookie} if self.cookie else {})
        with closing(http.client.HTTPSConnection(host, timeout=10, context=trust)) as line:
            line.request(method, path, body, given)
            reply = line.getresponse()
            return reply.status, reply.headers, reply.read().decode(errors="replace")

    def enter(self, digits: str, name: str = "Pocket"):
        form = urlencode({"code": digits, "name": name})
        status, headers, text = self.ask("POST", "/pair", form, **FORM)
        if status == 303:
            self.cookie = headers["Set-Cookie"].split(";")[0]
        return status, headers, text


@pytest.fixture
def phone(library, network):
    network.open(ADDRESS)
    return Phone(library, network)


@pytest.fixture
def paired(phone, network):
    assert phone.enter(network.pairing.offer().digits)[0] == 303
    return phone


def test_an_unpaired_phone_gets_the_page_to_pair_and_nothing_else(phone):
    status, headers, text = phone.ask("GET", "/pair")
    assert (status, "six digits" in text) == (200, True)
    assert "unsafe-inline" not in headers["Content-Security-Policy"]
    for path in ("/", "/takes", "/assets/index.js", "/favicon.ico"):
        status, headers, text = phone.ask("GET", path)
        assert (status, headers["Location"]) == (303, "/pair")
    for method, path in (("GET", "/api/takes"), ("POST", "/api/uploads"), ("GET", "/api/status")):
        status, _, text = phone.ask(method, path)
        assert (status, "not paired" in text) == (401, True)


def test_the_code_becomes_a_cookie_that_no_script_reads_and_no_plain_line_carries(phone, network):
    status, headers, _ = phone.enter(network.pairing.offer().digits)
    assert (status, headers["Location"]) == (303, "/field")
    cookie = headers["Set-Cookie"]
    assert cookie.startswith("__Host-ridgewind-")
    assert {"Secure", "HttpOnly", "Path=/"} <= {part.strip() for part in cookie.split(";")}
    assert phone.ask("GET", "/api/takes")[0] == 200
    assert '"phone":"Pocket"' in phone.ask("GET", "/api/status")[2]


def test_a_wrong_code_is_told_on_the_page_and_lets_nobody_in(phone, network):
    code = network.pairing.offer()
    status, headers, text = phone.enter(f"{(int(code.digits) + 1) % 10**6:06d}")
    assert (status, headers["Set-Cookie"], "not the code" in text) == (403, None, True)
    long = phone.ask("POST", "/pair", "code=" + "1" * 5000, **FORM)
    assert (long[0], network.pairing.code().tries) == (403, 4)


def test_a_key_that_was_replayed_after_removal_opens_nothing(paired, computer):
    shown = computer.get("/api/network", headers=HERE).json
    assert [one["name"] for one in shown["phones"]] == ["Pocket"]
    gone = computer.delete(f"/api/network/phones/{shown['phones'][0]['id']}", headers=HERE)
    assert gone.json["phones"] == []
    assert paired.ask("GET", "/api/takes")[0] == 401


def test_a_connection_that_is_open_when_its_phone_is_removed_is_refused(paired, computer, library):
    trust = ssl.create_default_context(cafile=library.network / "authority.pem")
    host = paired._network.host
    with closing(http.client.HTTPSConnection(host, timeout=10, context=trust)) as line:
        asked = ("GET", "/api/takes", None, {"Cookie": paired.cookie})
        line.request(*asked)
        assert line.getresponse().read()
        phone_id = computer.get("/api/network", headers=HERE).json["phones"][0]["id"]
        computer.delete(f"/api/network/phones/{phone_id}", headers=HERE)
        line.request(*asked)
        assert line.getresponse().status == 401


def test_plain_http_gets_no_answer(phone, network):
    with socket.create_connection((ADDRESS, int(network.host.rsplit(":")[-1])), 5) as line:
        line.sendall(f"GET /pair HTTP/1.1\r\nHost: {network.host}\r\n\r\n".encode())
        line.settimeout(5)
        try:
            answer = line.recv(1000)
        except ConnectionResetError:
            answer = b""
    assert not re.search(rb"HTTP/1.1 [23]", answer)


def test_old_tls_is_refused(phone, network):
    old = ssl.SSLContext(ssl.PROTOCOL_TLS_CLIENT)
    old.check_hostname, old.verify_mode = False, ssl.CERT_NONE
    with pytest.warns(DeprecationWarning, match="TLSv1_1"):
        old.maximum_version = ssl.TLSVersion.TLSv1_1
    port = int(network.host.rsplit(":")[-1])
    with socket.create_connection((ADDRESS, port), 5) as line, pytest.raises(ssl.SSLError):
        old.wrap_socket(line)


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({"Host": "evil.example"}, 403),
        ({"Host": "127.0.0.1:8421"}, 403),
        ({"Origin": "https://evil.example"}, 403),
        ({"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "no-cors"}, 403),
        ({}, 200),
    ],
)
def test_host_and_origin_are_checked_of_paired_phones_too(paired, headers, status):
    assert paired.ask("GET", "/api/takes", **headers)[0] == status


def test_no_header_makes_a_request_one_of_the_network_or_of_the_computer(library, paired):
    locked = create_app(Config(library.root, key="k")).test_client()
    told = {**HERE, MARK: "1", "X-Ridgewind-Network": "1"}
    assert locked.get("/api/takes", headers=told).status_code == 401
    bearer = {"Authorization": "Bearer k"}
    assert paired.ask("DELETE", "/api/cleared", **bearer)[0] == 403


def routes(library):
    app = create_app(Config(library.root))
    return app, [
        (method, rule)
        for rule in app.url_map.iter_rules()
        # HEAD is asked alone where it is not what Flask adds to GET.
        for method in sorted(rule.methods - {"OPTIONS", "HEAD" if "GET" in rule.methods else ""})
    ]


def test_a_phone_may_see_and_change_what_is_listed_and_nothing_else(library, paired):
    _, every = routes(library)
    reads = {rule.endpoint for method, rule in every if method in ("GET", "HEAD")}
    assert reads >= door.MAY_SEE
    changes = {rule.endpoint for method, rule in every if method not in ("GET", "HEAD")}
    assert changes >= door.MAY_CHANGE
    closed = ("keeping.", "folders.", "watched.", "settings.", "workers.", "network.network")
    assert not [one for one in door.MAY_SEE if one.startswith(closed)]
    for method, rule in every:
        path = rule.build(dict.fromkeys(rule.arguments, 1))[1]
        status, _, text = paired.ask(method, path)
        if rule.endpoint.startswith("worker."):
            assert status == 401, (method, path)  # for workers' keys alone
            continue
        refused = "not_on_phone" in text or (method == "HEAD" and status == 403)
        allowed = door.MAY_SEE if method in ("GET", "HEAD") else door.MAY_CHANGE
        if rule.rule != "/pair":
            assert refused is (rule.endpoint not in allowed), (method, path, status)
        assert str(library.root) not in text, (method, path)


@pytest.mark.parametrize(
    "taken_away",
    ["delete", "remove", "clear", "empty", "restore", "bring_back", "archive", "settings",
     "network", "watched", "forget", "undo"],
)  # fmt: skip
def test_nothing_on_the_list_takes_away_or_settles(taken_away):
    assert [name for name in door.MAY_CHANGE if taken_away in name] == []


def test_it_closes_by_itself_while_no_phone_comes(library):
    with Network(library, lonely_s=0.4) as lonely:
        lonely.serve(create_app(Config(library.root, network=lonely)))
        lonely.open(ADDRESS)
        assert lonely.opening().left_s <= 0.4
        wait_for(lambda: lonely.opening() is None, 10)
    with Network(library) as again:
        again.serve(create_app(Config(library.root, network=again)))
        again.open(ADDRESS)
        assert again.opening().left_s > 60


def test_closing_ends_it_at_once_and_opening_moves_it(phone, network, computer):
    network.pairing.offer()
    port = int(network.host.rsplit(":")[-1])
    moved = computer.post("/api/network", json={"address": "127.0.0.3"}, headers=HERE).json
    assert "127.0.0.3" in moved["opening"]["address"]
    assert moved["code"] is None
    with pytest.raises(ConnectionRefusedError):
        socket.create_connection((ADDRESS, port), 1).close()
    closed = computer.delete("/api/network", headers=HERE).json
    assert closed["opening"] is None
    refused = computer.post("/api/network/code", headers=HERE)
    assert (refused.status_code, "not open" in refused.json["error"]["message"]) == (409, True)


@pytest.mark.parametrize("address", ["93.184.216.34", "0.0.0.0", "::", "localhost", "10.99.99.99"])
def test_only_own_local_addresses_are_opened(computer, address):
    refused = computer.post("/api/network", json={"address": address}, headers=HERE)
    assert refused.status_code == 400
    assert computer.get("/api/network", headers=HERE).json["opening"] is None


def test_the_drawn_code_says_where_to_go_and_is_never_kept(phone, network, computer):
    assert computer.get("/api/network/code.svg", headers=HERE).status_code == 409
    network.pairing.offer()
    drawn = computer.get("/api/network/code.svg", headers=HERE)
    assert drawn.headers["Cache-Control"] == "no-store"
    assert drawn.data.startswith(b"<svg")


@pytest.fixture
def another_host():
    """A host of its own behind a cable of its own, where this machine allows it: gives this side's
    address and how to run something on the other."""
    name, here, there = f"rw{os.getpid()}", "10.231.77.1", "10.231.77.2"
    if shutil.which("ip") is None or os.geteuid() != 0:
        pytest.skip("network namespaces need root and iproute2")
    steps = [
        f"netns add {name}",
        f"link add {name} type veth peer name {name}p netns {name}",
        f"addr add {here}/24 dev {name}",
        f"link set {name} up",
        f"-n {name} addr add {there}/24 dev {name}p",
        f"-n {name} link set {name}p up",
    ]
    try:
        for step in steps:
            done = subprocess.run(["ip", *step.split()], capture_output=True, check=False)
            if done.returncode:
                pytest.skip(f"this machine allows no network namespaces: {done.stderr.decode()}")
        yield here, ["ip", "netns", "exec", name]
    finally:
        subprocess.run(["ip", "netns", "del", name], capture_output=True, check=False)


def test_another_host_reaches_the_pairing_page_there_and_nothing_anywhere_else(
    library, network, another_host
):
    here, there = another_host
    network.open(here)
    ask = (
        "import ssl, sys, urllib.request as r\n"
        "trust = ssl.create_default_context(cafile=sys.argv[1])\n"
        "print(r.urlopen(sys.argv[2] + '/takes', timeout=5, context=trust).read().decode())\n"
    )
    program = [*there, sys.executable, "-c", ask, str(library.network / "authority.pem")]

    def asked(address: str) -> subprocess.CompletedProcess[str]:
        command = [*program, address]
        return subprocess.run(command, capture_output=True, text=True, check=False, timeout=30)

    assert "The six digits" in asked(f"https://{network.host}").stdout
    network.close()
    assert "refused" in asked(f"https://{here}:8422").stderr
