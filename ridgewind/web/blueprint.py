"""Blueprints of the API's places."""

from __future__ import annotations

import os

from flask_openapi3 import APIBlueprint

DOCUMENTED = "RIDGEWIND_DOCUMENTED"
"""Set in the environment where the OpenAPI document is to be made: collecting it at every import
would take a third of a start."""


def blueprint(name: str, *, prefix: str = "/api") -> APIBlueprint:
    """A blueprint of one part of the API."""
    return APIBlueprint(name, __name__, url_prefix=prefix, doc_ui=DOCUMENTED in os.environ)
