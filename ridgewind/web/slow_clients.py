"""What keeps the listener for phones free of those who only hold it: connections that say nothing,
heads and bodies that never end, answers that nobody reads.

None of these takes a thread. A connection has so long for its TLS handshake (`Server`), for the
head of its first request and of each further one (`PatientProtocol`), and for a body, which is read
whole before the application is asked (`WholeBodies`). Where too many are open, at all or from one
address, the oldest of those that no paired phone has used makes room for the newest.
"""

from __future__ import annotations

import asyncio
import contextlib
import functools
from collections.abc import Awaitable, Callable, MutableMapping
from http.cookies import CookieError, SimpleCookie
from typing import Any

import uvicorn
from uvicorn.protocols.http.h11_impl import H11Protocol

HANDSHAKE_S = 5.0
HEAD_S = 8.0
"""In which the head of a request must be here, from the connection or from the last answer on."""

STRANGERS_BODY_S, KNOWN_BODY_S = 5.0, 120.0
STRANGERS_BYTES, KNOWN_BYTES = 16 << 10, 10 << 20
"""Of a body: a form of six digits, and a piece of a film."""

UNREAD_S = 20.0
"""For which an answer may wait to be read."""

MOST_CONNECTIONS, MOST_OF_ONE_ADDRESS = 160, 48
"""A phone's browser opens six. More than enough of them may be behind one address."""

Scope = MutableMapping[str, Any]
Receive = Callable[[], Awaitable[MutableMapping[str, Any]]]
Send = Callable[[MutableMapping[str, Any]], Awaitable[None]]


class Connections:
    """All that are open, the oldest first; used in the loop's thread alone."""

    def __init__(self) -> None:
        self._open: dict[tuple[str, int], PatientProtocol] = {}
        self._known: set[tuple[str, int]] = set()

    def add(self, client: tuple[str, int], protocol: PatientProtocol) -> None:
        """One more, for which others may have to go, or it itself."""
        self._open[client] = protocol
        same = [one for one in self._open if one[0] == client[0]]
        if len(same) > MOST_OF_ONE_ADDRESS:
            self._drop_oldest(same)
        elif len(self._open) > MOST_CONNECTIONS:
            self._drop_oldest(list(self._open))

    def remove(self, client: tuple[str, int]) -> None:
        """It is closed."""
        self._open.pop(client, None)
        self._known.discard(client)

    def is_known(self, client: tuple[str, int]) -> None:
        """Somebody who is let in has asked over it: it never makes room for others."""
        if client in self._open:
            self._known.add(client)

    def _drop_oldest(self, among: list[tuple[str, int]]) -> None:
        oldest = next((one for one in among if one not in self._known), among[-1])
        self._open[oldest].transport.abort()
        self.remove(oldest)


class PatientProtocol(H11Protocol):
    """HTTP whose patience ends. Made by `protocol`."""

    open_connections: Connections

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        super().connection_made(transport)
        self._late: asyncio.TimerHandle | None = None
        self._unread: asyncio.TimerHandle | None = None
        self._await_head()
        if self.client is not None:
            self.open_connections.add(self.client, self)

    def connection_lost(self, exc: Exception | None) -> None:
        self._head_is_here()
        self._stop_unread()
        if self.client is not None:
            self.open_connections.remove(self.client)
        super().connection_lost(exc)

    def handle_events(self) -> None:
        before = self.cycle
        super().handle_events()
        if self.cycle is not before:
            self._head_is_here()

    def on_response_complete(self) -> None:
        self._await_head()
        super().on_response_complete()

    def pause_writing(self) -> None:
        super().pause_writing()
        self._stop_unread()
        self._unread = self.loop.call_later(UNREAD_S, self._give_up)

    def resume_writing(self) -> None:
        super().resume_writing()
        self._stop_unread()

    def _await_head(self) -> None:
        self._head_is_here()
        self._late = self.loop.call_later(HEAD_S, self._give_up)

    def _head_is_here(self) -> None:
        if self._late is not None:
            self._late.cancel()
            self._late = None

    def _stop_unread(self) -> None:
        if self._unread is not None:
            self._unread.cancel()
            self._unread = None

    def _give_up(self) -> None:
        self.transport.abort()


def protocol(connections: Connections) -> type[PatientProtocol]:
    """The protocol of one listener."""
    return type("_Protocol", (PatientProtocol,), {"open_connections": connections})


class Server(uvicorn.Server):
    """A server whose handshakes end in time."""

    async def startup(self, sockets: Any = None) -> None:
        loop = asyncio.get_running_loop()
        create = functools.partial(loop.create_server, ssl_handshake_timeout=HANDSHAKE_S)
        loop.create_server = create  # type: ignore[method-assign]
        await super().startup(sockets)


class _TooLargeError(Exception):
    """A body is larger than it may be."""


class WholeBodies:
    """Reads each body whole before the application is asked, in the time and size that fit who
    sends it. is_known: whether a cookie or an authorization is of somebody who is let in; called in
    a thread of its own."""

    def __init__(
        self, app: Any, connections: Connections, *, is_known: Callable[[list[str], str], bool]
    ) -> None:
        self._app, self._connections, self._is_known = app, connections, is_known

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            return
        known = await self._knows(scope)
        if known and scope.get("client"):
            self._connections.is_known(tuple(scope["client"]))
        most = KNOWN_BYTES if known else STRANGERS_BYTES
        try:
            async with asyncio.timeout(KNOWN_BODY_S if known else STRANGERS_BODY_S):
                body = await _whole(receive, most)
        except TimeoutError:
            await _refuse(send, 408, b"The rest of this request did not come in time.")
            return
        except _TooLargeError:
            await _refuse(send, 413, b"This request is too large.")
            return
        if body is None:
            return
        given = False

        async def whole() -> MutableMapping[str, Any]:
            nonlocal given
            if given:
                return {"type": "http.disconnect"}
            given = True
            return {"type": "http.request", "body": body, "more_body": False}

        await self._app(scope, whole, send)

    async def _knows(self, scope: Scope) -> bool:
        headers = {name: value.decode("latin-1") for name, value in scope["headers"]}
        cookies: list[str] = []
        with contextlib.suppress(CookieError):
            found = SimpleCookie(headers.get(b"cookie", ""))
            cookies = [one.value for one in found.values()]
        bearer = headers.get(b"authorization", "").removeprefix("Bearer ")
        if not (cookies or bearer):
            return False
        return await asyncio.to_thread(self._is_known, cookies, bearer)


async def _whole(receive: Receive, most: int) -> bytes | None:
    """A body, or None if whoever sent it is gone. Raises _TooLargeError."""
    pieces = bytearray()
    while True:
        event = await receive()
        if event["type"] == "http.disconnect":
            return None
        pieces += event.get("body", b"")
        if len(pieces) > most:
            raise _TooLargeError
        if not event.get("more_body", False):
            return bytes(pieces)


async def _refuse(send: Send, status: int, text: bytes) -> None:
    headers = [(b"content-type", b"text/plain"), (b"connection", b"close")]
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": text})
