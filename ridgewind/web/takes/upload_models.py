"""Requests of films that arrive in pieces."""

from __future__ import annotations

from pydantic import Field

from ridgewind.web.models import Model

KEY = "^[0-9a-f]{32}$"


class UploadPath(Model):
    key: str = Field(pattern=KEY)
