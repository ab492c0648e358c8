"""Errors of the core.

CoreError
└── InvalidArgumentError   a caller broke a stated rule (also a ValueError)

Footage that cannot be measured is not an error here: it is a value with a reason.
"""

from __future__ import annotations

from collections.abc import Iterable


class CoreError(Exception):
    """Base of everything that the core raises on purpose."""


class InvalidArgumentError(CoreError, ValueError):
    """An argument broke its rule; the message quotes its name, its value and the rule."""

    def __init__(self, name: str, value: object, rule: str) -> None:
        super().__init__(f"{name} is {value!r}, but {rule}")
        self.name, self.rule = name, rule


def require_positive(name: str, value: float) -> None:
    """Raise InvalidArgumentError unless value is finite and above zero."""
    if not 0 < value < float("inf"):
        raise InvalidArgumentError(name, value, "it must be a finite number above zero")


def require_between(name: str, value: float, low: float, high: float, unit: str = "") -> None:
    """Raise InvalidArgumentError unless low <= value <= high (not a number never is)."""
    if not low <= value <= high:
        rule = f"it must be between {low:g} and {high:g} {unit}".rstrip()
        raise InvalidArgumentError(name, value, rule)


def require_choice(name: str, value: str, choices: Iterable[str]) -> None:
    """Raise InvalidArgumentError unless value is one of the choices."""
    if value not in (known := tuple(choices)):
        raise InvalidArgumentError(name, value, f"it must be one of {', '.join(known)}")
