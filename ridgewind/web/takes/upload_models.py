"""Films that arrive in pieces."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ridgewind.web.models import Strict


class UploadAsk(Strict):
    """name: of the file."""

    name: str = Field(min_length=1, max_length=300)
    size_bytes: int = Field(ge=0, le=1 << 43)


class UploadPath(BaseModel):
    key: str = Field(pattern="^[0-9a-f]{32}$")


class PieceQuery(Strict):
    """offset: bytes of the film before this piece."""

    offset: int = Field(ge=0, le=1 << 43)


class UploadAnswer(BaseModel):
    """received: bytes that are here. most_piece_bytes: that a piece may hold."""

    key: str
    received: int
    most_piece_bytes: int
