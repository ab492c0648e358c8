"""The API's addresses, and the handlers that answer at them.

Every address is known from the start, by a table that is made beside the API's document; what
answers there is imported where it is first asked for. So a start imports what the first page shows,
and not the models and the mathematics of every place.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from functools import cache
from importlib import import_module
from pathlib import Path
from typing import TYPE_CHECKING, Any, NamedTuple

from flask import Flask
from flask.typing import ResponseReturnValue

if TYPE_CHECKING:
    from flask_openapi3 import APIBlueprint, OpenAPI

PLACES = (
    "status_routes", "takes.upload_routes", "takes.routes", "takes.many_routes",
    "takes.decision_routes", "takes.compare_routes", "takes.folder_routes", "takes.example_routes",
    "takes.log_routes", "plan.brief_routes", "plan.routes", "plan.figure_routes",
    "practice.routes", "kit.routes", "kit.bench_routes", "findings.routes",
    "findings.trial_routes", "findings.limit_routes", "findings.hand_routes",
    "findings.progress_routes", "findings.shot_routes", "settings.routes",
    "settings.watched_routes", "phones.routes", "live.routes", "practice.stage_routes",
    "sequence.routes", "sequence.joined_routes", "settings.keeping_routes", "workers.routes",
    "workers.desk_routes",
)  # fmt: skip
"""Modules of handlers, each with its blueprint `api`, in the order of the API's document."""

TABLE = Path(__file__).with_name("addresses.json")


class Address(NamedTuple):
    """place: module of the handler, as in PLACES. methods: of HTTP."""

    place: str
    endpoint: str
    rule: str
    methods: list[str]


class Later:
    """Answers with a handler whose module is imported at the first request."""

    def __init__(self, place: str, endpoint: str) -> None:
        self._place, self._endpoint = place, endpoint

    def __call__(self, **values: Any) -> ResponseReturnValue:
        answer: ResponseReturnValue = _views(self._place)[self._endpoint](**values)
        return answer


def install(app: Flask) -> None:
    """Make every address of the API known to an application."""
    answers: dict[str, Later] = {}  # one that answers at several addresses is one
    for row in json.loads(TABLE.read_text(encoding="utf-8")):
        one = Address(*row)
        answer = answers.setdefault(one.endpoint, Later(one.place, one.endpoint))
        app.add_url_rule(one.rule, one.endpoint, answer, methods=one.methods)


def blueprints() -> list[APIBlueprint]:
    """Of every place, in the order of PLACES; all are imported."""
    return [_blueprint(place) for place in PLACES]


def told() -> list[Address]:
    """The addresses as the blueprints tell them, in their order: the first that fits answers."""
    place_of = {_blueprint(place).name: place for place in PLACES}
    found = []
    for rule in _holding(*blueprints()).url_map.iter_rules():
        asked = rule.methods or set()
        added = {"HEAD"} if "GET" in asked else set()  # by Flask itself, here and there
        if rule.provide_automatic_options:  # type: ignore[attr-defined]
            added.add("OPTIONS")
        methods = sorted(asked - added)
        place = place_of[rule.endpoint.partition(".")[0]]
        found.append(Address(place, rule.endpoint, rule.rule, methods))
    return found


def _blueprint(place: str) -> APIBlueprint:
    found: APIBlueprint = import_module(f"ridgewind.web.{place}").api
    return found


def _holding(*apis: APIBlueprint) -> OpenAPI:
    from flask_openapi3 import OpenAPI  # noqa: PLC0415 (a tenth of a start; its places need it)

    app = OpenAPI(__name__, doc_ui=False, static_folder=None)
    for api in apis:
        app.register_api(api)
    return app


@cache
def _views(place: str) -> dict[str, Callable[..., Any]]:
    return _holding(_blueprint(place)).view_functions
