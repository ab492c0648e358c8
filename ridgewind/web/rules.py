"""Addresses of the application, made ready when they are needed."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from werkzeug.routing import Rule

Builder = Callable[..., tuple[str, str]]


class LazyRule(Rule):
    """A rule that is matched at once, but whose own address is first built where it is asked for.

    For each rule the routing library compiles two functions that build its address. Few are ever
    built, and compiling them all is a quarter of a second of every start.
    """

    def _compile_builder(self, append_unknown: bool = True) -> Builder:
        compiled: list[Any] = []

        def build(rule: Rule, **values: Any) -> tuple[str, str]:
            if not compiled:
                compiled.append(super(LazyRule, self)._compile_builder(append_unknown))
            done: tuple[str, str] = compiled[0](rule, **values)
            return done

        return build
