"""The web layer: parses requests, calls one service, serialises the answer."""

from ridgewind.web.app import Config, create_app

__all__ = ["Config", "create_app"]
