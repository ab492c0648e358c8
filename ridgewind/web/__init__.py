"""The web layer: parses requests, calls one service, serialises the answer."""
