"""Codes that a camera reads, drawn."""

from __future__ import annotations

import io
from typing import Literal

import segno

QUIET_FIELDS = 4
"""Empty fields around a code (ISO/IEC 18004)."""


def svg_of(text: str, *, error: Literal["m", "h"]) -> bytes:
    """A QR code that fills what shows it, dark on white. error: how much of it may be missing, a
    sixth ("m") or a third ("h")."""
    buffer = io.BytesIO()
    segno.make(text, error=error, micro=False).save(
        buffer, kind="svg", border=QUIET_FIELDS, dark="#000", light="#fff", xmldecl=False,
        svgns=True, omitsize=True,
    )  # fmt: skip
    return buffer.getvalue()
