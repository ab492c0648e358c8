"""What a server is started with."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from ridgewind.library.library import Library

HOST = "127.0.0.1"


@dataclass(frozen=True)
class Start:
    """What to serve. before: called with the library once nobody else can use it, before anything
    in it is opened. fill: called with the prepared library before the first request. goes_on: what
    goes on in the background from then on, until it is told to stop. network: the address at which
    phones may come from the beginning, "" for the first of the computer's own. broker: address of
    the one that hands work to other machines, "" for none. resting: measuring and rendering are
    left to these from the beginning. stayed: why the library came back from another place."""

    library: Path
    port: int
    demo: bool = False
    open_browser: bool = False
    network: str | None = None
    broker: str = ""
    resting: bool = False
    stayed: str | None = None
    before: Callable[[Library], None] = lambda _library: None
    fill: Callable[[Library], None] | None = None
    goes_on: Callable[[Library, threading.Event], None] | None = None
    announce: Callable[[str], None] = print
