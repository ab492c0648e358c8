"""Requests of films that arrive in pieces."""

from __future__ import annotations

from pydantic import BaseModel, Field

KEY = "^[0-9a-f]{32}$"


class UploadPath(BaseModel):
    key: str = Field(pattern=KEY)
