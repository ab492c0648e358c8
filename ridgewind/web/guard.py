"""Only this computer, and only our own pages, may ask."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Flask, Response, request

from ridgewind.web.errors import ForbiddenError

LOCAL_NAMES = {"localhost", "127.0.0.1", "::1"}
SAFE_METHODS = {"GET", "HEAD", "OPTIONS"}

POLICY = (
    "default-src 'self'; img-src 'self' data: blob:; media-src 'self' blob:; "
    "style-src 'self' 'unsafe-inline'; object-src 'none'; base-uri 'none'; "
    "frame-ancestors 'none'; form-action 'self'"
)


def install(app: Flask) -> None:
    """Check Host (against rebinding of names) and Origin (against other sites) every time."""

    @app.before_request
    def check() -> None:
        if _name_of(f"//{request.host}") not in LOCAL_NAMES:
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
        elif request.method not in SAFE_METHODS and _from_another_site():
            raise ForbiddenError(
                "Another site asked for this.", "Open Ridgewind itself and try again."
            )

    @app.after_request
    def harden(response: Response) -> Response:
        response.headers.setdefault("Content-Security-Policy", POLICY)
        response.headers.setdefault("X-Content-Type-Options", "nosniff")
        response.headers.setdefault("Referrer-Policy", "no-referrer")
        response.headers.setdefault("Cross-Origin-Resource-Policy", "same-origin")
        return response


def _from_another_site() -> bool:
    return request.headers.get("Sec-Fetch-Site", "same-origin") not in ("same-origin", "none")


def _name_of(address: str) -> str | None:
    try:
        return urlsplit(address).hostname
    except ValueError:
        return None
