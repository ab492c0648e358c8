"""The second listener: TLS, on one address of the local network, for paired phones alone.

It serves the same application as the first one. What it lets through is the guard's to say, which
knows a request of this listener by a mark that no request can set for itself.
"""

from __future__ import annotations

import logging
import socket
import threading
import time
from collections.abc import Callable, Iterable
from contextlib import suppress
from dataclasses import dataclass
from ipaddress import ip_address
from typing import TYPE_CHECKING, Any
from wsgiref.types import WSGIApplication

import ifaddr

from ridgewind.library.library import Library
from ridgewind.library.local_networks import is_local
from ridgewind.services import workers
from ridgewind.services.pairing import Pairing
from ridgewind.store import database
from ridgewind.store.errors import StorageError
from ridgewind.web.errors import ApiError, BadRequestError

if TYPE_CHECKING:  # what opens to the network is imported as it opens: it is seldom, and large
    from ridgewind.library.certificates import Certificate

log = logging.getLogger(__name__)

MARK = "ridgewind.network"
"""In the environment of a request that came over the network; headers cannot set it."""

PORT = 8422
THREADS = 8
LONELY_S = 30 * 60.0
"""Without a paired phone it closes by itself after so long."""

WATCH_S = 5.0
BEGIN_S, END_S = 10.0, 2.0

NOT_LOCAL = (
    "This is no address of this computer on a local network.",
    "Choose one of those that are offered.",
)
NOT_FREE = (
    "Ridgewind could not be opened on this address.",
    "See whether this computer is still in that network, then try again.",
)


NOT_KEPT = (
    "Its certificate could not be kept in the library.",
    "See whether the disk is full, then try again.",
)


@dataclass(frozen=True)
class Opening:
    """address: as a phone types it, without a path. left_s: until it closes by itself while no
    phone comes."""

    address: str
    certificate: Certificate
    left_s: float


class Network:
    """Opens and closes the listener; use as a context manager. pairing: who may come in."""

    def __init__(self, library: Library, *, lonely_s: float = LONELY_S) -> None:
        self.pairing = Pairing()
        self._library, self._lonely_s = library, lonely_s
        self._guard = threading.Lock()
        self._app: WSGIApplication | None = None
        self._running: _Running | None = None
        self._seen_s = 0.0
        self._stopping = threading.Event()
        self._watch = threading.Thread(target=self._close_when_lonely, daemon=True)

    def serve(self, app: WSGIApplication) -> None:
        """What it is opened for."""
        self._app = app

    def __enter__(self) -> Network:
        self._watch.start()
        return self

    def __exit__(self, *exc: object) -> None:
        self._stopping.set()
        self.close()

    def offered(self) -> list[str]:
        """This computer's own addresses on local networks."""
        found = {
            str(ip.ip)
            for adapter in ifaddr.get_adapters()
            for ip in adapter.ips
            if isinstance(ip.ip, str)
        }
        return sorted(one for one in found if _may_serve(one) and not ip_address(one).is_loopback)

    def open(self, address: str) -> None:
        """Let phones come to an address. Raises BadRequestError, or ApiError where it cannot be
        listened on."""
        if not _may_serve(address):
            raise BadRequestError(*NOT_LOCAL, field="address")
        from ridgewind.library.certificates import certificate_for  # noqa: PLC0415

        with self._guard:
            self._end()
            assert self._app is not None
            try:
                certificate = certificate_for(self._library.network, address)
            except OSError as error:
                raise ApiError(*NOT_KEPT, code="not_opened") from error
            self._running = _Running(self._app, address, certificate, self._is_known)
            self._seen_s = time.monotonic()

    def close(self) -> None:
        """Let nobody come any more; phones stay paired for the next time."""
        with self._guard:
            self._end()

    def opening(self) -> Opening | None:
        """Where it is open, None where it is not."""
        running = self._running
        if running is None:
            return None
        left_s = self._lonely_s - (time.monotonic() - self._seen_s)
        return Opening(running.address, running.certificate, max(0.0, left_s))

    @property
    def host(self) -> str | None:
        """The host and port that a request must name, None where it is closed."""
        running = self._running
        return None if running is None else running.host

    def came(self) -> None:
        """A paired phone is here."""
        self._seen_s = time.monotonic()

    def _is_known(self, cookies: list[str], bearer: str) -> bool:
        """Whether a paired phone, or a worker that is let in, holds one of these."""
        with suppress(StorageError), database.opened(self._library.database) as db:
            return any(self.pairing.phone_of(db, one) for one in cookies) or (
                workers.worker_of(db, bearer) is not None
            )
        return False

    def _end(self) -> None:
        self.pairing.withdraw()
        if self._running is not None:
            self._running.stop()
            self._running = None

    def _close_when_lonely(self) -> None:
        while not self._stopping.wait(min(WATCH_S, self._lonely_s / 4)):
            opening = self.opening()
            if opening is not None and opening.left_s == 0:
                log.info("no phone came; closed to the network")
                self.close()


class _Running:
    """One listener that runs."""

    def __init__(
        self,
        app: WSGIApplication,
        address: str,
        certificate: Certificate,
        is_known: Callable[[list[str], str], bool],
    ) -> None:
        import uvicorn  # noqa: PLC0415
        from a2wsgi import WSGIMiddleware  # noqa: PLC0415

        from ridgewind.web import slow_clients  # noqa: PLC0415

        listener = _listening(address)
        named = f"[{address}]" if ":" in address else address
        self.host = f"{named}:{listener.getsockname()[1]}"
        self.address, self.certificate = f"https://{self.host}", certificate

        def marked(environ: Any, start: Any) -> Iterable[bytes]:
            return app({**environ, MARK: True}, start)

        connections = slow_clients.Connections()
        self._server = slow_clients.Server(
            uvicorn.Config(
                slow_clients.WholeBodies(
                    WSGIMiddleware(marked, workers=THREADS), connections, is_known=is_known
                ),
                http=slow_clients.protocol(connections),
                loop="asyncio",
                ws="none",
                lifespan="off",
                log_config=None,
                log_level=logging.CRITICAL,
                access_log=False,
                server_header=False,
                proxy_headers=False,
                timeout_keep_alive=int(slow_clients.HEAD_S),
                timeout_graceful_shutdown=int(END_S),
                ssl_certfile=str(certificate.chain),
                ssl_keyfile=str(certificate.key),
            )
        )
        self._listener = listener
        self._thread = threading.Thread(
            target=self._server.run, kwargs={"sockets": [listener]}, daemon=True
        )
        self._thread.start()
        end = time.monotonic() + BEGIN_S
        while not self._server.started and self._thread.is_alive() and time.monotonic() < end:
            time.sleep(0.01)
        if not self._server.started:
            self.stop()
            raise ApiError(*NOT_FREE, code="not_opened")

    def stop(self) -> None:
        self._server.should_exit = True
        self._thread.join(2 * END_S)
        self._listener.close()


def _may_serve(address: str) -> bool:
    try:
        found = ip_address(address)
    except ValueError:
        return False
    return is_local(found) and not (found.version == 6 and found.is_link_local)


def _listening(address: str) -> socket.socket:
    """On the usual port, or on any where that is taken. Raises ApiError."""
    family = socket.AF_INET6 if ":" in address else socket.AF_INET
    for port in (PORT, 0):
        listener = socket.socket(family, socket.SOCK_STREAM)
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind((address, port))
            listener.listen(128)
        except OSError:
            listener.close()
        else:
            return listener
    raise ApiError(*NOT_FREE, code="not_opened")
