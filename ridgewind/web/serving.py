"""Serve a library that is in order, with all that works beside it, until it is interrupted.

Imported while the library is put in order: half of a start are imports, see `server`.
"""

from __future__ import annotations

import logging
import signal
import socket
import tempfile
import threading
import webbrowser
from contextlib import ExitStack
from dataclasses import replace
from pathlib import Path
from urllib.parse import urlsplit

import waitress

from ridgewind.jobs.crew import Crew
from ridgewind.jobs.relocation import Relocation
from ridgewind.library import moving
from ridgewind.library.library import Library
from ridgewind.library.uploads import MOST_PIECE_BYTES
from ridgewind.media.errors import MediaError
from ridgewind.store.errors import StorageError
from ridgewind.web.app import MOST_BODY_BYTES, Config, create_app
from ridgewind.web.errors import ApiError
from ridgewind.web.guard import KEY
from ridgewind.web.network import Network
from ridgewind.web.start import HOST, Start

log = logging.getLogger(__name__)

THREADS = 8
MOST_CONNECTIONS, IDLE_S = 600, 30
"""Held open at once, more than a program that forgets to close its own will have, and fewer than
the files that a system usually lets one program open; and how long one may say nothing."""

IN_MEMORY_BYTES = MOST_PIECE_BYTES + (1 << 20)
"""Of a request's body; only a large motion log is written down before it is looked at."""

STAYED = "the rest could not be brought over; the library stays where it is"


def serve(start: Start, library: Library, listener: socket.socket) -> Start | None:
    """Returns how it goes on where the library was moved. Raises OSError and what `start.fill`
    does, before anything is started."""
    tempfile.tempdir = str(library.incoming)  # large bodies wait on the library's own disk
    if start.fill is not None:
        start.fill(library)
    key = library.key()
    crew = Crew(library, broker=start.broker, resting=start.resting)
    network = Network(library)
    relocation = Relocation(library, fault=start.stayed)
    app = create_app(
        Config(
            library.root,
            demo=start.demo,
            key=key,
            on_stale=crew.refresher.wake,
            on_put=crew.on_put,
            on_watch=crew.watcher.wake,
            network=network,
            desk=crew.desk,
            mover=crew.mover,
            relocation=relocation,
        )
    )
    network.serve(app)
    server = waitress.create_server(
        app,
        sockets=[listener],
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=IDLE_S,
        asyncore_use_poll=True,
        max_request_body_size=MOST_BODY_BYTES,
        inbuf_overflow=IN_MEMORY_BYTES,
        ident="ridgewind",
    )

    def leave() -> None:
        signal.raise_signal(signal.SIGTERM)  # as if it had been asked to stop
        server.pull_trigger()

    relocation.on_ready = leave
    port = listener.getsockname()[1]
    address = f"http://{HOST}:{port}/?{KEY}={key}"
    with ExitStack() as stack:
        stack.enter_context(crew)
        stack.enter_context(network)
        stack.enter_context(relocation)
        start.announce(f"Ridgewind is at {address}  (Ctrl+C stops it)")
        if start.network is not None:
            _open_to_phones(network, start)
        if start.open_browser:
            threading.Timer(0.5, webbrowser.open, [_opener(library, address)]).start()
        stopping = threading.Event()
        beside = None
        if start.goes_on is not None:
            beside = threading.Thread(target=start.goes_on, args=(library, stopping))
            beside.start()
        opening = None
        try:
            server.run()
            opening = network.opening()
        finally:
            server.close()
            stopping.set()
            if beside is not None:
                beside.join()
    library.seal()
    if relocation.ready is None:
        return None
    root = _moved(library, relocation.ready, start)
    return replace(
        start,
        library=root,
        stayed=STAYED if root == library.root else None,
        port=port,
        open_browser=False,
        network=None if opening is None else urlsplit(opening.address).hostname,
        fill=None,
        goes_on=None,
        announce=lambda _line: None,
    )


def _moved(library: Library, target: Path, start: Start) -> Path:
    """Bring the rest over; where that cannot be, it stays where it is."""
    try:
        moving.finish(library, target)
    except (MediaError, StorageError, OSError) as error:
        log.exception("the library could not be moved")
        start.announce(f"The library stays at {library.root}: {error}")
        return library.root
    start.announce(f"The library is at {target} now")
    return target


def _open_to_phones(network: Network, start: Start) -> None:
    offered = network.offered()
    address = start.network or (offered[0] if offered else "")
    try:
        network.open(address)
    except ApiError as error:
        start.announce(f"Phones cannot come: {error.message} {error.hint}")
        return
    opening = network.opening()
    assert opening is not None
    start.announce(
        f"Phones on the network come to {opening.address}; pair them in Settings, Phones"
    )


def _opener(library: Library, address: str) -> str:
    """A page of the owner's alone that leads to the address: what a browser is started with, every
    user of the computer can see."""
    page = library.root / "open.html"
    page.touch(0o600)
    page.write_text(
        '<!doctype html><meta charset="utf-8">'
        f'<meta http-equiv="refresh" content="0;url={address}">'
        f'<title>Ridgewind</title><a href="{address}">Open Ridgewind</a>',
        encoding="utf-8",
    )
    return page.as_uri()
