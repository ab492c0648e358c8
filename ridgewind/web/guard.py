"""Only this computer, only who opened it, and only our own pages, may ask; phones that were let in,
over a listener of their own; and workers on other machines, each by its key, for work alone.

Whoever holds the key that stands in the printed address gets a cookie for it. Other users of the
computer, and programs without the key, can neither read nor change anything. A browser gives a
cookie to every port of this computer, which is why each server's has a name of its own and no
script can read it.
"""

from __future__ import annotations

import secrets
from urllib.parse import urlencode, urlsplit

from flask import Flask, Response, redirect, request

from ridgewind.web.errors import ForbiddenError, LockedError
from ridgewind.web.phones import door
from ridgewind.web.workers import door as workers_door

LOCAL_NAMES = {"localhost", "127.0.0.1", "::1"}
SAFE_METHODS = {"GET", "HEAD", "OPTIONS"}

POLICY = (
    "default-src 'self'; img-src 'self' data: blob:; media-src 'self' blob:; "
    "style-src 'self' 'unsafe-inline'; object-src 'none'; base-uri 'none'; "
    "frame-ancestors 'none'; form-action 'self'"
)


KEY = "key"
"""Name of the key in the address."""

COOKIE_DAYS = 400
"""As long as browsers keep one."""

LOCKED_PAGE = (
    "Ridgewind is here, but this browser has no key to it.\n\n"
    "Open the address that Ridgewind printed in its terminal, with the key in it; "
    "or start it with --open.\n"
)


def install(app: Flask, *, key: str | None) -> None:
    """Check Host (against rebinding of names), Origin (against other sites) and the key every
    time. key: None where nobody else can ask, as in a test."""

    @app.before_request
    def check() -> None:
        if not door.is_network() and _name_of(f"//{request.host}") not in LOCAL_NAMES:
            raise ForbiddenError(
                "This Ridgewind answers only to this computer's own name.",
                "Open it as http://127.0.0.1 or http://localhost, with its port.",
            )
        origin = request.headers.get("Origin")
        if origin is not None:
            if urlsplit(origin).netloc != request.host:
                raise ForbiddenError(
                    "Another site asked for this.", "Open Ridgewind itself and try again."
                )
        elif _from_another_site() and not _is_navigation():
            raise ForbiddenError(
                "Another site asked for this.", "Open Ridgewind itself and try again."
            )

    @app.before_request
    def check_who() -> Response | None:
        if workers_door.is_worker():
            workers_door.check()
            return None
        if door.is_network():
            return door.check()
        return None if key is None else _check_key(key)

    @app.after_request
    def harden(response: Response) -> Response:
        response.headers.setdefault("Content-Security-Policy", POLICY)
        response.headers.setdefault("X-Content-Type-Options", "nosniff")
        response.headers.setdefault("Referrer-Policy", "no-referrer")
        response.headers.setdefault("Cross-Origin-Resource-Policy", "same-origin")
        return response


def _check_key(key: str) -> Response | None:
    told = request.args.get(KEY)
    if told is not None and request.method in SAFE_METHODS and _same(told, key):
        return _with_cookie(key)
    bearer = request.headers.get("Authorization", "").removeprefix("Bearer ")
    if _same(bearer or request.cookies.get(_cookie_name(), ""), key):
        return None
    if request.path.startswith("/api/"):
        raise LockedError(
            "This browser has no key to Ridgewind.",
            "Open the address that it printed in its terminal, with the key in it.",
        )
    return Response(LOCKED_PAGE, status=401, mimetype="text/plain")


def _with_cookie(key: str) -> Response:
    """The same address without the key, which then stands in no history and no bookmark."""
    rest = [(name, value) for name, value in request.args.items(multi=True) if name != KEY]
    target = request.path.lstrip("/") + (f"?{urlencode(rest)}" if rest else "")
    answer = redirect(f"/{target}", 303)
    answer.set_cookie(
        _cookie_name(),
        key,
        max_age=COOKIE_DAYS * 24 * 3600,
        httponly=True,
        samesite="Lax",  # the page that --open starts with is another site,
    )
    assert isinstance(answer, Response)
    return answer


def _cookie_name() -> str:
    """Of this server's own: cookies do not tell ports apart."""
    return f"ridgewind-{urlsplit(f'//{request.host}').port or 80}"


def _same(told: str, key: str) -> bool:
    return secrets.compare_digest(told.encode(), key.encode())


def _is_navigation() -> bool:
    """Somebody follows a link to a page here; what that shows is not theirs to read."""
    navigates = request.headers.get("Sec-Fetch-Mode") == "navigate"
    return navigates and request.method in SAFE_METHODS


def _from_another_site() -> bool:
    return request.headers.get("Sec-Fetch-Site", "same-origin") not in ("same-origin", "none")


def _name_of(address: str) -> str | None:
    try:
        return urlsplit(address).hostname
    except ValueError:
        return None
