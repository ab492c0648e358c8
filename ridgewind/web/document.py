"""`python -m ridgewind.web.document FILE` writes the OpenAPI document."""

from __future__ import annotations

import json
import sys
from pathlib import Path

from ridgewind.web.app import openapi_document


def text() -> str:
    """The document as stable JSON text."""
    return json.dumps(openapi_document(), indent=2, sort_keys=True) + "\n"


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(text(), encoding="utf-8")
