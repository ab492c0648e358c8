"""Errors of the core.

CoreError
└── InvalidArgumentError   a caller broke a stated rule (also a ValueError)

Footage that cannot be measured is not an error here: it is a value with a reason.
"""

from __future__ import annotations


class CoreError(Exception):
    """Base of everything that the core raises on purpose."""


class InvalidArgumentError(CoreError, ValueError):
    """An argument broke its rule; the message quotes its name, its value and the rule."""

    def __init__(self, name: str, value: object, rule: str) -> None:
        super().__init__(f"{name} is {value!r}, but {rule}")
        self.name = name


def require_positive(name: str, value: float) -> None:
    """Raise InvalidArgumentError unless value is finite and above zero."""
    if not 0 < value < float("inf"):
        raise InvalidArgumentError(name, value, "it must be a finite number above zero")
