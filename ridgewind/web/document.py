"""`python -m ridgewind.web.document DOCUMENT TABLE` writes the OpenAPI document of the API, and the
table of its addresses."""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path

from flask_openapi3 import Info, OpenAPI

from ridgewind import __version__
from ridgewind.web.blueprint import DOCUMENTED


def document() -> dict[str, object]:
    """The API from its models and routes alone; in a process that has not imported them yet."""
    os.environ[DOCUMENTED] = "1"
    from ridgewind.web import addresses  # noqa: PLC0415

    app = OpenAPI(
        "ridgewind",
        info=Info(title="Ridgewind", version=__version__),
        validation_error_status=400,
        doc_ui=False,
        static_folder=None,
    )
    for api in addresses.blueprints():
        app.register_api(api)
    found: dict[str, object] = app.api_doc
    return found


def table() -> str:
    """The addresses, one a line."""
    from ridgewind.web import addresses  # noqa: PLC0415

    return "[\n" + ",\n".join(json.dumps(one) for one in addresses.told()) + "\n]\n"


if __name__ == "__main__":
    text = json.dumps(document(), indent=2, sort_keys=True) + "\n"
    Path(sys.argv[1]).write_text(text, encoding="utf-8")
    Path(sys.argv[2]).write_text(table(), encoding="utf-8")
