"""`python -m ridgewind.web.document FILE` writes the OpenAPI document."""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path

from ridgewind.web.blueprint import DOCUMENTED


def document() -> dict[str, object]:
    """The API from its models and routes alone; in a process that has not imported them yet."""
    os.environ[DOCUMENTED] = "1"
    from ridgewind.web.app import Config, create_app  # noqa: PLC0415

    app = create_app(Config(Path("/nonexistent")))
    found: dict[str, object] = app.api_doc  # type: ignore[attr-defined]
    return found


if __name__ == "__main__":
    text = json.dumps(document(), indent=2, sort_keys=True) + "\n"
    Path(sys.argv[1]).write_text(text, encoding="utf-8")
