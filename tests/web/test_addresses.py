"""Addresses answer as they are told, and bring along only what is asked for."""

from __future__ import annotations

import json
import subprocess
import sys

import pytest
from werkzeug.routing import Rule

from ridgewind.web import addresses
from ridgewind.web.app import Config, create_app

NOT_AT_A_START = {
    "cv2", "av", "scipy", "PIL", "huey", "segno", "icalendar", "opentimelineio", "flask_openapi3",
}  # fmt: skip
NOR_OURS = ("_routes", ".routes", ".story", ".camera")


def test_a_server_starts_without_the_decoder_and_without_its_places():
    program = "import sys, ridgewind.cli.serve, ridgewind.web.serving; print(*sys.modules)"
    told = subprocess.run([sys.executable, "-c", program], check=True, capture_output=True)
    imported = set(told.stdout.decode().split())
    assert not NOT_AT_A_START & imported
    assert not [name for name in imported if name.endswith(NOR_OURS)]


def test_every_handler_answers_at_its_addresses(library):
    app = create_app(Config(library.root))
    known = {(rule.rule, rule.endpoint) for rule in app.url_map.iter_rules()}
    told = addresses.told()
    assert [list(one) for one in told] == json.loads(addresses.TABLE.read_text())
    assert {(one.rule, one.endpoint) for one in told} <= known
    assert len(told) > 200


@pytest.mark.parametrize("api", addresses.blueprints(), ids=lambda api: api.name)
def test_no_place_does_what_only_a_whole_application_would(api):
    hooks = (
        api.before_request_funcs, api.after_request_funcs, api.teardown_request_funcs,
        api.url_value_preprocessors, api.url_default_functions,
    )  # fmt: skip
    assert not any(any(one.values()) for one in hooks)
    assert not any(any(codes.values()) for codes in api.error_handler_spec.values())


def test_an_address_is_first_built_where_it_is_asked_for(library, monkeypatch):
    built = []
    whole = Rule._compile_builder

    def told(rule, append_unknown=True):
        built.append(rule.rule)
        return whole(rule, append_unknown)

    monkeypatch.setattr(Rule, "_compile_builder", told)
    app = create_app(Config(library.root))
    assert built == []
    with app.test_request_context():
        assert app.url_for("takes.still", take_id=7) == "/api/takes/7/still"
        assert app.url_for("takes.still", take_id=8, on="x y") == "/api/takes/8/still?on=x+y"
        assert app.url_for("interface", address="plan") == "/plan"
    assert built
    assert set(built) <= {"/api/takes/<int:take_id>/still", "/<path:address>", "/"}
