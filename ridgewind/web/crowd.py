"""What takes long to work out never takes all of the server's threads: a page answers beside it."""

from __future__ import annotations

from threading import BoundedSemaphore

from flask import Flask, g, request

from ridgewind.web.errors import CrowdedError

LONG = frozenset({"compare", "trials", "limits", "hand", "shot", "progress", "joined"})
"""Parts of the interface that work something out from many takes."""

MOST_AT_ONCE = 4
"""Half of the threads that serve; what is more is asked to come again."""


def install(app: Flask) -> None:
    """Refuse long work that is one too many; the page asks again by itself."""
    free = BoundedSemaphore(MOST_AT_ONCE)

    @app.before_request
    def enter() -> None:
        # A change is never refused: nobody would send it again.
        if request.blueprint not in LONG or request.method not in ("GET", "HEAD"):
            return
        if not free.acquire(blocking=False):
            raise CrowdedError
        g.entered = True

    @app.teardown_request
    def leave(_error: BaseException | None) -> None:
        if g.pop("entered", False):
            free.release()
