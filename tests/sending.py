"""Headers with which a client sends a film in pieces (tus 1.0.0)."""

from __future__ import annotations

import base64
import hashlib

TUS = {"Tus-Resumable": "1.0.0"}


def announcing(name: str, size_bytes: int) -> dict[str, str]:
    told = base64.b64encode(name.encode()).decode()
    return TUS | {"Upload-Length": str(size_bytes), "Upload-Metadata": f"filename {told}"}


def at_offset(offset: int) -> dict[str, str]:
    content = {"Content-Type": "application/offset+octet-stream"}
    return TUS | content | {"Upload-Offset": str(offset)}


def with_sum(piece: bytes) -> dict[str, str]:
    return {
        "Upload-Checksum": f"sha256 {base64.b64encode(hashlib.sha256(piece).digest()).decode()}"
    }
