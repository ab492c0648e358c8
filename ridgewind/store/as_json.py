"""Values that are kept whole, as JSON: SQL never asks about their inside."""

from __future__ import annotations

from functools import cached_property
from typing import Generic, TypeVar

from pydantic import TypeAdapter

Value = TypeVar("Value")


class AsJson(Generic[Value]):
    """How values of a type are kept. How that is done is worked out at the first of them: of all
    types together it takes a tenth of a start."""

    def __init__(self, kind: type[Value]) -> None:
        self._kind = kind

    @cached_property
    def _adapter(self) -> TypeAdapter[Value]:
        return TypeAdapter(self._kind)

    def text(self, value: Value) -> str:
        return self._adapter.dump_json(value).decode()

    def read(self, text: str) -> Value:
        """Raises pydantic's ValidationError where the text is of something else."""
        return self._adapter.validate_json(text)
