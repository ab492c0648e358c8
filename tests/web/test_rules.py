"""Addresses are built as before, and only where they are asked for."""

from __future__ import annotations

from werkzeug.routing import Rule

from ridgewind.web.app import Config, create_app


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
